package fastener

// Crosswise is the order in which count bolts of a circle, numbered from 1
// round the circle, are tightened: each next bolt lies opposite or nearly so,
// and the pairs are spread so that the joint closes evenly.
func Crosswise(count int) []int {
	if count <= 0 {
		return nil
	}
	order := make([]int, 0, count)
	if count%2 == 1 {
		// An odd circle has no opposite; stepping by half of it comes nearest.
		step := count / 2
		for gcd(step, count) != 1 {
			step--
		}
		for i, p := 0, 0; i < count; i, p = i+1, (p+max(step, 1))%count {
			order = append(order, p+1)
		}
		return order
	}
	half := count / 2
	for _, p := range spread(half) {
		order = append(order, p+1, p+half+1)
	}
	return order
}

// spread orders 0..n−1 on a closed ring so that each is as far as may be from
// those before it.
func spread(n int) []int {
	order := []int{0}
	taken := map[int]bool{0: true}
	for len(order) < n {
		best, far := -1, -1
		for p := range n {
			if taken[p] {
				continue
			}
			near := n
			for _, q := range order {
				d := p - q
				if d < 0 {
					d = -d
				}
				near = min(near, d, n-d)
			}
			if near > far {
				best, far = p, near
			}
		}
		order = append(order, best)
		taken[best] = true
	}
	return order
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// StageShares are the shares of full torque for a number of rounds; three
// rounds is the workshop's usual 30, 60, 100 %.
func StageShares(steps int) []float64 {
	if steps == 3 {
		return []float64{0.3, 0.6, 1}
	}
	out := make([]float64, steps)
	for i := range out {
		out[i] = float64(i+1) / float64(steps)
	}
	return out
}

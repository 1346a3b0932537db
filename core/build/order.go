package build

// Placed is a part in the order in which parts came off.
type Placed struct {
	Code, Kind, Branch string
	Done               bool // fitted
}

// Order gives the indices of parts in fitting order: last off, first on; bolts that stand
// behind what they hold go in after it.
func Order(parts []Placed) []int {
	out := make([]int, 0, len(parts))
	for i := len(parts) - 1; i >= 0; i-- {
		if holds(parts, i) {
			out = append(out, i-1, i)
			i--
			continue
		}
		out = append(out, i)
	}
	return out
}

// holds reports that a part is bolts that hold the one just before them.
func holds(parts []Placed, i int) bool {
	if i == 0 || parts[i].Kind != "bolts" || parts[i-1].Branch != parts[i].Branch {
		return false
	}
	switch parts[i-1].Kind {
	case "cover", "body", "gland", "plate", "tube":
		return true
	}
	return false
}

// Under are the parts that belong under one and are not fitted yet: what is fitted before it,
// on its own branch. A part that is fitted first closes over an open place.
func Under(parts []Placed, code string) (open []string) {
	branch := ""
	for _, p := range parts {
		if p.Code == code {
			branch = p.Branch
		}
	}
	for _, i := range Order(parts) {
		switch p := parts[i]; {
		case p.Code == code:
			return open
		case p.Branch == branch && !p.Done:
			open = append(open, p.Code)
		}
	}
	return nil
}

// Apart are the parts that come out again to get at one: what is fitted after it on its own
// branch, and itself.
func Apart(parts []Placed, code string) (out []string) {
	order := Order(parts)
	at, branch := -1, ""
	for n, i := range order {
		if parts[i].Code == code {
			at, branch = n, parts[i].Branch
		}
	}
	if at < 0 {
		return nil
	}
	for _, i := range order[at:] {
		if parts[i].Branch == branch {
			out = append(out, parts[i].Code)
		}
	}
	return out
}

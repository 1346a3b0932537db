package metrology

import (
	"maps"
	"math"
	"slices"
	"sort"
)

// ShimStock is a thickness in m and how many of it lie in the drawer.
type ShimStock struct {
	Thickness float64
	Count     int
}

// ShimChoice is the pack that brings a clearance nearest the middle of its band.
type ShimChoice struct {
	Predicted    float64   // clearance with the pack as fitted, after machining
	ChangeNeeded float64   // middle − predicted; positive asks for more clearance
	Pack         []float64 // thickest first; replaces the whole fitted pack
	Resulting    float64
	Possible     bool // the result lies inside the band
}

// maxPacks bounds the search; beyond it thicknesses hardly differ any more.
const maxPacks = 200_000

// ChooseShims works out the pack. Shims sit between body and plate, so a
// thicker pack opens the side clearance; metal off the body closes it, metal
// off the gears opens it. Pack candidates come from fitted and available together.
func ChooseShims(measured, lower, upper float64, fitted []float64, available []ShimStock, offBody,
	offGears float64) ShimChoice {
	c := ShimChoice{Predicted: measured - offBody + offGears}
	middle := (lower + upper) / 2
	c.ChangeNeeded = middle - c.Predicted

	stock := append([]ShimStock(nil), available...)
	total := 0.0
	for _, f := range fitted {
		total += f
		stock = append(stock, ShimStock{f, 1})
	}
	target := math.Max(0, total+c.ChangeNeeded)
	c.Pack = nearestPack(stock, target)
	sum := 0.0
	for _, t := range c.Pack {
		sum += t
	}
	c.Resulting = c.Predicted + sum - total
	c.Possible = !above(lower, c.Resulting) && !above(c.Resulting, upper)
	return c
}

type pack struct {
	n      int
	last   float64 // thickness of the shim put on last
	parent *pack
}

// nearestPack is a bounded knapsack over sums in nanometres, one thickness
// after the other: each reachable sum keeps the fewest shims that make it.
func nearestPack(stock []ShimStock, target float64) []float64 {
	const nm = 1e-9
	thickest := 0.0
	for _, s := range stock {
		thickest = math.Max(thickest, s.Thickness)
	}
	ceiling := int64(math.Round((target + thickest) / nm))
	reach := map[int64]*pack{0: {}}
	for _, s := range stock {
		step := int64(math.Round(s.Thickness / nm))
		if step <= 0 || len(reach) > maxPacks {
			continue
		}
		next := maps.Clone(reach)
		for _, sum := range slices.Sorted(maps.Keys(reach)) {
			p := reach[sum]
			for range s.Count {
				sum += step
				if sum > ceiling {
					break
				}
				p = &pack{p.n + 1, s.Thickness, p}
				if old := next[sum]; old == nil || p.n < old.n {
					next[sum] = p
				}
			}
		}
		reach = next
	}
	best, goal := int64(0), int64(math.Round(target/nm))
	for _, sum := range slices.Sorted(maps.Keys(reach)) {
		d, b := abs64(sum-goal), abs64(best-goal)
		if d < b || d == b && reach[sum].n < reach[best].n {
			best = sum
		}
	}
	out := []float64{}
	for p := reach[best]; p.n > 0; p = p.parent {
		out = append(out, p.last)
	}
	sort.Sort(sort.Reverse(sort.Float64Slice(out)))
	return out
}

func abs64(v int64) int64 {
	if v < 0 {
		return -v
	}
	return v
}

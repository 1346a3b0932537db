package metrology

import (
	"errors"
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

// Most that a choice of shims looks at: thicknesses, and packs of different height.
const (
	MostThicknesses = 24
	mostHeights     = 8000
)

// ErrTooManyPacks says that the shims can be put together in too many ways.
var ErrTooManyPacks = errors.New("can be put together in too many ways; give fewer thicknesses")

// ChooseShims works out the pack. Shims sit between body and plate, so a
// thicker pack opens the side clearance; metal off the body closes it, metal
// off the gears opens it. Pack candidates come from fitted and available together;
// ErrTooManyPacks is returned where there are too many.
func ChooseShims(measured, lower, upper float64, fitted []float64, available []ShimStock, offBody,
	offGears float64) (ShimChoice, error) {
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
	var err error
	if c.Pack, err = nearestPack(stock, target); err != nil {
		return ShimChoice{}, err
	}
	sum := 0.0
	for _, t := range c.Pack {
		sum += t
	}
	c.Resulting = c.Predicted + sum - total
	c.Possible = !above(lower, c.Resulting) && !above(c.Resulting, upper)
	return c, nil
}

// pack is the fewest shims of a height: its parent with times the last on top.
type pack struct {
	n      int
	last   float64
	times  int
	parent *pack
}

// nearestPack is a bounded knapsack over heights in nanometres, one thickness
// after the other: each height that can be reached keeps the fewest shims that
// make it.
func nearestPack(stock []ShimStock, target float64) ([]float64, error) {
	const nm = 1e-9
	if len(stock) > MostThicknesses {
		return nil, ErrTooManyPacks
	}
	thickest := 0.0
	for _, s := range stock {
		thickest = math.Max(thickest, s.Thickness)
	}
	ceiling := int64(math.Round((target + thickest) / nm))
	reach := map[int64]*pack{0: {}}
	for _, s := range stock {
		if step := int64(math.Round(s.Thickness / nm)); step > 0 && s.Count > 0 {
			if reach = withShim(reach, step, s, ceiling); reach == nil {
				return nil, ErrTooManyPacks
			}
		}
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
		for range p.times {
			out = append(out, p.last)
		}
	}
	sort.Sort(sort.Reverse(sort.Float64Slice(out)))
	return out, nil
}

// withShim gives the heights that are reached with up to s.Count more of one
// thickness; nil when there are more than can be looked at. Heights that differ
// by whole shims form a chain, along which a queue keeps the starts from which a
// height takes the fewest: so the work does not grow with the count (sliding
// window minimum, textbook on algorithms).
func withShim(reach map[int64]*pack, step int64, s ShimStock, ceiling int64) map[int64]*pack {
	next := maps.Clone(reach)
	seen := map[int64]bool{}
	for _, first := range slices.Sorted(maps.Keys(reach)) {
		if seen[first] {
			continue
		}
		var starts []start // fewest first, older before newer
		for sum, i := first, 0; sum <= ceiling; sum, i = sum+step, i+1 {
			for len(starts) > 0 && i-starts[0].at > s.Count {
				starts = starts[1:]
			}
			here := reach[sum]
			if len(starts) > 0 {
				from := starts[0]
				if n := from.pack.n + i - from.at; here == nil || n < here.n {
					next[sum] = &pack{n, s.Thickness, i - from.at, from.pack}
				}
			}
			if here != nil {
				seen[sum] = true
				for len(starts) > 0 && starts[len(starts)-1].weight() > here.n-i {
					starts = starts[:len(starts)-1]
				}
				starts = append(starts, start{i, here})
			}
			if len(starts) == 0 {
				break
			}
			if len(next) > mostHeights {
				return nil
			}
		}
	}
	return next
}

// start is a height that was reached before, at its place in a chain.
type start struct {
	at   int
	pack *pack
}

func (s start) weight() int { return s.pack.n - s.at }

func abs64(v int64) int64 {
	if v < 0 {
		return -v
	}
	return v
}

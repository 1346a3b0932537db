// Package proof holds a tested unit against what its clearances predict and
// against what the test plan accepts.
//
// A pump is modelled as its theoretical flow less the laminar leaks past its
// own measured clearances and less what its relief valve lets go. Terms after
// ISO 4391, the test after ISO 4409; pressures are gauge, all figures SI.
package proof

import (
	"math"
	"slices"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/leakage"
	"corvek/core/spring"
)

// Model is a unit as its figures describe it.
type Model struct {
	Displacement float64 // m3/rev
	Speed        float64 // rev/min
	Viscosity    float64 // Pa·s, dynamic, at test temperature
	Paths        []leakage.Path
	Relief       Relief
}

// Relief is a direct relief valve; the zero Relief never opens.
type Relief struct {
	Cracking float64 // Pa
	Override float64 // Pa over cracking at which it passes the whole flow
}

// Theoretical is the flow without any leak, m3/s.
func (m Model) Theoretical() float64 {
	return fluidpower.TheoreticalFlow(m.Displacement, m.Speed)
}

// Leak is the flow that slips back at a pressure, m3/s.
func (m Model) Leak(pressure float64) float64 {
	return leakage.Total(m.Paths, leakage.Conditions{Drop: pressure, Viscosity: m.Viscosity})
}

// Deliver is the flow that leaves the unit at a pressure, m3/s, never below 0.
func (m Model) Deliver(pressure float64) float64 {
	flow := m.Theoretical() - m.Leak(pressure)
	if r := m.Relief; r.Cracking > 0 && pressure > r.Cracking {
		open := 1.0
		if r.Override > 0 {
			open = math.Min(1, (pressure-r.Cracking)/r.Override)
		}
		flow -= open * m.Theoretical()
	}
	return math.Max(0, flow)
}

// Efficiency is the volumetric efficiency at a pressure.
func (m Model) Efficiency(pressure float64) float64 {
	if m.Theoretical() == 0 {
		return 0
	}
	return m.Deliver(pressure) / m.Theoretical()
}

// Stall is the highest pressure the unit reaches against a closed line, Pa:
// where leak and relief together take the whole flow.
func (m Model) Stall(upTo float64) float64 {
	lo, hi := 0.0, upTo
	if m.Deliver(hi) > 0 {
		return hi
	}
	for range 60 {
		if mid := (lo + hi) / 2; m.Deliver(mid) > 0 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}

// Size gives a size of the unit by part.feature, in m; ok is false when nothing is known of it.
type Size func(path string) (m float64, ok bool)

// Paths builds the leak paths of a family from clearances and the unit's own sizes. gap gives the total
// clearance. Of a path whose clearance is known and whose sizes are not, lacks names those; it is no path then.
func Paths(f *family.Family, gap, size Size) (out []leakage.Path, lacks []string) {
	for _, l := range f.Leaks {
		g, ok := gap(l.Feature)
		if !ok {
			continue
		}
		missing := 0
		sum := func(text string) float64 {
			terms, _ := family.ReadSum(text) // checked when the family was loaded
			v, open := terms.Of(size)
			missing += len(open)
			for _, path := range open {
				if !slices.Contains(lacks, path) {
					lacks = append(lacks, path)
				}
			}
			return v
		}
		path := leakage.Path{
			Name: l.Name, Shape: leakage.Shape(l.Shape), Count: l.Count,
			Width: sum(l.Width), Diameter: sum(l.Diameter), Length: sum(l.Length),
			Gap: g * l.GapShare, Eccentricity: l.Eccentricity, Share: l.Share,
		}
		if missing == 0 && path.Length > 0 {
			out = append(out, path)
		}
	}
	return out, lacks
}

// ReliefOf gives a relief with a spring of this free length and rate (N/m), held at its installed length on a
// seat of this diameter. A size that is not known is 0, and then it is no relief.
func ReliefOf(freeLength, rate, installed, seat float64) Relief {
	if freeLength <= 0 || rate <= 0 || installed <= 0 || seat <= 0 {
		return Relief{}
	}
	return Relief{Cracking: math.Max(1, spring.Cracking(spring.Force(rate, freeLength, installed), seat))}
}

// Gap is a total clearance with where it comes from.
type Gap struct {
	Value float64 // m
	From  string
	Known bool
}

// The origins of a clearance that the model runs on.
const (
	FromBuilt   = "measured after the build"
	FromShims   = "worked out from the shim pack"
	FromRenewed = "middle of the limits, parts renewed"
	FromFound   = "as found"
	FromNowhere = "not known"
)

// RebuiltGap is the best knowledge of a clearance after the work: measured
// again, else as the chosen shims leave it, else the middle of its limits where
// the parts are new, else as it was found.
func RebuiltGap(built, shimmed, renewed, found Gap) Gap {
	for _, g := range []struct {
		gap  Gap
		from string
	}{{built, FromBuilt}, {shimmed, FromShims}, {renewed, FromRenewed}, {found, FromFound}} {
		if g.gap.Known {
			return Gap{g.gap.Value, g.from, true}
		}
	}
	return Gap{From: FromNowhere}
}

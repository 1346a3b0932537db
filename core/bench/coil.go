package bench

import (
	"fmt"
	"math"

	"corvek/core/calc"
	"corvek/core/decide"
	"corvek/core/quantity"
	"corvek/core/spring"
	"corvek/core/unit"
)

// Coil is a coil spring that sets the unit's relief, or is not as long as the book has it,
// with the pressure that it would set where that can be worked out.
type Coil struct {
	Part      *AsFound
	Doubt     bool    // its length says that it may be another's
	Is        string  // whose it is, as somebody said; "" while open
	Deviation float64 // m from the book's length
	Share     float64 // of it
	Shown     string  // the book's length, as it is written
	Relief    bool    // it sets the unit's relief
	Needs     string  // what the pressure waits for
	Lacks     []string
	Output    *calc.Output
}

// freeLength is the feature by which springs are judged.
const freeLength = "free_length"

// Coil is what the free length of a spring says; nil where it is no spring or was not
// measured, and where it neither raises a doubt nor sets the relief.
func (st *Stripped) Coil(p *AsFound) *Coil {
	f := p.feature(freeLength)
	if f == nil || !f.Found.HasValue {
		return nil
	}
	r := st.Family.Relief
	c := &Coil{Part: p, Is: p.Part.Coil.Is, Relief: r != nil && r.Part == p.Code}
	if f.Found.HasNominal {
		c.Deviation, c.Shown = f.Found.Value-f.Found.Nominal, f.New.Low.Typed
		c.Share = c.Deviation / f.Found.Nominal
		c.Doubt = math.Abs(c.Share) > spring.VariantShare
	}
	switch {
	case c.Relief:
		st.pressureOf(c, f.Found.Value)
	case !c.Doubt:
		return nil
	}
	return c
}

// rate is the spring's own rate in N/m, typed or from its wire; 0 where it is not known.
func (p *AsFound) rate() float64 {
	c := p.Part.Coil
	if rate, ok := c.Rate.Known(); ok {
		return rate
	}
	wire, w := c.Wire.Known()
	mean, m := c.Mean.Known()
	turns, t := c.Turns.Known()
	if w && m && t && mean > wire && turns > 0 {
		return spring.Rate(wire, mean, turns, spring.SteelShear)
	}
	return 0
}

// pressureOf works out what the spring would set by its own rate. Nothing is said of the
// pressure by the length alone: another spring has another rate.
func (st *Stripped) pressureOf(c *Coil, free float64) {
	r := st.Family.Relief
	rate := c.Part.rate()
	if rate == 0 {
		c.Needs = "its own rate, or its wire, diameter and turns: a length alone says no pressure"
		return
	}
	sizes := map[string]float64{}
	for _, path := range []string{r.Installed, r.Seat} {
		size, ok := st.length(path)
		if !ok {
			c.Needs, c.Lacks = st.SizeName(path), append(c.Lacks, path)
			return
		}
		sizes[path] = size
	}
	given := calc.NewGiven().SI("free_length", free, quantity.Length).SI("rate", rate, quantity.SpringRate).
		SI("installed_length", sizes[r.Installed], quantity.Length).SI("seat_diameter", sizes[r.Seat], quantity.Length)
	if target := st.setting(); target > 0 {
		given.SI("target_pressure", target, quantity.Pressure)
	}
	out, err := calc.Ask("coil_spring", given)
	if err != nil {
		c.Needs = err.Error()
		return
	}
	c.Output = out
}

// setting is the pressure the relief is to hold, in Pa: the middle of what book or customer
// give; 0 where nobody gave one.
func (st *Given) setting() float64 {
	low, l := st.Unit.Setting.Low.Known()
	high, h := st.Unit.Setting.High.Known()
	switch {
	case l && h:
		return (low + high) / 2
	case l:
		return low
	case h:
		return high
	}
	return 0
}

// proposal is what is to be asked of the spring first, or what the answer calls for.
func (c *Coil) proposal() (ask string, call decide.Call) {
	if !c.Doubt {
		return "", call
	}
	off := fmt.Sprintf("%s %% off the book's %s", quantity.Figures(100*math.Abs(c.Share), 2), c.Shown)
	switch c.Is {
	case unit.CoilOwn:
		return "", decide.Call{Choice: decide.Replace, Reason: "this variant's spring, and " + off}
	case unit.CoilAnother:
		return "", decide.Call{Choice: decide.Replace, Reason: "another variant's spring, " + off}
	case unit.CoilChanged:
		return "", decide.Call{Choice: decide.Keep, Reason: "changed in the field on purpose, " + off +
			": carried over and set by the test"}
	}
	return "free length " + off + ": is it another variant's?", decide.Call{}
}

// ShimsUnder is how many shims were counted under a spring; counted is false where
// nobody counted, or there are none.
func (st *Stripped) ShimsUnder(p *Part) (n int, counted bool) {
	for _, s := range st.Parts {
		if s.Def.Kind == "shims" && s.Def.Assembly == p.Def.Assembly && s.Def.Branch == p.Def.Branch {
			if found, ok := found(s); ok {
				n, counted = n+found, true
			}
		}
	}
	return n, counted
}

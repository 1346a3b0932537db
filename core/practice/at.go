package practice

import "math"

// At sets an instrument of a kind to what it touches, in the unit of its scale: what is read off it is that, as finely
// as it tells. ok is false where this one does not reach so far.
func At(code string, inch bool, value float64) (e *Exercise, ok bool) {
	kind, known := KindByCode(code)
	if !known || value <= 0 {
		return nil, false
	}
	e = &Exercise{Kind: kind, Inch: inch, Unit: "mm"}
	if inch {
		e.Unit = "in"
	}
	switch code {
	case "vernier_caliper":
		ok = e.caliperAt(value)
	case "micrometer":
		if b := outside(inch); b.at(value) {
			e.micrometer(b)
			ok = true
		}
	case "depth_micrometer":
		if b := depth(inch); b.at(value) {
			e.depth(b)
			ok = true
		}
	case "bore_gauge":
		ok = e.boreAt(value)
	case "dial_indicator":
		ok = e.dialAt(value)
	}
	for i := range e.Asks {
		e.Asks[i].Unit = e.Unit
	}
	return e, ok
}

// The longest that calipers and micrometers reach, in spans of a micrometer.
const reach = 6

func (e *Exercise) caliperAt(value float64) bool {
	step, least, most := 0.05, 5.0, 150.0
	if e.Inch {
		step, least, most = 0.001, 0.2, 6
	}
	if value < least || value > most {
		return false
	}
	e.caliper(int(math.Round(value / step)))
	return true
}

// at turns a micrometer to a size, with the frame or the rod that reaches it.
func (b *Barrel) at(value float64) bool {
	b.Base = math.Floor(value/b.Span) * b.Span
	b.Value = math.Round(value/b.Step) * b.Step
	return value < reach*b.Span && b.Value-b.Base >= 2*b.Turn
}

// swing is how far a dial is moved from zero and read still.
const swing = 45

func (e *Exercise) boreAt(value float64) bool {
	b, ring := boreGauge(e.Inch)
	b.Nominal = math.Round(value)
	if e.Inch {
		b.Nominal = math.Round(value*4) / 4
	}
	b.Ring = b.Nominal + 3*ring
	b.InBore = int(math.Round((b.Ring - value) / b.Division))
	if b.InBore < -swing || b.InBore > swing || b.Nominal == 0 {
		return false
	}
	e.bore(b, ring)
	return true
}

func (e *Exercise) dialAt(value float64) bool {
	d := &Dial{Division: 0.01, Around: 100}
	if e.Inch {
		d.Division = 0.001
	}
	d.High = int(math.Round(value / d.Division))
	if d.High < 1 || d.High > swing {
		return false
	}
	e.dial(d)
	return true
}

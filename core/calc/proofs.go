package calc

import (
	"math"

	"corvek/core/field"
	"corvek/core/fluidpower"
	"corvek/core/metrology"
	"corvek/core/quantity"
)

func init() { register(decayDef, creepDef, standbyDef) }

const (
	kelvin           = fluidpower.Kelvin
	standardT        = 293.15 // K, 20 °C
	standardP        = fluidpower.StandardP
	oilBulk          = fluidpower.OilBulk
	usualCooling     = fluidpower.UsualCooling
	usualUncertainty = fluidpower.ReadingDoubt
)

// none is the share of the book's lower end below which a standby is none at all.
const none = 0.2

// CoolingDrop is the fall of pressure in Pa that cooling by pressure_decay's
// assumed_cooling from the temperature t1 (K) would make with no leak at all.
func CoolingDrop(a *Args, t1 float64) float64 {
	return thermal(a, t1, a.Or("assumed_cooling", usualCooling))
}

// thermal is what a change of temperature (K) does to a pressure that is shut in, in Pa.
func thermal(a *Args, t1, cooling float64) float64 {
	return shutIn(a).Thermal(a.Val("start_pressure"), t1, cooling)
}

func shutIn(a *Args) fluidpower.ShutIn {
	return fluidpower.ShutIn{Gas: a.Text("medium") == "gas", Bulk: a.Or("bulk_modulus", oilBulk)}
}

var decayDef = &Def{
	Name:    "pressure_decay",
	Asked:   []string{"leak"},
	Subject: "Tests",
	Summary: "Leak from a falling pressure, told apart from cooling",
	Inputs: []Input{
		q("volume", quantity.Volume, "shut in"),
		q("start_pressure", quantity.Pressure, "gauge"),
		q("end_pressure", quantity.Pressure, "gauge"),
		q("duration", quantity.Time, ""),
		optional(q("start_temperature", quantity.Temperature, "")),
		optional(q("end_temperature", quantity.Temperature, "")),
		choice("medium", "", "", "gas", "oil"),
		absent(q("bulk_modulus", quantity.Pressure, "of the oil"), "1.5 GPa"),
		optional(q("gauge_resolution", quantity.Pressure, "")),
		absent(q("temperature_uncertainty", quantity.TemperatureDifference, "of each reading"), "1 K"),
		absent(q("assumed_cooling", quantity.TemperatureDifference, "where no temperatures were taken"), "10 K"),
		optional(q("limit", quantity.Flow, "of the leak")),
	},
	Results: []Result{
		{"corrected_end_pressure", "Pa", "gauge, brought to the start temperature"},
		{"leak", "m3/s", "gas: at 101325 Pa and 20 °C"},
		{"verdict", "", "only with a limit, or where nothing can be told"},
		{"thermal_share", "", "of the drop"},
	},
	Formula: "gas: p2' = p2·T1/T2 absolute, leak = Δp·V/t·(293.15/T1)/101325; " +
		"oil: p2' = p2 + K·β·(T1 − T2), leak = V·Δp/(K·t)",
	Source:      "ideal gas; compressible liquid with β = 0.0007 /K",
	Assumptions: "stiff vessel, one temperature throughout",
	Example: `{"volume":"2 L","start_pressure":"100 bar","end_pressure":"97 bar","duration":"20 min",` +
		`"start_temperature":"30 °C","end_temperature":"24 °C","medium":"gas"}`,
	Run: runDecay,
}

func runDecay(a *Args, o *Output) error {
	t1, t2 := standardT, standardT
	temperatures := a.Has("start_temperature") && a.Has("end_temperature")
	if a.Has("start_temperature") != a.Has("end_temperature") {
		name := "end_temperature"
		if a.Has("end_temperature") {
			name = "start_temperature"
		}
		return field.Errorf(name, "is missing beside the other temperature")
	}
	if temperatures {
		t1, t2 = a.Val("start_temperature")+kelvin, a.Val("end_temperature")+kelvin
		if t1 <= 0 || t2 <= 0 {
			return field.Errorf("start_temperature", "lies at absolute zero")
		}
	}
	v, start, end, time := a.Val("volume"), a.Val("start_pressure"), a.Val("end_pressure"), a.Val("duration")
	bulk := a.Or("bulk_modulus", oilBulk)
	corrected, couldBe := shutIn(a).Brought(end, t1, t2), CoolingDrop(a, t1)
	leak := v * (start - corrected) / (bulk * time)
	if shutIn(a).Gas {
		leak = (start - corrected) * v / time * (standardT / t1) / standardP
	}
	o.Fig("corrected_end_pressure", corrected, "Pa")
	o.Fig("leak", leak, "m3/s")
	o.Step("drop %s, of it by temperature %s; leak %s ml/min", bar(start-end), bar(corrected-end), f(leak*6e7))
	drop := start - corrected
	noise := 1e-9 * math.Max(math.Abs(start), standardP)
	open := a.Has("gauge_resolution") && drop > noise && drop <= a.Val("gauge_resolution")*(1+1e-12)
	if !temperatures && drop > noise && drop <= couldBe*(1+1e-12) {
		open = true
		o.Warn("cooling_not_told_apart", "%s K of cooling alone would make a drop of %s: wait and take temperatures",
			f(a.Or("assumed_cooling", usualCooling)), bar(couldBe))
	}
	if sure := thermal(a, t1, a.Or("temperature_uncertainty", usualUncertainty)); temperatures && drop > noise &&
		drop <= sure*(1+1e-12) {
		open = true
		o.Warn("within_temperature", "the %s left over are within what %s K of the thermometers make, %s", bar(drop),
			f(a.Or("temperature_uncertainty", usualUncertainty)), bar(sure))
	}
	switch {
	case open:
		o.Word("verdict", string(metrology.Undecided))
	case a.Has("limit"):
		o.Word("verdict", string(metrology.Judge(leak, metrology.AtMost(a.Val("limit")), 0, false).Verdict))
	}
	if temperatures && start != end {
		o.Fig("thermal_share", (corrected-end)/(start-end), "")
	}
	return nil
}

var creepDef = &Def{
	Name:    "creep_leak",
	Asked:   []string{"leak"},
	Subject: "Tests",
	Summary: "Leak from the creep of a loaded cylinder",
	Inputs: []Input{
		optional(q("area", quantity.Area, "or bore")),
		optional(q("bore", quantity.Length, "")),
		q("creep", quantity.Length, ""),
		q("duration", quantity.Time, ""),
	},
	Results:     []Result{{"leak", "m3/s", ""}},
	Formula:     "Q = A·creep/duration",
	Source:      "volume swept",
	Assumptions: "steady load and temperature; cooling shrinks oil too",
	Example:     `{"bore":"80 mm","creep":"12 mm","duration":"10 min"}`,
	Run: func(a *Args, o *Output) error {
		area := a.Val("area")
		switch {
		case a.Has("area") && a.Has("bore"):
			return field.Errorf("bore", "give the area or the bore, not both")
		case a.Has("bore"):
			area = fluidpower.CircleArea(a.Val("bore"))
		case !a.Has("area"):
			return field.Errorf("area", "is missing; give it in cm2 or in2, or the bore")
		}
		leak := area * a.Val("creep") / a.Val("duration")
		o.Fig("leak", leak, "m3/s")
		o.Step("%s cm²·%s/%s s = %s ml/min", f(area*1e4), mm(a.Val("creep")), f(a.Val("duration")), f(leak*6e7))
		return nil
	},
}

var standbyDef = &Def{
	Name:    "standby",
	Title:   "Standby pressure",
	Asked:   []string{"advice"},
	Subject: "Tests",
	Summary: "Standby pressure against the book, or tuned to the flow under a ceiling",
	Inputs: []Input{
		q("book_low", quantity.Pressure, ""),
		q("book_high", quantity.Pressure, ""),
		q("ceiling", quantity.Pressure, "about a third over book_high is commonly accepted"),
		q("measured", quantity.Pressure, ""),
		q("flow", quantity.Flow, "now"),
		q("flow_needed", quantity.Flow, ""),
		choice("policy", "", "", "book", "tune"),
	},
	Results: []Result{
		{"verdict", "", "low, in, high or over_ceiling"},
		{"advice", "", ""},
		{"next_setting", "Pa", "left out above the ceiling"},
	},
	Formula:     "flow goes as the root of the margin: next = measured·(needed/flow)²",
	Source:      "orifice law",
	Assumptions: "the metering edge stays as it is",
	Example: `{"book_low":"20 bar","book_high":"24 bar","ceiling":"32 bar","measured":"22 bar",` +
		`"flow":"60 L/min","flow_needed":"66 L/min","policy":"tune"}`,
	Run: func(a *Args, o *Output) error {
		low, high, ceiling, now := a.Val("book_low"), a.Val("book_high"), a.Val("ceiling"), a.Val("measured")
		if high < low {
			return field.Errorf("book_high", "lies below book_low")
		}
		if ceiling < high {
			return field.Errorf("ceiling", "lies below book_high")
		}
		verdict := "in"
		switch {
		case now > ceiling:
			verdict = "over_ceiling"
		case now > high:
			verdict = "high"
		case now < low:
			verdict = "low"
		}
		o.Word("verdict", verdict)
		next, advice := now, "keep"
		if a.Text("policy") == "book" {
			switch {
			case now < none*low:
				o.Word("advice", "do not adjust: with hardly any standby look at the feed, the drive and what dumps "+
					"the signal")
				o.Warn("no_standby", "%s is no setting that is off, it is a pump that does not build up", bar(now))
				o.Step("book %s to %s, measured %s", bar(low), bar(high), bar(now))
				return nil
			case now < low:
				next, advice = low, "raise to the book"
			case now > high:
				next, advice = high, "lower to the book"
			}
			o.Word("advice", advice)
			o.Fig("next_setting", next, "Pa")
			o.Step("book %s to %s, measured %s", bar(low), bar(high), bar(now))
			return nil
		}
		ratio := a.Val("flow_needed") / a.Val("flow")
		next = fluidpower.MarginFor(a.Val("flow_needed"), a.Val("flow"), now)
		o.Step("next = %s·(%s/%s)² = %s, ceiling %s", bar(now), lpm(a.Val("flow_needed")), lpm(a.Val("flow")),
			bar(next), bar(ceiling))
		if !finite(next) {
			return field.Errorf("flow", "must be more than zero here")
		}
		switch {
		case now > ceiling && ratio <= 1:
			// The flow is enough: what is too high is the setting.
			next, advice = math.Min(next, ceiling), "lower, at the ceiling at most, and measure the flow again"
		case next > ceiling*(1+1e-12):
			o.Word("advice", "do not raise: look for why the flow is missing")
			o.Warn("above_ceiling", "%s would be needed, over the ceiling of %s; more margin heats the oil",
				bar(next), bar(ceiling))
			return nil
		case next > now:
			advice = "raise and measure the flow again"
		case next < now:
			advice = "lower; the flow is more than needed"
		}
		o.Word("advice", advice)
		o.Fig("next_setting", next, "Pa")
		if next > high {
			o.Warn("over_book", "the setting lies over the book's range; write down both, before and after")
		}
		return nil
	},
}

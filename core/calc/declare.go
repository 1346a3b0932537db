package calc

import "corvek/core/quantity"

// Shorthand for declarations; it keeps a calculator's inputs readable as a table.

func q(name string, d quantity.Dimension, help string) Input {
	return Input{Name: name, Dim: d, Help: help}
}

func optional(in Input) Input {
	in.Optional = true
	return in
}

func absent(in Input, standard string) Input {
	in.Optional, in.Default = true, standard
	return in
}

func signed(in Input) Input {
	in.Signed = true
	return in
}

func atMost(in Input, most float64) Input {
	in.Max = most
	return in
}

func list(name string, d quantity.Dimension, help string) Input {
	return Input{Name: name, Kind: List, Dim: d, Help: help}
}

func number(name, help string) Input { return Input{Name: name, Dim: quantity.Number, Help: help} }

// hours are counted as they stand on an hour meter: a bare number, or "6 h".
func hours(name, help string) Input {
	return Input{Name: name, Dim: quantity.Time, Bare: "h", Help: help}
}

func days(name, help string) Input {
	return Input{Name: name, Dim: quantity.Time, Bare: "days", Help: help}
}

func density(name string) Input {
	return Input{
		Name:     name,
		Dim:      quantity.Density,
		Bare:     "kg/m3",
		Optional: true,
		Default:  "870 kg/m3",
		Help:     "of the oil",
	}
}

func choice(name, standard, help string, choices ...string) Input {
	return Input{Name: name, Kind: Choice, Choices: choices, Optional: standard != "", Default: standard, Help: help}
}

// f writes a figure for a step, four significant figures.
func f(v float64) string { return quantity.Figures(v, 4) }

// mm and the like write a base-unit figure in the unit a shop reads.
func mm(v float64) string   { return f(v*1e3) + " mm" }
func bar(v float64) string  { return f(v/1e5) + " bar" }
func lpm(v float64) string  { return f(v*6e4) + " L/min" }
func cm2(v float64) string  { return f(v*1e4) + " cm²" }
func mpas(v float64) string { return f(v*1e3) + " mPa·s" }

package entry

import (
	"corvek/core/quantity"
	"corvek/core/unit"
)

// needFields are what the machine asks of the unit.
var needFields = []*Field{
	need("flow", "Flow the machine needs", quantity.Flow, func(n *unit.Need) *quantity.Quantity { return &n.Flow }),
	need(
		"torque",
		"Torque the machine needs",
		quantity.Torque,
		func(n *unit.Need) *quantity.Quantity { return &n.Torque },
	),
	need("line_pull", "Line pull", quantity.Force, func(n *unit.Need) *quantity.Quantity { return &n.LinePull }),
	need("drum", "Drum diameter, bare", quantity.Length, func(n *unit.Need) *quantity.Quantity { return &n.Drum }),
	need("rope", "Rope diameter", quantity.Length, func(n *unit.Need) *quantity.Quantity { return &n.Rope }),
	need("layer", "Layer the rope lies in", quantity.Number, func(n *unit.Need) *quantity.Quantity { return &n.Layer }),
	need(
		"factor",
		"Times the line pull it must hold",
		quantity.Number,
		func(n *unit.Need) *quantity.Quantity { return &n.Factor },
	),
	need("load", "Load to lift", quantity.Force, func(n *unit.Need) *quantity.Quantity { return &n.Load }),
	need(
		"load_time",
		"Time with the load",
		quantity.Time,
		func(n *unit.Need) *quantity.Quantity { return &n.LoadTime },
	),
	need(
		"creep",
		"Creep the machine can bear",
		quantity.Length,
		func(n *unit.Need) *quantity.Quantity { return &n.Creep },
	),
	need("leak", "Leak the machine can bear", quantity.Flow, func(n *unit.Need) *quantity.Quantity { return &n.Leak }),
	need("shot", "Shot of one stroke", quantity.Volume, func(n *unit.Need) *quantity.Quantity { return &n.Shot }),
	need(
		"back_low",
		"Lowest back pressure",
		quantity.Pressure,
		func(n *unit.Need) *quantity.Quantity { return &n.BackLow },
	),
	need(
		"back_high",
		"Highest back pressure",
		quantity.Pressure,
		func(n *unit.Need) *quantity.Quantity { return &n.BackHigh },
	),
	need(
		"pressure",
		"Stated pressure",
		quantity.Pressure,
		func(n *unit.Need) *quantity.Quantity { return &n.Pressure },
	),
	need(
		"pilot",
		"Pilot pressure there is",
		quantity.Pressure,
		func(n *unit.Need) *quantity.Quantity { return &n.Pilot },
	),
	need("aux_flow", "Flow of the auxiliary pump", quantity.Flow,
		func(n *unit.Need) *quantity.Quantity { return &n.AuxFlow }),
	need("apart", "Outlets may differ by", quantity.Number, func(n *unit.Need) *quantity.Quantity { return &n.Apart }),
	need("force", "Force it must give", quantity.Force, func(n *unit.Need) *quantity.Quantity { return &n.Force }),
	need("stroke", "Full stroke", quantity.Length, func(n *unit.Need) *quantity.Quantity { return &n.Stroke }),
	need("fill", "Most oil the book lets in", quantity.Volume,
		func(n *unit.Need) *quantity.Quantity { return &n.Fill }),
	need(
		"turns",
		"Turns or strokes until it pumps",
		quantity.Number,
		func(n *unit.Need) *quantity.Quantity { return &n.Turns },
	),
	need(
		"draw_time",
		"Time it may take to draw",
		quantity.Time,
		func(n *unit.Need) *quantity.Quantity { return &n.DrawTime },
	),
	need(
		"cold",
		"Coldest oil it works with",
		quantity.Temperature,
		func(n *unit.Need) *quantity.Quantity { return &n.Cold },
	),
	need(
		"hot",
		"Hottest oil it works with",
		quantity.Temperature,
		func(n *unit.Need) *quantity.Quantity { return &n.Hot },
	),
	need(
		"standing",
		"Stands before it must work",
		quantity.Time,
		func(n *unit.Need) *quantity.Quantity { return &n.Standing },
	),
	need(
		"complaint_pressure",
		"Pressure at which it was complained of",
		quantity.Pressure,
		func(n *unit.Need) *quantity.Quantity { return &n.ComplaintPressure },
	),
	need(
		"complaint_temperature",
		"Oil when it was complained of",
		quantity.Temperature,
		func(n *unit.Need) *quantity.Quantity { return &n.ComplaintTemperature },
	),
	need(
		"complaint_time",
		"After how long",
		quantity.Time,
		func(n *unit.Need) *quantity.Quantity { return &n.ComplaintTime },
	),
	unitTable.line("need_medium", "What it works with", func(p *Place) *string { return &p.Unit.Need.Medium }),
}

func need(name, label string, dim quantity.Dimension, at func(*unit.Need) *quantity.Quantity) *Field {
	return unitTable.size("need_"+name, label, dim, func(p *Place) *quantity.Quantity { return at(&p.Unit.Need) })
}

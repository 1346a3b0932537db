package family

import "corvek/core/quantity"

// Figure is something that is read on the stand: a gauge, a meter, a rule, a count.
type Figure struct {
	Code, Name string
	Dim        quantity.Dimension
	Thins      bool // of the same unit it is another where the oil is thinner
}

// Figures is the vocabulary of what a step of the test can read, in the order of the
// columns of a log.
var Figures = []Figure{
	{"pressure", "Pressure", quantity.Pressure, false},
	{"pressure_end", "Pressure at the end", quantity.Pressure, false},
	{"flow", "Flow", quantity.Flow, true},
	{"case_flow", "Case flow", quantity.Flow, true},
	{"outlet_a", "Flow, outlet A", quantity.Flow, true},
	{"outlet_b", "Flow, outlet B", quantity.Flow, true},
	{"leakage", "Leakage", quantity.Flow, true},
	{"leakage_in", "Leakage, rod in", quantity.Flow, true},
	{"leakage_out", "Leakage, rod out", quantity.Flow, true},
	{"speed", "Speed", quantity.Rotation, false},
	{"torque", "Torque", quantity.Torque, false},
	{"start_torque", "Torque at the start", quantity.Torque, false},
	{"drag_torque", "Drag", quantity.Torque, true},
	{"temperature", "Temperature", quantity.Temperature, false},
	{"temperature_end", "Temperature at the end", quantity.Temperature, false},
	{"standby", "Standby", quantity.Pressure, false},
	{"cut_off", "Cut-off", quantity.Pressure, false},
	{"cracking", "Cracks at", quantity.Pressure, false},
	{"reseat", "Reseats at", quantity.Pressure, false},
	{"falling", "Pressure, coming down", quantity.Pressure, false},
	{"breakaway", "Breaks away at", quantity.Pressure, false},
	{"pilot", "Shifts at", quantity.Pressure, false},
	{"back_pressure", "Back pressure", quantity.Pressure, false},
	{"supply", "Supply pressure", quantity.Pressure, false},
	{"vent", "Vent", quantity.Flow, true},
	{"drift", "Drift", quantity.Length, true},
	{"stroke", "Stroke", quantity.Length, false},
	{"rest_stroke", "Stops short by", quantity.Length, false},
	{"time", "Time", quantity.Time, false},
	{"suction_lift", "Tank level below the inlet", quantity.Length, false},
	{"turns", "Turns", quantity.Number, false},
	{"strokes", "Strokes", quantity.Number, false},
	{"drops", "Drops a minute", quantity.Number, true},
	{"volume", "Volume caught", quantity.Volume, true},
	{"stroke_volume", "Volume a stroke", quantity.Volume, true},
	{"shut_in", "Volume shut in", quantity.Volume, false},
	{"force", "Force", quantity.Force, false},
	{"current", "Current", quantity.Current, false},
	{"coil", "Coil", quantity.Resistance, false},
	{"noise", "Noise in dB(A)", quantity.Number, false},
}

// FigureByCode finds a figure.
func FigureByCode(code string) (Figure, bool) {
	for _, f := range Figures {
		if f.Code == code {
			return f, true
		}
	}
	return Figure{}, false
}

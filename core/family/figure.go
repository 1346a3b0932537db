package family

import "corvek/core/quantity"

// Figure is something that is read on the stand: a gauge, a meter, a rule, a count.
type Figure struct {
	Code, Name string
	Dim        quantity.Dimension
}

// Figures is the vocabulary of what a step of the test can read, in the order of the
// columns of a log.
var Figures = []Figure{
	{"pressure", "Pressure", quantity.Pressure},
	{"pressure_end", "Pressure at the end", quantity.Pressure},
	{"flow", "Flow", quantity.Flow},
	{"case_flow", "Case flow", quantity.Flow},
	{"outlet_a", "Flow, outlet A", quantity.Flow},
	{"outlet_b", "Flow, outlet B", quantity.Flow},
	{"leakage", "Leakage", quantity.Flow},
	{"leakage_in", "Leakage, rod in", quantity.Flow},
	{"leakage_out", "Leakage, rod out", quantity.Flow},
	{"speed", "Speed", quantity.Rotation},
	{"torque", "Torque", quantity.Torque},
	{"start_torque", "Torque at the start", quantity.Torque},
	{"drag_torque", "Drag", quantity.Torque},
	{"temperature", "Temperature", quantity.Temperature},
	{"temperature_end", "Temperature at the end", quantity.Temperature},
	{"standby", "Standby", quantity.Pressure},
	{"cut_off", "Cut-off", quantity.Pressure},
	{"cracking", "Cracks at", quantity.Pressure},
	{"reseat", "Reseats at", quantity.Pressure},
	{"falling", "Pressure, coming down", quantity.Pressure},
	{"breakaway", "Breaks away at", quantity.Pressure},
	{"pilot", "Shifts at", quantity.Pressure},
	{"back_pressure", "Back pressure", quantity.Pressure},
	{"supply", "Supply pressure", quantity.Pressure},
	{"vent", "Vent", quantity.Flow},
	{"drift", "Drift", quantity.Length},
	{"stroke", "Stroke", quantity.Length},
	{"rest_stroke", "Stops short by", quantity.Length},
	{"time", "Time", quantity.Time},
	{"turns", "Turns", quantity.Number},
	{"strokes", "Strokes", quantity.Number},
	{"drops", "Drops a minute", quantity.Number},
	{"volume", "Volume caught", quantity.Volume},
	{"stroke_volume", "Volume a stroke", quantity.Volume},
	{"shut_in", "Volume shut in", quantity.Volume},
	{"force", "Force", quantity.Force},
	{"current", "Current", quantity.Current},
	{"coil", "Coil", quantity.Resistance},
	{"noise", "Noise, dB(A)", quantity.Number},
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

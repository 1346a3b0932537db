package unit

import "corvek/core/quantity"

// Need is what the machine asks of the unit, by which the levels of its claims are told. What
// nobody told is zero: nothing is claimed against it.
type Need struct {
	// At duty
	Flow quantity.Quantity `json:"flow,omitzero" gorm:"serializer:flow"`
	// At duty
	Torque quantity.Quantity `json:"torque,omitzero" gorm:"serializer:torque"`
	// On the layer at work
	LinePull quantity.Quantity `json:"line_pull,omitzero" gorm:"serializer:force"`
	// Without rope
	Drum quantity.Quantity `json:"drum,omitzero" gorm:"serializer:length"`
	Rope quantity.Quantity `json:"rope,omitzero" gorm:"serializer:length"`
	// Counted from the drum
	Layer quantity.Quantity `json:"layer,omitzero" gorm:"serializer:number"`
	// 1 where none is told
	Factor quantity.Quantity `json:"factor,omitzero" gorm:"serializer:number"`
	Load   quantity.Quantity `json:"load,omitzero" gorm:"serializer:force"`
	// To lift it, or over which creep is allowed
	LoadTime quantity.Quantity `json:"load_time,omitzero" gorm:"serializer:time"`
	// Over the time with the load
	Creep    quantity.Quantity `json:"creep,omitzero" gorm:"serializer:length"`
	Leak     quantity.Quantity `json:"leak,omitzero" gorm:"serializer:flow"`
	Shot     quantity.Quantity `json:"shot,omitzero" gorm:"serializer:volume"`
	BackLow  quantity.Quantity `json:"back_low,omitzero" gorm:"serializer:pressure"`
	BackHigh quantity.Quantity `json:"back_high,omitzero" gorm:"serializer:pressure"`
	// Of a gas booster, with its medium
	Pressure quantity.Quantity `json:"pressure,omitzero" gorm:"serializer:pressure"`
	Pilot    quantity.Quantity `json:"pilot,omitzero" gorm:"serializer:pressure"`
	AuxFlow  quantity.Quantity `json:"aux_flow,omitzero" gorm:"serializer:flow"`
	// A share of their mean
	Apart  quantity.Quantity `json:"apart,omitzero" gorm:"serializer:number"`
	Force  quantity.Quantity `json:"force,omitzero" gorm:"serializer:force"`
	Stroke quantity.Quantity `json:"stroke,omitzero" gorm:"serializer:length"`
	// Most oil that the book lets in
	Fill quantity.Quantity `json:"fill,omitzero" gorm:"serializer:volume"`
	// After standing
	Turns quantity.Quantity `json:"turns,omitzero" gorm:"serializer:number"`
	// From empty
	DrawTime             quantity.Quantity `json:"draw_time,omitzero" gorm:"serializer:time"`
	Cold                 quantity.Quantity `json:"cold,omitzero" gorm:"serializer:temperature"`
	Hot                  quantity.Quantity `json:"hot,omitzero" gorm:"serializer:temperature"`
	Standing             quantity.Quantity `json:"standing,omitzero" gorm:"serializer:time"`
	ComplaintPressure    quantity.Quantity `json:"complaint_pressure,omitzero" gorm:"serializer:pressure"`
	ComplaintTemperature quantity.Quantity `json:"complaint_temperature,omitzero" gorm:"serializer:temperature"`
	ComplaintTime        quantity.Quantity `json:"complaint_time,omitzero" gorm:"serializer:time"`
	// What it works with: the gas of a booster, the grease of a lubricator
	Medium string `json:"medium,omitempty"`
}

// Needed gives a need by the name of its field; the zero quantity where it was not told, or where
// it is none that is a figure.
func (u *Unit) Needed(field string) quantity.Quantity {
	at := map[string]*quantity.Quantity{
		"duty_pressure": &u.DutyPressure, "speed": &u.Speed, "displacement": &u.Displacement,
		"setting_low":                &u.Setting.Low,
		"need_flow":                  &u.Need.Flow,
		"need_torque":                &u.Need.Torque,
		"need_line_pull":             &u.Need.LinePull,
		"need_drum":                  &u.Need.Drum,
		"need_rope":                  &u.Need.Rope,
		"need_layer":                 &u.Need.Layer,
		"need_factor":                &u.Need.Factor,
		"need_load":                  &u.Need.Load,
		"need_load_time":             &u.Need.LoadTime,
		"need_creep":                 &u.Need.Creep,
		"need_leak":                  &u.Need.Leak,
		"need_shot":                  &u.Need.Shot,
		"need_back_low":              &u.Need.BackLow,
		"need_back_high":             &u.Need.BackHigh,
		"need_pressure":              &u.Need.Pressure,
		"need_pilot":                 &u.Need.Pilot,
		"need_aux_flow":              &u.Need.AuxFlow,
		"need_apart":                 &u.Need.Apart,
		"need_force":                 &u.Need.Force,
		"need_stroke":                &u.Need.Stroke,
		"need_fill":                  &u.Need.Fill,
		"need_turns":                 &u.Need.Turns,
		"need_draw_time":             &u.Need.DrawTime,
		"need_cold":                  &u.Need.Cold,
		"need_hot":                   &u.Need.Hot,
		"need_standing":              &u.Need.Standing,
		"need_complaint_pressure":    &u.Need.ComplaintPressure,
		"need_complaint_temperature": &u.Need.ComplaintTemperature,
		"need_complaint_time":        &u.Need.ComplaintTime,
	}[field]
	if at == nil {
		return quantity.Quantity{}
	}
	return *at
}

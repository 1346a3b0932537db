package unit

import (
	"encoding/json"
	"time"

	"corvek/core/quantity"
)

// Pour is a portion of oil that was put in at a step of a test, and the full stroke after it.
type Pour struct {
	Volume quantity.Quantity `json:"volume"`
	Stroke quantity.Quantity `json:"stroke"`
	By     string            `json:"by,omitempty"`
	At     time.Time         `json:"at,omitzero"`
}

// UnmarshalJSON reads a pour with its quantities as they were typed.
func (p *Pour) UnmarshalJSON(text []byte) error {
	var typed struct {
		Volume, Stroke, By string
		At                 time.Time
	}
	if err := json.Unmarshal(text, &typed); err != nil {
		return err
	}
	*p = Pour{Volume: quantity.Kept(typed.Volume, quantity.Volume, ""),
		Stroke: quantity.Kept(typed.Stroke, quantity.Length, ""), By: typed.By, At: typed.At}
	return nil
}

// Poured is all the oil in m3 that was put in at the step.
func (p *Point) Poured() (volume float64) {
	for i := range p.Pours {
		volume += p.Pours[i].Volume.SI
	}
	return volume
}

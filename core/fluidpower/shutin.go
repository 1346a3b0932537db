package fluidpower

// Constants of a volume that is shut in under pressure.
const (
	Kelvin       = 273.15   // of 0 °C
	StandardP    = 101325.0 // Pa
	OilBulk      = 1.5e9    // Pa, mineral oil
	OilExpansion = 7.0e-4   // 1/K, mineral oil
	UsualCooling = 10.0     // K, of a unit left alone in a shop
	ReadingDoubt = 1.0      // K by which a temperature in a hold may be off where nothing else is given
)

// ShutIn is a stiff volume left alone: gas, or oil of a bulk modulus in Pa, 0 for the usual.
// Pressures are gauge in Pa, temperatures in K.
type ShutIn struct {
	Gas  bool
	Bulk float64
}

func (s ShutIn) bulk() float64 {
	if s.Bulk > 0 {
		return s.Bulk
	}
	return OilBulk
}

// Thermal is what a change of temperature does to the pressure: ideal gas, or oil that
// cannot expand.
func (s ShutIn) Thermal(pressure, temperature, change float64) float64 {
	if s.Gas {
		return (pressure + StandardP) * change / temperature
	}
	return s.bulk() * OilExpansion * change
}

// Brought is a pressure at the temperature t2 brought to t1.
func (s ShutIn) Brought(pressure, t1, t2 float64) float64 {
	if s.Gas {
		return (pressure+StandardP)*t1/t2 - StandardP
	}
	return pressure + s.bulk()*OilExpansion*(t1-t2)
}

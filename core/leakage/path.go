package leakage

// Shape is the form of a leak path.
type Shape string

// The shapes a family file can name.
const (
	ShapePlane   Shape = "plane"
	ShapeAnnular Shape = "annular"
)

// Path is one way by which oil goes back past a clearance.
type Path struct {
	Name         string
	Shape        Shape
	Count        int     // like gaps in parallel
	Width        float64 // m, plane only
	Diameter     float64 // m, annular only
	Length       float64 // m, along the flow
	Gap          float64 // m, of one gap (annular: radial)
	Eccentricity float64 // annular only
	Share        float64 // share of the unit's pressure drop that acts on it, 0..1
}

// Conditions are what drives the leak: drop in Pa, viscosity in Pa·s.
type Conditions struct{ Drop, Viscosity float64 }

// Flow is the leak of all gaps of the path together, in m3/s.
func (p Path) Flow(c Conditions) float64 {
	n := float64(max(p.Count, 1))
	drop := c.Drop * p.Share
	if p.Gap <= 0 || drop <= 0 || c.Viscosity <= 0 {
		return 0
	}
	if p.Shape == ShapeAnnular {
		return n * Annular(p.Diameter, p.Gap, p.Length, drop, c.Viscosity, p.Eccentricity)
	}
	return n * Plane(p.Width, p.Gap, p.Length, drop, c.Viscosity)
}

// Total adds the flows of parallel paths, in m3/s.
func Total(paths []Path, c Conditions) float64 {
	sum := 0.0
	for _, p := range paths {
		sum += p.Flow(c)
	}
	return sum
}

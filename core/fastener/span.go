package fastener

// OfClass is what a thread bears and takes in one class.
type OfClass struct {
	Class  Class
	Proof  float64 // load in N
	Torque float64 // N·m at the share of that load asked for
}

// Span is a thread in each of the usual classes that its head may bear the mark of: with k of the short torque
// formula, at a share of the proof load. Of a thread whose head mark nobody read none of it is safe.
func Span(t Thread, k, share float64) (out []OfClass) {
	for _, c := range Classes {
		if c.Inch != t.Inch || t.Pipe {
			continue
		}
		proof := c.Proof(t.Diameter) * t.StressArea()
		out = append(out, OfClass{c, proof, Torque(k, t.Diameter, share*proof)})
	}
	return out
}

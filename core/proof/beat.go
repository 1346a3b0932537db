package proof

// delivering are the kinds of parts of which each piece delivers once a turn.
var delivering = map[string]bool{"piston_set": true, "vanes": true}

// Beat is how often a second the pieces of a kind deliver at a speed in rev/min; ok is false
// where the kind does not deliver piece by piece.
func Beat(kind string, pieces int, speed float64) (hertz float64, ok bool) {
	if !delivering[kind] || pieces < 2 || speed <= 0 {
		return 0, false
	}
	return float64(pieces) * speed / 60, true
}

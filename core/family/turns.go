package family

import "slices"

// Turns is which way round a part belongs by the direction of rotation, seen on the shaft end.
type Turns struct {
	Right string `yaml:"right"`
	Left  string `yaml:"left"`
}

// Turned reports that a unit of the family has a displacement, a speed and a way round: it pumps, it is a motor, or a
// claim goes by one of them.
func (f *Family) Turned() bool {
	return f.Action == "pump" || f.Action == "motor" || slices.ContainsFunc(f.Owes, func(o Owed) bool {
		return slices.Contains(o.Needs, "displacement") || slices.Contains(o.Needs, "speed")
	})
}

// Turning is the family as it is of a unit that turns right or left: what stands by the direction has its
// facing. Where nobody said which way it turns the facing stays open, and of a unit that turns both ways such a
// part has none that is right.
func (f *Family) Turning(rotation string) *Family {
	if !slices.ContainsFunc(f.Parts, func(p Part) bool { return p.Turns != nil }) {
		return f
	}
	g := *f
	g.Parts = slices.Clone(f.Parts)
	for i := range g.Parts {
		p := &g.Parts[i]
		switch {
		case p.Turns == nil:
		case rotation == "right":
			p.Facing = p.Turns.Right
		case rotation == "left":
			p.Facing = p.Turns.Left
		case rotation != "":
			p.Turns = nil
		}
	}
	return &g
}

// turned looks through what stands by the direction of rotation.
func (c *checker) turned(p *Part) {
	if t := p.Turns; t != nil && (p.Facing != "" || t.Right == t.Left || !slices.Contains(p.Facings, t.Right) ||
		!slices.Contains(p.Facings, t.Left)) {
		c.fail(p.line, "part %s: by the way it turns it has two of its facings, and no right one besides", p.Code)
	}
}

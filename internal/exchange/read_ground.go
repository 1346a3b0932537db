package exchange

import (
	"corvek/core/entry"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
)

// Most that a document may say of what stood when figures were taken.
const (
	mostGrounds = 20 * job.MostAttempts
	mostStood   = 4000 // values of one ground
)

// grounds are what stood when figures of a test were taken, in the order of their numbers.
func (r *reader) grounds(t *tree, u *unit.Unit) {
	for i, x := range t.list("grounds", mostGrounds) {
		g := &unit.Ground{Number: x.whole("number", i+1, i+1, i+1), Stood: map[string]string{}}
		stood := x.object("stood")
		if len(stood.values) > mostStood {
			x.fail("stood", "holds more than %d values", mostStood)
		}
		for key := range stood.values {
			g.Stood[key] = stood.text(key, entry.MostArea)
		}
		u.Grounds = append(u.Grounds, g)
		x.end()
	}
}

// pours are portions of oil that were put in at a step.
func (r *reader) pours(t *tree, p *unit.Point) {
	for _, x := range t.list("pours", job.MostPours) {
		read := func(name string, d quantity.Dimension) quantity.Quantity {
			q, err := quantity.Parse(x.text(name, mostName), d)
			if err != nil {
				x.fail(name, "%s", err)
			}
			return q
		}
		p.Pours = append(
			p.Pours,
			unit.Pour{Volume: read("volume", quantity.Volume), Stroke: read("stroke", quantity.Length),
				By: x.text("by", mostName), At: x.moment("at")},
		)
		x.end()
	}
}

// takings are how the figures of a step came, of grounds that were read before.
func (r *reader) takings(t *tree, u *unit.Unit, p *unit.Point) {
	all := t.object("taken")
	for name := range all.values {
		x := all.object(name)
		take := unit.Taking{From: x.text("from", mostName), By: x.text("by", mostName), At: x.moment("at"),
			Ground: x.whole("ground", 0, 0, len(u.Grounds))}
		switch take.From {
		case unit.SourceTyped, unit.SourceStand, unit.SourceLog, unit.SourceSimulated, unit.SourceUnknown:
		default:
			x.fail("from", "is typed, stand, log, simulated or unknown")
		}
		p.Take(name, take, true)
		x.end()
	}
}

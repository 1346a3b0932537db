package jobpages

import (
	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/core/wording"
)

// choose gives the choice of a value as the table of fields declares it. A tap on
// what is chosen takes it back, where the value may be empty.
func (l *look) choose(ref unit.Ref) Choice {
	c := Choice{Field: ref.String(), Locked: !l.CanWork()}
	place, f, err := entry.Resolve(l.job, ref, l.shop)
	if err != nil || f.Choices == nil {
		return Choice{Label: "cannot be chosen", Locked: true}
	}
	c.Label, c.Base = f.Label, f.Get(place)
	for _, code := range f.Choices(place) {
		o := Option{Words: wording.Choice(ref.Scope, ref.Name, code), Value: code, On: code == c.Base}
		if o.On && !f.Required {
			o.Value = ""
		}
		c.Options = append(c.Options, o)
	}
	return c
}

// listed gives the answers for a list that unfolds: it says what stands there,
// where a button would take back what is pressed.
func (l *look) listed(ref unit.Ref) Choice {
	c := l.choose(ref)
	known := false
	for i := range c.Options {
		o := &c.Options[i]
		known = known || o.On
		if o.On {
			o.Value = c.Base
		}
	}
	if _, f, err := entry.Resolve(l.job, ref, l.shop); err == nil && !f.Required {
		none := Option{Words: wording.Choice(ref.Scope, ref.Name, ""), On: !known}
		c.Options = append([]Option{none}, c.Options...)
	}
	return c
}

// markState is whether a mark was seen, or looked for and absent.
func (l *look) markState(code string) Choice { return l.choose(l.unit.EvidenceRef(code, "state")) }

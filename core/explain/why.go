package explain

import "slices"

// Unlooked are the likeliest other roots for which nobody looked: of what they almost
// always leave nothing was answered. Fair wear is only what is left once these were
// looked for. At most most of them are given, the likeliest first.
func (k *Knowledge) Unlooked(x Explanation, findings []Finding, most int) (out []*Cause) {
	answered := map[string]bool{}
	for _, f := range findings {
		answered[f.Code] = true
	}
	rivals := slices.DeleteFunc(slices.Clone(x.Ranking), func(r Ranked) bool { return r.Cause.LeftOver })
	for _, r := range rivals[:min(most, len(rivals))] {
		looked := false
		for code, word := range r.Cause.Points {
			looked = looked || answered[code] && word == "almost_always"
		}
		if !looked {
			out = append(out, r.Cause)
		}
	}
	return out
}

// RenewsPart reports that the remedy renews a part of the code and kind.
func (c *Cause) RenewsPart(code, kind string) bool {
	return slices.Contains(c.Renews, code) || slices.Contains(c.Renews, "@"+kind)
}

// Blames gives what is measured, as part.feature, that a cause leaves marks on as a rule:
// blamed, it is measured before the cause is believed.
func (k *Knowledge) Blames(c *Cause) (out []string) {
	for i := range k.Evidence {
		e := &k.Evidence[i]
		if w := c.Points[e.Code]; w != "almost_always" && w != "usual" {
			continue
		}
		for _, path := range []string{e.From.Used, e.From.Grade, e.From.Odd} {
			if path != "" {
				out = append(out, path)
			}
		}
	}
	return out
}

package report

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// LevelOf says on what figures a claim stands: of each step that shows it what was read, in which
// attempt, and where it is from. Nothing where nothing of it was read.
func LevelOf(c *proof.Told, units quantity.System) (out []string) {
	for _, s := range c.Steps {
		if !s.Read {
			continue
		}
		var figures []string
		for i := range s.Judged.Figures {
			if f := &s.Judged.Figures[i]; !f.Q.IsZero() {
				figures = append(figures, lowered(f.Name)+" "+quantity.Show(f.Q.SI, f.Q.Dim, units))
			}
		}
		if s.Word != "" {
			figures = append([]string{s.Word}, figures...)
		}
		if s.Held > 0 {
			figures = append(figures, "held "+HeldWords(s.Held))
		}
		text := strings.Join(figures, ", ")
		if len(c.Steps) > 1 {
			text = s.Test.Name + ": " + text
		}
		text = fmt.Sprintf("%s (attempt %d, %s)", text, s.Attempt, originWords(s.From))
		if len(s.Needed) > 0 {
			text += "; judged by what is needed now, then: " + strings.Join(s.Needed, ", ")
		}
		out = append(out, text)
	}
	return out
}

// originWords say where figures are from.
func originWords(from []string) string {
	words := map[string]string{unit.SourceTyped: "typed", unit.SourceStand: "from the stand",
		unit.SourceLog: "from a log", unit.SourceSimulated: "simulated",
		unit.SourceUnknown: "from a stand that did not say what it is"}
	var out []string
	for _, f := range from {
		if w := words[f]; w != "" && !slices.Contains(out, w) {
			out = append(out, w)
		}
	}
	if len(out) == 0 {
		return "nobody kept from where"
	}
	return strings.Join(out, " and ")
}

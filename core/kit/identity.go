package kit

import (
	"fmt"
	"strings"

	"corvek/core/calc"
	"corvek/core/quantity"
	"corvek/core/seal"
	"corvek/core/unit"
)

// Setting is what the seals of a unit stand in.
type Setting struct {
	Fluid          string // as it is called on the job
	Temperature    float64
	HasTemperature bool
	Today          string // 2031-05-14
}

// Finding is what is said of a seal in this unit on this day.
type Finding struct {
	Verdict string // suitable, limited, unsuitable; good, extend, expired
	Text    string
	Stops   bool // it does not go in so
	Steps   []string
}

// Bears judges a material in the unit's fluid and at its temperature; ok is false where
// material or fluid is not known to the table.
func (s Setting) Bears(material string) (f Finding, ok bool) {
	fluid, known := seal.NamedFluid(s.Fluid)
	material = strings.ToUpper(strings.TrimSpace(material))
	if material == "" || !known {
		return f, false
	}
	given := calc.NewGiven().Word("elastomer", material).Word("fluid", fluid)
	if s.HasTemperature {
		given.SI("temperature", s.Temperature, quantity.Temperature)
	}
	out, err := calc.Ask("compatible", given)
	if err != nil {
		return Finding{Text: fmt.Sprintf("%s in %s: %s", material, fluid, err)}, true
	}
	f.Verdict, _ = out.Get("verdict").(string)
	reason, _ := out.Get("reason").(string)
	f.Text = fmt.Sprintf("in %s %s", fluid, reason)
	f.Stops, f.Steps = f.Verdict == seal.Unsuitable, out.Steps
	return f, true
}

// Age judges how old a seal is today, in its bag or fitted; ok is false where material or
// date are not known. PTFE does not age.
func (s Setting) Age(material, cure string, fitted bool) (f Finding, ok bool) {
	if material == "" || cure == "" || s.Today == "" {
		return f, false
	}
	stored := "bag"
	if fitted {
		stored = "fitted"
	}
	out, err := calc.Ask("shelf_life", calc.NewGiven().Word("elastomer", material).Word("cure_date", cure).
		Word("on", s.Today).Word("stored", stored))
	if err != nil {
		return f, false
	}
	f.Verdict, _ = out.Get("verdict").(string)
	expires, _ := out.Get("expires").(string)
	switch f.Verdict {
	case "expired":
		f.Text, f.Stops = fmt.Sprintf("cured %s, its shelf life ended on %s", cure, expires), true
	case "extend":
		f.Text = fmt.Sprintf("cured %s, over its shelf life since %s: may still go in once it was looked at", cure,
			expires)
	default:
		f.Text = fmt.Sprintf("cured %s, good until %s", cure, expires)
	}
	f.Steps = out.Steps
	return f, true
}

// Mixed is the note for rubbers of several kinds in a fluid or grease that some of them do
// not bear; "" where none is needed.
func (s Setting) Mixed(materials []string) string {
	fluid, known := seal.NamedFluid(s.Fluid)
	if !known {
		return ""
	}
	kinds, swells := map[string]bool{}, map[string]bool{}
	for _, m := range materials {
		m = strings.ToUpper(strings.TrimSpace(m))
		if m == "" {
			continue
		}
		kinds[m] = true
		if v, _, _, ok := seal.Bears(m, "lubricating grease"); ok && v == seal.Unsuitable {
			swells[m] = true
		}
	}
	switch {
	case strings.Contains(fluid, "glycol") && len(kinds) > 1:
		return fmt.Sprintf("%s in one unit with %s: each in its own bag until it goes in, wetted with this fluid or "+
			"rubber grease, never with mineral oil or grease", anded(kinds), fluid)
	case len(swells) > 0:
		return fmt.Sprintf("%s swells in mineral oil and grease: wet it with the system's own fluid or rubber grease",
			anded(swells))
	}
	return ""
}

func anded(of map[string]bool) string {
	var out []string
	for _, m := range seal.Elastomers() {
		if of[m] {
			out = append(out, m)
		}
	}
	return strings.Join(out, " and ")
}

// Sizes are the standard sizes nearest to what was measured of a seal, the best first.
func Sizes(s unit.Seal, most int) (out []string) {
	switch {
	case !s.Section.IsZero() && !s.Inside.IsZero():
		for _, r := range seal.FindRings(s.Inside.SI, s.Section.SI, 0, most) {
			if r.Near(s.Inside.SI, s.Section.SI) {
				out = append(out, strings.TrimSpace(r.Standard+" "+r.Code))
			}
		}
	case !s.Shaft.IsZero() && (!s.Bore.IsZero() || !s.Outside.IsZero()):
		bore := s.Bore.SI
		if s.Bore.IsZero() {
			bore = s.Outside.SI - seal.OldPressFit // a removed seal has relaxed, and is not the bore
		}
		for _, l := range seal.FindLips(s.Shaft.SI, bore, s.Width.SI, nil, most) {
			out = append(out, fmt.Sprintf("%s %s x %s x %s", l.Standard, mm(l.Shaft), mm(l.Bore), mm(l.Width)))
		}
	}
	return out
}

func mm(m float64) string {
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", m*1000), "0"), ".")
}

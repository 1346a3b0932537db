package sheet

import (
	"strconv"
	"strings"

	"corvek/core/unit"
)

// Found is a sheet that may be of a unit.
type Found struct {
	*Sheet
	Sure bool   // maker and model are written alike, and what it holds of fits
	Why  string // what speaks for it, or what is unlike
}

// Find gives the sheets of a unit by maker and model as people write them, serial or none; the general ones
// first. One whose model is written almost so is given as a question.
func Find(all []*Sheet, u *unit.Unit) (out []Found) {
	model := Plain(u.Model)
	if model == "" {
		return nil
	}
	for _, general := range []bool{true, false} {
		for _, s := range all {
			if general != (s.Suffix == "" && s.SerialFrom == 0 && s.SerialTo == 0 && s.Mark == "") {
				continue
			}
			if f, fits := s.of(u, model); fits {
				out = append(out, f)
			}
		}
	}
	return out
}

// of holds a sheet against a unit.
func (s *Sheet) of(u *unit.Unit, model string) (f Found, fits bool) {
	f.Sheet = s
	if s.Family != u.Family {
		return f, false
	}
	own := Plain(s.Model)
	maker := u.Maker == "" || s.Maker == "" || Plain(u.Maker) == Plain(s.Maker)
	bare := strings.TrimSuffix(model, Plain(s.Suffix))
	switch {
	case own == model || s.Suffix != "" && bare != model && own == bare:
		f.Sure, f.Why = maker, "maker and model are written alike"
	case s.Suffix == "" && goesOn(own, model):
		f.Sure, f.Why = maker, "the model, with something behind it: "+u.Model
	case near(own, model):
		f.Why = "it is written almost so: " + s.Model + ", here " + u.Model
	default:
		return f, false
	}
	if !maker {
		f.Sure, f.Why = false, "another maker: "+s.Maker+", here "+u.Maker
		if !near(Plain(u.Maker), Plain(s.Maker)) {
			return f, false
		}
	}
	if s.Suffix != "" && !strings.HasSuffix(model, Plain(s.Suffix)) {
		return f, false
	}
	return s.bySerial(u, f)
}

// goesOn reports that a model is another with a suffix behind it: GX-32 R of GX-32, and not GX-320.
func goesOn(own, model string) bool {
	rest, is := strings.CutPrefix(model, own)
	digit := func(b byte) bool { return b >= '0' && b <= '9' }
	return is && len(own) >= 3 && rest != "" && !(digit(own[len(own)-1]) && digit(rest[0]))
}

func (s *Sheet) bySerial(u *unit.Unit, f Found) (Found, bool) {
	if s.SerialFrom > 0 || s.SerialTo > 0 {
		serial, known := serialOf(u.Serial)
		switch {
		case !known:
			f.Sure, f.Why = false, "it holds of a range of serials, and this one's is not known"
		case serial < s.SerialFrom || s.SerialTo > 0 && serial > s.SerialTo:
			return f, false
		}
	}
	if s.Mark != "" {
		switch u.Identity[s.Mark] {
		case "yes":
		case "no":
			return f, false
		default:
			f.Sure, f.Why = false, "it holds of units with a mark that nobody looked for"
		}
	}
	return f, true
}

// serialOf is the number in a serial, its figures in order.
func serialOf(text string) (n int, known bool) {
	digits := strings.Map(func(r rune) rune {
		if r >= '0' && r <= '9' {
			return r
		}
		return -1
	}, text)
	n, err := strconv.Atoi(digits)
	return n, err == nil
}

// near reports that two names differ by one letter: left out, put in or another, or two that changed places.
func near(a, b string) bool {
	if a == b || len(a) < 3 || len(b) < 3 {
		return false
	}
	if len(a) > len(b) {
		a, b = b, a
	}
	i := 0
	for i < len(a) && a[i] == b[i] {
		i++
	}
	switch len(b) - len(a) {
	case 0:
		return a[i+1:] == b[i+1:] || i+1 < len(a) && a[i] == b[i+1] && a[i+1] == b[i] && a[i+2:] == b[i+2:]
	case 1:
		return a[i:] == b[i+1:]
	}
	return false
}

// Joined is what several sheets of one unit say together: the later wins, and what they disagree in is told.
func Joined(found []Found) (s *Sheet, disagree []Disagreement) {
	for _, f := range found {
		if s == nil {
			s = f.Clone()
			continue
		}
		for _, v := range f.Values {
			old := s.Value(v.Key)
			switch {
			case old == nil:
				s.Values = append(s.Values, v)
			case old.Text != v.Text:
				disagree = append(disagree, Disagreement{v.Key, old.Text, v.Text, f.Name()})
				*old = v
			}
		}
		s.Parts = append(s.Parts, f.Parts...)
		s.Kit = append(s.Kit, f.Kit...)
		s.Lessons = append(s.Lessons, f.Lessons...)
		if f.Variant != "" {
			s.Variant = f.Variant
		}
	}
	return s, disagree
}

// Disagreement is a value that two sheets of one unit have otherwise; the later one is used.
type Disagreement struct{ Key, Was, Is, By string }

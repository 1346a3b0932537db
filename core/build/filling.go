package build

import "corvek/core/family"

// Filling is a step by which a unit gets its oil and loses its air before it runs.
type Filling struct {
	Code, Words string
	needs       []string // one of these is on the unit
	actions     []string // it acts as one of these, where any are named
}

// fillings are all of them, in the order of the work.
var fillings = []Filling{
	{Code: "case", Words: "Case filled", needs: []string{"@barrel", "@piston_set", "@retainer"},
		actions: []string{"pump", "motor"}},
	{Code: "primed", Words: "Primed through its inlet, turned by hand", actions: []string{"pump"}},
	{Code: "reservoir", Words: "Filled in small steps to the mark, stroke checked after each",
		needs: []string{"ram_end", "reservoir"}},
	{Code: "caps", Words: "Caps cracked open until no air comes", needs: []string{"@spool"},
		actions: []string{"valve"}},
	{Code: "bled", Words: "Bled until no bubbles, rod up, screw a turn or two and no more",
		actions: []string{"cylinder"}},
}

// FillingOf is what is filled, primed and bled on a unit.
func FillingOf(f *family.Family, has func(string) bool) (out []Filling) {
	for _, s := range fillings {
		if s.fits(f.Action, has) {
			out = append(out, s)
		}
	}
	return out
}

func (s Filling) fits(action string, has func(string) bool) bool {
	acts := len(s.actions) == 0
	for _, a := range s.actions {
		acts = acts || a == action
	}
	there := len(s.needs) == 0
	for _, n := range s.needs {
		there = there || has(n)
	}
	return acts && there
}

// KnowsFilling reports that a code names a step of filling.
func KnowsFilling(code string) bool {
	for _, s := range fillings {
		if s.Code == code {
			return true
		}
	}
	return false
}

// FillNone is the answer where a step of the filling does not apply.
const FillNone = "none"

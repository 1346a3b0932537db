package build

import "corvek/core/family"

// Filling is a step by which a unit gets its oil and loses its air before it runs.
type Filling struct{ Code, Words string }

// The steps, in the order of the work.
const (
	fillCase      = "case"
	fillPrimed    = "primed"
	fillReservoir = "reservoir"
	fillCaps      = "caps" // of a valve
	fillBled      = "bled"
)

// primedAsAny is how a pump is primed where its family says nothing else.
const primedAsAny = "Primed through its inlet, turned by hand"

// FillingOf is what is filled, primed and bled on a unit, in the words of its family: which way up a unit is bled,
// and how it is primed, is told once.
func FillingOf(f *family.Family, has func(string) bool) (out []Filling) {
	any := func(parts ...string) bool {
		for _, p := range parts {
			if has(p) {
				return true
			}
		}
		return false
	}
	turns := f.Action == "pump" || f.Action == "motor"
	if turns && any("@barrel", "@piston_set", "@retainer") && f.Prime == "" {
		out = append(out, Filling{fillCase, "Case filled"})
	}
	if f.Action == "pump" {
		words := f.Prime
		if words == "" {
			words = primedAsAny
		}
		out = append(out, Filling{fillPrimed, words})
	}
	if any("ram_end", "reservoir") {
		out = append(out, Filling{fillReservoir, "Filled in small steps to the mark, stroke checked after each"})
	}
	switch {
	case f.Bleed == "":
	case f.Action == "valve":
		out = append(out, Filling{fillCaps, f.Bleed})
	default:
		out = append(out, Filling{fillBled, f.Bleed})
	}
	return out
}

// KnowsFilling reports that a code names a step of filling.
func KnowsFilling(code string) bool {
	switch code {
	case fillCase, fillPrimed, fillReservoir, fillCaps, fillBled:
		return true
	}
	return false
}

// FillNone is the answer where a step of the filling does not apply.
const FillNone = "none"

package report

import (
	"strings"

	"corvek/core/bench"
	"corvek/core/fluid"
)

// circuit is what whoever starts the unit must know of the oil around it.
func circuit(st *bench.State) (out []string) {
	if st.BrokenUp() {
		out = append(out, "Pieces of it went into the circuit. "+flushed(st))
	}
	u := st.Unit
	if !u.GainedElsewhere.IsZero() {
		fate := strings.TrimSuffix(u.OtherSump, ".")
		if fate == "" {
			fate = "drain, flush and refill it before it runs"
		}
		out = append(out, "Another sump gained "+u.GainedElsewhere.Typed+" of its oil: "+fate+".")
	}
	if why := spent(st); why != "" || st.BrokenUp() {
		out = append(out, "The old oil"+between(" (", why, ")")+
			" does not go back in, unless it was filtered and dried and that was measured.")
	}
	return out
}

// spent says what is wrong with the oil that was drained, "" where nothing is.
func spent(st *bench.State) string {
	u := st.Unit
	if fluid.SightOf(u.DrainedLook).Spent() {
		return u.DrainedLook
	}
	if !u.Water.IsZero() {
		return u.Water.Typed + " of water in it"
	}
	return ""
}

// Drained says what came out of the system, as far as it was written down.
func Drained(st *bench.State) string {
	u := st.Unit
	return strings.Join(nonEmpty(between("drained ", u.Drained.Typed, ""), u.DrainedLook,
		between("", u.Water.Typed, " of water in it"), between("", u.GainedElsewhere.Typed, " gained by another sump")),
		", ")
}

package bench

import (
	"slices"
	"strings"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/order"
	"corvek/core/search"
)

// suspects are the parts with what speaks against each at a step, in the order they lie in.
func (st *Inferred) suspects(step string) (out []search.Suspect) {
	itself, fitted := st.against()
	ways, asks, turned := st.ways(), "", st.mannerOf(step) == search.Binds &&
		slices.Contains([]string{"pump", "motor"}, st.Family.Action)
	if t, known := st.Family.TestByCode(step); known {
		asks = t.Assembly
	}
	turning := map[string]bool{"": true} // the branches that the shaft turns
	for _, p := range st.Parts {
		turning[p.Def.Branch] = turning[p.Def.Branch] || slices.Contains(turnsWithShaft, p.Def.Kind)
	}
	for _, p := range st.Parts {
		s := search.Suspect{Part: p.Code, Kind: p.Def.Kind, Itself: *itself[p.Code], Fitted: *fitted[p.Code],
			Within: p.Within(), Own: asks != "" && p.Def.Assembly == asks, Aside: turned && !turning[p.Def.Branch]}
		for _, code := range ways[p.Code] {
			// A cover that is drawn by its bolts is not what they clamp, but what clamps.
			if over := st.ByCode[code]; joint(over.Def) && !(over.Def.Kind == "bolts" && closes(p.Def)) {
				s.Behind = append(s.Behind, code)
			}
		}
		out = append(out, s)
	}
	return out
}

// turnsWithShaft are the kinds that a shaft turns.
var turnsWithShaft = []string{"gear_shaft", "rotor", "gerotor", "ring_gear", "cam", "barrel", "piston_set", "bearing",
	"needles", "swash", "plate_pack"}

// joint reports a part that clamps what lies behind it, and can be slackened.
func joint(def *family.Part) bool { return closes(def) || def.Kind == "bolts" }

// closes reports a part that closes a unit.
func closes(def *family.Part) bool {
	return slices.Contains([]string{"cover", "gland", "plug"}, def.Kind)
}

// waysTo is what comes off on the way to each part.
func (st *Stripped) waysTo() map[string][]string {
	out, on := map[string][]string{}, order.Set{}
	for _, p := range st.Parts {
		on[p.Code] = true
	}
	for _, p := range st.Parts {
		for _, code := range st.order.Apart(on, p.Code) {
			code, _ = strings.CutSuffix(code, order.Tight)
			if code != p.Code && st.ByCode[code] != nil && !slices.Contains(out[p.Code], code) {
				out[p.Code] = append(out[p.Code], code)
			}
		}
	}
	return out
}

// against is what speaks against each part as it is, and as it was fitted.
func (st *Inferred) against() (itself, fitted map[string]*search.Against) {
	itself, fitted = map[string]*search.Against{}, map[string]*search.Against{}
	for _, p := range st.Parts {
		itself[p.Code], fitted[p.Code] = &search.Against{Marks: len(p.Seen)}, &search.Against{}
	}
	for _, r := range st.Explained().Ranking {
		by := itself
		if r.Cause.Where == "assembly" {
			by = fitted
		}
		var renewed []*search.Against
		for _, p := range st.Parts {
			if r.Cause.RenewsPart(p.Code, p.Def.Kind) {
				renewed = append(renewed, by[p.Code])
			}
		}
		for _, a := range renewed {
			a.Cause += r.Posterior / float64(len(renewed))
		}
	}
	blamed, remedies := st.causesOf()
	for _, named := range []map[string][]string{blamed, remedies} {
		for code := range named {
			if a := itself[code]; a != nil {
				a.Named += 1 / float64(len(named))
				fitted[code].Named += 1 / float64(len(named))
			}
		}
	}
	if i := build.StiffAt(st.Steps()); i >= 0 {
		code := st.InOrder()[i].Code
		itself[code].Stiff, fitted[code].Stiff = true, true
	}
	return itself, fitted
}

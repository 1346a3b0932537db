package bench

import (
	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/quantity"
)

// CountsIn reports that the pieces of a part are counted as they go in, and how many there
// must be: where they were counted out, or a pack of shims was worked out.
func (st *Modelled) CountsIn(p *Part) (must int, asked bool) {
	if sh := st.Shims; sh != nil && p.Def.Kind == "shims" && p.Def.Branch == "" && sh.Fault == "" &&
		sh.Choice.Possible && st.choiceOf(sh.Feature) == decide.Rework {
		return len(sh.Choice.Pack), true
	}
	// Bolts of a circle are counted by the eye: a hole without one is seen.
	return p.Expected, p.Expected > 1 && p.Found != "" && p.Def.Kind != "bolts"
}

// Track is what a lip wore into the shaft it runs on.
type Track struct {
	Depth float64 // m, in radius
	Known bool    // it was measured, and the size as new is known
	Gone  string  // "new" or "sleeved", where the new lip runs on no old track
}

// Worn reports a track that the new lip must run beside.
func (t Track) Worn() bool { return t.Known && t.Gone == "" && t.Depth >= build.GrooveFelt }

// Track is the track that a lip seal's old lip wore into its shaft, the deepest of several; none for other parts.
func (st *Decided) Track(p *Part) (t Track) {
	if p.Def.Kind != "lip_seal" {
		return t
	}
	for _, x := range st.Parts {
		f := x.feature(sealTrack)
		if f == nil || !f.Found.HasValue || !f.Found.HasNominal {
			continue
		}
		at := Track{Depth: (f.Found.Nominal - f.Found.Value) / 2, Known: true}
		if x.Choice() == decide.Replace {
			at.Gone = "new"
		}
		for _, w := range x.Going() {
			if w.Code == "sleeve" {
				at.Gone = "sleeved"
			}
		}
		if !t.Known || at.Worn() && (!t.Worn() || at.Depth > t.Depth) {
			t = at
		}
	}
	return t
}

// sealTrack is the feature of a shaft on which a lip runs.
const sealTrack = "seal_track"

// Filling are the steps by which the unit gets its oil, each with when it was done.
func (st *Stripped) Filling() (out []build.Filling) { return build.FillingOf(st.Family, st.has()) }

// shownLength writes a length for words that go with no reader.
func shownLength(m float64) string { return quantity.Show(m, quantity.Length, quantity.Metric) }

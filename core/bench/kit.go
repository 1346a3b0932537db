package bench

import (
	"fmt"
	"strings"

	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/kit"
	"corvek/core/unit"
)

// Piece is a piece of the kit with what is said of it in this unit, today.
type Piece struct {
	*unit.Piece
	Bears, Age *kit.Finding // nil where it is not known
	Sizes      []string     // standard sizes nearest to what was measured
	Fits       []string     // codes of the open places it may be for
	Elsewhere  []string     // where a piece that is left over may belong
}

// Setting is what the seals of the unit stand in today.
func (st *Given) Setting() kit.Setting {
	t, ok := st.Unit.Temperature.Known()
	return kit.Setting{Fluid: st.Unit.Fluid, Temperature: t, HasTemperature: ok, Today: string(st.Today)}
}

// lying are the pieces of the kit as its rules read them.
func (st *Stripped) lying() (out []kit.Piece) {
	setting := st.Setting()
	for _, k := range st.Unit.Kit {
		x := kit.Piece{Number: k.Number, Name: k.Name, Count: k.Count, Place: k.Part, LeftReason: k.LeftReason}
		if k.ToLot != "" {
			x.LeftReason = "put to the stock as " + k.ToLot
		}
		if says := k.Fit.Says; says != "" && says != unit.FitGood {
			x.Unfit = unfit(k) + ": " + fitActs[says]
		}
		if p := st.ByCode[k.Part]; p != nil && k.Fit.Says == "" && kit.Another(k.Name, p.want(1)) {
			kind, _ := family.KindByCode(p.Def.Kind)
			x.Unfit = "its place is a " + strings.ToLower(
				kind.Name,
			) + ": try it there and say how it goes, or put it where it " +
				"belongs"
		}
		if f, ok := setting.Bears(k.Seal.Material); ok {
			x.Faults = appendFault(x.Faults, f)
		}
		if f, ok := setting.Age(k.Seal.Material, k.Seal.Cure, false); ok {
			x.Faults = appendFault(x.Faults, f)
		}
		out = append(out, x)
	}
	return out
}

// Supplied is the unit with its kit held against the places that the decisions leave.
type Supplied struct {
	*Decided
	Pieces    []*Piece
	KitIssues []kit.Issue
	Mixed     string // note on rubbers that do not bear the same grease
}

func supplied(d *Decided) *Supplied {
	st := &Supplied{Decided: d, KitIssues: kit.Check(d.Places, d.pieces)}
	setting, wants := st.Setting(), st.Wants()
	var materials []string
	for _, k := range st.Unit.Kit {
		p := &Piece{Piece: k, Sizes: kit.Sizes(k.Seal, 3)}
		if f, ok := setting.Bears(k.Seal.Material); ok {
			p.Bears = &f
		}
		if f, ok := setting.Age(k.Seal.Material, k.Seal.Cure, false); ok {
			p.Age = &f
		}
		if k.Part != "" {
			materials = append(materials, k.Seal.Material)
		}
		if k.Part == "" || st.ByCode[k.Part] == nil || st.ByCode[k.Part].Place == nil {
			p.Fits = kit.Fits(Offered(k), wants)
			p.Elsewhere = st.elsewhere(k)
		}
		st.Pieces = append(st.Pieces, p)
	}
	st.Mixed = setting.Mixed(materials)
	return st
}

func appendFault(faults []string, f kit.Finding) []string {
	if f.Stops {
		return append(faults, f.Text)
	}
	return faults
}

// Offered is a piece of the kit as places are looked for it.
func Offered(k *unit.Piece) kit.Offered {
	size := k.Seal.Size
	if size == "" {
		if near := kit.Sizes(k.Seal, 1); len(near) > 0 {
			size = near[0]
		}
	}
	return kit.Offered{Name: k.Name, Code: k.Code, Size: size}
}

// want is a part as a place that pieces are held against.
func (p *AsFound) want(open int) kit.Want {
	size := p.Seal.Size
	if size == "" {
		if near := kit.Sizes(p.Seal, 1); len(near) > 0 {
			size = near[0]
		}
	}
	return kit.Want{Part: p.Code, Name: p.Name, Kind: p.Def.Kind, Size: size, MakerNo: p.Seal.MakerNo, Open: open}
}

// Wants are the places of the kit with the pieces that each still waits for.
func (st *Decided) Wants() (out []kit.Want) {
	for _, p := range st.Parts {
		if p.Place != nil {
			out = append(out, p.want(p.Place.Need-p.Filled))
		}
	}
	return out
}

// unfit says how a new piece does not go in, as it was tried.
// fitActs are what is done about a piece that was tried and does not go in as it should.
var fitActs = map[string]string{
	unit.FitTight:  "measure its place and get the right size; it is not forced and not filed",
	unit.FitLoose:  "measure its place and get the right size",
	unit.FitWrong:  "it belongs to another build; find out which this one is",
	unit.FitTurned: "take it out, look for a cut, and slide the next one in over a sleeve",
	unit.FitNicked: "it does not go in; take another, and take the edge off that cut it",
}

func unfit(k *unit.Piece) string {
	words := "the new one is " + strings.ReplaceAll(k.Fit.Says, "_", " ")
	switch k.Fit.Says {
	case unit.FitWrong:
		words = "the new one has another shape"
	case unit.FitTurned:
		words = "the new one's lip turned over as it went in"
	case unit.FitNicked:
		words = "the new one was nicked"
	}
	if !k.Fit.Gap.IsZero() {
		words += ", " + k.Fit.Gap.Typed + " measured there"
	}
	return words
}

// unfits are the new pieces that were tried in a part's place and do not go in.
func (st *Given) unfits(part string) string {
	for _, k := range st.Unit.Kit {
		if k.Part == part && k.Fit.Bad() {
			return unfit(k)
		}
	}
	return ""
}

// mostElsewhere is how many places are named where a left-over piece may belong.
const mostElsewhere = 6

// elsewhere is where a piece without a place may belong: a groove of this unit that was
// missed, another of its variants, another unit of the job.
func (st *Decided) elsewhere(k *unit.Piece) (out []string) {
	one := Offered(k)
	fits := func(p *family.Part, want kit.Want, words string) {
		if len(kit.Fits(one, []kit.Want{want})) > 0 {
			out = append(out, fmt.Sprintf(words, strings.ToLower(p.Name)))
		}
	}
	for _, p := range st.Parts {
		if p.Place == nil {
			fits(p.Def, p.want(1), "a missed place? %s is kept here")
		}
	}
	for _, p := range st.Absent {
		def := p.Def(st.Family)
		fits(def, kit.Want{Part: p.Code, Name: p.Name, Kind: def.Kind, Size: p.Seal.Size, Open: 1},
			"%s was said not to be on this unit")
	}
	for _, v := range st.Plain.VariantRules {
		own, err := st.Plain.As(v.Code, nil)
		if err != nil || v.Code == st.Unit.Variant {
			continue
		}
		for i := range own.Parts {
			p := &own.Parts[i]
			here := st.ByCode[p.Code]
			switch {
			case here == nil:
				fits(p, kit.Want{Part: p.Code, Name: p.Name, Kind: p.Kind, Open: 1}, "variant "+v.Name+" has %s")
			case p.Count > here.Expected:
				fits(p, kit.Want{Part: p.Code, Name: p.Name, Kind: p.Kind, Open: 1},
					fmt.Sprintf("variant %s has %d of %%s", v.Name, p.Count))
			}
		}
	}
	out = append(out, st.leftToo(k)...)
	out = append(out, st.ofOthers(one)...)
	return out[:min(len(out), mostElsewhere)]
}

// leftToo are pieces that are left over as this one is: of the same unit, or of another of the job. Where two kits
// leave the same, both are for more builds than this one, or one place was missed twice.
func (st *Decided) leftToo(k *unit.Piece) (out []string) {
	one := Offered(k)
	for _, u := range st.Job.Units {
		for _, other := range u.Kit {
			if other == k || other.Part != "" || !one.Same(Offered(other)) {
				continue
			}
			where := "line " + fmt.Sprint(other.Number)
			if u.Number != st.Unit.Number {
				where = fmt.Sprintf("unit %d, line %d", u.Number, other.Number)
			}
			out = append(out, where+" is left over too: both spare, or one place missed twice")
		}
	}
	return out
}

// ofOthers are parts of the job's other units that a piece may be for.
func (st *Given) ofOthers(one kit.Offered) (out []string) {
	for _, u := range st.Job.Units {
		if u == st.Unit {
			continue
		}
		f := st.Families(u)
		if f == nil {
			continue
		}
		for _, p := range u.Parts {
			def := p.Def(f)
			if p.OnUnit() && len(kit.Fits(one, []kit.Want{{Part: p.Code, Name: p.Name, Kind: def.Kind,
				Size: p.Seal.Size, MakerNo: p.Seal.MakerNo, Open: 1}})) > 0 {
				out = append(out, fmt.Sprintf("unit %d, %s: %s", u.Number, u.Name, strings.ToLower(p.Name)))
			}
		}
	}
	return out
}

// aged says that a seal or a bearing that would be kept is too old to go back; "" where it
// is not, or nothing is known.
func (st *Given) aged(p *AsFound) string {
	if f, ok := st.Setting().Age(p.Seal.Material, p.Seal.Cure, true); ok && f.Stops {
		return f.Text
	}
	return ""
}

// Oversize is how much larger than usual the seals of a bore that was honed must be; 0 where
// none was.
func (st *Decided) Oversize(p *Part) float64 {
	if p.Def.Kind != "piston_seal" && p.Def.Kind != "o_ring" {
		return 0
	}
	most := 0.0
	for _, x := range st.Parts {
		for _, w := range x.Going() {
			if f := w.Feature; w.Kind.Oversize && f != nil && f.Built.HasValue && f.Found.HasNominal &&
				f.Found.Limits.HasUpper && f.Built.Value > f.Found.Limits.Upper {
				most = max(most, decide.Oversize(f.Found.Nominal, f.Built.Value))
			}
		}
	}
	return most
}

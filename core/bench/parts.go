package bench

import (
	"cmp"
	"strconv"
	"sync"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/kit"
	"corvek/core/metrology"
	"corvek/core/order"
	"corvek/core/unit"
)

// AsFound is a part by its own record: as it was found, what somebody chose for it, and how it
// was built, before anything is proposed.
type AsFound struct {
	*unit.Part
	Def            *family.Part
	Features       []*Feature
	Worst          metrology.Verdict
	Missing        int // pieces not accounted for
	Loose          int // whole ones found loose
	LooseFragments int // pieces of broken ones found loose
	Seen           []SeenMark
	Decision       unit.Decision
	Step           unit.Step
	Alone          bool   // never taken out, and not to be: it is on the unit as it came
	Stack          *Stack // nil where order and facing of a pack do not matter

	slides bool // moved by hand once it is in: a spool of a valve, a piston of a cylinder
}

// Within is the sub-assembly that the part belongs to, "" where it stands in the unit by itself.
func (p *AsFound) Within() string { return cmp.Or(p.Def.Assembly, p.Def.Branch) }

// Part is a part with what is done with it.
type Part struct {
	*AsFound
	Proposal decide.Proposal
	Place    *kit.Slot // of the kit, nil where nothing new goes in
	Filled   int       // new pieces that lie in the place
}

// Choice is what is done with the part: a person's choice, else the proposal.
func (p *Part) Choice() decide.Choice {
	if p.Decision.Choice != "" {
		return decide.Choice(p.Decision.Choice)
	}
	return p.Proposal.Choice
}

// Used is the largest share of an allowance used on the part.
func (p *AsFound) Used() (used float64, ok bool) {
	for _, f := range p.Features {
		if f.Found.HasUsed && f.Found.Any && (!ok || f.Found.Used > used) {
			used, ok = f.Found.Used, true
		}
	}
	return used, ok
}

// Stripped is the unit by what came off it.
type Stripped struct {
	*Given
	Parts  []*AsFound   // that are on this unit, in the order they came off
	Absent []*unit.Part // of the family's, that are not
	ByCode map[string]*AsFound

	order  *order.Order    // what stands in whose way
	sprung func() []string // the parts that hold a spring down, worked out when somebody asks
}

func stripped(g *Given) *Stripped {
	st := &Stripped{Given: g, ByCode: map[string]*AsFound{}, order: Ordered(g.Unit, g.Family)}
	st.sprung = sync.OnceValue(st.holdSprings)
	loose, bits := map[string]int{}, map[string]int{}
	for _, l := range st.Unit.Loose {
		if l.Fragment {
			bits[l.Part] += l.Count
		} else {
			loose[l.Part] += l.Count
		}
	}
	alone := LeftAlone(st.Unit, st.Family)
	for _, row := range st.Unit.Parts {
		def := row.Def(st.Family)
		if !row.OnUnit() {
			st.Absent = append(st.Absent, row)
			continue
		}
		p := &AsFound{Part: row, Def: def, Loose: loose[row.Code], LooseFragments: bits[row.Code],
			Alone: alone[row.Code], slides: build.Slides(st.Family.Action, def.Kind)}
		p.Seen = st.seen(p)
		p.Missing = stripPart(p).Missing()
		if def.Stack != nil {
			p.Stack = newStack(def.Stack, row, st.Round)
		}
		for _, f := range row.Features {
			if fd, ok := def.FeatureByCode(f.Code); ok {
				fs := newFeature(st.Unit, f, fd, p)
				p.Features = append(p.Features, fs)
				p.Worst = metrology.Worst(p.Worst, fs.Found.Verdict)
			}
		}
		if d := row.Decision(); d != nil {
			p.Decision = *d
		}
		if b := row.Built(st.Round); b != nil {
			p.Step = *b
		}
		st.Parts = append(st.Parts, p)
		st.ByCode[row.Code] = p
	}
	return st
}

func found(p *AsFound) (n int, counted bool) {
	n, err := strconv.Atoi(p.Found)
	return n, err == nil
}

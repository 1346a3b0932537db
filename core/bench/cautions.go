package bench

import (
	"slices"

	"corvek/core/family"
	"corvek/core/order"
)

// CautionsOf are the cautions that are read before a part comes off (strip) or goes in (build): what its family
// says of it, and that it holds a spring.
func (st *Stripped) CautionsOf(p *AsFound, station string) []family.Caution {
	first := station == "strip" && !slices.ContainsFunc(st.Parts, func(x *AsFound) bool { return x.Off })
	out := st.Family.CautionsOf(p.Def, station, first)
	says := func(code string) bool {
		return slices.ContainsFunc(out, func(c family.Caution) bool { return c.Code == code })
	}
	if says("spring_load") || says("strong_spring") || !slices.Contains(st.sprung(), p.Code) {
		return out
	}
	c, _ := family.CautionByCode("spring_load")
	return append(out, c)
}

// Unread is the first serious caution of a part at a station that nobody read on this job, nil where all are.
func (st *Stripped) Unread(p *AsFound, station string) *family.Caution {
	for _, c := range st.CautionsOf(p, station) {
		if c.Serious && st.Job.Acknowledged(c.Code) == nil {
			return &c
		}
	}
	return nil
}

// closing are the kinds of part that are opened, and let go what is under them.
var closing = []string{"plug", "cover", "gland", "retaining_ring", "fitting", "bolts"}

// holdSprings are the parts that hold a spring down: the innermost of those that close its place, and the bolts of
// that.
func (st *Stripped) holdSprings() (out []string) {
	all := order.Set{}
	for _, p := range st.Parts {
		all[p.Code] = true
	}
	closes := func(code string) bool {
		p := st.ByCode[code]
		return p != nil && slices.Contains(closing, p.Def.Kind)
	}
	for _, s := range st.Parts {
		if !s.Def.Springs() {
			continue
		}
		way := slices.DeleteFunc(slices.Clone(st.order.InWay(all, s.Code)), func(c string) bool { return !closes(c) })
		for _, c := range way {
			behind := func(other string) bool { return other != c && slices.Contains(st.order.InWay(all, other), c) }
			over := slices.DeleteFunc(slices.Clone(way), func(o string) bool { return !behind(o) })
			bolts := st.ByCode[c].Def.Kind == "bolts"
			if len(over) == 0 || bolts && len(over) == 1 {
				out = append(out, c)
			}
		}
	}
	return out
}

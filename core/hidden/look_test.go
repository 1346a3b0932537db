package hidden_test

import (
	"slices"
	"testing"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/hidden"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// hand is one who works on a case of practice by what he sees alone: he looks where the record tells him to, and writes
// down what it shows.
type hand struct {
	t     testing.TB
	shop  *hidden.Shop
	bench *hidden.Bench
	job   *unit.Job // his record
}

func newHand(t testing.TB, s *hidden.Shop, c *hidden.Case, family string) *hand {
	truth, err := s.Truth(c)
	require.NoError(t, err)
	j, err := s.Received(family)
	require.NoError(t, err)
	j.Symptoms = slices.Clone(c.True.Symptoms)
	h := &hand{t: t, shop: s, job: j, bench: &hidden.Bench{Truth: truth}}
	h.works()
	return h
}

func (h *hand) works() {
	st, err := bench.Of(bench.Basis{Job: h.job, Number: 1, Catalog: h.shop.Catalog, Knowledge: h.shop.Knowledge,
		Day: h.shop.Day})
	require.NoError(h.t, err)
	h.bench.Record = st
}

// opens takes the unit so far apart.
func (h *hand) opens(to explain.Reach) {
	for i, p := range h.job.Unit(1).Parts {
		if p.OnUnit() && (to == explain.Stripped || i == 0) {
			p.Off = true
		}
	}
	h.works()
}

// looks looks at a place and writes down what he sees; a figure as he reads it. Where nothing can be looked at any more
// he goes on.
func (h *hand) looks(ref unit.Ref) hidden.Seen {
	s, err := h.bench.Look(ref)
	h.bench.Looked = append(h.bench.Looked, hidden.Looked{Field: ref.String(), Gone: s.Gone, Minutes: s.Minutes})
	if err != nil {
		return s
	}
	text := s.Value
	if s.Reads {
		text = quantity.Show(s.Size, quantity.Length, quantity.Metric)
	}
	if text != "" {
		place, f, err := entry.Resolve(h.job, ref, h.shop.Entry)
		require.NoError(h.t, err, ref)
		require.NoError(h.t, place.Write(f, f.With(place, text, "")), "%s: %s", ref, text)
	}
	return s
}

// solves goes by what the record says is worth a look, until it is enough.
func (h *hand) solves() explain.Standing {
	for range 90 {
		standing := h.bench.Record.Knowledge.Standing(h.bench.Record.Findings)
		if len(h.bench.Record.Findings) > 0 && h.bench.Case.Enough(standing) {
			return standing
		}
		next := h.next()
		if next == nil {
			return standing
		}
		e := next.Evidence
		if e.At.Opening() > h.bench.Record.Situation().Reached.Opening() || next.Opens {
			h.opens(e.At)
		}
		for _, o := range append([]*explain.Evidence{e}, next.Or...) {
			for _, ref := range hidden.Where(h.bench.Record, o) {
				if ref.Part != "" && !h.bench.Record.ByCode[ref.Part].Off {
					h.opens(explain.Stripped)
				}
				if !h.looked(ref) {
					h.looks(ref)
				}
			}
		}
		h.works()
		h.says(e)
	}
	return h.bench.Record.Knowledge.Standing(h.bench.Record.Findings)
}

// says writes a mark down as what it is, where what he measured does not tell it by itself.
func (h *hand) says(e *explain.Evidence) {
	ref := unit.Ref{Scope: unit.ScopeEvidence, Unit: 1, Code: e.Code, Name: "state"}
	told := slices.ContainsFunc(h.bench.Record.Findings, func(f explain.Finding) bool { return f.Code == e.Code })
	if !told && !h.looked(ref) {
		h.looks(ref)
		h.works()
	}
}

func (h *hand) looked(ref unit.Ref) bool {
	return slices.ContainsFunc(h.bench.Looked, func(l hidden.Looked) bool { return l.Field == ref.String() })
}

// next is what the record says is worth a look and was not looked at.
func (h *hand) next() *explain.Check {
	list := h.bench.Record.Next()
	for i := range list {
		seen := true
		for _, ref := range hidden.Where(h.bench.Record, list[i].Evidence) {
			seen = seen && h.looked(ref)
		}
		if !seen {
			return &list[i]
		}
	}
	return nil
}

// Who works on a case by what it shows him alone, through the record and no other way, comes to its cause.
func TestACaseIsSolvedByLooking(t *testing.T) {
	s := shopOf(t)
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range whole.Every(t, 10, lib.List()) {
		for _, k := range hidden.Kinds {
			c, err := hidden.Draw(s, f.Code, k.Code, 7)
			require.NoError(t, err)
			h := newHand(t, s, c, f.Code)
			standing := h.solves()
			assert.True(t, c.Names(standing), "%s %s: %v, and he came to %s", f.Code, k.Code, c.Causes, lead(standing))
		}
	}
}

func lead(s explain.Standing) string { c, _ := s.Lead(); return c.Code }

// measures measures all that he has apart: what an instrument shows is the true size, as near as that one tells.
func (h *hand) measures() {
	h.opens(explain.Stripped)
	for _, p := range h.bench.True.Parts {
		for _, f := range p.Features {
			for _, slot := range f.Spec.Slots() {
				ref := h.bench.True.Unit.ReadingRef(p.Code, f.Code, unit.StageFound, slot)
				s, err := h.bench.Look(ref)
				require.NoError(h.t, err, ref)
				size, known := f.Size(unit.StageFound, slot)
				if s.Reads && known {
					assert.InDelta(h.t, size, s.Size, hidden.Errs(s.On), "%s on %s", ref, s.On)
				} else {
					assert.Equal(h.t, f.Entry(unit.StageFound, slot), s.Value, ref)
				}
			}
		}
	}
}

// asks looks for each mark where it is told, with the unit apart: what is said of it there is what the unit tells.
func (h *hand) asks() {
	h.opens(explain.Stripped)
	truth := h.bench.True
	for _, f := range truth.Findings {
		e, known := truth.Knowledge.EvidenceByCode(f.Code)
		if !known {
			continue
		}
		there, told := false, false
		for _, ref := range hidden.Where(truth, e) {
			if ref.Scope != unit.ScopePartMark && ref.Scope != unit.ScopeEvidence {
				continue
			}
			if s, err := h.bench.Look(ref); err == nil && s.Value != "" {
				there, told = there || s.Value == unit.MarkSeen, true
			}
		}
		if told {
			assert.Equal(h.t, f.Likely(), there, "%s: %s", truth.Unit.Family, e.Code)
		}
	}
}

package job

import (
	"context"
	"slices"

	"corvek/core/bench"
	"corvek/core/measure"
	"corvek/internal/store"
)

// Visit is one time that a unit was on the bench.
type Visit struct {
	Before
	Here  bool // the job at hand
	Open  bool // not handed over yet
	Hours float64
	Ran   bool // Hours were told
	st    *bench.State
}

// Line is a size of a unit over its visits; each of Found and Left stands for the visit at the same place.
type Line struct {
	Part, Feature string
	Found, Left   []measure.Result // as it came and as it went; without a value where it was not read
	Wear          []Wear
}

// Wear is what a size lost since it was new, by the hours that the unit ran; Known tells that all of it is known.
type Wear struct {
	Known bool
	Per   float64 // m in a thousand hours
}

// History is all that is known of one unit over the years.
type History struct {
	Visits []Visit // oldest first
	Lines  []Line
}

// History follows a unit by its maker, model and serial number through the jobs of the shop.
func (s *Service) History(ctx context.Context, st *bench.State) (h History, err error) {
	u := st.Unit
	rows, err := s.Store.SameUnit(ofNoJob(ctx), st.Job.Tag, u.Maker, u.Model, u.Serial, mostBefore)
	if err != nil {
		return h, err
	}
	rows = append(rows, store.Same{Tag: st.Job.Tag, Title: st.Job.Title, Unit: u.Number})
	for _, row := range rows {
		of := st
		if row.Tag != st.Job.Tag {
			if of, err = s.Load(ofNoJob(ctx), row.Tag, row.Unit); err != nil {
				return h, err
			}
		}
		at := of.Job.HandedOverAt
		v := Visit{Before: before(of, at), Here: of == st, Open: !of.Job.HandedOver(), st: of}
		if v.Open {
			v.At = of.Job.ReceivedOn.Time()
		}
		var seconds float64
		seconds, v.Ran = of.Unit.Hours.Known()
		v.Hours = seconds / 3600
		h.Visits = append(h.Visits, v)
	}
	slices.SortStableFunc(h.Visits, func(a, b Visit) int {
		if a.Open != b.Open { // what lies on the bench comes last
			return map[bool]int{true: 1, false: -1}[a.Open]
		}
		return a.At.Compare(b.At)
	})
	h.lines()
	return h, nil
}

// lines follow each feature that was read in more than nothing.
func (h *History) lines() {
	last := h.Visits[len(h.Visits)-1].st
	for _, p := range last.Parts {
		for _, f := range p.Features {
			l := Line{Part: p.Name, Feature: f.Def.Name}
			read := 0
			for _, v := range h.Visits {
				var found, left measure.Result
				var wear Wear
				if was := v.feature(p.Code, f.Code); was != nil {
					found, left = was.Found, was.Built
					life, known := v.st.Life(was)
					wear = Wear{known, life.Rate * 1000}
				}
				if found.HasValue || left.HasValue {
					read++
				}
				l.Found, l.Left, l.Wear = append(l.Found, found), append(l.Left, left), append(l.Wear, wear)
			}
			if read > 0 {
				h.Lines = append(h.Lines, l)
			}
		}
	}
}

// feature is something measured on the unit at this visit, nil where it was not on it.
func (v Visit) feature(part, code string) *bench.Feature {
	p := v.st.ByCode[part]
	if p == nil {
		return nil
	}
	at := slices.IndexFunc(p.Features, func(f *bench.Feature) bool { return f.Code == code })
	if at < 0 {
		return nil
	}
	return p.Features[at]
}

package jobpages

import (
	"cmp"
	"html/template"
	"math"
	"slices"

	"corvek/core/explain"
	"corvek/internal/draw"
)

// Most that a matrix shows.
const (
	matrixCauses = 5
	matrixMarks  = 14
)

// matrix sets findings against the leading causes, the strongest findings first.
func (l *look) matrix(theory *explain.Ranked) template.HTML {
	ranking := l.st.Explained().Ranking
	if len(ranking) == 0 {
		return ""
	}
	cols := append([]explain.Ranked{}, ranking[:min(matrixCauses, len(ranking))]...)
	if theory != nil && !slices.ContainsFunc(cols, func(r explain.Ranked) bool { return r.Cause == theory.Cause }) {
		cols[len(cols)-1] = *theory
	}
	m := draw.Matrix{}
	bits := map[*explain.Evidence][]float64{}
	strength := map[*explain.Evidence]float64{}
	for i, r := range cols {
		m.Columns = append(m.Columns, draw.MatrixColumn{Name: r.Cause.Name, Share: r.Alone,
			Mine: theory != nil && r.Cause == theory.Cause})
		for _, w := range append(append([]explain.Weight{}, r.For...), r.Against...) {
			if bits[w.Evidence] == nil {
				bits[w.Evidence] = make([]float64, len(cols))
			}
			bits[w.Evidence][i], strength[w.Evidence] = w.Information, w.Strength
		}
	}
	var marks []*explain.Evidence
	for e := range bits {
		marks = append(marks, e)
	}
	strongest := func(e *explain.Evidence) (most float64) {
		for _, b := range bits[e] {
			most = max(most, math.Abs(b))
		}
		return most
	}
	slices.SortFunc(marks, func(a, b *explain.Evidence) int {
		if d := cmp.Compare(strongest(b), strongest(a)); d != 0 {
			return d
		}
		return cmp.Compare(a.Code, b.Code)
	})
	for _, e := range marks[:min(matrixMarks, len(marks))] {
		m.Rows = append(m.Rows, draw.MatrixRow{Name: e.Text, State: explain.Told(strength[e]), Information: bits[e]})
	}
	return template.HTML(m.SVG())
}

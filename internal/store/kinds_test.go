package store

import (
	"cmp"
	"fmt"
	"reflect"
	"testing"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// sample is a value of each kind of field, as typed and as its column keeps it.
func sample(f *entry.Field) (typed string, kept any) {
	day := time.Date(2031, 5, 27, 0, 0, 0, 0, time.UTC)
	switch f.Kind {
	case entry.Flag:
		return entry.Yes, true
	case entry.Day:
		return day.Format(time.DateOnly), day
	case entry.Timer:
		return day.Format(time.RFC3339), day
	case entry.Whole:
		if f.Required {
			return "17", int64(17)
		}
		return "17", "17"
	case entry.Quantity:
		return "17", "17"
	}
	return "some words", "some words"
}

// What is entered in a field of a scope stands in the column of that name, and a quantity is read
// back in the dimension, and with the unit of a bare figure, in which it was entered.
func TestEachFieldHasItsColumn(t *testing.T) {
	p := &entry.Place{Job: &unit.Job{}, Unit: &unit.Unit{}, Conclusion: &unit.Conclusion{}, Cause: &unit.NamedCause{},
		Loose: &unit.Loose{}, Piece: &unit.Piece{}, Attempt: &unit.Attempt{}, Part: &unit.Part{},
		Decision: &unit.Decision{}, Rework: &unit.Rework{}, Step: &unit.Step{}, Feature: &unit.Feature{},
		Picture: &unit.Picture{}, Point: &unit.Point{}, Limit: &unit.StepLimit{Code: "p100.flow"}}
	mark, partMark := &unit.UnitMark{}, &unit.PartMark{}
	rows := map[unit.Scope]any{unit.ScopeJob: p.Job, unit.ScopeUnit: p.Unit, unit.ScopeConclusion: p.Conclusion,
		unit.ScopeCause: p.Cause, unit.ScopeLoose: p.Loose, unit.ScopePiece: p.Piece, unit.ScopeAttempt: p.Attempt,
		unit.ScopePart: p.Part, unit.ScopeDecision: p.Decision, unit.ScopeRework: p.Rework, unit.ScopeStep: p.Step,
		unit.ScopeFeature: p.Feature, unit.ScopePicture: p.Picture, unit.ScopePoint: p.Point,
		unit.ScopeLimit: p.Limit, unit.ScopeEvidence: mark, unit.ScopePartMark: partMark}
	n := 0
	for scope, row := range rows {
		v := reflect.ValueOf(row).Elem()
		p.Mark = &mark.Mark
		if scope == unit.ScopePartMark {
			p.Mark = &partMark.Mark
		}
		var k *kind
		for _, of := range kindOf {
			if of.ModelType == v.Type() {
				k = of
			}
		}
		require.NotNil(t, k, scope)
		for _, f := range entry.Fields(scope) {
			if unit.Coded(scope, f.Name) { // all in one column
				name := map[string]string{"symptom": "symptoms"}[f.Name]
				assert.NotNil(t, k.LookUpField(cmp.Or(name, f.Name)), f.Name)
				continue
			}
			typed, want := sample(f)
			require.NoError(t, f.Load(p, typed))
			if scope == unit.ScopePoint && f.Kind == entry.Quantity {
				assert.Equal(t, typed, p.Point.Figures[f.Name].Typed)
				continue
			}
			column := k.LookUpField(f.Name)
			if !assert.NotNil(t, column, "%s has no column %s", k.Table, f.Name) {
				continue
			}
			got, err := columnsOf(k.values, v)
			require.NoError(t, err)
			if n, is := got[f.Name].(int); is {
				got[f.Name] = int64(n)
			}
			assert.Equal(t, want, got[f.Name], "%s %s", scope, f.Name)
			n++
			again := reflect.New(v.Type()).Elem()
			if scope == unit.ScopeLimit {
				again.Set(v)
			}
			require.NoError(t, setColumn(column, again, got[f.Name]))
			read(again)
			assert.True(t, sameValue(column, v, again), "%s %s", scope, f.Name)
			if f.Kind == entry.Quantity {
				assert.Equal(
					t,
					fmt.Sprintf("%+v", of(column, v).Interface()),
					fmt.Sprintf("%+v", of(column, again).Interface()),
					"%s %s",
					scope,
					f.Name,
				)
			}
		}
	}
	assert.Greater(t, n, 180)
}

// Each table of a job is declared once, with the job's number first in its key.
func TestKinds(t *testing.T) {
	assert.Len(t, kindOf, len(kinds)+1)
	for _, k := range kinds {
		assert.Equal(t, "job_id", k.PrimaryFieldDBNames[0], k.Table)
		assert.NotEmpty(t, k.own, k.Table)
		assert.Len(t, k.in.child, len(k.up.PrimaryFields), k.Table)
		for i, f := range k.in.child {
			assert.Equal(t, f.FieldType, k.in.parent[i].FieldType, k.Table)
		}
		for _, f := range k.values {
			assert.False(t, f.HasDefaultValue, "%s.%s: a default would stand for what is empty", k.Table, f.DBName)
		}
	}
}

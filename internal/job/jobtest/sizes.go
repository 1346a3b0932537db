package jobtest

import (
	"testing"

	"corvek/core/bench"
	"corvek/core/invented"
	"corvek/internal/job"
)

// OwnSizes types the sizes of an invented unit into a job.
func OwnSizes(t testing.TB, s *job.Service, tag string, of invented.Sizes) {
	t.Helper()
	all(t, s, tag, "its own sizes", of.Write)
}

// Typed is a value as it is typed or tapped on a page, by its field.
type Typed struct{ Field, Text string }

func typed(values []invented.Value) (out []Typed) {
	for _, v := range values {
		out = append(out, Typed{v.Ref.String(), v.Text})
	}
	return out
}

// SizesTyped are the sizes of an invented unit as they are typed on its pages.
func SizesTyped(st *bench.State, of invented.Sizes) []Typed { return typed(of.Write(st)) }

// FoundTyped is what is counted and read on a sound unit; AgainTyped what is measured again once it is built.
func FoundTyped(st *bench.State) []Typed { return typed(invented.Found(st)) }

// AgainTyped is it.
func AgainTyped(st *bench.State) []Typed { return typed(invented.Again(st)) }

// Package benchtest works units out with what ships, for tests.
package benchtest

import (
	"sync"
	"testing"

	"corvek/core/bench"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/shop"
	"corvek/core/unit"
)

// Day is the day on which units of tests are looked at.
const Day = unit.Date("2031-05-14")

// shipped are the families and what is known of them, read once.
var shipped = sync.OnceValues(func() (family.Library, error) { return family.Shipped() })
var knowledge = sync.OnceValues(func() (explain.Base, error) { return explain.Shipped() })

// turning keeps families by which way a unit turns, as a shop's catalog does.
var turning sync.Map

type turned struct {
	family   *family.Family
	rotation string
}

// Basis is what the first unit of a job rests on in a shop that keeps nothing of its own.
func Basis(t testing.TB, j *unit.Job) bench.Basis {
	t.Helper()
	lib, err := shipped()
	if err != nil {
		t.Fatal(err)
	}
	base, err := knowledge()
	if err != nil {
		t.Fatal(err)
	}
	asOne := func(u *unit.Unit) *family.Family {
		f := lib[u.Family]
		if f == nil {
			return nil
		}
		if own, err := f.As(u.Variant, u.MoreOf()); err == nil && own != f {
			return own.Turning(u.Rotation)
		}
		key := turned{f, u.Rotation}
		one, _ := turning.LoadOrStore(key, f.Turning(u.Rotation))
		return one.(*family.Family)
	}
	return bench.Basis{Job: j, Number: 1, Knowledge: base, Day: Day,
		Catalog: &bench.Catalog{Version: 1, Families: asOne, Plain: lib, Tools: shop.Instruments{}}}
}

// Job is a job with one unit of a shipped family, as it lies there when it was received.
func Job(t testing.TB, code string) *unit.Job {
	t.Helper()
	lib, err := shipped()
	if err != nil {
		t.Fatal(err)
	}
	if lib[code] == nil {
		t.Fatalf("no family %q ships", code)
	}
	j := &unit.Job{Tag: "T-1", Policy: "on_condition", Version: 1}
	j.Units = append(j.Units, unit.New(lib[code], 1, "Iva", Day.Time()))
	return j
}

// State works the first unit of a job out.
func State(t testing.TB, j *unit.Job) *bench.State {
	t.Helper()
	st, err := bench.Of(Basis(t, j))
	if err != nil {
		t.Fatal(err)
	}
	return st
}

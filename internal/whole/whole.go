// Package whole says what of long tests runs with ./check and what with ./check whole: the first runs go test with
// -short, and has five minutes.
package whole

import (
	"hash/fnv"
	"testing"
)

// Only keeps a test for ./check whole.
func Only(t testing.TB) {
	t.Helper()
	if testing.Short() {
		t.Skip("long: it runs with ./check whole")
	}
}

// part is which part of a list ./check takes.
const part = 4

// Of gives all of a list, and with ./check every fourth; the name of the test says with which it begins, so that tests
// over one list take others of it.
func Of[T any](t testing.TB, all []T) []T { return Every(t, part, all) }

// Every is Of with another part of the list.
func Every[T any](t testing.TB, n int, all []T) []T {
	if !testing.Short() || len(all) == 0 {
		return all
	}
	sum := fnv.New32a()
	sum.Write([]byte(t.Name()))
	var out []T
	for i := int(sum.Sum32()) % min(n, len(all)); i < len(all); i += n {
		out = append(out, all[i])
	}
	return out
}

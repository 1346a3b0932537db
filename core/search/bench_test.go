package search_test

import (
	"fmt"
	"testing"

	"corvek/core/search"
)

// A large unit, sixty parts, with one step out through eight attempts.
func BenchmarkALongSearch(b *testing.B) {
	var parts []search.Suspect
	kinds := []string{"bearing", "plate", "dowels", "rotor", "o_ring", "spool"}
	for i := range 60 {
		s := search.Suspect{Part: fmt.Sprint("p", i), Kind: kinds[i%len(kinds)]}
		if i%2 == 0 {
			s.Behind = []string{"p1"}
		}
		parts = append(parts, s)
	}
	var of []search.Candidate
	for _, p := range parts {
		of = append(of, search.Candidate{Move: search.Move{Kind: search.Swap, Part: p.Part}, Minutes: 40},
			search.Candidate{Move: search.Move{Kind: search.Refit, Part: p.Part}, Minutes: 30})
	}
	tries := []search.Try{try(1, readings{"turn": bad})}
	for n := range 7 {
		tries = append(tries, try(n+2, readings{"turn": bad}, search.Move{Kind: search.Swap, Part: parts[n].Part}))
	}
	for b.Loop() {
		s := search.Weigh(tries, func(string) []search.Trouble { return search.TroublesOf(parts, search.Binds) })
		s.Advise("turn", of)
	}
}

package bench_test

import (
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/bench/benchtest"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/unit"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// randomUnit bends a unit of a family as a bench would find it: parts gone, added,
// counted otherwise, broken, marked, kept or renewed by hand, fitted, tested.
func randomUnit(r *rapid.T, f *family.Family) *unit.Job {
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	u := unit.New(f, 1, "Iva", now)
	j := &unit.Job{Tag: "T-1", Policy: string(decide.OnCondition), Complaint: "weak", Units: []*unit.Unit{u}}
	yes := func(name string, of int) bool { return rapid.IntRange(1, of).Draw(r, name) == 1 }
	for i := range rapid.IntRange(0, 3).Draw(r, "added") {
		kind := rapid.SampledFrom(family.Kinds()).Draw(r, "kind")
		u.AddPart(rapid.IntRange(0, len(u.Parts)).Draw(r, "at"), fmt.Sprintf("added %d", i), kind, "", 1)
	}
	for _, p := range u.Parts {
		if yes("absent", 4) {
			p.Absent = "not on this one"
			continue
		}
		p.Off = !yes("on", 8)
		if yes("another count", 6) {
			p.Expected, p.From, p.Why = p.Expected+1, unit.CountDrawing, "drawing"
		}
		if !yes("uncounted", 5) {
			p.Found = fmt.Sprint(max(0, p.Expected-rapid.IntRange(0, 1).Draw(r, "short")))
		}
		if yes("in bits", 8) {
			p.Fragments, p.FragmentsMake = "3", "1"
		}
		for _, m := range family.MarksOf(p.Def(f).Kind) {
			if yes("mark "+m.Code, 15) {
				p.Marks = append(p.Marks, &unit.PartMark{Mark: unit.Mark{Round: 1, Code: m.Code,
					State:  unit.MarkSeen,
					Origin: rapid.SampledFrom([]string{unit.OriginFound, unit.OriginBench}).Draw(r, "origin")}})
			}
		}
		if yes("by hand", 6) {
			p.Decisions = []*unit.Decision{{Round: 1, Choice: rapid.SampledFrom([]string{"keep", "replace"}).
				Draw(r, "choice")}}
		}
		if !yes("unfitted", 20) {
			p.Steps = []*unit.Step{{Round: 1, Done: true, Facing: p.Def(f).Facing, Turn: "free"}}
		}
	}
	if yes("tested", 2) {
		a := &unit.Attempt{Number: 1, Round: 1, Source: unit.SourceTyped, Closed: yes("closed", 2), Verdict: "in",
			At: now}
		if yes("simulated", 3) {
			a.Source = unit.SourceSimulated
		}
		for i := range f.Tests {
			t := &f.Tests[i]
			p := &unit.Point{Code: t.Code}
			if len(t.Good) > 0 && !yes("not done", 20) {
				p.Word = t.Good[0]
			}
			if !yes("hold cut short", 10) {
				p.HoldFrom, p.HoldTo = now, now.Add(9*time.Hour)
			}
			a.Points = append(a.Points, p)
		}
		u.Attempts = append(u.Attempts, a)
	}
	return j
}

// Whatever a unit really is: no judgement names a part that is not on it, nothing with a
// breaking mark is kept without a reason, and PROVED is deserved.
func TestRandomUnits(t *testing.T) {
	var codes []string
	for _, f := range benchtest.Basis(t, nil).Catalog.Plain.List() {
		codes = append(codes, f.Code)
	}
	memo, err := bench.NewMemo(64)
	require.NoError(t, err)
	rapid.Check(t, func(r *rapid.T) {
		f := benchtest.Basis(t, nil).Catalog.Plain[rapid.SampledFrom(codes).Draw(r, "family")]
		j := randomUnit(r, f)
		basis := benchtest.Basis(t, j)
		before, err := json.Marshal(j)
		require.NoError(r, err)
		st, err := bench.Of(basis)
		require.NoError(r, err)
		basis.Memo = memo
		remembered, err := bench.Of(basis)
		require.NoError(r, err)
		alike(r, st, remembered)
		if rapid.IntRange(1, 4).Draw(r, "frozen") == 1 { // it takes longer than all the rest
			alike(r, st, frozen(r, st))
		}
		for _, gone := range st.Absent {
			if st.ByCode[gone.Code] != nil {
				r.Fatalf("%s is not on the unit and is worked out", gone.Name)
			}
			for station, stops := range st.Stops {
				for _, stop := range stops {
					if stop.Part == gone.Code {
						r.Fatalf("%s asks for %s, which is not on the unit: %s", station, gone.Name, stop.Text)
					}
				}
			}
			for _, place := range st.Places {
				if place.Part == gone.Code {
					r.Fatalf("Kit wants %s, which is not on the unit", gone.Name)
				}
			}
		}
		asked := map[string]bool{}
		for _, stop := range st.Stops["decide"] {
			asked[stop.Part] = true
		}
		for _, p := range st.Parts {
			if p.Breaking() && p.Choice() == decide.Keep && p.Decision.Reason == "" && !asked[p.Code] {
				r.Fatalf("%s is broken and kept without a reason: %s", p.Name, p.Proposal.Reason)
			}
		}
		deservesItsClaim(r, st)
		after, err := json.Marshal(j)
		require.NoError(r, err)
		require.JSONEq(r, string(before), string(after), "to work a unit out does not change it")
	})
}

// deservesItsClaim holds a claim of PROVED against everything it rests on.
func deservesItsClaim(r *rapid.T, st *bench.State) {
	unfitted := 0
	for _, p := range st.Parts {
		if !p.Step.Done {
			unfitted++
		}
	}
	claim, missing := st.Claim()
	a := st.Counts()
	if claim != proof.Proved {
		if claim == proof.Tested && len(missing) == 0 {
			r.Fatal("not proved, and nothing is missing")
		}
		return
	}
	if a == nil || a.Source == unit.SourceSimulated || !a.Closed || unfitted > 0 {
		r.Fatalf("proved by %+v with %d parts not fitted", a, unfitted)
	}
	for _, station := range []string{"strip", "measure", "build", "prove"} {
		if len(st.Stops[station]) > 0 {
			r.Fatalf("proved with a stop at %s: %s", station, st.Stops[station][0].Text)
		}
	}
	for _, step := range st.Plan() {
		if s := st.Shown[step.Code]; step.Skipped == "" && (!s.Read || s.Judged.Verdict != metrology.In) {
			r.Fatalf("proved without %s", step.Name)
		}
	}
}

// alike requires two states of one basis to say the same.
func alike(r *rapid.T, a, b *bench.State) {
	require.Equal(r, a.Stops, b.Stops)
	require.Equal(r, a.Findings, b.Findings)
	require.Equal(r, said(a.Explained()), said(b.Explained()))
	require.Equal(r, said(a.Next()), said(b.Next()))
	require.Equal(r, said(a.WouldChange()), said(b.WouldChange()))
	require.Equal(r, a.Leak, b.Leak)
	require.Equal(r, a.KitIssues, b.KitIssues)
	for i, p := range a.Parts {
		require.Equal(r, p.Proposal, b.Parts[i].Proposal, p.Name)
	}
	require.Equal(r, a.Progress(), b.Progress())
}

// frozen is the state by what was frozen of it, written as data and read again.
func frozen(r *rapid.T, st *bench.State) *bench.State {
	text, err := json.Marshal(bench.Freeze([]*bench.State{st}, time.Time{}, false))
	require.NoError(r, err)
	var f bench.Frozen
	require.NoError(r, json.Unmarshal(text, &f))
	basis, err := f.Basis(st.Job, 1)
	require.NoError(r, err)
	again, err := bench.Of(basis)
	require.NoError(r, err)
	require.Equal(r, st.Outcome(), again.Outcome())
	require.Equal(r, st.Outcome(), f.Units[0].Outcome)
	require.Empty(r, f.Units[0].Outcome.Against(again.Outcome()))
	return again
}

// said is an answer as data: what is nothing or empty is the same.
func said(x any) string {
	text, _ := json.Marshal(x)
	return string(text)
}

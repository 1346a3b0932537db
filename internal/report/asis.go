package report

import (
	"fmt"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Differs says in which parts and numbers the unit on the bench is another than
// its family.
func Differs(st *bench.State) (out []string) {
	for _, p := range st.Absent {
		out = append(out, fmt.Sprintf("%s: not on this unit: %s", p.Name, p.Absent))
	}
	for _, p := range st.Parts {
		_, usual := st.Plain.PartByCode(p.Code)
		switch {
		case !usual:
			out = append(out, fmt.Sprintf("%s: on this unit, %d of it; the family has none%s", p.Name, p.Expected,
				wording.Behind(": ", p.Why)))
		case p.From != unit.CountFamily:
			out = append(out, fmt.Sprintf("%s: %d on this unit where the family has %d, %s: %s", p.Name, p.Expected,
				st.Plain.CountOf(p.Code), wording.Choice(unit.ScopePart, "expected_from", p.From), p.Why))
		}
	}
	return out
}

// Seen are the marks that were seen, on parts and on the unit as a whole, with
// where they come from: also those made during teardown, which say nothing of the
// cause and belong on the paper all the same.
func Seen(st *bench.State) (out []string) {
	for _, p := range st.Parts {
		for _, m := range p.Seen {
			note := p.LastSaid(m.Code).Note
			out = append(out, p.Name+": "+m.Text()+wording.Behind("; ", note)+shownOn(st.Showing(p.Code, m.Code)))
		}
	}
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		said := st.Noted[e.Code]
		if said.State != unit.MarkSeen || st.OnPart(e) {
			continue
		}
		line := e.Text
		switch said.Origin {
		case unit.OriginBench:
			line += ", made during teardown: says nothing of the cause"
		case unit.OriginUnknown:
			line += ", origin unknown"
		}
		out = append(out, line+wording.Behind("; ", said.Note))
	}
	return out
}

// shownOn names the pictures that show a mark.
func shownOn(numbers []int) string {
	if len(numbers) == 0 {
		return ""
	}
	words := make([]string, len(numbers))
	for i, n := range numbers {
		words[i] = strconv.Itoa(n)
	}
	if len(words) == 1 {
		return " (picture " + words[0] + ")"
	}
	return " (pictures " + strings.Join(words, ", ") + ")"
}

// Duty is what the unit works at, as far as it is known.
func (d Data) Duty() string {
	u := d.S.Unit
	return strings.Join(nonEmpty(u.DutyPressure.In(d.Units), u.Speed.In(d.Units), u.Displacement.In(d.Units)), ", ")
}

// Symptoms are those that were told, in words.
func (d Data) Symptoms() string { return family.SymptomWords(d.S.Job.Symptoms) }

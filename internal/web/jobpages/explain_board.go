package jobpages

import (
	"cmp"
	"fmt"
	"html/template"
	"maps"
	"slices"
	"strings"

	"corvek/core/explain"
	"corvek/core/unit"
)

// MarksBoard is the marks of Explain: what was answered, what tells most today, and the
// way to the rest. A unit has up to two hundred marks, and nobody reads that many.
type MarksBoard struct {
	Shelves template.HTML
	Find    string // the words that are looked for among all marks
	Count   int    // marks of this unit
	Hidden  int    // of them not shown
	Whole   string // the address that shows them all
}

// BoardShelf is the marks that are looked at in one place.
type BoardShelf struct {
	Name  string
	Items []BoardItem
}

// BoardItem is one mark of the evidence board.
type BoardItem struct {
	*explain.Evidence
	State        string // seen, absent or empty as answered by hand
	Source       string // where an automatic finding comes from
	Strength     float64
	OnPart       bool
	Seen, Absent Press
	How          []Choice // where it comes from, how it was found, how old it looks
	Note         Entry
}

// marksShown is how many marks that nobody answered stand on the board.
const marksShown = 24

// shelves are where marks are looked at, in the words of the bench.
var shelves = map[explain.Reach]string{explain.Asked: "Asked", explain.Outside: "On the machine, and from outside",
	explain.Opened: "As it is opened", explain.Stripped: "Laid out and washed"}

// marksBoard lays the board out once for a state of the unit: it is the longest
// list of all pages, and nothing in it depends on who reads but whether he may write.
func (s *Pages) marksBoard(l *look) (MarksBoard, error) {
	b := MarksBoard{Find: l.mark, Count: len(l.st.Knowledge.Evidence),
		Whole: withQuery(l.link("explain", l.askedPart(), ""), "marks=all")}
	chosen := l.marksOfBoard()
	b.Hidden = b.Count - len(chosen)
	var err error
	draw := func() string {
		var text strings.Builder
		if err = s.Views.Sets["explain"].ExecuteTemplate(&text, "marks", l.board(chosen)); err != nil {
			return ""
		}
		return text.String()
	}
	if l.mark != "" { // words without number are not worth keeping
		b.Shelves = template.HTML(draw())
		return b, err
	}
	key := fmt.Sprintf("board %t %t %s", l.CanWork(), l.allMarks, l.askedPart())
	b.Shelves = template.HTML(s.drawings.of(l.st, key, draw))
	return b, err
}

// askedPart is the code of the part that stands in the address, if any.
func (l *look) askedPart() string {
	if l.partAsked {
		return l.part.Code
	}
	return ""
}

// marksOfBoard chooses what the board shows: all that hold the words looked for;
// else what is known, what lies on the part that was asked for, and what tells most.
func (l *look) marksOfBoard() map[string]bool {
	chosen := map[string]bool{}
	words := strings.Fields(strings.ToLower(l.mark))
	part := l.askedPart()
	for _, e := range l.st.Knowledge.Evidence {
		switch {
		case len(words) > 0:
			chosen[e.Code] = holdsAll(strings.ToLower(e.Text+" "+e.Look), words)
		case l.allMarks || l.st.Sources[e.Code] != "" || l.unit.LastSaid(e.Code).State != "":
			chosen[e.Code] = true
		default:
			chosen[e.Code] = part != "" && e.Part == part
		}
	}
	if len(words) == 0 && !l.allMarks {
		next := l.st.Next()
		for _, check := range next[:min(marksShown, len(next))] {
			chosen[check.Evidence.Code] = true
			for _, e := range check.Or {
				chosen[e.Code] = true
			}
		}
	}
	maps.DeleteFunc(chosen, func(_ string, yes bool) bool { return !yes })
	if len(words) == 0 {
		l.someMarks(chosen)
	}
	return chosen
}

// someMarks fills a board up to its length with what is asked and looked at first: while
// nothing is told, nothing can be said to tell most.
func (l *look) someMarks(chosen map[string]bool) {
	for _, place := range explain.Places {
		for _, e := range l.st.Knowledge.Evidence {
			if len(chosen) >= marksShown {
				return
			}
			if e.At == place && e.From.Symptom == "" {
				chosen[e.Code] = true
			}
		}
	}
}

func holdsAll(text string, words []string) bool {
	return !slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(text, w) })
}

// board is the chosen marks by where they are looked at. What is found on a part that was
// asked for stands first; the rest keeps its order, so that little jumps away under a finger.
func (l *look) board(chosen map[string]bool) (out []BoardShelf) {
	strength := map[string]float64{}
	for _, f := range l.st.Findings {
		strength[f.Code] = f.Strength
	}
	on := map[explain.Reach][]BoardItem{}
	for i := range l.st.Knowledge.Evidence {
		e := &l.st.Knowledge.Evidence[i]
		if !chosen[e.Code] {
			continue
		}
		state := l.unit.LastSaid(e.Code).State
		ref := l.unit.EvidenceRef(e.Code, "state")
		item := BoardItem{Evidence: e, State: state, Source: l.st.Sources[e.Code], Strength: strength[e.Code],
			OnPart: l.partAsked && e.Part != "" && e.Part == l.part.Code,
			Seen:   l.answer(ref, unit.MarkSeen, state), Absent: l.answer(ref, unit.MarkAbsent, state)}
		if state == unit.MarkSeen {
			item.How, item.Note = l.howFields(e.Code), l.field(l.unit.EvidenceRef(e.Code, "note"))
		}
		on[e.At] = append(on[e.At], item)
	}
	for _, place := range explain.Places {
		items := on[place]
		slices.SortStableFunc(items, func(a, b BoardItem) int { return cmp.Compare(first(a.OnPart), first(b.OnPart)) })
		if len(items) > 0 {
			out = append(out, BoardShelf{shelves[place], items})
		}
	}
	return out
}

// first orders what is so before what is not.
func first(is bool) int {
	if is {
		return 0
	}
	return 1
}

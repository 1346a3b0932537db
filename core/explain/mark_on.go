package explain

import (
	"slices"
	"strings"
)

// MarkOn tells which marks on which parts stand for an evidence.
type MarkOn struct {
	Part  string   // its code; "" of any part or kind
	Kind  string   // its kind; "" of any part
	Marks []string // codes; one of them is enough
}

// MarkOn reads where the evidence is marked: "retainer=broken|cracked" on a part,
// "@lip_seal=hard" on any of a kind, "*=rust" on any part at all.
func (f From) MarkOn() (on MarkOn, ok bool) {
	where, marks, ok := strings.Cut(f.Mark, "=")
	if !ok {
		return on, false
	}
	on.Marks = strings.Split(marks, "|")
	if kind, of := strings.CutPrefix(where, "@"); of {
		on.Kind = kind
	} else if where != "*" {
		on.Part = where
	}
	return on, true
}

// Of reports that a part of a kind is meant.
func (on MarkOn) Of(part, kind string) bool {
	return (on.Part == "" || on.Part == part) && (on.Kind == "" || on.Kind == kind)
}

// Means reports that the evidence, told by itself, says that very mark of the parts it
// speaks of: of several the first, and of any part at all none.
func (on MarkOn) Means(mark string) bool {
	return on.closeness() > 0 && len(on.Marks) > 0 && on.Marks[0] == mark
}

// closeness orders what speaks of the very part before what speaks of its kind, and
// that before what speaks of any.
func (on MarkOn) closeness() int {
	switch {
	case on.Part != "":
		return 2
	case on.Kind != "":
		return 1
	}
	return 0
}

// Marked is the evidence that a mark on a part stands for, nil where none does: a fact
// counts once, for what speaks of it most closely.
func (k *Knowledge) Marked(part, kind, mark string) *Evidence {
	var best *Evidence
	close := -1
	for i := range k.Evidence {
		e := &k.Evidence[i]
		on, ok := e.From.MarkOn()
		if ok && on.Of(part, kind) && slices.Contains(on.Marks, mark) && on.closeness() > close {
			best, close = e, on.closeness()
		}
	}
	return best
}

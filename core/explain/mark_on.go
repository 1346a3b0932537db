package explain

import (
	"errors"
	"fmt"
	"slices"
	"strings"
)

// PartOf is a part, or any of a kind: "shaft", "@lip_seal", "*" for any part at all.
type PartOf struct {
	Part string // its code; "" of any part or kind
	Kind string // its kind; "" of any part
}

// Of reports that a part of a kind is meant.
func (p PartOf) Of(part, kind string) bool {
	return (p.Part == "" || p.Part == part) && (p.Kind == "" || p.Kind == kind)
}

// UnmarshalText reads it as knowledge has it.
func (p *PartOf) UnmarshalText(text []byte) error {
	*p = PartOf{}
	switch kind, of := strings.CutPrefix(string(text), "@"); {
	case len(text) == 0, of && kind == "":
		return errors.New("needs a part, a @kind, or * for any")
	case of:
		p.Kind = kind
	case string(text) != "*":
		p.Part = string(text)
	}
	return nil
}

// MarshalText writes it as knowledge has it.
func (p PartOf) MarshalText() ([]byte, error) {
	switch {
	case p.Part != "":
		return []byte(p.Part), nil
	case p.Kind != "":
		return []byte("@" + p.Kind), nil
	}
	return []byte("*"), nil
}

// MarkOn tells which marks on which parts stand for an evidence: "retainer=broken|cracked" on
// a part, "@lip_seal=hard" on any of a kind, "*=rust" on any part at all.
type MarkOn struct {
	PartOf
	Marks []string // codes; one of them is enough
}

// UnmarshalText reads it as knowledge has it.
func (on *MarkOn) UnmarshalText(text []byte) error {
	where, marks, both := strings.Cut(string(text), "=")
	if !both || marks == "" {
		return fmt.Errorf("%q needs a part and its mark, like shaft=broken", text)
	}
	on.Marks = strings.Split(marks, "|")
	return on.PartOf.UnmarshalText([]byte(where))
}

// MarshalText writes it as knowledge has it.
func (on MarkOn) MarshalText() ([]byte, error) {
	where, err := on.PartOf.MarshalText()
	return append(where, "="+strings.Join(on.Marks, "|")...), err
}

// Answered is what was said to a question or read as a word at a step: "air_supply=falls".
type Answered struct{ To, With string }

// UnmarshalText reads it as knowledge has it.
func (a *Answered) UnmarshalText(text []byte) error {
	to, with, both := strings.Cut(string(text), "=")
	if !both || to == "" || with == "" {
		return fmt.Errorf("%q needs a question and its answer, like air_supply=falls", text)
	}
	*a = Answered{to, with}
	return nil
}

// MarshalText writes it as knowledge has it.
func (a Answered) MarshalText() ([]byte, error) { return []byte(a.String()), nil }

func (a Answered) String() string { return a.To + "=" + a.With }

// Sided is a reading beyond its limit on one side: "bias_spring.free_length=low".
type Sided struct {
	Path string // part.feature
	Low  bool
}

// UnmarshalText reads it as knowledge has it.
func (s *Sided) UnmarshalText(text []byte) error {
	path, side, _ := strings.Cut(string(text), "=")
	if !strings.Contains(path, ".") || side != "low" && side != "high" {
		return fmt.Errorf("%q needs a part, its feature and a side, like bias_spring.free_length=low", text)
	}
	*s = Sided{path, side == "low"}
	return nil
}

// MarshalText writes it as knowledge has it.
func (s Sided) MarshalText() ([]byte, error) {
	if s.Low {
		return []byte(s.Path + "=low"), nil
	}
	return []byte(s.Path + "=high"), nil
}

// Asked reports that there is a question.
func (a Answered) Asked() bool { return a != Answered{} }

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
		look := func(on *MarkOn) {
			if on != nil && on.closeness() > close && on.Of(part, kind) && slices.Contains(on.Marks, mark) {
				best, close = e, on.closeness()
			}
		}
		look(e.From.Mark)
		for a := range e.Also {
			look(e.Also[a].Mark)
		}
	}
	return best
}

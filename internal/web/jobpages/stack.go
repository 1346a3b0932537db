package jobpages

import (
	"fmt"
	"html/template"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/strip"
	"corvek/core/unit"
	"corvek/internal/draw"
)

// StackView is the stack editor of a part at a station.
type StackView struct {
	Part      *bench.Part
	Title     string
	Field     string
	Text      string
	Fault     string
	Drawing   template.HTML
	Adds      []StackAct
	Copies    []StackAct
	Diffs     []string
	Changed   []string // from what was removed, where nothing is known to be wrong
	Belongs   *Choice  // what belongs is known from
	Right     *Entry   // what belongs, where it is typed
	Spring    []Entry
	Rub       []Entry // how the plates of this unit rub, and who says so
	Lines     []StackLine
	HasPieces bool
	Locked    bool
}

// StackAct is a tap that writes a new stack.
type StackAct struct{ Label, Value string }

// StackLine is something the stack delivers.
type StackLine struct{ Label, Text, Tone string }

// stack gives the editor of the chosen part for the strip or the build record;
// nil where order and facing of a pack do not matter.
func (l *look) stack(fit bool) *StackView {
	x := l.part
	if x == nil || x.Stack == nil {
		return nil
	}
	s := x.Stack
	v := &StackView{Part: x, Title: "As removed", Field: l.removedRef(x),
		Text: x.Removed(), Fault: s.FoundFault, Locked: !l.CanWork()}
	pieces, diffs, does := s.Found, s.FoundDiff, s.FoundDoes
	if again := l.st.Round > 1; !fit && again && x.Step.StackRemoved == "" {
		v.Text, pieces, diffs, does = "", nil, nil, strip.Delivery{}
		v.Copies = append(v.Copies, StackAct{"as it came off before", x.Removed()})
		if last := x.Fitted(l.st.Round - 1); last != "" && last != x.Removed() {
			v.Copies = append(v.Copies, StackAct{"as it was fitted", last})
		}
	} else if !fit && again {
		v.Text = x.Step.StackRemoved
	}
	if fit {
		v.Title, v.Field, v.Text, v.Fault = "As fitted", l.unit.StepRef(x.Code, "stack_fit").String(), x.Step.StackFit,
			s.FitFault
		pieces, diffs, does = s.Fit, s.FitDiff, s.FitDoes
		if was := x.Removed(); was != "" && was != x.Step.StackFit {
			v.Copies = append(v.Copies, StackAct{"copy as removed", was})
		}
	}
	if s.Def.As != "" && s.Def.As != v.Text {
		v.Copies = append(v.Copies, StackAct{"as the family has it", s.Def.As})
	}
	if fit && len(s.FitDiff) == 0 {
		for _, d := range s.Changed {
			v.Changed = append(v.Changed, d.Text)
		}
	}
	if !fit {
		l.ownStack(v, x)
	}
	v.HasPieces = len(pieces) > 0
	odd := map[int]bool{}
	for _, d := range diffs {
		v.Diffs = append(v.Diffs, d.Text)
		odd[d.At] = true
	}
	views := make([]draw.PieceView, len(pieces))
	for i, pc := range pieces {
		views[i] = draw.PieceView{Kind: pc.Def.Kind, Facing: pc.Facing, Faced: pc.Def.Faced, Title: pc.Def.Name,
			Set: v.Field, Base: v.Text, Odd: odd[i+1], Locked: v.Locked, Drop: without(pieces, i)}
		if pc.Def.Faced {
			views[i].Turn = turned(pieces, i)
		}
	}
	v.Drawing = template.HTML(draw.Pieces(views, x.Name+", "+strings.ToLower(v.Title)))
	for _, d := range s.Def.Pieces {
		if d.Faced {
			v.Adds = append(v.Adds, StackAct{d.Name + " ▶", joined(v.Text, d.Code+">")},
				StackAct{d.Name + " ◀", joined(v.Text, d.Code+"<")})
			continue
		}
		v.Adds = append(v.Adds, StackAct{d.Name, joined(v.Text, d.Code)})
	}
	v.Lines = l.stackLines(x, len(pieces), does, fit)
	return v
}

// ownStack asks what belongs to this very unit, and for its own springs.
func (l *look) ownStack(v *StackView, x *bench.Part) {
	belongs := l.listed(l.unit.PartRef(x.Code, "stack_from"))
	v.Belongs = &belongs
	if x.StackFrom == unit.StackVariant || x.StackFrom == unit.StackDrawing {
		right := l.field(l.unit.PartRef(x.Code, "stack_right"))
		v.Right = &right
	}
	for _, p := range x.Def.Stack.Pieces {
		if p.Kind == "disc" {
			v.Spring = l.ofPart("spring_outside", "spring_inside", "spring_thickness", "spring_cone", "stack_space",
				"stack_needed")
		}
	}
	if x.Def.Stack.Friction != nil {
		v.Rub = l.ofPart("friction", "friction_source")
	}
}

func joined(text, piece string) string { return strings.TrimSpace(text + " " + piece) }

func stackText(pieces []family.Piece) string {
	var out []string
	for _, pc := range pieces {
		out = append(out, pc.Text())
	}
	return strings.Join(out, " ")
}

func without(pieces []family.Piece, i int) string {
	rest := append(append([]family.Piece{}, pieces[:i]...), pieces[i+1:]...)
	return stackText(rest)
}

func turned(pieces []family.Piece, i int) string {
	all := append([]family.Piece{}, pieces...)
	all[i].Facing = map[byte]byte{'>': '<', '<': '>', 0: '>'}[all[i].Facing]
	return stackText(all)
}

func (l *look) stackLines(x *bench.Part, pieces int, d strip.Delivery, fit bool) []StackLine {
	if pieces == 0 {
		return nil
	}
	out := []StackLine{{"pieces", fmt.Sprint(pieces), ""}}
	if d.FreeLength > 0 {
		out = append(out, StackLine{"free length", l.Show(d.FreeLength,
			quantity.Length) + ", in a space of " + x.Stack.Def.Installed, ""})
	}
	if d.HasForce {
		tone := "petrol"
		text := l.Show(d.Force, quantity.Force)
		if d.Needed > 0 {
			text += " of the " + l.Show(d.Needed, quantity.Force) + " it must"
			if !d.Enough() {
				tone = "red"
			}
		}
		out = append(out, StackLine{"presses with", text, tone})
	}
	if d.Faces > 0 {
		out = append(out, StackLine{"faces that work", fmt.Sprint(d.Faces), ""})
	}
	if torque, ok := l.st.Carries(x, fit); ok {
		out = append(out, StackLine{"holds before it slips", l.Show(torque, quantity.Torque), "petrol"})
	}
	if d.Thickness > 0 && d.Unknown == 0 {
		out = append(out, StackLine{"thick in all", l.Show(d.Thickness, quantity.Length), ""})
	}
	if d.Fault != "" {
		out = append(out, StackLine{"", d.Fault, "red"})
	}
	return out
}

// removedRef is where the stack is written down as it comes off: the first time on
// the part, in a later round on that round's own record.
func (l *look) removedRef(x *bench.Part) string {
	if l.st.Round > 1 {
		return l.unit.StepRef(x.Code, "stack_removed").String()
	}
	return l.unit.PartRef(x.Code, "stack_found").String()
}

package entry

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/unit"
)

// Ground is what figures of a unit's test rest on as it stands now: all values that move a claim, by
// a key that Standing reads. What is empty is left out. Of a part it is what it is as fitted last:
// of one that was renewed nothing that was found on the old one.
func Ground(j *unit.Job, u *unit.Unit) map[string]string {
	g := ground{}
	p := &Place{Job: j, Unit: u}
	for _, f := range Fields(unit.ScopeUnit) {
		if !unit.Coded(unit.ScopeUnit, f.Name) {
			g.put(f, p, "unit", f.Name)
		}
	}
	for name, codes := range map[string]map[string]string{"identity": u.Identity, "more": u.More, "fill": u.Filled} {
		for code, value := range codes {
			g.say(value, "unit", name, code)
		}
	}
	g.say(u.Family, "unit", "family")
	g.say(j.Complaint, "job", "complaint")
	g.say(strings.Join(slices.Sorted(slices.Values(j.Symptoms)), " "), "job", "symptom")
	for _, l := range u.Limits {
		p := &Place{Job: j, Unit: u, Limit: l}
		for _, f := range Fields(unit.ScopeLimit) {
			g.put(f, p, "limit", l.Code, f.Name)
		}
	}
	if n := opened(j); n > 0 {
		g.say(fmt.Sprint(n), "unit", "opened")
	}
	for _, part := range u.Parts {
		g.part(j, u, part)
	}
	return g
}

// opened is how often the job was opened again for what touches the unit.
func opened(j *unit.Job) (n int) {
	for _, r := range j.Reopenings {
		if r.Touches == unit.TouchesUnit {
			n++
		}
	}
	return n
}

type ground map[string]string

func (g ground) say(value string, key ...string) {
	if value != "" {
		g[strings.Join(key, "/")] = value
	}
}

func (g ground) put(f *Field, p *Place, key ...string) {
	switch f.Moves() {
	case MovesUnit, MovesPart, MovesNeed:
		g.say(f.Get(p), key...)
	}
}

func (g ground) part(j *unit.Job, u *unit.Unit, part *unit.Part) {
	at := func(p *Place, scope unit.Scope, key ...string) {
		p.Job, p.Unit, p.Part = j, u, part
		for _, f := range Fields(scope) {
			g.put(f, p, append(append([]string{"part", part.Code}, key...), f.Name)...)
		}
	}
	at(&Place{}, unit.ScopePart)
	renewed := false
	for _, k := range u.Kit {
		if k.Part == part.Code {
			renewed = true
			at(&Place{Piece: k}, unit.ScopePiece, "piece", fmt.Sprint(k.Number))
		}
	}
	if d := part.Decision(); d != nil {
		renewed = renewed || d.Choice == "replace"
		at(&Place{Decision: d}, unit.ScopeDecision, "decision")
	}
	if s := part.Built(u.Round()); s != nil {
		at(&Place{Step: s}, unit.ScopeStep, "step")
	}
	for _, f := range part.Features {
		for _, stage := range []string{unit.StageFound, unit.StageBuilt} {
			if stage == unit.StageFound && renewed {
				continue
			}
			for _, r := range f.Newest(stage) {
				g.say(r.Value, "part", part.Code, "feature", f.Code, stage, r.Slot)
			}
		}
	}
	if renewed {
		return
	}
	for _, r := range part.Reworks {
		at(&Place{Rework: r}, unit.ScopeRework, "rework", r.Route)
	}
	for _, m := range part.Marks {
		if said := part.LastSaid(m.Code); said.State == unit.MarkSeen {
			g.say(said.State, "part", part.Code, "mark", m.Code)
		}
	}
}

// Standing is one value of a ground, told apart by its key.
type Standing struct {
	Moves Moves
	Part  string // code of the part it is of, "" of the unit
	Label string // what it is, in words; "" where the key tells no field
}

// StandingOf reads a key of a ground.
func StandingOf(key string) Standing {
	at := strings.Split(key, "/")
	label := func(scope unit.Scope, name string) string {
		if f, known := Find(scope, name); known {
			return f.Label
		}
		return ""
	}
	switch {
	case at[0] == "job":
		return Standing{Moves: MovesComplaint, Label: label(unit.ScopeJob, at[1])}
	case at[0] == "limit" && len(at) == 3:
		return Standing{Moves: MovesNeed, Label: "Limit of " + strings.ReplaceAll(at[1], ".", ", ") + ", " +
			strings.ToLower(label(unit.ScopeLimit, at[2]))}
	case at[0] == "part" && len(at) > 2:
		s := Standing{Moves: MovesPart, Part: at[1]}
		scope := map[string]unit.Scope{"piece": unit.ScopePiece, "decision": unit.ScopeDecision, "step": unit.ScopeStep,
			"rework": unit.ScopeRework}[at[2]]
		switch {
		case scope != "":
			s.Label = label(scope, at[len(at)-1])
		case at[2] == "feature":
			s.Label = "Reading"
		case at[2] == "mark":
			s.Label = "Mark " + strings.ReplaceAll(at[3], "_", " ")
		default:
			s.Label = label(unit.ScopePart, at[2])
		}
		return s
	case at[0] == "unit" && len(at) > 1:
		switch at[1] {
		case "family":
			return Standing{Moves: MovesUnit, Label: "Kind of unit"}
		case "opened":
			return Standing{Moves: MovesUnit, Label: "Opened again"}
		}
		s := Standing{Moves: MovesUnit, Label: label(unit.ScopeUnit, at[1])}
		if f, known := Find(unit.ScopeUnit, at[1]); known {
			s.Moves = f.Moves()
		}
		return s
	}
	return Standing{Moves: MovesUnit, Label: key}
}

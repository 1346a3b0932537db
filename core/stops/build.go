package stops

import (
	"strings"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/metrology"
	"corvek/core/unit"
)

func (l *list) build() {
	parts, undone := 0, 0
	for i := range l.Parts {
		if p := &l.Parts[i]; !p.Strip.Alone {
			parts++
			if !p.Step.Done {
				undone++
			}
		}
	}
	if undone > 0 {
		l.of("build", unit.StopUnfitted, "%d of %d parts not fitted", undone, parts).Act = "fit the next part"
	}
	for i := range l.Parts {
		p := &l.Parts[i]
		l.rework(p)
		l.order(p)
		l.counted(p)
		l.tightened(p)
		l.lip(p)
		l.felt(p)
		l.fitted(p)
		l.again(p)
	}
	if undone == 0 && len(l.Unfilled) > 0 {
		l.of("build", unit.StopFill, "Not done yet: %s", strings.ToLower(strings.Join(l.Unfilled, "; ")))
	}
	if !blank(l.Modification) && blank(l.ModificationKept) {
		l.of("build", unit.StopModification, "Modified in the field (%s): say what became of it", l.Modification)
	}
}

// felt asks how the shaft turns after a joint, and how a part goes that came off stuck.
func (l *list) felt(p *Part) {
	turn := strings.ReplaceAll(p.Step.Turn, "_", " ")
	switch {
	case !p.Step.Done:
	case p.AsksFeel && p.Step.Turn == "" && !p.Def.TurnCheck && !p.Stuck:
		l.part(p, "build", unit.StopTurn, "%s: move it by hand over its whole way and say how it goes", p.Name)
	case p.AsksFeel && p.Step.Turn == "" && !p.Def.TurnCheck:
		l.part(p, "build", unit.StopTurn, "%s came off %s: move it by hand and say how it goes", p.Name, p.Part.Stuck)
	case p.AsksFeel && p.Step.Turn == "":
		l.part(p, "build", unit.StopTurn, "%s: turn the shaft after each round and say how it feels", p.Name)
	case build.Turn(p.Step.Turn).Bad() && !p.Def.TurnCheck:
		l.part(p, "build", unit.StopStiff, "%s goes with %s", p.Name, turn)
	case build.Turn(p.Step.Turn).Bad() && build.AtRound(p.Step.TurnRound) != "":
		l.part(p, "build", unit.StopStiff, "Shaft %s since %s, %s: slacken them and look what stands proud there",
			turn, strings.ToLower(p.Name), build.AtRound(p.Step.TurnRound))
	case build.Turn(p.Step.Turn).Bad():
		l.part(p, "build", unit.StopStiff, "Shaft %s since %s went in", turn, strings.ToLower(p.Name))
	}
}

// fitted tells a part the wrong way round, whatever else is still open on it, and a pack
// that is not as it belongs or gives too little.
func (l *list) fitted(p *Part) {
	if !p.Step.Done {
		return
	}
	if p.Lacks != "" && p.Choice == decide.Replace {
		l.part(p, "build", unit.StopEmpty, "%s cannot be fitted new: %s", p.Name, p.Lacks).Act =
			"put a piece to its place at Kit, or decide to keep it"
	}
	if p.Def.Turns != nil && p.Def.Facing == "" {
		l.part(p, "build", unit.StopFacing, "%s: its place goes by which way the unit turns, and nobody said that",
			p.Name).Act = "say on the sheet of the unit which way it turns"
	}
	if _, right := build.FittingWays(p.Def); right != "" && p.Step.Facing != right {
		fitted := p.Step.Facing
		if fitted == "" {
			fitted = "not said"
		}
		l.part(p, "build", unit.StopFacing, "%s: fitted %q, belongs %q", p.Name, fitted, right)
	}
	s := p.Stack
	if s == nil || !p.Off {
		return
	}
	switch {
	case len(s.Fit) == 0:
		l.part(p, "build", unit.StopStack, "%s: order and facing as fitted not noted", p.Name)
	case s.Unknown:
		l.part(
			p,
			"build",
			unit.StopBelongs,
			"%s: nobody knows what belongs, so nothing says that it is right",
			p.Name,
		)
	case len(s.FitDiff) > 0:
		says := make([]string, len(s.FitDiff))
		for i, d := range s.FitDiff {
			says[i] = d.Text
		}
		l.part(p, "build", unit.StopStack, "%s: %s", p.Name, strings.Join(says, "; "))
	case s.FitDoes.Fault != "":
		l.part(p, "build", unit.StopStack, "%s: %s", p.Name, s.FitDoes.Fault)
	case s.FitDoes.Needed > 0 && !s.FitDoes.Enough():
		l.part(p, "build", unit.StopStack, "%s delivers %.0f N of the %.0f N it must", p.Name, s.FitDoes.Force,
			s.FitDoes.Needed)
	}
}

// again asks for the clearances that a build changes, measured on the built unit.
func (l *list) again(p *Part) {
	for i := range p.Features {
		f := &p.Features[i]
		l.reworked(p, f)
		switch {
		case !f.Def.Clearance:
		case !f.Built.Any:
			l.at(p, f, "build", unit.StopAgain, "%s: measure again", f.Def.Name)
		case f.Built.Verdict == metrology.Out || f.Built.Verdict == metrology.Undecided:
			l.at(p, f, "build", unit.StopAgain, "%s after the build is %s", f.Def.Name, f.Built.Verdict)
		}
	}
}

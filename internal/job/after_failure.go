package job

import (
	"strings"

	"corvek/core/metrology"
)

// mostChanges is how many changes are offered after a failed test.
const mostChanges = 5

// Changes are single changes that fit this unit after a failed test: what the named cause
// asks for and where it points first, then what is on the unit and can be changed alone.
func (st *State) Changes() (out []string) {
	if st.Cause != nil && st.Cause.Remedy != "" {
		out = append(out, strings.ToLower(st.Cause.Remedy))
	}
	if p := st.PointedAt(); p != nil {
		out = append(out, strings.ToLower(p.Name)+" out, looked at and in again")
	}
	if st.Family.Relief != nil {
		out = append(out, "relief shimmed")
	}
	if st.Family.Action == "cylinder" {
		out = append(out, "bled again")
	}
	for _, p := range st.Parts {
		if p.Def.Kind == "lip_seal" || p.Def.Kind == "piston_seal" {
			out = append(out, strings.ToLower(p.Name)+" fitted again")
		}
	}
	for _, p := range st.Parts {
		if p.Def.Kind == "spool" || p.Def.Kind == "poppet" {
			out = append(out, strings.ToLower(p.Name)+" washed and worked free")
		}
	}
	return out[:min(len(out), mostChanges)]
}

// Failed are the steps that the last test of the round did not pass, in words.
func (st *State) Failed() (out []string) {
	a := st.Attempt()
	if a == nil || !a.Closed {
		return nil
	}
	for _, p := range a.Points {
		switch p.Verdict {
		case metrology.Out:
			out = append(out, p.Test.Name+" out")
		case metrology.Undecided:
			out = append(out, p.Test.Name+" undecided")
		}
	}
	return out
}

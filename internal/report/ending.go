package report

import (
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/handover"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Note is the paper that goes with the unit. It says how the job ended for it, and
// what whoever takes it must do or must not do.
type Note struct {
	Title, Lead string
	Lines       []string
	Ordered     bool // the lines are done one after another
	Warning     string
}

// sites come before whatever a paper of ours says.
const sites = "Site rules, local codes and the machine maker's manual come first."

// NoteOf writes the note of a unit's ending.
func NoteOf(st *bench.State, units quantity.System) Note {
	switch st.Unit.Ending {
	case unit.EndReplaced:
		return replacedNote(st)
	case unit.EndCondemned:
		return condemnedNote(st, units)
	case unit.EndReturned:
		return returnedNote(st)
	case unit.EndFindings:
		return findingsNote(st, units)
	case unit.EndNoFault:
		return noFaultNote(st, units)
	}
	card := Note{Title: "Start-up card", Lead: "Keep it with the unit.", Lines: StartUp(st), Ordered: true,
		Warning: sites + " Never feel for a leak by hand."}
	claim, _ := st.Claim()
	switch {
	case st.Out():
		return failedNote(st, st.Failed())
	case claim == proof.Tested:
		card.Lead = Stands(st, units).Line() + ". Keep it with the unit."
	case claim != proof.Proved:
		return untestedNote(st)
	}
	return card
}

// untestedNote is for a unit that was not run, or is in parts: it is not started.
func untestedNote(st *bench.State) Note {
	n := Note{Title: "Not to be run", Lead: st.Unit.Name + " was not tested.",
		Warning: "No start-up card is given before a test of this build. " + sites}
	n.Lines = append(n.Lines, before(st)...)
	if st.Unit.Fluid != "" {
		n.Lines = append(n.Lines, "Fluid: "+st.Unit.Fluid+". Nothing else goes in.")
	}
	return n
}

// failedNote is for a unit whose test failed: it is not started.
func failedNote(st *bench.State, failed []string) Note {
	n := Note{Title: "Not to be run", Lead: st.Unit.Name + " did not pass its test.",
		Warning: "No start-up card is given before a test of this build is passed. " + sites}
	for _, f := range failed {
		n.Lines = append(n.Lines, "At the test: "+f+".")
	}
	return n
}

// replacedNote is for the unit that runs in place of this one.
func replacedNote(st *bench.State) Note {
	n := Note{Title: "For the unit that replaces it", Ordered: true,
		Lead:    st.Unit.Name + " was not rebuilt" + wording.Behind("; in its place: ", st.Unit.EndingNote) + ".",
		Warning: sites + " The new unit's own manual tells how it is filled and started."}
	n.Lines = append(n.Lines, before(st)...)
	n.Lines = append(n.Lines, carried(st)...)
	n.Lines = append(n.Lines, uncured(st)...)
	n.Lines = append(n.Lines, st.Family.StartUp...)
	n.Lines = append(n.Lines, nonEmpty(handover.Never(st.Family.Action), handover.Bolts, sumpAgain(st))...)
	return n
}

// carried is what the unit that runs in its place has to have of the old one, and what was changed on
// the machine.
func carried(st *bench.State) (out []string) {
	u := st.Unit
	same := strings.Join(nonEmpty(u.Variant, between("", u.Rotation, "-hand rotation seen from the shaft end")), ", ")
	if same != "" {
		out = append(out, "It must be the same variant: "+same+".")
	}
	if u.Modification != "" {
		kept := "carry it over, or ask before it runs without"
		if u.ModificationKept != "" {
			kept = strings.TrimSuffix(u.ModificationKept, ".")
		}
		out = append(
			out,
			"The old one was modified in the field: "+strings.TrimSuffix(u.Modification, ".")+"; "+kept+".",
		)
	}
	if u.Changed != "" {
		out = append(out, "Changed on the machine lately: "+strings.TrimSuffix(u.Changed, ".")+".")
	}
	return out
}

// before is what is done before anything runs in the unit's place.
func before(st *bench.State) (out []string) {
	c := st.Conclude
	if st.Cause != nil {
		out = append(out, "What ended the old one: "+st.Cause.Name+", "+st.Cause.Lies()+".")
	}
	for _, action := range actions(st) {
		out = append(out, "Before anything turns: "+action+".")
	}
	if c.Cured != "" {
		out = append(out, "Done already: "+strings.TrimSuffix(c.Cured, ".")+".")
	}
	return append(out, circuit(st)...)
}

// flushed says where the circuit was flushed, and where not.
func flushed(st *bench.State) string {
	var done, open []string
	for _, place := range unit.FlushPlaces {
		switch st.Unit.Flushes[place] {
		case entry.FlushDone:
			done = append(done, wording.Plain(place))
		case "":
			open = append(open, wording.Plain(place))
		}
	}
	words := "Flushed: " + strings.Join(done, ", ") + wording.Behind(", by ", st.Unit.FlushedBy) + "."
	if len(done) == 0 {
		words = "Nothing of it is flushed yet."
	}
	if len(open) > 0 {
		words += " To be flushed before anything runs: " + strings.Join(open, ", ") + "."
	}
	return words
}

func condemnedNote(st *bench.State, units quantity.System) Note {
	n := Note{Title: "Condemned", Warning: "Not to be run again, nor handed on as sound. " + sites,
		Lead: st.Unit.Name + " is not worth or not fit to be rebuilt" +
			wording.Behind("; it went: ", st.Unit.EndingNote) + "."}
	n.Lines = append(n.Lines, against(st, units)...)
	n.Lines = append(n.Lines, before(st)...)
	return n
}

// against is what speaks against using the unit again: marks that break a part, and
// figures beyond their limits.
func against(st *bench.State, units quantity.System) (out []string) {
	for _, p := range st.Parts {
		for _, m := range p.Seen {
			if m.Breaking {
				out = append(out, p.Name+": "+m.Text()+".")
			}
		}
		for _, f := range p.Features {
			if f.Found.Verdict == metrology.Out {
				out = append(out, fmt.Sprintf("%s: %s beyond %s (%s).", p.Name, strings.ToLower(f.Def.Name),
					limitText(f, units), standsOn(f, units)))
			}
		}
	}
	return out
}

func returnedNote(st *bench.State) Note {
	u := st.Unit
	n := Note{Title: "Returned unopened", Warning: "Nothing was taken off it here. " + sites,
		Lead: u.Name + wording.Behind(", serial ", u.Serial) + wording.Behind(", went ", u.EndingNote) + "."}
	if u.Opened() {
		n.Warning = "It was opened here before it was returned; the findings report says how far. " + sites
	}
	n.Lines = append(n.Lines, "What was told: "+strings.TrimSpace(st.Job.Complaint))
	if st.Job.WarrantyNote != "" {
		n.Lines = append(n.Lines, "As it came in: "+st.Job.WarrantyNote)
	}
	n.Lines = append(n.Lines, atMachine(st)...)
	shots := 0
	for _, p := range st.Job.Pictures {
		if p.BeforeCleaning {
			shots++
		}
	}
	n.Lines = append(n.Lines, fmt.Sprintf("Pictures from before cleaning: %d.", shots))
	return n
}

// atMachine are the answers from the machine, in words.
func atMachine(st *bench.State) (out []string) {
	for _, code := range st.Family.Gauge {
		q, known := family.QuestionByCode(code)
		if !known {
			continue
		}
		if a, said := q.AnswerByCode(st.Unit.Gauge[code]); said {
			out = append(out, q.Ask+" "+a.Say+": "+a.Means+".")
		}
	}
	if len(out) == 0 && st.Unit.NotAsked != "" {
		out = append(out, "Nobody at the machine was asked: "+st.Unit.NotAsked+".")
	}
	return out
}

func findingsNote(st *bench.State, units quantity.System) Note {
	n := Note{
		Title:   "Opened for findings only",
		Warning: "Not rebuilt, not tested, not to be run. " + sites,
		Lead: st.Unit.Name + " was taken apart for what it shows" + wording.Behind(
			"; it went: ",
			st.Unit.EndingNote,
		) + ".",
	}
	n.Lines = append(n.Lines, against(st, units)...)
	if st.Cause != nil {
		n.Lines = append(n.Lines, "Concluded: "+st.Cause.Name+", "+st.Cause.Lies()+".")
	} else {
		n.Lines = append(n.Lines, "No cause was concluded.")
	}
	for _, action := range actions(st) {
		n.Lines = append(n.Lines, "Before another runs in its place: "+action+".")
	}
	return n
}

func noFaultNote(st *bench.State, units quantity.System) Note {
	n := Note{Title: "No fault found", Warning: sites,
		Lead: st.Unit.Name + " was looked at and nothing was found wrong with it. " + Stands(st, units).Line() + "."}
	n.Lines = append(n.Lines, atMachine(st)...)
	n.Lines = append(n.Lines, tested(st)...)
	n.Lines = append(n.Lines, "The complaint stands until something is found for it: look on the machine, at what "+
		"feeds the unit, what drives it and what it works on.")
	return n
}

// tested are the steps that were read in the test that counts.
func tested(st *bench.State) (out []string) {
	last := st.Counts()
	if last == nil {
		return []string{"It was not run on the stand."}
	}
	for _, p := range last.Points {
		if p.Row.Word != "" {
			out = append(out, p.Test.Name+": "+p.Row.Word+".")
		}
	}
	return out
}

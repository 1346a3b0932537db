package job

import (
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
)

// gaugeHold says in words why the gauges keep the unit shut, with the stop that
// stands for it; a lead's waiver of one reason settles no other. It is "" where they
// do not.
func (st *State) gaugeHold() (code unit.StopCode, why string) {
	because := strings.Join(st.Gauge.Because, "; ")
	ask := func(code string) string {
		q, _ := family.QuestionByCode(code)
		return q.Ask
	}
	hold := st.Gauge.Holds(st.Unit.NotAsked != "")
	code = unit.StopCode{Unit: st.Unit.Number, Station: "strip", Kind: unit.StopGauges, Part: string(hold)}
	switch hold {
	case family.HoldCleared:
		code.Kind, code.Part = unit.StopAcquitted, ""
		why = "the unit is cleared by the gauges: " + because + "; it is not opened"
	case family.HoldElsewhere:
		why = "the gauges point elsewhere: " + because + "; look there first"
	case family.HoldDisagree:
		why = "the answers at the machine disagree: " + because + "; but " + strings.Join(st.Gauge.Against, "; ")
	case family.HoldFirst:
		why = "ask first, before anything is opened: " + ask(st.Gauge.First)
	case family.HoldNotTold:
		why = "the gauges have not told yet; ask at the machine: " + ask(st.Gauge.Unasked[0])
	}
	return code, why
}

func (st *State) stopGauges() {
	if code, why := st.gaugeHold(); why != "" {
		st.add(code, "%s", strings.ToUpper(why[:1])+why[1:])
	}
}

// Shut says why the unit is not opened yet: the gauges hold it and no lead opened
// it all the same. It is "" where it may be opened.
func (st *State) Shut() string {
	code, why := st.gaugeHold()
	if why == "" || st.Job.Pass(code.String()) != nil {
		return ""
	}
	return why + ". A lead can open it all the same, with a reason"
}

// mayOpen refuses to take a part off a unit that the gauges hold.
func (w *writing) mayOpen(ref unit.Ref, value string) error {
	if ref.Scope != unit.ScopePart || ref.Name != "off" || value != entry.Yes {
		return nil
	}
	st, err := w.state(ref.Unit)
	if err != nil {
		return err
	}
	if why := st.Shut(); why != "" {
		return field.Errorf(ref.String(), "not opened yet: %s", why)
	}
	return nil
}

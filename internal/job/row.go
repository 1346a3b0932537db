package job

import (
	"context"
	"errors"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// Row is what is done with one part in one act of a running list: it came off, or it is fitted, with what was
// answered of it meanwhile.
type Row struct {
	Station string // strip or build
	Part    string // code
	Answers []Answer
	With    []string // parts of the same sub-assembly that come off or go in with it and ask nothing
}

// Answer is one value of a row, by the name of its field; Bare is the unit of a bare figure.
type Answer struct{ Name, Value, Bare string }

// The answers that a row takes, by station: what is seen, counted and felt as the part comes off or goes in.
var rowAnswers = map[string][]string{
	"strip": {"found", "facing", "stuck"},
	"build": {"facing", "count", "stack_fit", "press", "torque", "cycled", "turn", "turn_round"},
}

// at is the address of a value of the row.
func (r *Row) at(u *unit.Unit, name string) unit.Ref {
	if r.Station == "build" {
		return u.StepRef(r.Part, name)
	}
	return u.PartRef(r.Part, name)
}

// done is what the row does beside its answers.
func (r *Row) done() string {
	if r.Station == "build" {
		return "done"
	}
	return "off"
}

// DoRow takes a part off or fits it, in one write with all its answers: nothing is kept where one of them is wrong.
// Where anything was answered, that tells in the record that it was done.
func (s *Service) DoRow(ctx context.Context, who people.Actor, tag string, number int, r Row) error {
	takes := rowAnswers[r.Station]
	if takes == nil {
		return field.Errorf("station", "is strip or build")
	}
	return s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		u := w.Job.Unit(number)
		if u == nil || u.Part(r.Part) == nil {
			return field.Errorf("part", "is not a part of this unit")
		}
		st, err := w.before(number)
		if err != nil {
			return err
		}
		for _, code := range append([]string{r.Part}, r.With...) {
			p := st.ByCode[code]
			if p == nil {
				return field.Errorf("part", "is not a part of this unit")
			}
			if within := p.Within(); code != r.Part && (within == "" || within != st.ByCode[r.Part].Within()) {
				return field.Errorf("part", "%s does not go as one with it", strings.ToLower(p.Name))
			}
			if unread := st.Unread(p.AsFound, r.Station); unread != nil {
				return field.Errorf("", "read first: %s", unread.Title)
			}
		}
		if len(r.With) > 0 {
			return w.rowsAsOne(st, u, &r)
		}
		answered := false
		for _, name := range takes {
			i := slices.IndexFunc(r.Answers, func(a Answer) bool { return a.Name == name && a.Value != "" })
			if i < 0 {
				continue
			}
			wrote, err := w.rowValue(r.at(u, name), r.Answers[i])
			if err != nil {
				return err
			}
			answered = answered || wrote
		}
		wrote, err := w.rowValue(r.at(u, r.done()), Answer{Value: "yes"})
		switch {
		case err != nil:
			return err
		case !wrote && !answered:
			return store.ErrUnchanged
		case wrote && answered:
			w.entries = w.entries[:len(w.entries)-1]
		}
		return nil
	})
}

// rowsAsOne takes a sub-assembly off, or puts it in: one line of the record names its parts in their order.
func (w *writing) rowsAsOne(st *bench.State, u *unit.Unit, r *Row) error {
	before := len(w.entries)
	var names []string
	for _, code := range append([]string{r.Part}, r.With...) {
		part := Row{Station: r.Station, Part: code}
		wrote, err := w.rowValue(part.at(u, part.done()), Answer{Value: entry.Yes})
		if err != nil {
			return err
		}
		if wrote {
			names = append(names, strings.ToLower(st.ByCode[code].Name))
		}
	}
	if len(names) == 0 {
		return store.ErrUnchanged
	}
	w.entries = w.entries[:before]
	did := map[string]string{"strip": "took off as one: ", "build": "fitted as one: "}[r.Station]
	w.did(did + strings.Join(names, ", "))
	return nil
}

// rowValue writes a value over whatever stands there: the row shows it, and it is done anew.
func (w *writing) rowValue(ref unit.Ref, a Answer) (wrote bool, err error) {
	place, f, err := entry.Resolve(w.Job, ref, w.shop)
	if err != nil {
		return false, err
	}
	_, wrote, err = w.set(Edit{Field: ref.String(), Value: a.Value, Base: f.Get(place), Bare: a.Bare})
	var wrong *field.Error
	if errors.As(err, &wrong) && a.Name != "" {
		return false, field.Errorf(a.Name, "%s", wrong.Text)
	}
	return wrote, err
}

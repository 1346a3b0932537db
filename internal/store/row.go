package store

import (
	"fmt"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"
)

// table is where one kind of thing of a job is kept. Its key, behind the job's
// number, is what the thing is called on the job; a parent's table stands
// before its children's.
type table struct {
	name string
	key  []string
	read string // the columns that are read with the job, where not all are
}

var (
	unitsTable       = &table{name: "units", key: []string{"number"}}
	roundsTable      = &table{name: "rounds", key: []string{"unit", "number"}}
	partsTable       = &table{name: "parts", key: []string{"unit", "code"}}
	featuresTable    = &table{name: "features", key: []string{"unit", "part", "code"}}
	readingsTable    = &table{name: "readings", key: []string{"unit", "part", "feature", "round", "stage", "slot"}}
	partMarksTable   = &table{name: "part_marks", key: []string{"unit", "part", "round", "code"}}
	decisionsTable   = &table{name: "decisions", key: []string{"unit", "part", "round"}}
	reworksTable     = &table{name: "reworks", key: []string{"unit", "part", "route"}}
	stepsTable       = &table{name: "build_steps", key: []string{"unit", "part", "round"}}
	looseTable       = &table{name: "loose_items", key: []string{"unit", "line"}}
	marksTable       = &table{name: "evidence", key: []string{"unit", "round", "code"}}
	conclusionsTable = &table{name: "conclusions", key: []string{"unit", "round"}}
	causesTable      = &table{name: "causes", key: []string{"unit", "number"}}
	kitTable         = &table{name: "kit_pieces", key: []string{"unit", "line"}}
	accountsTable    = &table{name: "accounts", key: []string{"unit", "line"}}
	attemptsTable    = &table{name: "attempts", key: []string{"unit", "number"}}
	pointsTable      = &table{name: "points", key: []string{"unit", "attempt", "code"}}
	limitsTable      = &table{name: "step_limits", key: []string{"unit", "code"}}
	picturesTable    = &table{name: "attachments", key: []string{"number"},
		read: "number, name, media_type, caption, before_cleaning, width, height, unit, part, mark"}
	pictureMarks = &table{name: "picture_marks", key: []string{"picture", "number"}}
	readTable    = &table{name: "acknowledgements", key: []string{"caution"}}
	passesTable  = &table{name: "stop_passes", key: []string{"code"}}
	reopenTable  = &table{name: "reopenings", key: []string{"number"}}
	followTable  = &table{name: "follow_ups", key: []string{"number"}}
	workedTable  = &table{name: "worked_figures", key: []string{"line"}}
)

// tables are all of them by name.
var tables = byName(unitsTable, roundsTable, partsTable, featuresTable, readingsTable, partMarksTable, decisionsTable,
	reworksTable, stepsTable, looseTable, marksTable, conclusionsTable, causesTable, kitTable, accountsTable,
	attemptsTable, pointsTable, limitsTable, picturesTable, pictureMarks, readTable, passesTable, reopenTable,
	followTable, workedTable)

func byName(all ...*table) map[string]*table {
	out := map[string]*table{}
	for _, t := range all {
		out[t.name] = t
	}
	return out
}

// columns are values by the name of their column.
type columns map[string]any

// row is one row of a job.
type row struct {
	table *table
	key   []any
	cols  columns
}

// id tells rows apart within a job.
func (r row) id() string { return r.table.name + fmt.Sprintf("%q", r.key) }

// where is the row's key by column, without the job's.
func (r row) where() columns {
	out := columns{}
	for i, k := range r.table.key {
		out[k] = r.key[i]
	}
	return out
}

// rows lays a job out as the rows that keep it, parents before children. The
// job's own row is not among them.
func rows(j *unit.Job) []row {
	var w writer
	for _, u := range j.Units {
		w.unit(u)
	}
	for _, a := range j.Acknowledgements {
		w.add(readTable, keys(a.Caution), columns{"by_name": a.By, "at": a.At})
	}
	for _, p := range j.Waivers {
		w.add(passesTable, keys(p.Code), columns{"stop_text": p.Text, "reason": p.Reason, "by_name": p.By, "at": p.At})
	}
	for _, r := range j.Reopenings {
		w.add(reopenTable, keys(r.Number), columns{"handed_over": r.HandedOver, "reason": r.Reason, "by_name": r.By,
			"at": r.At})
	}
	for _, f := range j.FollowUps {
		var answered any // none came yet
		if f.Answered() {
			answered = f.AnsweredAt
		}
		w.add(followTable, keys(f.Number), columns{"unit": f.Unit, "kind": f.Kind, "due_on": f.DueOn.Time(),
			"asked_by": f.AskedBy, "result": f.Result, "note": f.Note, "answered_by": f.AnsweredBy,
			"answered_at": answered})
	}
	for _, p := range j.Pictures {
		w.add(picturesTable, keys(p.Number), columns{"name": p.Name, "media_type": p.MediaType, "width": p.Width,
			"height": p.Height, "unit": p.Unit, "part": p.Part, "mark": p.Mark},
			&entry.Place{Picture: p}, unit.ScopePicture)
		for _, m := range p.Marks {
			w.add(pictureMarks, keys(p.Number, m.Number),
				columns{"x": m.X, "y": m.Y, "note": m.Note, "evidence": m.Evidence, "part": m.Part,
					"mark": m.Mark})
		}
	}
	for _, c := range j.Worked {
		w.add(workedTable, keys(c.Number), columns{"calculator": c.Calculator, "note": c.Note, "inputs": c.Inputs,
			"answer": c.Answer, "by_name": c.By, "at": c.At})
	}
	return w.rows
}

type writer struct{ rows []row }

func keys(of ...any) []any { return of }

// add keeps a row: its own columns and, with a place and a scope, the declared
// fields of the scope.
func (w *writer) add(t *table, key []any, cols columns, fields ...any) {
	if len(fields) == 2 {
		fieldColumns(cols, fields[0].(*entry.Place), fields[1].(unit.Scope))
	}
	w.rows = append(w.rows, row{t, key, cols})
}

func (w *writer) unit(u *unit.Unit) {
	n := u.Number
	w.add(unitsTable, keys(n), columns{"family": u.Family, "gauge": pairs(u.Gauge), "identity": pairs(u.Identity),
		"flush": pairs(u.Flushes), "fill": pairs(u.Filled), "more": pairs(u.More)},
		&entry.Place{Unit: u}, unit.ScopeUnit)
	for _, r := range u.Rounds {
		w.add(roundsTable, keys(n, r.Number), columns{"reason": r.Reason, "back_to": r.BackTo,
			"opened_by": r.OpenedBy, "opened_at": r.OpenedAt})
	}
	for i, p := range u.Parts {
		w.part(n, i+1, p)
	}
	for _, l := range u.Loose {
		w.add(looseTable, keys(n, l.Number), columns{}, &entry.Place{Loose: l}, unit.ScopeLoose)
	}
	for _, m := range u.Marks {
		w.add(marksTable, keys(n, m.Round, m.Code), columns{}, &entry.Place{Mark: m}, unit.ScopeEvidence)
	}
	for _, c := range u.Conclusions {
		w.add(conclusionsTable, keys(n, c.Round), columns{}, &entry.Place{Conclusion: c}, unit.ScopeConclusion)
	}
	for _, c := range u.Causes {
		w.add(causesTable, keys(n, c.Number), columns{"round": c.Round}, &entry.Place{Cause: c}, unit.ScopeCause)
	}
	for _, k := range u.Kit {
		w.add(kitTable, keys(n, k.Number), columns{}, &entry.Place{Piece: k}, unit.ScopePiece)
	}
	for _, a := range u.Accounts {
		w.add(accountsTable, keys(n, a.Number), columns{"teller": a.Teller, "words": a.Words})
	}
	for _, l := range u.Limits {
		w.add(limitsTable, keys(n, l.Code), columns{}, &entry.Place{Limit: l}, unit.ScopeLimit)
	}
	for _, a := range u.Attempts {
		w.add(attemptsTable, keys(n, a.Number), columns{"round": a.Round, "by_name": a.By, "at": a.At},
			&entry.Place{Attempt: a}, unit.ScopeAttempt)
		for _, p := range a.Points {
			w.add(pointsTable, keys(n, a.Number, p.Code), columns{}, &entry.Place{Point: p}, unit.ScopePoint)
		}
	}
}

func (w *writer) part(n, place int, p *unit.Part) {
	w.add(partsTable, keys(n, p.Code), columns{"name": p.Name, "kind": p.Kind, "branch": p.Branch,
		"ordinal": place}, &entry.Place{Part: p}, unit.ScopePart)
	for i, f := range p.Features {
		w.add(featuresTable, keys(n, p.Code, f.Code), columns{"place": i + 1}, &entry.Place{Feature: f},
			unit.ScopeFeature)
		for _, r := range f.Readings {
			w.add(readingsTable, keys(n, p.Code, f.Code, r.Round, r.Stage, r.Slot),
				columns{"value": r.Value, "by_name": r.By, "at": r.At})
		}
	}
	for _, m := range p.Marks {
		w.add(partMarksTable, keys(n, p.Code, m.Round, m.Code), columns{}, &entry.Place{Mark: m}, unit.ScopePartMark)
	}
	for _, d := range p.Decisions {
		w.add(decisionsTable, keys(n, p.Code, d.Round), columns{}, &entry.Place{Decision: d}, unit.ScopeDecision)
	}
	for _, r := range p.Reworks {
		w.add(reworksTable, keys(n, p.Code, r.Route), columns{}, &entry.Place{Rework: r}, unit.ScopeRework)
	}
	for _, s := range p.Steps {
		w.add(stepsTable, keys(n, p.Code, s.Round), columns{"by_name": s.By}, &entry.Place{Step: s}, unit.ScopeStep)
	}
}

// jobColumns are the declared fields of the job's own row.
func jobColumns(j *unit.Job) columns {
	cols := columns{"symptoms": strings.Join(j.Symptoms, " ")}
	fieldColumns(cols, &entry.Place{Job: j}, unit.ScopeJob)
	return cols
}

// grouped are fields that are kept many in one column, written beside.
var grouped = map[string]bool{"symptom": true, "gauge": true, "identity": true, "flush": true, "fill": true,
	"more": true}

// fieldColumns writes the declared fields of a scope into their columns.
func fieldColumns(cols columns, p *entry.Place, scope unit.Scope) {
	for _, f := range entry.Fields(scope) {
		if !grouped[f.Name] {
			cols[f.Name] = value(f, f.Get(p))
		}
	}
}

// value is what a column of the field's kind keeps.
func value(f *entry.Field, text string) any {
	switch {
	case f.Kind == entry.Flag:
		return text == entry.Yes
	case f.Kind == entry.Day:
		if d, ok := unit.ParseDate(text); ok {
			return d.Time()
		}
		return nil
	case f.Kind == entry.Timer:
		if t, err := time.Parse(time.RFC3339, text); err == nil {
			return t
		}
		return nil
	case f.Kind == entry.Whole && f.Required:
		return atoi(text)
	}
	return text
}

// same compares what two columns keep.
func same(a, b any) bool {
	if x, is := a.(time.Time); is {
		y, too := b.(time.Time)
		return too && x.Equal(y)
	}
	return a == b
}

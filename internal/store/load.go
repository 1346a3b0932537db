package store

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"

	"gorm.io/gorm"
)

// reader reads the rows of one job.
type reader struct {
	db    *gorm.DB
	id    int64
	job   *unit.Job
	fault error
}

// load reads a job whole but for the content of its pictures. It is one
// consistent state only within a transaction.
func load(db *gorm.DB, tag string) (*unit.Job, int64, error) {
	var found []map[string]any
	err := db.Table("jobs").Select("jobs.*, customers.name AS customer_name, customers.place AS customer_place, "+
		"customers.contact AS customer_contact").
		Joins("JOIN customers ON customers.id = jobs.customer_id").Where("tag = ?", tag).Limit(1).Find(&found).Error
	if err != nil {
		return nil, 0, err
	}
	if len(found) == 0 {
		return nil, 0, ErrNotFound
	}
	head := columns(found[0])
	r := &reader{db: db, id: head.int64("id"), job: &unit.Job{
		Tag: tag, Version: head.int64("version"), Station: head.text("station"),
		Symptoms: strings.Fields(head.text("symptoms")),
		Customer: unit.Customer{Name: head.text("customer_name"), Place: head.text("customer_place"),
			Contact: head.text("customer_contact")},
	}}
	r.fields(head, &entry.Place{Job: r.job}, unit.ScopeJob)
	r.units()
	r.parts()
	r.marks()
	r.attempts()
	r.pictures()
	r.rest()
	r.job.Order()
	return r.job, r.id, r.fault
}

// each reads the rows of a table in the order given.
func (r *reader) each(t *table, order string, take func(columns)) {
	if r.fault != nil {
		return
	}
	q := r.db.Table(t.name).Where("job_id = ?", r.id).Order(order)
	if t.read != "" {
		q = q.Select(t.read)
	}
	var found []map[string]any
	if r.fault = q.Find(&found).Error; r.fault != nil {
		r.fault = fmt.Errorf("%s: %w", t.name, r.fault)
		return
	}
	for _, c := range found {
		if take(c); r.fault != nil {
			return
		}
	}
}

// fields reads the declared fields of a scope from their columns.
func (r *reader) fields(c columns, p *entry.Place, scope unit.Scope) {
	for _, f := range entry.Fields(scope) {
		if grouped[f.Name] {
			continue
		}
		v, there := c[f.Name]
		if !there {
			r.fault = fmt.Errorf("there is no column for %s %s", scope, f.Name)
			return
		}
		if err := f.Load(p, typed(f, v)); err != nil {
			r.fault = fmt.Errorf("%s %s: %w", scope, f.Name, err)
		}
	}
}

// typed is what was typed for what a column keeps.
func typed(f *entry.Field, v any) string {
	switch v := v.(type) {
	case bool:
		if v {
			return entry.Yes
		}
	case time.Time:
		if f.Kind == entry.Day {
			return v.Format(time.DateOnly)
		}
		return v.UTC().Format(time.RFC3339)
	case string:
		return v
	case nil:
	default:
		return fmt.Sprint(v)
	}
	return ""
}

func (r *reader) units() {
	r.each(unitsTable, "number", func(c columns) {
		u := &unit.Unit{Number: c.int("number"), Family: c.text("family"), Gauge: readPairs(c.text("gauge")),
			Identity: readPairs(c.text("identity")), Flushes: readPairs(c.text("flush")),
			Filled: readPairs(c.text("fill")),
			More:   readPairs(c.text("more"))}
		r.fields(c, &entry.Place{Unit: u}, unit.ScopeUnit)
		r.job.Units = append(r.job.Units, u)
	})
	r.each(roundsTable, "unit, number", func(c columns) {
		u := r.unit(c)
		u.Rounds = append(u.Rounds, &unit.Round{Number: c.int("number"), Reason: c.text("reason"),
			BackTo: c.text("back_to"), OpenedBy: c.text("opened_by"), OpenedAt: c.time("opened_at")})
	})
	r.each(accountsTable, "unit, line", func(c columns) {
		u := r.unit(c)
		u.Accounts = append(u.Accounts, &unit.Account{Number: c.int("line"), Teller: c.text("teller"),
			Words: c.text("words")})
	})
}

// unit is the unit that a row belongs to.
func (r *reader) unit(c columns) *unit.Unit {
	if u := r.job.Unit(c.int("unit")); u != nil {
		return u
	}
	r.fault = fmt.Errorf("a row belongs to unit %d, which is not there", c.int("unit"))
	return &unit.Unit{}
}

func (r *reader) parts() {
	parts := map[string]*unit.Part{}
	part := func(c columns) *unit.Part { return parts[fmt.Sprint(c["unit"])+"/"+c.text("part")] }
	r.each(partsTable, "unit, ordinal", func(c columns) {
		u, p := r.unit(c), &unit.Part{Code: c.text("code"), Name: c.text("name"), Kind: c.text("kind"),
			Branch: c.text("branch")}
		r.fields(c, &entry.Place{Part: p}, unit.ScopePart)
		u.Parts = append(u.Parts, p)
		parts[fmt.Sprint(c["unit"])+"/"+p.Code] = p
	})
	r.each(featuresTable, "unit, part, place, code", func(c columns) {
		f, p := &unit.Feature{Code: c.text("code")}, part(c)
		r.fields(c, &entry.Place{Feature: f}, unit.ScopeFeature)
		p.Features = append(p.Features, f)
	})
	r.each(readingsTable, "unit, part, feature, round, at, slot", func(c columns) {
		x := &unit.Reading{Round: c.int("round"), Stage: c.text("stage"), Slot: c.text("slot"),
			Value: c.text("value"), By: c.text("by_name"), At: c.time("at")}
		x.Measure()
		f := part(c).Feature(c.text("feature"))
		f.Readings = append(f.Readings, x)
	})
	r.each(partMarksTable, "unit, part, round, code", func(c columns) {
		m, p := &unit.Mark{Round: c.int("round"), Code: c.text("code")}, part(c)
		r.fields(c, &entry.Place{Mark: m}, unit.ScopePartMark)
		p.Marks = append(p.Marks, m)
	})
	r.each(decisionsTable, "unit, part, round", func(c columns) {
		d, p := &unit.Decision{Round: c.int("round")}, part(c)
		r.fields(c, &entry.Place{Decision: d}, unit.ScopeDecision)
		p.Decisions = append(p.Decisions, d)
	})
	r.each(reworksTable, "unit, part, route", func(c columns) {
		x, p := &unit.Rework{Route: c.text("route")}, part(c)
		r.fields(c, &entry.Place{Rework: x}, unit.ScopeRework)
		p.Reworks = append(p.Reworks, x)
	})
	r.each(stepsTable, "unit, part, round", func(c columns) {
		s, p := &unit.Step{Round: c.int("round")}, part(c)
		r.fields(c, &entry.Place{Step: s}, unit.ScopeStep)
		s.By = c.text("by_name")
		p.Steps = append(p.Steps, s)
	})
}

func (r *reader) marks() {
	r.each(looseTable, "unit, line", func(c columns) {
		u, l := r.unit(c), &unit.Loose{Number: c.int("line")}
		r.fields(c, &entry.Place{Loose: l}, unit.ScopeLoose)
		u.Loose = append(u.Loose, l)
	})
	r.each(marksTable, "unit, round, code", func(c columns) {
		u, m := r.unit(c), &unit.Mark{Round: c.int("round"), Code: c.text("code")}
		r.fields(c, &entry.Place{Mark: m}, unit.ScopeEvidence)
		u.Marks = append(u.Marks, m)
	})
	r.each(conclusionsTable, "unit, round", func(c columns) {
		u, x := r.unit(c), &unit.Conclusion{Round: c.int("round")}
		r.fields(c, &entry.Place{Conclusion: x}, unit.ScopeConclusion)
		u.Conclusions = append(u.Conclusions, x)
	})
	r.each(causesTable, "unit, number", func(c columns) {
		u, x := r.unit(c), &unit.NamedCause{Number: c.int("number"), Round: c.int("round")}
		r.fields(c, &entry.Place{Cause: x}, unit.ScopeCause)
		u.Causes = append(u.Causes, x)
	})
	r.each(kitTable, "unit, line", func(c columns) {
		u, k := r.unit(c), &unit.Piece{Number: c.int("line")}
		r.fields(c, &entry.Place{Piece: k}, unit.ScopePiece)
		u.Kit = append(u.Kit, k)
	})
}

func (r *reader) attempts() {
	r.each(limitsTable, "unit, code", func(c columns) {
		u, l := r.unit(c), &unit.StepLimit{Code: c.text("code")}
		r.fields(c, &entry.Place{Limit: l}, unit.ScopeLimit)
		u.Limits = append(u.Limits, l)
	})
	r.each(attemptsTable, "unit, number", func(c columns) {
		u, a := r.unit(c), &unit.Attempt{Number: c.int("number"), Round: c.int("round"), By: c.text("by_name"),
			At: c.time("at")}
		r.fields(c, &entry.Place{Attempt: a}, unit.ScopeAttempt)
		u.Attempts = append(u.Attempts, a)
	})
	r.each(pointsTable, "unit, attempt, code", func(c columns) {
		p, a := &unit.Point{Code: c.text("code")}, r.unit(c).Attempt(c.int("attempt"))
		r.fields(c, &entry.Place{Point: p}, unit.ScopePoint)
		a.Points = append(a.Points, p)
	})
}

func (r *reader) pictures() {
	r.each(picturesTable, "number", func(c columns) {
		p := &unit.Picture{
			Number: c.int("number"), Name: c.text("name"), MediaType: c.text("media_type"), Width: c.int("width"),
			Height: c.int("height"),
			Unit:   c.int("unit"), Part: c.text("part"), Mark: c.text("mark"),
		}
		r.fields(c, &entry.Place{Picture: p}, unit.ScopePicture)
		r.job.Pictures = append(r.job.Pictures, p)
	})
	r.each(pictureMarks, "picture, number", func(c columns) {
		m, p := &unit.PictureMark{Number: c.int("number"), Note: c.text("note"), Evidence: c.text("evidence"),
			Part: c.text("part"), Mark: c.text("mark")}, r.job.Picture(c.int("picture"))
		m.X, _ = c["x"].(float64)
		m.Y, _ = c["y"].(float64)
		p.Marks = append(p.Marks, m)
	})
}

func (r *reader) rest() {
	r.each(readTable, "at, caution", func(c columns) {
		r.job.Acknowledgements = append(r.job.Acknowledgements,
			&unit.Acknowledgement{Caution: c.text("caution"), By: c.text("by_name"), At: c.time("at")})
	})
	r.each(passesTable, "at, code", func(c columns) {
		r.job.Waivers = append(r.job.Waivers, &unit.Waiver{Code: c.text("code"), Text: c.text("stop_text"),
			Reason: c.text("reason"), By: c.text("by_name"), At: c.time("at")})
	})
	r.each(reopenTable, "number", func(c columns) {
		r.job.Reopenings = append(r.job.Reopenings, &unit.Reopening{Number: c.int("number"),
			HandedOver: c.time("handed_over"), Reason: c.text("reason"), By: c.text("by_name"), At: c.time("at")})
	})
	r.each(followTable, "number", func(c columns) {
		r.job.FollowUps = append(r.job.FollowUps, &unit.FollowUp{Number: c.int("number"), Unit: c.int("unit"),
			Kind: c.text("kind"), DueOn: unit.DateOf(c.time("due_on")), AskedBy: c.text("asked_by"),
			Result: c.text("result"), Note: c.text("note"), AnsweredBy: c.text("answered_by"),
			AnsweredAt: c.time("answered_at")})
	})
	r.each(workedTable, "line", func(c columns) {
		r.job.Worked = append(r.job.Worked, &unit.Worked{
			Number: c.int("line"), Calculator: c.text("calculator"), Note: c.text("note"), Inputs: c.text("inputs"),
			Answer: c.text("answer"),
			By:     c.text("by_name"), At: c.time("at"),
		})
	})
}

func (c columns) text(name string) string {
	s, _ := c[name].(string)
	return s
}

func (c columns) int64(name string) int64 {
	switch n := c[name].(type) {
	case int64:
		return n
	case int32:
		return int64(n)
	case int:
		return int64(n)
	}
	return 0
}

func (c columns) int(name string) int { return int(c.int64(name)) }

func (c columns) time(name string) time.Time {
	t, _ := c[name].(time.Time)
	return t.UTC()
}

// pairs keeps answers as "question=answer", blank-separated, in order.
func pairs(m map[string]string) string {
	var out []string
	for _, k := range slices.Sorted(maps.Keys(m)) {
		out = append(out, k+"="+m[k])
	}
	return strings.Join(out, " ")
}

func readPairs(text string) map[string]string {
	out := map[string]string{}
	for _, w := range strings.Fields(text) {
		if k, v, ok := strings.Cut(w, "="); ok {
			out[k] = v
		}
	}
	return out
}

func atoi(text string) int {
	n, _ := strconv.Atoi(text)
	return n
}

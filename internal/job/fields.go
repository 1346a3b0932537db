package job

import (
	"context"
	"fmt"
	"strconv"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/internal/store"

	"gorm.io/gorm"
)

// target is one thing that can be typed or tapped: what it holds now, what it
// accepts and how it is written. Every single-value edit of a job goes through one.
type target struct {
	now   string
	check func(string) error
	write func(*gorm.DB, string) error
}

// Set writes one field of a job. base is the value the writer saw; when
// somebody else has changed it meanwhile, nothing is written and a *Conflict
// tells what it is now. Bad input gives a *field.Error.
//
// Fields are addressed as kind.id.name: job..title, unit.3.speed, part.7.found,
// feature.5.upper, reading.5.found/leaf:7 thou, evidence.3.fine_lines,
// point.9.p100/flow and so on.
func (s *Service) Set(ctx context.Context, who Actor, tag, name, value, base string) error {
	if !who.May(RoleTechnician) {
		return ErrForbidden
	}
	value = strings.TrimSpace(value)
	if len(value) > 4000 {
		return field.Errorf(name, "is longer than 4000 letters")
	}
	if err := s.RefreshFamilies(ctx); err != nil {
		return err
	}
	return s.Store.WithJob(ctx, tag, func(tx *store.Tx) error {
		st, err := s.stateFor(tx, name)
		if err != nil {
			return err
		}
		t, err := st.resolve(name, who, s.Now())
		if err != nil {
			return err
		}
		if t.now == value {
			return nil
		}
		if t.now != base {
			c := &Conflict{Field: name, Theirs: t.now, Yours: value, By: "Somebody", At: s.Now()}
			if e, ok := tx.LastChange(name); ok {
				c.By, c.At = e.Who, e.At
			}
			return c
		}
		if err := t.check(value); err != nil {
			return err
		}
		if err := t.write(tx.DB, value); err != nil {
			return err
		}
		return tx.Record(who.Name, "set", name, t.now, value)
	})
}

// stateFor computes the state of the unit that a field belongs to.
func (s *Service) stateFor(tx *store.Tx, name string) (*State, error) {
	for i := range tx.Job.Units {
		st, err := s.Compute(&tx.Job, i+1)
		if err != nil {
			return nil, err
		}
		if st.owns(name) {
			return st, nil
		}
	}
	return nil, field.Errorf(name, "is not a field of job %s", tx.Job.Tag)
}

func splitName(name string) (kind string, id uint, rest string) {
	kind, tail, _ := strings.Cut(name, ".")
	number, rest, _ := strings.Cut(tail, ".")
	n, _ := strconv.ParseUint(number, 10, 63)
	return kind, uint(n), rest
}

func (st *State) owns(name string) bool {
	kind, id, _ := splitName(name)
	switch kind {
	case "job":
		return true
	case "unit", "evidence", "origin", "foundhow", "age", "conclusion":
		return st.Unit.ID == id
	case "part", "decision", "step":
		return st.ByID[id] != nil
	case "feature", "reading":
		return st.featureByID(id) != nil
	case "loose":
		return find(st.Unit.LooseItems, func(l store.LooseItem) bool { return l.ID == id }) != nil
	case "piece":
		return find(st.Unit.KitPieces, func(k store.KitPiece) bool { return k.ID == id }) != nil
	case "attempt", "point":
		return find(st.Unit.Attempts, func(a store.Attempt) bool { return a.ID == id }) != nil
	}
	return false
}

func find[T any](rows []T, is func(T) bool) *T {
	for i := range rows {
		if is(rows[i]) {
			return &rows[i]
		}
	}
	return nil
}

func (st *State) featureByID(id uint) *FeatureState {
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if f.ID == id {
				return f
			}
		}
	}
	return nil
}

func (st *State) resolve(name string, who Actor, now time.Time) (*target, error) {
	kind, id, rest := splitName(name)
	var t *target
	switch kind {
	case "job":
		t = st.jobField(rest)
		if rest == "timer_until" {
			t = st.timerField(now)
		}
	case "unit":
		t = st.unitField(rest)
	case "part":
		t = st.partField(st.ByID[id], rest)
	case "decision":
		t = st.decisionField(st.ByID[id], rest)
	case "step":
		t = st.stepField(st.ByID[id], rest, who)
	case "feature":
		t = featureField(st.featureByID(id), rest, st.Tools)
	case "reading":
		t = st.readingField(st.featureByID(id), rest, who, now)
	case "evidence", "origin":
		t = st.evidenceField(kind, rest)
	case "foundhow", "age":
		t = st.evidenceExtra(kind, rest)
	case "conclusion":
		t = st.conclusionField(rest)
	case "loose":
		t = st.looseField(find(st.Unit.LooseItems, func(l store.LooseItem) bool { return l.ID == id }), rest)
	case "piece":
		t = st.pieceField(find(st.Unit.KitPieces, func(k store.KitPiece) bool { return k.ID == id }), rest)
	case "attempt", "point":
		a := find(st.Unit.Attempts, func(a store.Attempt) bool { return a.ID == id })
		if a.Closed && rest != "condition_repeated" && rest != "note" {
			return nil, field.Errorf(name, "this attempt is closed and stays as it was; start another")
		}
		t = st.attemptField(a, kind, rest)
	}
	if t == nil {
		return nil, field.Errorf(name, "is not a field that can be set")
	}
	if check := t.check; check != nil {
		t.check = func(v string) error {
			if err := check(v); err != nil {
				return field.Errorf(name, "%s", strings.TrimPrefix(err.Error(), name+": "))
			}
			return nil
		}
	} else {
		t.check = func(string) error { return nil }
	}
	return t, nil
}

// column makes a target of one text column of a row.
func column(model any, id uint, col, now string, check func(string) error) *target {
	return &target{now: now, check: check, write: func(db *gorm.DB, v string) error {
		return db.Model(model).Where("id = ?", id).Update(col, v).Error
	}}
}

func quantityOf(d quantity.Dimension) func(string) error {
	return func(v string) error {
		if v == "" {
			return nil
		}
		q, err := quantity.Parse(v, d)
		if err == nil && q.SI < 0 && d != quantity.Temperature {
			return fmt.Errorf("cannot be below zero")
		}
		return err
	}
}

func oneOf(words ...string) func(string) error {
	return func(v string) error {
		for _, w := range words {
			if w == v {
				return nil
			}
		}
		return fmt.Errorf("%q is not offered; use %s", v, strings.Join(words, ", "))
	}
}

func wholeNumber(v string) error {
	if v == "" {
		return nil
	}
	if n, err := strconv.Atoi(v); err != nil || n < 0 || n > 100000 {
		return fmt.Errorf("is a whole number, like 17")
	}
	return nil
}

func notEmpty(v string) error {
	if v == "" {
		return fmt.Errorf("cannot be left empty")
	}
	return nil
}

// amount is money or hours or days: a plain figure, hours and days also with their unit.
func amount(d quantity.Dimension) func(string) error {
	return func(v string) error {
		if v == "" {
			return nil
		}
		bare := map[quantity.Dimension]string{quantity.Time: "h"}[d]
		q, err := quantity.ParseDefault(v, d, bare)
		if err == nil && q.SI < 0 {
			return fmt.Errorf("cannot be below zero")
		}
		return err
	}
}

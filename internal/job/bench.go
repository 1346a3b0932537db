package job

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"corvek/core/calc"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/internal/store"

	"gorm.io/gorm"
)

// words reads "a=b c=d" as the store keeps answers and marks.
func words(text string) map[string]string {
	out := map[string]string{}
	for _, w := range strings.Fields(text) {
		if k, v, ok := strings.Cut(w, "="); ok {
			out[k] = v
		}
	}
	return out
}

func writeWords(m map[string]string) string {
	var out []string
	for _, k := range slices.Sorted(maps.Keys(m)) {
		if m[k] != "" {
			out = append(out, k+"="+m[k])
		}
	}
	return strings.Join(out, " ")
}

// GaugeAnswers are the answers given so far, by question.
func (st *State) GaugeAnswers() map[string]string { return words(st.Unit.Gauge) }

// MarksSeen are the identity marks looked for: yes or no by mark.
func (st *State) MarksSeen() map[string]string { return words(st.Unit.Marks) }

// identify weighs the gauge answers and finds the variant.
func (st *State) identify() {
	st.Gauge = st.Family.Conclude(st.GaugeAnswers())
	id := family.Identity{Model: st.Unit.Model, Serial: st.Unit.Serial, Marks: map[string]bool{}, Measured: map[string]float64{}}
	for code, said := range st.MarksSeen() {
		id.Marks[code] = said == "yes"
	}
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if f.Found.HasValue {
				id.Measured[f.Path()] = f.Found.Value
			}
		}
	}
	st.Variant = st.Family.Resolve(id)
}

// balance works the fluid balance out once capacity and what was drained are known.
func (st *State) balance() {
	u := st.Unit
	in := map[string]string{}
	for name, v := range map[string]string{"capacity": u.Capacity, "level_before": u.LevelBefore, "drained": u.Drained, "water": u.Water, "gained_elsewhere": u.GainedElsewhere, "vessel": u.Vessel} {
		if v != "" {
			in[name] = v
		}
	}
	if in["capacity"] == "" || in["drained"] == "" {
		return
	}
	body, err := json.Marshal(in)
	if err != nil {
		return
	}
	out, err := calc.Run("fluid_balance", body)
	if err != nil {
		st.BalanceFault = err.Error()
		return
	}
	st.Balance = out
}

// pairField is one answer kept among others in a text column of the unit.
func (st *State) pairField(col, now, code string, check func(string) error) *target {
	all := words(now)
	return &target{now: all[code], check: check, write: func(db *gorm.DB, v string) error {
		all[code] = v
		return db.Model(&store.Unit{}).Where("id = ?", st.Unit.ID).Update(col, writeWords(all)).Error
	}}
}

// benchUnitField are the unit's fields that belong to the bench: gauge answers,
// identity marks and the fluid balance.
func (st *State) benchUnitField(name string) *target {
	u := st.Unit
	if code, ok := strings.CutPrefix(name, "gauge/"); ok {
		q, known := family.QuestionByCode(code)
		if !known || !slices.Contains(st.Family.Gauge, code) {
			return nil
		}
		offered := []string{""}
		for _, a := range q.Answers {
			offered = append(offered, a.Code)
		}
		return st.pairField("gauge", u.Gauge, code, oneOf(offered...))
	}
	if code, ok := strings.CutPrefix(name, "mark/"); ok {
		if !slices.ContainsFunc(st.Family.Marks, func(m family.IdentityMark) bool { return m.Code == code }) {
			return nil
		}
		return st.pairField("marks", u.Marks, code, oneOf("", "yes", "no"))
	}
	now := map[string]string{"capacity": u.Capacity, "level_before": u.LevelBefore, "drained": u.Drained, "water": u.Water, "gained_elsewhere": u.GainedElsewhere, "vessel": u.Vessel}
	if v, ok := now[name]; ok {
		return column(&store.Unit{}, u.ID, name, v, quantityOf(quantity.Volume))
	}
	switch name {
	case "drained_look":
		return column(&store.Unit{}, u.ID, name, u.DrainedLook, nil)
	case "modification_kept":
		return column(&store.Unit{}, u.ID, name, u.ModificationKept, nil)
	case "flushed":
		return column(&store.Unit{}, u.ID, name, u.Flushed, nil)
	}
	return nil
}

// benchPartField are the part's fields of the strip record beyond the count.
func (st *State) benchPartField(p *PartState, name string) *target {
	switch name {
	case "witness":
		return column(&store.Part{}, p.ID, name, p.Witness, nil)
	case "stuck":
		return column(&store.Part{}, p.ID, name, p.Stuck, oneOf("", "free", "stuck", "seized"))
	case "freed":
		return column(&store.Part{}, p.ID, name, p.Freed, nil)
	case "stack_found":
		return st.stackField(p, name, p.StackFound)
	case "stack_fit":
		return st.stackField(p, name, p.StackFit)
	}
	return nil
}

// evidenceExtra are how a mark was found and how old it looks.
func (st *State) evidenceExtra(kind, code string) *target {
	t := st.evidenceField("evidence", code)
	if t == nil {
		return nil
	}
	row := st.LastSaid(code)
	now := map[string]string{"foundhow": row.FoundHow, "age": row.Age}[kind]
	offered := map[string][]string{"foundhow": {"", "before freeing", "after freeing", "before wiping", "after wiping"}, "age": {"", "old", "fresh", "not told"}}[kind]
	col := map[string]string{"foundhow": "found_how", "age": "age"}[kind]
	row.ID, row.Round = 0, st.Round.Number
	return &target{now: now, check: oneOf(offered...), write: func(db *gorm.DB, v string) error {
		if kind == "age" {
			row.Age = v
		} else {
			row.FoundHow = v
		}
		return upsert(db, &row, []string{"unit_id", "round", "code"}, col)
	}}
}

// timerField takes how long something has still to drain or soak, and keeps
// until when.
func (st *State) timerField(now time.Time) *target {
	// What is typed is a time from now, so there is nothing to hold it against.
	return &target{now: "", check: func(v string) error {
		if v == "" {
			return nil
		}
		q, err := quantity.ParseDefault(v, quantity.Time, "h")
		if err == nil && (q.SI < 0 || q.SI > 60*24*3600) {
			return fmt.Errorf("is a time from now, like 4 h, at most 60 days")
		}
		return err
	}, write: func(db *gorm.DB, v string) error {
		var until *time.Time
		if q, err := quantity.ParseDefault(v, quantity.Time, "h"); err == nil && q.SI > 0 {
			t := now.Add(time.Duration(q.SI * float64(time.Second)))
			until = &t
		}
		return db.Model(&store.Job{}).Where("id = ?", st.Job.ID).Update("timer_until", until).Error
	}}
}

// stopBench are the stops that come of gauge logic, marks of the strip record
// and debris.
func (st *State) stopBench() {
	if st.Gauge.Verdict == family.Acquits {
		st.stop("strip", "acquitted", 0, "", "The unit is cleared by the gauges: %s; it is not opened", strings.Join(st.Gauge.Because, "; "))
	}
	for _, p := range st.Parts {
		if (p.Stuck == "stuck" || p.Stuck == "seized") && strings.TrimSpace(p.Note) == "" {
			st.stop("strip", "stuck."+p.Code, p.ID, "", "%s was %s: write how it was found, before freeing or wiping", p.Name, p.Stuck)
		}
	}
	if strings.TrimSpace(st.Unit.Modification) != "" && strings.TrimSpace(st.Unit.ModificationKept) == "" {
		st.stop("build", "modification", 0, "", "Modified in the field (%s): say what became of it", st.Unit.Modification)
	}
	if st.BrokenUp() && strings.TrimSpace(st.Unit.Flushed) == "" {
		st.stop("handover", "flush", 0, "", "Pieces went round with the oil: say how tank, cooler, filters and feed side were flushed, and by whom")
	}
	st.stopStacks()
	st.stopInstruments()
}

// BrokenUp reports that pieces of the unit went into the circuit: something is
// missing that nobody accounts for, or a break was seen in a family whose
// debris goes round.
func (st *State) BrokenUp() bool {
	for _, p := range st.Parts {
		if p.Off && p.Missing > 0 && p.Explained == "" {
			return true
		}
	}
	if !st.Family.Debris {
		return false
	}
	for _, f := range st.Findings {
		if e, ok := st.Knowledge.EvidenceByCode(f.Code); ok && f.Likely() && e.BreakUp {
			return true
		}
	}
	return false
}

// AddUnit puts a further unit on the job: the feed pump behind the main pump.
func (s *Service) AddUnit(ctx context.Context, who Actor, tag, code, name string) (ordinal int, err error) {
	f := s.Families()[code]
	if f == nil {
		return 0, field.Errorf("family", "choose what kind of unit it is")
	}
	err = s.do(ctx, who, RoleTechnician, tag, 1, func(tx *store.Tx, st *State) (string, error) {
		if len(st.Job.Units) >= 12 {
			return "", field.Errorf("family", "a job holds at most 12 units")
		}
		ordinal = len(st.Job.Units) + 1
		u := NewUnit(f, ordinal, s.Now(), who.Name)
		u.JobID = st.Job.ID
		if name = strings.TrimSpace(name); name != "" {
			u.Name = name
		}
		return "added the unit " + u.Name, tx.DB.Create(&u).Error
	})
	return ordinal, err
}

// AddAccount writes down what one person told of the unit.
func (s *Service) AddAccount(ctx context.Context, who Actor, tag string, unit int, teller, told string) error {
	teller, told = strings.TrimSpace(teller), strings.TrimSpace(told)
	switch {
	case teller == "":
		return field.Errorf("teller", "say who told it")
	case told == "":
		return field.Errorf("words", "write down what was told")
	case len(told) > 4000:
		return field.Errorf("words", "is longer than 4000 letters")
	}
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		return "account of " + teller, tx.DB.Create(&store.Account{UnitID: st.Unit.ID, Teller: teller, Words: told}).Error
	})
}

// AddPart puts a part that the family does not know behind another in the order.
func (s *Service) AddPart(ctx context.Context, who Actor, tag string, unit int, after uint, name, kind string, count int) (uint, error) {
	name = strings.TrimSpace(name)
	switch {
	case name == "":
		return 0, field.Errorf("name", "say what the part is")
	case !slices.Contains(family.Kinds, kind):
		return 0, field.Errorf("kind", "choose what it looks like")
	case count < 1 || count > 10000:
		return 0, field.Errorf("count", "is a whole number, at least 1")
	}
	var id uint
	err := s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		if len(st.Parts) >= 500 {
			return "", field.Errorf("name", "a unit holds at most 500 lines")
		}
		place, branch := len(st.Parts), ""
		if p := st.ByID[after]; p != nil {
			place, branch = p.Ordinal, p.Def.Branch
		}
		code := ""
		for n := 1; code == "" || st.ByCode[code] != nil; n++ {
			code = fmt.Sprintf("extra-%d", n)
		}
		if err := tx.DB.Model(&store.Part{}).Where("unit_id = ? AND ordinal > ?", st.Unit.ID, place).Update("ordinal", gorm.Expr("ordinal + 1")).Error; err != nil {
			return "", err
		}
		row := store.Part{UnitID: st.Unit.ID, Code: code, Name: name, Kind: kind, Branch: branch, Ordinal: place + 1, Expected: count}
		err := tx.DB.Create(&row).Error
		id = row.ID
		return "added the part " + name, err
	})
	return id, err
}

// MovePart puts a part one place earlier (−1) or later (+1) in the order parts
// came off: the unit on the bench need not have come apart as its family says.
func (s *Service) MovePart(ctx context.Context, who Actor, tag string, unit int, part uint, by int) error {
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		i := slices.IndexFunc(st.Parts, func(p *PartState) bool { return p.ID == part })
		j := i + by
		if i < 0 || by != 1 && by != -1 {
			return "", field.Errorf("part", "is not a part of this unit")
		}
		if j < 0 || j >= len(st.Parts) {
			return "", field.Errorf("part", "stands at the end of the line already")
		}
		for at, p := range map[int]*PartState{i: st.Parts[j], j: st.Parts[i]} {
			if err := tx.DB.Model(&store.Part{}).Where("id = ?", p.ID).Update("ordinal", at+1).Error; err != nil {
				return "", err
			}
		}
		return map[int]string{-1: "came off earlier: ", 1: "came off later: "}[by] + st.Parts[i].Name, nil
	})
}

package job

import (
	"fmt"
	"strconv"
	"strings"
	"time"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/quantity"
	"corvek/internal/store"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

func (st *State) jobField(name string) *target {
	j := st.Job
	text := func(now string, check func(string) error) *target {
		return column(&store.Job{}, j.ID, name, now, check)
	}
	switch name {
	case "title":
		return text(j.Title, notEmpty)
	case "complaint":
		return text(j.Complaint, nil)
	case "caller":
		return text(j.Caller, nil)
	case "waiting":
		var codes []string
		for _, w := range Waits {
			codes = append(codes, w.Code)
		}
		return text(j.Waiting, oneOf(codes...))
	case "timer_note":
		return text(j.TimerNote, nil)
	case "waiting_note":
		return text(j.WaitingNote, nil)
	case "policy":
		return text(j.Policy, oneOf(string(decide.OnCondition), string(decide.FullOverhaul)))
	case "warranty_note":
		return text(j.WarrantyNote, nil)
	case "lesson":
		return text(j.Lesson, nil)
	case "parts_cost":
		return text(j.PartsCost, amount(quantity.Number))
	case "labour_hours":
		return text(j.LabourHours, amount(quantity.Time))
	case "labour_rate":
		return text(j.LabourRate, amount(quantity.Number))
	case "outside_cost":
		return text(j.OutsideCost, amount(quantity.Number))
	case "rebuild_days":
		return text(j.RebuildDays, amount(quantity.Number))
	case "new_price":
		return text(j.NewPrice, amount(quantity.Number))
	case "new_days":
		return text(j.NewDays, amount(quantity.Number))
	case "downtime_cost":
		return text(j.DowntimeCost, amount(quantity.Number))
	case "warranty_hold":
		return &target{now: yes(j.WarrantyHold), check: oneOf("yes", ""), write: func(db *gorm.DB, v string) error {
			return db.Model(&store.Job{}).Where("id = ?", j.ID).Update("warranty_hold", v == "yes").Error
		}}
	case "promised_on":
		now := ""
		if j.PromisedOn != nil {
			now = j.PromisedOn.Format(time.DateOnly)
		}
		return &target{now: now, check: func(v string) error {
			if v == "" {
				return nil
			}
			if _, err := time.Parse(time.DateOnly, v); err != nil {
				return fmt.Errorf("is a date like 2031-05-27")
			}
			return nil
		}, write: func(db *gorm.DB, v string) error {
			var at *time.Time
			if d, err := time.Parse(time.DateOnly, v); err == nil {
				at = &d
			}
			return db.Model(&store.Job{}).Where("id = ?", j.ID).Update("promised_on", at).Error
		}}
	}
	if code, ok := strings.CutPrefix(name, "symptom/"); ok {
		if _, known := family.SymptomText(code); !known {
			return nil
		}
		have := strings.Fields(j.Symptoms)
		on := find(have, func(s string) bool { return s == code }) != nil
		return &target{now: yes(on), check: oneOf("yes", ""), write: func(db *gorm.DB, v string) error {
			var kept []string
			for _, s := range have {
				if s != code {
					kept = append(kept, s)
				}
			}
			if v == "yes" {
				kept = append(kept, code)
			}
			return db.Model(&store.Job{}).Where("id = ?", j.ID).Update("symptoms", strings.Join(kept, " ")).Error
		}}
	}
	return nil
}

func yes(b bool) string {
	if b {
		return "yes"
	}
	return ""
}

func (st *State) unitField(name string) *target {
	u := st.Unit
	set := func(now string, check func(string) error) *target {
		return column(&store.Unit{}, u.ID, name, now, check)
	}
	switch name {
	case "name":
		return set(u.Name, notEmpty)
	case "maker":
		return set(u.Maker, nil)
	case "model":
		return set(u.Model, nil)
	case "serial":
		return set(u.Serial, nil)
	case "variant":
		return set(u.Variant, nil)
	case "rotation":
		return set(u.Rotation, oneOf("", "right", "left", "both"))
	case "fluid":
		return set(u.Fluid, nil)
	case "viscosity":
		return set(u.Viscosity, quantityOf(quantity.KinematicViscosity))
	case "density":
		return set(u.Density, quantityOf(quantity.Density))
	case "displacement":
		return set(u.Displacement, quantityOf(quantity.Displacement))
	case "speed":
		return set(u.Speed, quantityOf(quantity.Rotation))
	case "duty_pressure":
		return set(u.DutyPressure, quantityOf(quantity.Pressure))
	case "temperature":
		return set(u.Temperature, quantityOf(quantity.Temperature))
	case "hours":
		return set(u.Hours, amount(quantity.Time))
	case "filtration":
		return set(u.Filtration, nil)
	case "changed":
		return set(u.Changed, nil)
	case "modification":
		return set(u.Modification, nil)
	case "shims_fitted":
		return set(u.ShimsFitted, func(v string) error { _, err := ParseShims(v); return err })
	case "shims_available":
		return set(u.ShimsAvailable, func(v string) error { _, err := ParseShimStock(v); return err })
	case "off_body":
		return set(u.OffBody, quantityOf(quantity.Length))
	case "off_gears":
		return set(u.OffGears, quantityOf(quantity.Length))
	}
	return st.benchUnitField(name)
}

func (st *State) partField(p *PartState, name string) *target {
	set := func(now string, check func(string) error) *target {
		return column(&store.Part{}, p.ID, name, now, check)
	}
	switch name {
	case "found":
		return set(p.Found, wholeNumber)
	case "facing":
		return set(p.Facing, oneOf(append([]string{""}, p.Def.Facings...)...))
	case "fastener":
		return set(p.Fastener, nil)
	case "note":
		return set(p.Note, nil)
	case "explained":
		return set(p.Explained, nil)
	case "off":
		return &target{now: yes(p.Off), check: func(v string) error {
			if v == "yes" && st.Job.WarrantyHold {
				return fmt.Errorf("the job is on warranty hold; nothing is opened until it is lifted")
			}
			return oneOf("yes", "")(v)
		}, write: func(db *gorm.DB, v string) error {
			return db.Model(&store.Part{}).Where("id = ?", p.ID).Update("off", v == "yes").Error
		}}
	}
	return st.benchPartField(p, name)
}

// upsert writes one column of a row that a unique key finds or makes.
func upsert(db *gorm.DB, row any, keys []string, col string) error {
	var cols []clause.Column
	for _, k := range keys {
		cols = append(cols, clause.Column{Name: k})
	}
	return db.Clauses(clause.OnConflict{Columns: cols, DoUpdates: clause.AssignmentColumns([]string{col})}).Create(row).Error
}

func (st *State) decisionField(p *PartState, name string) *target {
	row := p.Decision
	row.ID, row.PartID, row.Round = 0, p.ID, st.Round.Number
	keys := []string{"part_id", "round"}
	switch name {
	case "choice":
		return &target{now: p.Decision.Choice, check: oneOf("", "keep", "rework", "replace"), write: func(db *gorm.DB, v string) error {
			row.Choice = v
			return upsert(db, &row, keys, "choice")
		}}
	case "reason":
		return &target{now: p.Decision.Reason, write: func(db *gorm.DB, v string) error {
			row.Reason = v
			return upsert(db, &row, keys, "reason")
		}}
	}
	return nil
}

func (st *State) stepField(p *PartState, name string, who Actor) *target {
	row := p.Step
	row.ID, row.PartID, row.Round, row.ByName = 0, p.ID, st.Round.Number, who.Name
	set := func(now string, check func(string) error, put func(string)) *target {
		return &target{now: now, check: check, write: func(db *gorm.DB, v string) error {
			put(v)
			return upsert(db, &row, []string{"part_id", "round"}, name)
		}}
	}
	switch name {
	case "done":
		return set(yes(p.Step.Done), oneOf("yes", ""), func(v string) { row.Done = v == "yes" })
	case "facing":
		return set(p.Step.Facing, oneOf(append([]string{""}, p.Def.Facings...)...), func(v string) { row.Facing = v })
	case "turn":
		words := []string{""}
		for _, t := range build.Turns {
			words = append(words, string(t))
		}
		return set(p.Step.Turn, oneOf(words...), func(v string) { row.Turn = v })
	case "torque":
		return set(p.Step.Torque, quantityOf(quantity.Torque), func(v string) { row.Torque = v })
	case "note":
		return set(p.Step.Note, nil, func(v string) { row.Note = v })
	}
	return nil
}

func featureField(f *FeatureState, name string, tools map[string]store.Instrument) *target {
	set := func(now string, check func(string) error) *target {
		return column(&store.Feature{}, f.ID, name, now, check)
	}
	switch name {
	case "lower":
		return set(f.Lower, quantityOf(quantity.Length))
	case "upper":
		return set(f.Upper, quantityOf(quantity.Length))
	case "standing":
		return set(f.Standing, oneOf(string(family.StandingMaker), string(family.StandingGuidance), string(family.StandingNone)))
	case "measured":
		return set(f.Measured, oneOf("total", "each"))
	case "limit_for":
		return set(f.LimitFor, oneOf("total", "each"))
	case "instrument":
		t := set(f.Instrument, nil)
		// A tool of the shop brings its resolution along.
		t.write = func(db *gorm.DB, v string) error {
			cols := map[string]any{"instrument": v}
			if tool, ok := tools[strings.ToLower(v)]; ok {
				cols["resolution"] = tool.Resolution
			}
			return db.Model(&store.Feature{}).Where("id = ?", f.ID).Updates(cols).Error
		}
		return t
	case "resolution":
		return set(f.Resolution, quantityOf(quantity.Length))
	}
	return nil
}

func (st *State) readingField(f *FeatureState, rest string, who Actor, now time.Time) *target {
	stage, slot, _ := strings.Cut(rest, "/")
	if stage != StageFound && stage != StageBuilt || !measure.ValidSlot(f.Spec, slot) {
		return nil
	}
	return &target{
		now: f.Entry(stage, slot),
		check: func(v string) error {
			if fe := measure.CheckEntry(f.Spec, slot, v); fe != nil {
				return fmt.Errorf("%s", fe.Text)
			}
			return nil
		},
		write: func(db *gorm.DB, v string) error {
			round := st.Round.Number // the first figure of a new round starts a new set
			if v == "" {
				return db.Where("feature_id = ? AND round = ? AND stage = ? AND slot = ?", f.ID, round, stage, slot).Delete(&store.Reading{}).Error
			}
			row := store.Reading{FeatureID: f.ID, Round: round, Stage: stage, Slot: slot, Value: v, ByName: who.Name, At: now}
			return db.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "feature_id"}, {Name: "round"}, {Name: "stage"}, {Name: "slot"}},
				DoUpdates: clause.AssignmentColumns([]string{"value", "by_name", "at"})}).Create(&row).Error
		},
	}
}

func (st *State) evidenceField(kind, code string) *target {
	if _, ok := st.Knowledge.EvidenceByCode(code); !ok {
		return nil
	}
	row := st.LastSaid(code)
	now := row
	row.ID, row.Round = 0, st.Round.Number
	keys := []string{"unit_id", "round", "code"}
	if kind == "origin" {
		return &target{now: now.Origin, check: oneOf("found_so", "made_by_us", "unknown"), write: func(db *gorm.DB, v string) error {
			row.Origin = v
			return upsert(db, &row, keys, "origin")
		}}
	}
	return &target{now: now.State, check: oneOf("", "seen", "absent"), write: func(db *gorm.DB, v string) error {
		row.State = v
		return upsert(db, &row, keys, "state")
	}}
}

func (st *State) conclusionField(name string) *target {
	row := st.Conclude
	row.ID, row.UnitID, row.Round = 0, st.Unit.ID, st.Round.Number
	at := map[string]*string{"cause": &row.Cause, "proximate": &row.Proximate, "contributing": &row.Contributing, "statement": &row.Statement, "action": &row.Action, "owner": &row.Owner}[name]
	if at == nil {
		return nil
	}
	return &target{now: *at, check: func(v string) error {
		if name != "cause" || v == "" || v == "not_found" {
			return nil
		}
		if _, ok := st.Knowledge.CauseByCode(v); !ok {
			return fmt.Errorf("is not a cause known for this family")
		}
		return nil
	}, write: func(db *gorm.DB, v string) error {
		*at = v
		return upsert(db, &row, []string{"unit_id", "round"}, name)
	}}
}

// partTarget reads a part's id for a place or a tie, "" for none.
func (st *State) partTarget(model any, id uint, now *uint) *target {
	text := ""
	if now != nil {
		text = strconv.FormatUint(uint64(*now), 10)
	}
	return &target{now: text, check: func(v string) error {
		n, _ := strconv.ParseUint(v, 10, 63)
		if v != "" && st.ByID[uint(n)] == nil {
			return fmt.Errorf("is not a part of this unit")
		}
		return nil
	}, write: func(db *gorm.DB, v string) error {
		var to any
		if n, err := strconv.ParseUint(v, 10, 63); err == nil {
			to = n
		}
		return db.Model(model).Where("id = ?", id).Update("part_id", to).Error
	}}
}

func (st *State) looseField(l *store.LooseItem, name string) *target {
	switch name {
	case "part":
		return st.partTarget(&store.LooseItem{}, l.ID, l.PartID)
	case "note":
		return column(&store.LooseItem{}, l.ID, "note", l.Note, nil)
	}
	return nil
}

func (st *State) pieceField(k *store.KitPiece, name string) *target {
	switch name {
	case "place":
		return st.partTarget(&store.KitPiece{}, k.ID, k.PartID)
	case "left_reason":
		return column(&store.KitPiece{}, k.ID, "left_reason", k.LeftReason, nil)
	}
	return nil
}

func (st *State) attemptField(a *store.Attempt, kind, rest string) *target {
	if kind == "attempt" {
		now := map[string]*string{"one_change": &a.OneChange, "condition_repeated": &a.ConditionRepeated, "note": &a.Note}[rest]
		if now == nil {
			return nil
		}
		return column(&store.Attempt{}, a.ID, rest, *now, nil)
	}
	code, name, _ := strings.Cut(rest, "/")
	test, ok := st.Family.TestByCode(code)
	if !ok {
		return nil
	}
	row := store.Point{AttemptID: a.ID, Code: code}
	if p := find(a.Points, func(p store.Point) bool { return p.Code == code }); p != nil {
		row = *p
		row.ID = 0
	}
	at, check := (*string)(nil), (func(string) error)(nil)
	switch name {
	case "pressure":
		at, check = &row.Pressure, quantityOf(quantity.Pressure)
	case "flow":
		at, check = &row.Flow, quantityOf(quantity.Flow)
	case "speed":
		at, check = &row.Speed, quantityOf(quantity.Rotation)
	case "temperature":
		at, check = &row.Temperature, quantityOf(quantity.Temperature)
	case "word":
		at, check = &row.Word, oneOf(append([]string{""}, test.Words...)...)
	default:
		return nil
	}
	return &target{now: *at, check: check, write: func(db *gorm.DB, v string) error {
		*at = v
		return upsert(db, &row, []string{"attempt_id", "code"}, name)
	}}
}

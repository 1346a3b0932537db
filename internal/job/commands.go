package job

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/internal/rig"
	"corvek/internal/store"
)

// NewJob is what is known when a unit comes in.
type NewJob struct {
	Customer, Place, Title, Complaint, Caller, Family, Maker, Model, Serial string
}

// Create opens a job with one unit of a family, its parts and features laid out.
func (s *Service) Create(ctx context.Context, who Actor, n NewJob) (tag string, err error) {
	if !who.May(RoleTechnician) {
		return "", ErrForbidden
	}
	if err := s.RefreshFamilies(ctx); err != nil {
		return "", err
	}
	f := s.Families()[n.Family]
	switch {
	case strings.TrimSpace(n.Customer) == "":
		return "", field.Errorf("customer", "say whose unit it is")
	case strings.TrimSpace(n.Title) == "":
		return "", field.Errorf("title", "give it a name the shop will know it by")
	case f == nil:
		return "", field.Errorf("family", "choose what kind of unit it is")
	}
	now := s.Now()
	j := &store.Job{
		Customer: store.Customer{Name: strings.TrimSpace(n.Customer), Place: n.Place}, Title: strings.TrimSpace(n.Title), Complaint: n.Complaint, Caller: n.Caller,
		Policy: "on_condition", Waiting: "hands", Station: "receive", ReceivedOn: now,
		Units: []store.Unit{NewUnit(f, 1, now, who.Name)},
	}
	j.Units[0].Maker, j.Units[0].Model, j.Units[0].Serial = n.Maker, n.Model, n.Serial
	if err := s.Store.CreateJob(ctx, j, who.Name, "created"); err != nil {
		return "", err
	}
	return j.Tag, nil
}

// NewUnit lays out a unit of a family with all its parts and features.
func NewUnit(f *family.Family, ordinal int, now time.Time, by string) store.Unit {
	u := store.Unit{
		Ordinal: ordinal, Family: f.Code, Name: f.Name,
		Rounds:   []store.Round{{Number: 1, OpenedAt: now, OpenedBy: by}},
		Attempts: []store.Attempt{{Number: 0, Round: 1, Source: "typed", At: now, ByName: by}},
	}
	for i, p := range f.Parts {
		u.Parts = append(u.Parts, NewPart(p, i+1))
	}
	return u
}

// NewPart lays out a part of a family in its place of the order.
func NewPart(p family.Part, ordinal int) store.Part {
	row := store.Part{Code: p.Code, Name: p.Name, Ordinal: ordinal, Expected: p.Count}
	if p.Bolt != nil {
		row.Fastener = p.Bolt.Thread + ", class " + p.Bolt.Class
	}
	for _, ft := range p.Features {
		row.Features = append(row.Features, NewFeature(ft))
	}
	return row
}

// NewFeature gives a feature the family's limits and senses.
func NewFeature(ft family.Feature) store.Feature {
	measured, limitFor := ft.Measured, ft.LimitFor
	if measured == "" {
		measured = string(metrology.Total)
	}
	if limitFor == "" {
		limitFor = measured
	}
	return store.Feature{Code: ft.Code, Lower: ft.Lower, Upper: ft.Upper, Standing: string(ft.Standing), Measured: measured, LimitFor: limitFor,
		Instrument: ft.Instrument, Resolution: ft.Resolution}
}

// do runs a command of a technician on one unit of a job.
func (s *Service) do(ctx context.Context, who Actor, role, tag string, unit int, f func(*store.Tx, *State) (action string, err error)) error {
	if !who.May(role) {
		return ErrForbidden
	}
	if err := s.RefreshFamilies(ctx); err != nil {
		return err
	}
	return s.Store.WithJob(ctx, tag, func(tx *store.Tx) error {
		st, err := s.Compute(&tx.Job, unit)
		if err != nil {
			return err
		}
		action, err := f(tx, st)
		if err != nil {
			return err
		}
		return tx.Record(who.Name, action, "", "", "")
	})
}

// TakeOffRest marks every part still on the unit as off with its full count:
// for the many parts that came off as expected. Facings stay to be said.
func (s *Service) TakeOffRest(ctx context.Context, who Actor, tag string, unit int) error {
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		if st.Job.WarrantyHold {
			return "", field.Errorf("", "the job is on warranty hold; nothing is opened until it is lifted")
		}
		for _, p := range st.Parts {
			if p.Off {
				continue
			}
			set := map[string]any{"off": true}
			if p.Found == "" {
				set["found"] = fmt.Sprint(p.Expected)
			}
			if err := tx.DB.Model(&store.Part{}).Where("id = ?", p.ID).Updates(set).Error; err != nil {
				return "", err
			}
		}
		return "took off the rest as expected", nil
	})
}

// AddLoose writes down something found lying loose.
func (s *Service) AddLoose(ctx context.Context, who Actor, tag string, unit int, what, place string, count int) error {
	what = strings.TrimSpace(what)
	if what == "" {
		return field.Errorf("what", "say what was found")
	}
	if count < 1 || count > 10000 {
		return field.Errorf("count", "is a whole number, at least 1")
	}
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		return "found loose: " + what, tx.DB.Create(&store.LooseItem{UnitID: st.Unit.ID, What: what, Place: strings.TrimSpace(place), Count: count}).Error
	})
}

// AddPiece writes down a piece of the repair kit, to a place when one is given.
func (s *Service) AddPiece(ctx context.Context, who Actor, tag string, unit int, number, name string, count int, place uint) error {
	name = strings.TrimSpace(name)
	if name == "" {
		return field.Errorf("name", "say what the piece is")
	}
	if count < 1 || count > 10000 {
		return field.Errorf("count", "is a whole number, at least 1")
	}
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		piece := store.KitPiece{UnitID: st.Unit.ID, Number: strings.TrimSpace(number), Name: name, Count: count}
		if place != 0 {
			if st.ByID[place] == nil {
				return "", field.Errorf("place", "is not a part of this unit")
			}
			piece.PartID = &place
		}
		return "kit piece: " + name, tx.DB.Create(&piece).Error
	})
}

// NextAttempt starts a run of the bench test; after a failed one the single
// thing that was changed must be said.
func (s *Service) NextAttempt(ctx context.Context, who Actor, tag string, unit int, oneChange string) error {
	oneChange = strings.TrimSpace(oneChange)
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		number := 1
		for _, a := range st.Attempts {
			if a.Current && !a.Closed {
				return "", field.Errorf("one_change", "attempt %d is still open; close it first", a.Number)
			}
			number = max(number, a.Number+1)
		}
		if number > 1 && oneChange == "" {
			return "", field.Errorf("one_change", "say the one thing that was changed since attempt %d; with two the cause can no longer be told", number-1)
		}
		a := store.Attempt{UnitID: st.Unit.ID, Round: st.Round.Number, Number: number, Source: "typed", OneChange: oneChange, ByName: who.Name, At: s.Now()}
		return fmt.Sprintf("test attempt %d", number), tx.DB.Create(&a).Error
	})
}

// TakeFromStand fills the open attempt from the simulated stand, one step or,
// with code empty, every step that is still empty.
func (s *Service) TakeFromStand(ctx context.Context, who Actor, tag string, unit int, code string) error {
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		a := st.Attempt()
		if a == nil || a.Closed {
			return "", field.Errorf("attempt", "start an attempt first")
		}
		stand, err := st.Stand(a.Number)
		if err != nil {
			return "", err
		}
		for _, p := range a.Points {
			empty := p.Row.Pressure == "" && p.Row.Flow == "" && p.Row.Word == ""
			if code != "" && p.Test.Code != code || code == "" && !empty {
				continue
			}
			r := stand.Run(*p.Test)
			row := store.Point{AttemptID: a.ID, Code: p.Test.Code, Pressure: r.Pressure, Flow: r.Flow, Speed: r.Speed, Temperature: r.Temperature, Word: r.Word}
			if err := tx.DB.Where("attempt_id = ? AND code = ?", a.ID, p.Test.Code).Delete(&store.Point{}).Error; err != nil {
				return "", err
			}
			if err := tx.DB.Create(&row).Error; err != nil {
				return "", err
			}
		}
		return "taken from the simulated stand", tx.DB.Model(&store.Attempt{}).Where("id = ?", a.ID).Update("source", "simulated").Error
	})
}

// Stand puts the rebuilt unit on the simulated stand.
func (st *State) Stand(try int) (rig.Simulated, error) {
	d := st.Duty
	if st.Family.Action == "pump" && (!d.Theory() || !d.HasPressure || !d.HasViscosity) {
		return rig.Simulated{}, field.Errorf("stand", "the stand needs displacement, speed, duty pressure and viscosity from Receive")
	}
	sim := rig.Simulated{Family: st.Family, Model: st.Rebuilt, Duty: d.Pressure, Seed: fmt.Sprintf("%s/%d/%d", st.Job.Tag, st.Unit.Ordinal, try), SealOK: true}
	for _, p := range st.Parts {
		if p.Def.Renew && p.Choice() != "replace" {
			sim.SealOK = false
		}
		if t := build.Turn(p.Step.Turn); p.Def.TurnCheck && slices.Index(build.Turns, t) > slices.Index(build.Turns, build.Turn(sim.Turn)) {
			sim.Turn = p.Step.Turn
		}
	}
	return sim, nil
}

// CloseAttempt ends an attempt; its figures and verdict stay as they are.
func (s *Service) CloseAttempt(ctx context.Context, who Actor, tag string, unit int) error {
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		a := st.Attempt()
		if a == nil || a.Closed {
			return "", field.Errorf("attempt", "there is no open attempt")
		}
		if a.Sum == metrology.Undecided {
			for _, p := range a.Points {
				if p.Verdict == "" {
					return "", field.Errorf("attempt", "%s has no figure yet", p.Test.Name)
				}
			}
		}
		err := tx.DB.Model(&store.Attempt{}).Where("id = ?", a.ID).Updates(map[string]any{"closed": true, "verdict": string(a.Sum)}).Error
		return fmt.Sprintf("closed attempt %d: %s", a.Number, a.Sum), err
	})
}

// OpenRound goes back to a station after a failed test. Everything of the
// round before stays; the build starts anew.
func (s *Service) OpenRound(ctx context.Context, who Actor, tag string, unit int, backTo, reason string) error {
	reason = strings.TrimSpace(reason)
	if reason == "" {
		return field.Errorf("reason", "say why the unit goes back")
	}
	if backTo != "strip" && backTo != "build" {
		return field.Errorf("back_to", "go back to strip or to build")
	}
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		n := st.Round.Number + 1
		round := store.Round{UnitID: st.Unit.ID, Number: n, Reason: reason, BackTo: backTo, OpenedBy: who.Name, OpenedAt: s.Now()}
		return fmt.Sprintf("opened round %d, back to %s: %s", n, backTo, reason), tx.DB.Create(&round).Error
	})
}

// Acknowledge notes that a caution was read.
func (s *Service) Acknowledge(ctx context.Context, who Actor, tag string, unit int, caution string) error {
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		if _, ok := family.CautionByCode(caution); !ok {
			return "", field.Errorf("caution", "is not known")
		}
		if st.Acknowledged(caution) != nil {
			return "read again: " + caution, nil
		}
		return "read the caution " + caution, tx.DB.Create(&store.Acknowledgement{JobID: st.Job.ID, Caution: caution, ByName: who.Name, At: s.Now()}).Error
	})
}

// PassStop lets an open stop pass, with a lead's reason that the report prints.
func (s *Service) PassStop(ctx context.Context, who Actor, tag string, unit int, code, reason string) error {
	reason = strings.TrimSpace(reason)
	return s.do(ctx, who, RoleLead, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		if len(reason) < 4 {
			return "", field.Errorf("reason", "write down why this may pass; it is printed in the report")
		}
		for _, list := range st.Stops {
			for _, stop := range list {
				if stop.Code == code && stop.Passed == nil {
					pass := store.StopPass{JobID: st.Job.ID, Code: code, StopText: stop.Text, Reason: reason, ByName: who.Name, At: s.Now()}
					return "passed a stop: " + stop.Text, tx.DB.Create(&pass).Error
				}
			}
		}
		return "", field.Errorf("code", "this stop is no longer open")
	})
}

// HandOver closes the job. Every stop must be settled or passed.
func (s *Service) HandOver(ctx context.Context, who Actor, tag string) error {
	return s.do(ctx, who, RoleTechnician, tag, 1, func(tx *store.Tx, _ *State) (string, error) {
		for i := range tx.Job.Units {
			st, err := s.Compute(&tx.Job, i+1)
			if err != nil {
				return "", err
			}
			if stop := st.First("receive"); stop != nil {
				return "", field.Errorf("handover", "still open at %s: %s", StationNames[stop.Station], stop.Text)
			}
		}
		now := s.Now()
		return "handed over", tx.DB.Model(&store.Job{}).Where("id = ?", tx.Job.ID).
			Updates(map[string]any{"handed_over_at": &now, "waiting": "ready"}).Error
	})
}

// Visit remembers the station a job stands at, for the Rack.
func (s *Service) Visit(ctx context.Context, who Actor, tag, station string) error {
	if !who.May(RoleTechnician) {
		return nil
	}
	return s.Store.SetStation(ctx, tag, station)
}

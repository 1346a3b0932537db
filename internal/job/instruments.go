package job

import (
	"context"
	"strings"
	"time"

	"corvek/internal/store"
)

// Overdue reports that an instrument's calibration has run out.
func Overdue(i store.Instrument, now time.Time) bool {
	if i.DueOn == nil {
		return false
	}
	end := i.DueOn.AddDate(0, 0, 1) // it holds through its day
	return !now.Before(end)
}

// loadInstruments gives the shop's tools by their name, small letters.
func (s *Service) loadInstruments(ctx context.Context) error {
	list, err := s.Store.Instruments(ctx)
	if err != nil {
		return err
	}
	tools := map[string]store.Instrument{}
	for _, i := range list {
		tools[strings.ToLower(i.Name)] = i
	}
	s.shelf.tools.Store(&tools)
	return nil
}

// stopInstruments asks for readings that can be trusted: taken with a tool in
// calibration, and fine enough for the limit.
func (st *State) stopInstruments() {
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if !f.Found.Any && !f.Built.Any {
				continue
			}
			if i, ok := st.Tools[strings.ToLower(strings.TrimSpace(f.Instrument))]; ok && Overdue(i, st.now) {
				st.stop("measure", "calibration."+f.Path(), p.ID, f.Code, "%s: %s was due for calibration on %s", p.Name, i.Name, i.DueOn.Format("2 Jan 2006"))
			}
			if f.Spec.TooCoarse() {
				st.stop("measure", "coarse."+f.Path(), p.ID, f.Code, "%s: %s of %s cannot judge so narrow a limit", p.Name, strings.ToLower(f.Def.Name), f.Resolution)
			}
		}
	}
}

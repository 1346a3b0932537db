package job

import (
	"context"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/wording"
)

// Acknowledge notes that a caution was read.
func (s *Service) Acknowledge(ctx context.Context, who Actor, tag string, number int, caution string) error {
	return s.onUnit(ctx, who, RoleTechnician, tag, number, func(_ *writing, st *State) (string, error) {
		if _, ok := family.CautionByCode(caution); !ok {
			return "", field.Errorf("caution", "is not known")
		}
		if st.Job.Acknowledged(caution) != nil {
			return "read again: " + caution, nil
		}
		st.Job.Acknowledgements = append(st.Job.Acknowledgements,
			&unit.Acknowledgement{Caution: caution, By: who.Name, At: s.moment()})
		return "read the caution " + caution, nil
	})
}

// WaiveStop lets an open stop pass, with a lead's reason that the report prints.
func (s *Service) WaiveStop(ctx context.Context, who Actor, tag string, number int, code, reason string) error {
	reason, err := short("reason", reason, "")
	if err != nil {
		return err
	}
	return s.onUnit(ctx, who, RoleLead, tag, number, func(_ *writing, st *State) (string, error) {
		if len(reason) < 4 {
			return "", field.Errorf("reason", "write down why this may be waived; it is printed in the report")
		}
		for _, list := range st.Stops {
			for _, stop := range list {
				if stop.String() == code && stop.Passed == nil {
					st.Job.Passes = append(st.Job.Passes,
						&unit.Pass{Code: code, Text: stop.Text, Reason: reason, By: who.Name, At: s.moment()})
					return "waived a stop: " + stop.Text, nil
				}
			}
		}
		return "", field.Errorf("code", "this stop is no longer open")
	})
}

// HandOver closes the job. Every stop must be settled or waived.
func (s *Service) HandOver(ctx context.Context, who Actor, tag string) error {
	return s.change(ctx, who, RoleTechnician, tag, func(w *writing) error {
		for i := range w.Job.Units {
			st, err := w.state(i + 1)
			if err != nil {
				return err
			}
			if stop := st.First("receive"); stop != nil {
				return field.Errorf("handover", "still open at %s: %s", wording.Stations[stop.Station], stop.Text)
			}
		}
		w.Job.HandedOverAt, w.Job.Waiting = s.moment().UTC(), entry.WaitReady
		w.did("handed over")
		return nil
	})
}

// stopFlush asks how the system was flushed after a break-up.
func (st *State) stopFlush() {
	if st.BrokenUp() && strings.TrimSpace(st.Unit.Flushed) == "" {
		st.stop("handover", unit.StopFlush, "Debris in the system: say how tank, cooler, filters and feed side were "+
			"flushed, and by whom")
	}
}

package job

import (
	"context"

	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// KeepPapers keeps the papers of a hand-over as they are now, with a line of the
// record for each that tells its fingerprint. It does nothing when the job is not
// handed over any more, or was again since.
func (s *Service) KeepPapers(
	ctx context.Context,
	who people.Actor,
	tag string,
	handOver int,
	papers []store.Paper,
) error {
	return s.changeAny(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		if !w.Job.HandedOver() || w.Job.HandOver() != handOver {
			return store.ErrUnchanged
		}
		for _, p := range papers {
			p.HandOver = handOver
			w.papers = append(w.papers, p)
			w.happened(unit.Event{Kind: unit.EventPaperKept, HandOver: handOver, Name: p.Name, Sum: p.SHA256})
		}
		return nil
	})
}

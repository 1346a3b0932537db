package report

import (
	"fmt"
	"iter"
	"time"

	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/store"
)

// mostChanges are printed one by one.
const mostChanges = 40

// Since is what changed after papers that were given out before.
type Since struct {
	Day    string
	Papers []string // with their fingerprints
	Lines  []string
	More   int // changes that are in the record only
}

// Changed notes what the record, oldest first, tells of after the hand-over of a
// moment.
func (d *Data) Changed(handedOver time.Time, kept []store.Paper, record iter.Seq2[unit.Entry, error]) error {
	s := &Since{Day: handedOver.Format("2 January 2006")}
	number := len(d.S.Job.Reopenings)
	for _, p := range kept {
		if p.HandOver == number {
			s.Papers = append(s.Papers, p.Name+", SHA-256 "+p.SHA256)
		}
	}
	for e, err := range record {
		if err != nil {
			return err
		}
		if !e.At.After(handedOver) || e.Is(unit.EventHandedOver) || e.Is(unit.EventPaperKept) ||
			e.Is(unit.EventTakenOver) {
			continue
		}
		if len(s.Lines) == mostChanges {
			s.More++
			continue
		}
		s.Lines = append(s.Lines, d.changeLine(e))
	}
	d.Since = s
	return nil
}

func (d *Data) changeLine(e unit.Entry) string {
	line := e.At.Format("2 Jan 2006 15:04") + " " + e.Who + ": "
	if e.Field == "" {
		return line + e.Action
	}
	return line + fmt.Sprintf("%s, from %s to %s", wording.Where(d.S.Job, d.S.Families, e.Field),
		wording.OrNothing(e.Before), wording.OrNothing(e.After))
}

package job

import (
	"context"
	"fmt"
	"log/slog"
	"maps"
	"regexp"
	"slices"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/store"
)

// Verify follows the whole record and holds every job against the end of its own. Of a job that
// was changed beside it, the values are named that its record knows otherwise.
func (s *Service) Verify(ctx context.Context) (store.Verdict, error) {
	v, err := s.Store.Verify(ctx)
	if err != nil {
		return v, err
	}
	for i, f := range v.Faults {
		if len(f.Where) == 0 {
			continue
		}
		known, err := s.known(ctx, f.Tag, 0)
		if err != nil {
			return v, err
		}
		others, err := s.others(ctx, f.Tag, known)
		if err != nil {
			return v, err
		}
		for _, o := range others {
			if sectionOf(o.Field, f.Where) != "" {
				v.Faults[i].Words += fmt.Sprintf(
					"; %s is %s, and %s wrote %s on %s",
					o.What,
					wording.OrNothing(o.Now),
					o.Who,
					wording.OrNothing(o.After),
					o.At.Format("2 Jan 2006 15:04"),
				)
			}
		}
	}
	return v, nil
}

// sectionOf is the longest of some sections that a field lies in, "" where it lies in none.
func sectionOf(address string, sections []string) (best string) {
	for _, s := range sections {
		if len(s) > len(best) && strings.HasPrefix(address+"/", s+"/") {
			best = s
		}
	}
	return best
}

// known are the last lines of the record for each field that was set here, up to a number of
// lines; 0 for all.
func (s *Service) known(ctx context.Context, tag string, most int) (map[string]unit.Entry, error) {
	out, n := map[string]unit.Entry{}, 0
	for e, err := range s.Store.Lines(ctx, tag) {
		if err != nil {
			return nil, err
		}
		if n++; most > 0 && n > most {
			break
		}
		if e.Field != "" && !e.Brought {
			out[e.Field] = e
		}
	}
	return out, nil
}

// Other is a field that says another thing than a line of the record.
type Other struct {
	unit.Entry
	What string // the field in words
	Now  string
}

// others are the fields that say another thing now than lines of the record did.
func (s *Service) others(ctx context.Context, tag string, known map[string]unit.Entry) (out []Other, err error) {
	j, err := s.Store.Read(ctx, tag)
	if err != nil {
		return nil, err
	}
	shop, err := s.Shop(ctx, "")
	if err != nil {
		return nil, err
	}
	for _, address := range slices.Sorted(maps.Keys(known)) {
		e := known[address]
		ref, err := unit.ParseRef(address)
		if err != nil {
			continue
		}
		now := ""
		if place, f, err := entry.Resolve(j, ref, shop); err == nil {
			now = f.Get(place)
		}
		if now != e.After {
			out = append(out, Other{e, wording.Where(j, shop.Family, address), now})
		}
	}
	return out, nil
}

// Stood is what a fingerprint on a paper leads to.
type Stood struct {
	store.FoundLine
	Holds store.Verdict // of the job's record, up to now
	Since []Other       // what was another then
	Paper *store.Paper  // where the fingerprint is of a paper that was kept
}

var fingerprint = regexp.MustCompile(`^[0-9a-f]{8,64}$`)

// Stood tells what stood in a job when a fingerprint was printed, by its first eight digits or
// more.
func (s *Service) Stood(ctx context.Context, digits string) (*Stood, error) {
	digits = strings.ToLower(strings.TrimSpace(digits))
	if !fingerprint.MatchString(digits) {
		return nil, field.Errorf("paper", "is a fingerprint: eight digits from 0 to 9 and a to f, or more")
	}
	line, err := s.Store.FindFingerprint(ctx, digits)
	if err != nil {
		return nil, err
	}
	out := &Stood{FoundLine: line}
	if out.Holds, err = s.Store.VerifyJob(ctx, line.Tag); err != nil {
		return nil, err
	}
	known, err := s.known(ctx, line.Tag, line.Number)
	if err != nil {
		return nil, err
	}
	if out.Since, err = s.others(ctx, line.Tag, known); err != nil {
		return nil, err
	}
	if line.Is(unit.EventPaperKept) {
		p, err := s.Store.Paper(ctx, line.Tag, line.Event.HandOver, line.Event.Name)
		if err != nil {
			return nil, err
		}
		out.Paper = &p
	}
	return out, nil
}

// How many jobs of an earlier version are taken over at one look, and how often is looked.
const (
	takenAtOnce = 50
	lookEarlier = time.Minute
)

// TakeOverEarlier fingerprints, job by job, what earlier versions of the program left, until all
// is or the context ends.
func (s *Service) TakeOverEarlier(ctx context.Context) {
	for {
		tags, err := s.Store.JobsOfEarlier(ctx, takenAtOnce)
		if err == nil && len(tags) == 0 {
			return
		}
		e := unit.Event{Kind: unit.EventTakenOver}
		for _, tag := range tags {
			if err = s.Store.TakeOver(ctx, tag, unit.Entry{Who: "Corvek", At: s.moment(), Action: wording.Event(e),
				Event: &e}); err != nil {
				break
			}
		}
		if err == nil {
			continue
		}
		if ctx.Err() == nil {
			slog.Error("what an earlier version left was not fingerprinted", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(lookEarlier):
		}
	}
}

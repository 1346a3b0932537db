// Package papers keeps what was given out at a hand-over as it was on that day: the
// job's document, and the report of each unit, with their fingerprints.
package papers

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"log/slog"
	"maps"
	"slices"
	"time"

	"corvek/core/quantity"
	"corvek/internal/document"
	"corvek/internal/exchange"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/report"
	"corvek/internal/store"
)

// Keep makes and keeps the papers of a job that was just handed over, unless they
// are kept already. site is where the pages are opened, for the code on them; "" where nobody
// opened any.
func Keep(ctx context.Context, jobs *job.Service, who people.Actor, tag, site string) error {
	j, err := jobs.Store.Job(ctx, tag)
	if err != nil || !j.HandedOver() {
		return err
	}
	kept, err := jobs.Store.Papers(ctx, tag)
	if err != nil || len(kept) > 0 && kept[0].HandOver == j.HandOver() {
		return err
	}
	var out []store.Paper
	add := func(name, mediaType string, content []byte) {
		sum := sha256.Sum256(content)
		out = append(out, store.Paper{Name: name, MediaType: mediaType, At: jobs.Now().UTC(),
			SHA256: hex.EncodeToString(sum[:]), Content: content})
	}
	if err := exchange.Short(ctx, jobs.Store, tag); err != nil {
		return err
	}
	var text bytes.Buffer
	if err := exchange.Text(&text, j, jobs.Store.Lines(ctx, tag)); err != nil {
		return err
	}
	add("job.json", "application/json", text.Bytes())
	for number := range j.Units {
		st, err := jobs.Load(ctx, tag, number+1)
		if err != nil {
			return err
		}
		d := report.New(st, quantity.Metric, jobs.Now())
		if err := Complete(ctx, jobs.Store, &d, site); err != nil {
			return err
		}
		sheets := given(d)
		for _, name := range slices.Sorted(maps.Keys(sheets)) {
			var b bytes.Buffer
			if err := document.PDF(&b, sheets[name]); err != nil {
				return err
			}
			if len(j.Units) > 1 {
				name += fmt.Sprintf("-unit-%d", number+1)
			}
			add(name+".pdf", "application/pdf", b.Bytes())
		}
	}
	// The form's own token was used up by the hand-over itself.
	return jobs.KeepPapers(store.WithOnce(ctx, ""), who, tag, j.HandOver(), out)
}

// given are the papers that go out with a unit, by their names.
func given(d report.Data) map[string]document.Document {
	out := map[string]document.Document{"report": report.Findings(d), "card": report.Card(d)}
	if d.S.Unit.Owes("prove") {
		out["certificate"] = report.Certificate(d)
	}
	return out
}

// Since tells a report what changed after the papers that were given out before.
func Since(ctx context.Context, s *store.Store, d *report.Data) error {
	j := d.S.Job
	if len(j.Reopenings) == 0 {
		return nil
	}
	last := j.Reopenings[len(j.Reopenings)-1]
	kept, err := s.Papers(ctx, j.Tag)
	if err != nil {
		return err
	}
	return d.Changed(last.HandedOver, kept, s.Lines(ctx, j.Tag))
}

// How many papers are made up for at one look, and how often it is looked.
const (
	atOnce = 20
	look   = 10 * time.Minute
)

// system is who keeps papers that were not kept at once.
var system = people.Actor{Name: "Corvek", Role: people.RoleTechnician}

// Run keeps papers that are missing because the program was stopped right after a
// hand-over, until the context ends.
func Run(ctx context.Context, jobs *job.Service) {
	for {
		if err := missing(ctx, jobs); err != nil && ctx.Err() == nil {
			slog.Error("papers were not kept", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(look):
		}
	}
}

func missing(ctx context.Context, jobs *job.Service) error {
	tags, err := jobs.Store.HandedOverWithoutPapers(ctx, atOnce)
	if err != nil {
		return err
	}
	for _, tag := range tags {
		if err := Keep(ctx, jobs, system, tag, ""); err != nil {
			return fmt.Errorf("%s: %w", tag, err)
		}
	}
	return nil
}

// Package papers keeps what was given out at a hand-over as it was on that day: the
// job's document, and the report of each unit, with their fingerprints.
package papers

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
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
	if err != nil {
		return err
	}
	has := func(name string) bool {
		return slices.ContainsFunc(
			kept,
			func(p store.Paper) bool { return p.HandOver == j.HandOver() && p.Name == name },
		)
	}
	if has(GivenName) {
		return nil
	}
	var out pile
	out.at = jobs.Now().UTC()
	earlier := has(jobName) // papers of a version of the program that kept no data of them
	if !earlier {
		if err := exchange.Short(ctx, jobs.Store, tag); err != nil {
			return err
		}
		var text bytes.Buffer
		if err := exchange.Text(&text, j, jobs.Store.Lines(ctx, tag)); err != nil {
			return err
		}
		out.add(jobName, "application/json", text.Bytes())
	}
	given, err := write(ctx, jobs, j, site)
	if err != nil {
		return err
	}
	for _, name := range slices.Sorted(maps.Keys(given.Papers)) {
		if earlier {
			break // they lie there as they were given out
		}
		var b bytes.Buffer
		if err := document.PDF(&b, given.Papers[name][quantity.Metric]); err != nil {
			return err
		}
		out.add(name+".pdf", "application/pdf", b.Bytes())
	}
	content, err := job.Pack(given)
	if err != nil {
		return err
	}
	out.add(GivenName, job.MediaPacked, content)
	// The form's own token was used up by the hand-over itself.
	return jobs.KeepPapers(store.WithOnce(ctx, ""), who, tag, j.HandOver(), out.papers)
}

// jobName is the paper that is the job's document.
const jobName = "job.json"

// pile gathers papers, each with its fingerprint.
type pile struct {
	at     time.Time
	papers []store.Paper
}

func (p *pile) add(name, mediaType string, content []byte) {
	sum := sha256.Sum256(content)
	p.papers = append(p.papers, store.Paper{Name: name, MediaType: mediaType, At: p.at,
		SHA256: hex.EncodeToString(sum[:]), Content: content})
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
	kept = slices.DeleteFunc(kept, func(p store.Paper) bool { return p.MediaType == job.MediaPacked }) // not given out
	return d.Changed(last.HandedOver, kept, s.Lines(ctx, j.Tag))
}

// How many jobs are made up for at once, and how often it is looked.
const (
	atOnce = 20
	look   = 10 * time.Minute
)

// system is who keeps papers that were not kept at once.
var system = people.Actor{Name: "Corvek", Role: people.RoleTechnician}

// Run keeps what is missing of hand-overs, until the context ends: because the program was
// stopped right after one, or because an earlier version of it kept less.
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

// missing makes up for what is missing now. A job that cannot be frozen or printed is told, and
// holds up no other.
func missing(ctx context.Context, jobs *job.Service) error {
	frozen := func(tag string) error { return jobs.FreezeLater(ctx, system, tag) }
	if err := makeUp(ctx, job.FrozenName, jobs.Store.HandedOverNotFrozen, frozen); err != nil {
		return err
	}
	return makeUp(ctx, GivenName, jobs.Store.HandedOverWithoutPapers, func(tag string) error {
		return Keep(ctx, jobs, system, tag, "")
	})
}

// makeUp makes a paper for each job that is listed without it, but for those where it failed.
func makeUp(ctx context.Context, name string, list func(context.Context, string, []string, int) ([]string, error),
	keep func(tag string) error) error {
	var failed []string
	tried := map[string]bool{}
	for {
		tags, err := list(ctx, name, failed, atOnce)
		if err != nil || len(tags) == 0 {
			return err
		}
		for _, tag := range tags {
			if err := ctx.Err(); err != nil {
				return err
			}
			if err := keep(tag); err != nil || tried[tag] {
				slog.Error("a paper of a hand-over was not kept", "paper", name, "job", tag, "error", err)
				failed = append(failed, tag)
			}
			tried[tag] = true
		}
	}
}

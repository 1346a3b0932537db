package papers

import (
	"context"
	"corvek/core/handover"
	"errors"
	"fmt"
	"log/slog"

	"corvek/core/bench"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/document"
	"corvek/internal/job"
	"corvek/internal/report"
	"corvek/internal/store"
)

// GivenName is the paper of a hand-over that holds the others as data, so that they are laid
// out again and never worked out again.
const GivenName = "papers.json.gz"

// givenForm steps when papers are kept as other data.
const givenForm = 1

// Given are the papers of a hand-over as data.
type Given struct {
	Form   int
	Papers map[string]ForReaders // by name
}

// ForReaders is one paper, by what its reader measures in.
type ForReaders map[quantity.System]document.Document

// readers are all that papers are kept for.
var readers = []quantity.System{quantity.Metric, quantity.Inch, quantity.MetricPsi, quantity.InchBar}

// nameOf is the name of a paper of one unit of a job.
func nameOf(paper string, j *unit.Job, number int) string {
	if len(j.Units) > 1 {
		return fmt.Sprintf("%s-unit-%d", paper, number)
	}
	return paper
}

// write writes the papers of all units of a job that was handed over. Later, it says of each
// that it was worked out after the hand-over.
func write(ctx context.Context, jobs *job.Service, j *unit.Job, site string) (*Given, error) {
	out := &Given{Form: givenForm, Papers: map[string]ForReaders{}}
	frozen, err := jobs.Frozen(ctx, j)
	if err != nil {
		return nil, err
	}
	for i := range j.Units {
		st, err := jobs.Load(ctx, j.Tag, i+1)
		if err != nil {
			return nil, err
		}
		for _, units := range readers {
			d := report.New(st, units, jobs.Now())
			if err := Complete(ctx, jobs.Store, &d, site); err != nil {
				return nil, err
			}
			for paper, doc := range given(d) {
				name := nameOf(paper, j, i+1)
				if out.Papers[name] == nil {
					out.Papers[name] = ForReaders{}
				}
				out.Papers[name][units] = marked(doc, frozen)
			}
		}
	}
	return out, nil
}

// given are the papers that go out with a unit, by their names.
func given(d report.Data) map[string]document.Document {
	out := map[string]document.Document{"report": report.Findings(d), "card": report.Card(d)}
	if d.S.Unit.Owes("prove") {
		out["certificate"] = report.Certificate(d)
	}
	return out
}

// marked says of a paper that it was worked out after the hand-over, where it was.
func marked(d document.Document, frozen *bench.Frozen) document.Document {
	if frozen == nil || !frozen.Later {
		return d
	}
	words := "Worked out on " + frozen.At.Format("2 January 2006") + ", after the hand-over, by what was known on " +
		"that day. What was given out before is kept as it was."
	d.Blocks = append([]document.Block{document.Text{Text: words, Quiet: true}}, d.Blocks...)
	return d
}

// Of gives a paper of a unit as it was given out, for a reader; ok is false where none was kept:
// of an open job, of one that came from elsewhere, or right after a hand-over.
func Of(ctx context.Context, jobs *job.Service, j *unit.Job, number int, paper string, units quantity.System) (
	d document.Document, ok bool, err error) {
	if !j.HandedOver() {
		return d, false, nil
	}
	p, err := jobs.Store.Paper(ctx, j.Tag, j.HandOver(), GivenName)
	if errors.Is(err, store.ErrNotFound) {
		return d, false, nil
	}
	if err != nil {
		return d, false, err
	}
	var g Given
	if err := job.Unpack(p.Content, &g); err != nil {
		return d, false, err
	}
	if g.Form != givenForm {
		slog.Warn("papers of a hand-over are of another form", "job", j.Tag, "form", g.Form)
		return d, false, nil
	}
	d, ok = g.Papers[nameOf(paper, j, number)][units]
	return d, ok, nil
}

// Dress adds to a paper that was kept what came after it: who signed off since, and that the job
// was withdrawn.
func Dress(ctx context.Context, s *store.Store, j *unit.Job, number int, d document.Document) (document.Document,
	error) {
	holds, err := s.VerifyJob(ctx, j.Tag)
	if err != nil {
		return d, err
	}
	var by handover.SignOff
	if holds.Holds() {
		if by, err = handover.SignedOff(j, number, s.Lines(ctx, j.Tag)); err != nil {
			return d, err
		}
	}
	d = d.Sealed(report.Seal(by))
	if j.Withdrawn() {
		d.Blocks = append([]document.Block{report.WithdrawnBanner(j)}, d.Blocks...)
	}
	d.Load = loader(ctx, s, j)
	return d, nil
}

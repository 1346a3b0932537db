package papers

import (
	"context"
	"corvek/core/handover"

	"corvek/core/unit"
	"corvek/internal/picture"
	"corvek/internal/report"
	"corvek/internal/store"
)

// Complete adds to a report what the store alone knows: how far the record went, who signed
// off, what changed after papers that were given out before, the code and the pictures.
func Complete(ctx context.Context, s *store.Store, d *report.Data, site string) error {
	j := d.S.Job
	holds, err := s.VerifyJob(ctx, j.Tag)
	if err != nil {
		return err
	}
	d.Record = report.Record{Lines: holds.Lines, Head: holds.Head, Fault: holds.Fault()}
	if d.Sign, err = handover.SignedOff(j, d.S.Unit.Number, s.Lines(ctx, j.Tag)); err != nil {
		return err
	}
	if !holds.Holds() {
		d.Sign = handover.SignOff{}
	}
	head(ctx, s, d, site)
	return Since(ctx, s, d)
}

// head adds the code that opens the job, and the pictures. site is where the pages were
// opened; what the shop says of itself goes before it.
func head(ctx context.Context, s *store.Store, d *report.Data, site string) {
	j := d.S.Job
	if d.S.Shop.Site != "" {
		site = d.S.Shop.Site
	}
	if site != "" {
		d.Opens = site + "/jobs/" + j.Tag
	}
	d.Load = loader(ctx, s, j)
}

// loader gets the pictures of a job for its papers.
func loader(ctx context.Context, s *store.Store, j *unit.Job) func(string) ([]byte, error) {
	numbers := map[string]int{}
	for _, p := range j.Pictures {
		numbers[report.PictureURL(j.Tag, p.Number)] = p.Number
	}
	return func(address string) ([]byte, error) {
		number, known := numbers[address]
		if !known {
			return nil, store.ErrNotFound
		}
		content, mediaType, err := s.Picture(ctx, j.Tag, number)
		if err != nil || mediaType == "image/svg+xml" {
			return content.Bytes, err
		}
		return picture.ForPaper(content.Bytes)
	}
}

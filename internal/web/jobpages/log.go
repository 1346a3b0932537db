package jobpages

import (
	"context"
	"fmt"
	"math"
	"path"
	"strconv"
	"strings"
	"time"
	"unicode"

	"corvek/core/field"
	"corvek/core/trace"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// addLog keeps the log of another stand as a recording of the open attempt. What its columns
// are is said beside it.
func (s *Pages) addLog(c *echo.Context) error {
	ctx := c.Request().Context()
	st, err := s.Jobs.Load(ctx, c.Param("tag"), unitNo(c))
	if err != nil {
		return err
	}
	a := st.Attempt()
	if a == nil || a.Closed {
		return field.Errorf("log", "start an attempt first")
	}
	m, err := trace.ParseMapping(c.FormValue("columns"))
	if err != nil {
		return field.Errorf("columns", "%s", err)
	}
	file, err := c.FormFile("log")
	if err != nil {
		return field.Errorf("log", "choose the log, a CSV file")
	}
	in, err := file.Open()
	if err != nil {
		return err
	}
	defer in.Close()
	t, err := trace.ReadCSV(in, m, s.Jobs.Now().Truncate(time.Second))
	if err != nil {
		return field.Errorf("log", "%s", err)
	}
	source, err := s.sourceOf(ctx, t)
	if err != nil {
		return err
	}
	if why := a.Mixed(source); why != "" {
		if source == unit.SourceSimulated {
			why = "these samples are of an exercise on the simulated stand: " + why
		}
		return field.Errorf("log", "%s", why)
	}
	id, err := s.Store.KeepLog(ctx, st.Job.Tag, store.Recording{Unit: st.Unit.Number, Attempt: a.Number,
		Source: source, Stand: "log " + clippedName(path.Base(file.Filename)), ByName: site.Who(c).Name}, t)
	if err != nil {
		return err
	}
	return site.OK(c, map[string]any{"go": fmt.Sprintf("/jobs/%s/recordings/%d", st.Job.Tag, id)})
}

// sourceOf tells a log from samples of an exercise that come back as a file, whether the file says so
// itself or only its figures do.
func (s *Pages) sourceOf(ctx context.Context, t *trace.Trace) (string, error) {
	if t.Simulated {
		return unit.SourceSimulated, nil
	}
	list, err := s.Store.Exercises(ctx)
	if err != nil {
		return "", err
	}
	for _, r := range list {
		ran, err := s.Store.Samples(ctx, r, r.StartedAt.Add(-time.Minute),
			r.EndedAt.Add(time.Minute), mostSamples)
		if err != nil {
			return "", err
		}
		if t.PartOf(ran) {
			return unit.SourceSimulated, nil
		}
	}
	return unit.SourceLog, nil
}

// clippedName is what a file was called, as far as it can be shown and kept.
func clippedName(name string) string {
	name = strings.Map(func(r rune) rune {
		if unicode.IsPrint(r) {
			return r
		}
		return -1
	}, strings.ToValidUTF8(name, ""))
	if r := []rune(name); len(r) > store.MostStandName {
		return string(r[:store.MostStandName])
	}
	return name
}

// takeFromRecording writes the means of a stretch of a recording at a step of the open
// attempt.
func (s *Pages) takeFromRecording(c *echo.Context) error {
	ctx := c.Request().Context()
	r, err := s.findRecording(c)
	if err != nil {
		return err
	}
	st, err := s.Jobs.Load(ctx, c.Param("tag"), r.Unit)
	if err != nil {
		return err
	}
	if a := st.Attempt(); a == nil || a.Closed || a.Number != r.Attempt {
		return field.Errorf("stretch", "attempt %d is over: nothing is added to it", r.Attempt)
	}
	from, to, err := stretch(r, c.FormValue("first"), c.FormValue("last"))
	if err != nil {
		return err
	}
	t, err := s.Store.Samples(ctx, r, from, to, mostSamples)
	if err != nil {
		return err
	}
	shown := map[string]float64{}
	for _, code := range t.Channels {
		if mean, _, read := t.Mean(code); read {
			shown[code] = mean
		}
	}
	if len(shown) == 0 {
		return field.Errorf("stretch", "nothing was read between these seconds")
	}
	reading := job.Reading{Step: c.FormValue("code"), Source: r.Source, Shown: shown}
	reading.From, reading.To = t.Unbroken()
	if err := s.Jobs.TakePoint(ctx, site.Who(c), st.Job.Tag, r.Unit, reading); err != nil {
		return err
	}
	return site.OK(c, map[string]any{"go": fmt.Sprintf("/jobs/%s/prove?unit=%d", st.Job.Tag, r.Unit)})
}

// stretch reads two moments in seconds from the start of a recording.
func stretch(r store.Recording, first, last string) (from, to time.Time, err error) {
	a, err1 := strconv.ParseFloat(strings.TrimSpace(first), 64)
	b, err2 := strconv.ParseFloat(strings.TrimSpace(last), 64)
	if err1 != nil || err2 != nil || !(a >= 0) || !(b > a) || b-a > mostSamples/10 || math.IsInf(b, 0) {
		return from, to, field.Errorf("stretch", "write seconds from the start, such as 60 and 90; an hour at most")
	}
	at := func(seconds float64) time.Time { return r.StartedAt.Add(time.Duration(seconds * float64(time.Second))) }
	return at(a), at(b), nil
}

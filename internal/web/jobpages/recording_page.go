package jobpages

import (
	"encoding/csv"
	"fmt"
	"html/template"
	"math"
	"strconv"
	"time"

	"corvek/core/quantity"
	"corvek/core/trace"
	"corvek/internal/draw"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// RecordingPage is what a stand showed for an attempt, over time.
type RecordingPage struct {
	JobPage
	store.Recording
	Strips   template.HTML
	Notes    []store.RecordingNote
	From, To string // seconds of the part that is shown, "" for all of it
	Long     string
	Fault    string
	Steps    []site.Named // at which a stretch can be taken, nil where the attempt is over
	Ripple   RippleView
}

// RecordingRow is a recording in the list of a unit's.
type RecordingRow struct {
	ID        int64
	Attempt   int
	Stand     string
	Simulated bool
	At, Long  string
}

func recordingRows(list []store.Recording) (out []RecordingRow) {
	for _, r := range list {
		at := r.StartedAt.Format("2 Jan 15:04")
		out = append(out, RecordingRow{r.ID, r.Attempt, r.Stand, r.Simulated(), at, long(r)})
	}
	return out
}

func long(r store.Recording) string {
	return r.EndedAt.Sub(r.StartedAt).Round(time.Second).String()
}

// mostStretches is how many stretches a recording is drawn by.
const mostStretches = 800

// mostSamples are read for a part that is looked at closely: an hour.
const mostSamples = 36000

func (s *Pages) findRecording(c *echo.Context) (store.Recording, error) {
	id, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil {
		return store.Recording{}, store.ErrNotFound
	}
	r, found, err := s.Store.Recording(c.Request().Context(), c.Param("tag"), id)
	if err == nil && !found {
		err = store.ErrNotFound
	}
	return r, err
}

func (s *Pages) recording(c *echo.Context) error {
	ctx := c.Request().Context()
	r, err := s.findRecording(c)
	if err != nil {
		return err
	}
	l, err := s.look(c, "prove")
	if err != nil {
		return err
	}
	p := RecordingPage{JobPage: l.page(), Recording: r, Long: long(r), From: c.QueryParam("from"),
		To: c.QueryParam("to")}
	outlines, err := s.Store.Outlines(ctx, r)
	if err != nil {
		return err
	}
	if r.Samples <= mostSamples/6 && r.Samples > 1 { // ten minutes are drawn reading by reading
		all := fmt.Sprint(math.Ceil(r.EndedAt.Sub(r.StartedAt).Seconds()) + 1)
		if whole, err := s.closely(c, r, "0", all); err == nil {
			outlines = whole
		}
	}
	if p.From != "" || p.To != "" {
		var part []trace.Outline
		if part, err = s.closely(c, r, p.From, p.To); err != nil {
			p.Fault = "write seconds from the start, such as 60 and 120; an hour is shown at most"
		} else {
			outlines = part
			if p.Ripple, err = s.ripple(c, l, r, p.From, p.To); err != nil {
				return err
			}
		}
	}
	if p.Notes, err = s.Store.RecordingNotes(ctx, r.ID); err != nil {
		return err
	}
	strip := draw.Strips{Outlines: trace.Join(outlines, mostStretches)}
	for _, n := range p.Notes {
		strip.Notes = append(strip.Notes, draw.StripNote{At: n.At, Text: n.Note})
	}
	for _, ch := range channels(r.Codes(), l.Units) {
		name := ch.Name
		if ch.Unit != "" {
			name += ", " + ch.Unit
		}
		strip.Names = append(strip.Names, name)
		strip.Factor, strip.Offset = append(strip.Factor, ch.factor), append(strip.Offset, ch.offset)
	}
	if a := l.st.Attempt(); a != nil && !a.Closed && a.Number == r.Attempt && l.CanWork() && a.Mixed(r.Source) == "" {
		for _, step := range a.Points {
			if step.Skipped == "" && len(step.Test.Reads) > 0 {
				p.Steps = append(p.Steps, site.Named{Code: step.Test.Code, Name: step.Test.Name})
			}
		}
	}
	p.Strips = template.HTML(strip.SVG())
	return s.renderBeside(c, "recording", "Recording", l, p)
}

// closely gives a part of a recording sample by sample.
func (s *Pages) closely(c *echo.Context, r store.Recording, from, to string) ([]trace.Outline, error) {
	first, last, err := stretch(r, from, to)
	if err != nil {
		return nil, err
	}
	t, err := s.Store.Samples(c.Request().Context(), r, first, last, mostSamples)
	if err != nil || len(t.Samples) == 0 {
		return nil, store.ErrNotFound
	}
	var out []trace.Outline
	for i := 0; i+1 < len(t.Samples); i++ {
		if t.Samples[i+1].At.Sub(t.Samples[i].At) > 2*time.Second {
			continue // the signal was lost: nothing is drawn that nobody saw
		}
		pair := trace.Trace{Channels: t.Channels, Samples: t.Samples[i : i+2]}
		out = append(out, pair.Outline())
	}
	return out, nil
}

// recordingCSV gives all samples of a recording, units in the heading.
func (s *Pages) recordingCSV(c *echo.Context) error {
	r, err := s.findRecording(c)
	if err != nil {
		return err
	}
	h := c.Response().Header()
	h.Set("Content-Type", "text/csv; charset=utf-8")
	h.Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-recording-%d.csv"`, c.Param("tag"), r.ID))
	out := csv.NewWriter(c.Response())
	show := channels(r.Codes(), quantity.Metric)
	head := []string{"time s"}
	for _, ch := range show {
		head = append(head, ch.Code+" "+ch.Unit)
	}
	if r.Simulated() {
		head = append(head, trace.SimulatedColumn)
	}
	_ = out.Write(head)
	for from := r.StartedAt.Add(-time.Minute); from.Before(r.EndedAt); from = from.Add(time.Hour) {
		t, err := s.Store.Samples(c.Request().Context(), r, from, from.Add(time.Hour-time.Nanosecond), mostSamples+1000)
		if err != nil {
			return err
		}
		for _, sample := range t.Samples {
			row := []string{fmt.Sprintf("%.1f", sample.At.Sub(r.StartedAt).Seconds())}
			for i, ch := range show {
				text := ""
				if v := ch.shown(sample.Values[i]); v != nil {
					text = strconv.FormatFloat(*v, 'f', ch.Places, 64)
				}
				row = append(row, text)
			}
			if r.Simulated() {
				row = append(row, "yes")
			}
			if err := out.Write(row); err != nil {
				return nil // the reader has left
			}
		}
	}
	out.Flush()
	return nil
}

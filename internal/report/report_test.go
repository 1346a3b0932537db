package report_test

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"strings"
	"testing"
	"time"

	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/demo"
	"corvek/demo/demotest"
	"corvek/internal/document"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/report"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func service(t *testing.T) *job.Service { return demotest.Jobs(t) }

func data(t *testing.T, s *job.Service, tag string) report.Data {
	st, err := s.Load(context.Background(), tag, 1)
	require.NoError(t, err)
	return report.New(st, quantity.Metric, time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC))
}

func TestFinishedPump(t *testing.T) {
	s := service(t)
	d := data(t, s, "T-0388")
	assert.Equal(t, "PROVED", d.Stands.Words, d.Stands.Missing)
	assert.Contains(t, d.Charts[0].Note, "measured after the build", "what a predicted curve rests on")
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Findings(d)))
	paper := b.String()
	for _, words := range []string{"Worn out in fair service", "7.84 L/min", "2.74 L/min",
		"flow 44.10 L/min (96.3 % volumetric; 95.0 % as read; brought to the viscosity at duty), speed 1450 rpm",
		"soft part, new at every rebuild", "14 May 2031",
		"relief shimmed by 0.4 mm"} {
		assert.Contains(t, paper, words)
	}
	assert.NotContains(t, paper, "Still open")
}

func TestUnfinishedPumpSaysSo(t *testing.T) {
	s := service(t)
	d := data(t, s, "T-0417")
	assert.Equal(t, "NOT TESTED", d.Stands.Words)
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Findings(d)))
	assert.Contains(t, b.String(), "Still open")
	assert.Contains(t, b.String(), "33 of 34")
	assert.Contains(t, b.String(), "No conclusion has been drawn")
}

// What a lead let pass is printed with the reason.
func TestPassedStopsArePrinted(t *testing.T) {
	s := service(t)
	odd := people.Actor{Name: "Odd", Role: people.RoleLead}
	require.NoError(t, s.WaiveStop(context.Background(), odd, "T-0417", 1, "u1/strip/short/front_needles",
		"pump runs on a new track anyway"))
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Findings(data(t, s, "T-0417"))))
	assert.Contains(t, b.String(), "pump runs on a new track anyway")
	assert.Contains(t, b.String(), "Waived with a reason")
}

func TestStartUpCardBeginsWithTheOutsideCause(t *testing.T) {
	s := service(t)
	d := data(t, s, "T-0409")
	require.NotEmpty(t, d.Note.Lines)
	assert.Contains(t, strings.Join(d.Note.Lines, "\n"), "Before anything turns: Flush both hose runs")
	assert.Contains(t, d.Note.Lines[len(d.Note.Lines)-1], "mineral oil VG 46")
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Card(d)))
	assert.Contains(t, b.String(), "No start-up card is given before a test")
	lines := report.StartUp(d.S)
	assert.Contains(t, lines[0], "Before anything turns: Flush both hose runs", "once it was tested")
	assert.Contains(t, lines[len(lines)-1], "mineral oil VG 46")
}

func TestPDFOfEveryDemoJob(t *testing.T) {
	s := service(t)
	docs, err := demo.Documents()
	require.NoError(t, err)
	for _, d := range docs {
		tag := d.Tag()
		var b bytes.Buffer
		require.NoError(t, document.PDF(&b, report.Findings(data(t, s, tag))), tag)
		assert.True(t, strings.HasPrefix(b.String(), "%PDF-"), tag)
		assert.True(t, strings.HasSuffix(strings.TrimSpace(b.String()), "%%EOF"), tag)
	}
}

// Text a customer typed cannot become markup on the paper.
func TestTypedTextIsEscaped(t *testing.T) {
	s := service(t)
	edit(t, s, "job/title", `<img src=x onerror="alert(1)">`, "Press feed pump, No. 2 line")
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Findings(data(t, s, "T-0417"))))
	assert.NotContains(t, b.String(), "<img src=x")
}

func TestInchReader(t *testing.T) {
	s := service(t)
	st, err := s.Load(context.Background(), "T-0388", 1)
	require.NoError(t, err)
	d := report.New(st, quantity.Inch, time.Now())
	assert.Equal(t, "2.07 gpm", d.Leak)
}

// The paper follows a changed clearance with nothing else touched.
func TestReportFollowsAChangedClearance(t *testing.T) {
	s := service(t)
	before := data(t, s, "T-0417")
	assert.Equal(t, "8.79 L/min", before.Leak)
	st, err := s.Load(context.Background(), "T-0417", 1)
	require.NoError(t, err)
	gap := st.ByCode["rear_plate"].Features[0]
	for _, leaf := range []struct{ slot, was, is string }{{"9 thou", "stops", "goes"}, {"10 thou", "", "stops"}} {
		edit(t, s, fmt.Sprintf("u1/part/%s/feature/%s/found/leaf:%s", gap.Part.Code, gap.Code, leaf.slot), leaf.is,
			leaf.was)
	}
	after := data(t, s, "T-0417")
	assert.NotEqual(t, before.Leak, after.Leak)
	assert.NotEqual(t, before.Charts[0].SVG, after.Charts[0].SVG)
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Findings(after)))
	assert.Contains(t, b.String(), "0.229 mm to under 0.254 mm")
	assert.Contains(t, b.String(), after.Leak)
}

func edit(t *testing.T, s *job.Service, field, value, base string) {
	t.Helper()
	iva := people.Actor{Name: "Iva", Role: people.RoleTechnician}
	_, err := s.Set(context.Background(), iva, "T-0417", job.Edit{Field: field, Value: value, Base: base})
	require.NoError(t, err)
}

// A job that was opened again after hand-over says so on every later paper.
func TestReopeningIsPrinted(t *testing.T) {
	s := service(t)
	lead := people.Actor{Name: "Odd Renfeld", Role: people.RoleLead}
	require.NoError(t, s.Reopen(context.Background(), lead, "T-0388", "leaks at the cover again", unit.TouchesUnit))
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Findings(data(t, s, "T-0388"))))
	assert.Contains(t, b.String(), "Opened again after hand-over")
	assert.Contains(t, b.String(), "leaks at the cover again")
}

// What makes the unit another than its family is printed, and so is every mark,
// also one that the bench made itself.
func TestUnitAsItIsIsPrinted(t *testing.T) {
	s, ctx := service(t), context.Background()
	who := people.Actor{ID: 1, Name: "Iva", Role: people.RoleTechnician}
	for field, value := range map[string]string{
		"u1/part/driven_gear/mark/scored/state": "seen", "u1/part/driven_gear/mark/scored/origin": "made_by_us",
		"u1/part/key/mark/sheared/state": "seen", "u1/part/cover_bolts/mark/rust/state": "seen",
	} {
		base := ""
		if strings.HasSuffix(field, "/origin") {
			base = "found_so"
		}
		_, err := s.Set(ctx, who, "T-0417", job.Edit{Field: field, Value: value, Base: base})
		require.NoError(t, err, field)
	}
	require.NoError(t, s.Recount(ctx, who, "T-0417", 1, "front_needles", 33, "variant", "B casting"))
	_, err := s.AddPart(ctx, who, "T-0417", 1, "key", "felt ring", "o_ring", 2)
	require.NoError(t, err)
	d := data(t, s, "T-0417")
	assert.ElementsMatch(t, []string{
		"Front needles: 33 on this unit where the family has 34, by its variant: B casting",
		"felt ring: on this unit, 2 of it; the family has none"}, d.Differs)
	seen := strings.Join(d.Seen, "\n")
	assert.Contains(t, seen, "Driven gear: scored, made during teardown")
	assert.Contains(t, seen, "Key: sheared")
	for _, r := range d.Parts {
		if r.Name == "Key" {
			assert.Equal(t, "new", r.Choice)
		}
	}
	var page, pdf bytes.Buffer
	require.NoError(t, document.HTML(&page, report.Findings(d)))
	require.NoError(t, document.PDF(&pdf, report.Findings(d)))
	assert.Contains(t, page.String(), "felt ring")
}

// A report with its line, its charts and two pictures, laid out twice to count its pages.
func BenchmarkFindingsAsPDF(b *testing.B) {
	jobs := demotest.Jobs(b)
	st, err := jobs.Load(context.Background(), "T-0417", 1)
	require.NoError(b, err)
	d := report.New(st, quantity.Metric, time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC))
	for b.Loop() {
		require.NoError(b, document.PDF(io.Discard, report.Findings(d)))
	}
}

package exchange_test

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"io"
	"maps"
	"os"
	"slices"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/demo"
	"corvek/internal/exchange"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store/storetest"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func service(t *testing.T) *job.Service {
	s, err := job.New(storetest.New(t))
	require.NoError(t, err)
	return s
}

// out exports a job as its document.
func out(t *testing.T, s *job.Service, tag string) (document []byte, whole []byte) {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, exchange.Write(context.Background(), s.Store, tag, &b))
	z, err := zip.NewReader(bytes.NewReader(b.Bytes()), int64(b.Len()))
	require.NoError(t, err)
	f, err := z.Open("job.json")
	require.NoError(t, err)
	document, err = io.ReadAll(f)
	require.NoError(t, err)
	return document, b.Bytes()
}

// An exported job, brought into another store, exports to the same document:
// record, waivers, acknowledgements, pictures and their marks included.
func TestRoundTripOfEveryDemoJob(t *testing.T) {
	ctx := context.Background()
	here, there := service(t), service(t)
	docs, err := demo.Documents()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(docs), 6)
	iva, odd := people.Actor{
		Name: "Iva",
		Role: people.RoleTechnician,
	}, people.Actor{
		Name: "Odd",
		Role: people.RoleLead,
	}
	for _, d := range docs {
		tag := d.Tag()
		t.Run(tag, func(t *testing.T) {
			require.NoError(t, exchange.Import(ctx, here, d, demo.Files, "test"))
			// What was done here travels too: opened again, another order, a part of its
			// own, a caution read, a stop waived, a mark on a picture, a calculation.
			if taken, err := here.Load(ctx, tag, 1); err == nil && taken.Job.HandedOver() {
				require.NoError(t, here.Reopen(ctx, odd, tag, "it came back", unit.TouchesUnit))
			}
			st, err := here.Load(ctx, tag, 1)
			require.NoError(t, err)
			last := st.Parts[len(st.Parts)-1]
			require.NoError(t, here.MovePart(ctx, iva, tag, 1, last.Code, -1))
			_, err = here.AddPart(ctx, iva, tag, 1, st.Parts[0].Code, "Home-made ring", "spacer", 2)
			require.NoError(t, err)
			require.NoError(t, here.AddLoose(ctx, iva, tag, 1, "chip", "sump", 1))
			require.NoError(t, here.AddCause(ctx, iva, tag, 1, "contributing", "", "no breather"))
			require.NoError(t, here.AddPiece(ctx, iva, tag, 1, "K-9", "ring", 2, st.Parts[0].Code))
			for _, c := range st.Family.Cautions {
				require.NoError(t, here.Acknowledge(ctx, iva, tag, 1, c))
			}
			for _, p := range st.Job.Pictures {
				require.NoError(t, here.AddMark(ctx, iva, tag, 1, p.Number,
					unit.PictureMark{X: .5, Y: .25, Note: "here", Part: st.Parts[1].Code}))
			}
			require.NoError(t, here.PutFigure(ctx, iva, tag,
				job.Working{Calculator: "mesh", Inputs: []byte(`{"mesh":"100"}`), Note: "strainer"}))
			st, err = here.Load(ctx, tag, 1)
			require.NoError(t, err)
			for _, station := range unit.Stations {
				for _, stop := range st.Stops[station] {
					if stop.Waived == nil {
						require.NoError(t, here.WaiveStop(ctx, odd, tag, 1, stop.String(), "seen by both sides"))
					}
				}
			}
			first, whole := out(t, here, tag)
			again, files, err := exchange.OpenZip(bytes.NewReader(whole), int64(len(whole)))
			require.NoError(t, err)
			require.NoError(t, exchange.Import(ctx, there, again, files, "test"))
			second, _ := out(t, there, tag)
			// The import itself is the one line that the second record has more; those
			// before it are marked as another store's.
			was, is := withoutLast(t, first, 0), withoutLast(t, second, 1)
			for _, line := range is["record"].([]any) {
				assert.Equal(t, true, line.(map[string]any)["brought"])
				delete(line.(map[string]any), "brought")
			}
			for _, line := range was["record"].([]any) {
				delete(line.(map[string]any), "brought")
			}
			assert.Equal(t, was, is)
			a, err := here.Load(ctx, tag, 1)
			require.NoError(t, err)
			b, err := there.Load(ctx, tag, 1)
			require.NoError(t, err)
			one, other := storetest.Bare(a.Job), storetest.Bare(b.Job)
			other.Version = one.Version // of its own store
			assert.Equal(t, one, other, "the job is the very same, with what is empty on it")
			for _, station := range unit.Stations {
				assert.Equal(t, a.Stops[station], b.Stops[station], "every waiver holds at %s", station)
				assert.Zero(t, b.Open(station), station)
			}
			for _, p := range a.Job.Pictures {
				x, _, err := here.Store.Picture(ctx, tag, p.Number)
				require.NoError(t, err)
				y, _, err := there.Store.Picture(ctx, tag, p.Number)
				require.NoError(t, err)
				assert.Equal(t, x.Bytes, y.Bytes)
			}
			assert.ErrorIs(t, exchange.Import(ctx, there, again, files, "test"), exchange.ErrTagTaken)
		})
	}
}

// withoutLast is a document without the last lines of its record.
func withoutLast(t *testing.T, document []byte, lines int) map[string]any {
	t.Helper()
	var d map[string]any
	require.NoError(t, json.Unmarshal(document, &d))
	record, _ := d["record"].([]any)
	d["record"] = record[:len(record)-lines]
	return d
}

// A lead's waiver of any kind of stop survives an export and an import.
func TestWaiverOfEveryKindOfStopTravels(t *testing.T) {
	s, ctx := service(t), context.Background()
	tree := minimal()
	var passes []any
	for _, kind := range unit.StopKinds {
		code := unit.StopCode{Unit: 1, Station: "strip", Kind: kind, Part: "key", Feature: "width"}
		switch kind {
		case unit.StopCaution:
			code.Feature, code.Part = "", "stored_pressure"
		case unit.StopLoose, unit.StopPiece, unit.StopSeal:
			code.Part, code.Feature, code.Number = "", "", 3
		}
		passes = append(passes, map[string]any{"code": code.String(), "stop_text": "x", "reason": "agreed",
			"by": "Odd", "at": "2031-05-14T10:00:00Z"})
	}
	tree["stop_passes"] = passes
	require.NoError(t, bring(ctx, s, tree))
	document, _ := out(t, s, "T-1")
	var back map[string]any
	require.NoError(t, json.Unmarshal(document, &back))
	assert.ElementsMatch(t, passes, back["stop_passes"])
}

func minimal() map[string]any {
	return map[string]any{
		"format": "corvek.job", "version": 2,
		"job": map[string]any{"tag": "T-1", "title": "x", "policy": "on_condition", "waiting": "technician",
			"received_on": "2031-01-01"},
		"customer": map[string]any{"name": "x"},
		"units":    []any{map[string]any{"family": "external_gear_pump", "name": "n"}},
	}
}

func bring(ctx context.Context, s *job.Service, tree map[string]any) error {
	text, err := json.Marshal(tree)
	if err != nil {
		return err
	}
	d, err := exchange.Parse(text)
	if err != nil {
		return err
	}
	return exchange.Import(ctx, s, d, demo.Files, "test")
}

// A verdict that comes in a file is worked out anew from the figures beside it, and
// the record says so: a file cannot claim what was not shown.
func TestClaimsInAFileAreWorkedOutAnew(t *testing.T) {
	s, ctx := service(t), context.Background()
	tree := minimal()
	tree["units"].([]any)[0].(map[string]any)["attempts"] = []any{
		map[string]any{"number": 0, "round": 1, "source": "typed"},
		map[string]any{"number": 1, "round": 1, "source": "typed", "closed": true, "verdict": "in",
			"by": "Nobody", "at": "2031-01-02T00:00:00Z"},
	}
	tree["job"].(map[string]any)["handed_over_at"] = "2031-01-03T00:00:00Z"
	require.NoError(t, bring(ctx, s, tree))
	st, err := s.Load(ctx, "T-1", 1)
	require.NoError(t, err)
	claim, _ := st.Claim()
	assert.Equal(t, proof.NotTested, claim)
	assert.Equal(t, "undecided", st.Job.Units[0].Attempts[1].Verdict)
	lines, err := s.Store.Record(ctx, "T-1", 10)
	require.NoError(t, err)
	require.Len(t, lines, 3)
	assert.Contains(t, lines[0].Action, "worked-out.json.gz", "it is frozen as it came in")
	assert.Equal(t, "worked out anew on import: attempt 1 of unit 1", lines[2].Action)
	assert.Equal(t, "in", lines[2].Before)
	assert.Equal(t, "undecided", lines[2].After)
}

func ptr(v any) *map[string]any {
	m := v.(map[string]any)
	return &m
}

// A document of the first version is brought to this one as it is read.
func TestFirstVersionIsRead(t *testing.T) {
	s, ctx := service(t), context.Background()
	tree := minimal()
	tree["version"] = 1
	maps.Copy(tree["job"].(map[string]any), map[string]any{"station": "strip", "waiting": "hands"})
	maps.Copy(tree["units"].([]any)[0].(map[string]any), map[string]any{
		"gauge": "new_unit=same",
		"evidence": []any{map[string]any{"round": 1, "code": "fine_lines", "state": "seen",
			"found_how": "before wiping", "age": "not told"}},
		"parts": []any{map[string]any{"code": "rear_plate",
			"steps": []any{map[string]any{"round": 1, "done": true, "turn": "tight spot"}}}},
	})
	at := "2031-05-14T10:00:00Z"
	tree["stop_passes"] = []any{
		map[string]any{"code": "u1.measure.must.rear_plate.side_clearance", "stop_text": "x", "reason": "agreed",
			"by": "Odd", "at": at},
		map[string]any{"code": "u1.kit.place53.piece0", "stop_text": "no piece for this place",
			"reason": "comes later", "by": "Odd", "at": at},
	}
	require.NoError(t, bring(ctx, s, tree))
	j, err := s.Store.Job(ctx, "T-1")
	require.NoError(t, err)
	assert.Equal(t, "technician", j.Waiting)
	assert.Equal(t, "same", j.Units[0].Gauge["new_unit"])
	assert.Equal(t, "before_wiping", j.Units[0].Marks[0].How)
	assert.Equal(t, "tight_spot", j.Units[0].Part("rear_plate").Steps[0].Turn)
	require.Len(t, j.Waivers, 1)
	assert.Equal(t, "u1/measure/not_measured/rear_plate/side_clearance", j.Waivers[0].Code)
	record, err := s.Store.Record(ctx, "T-1", 10)
	require.NoError(t, err)
	texts := ""
	for _, e := range record {
		texts += e.Action + "\n"
	}
	assert.Contains(t, texts, "waived elsewhere: no piece for this place: comes later",
		"what named a row of the other shop is not lost")
}

// A document of the second version says what one of this version says.
func TestSecondVersionIsRead(t *testing.T) {
	ctx := context.Background()
	text, err := os.ReadFile("testdata/second.json")
	require.NoError(t, err)
	second, err := exchange.Parse(text)
	require.NoError(t, err)
	docs, err := demo.Documents() // as they were written, for the day of the file
	require.NoError(t, err)
	lib, err := family.Shipped()
	require.NoError(t, err)
	var jobs []*unit.Job
	for _, d := range []*exchange.Document{second, docs[0]} {
		s := service(t)
		require.NoError(t, exchange.Import(ctx, s, d, demo.Files, "test"))
		j, err := s.Store.Job(ctx, "T-0388")
		require.NoError(t, err)
		jobs = append(jobs, storetest.Bare(j))
	}
	// What its version had no words for, and what was read besides when that was asked.
	for _, j := range jobs {
		u := j.Units[0]
		j.OperatorNote, j.WorkedHours = "", quantity.Quantity{}
		u.Need, u.Grounds = unit.Need{}, nil
		for _, p := range u.Parts { // sizes were its family's then
			p.Joint, p.Coil = unit.Joint{}, unit.Coil{}
			p.Features = slices.DeleteFunc(p.Features, func(f *unit.Feature) bool {
				def, _ := p.Def(lib[u.Family]).FeatureByCode(f.Code)
				f.New, f.Lower, f.Upper = unit.AsNew{}, unit.Feature{}.Lower, unit.Feature{}.Upper
				f.LimitSource, f.Source = "", ""
				return def.Size
			})
		}
		for _, p := range u.Parts { // not asked then: a spring that goes back, which way round by the way it turns
			p.Sound = false
			for _, f := range p.Features {
				if p.Code == "check_spring" {
					f.Readings = nil
				}
			}
			for _, s := range p.Steps {
				if p.Code == "rear_cover" {
					s.Facing = ""
				}
			}
		}
		u.Marks = slices.DeleteFunc(u.Marks, func(m *unit.UnitMark) bool { // not asked then
			return slices.Contains([]string{"even_wear", "came_slowly", "serviced"}, m.Code)
		})
		for _, a := range u.Attempts {
			a.Verdict, a.RanOn = "", unit.RanOn{} // worked out anew by what is read now; not asked then
			a.PressureGauge, a.FlowMeter = "", ""
			a.ChangeKind, a.ChangePart = "", ""
			for _, p := range a.Points {
				p.Taken = nil
				if p.Code == "leak_watch" || p.Code == "p100" {
					delete(p.Figures, "temperature")
					delete(p.Figures, "pressure")
				}
				if len(p.Figures) == 0 {
					p.Figures = nil
				}
			}
		}
	}
	assert.Equal(t, jobs[0], jobs[1])
	require.NotEmpty(t, jobs[0].Units[0].Attempts[0].Point("p100").Figures)
}

// A limit that a file of an earlier version took from a family of its time stays to be read, and is told for
// what it is; one that was typed is its shop's.
func TestSizesOfAnEarlierFamilyAreMarked(t *testing.T) {
	text := []byte(`{"format": "corvek.job", "version": 3, "tag": "T-3", "title": "Pump", "waiting": "technician",
		"policy": "on_condition", "received_on": "2031-05-05", "customer": {"name": "Mill"}, "units": [{"family":
		"external_gear_pump", "name": "Pump", "parts": [{"code": "body", "features": [{"code": "tip_clearance",
		"upper": "6 thou", "standing": "guidance"}]}, {"code": "rear_plate", "features": [{"code": "side_clearance",
		"upper": "7 thou", "standing": "shop"}]}]}]}`)
	d, err := exchange.Parse(text)
	require.NoError(t, err)
	s := service(t)
	require.NoError(t, exchange.Import(t.Context(), s, d, nil, "test"))
	st, err := s.Load(t.Context(), "T-3", 1)
	require.NoError(t, err)
	tip, side := st.ByCode["body"].Features[0], st.ByCode["rear_plate"].Features[0]
	assert.Equal(t, string(family.SourceEarlier), tip.LimitSource)
	assert.Equal(t, "6 thou", tip.Upper.Typed)
	assert.True(t, tip.Found.Limits.Empty(), "it judges nothing")
	assert.Equal(t, "shop", side.LimitSource)
	assert.False(t, side.Found.Limits.Empty())
}

// The schema in docs is made from the table of fields, describes what is really
// written and what the demo holds, and can refuse.
func TestDocumentsKeepToTheSchema(t *testing.T) {
	text, err := os.ReadFile("../../docs/job.schema.json")
	require.NoError(t, err)
	assert.Equal(t, string(exchange.Schema()), string(text), "run go generate ./internal/exchange")
	schema, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("job.schema.json", schema))
	compiled, err := c.Compile("job.schema.json")
	require.NoError(t, err)
	s, ctx := service(t), context.Background()
	docs, err := demo.Documents()
	require.NoError(t, err)
	for _, d := range docs {
		require.NoError(t, exchange.Import(ctx, s, d, demo.Files, "test"))
		raw, _ := out(t, s, d.Tag())
		written, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
		require.NoError(t, err)
		assert.NoError(t, compiled.Validate(written), d.Tag())
	}
	for _, bad := range []string{`{"format":"corvek.job","version":3}`, `{"format":"corvek.job","version":1}`} {
		v, _ := jsonschema.UnmarshalJSON(strings.NewReader(bad))
		assert.Error(t, compiled.Validate(v), "the schema must be able to refuse")
	}
}

func FuzzParse(f *testing.F) {
	f.Add([]byte(`{"format":"corvek.job","version":1,"job":{"tag":"T-1"},"customer":{"name":"x"},` +
		`"units":[{"family":"f","name":"n"}]}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		d, err := exchange.Parse(text)
		if err == nil {
			d.Shift(3)
			_ = d.Tag()
		}
	})
}

func FuzzOpenZip(f *testing.F) {
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, text []byte) {
		_, _, _ = exchange.OpenZip(bytes.NewReader(text), int64(len(text)))
	})
}

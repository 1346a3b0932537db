package exchange_test

import (
	"bytes"
	"context"
	"encoding/json"
	"os"
	"testing"

	"corvek/demo"
	"corvek/internal/exchange"
	"corvek/internal/job"
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

// An exported job, brought into another store, exports to the same document.
func TestRoundTripOfEveryDemoJob(t *testing.T) {
	ctx := context.Background()
	here, there := service(t), service(t)
	docs, err := demo.Documents()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(docs), 6)
	for _, d := range docs {
		t.Run(d.Job.Tag, func(t *testing.T) {
			require.NoError(t, exchange.Import(ctx, here, d, demo.Files, "test"))
			// The order that a technician changed travels too.
			st, err := here.Load(ctx, d.Job.Tag, 1)
			require.NoError(t, err)
			last := st.Parts[len(st.Parts)-1]
			require.NoError(t, here.MovePart(ctx, job.Actor{Name: "Iva", Role: job.RoleTechnician}, d.Job.Tag, 1, last.ID, -1))
			var first bytes.Buffer
			require.NoError(t, exchange.Write(ctx, here.Store, d.Job.Tag, &first))
			again, files, err := exchange.OpenZip(bytes.NewReader(first.Bytes()), int64(first.Len()))
			require.NoError(t, err)
			require.NoError(t, exchange.Import(ctx, there, again, files, "test"))
			a, err := here.Store.Job(ctx, d.Job.Tag)
			require.NoError(t, err)
			b, err := there.Store.Job(ctx, d.Job.Tag)
			require.NoError(t, err)
			assert.Equal(t, exchange.FromJob(a, nil), exchange.FromJob(b, nil))
			for i := range a.Attachments {
				x, err := here.Store.Attachment(ctx, a.Attachments[i].ID)
				require.NoError(t, err)
				y, err := there.Store.Attachment(ctx, b.Attachments[i].ID)
				require.NoError(t, err)
				assert.Equal(t, x.Content, y.Content)
			}
			assert.ErrorIs(t, exchange.Import(ctx, there, again, files, "test"), exchange.ErrTagTaken)
		})
	}
}

// The schema in docs describes what is really written and what the demo holds.
func TestDocumentsKeepToTheSchema(t *testing.T) {
	text, err := os.ReadFile("../../docs/job.schema.json")
	require.NoError(t, err)
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
		j, err := s.Store.Job(ctx, d.Job.Tag)
		require.NoError(t, err)
		history, err := s.Store.History(ctx, j.ID, 10)
		require.NoError(t, err)
		for _, doc := range []any{d, exchange.FromJob(j, history)} {
			raw, err := json.Marshal(doc)
			require.NoError(t, err)
			v, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
			require.NoError(t, err)
			assert.NoError(t, compiled.Validate(v), d.Job.Tag)
		}
	}
	bad, _ := jsonschema.UnmarshalJSON(bytes.NewReader([]byte(`{"format":"corvek.job","version":1}`)))
	assert.Error(t, compiled.Validate(bad), "the schema must be able to refuse")
}

func TestParseRefuses(t *testing.T) {
	for text, says := range map[string]string{
		``:                                    "not a job document",
		`{"format":"other"}`:                  "format",
		`{"format":"corvek.job","version":9}`: "version 9",
		`{"format":"corvek.job","version":1,"job":{"tag":"T"},"customer":{"name":"x"}}`:                                    "unit",
		`{"format":"corvek.job","version":1,"surprise":true}`:                                                              "surprise",
		`{"format":"corvek.job","version":1,"job":{"tag":""},"customer":{"name":"x"},"units":[{"family":"f","name":"n"}]}`: "tag",
	} {
		_, err := exchange.Parse([]byte(text))
		assert.ErrorContains(t, err, says)
	}
}

func TestImportRefusesWhatTheFamilyDoesNotKnow(t *testing.T) {
	s := service(t)
	base := `{"format":"corvek.job","version":1,"job":{"tag":"T-1","title":"x","policy":"on_condition","waiting":"hands","station":"receive","received_on":"2031-01-01"},"customer":{"name":"x"},"units":[{"family":"%F","name":"n","parts":[{"code":"%P"}]}]}`
	for _, c := range []struct{ f, p, says string }{{"zeppelin", "key", "zeppelin"}, {"external_gear_pump", "wing", "wing"}} {
		text := bytes.ReplaceAll(bytes.ReplaceAll([]byte(base), []byte("%F"), []byte(c.f)), []byte("%P"), []byte(c.p))
		d, err := exchange.Parse(text)
		require.NoError(t, err)
		assert.ErrorContains(t, exchange.Import(context.Background(), s, d, demo.Files, "test"), c.says)
	}
}

func FuzzParse(f *testing.F) {
	f.Add([]byte(`{"format":"corvek.job","version":1,"job":{"tag":"T-1"},"customer":{"name":"x"},"units":[{"family":"f","name":"n"}]}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		d, err := exchange.Parse(text)
		if err == nil {
			d.Shift(3)
		}
	})
}

func FuzzOpenZip(f *testing.F) {
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, text []byte) {
		_, _, _ = exchange.OpenZip(bytes.NewReader(text), int64(len(text)))
	})
}

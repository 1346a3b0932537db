package papers_test

import (
	"bytes"
	"corvek/internal/job/jobtest"
	"crypto/sha256"
	"encoding/hex"
	"testing"

	"corvek/core/unit"
	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/papers"
	"corvek/internal/people"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var odd = people.Actor{Name: "Odd Renfeld", Initials: "OR", Role: people.RoleLead}

// What was given out at a hand-over stays as it was, with its fingerprint in the
// record, whatever is done to the job later; later papers are others beside it.
func TestPapersOfTheDayStay(t *testing.T) {
	jobs, ctx := demotest.Jobs(t), t.Context()
	const tag = "T-0388"
	require.NoError(t, papers.Keep(ctx, jobs, odd, tag, ""))
	kept, err := jobs.Store.Papers(ctx, tag)
	require.NoError(t, err)
	require.Len(t, kept, 6, "the job, its report, its certificate, its card, and the data they rest on")
	first := map[string][]byte{}
	for _, k := range kept {
		p, err := jobs.Store.Paper(ctx, tag, 1, k.Name)
		require.NoError(t, err)
		sum := sha256.Sum256(p.Content)
		assert.Equal(t, k.SHA256, hex.EncodeToString(sum[:]))
		first[k.Name] = p.Content
	}
	assert.True(t, bytes.HasPrefix(first["report.pdf"], []byte("%PDF-")))
	assert.Contains(t, string(first["job.json"]), `"T-0388"`)
	lines, err := jobs.Store.Record(ctx, tag, 4)
	require.NoError(t, err)
	for _, l := range lines {
		assert.Contains(t, l.Action, "kept the paper of the day")
	}
	require.NoError(t, papers.Keep(ctx, jobs, odd, tag, ""), "once more is nothing")
	again, err := jobs.Store.Papers(ctx, tag)
	require.NoError(t, err)
	assert.Equal(t, kept, again)

	require.NoError(t, jobs.Reopen(ctx, odd, tag, "the seal wept", unit.TouchesPapers))
	_, err = jobs.Set(ctx, odd, tag, job.Edit{Field: "job/lesson", Value: "Look at the seal too.",
		Base: "The GX-32 relief spring shortens before anything else shows; measure it first."})
	require.NoError(t, err)
	require.NoError(t, papers.Keep(ctx, jobs, odd, tag, ""), "an open job has no papers of the day")
	jobtest.HandOver(t, jobs, tag)
	missing, err := jobs.Store.HandedOverWithoutPapers(ctx, papers.GivenName, nil, 5)
	require.NoError(t, err)
	assert.Equal(t, []string{tag}, missing, "stopped between hand-over and papers, it is made up for")
	require.NoError(t, papers.Keep(ctx, jobs, odd, tag, ""))
	missing, err = jobs.Store.HandedOverWithoutPapers(ctx, papers.GivenName, nil, 5)
	require.NoError(t, err)
	assert.Empty(t, missing)
	kept, err = jobs.Store.Papers(ctx, tag)
	require.NoError(t, err)
	require.Len(t, kept, 12)
	assert.Equal(t, 2, kept[0].HandOver)
	for name, content := range first {
		p, err := jobs.Store.Paper(ctx, tag, 1, name)
		require.NoError(t, err)
		assert.Equal(t, content, p.Content, name)
	}
	// Nobody, not even the program, can put others in their place.
	_, err = jobs.Store.Pool.Exec(ctx, "UPDATE papers SET content = ''")
	assert.ErrorContains(t, err, "permission denied")
	_, err = jobs.Store.Pool.Exec(ctx, "DELETE FROM papers")
	assert.ErrorContains(t, err, "permission denied")
}

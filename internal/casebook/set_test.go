package casebook_test

import (
	"encoding/json"
	"strings"
	"testing"

	"corvek/core/unit"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A lead makes a case of a finished job in one act: what was found on its unit is how it truly is, nobody's name and
// nobody's words come along, and everybody gets the same.
func TestAFinishedJobBecomesACase(t *testing.T) {
	t.Parallel()
	p := practise(t)
	ctx := t.Context()
	closed, err := p.book.Shop.Store.Closed(ctx, store.Sought{}, 100)
	require.NoError(t, err)
	made := 0
	for _, card := range closed {
		tag := card.Tag
		err := p.book.SetWritten(ctx, p.who, tag, "as it came in spring")
		if err != nil {
			t.Log(tag, err)
			continue
		}
		made++
		own, err := p.book.BeginSet(ctx, p.who)
		require.NoError(t, err)
		again, err := p.book.BeginSet(ctx, p.who)
		require.NoError(t, err)
		assert.Equal(t, own, again, "it lies on his bench already")
		p.tag = own
		was, err := p.book.Shop.Store.Job(ctx, tag)
		require.NoError(t, err)
		for _, at := range []string{own, "H" + own[1:]} {
			j, err := p.book.Bench.Store.Job(ctx, at)
			require.NoError(t, err)
			text, err := json.Marshal(j)
			require.NoError(t, err)
			for _, name := range namesIn(was) {
				assert.NotContains(t, string(text), name, at)
			}
		}
		assert.Empty(t, p.state().Findings, "nothing of it was looked at")
		row, err := p.book.Case(ctx, p.who, own)
		require.NoError(t, err)
		assert.Contains(t, row.Causes, was.Unit(1).Conclusion().Cause)
	}
	require.Positive(t, made, "of %d finished jobs", len(closed))
}

// namesIn are the names and words of a job that nobody else is to read.
func namesIn(j *unit.Job) (out []string) {
	u := j.Unit(1)
	for _, name := range []string{j.Customer.Name, j.Caller, j.Complaint, u.Serial, u.Maker, u.Machine, u.Asset,
		u.Conclusion().Statement, u.Conclusion().Owner} {
		if strings.TrimSpace(name) != "" {
			out = append(out, name)
		}
	}
	return out
}

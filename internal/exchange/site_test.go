package exchange_test

import (
	"encoding/json"
	"testing"

	"corvek/internal/exchange"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A job of one of another owner's shops comes in and says further where it was done, who had it and what was half
// done.
func TestAJobOfAnotherOwnersShop(t *testing.T) {
	first, ctx := service(t), t.Context()
	require.NoError(t, bring(ctx, first, minimal()))
	text, _ := out(t, first, "T-1")
	var root map[string]any
	require.NoError(t, json.Unmarshal(text, &root))
	root["site"], root["held_by"], root["half_done"] = "Slip", "Nia Holt", "bolts loose"
	text, err := json.Marshal(root)
	require.NoError(t, err)
	d, err := exchange.Parse(text)
	require.NoError(t, err)
	s := service(t)
	require.NoError(t, exchange.Import(ctx, s, d, nil, "test"))
	j, err := s.Store.Job(ctx, "T-1")
	require.NoError(t, err)
	assert.Equal(t, "Slip", j.Site)
	assert.Equal(t, "Nia Holt", j.HeldBy)
	assert.Equal(t, "bolts loose", j.HalfDone)
}

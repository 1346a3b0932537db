package job_test

import (
	"context"
	"strings"
	"testing"

	"corvek/core/field"
	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The shop changes a family without touching code; what cannot be read is
// refused with its line, and nothing changes.
func TestShopChangesAFamily(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	text, err := s.FamilyText(ctx, "check_valve")
	require.NoError(t, err)
	var fe *field.Error
	require.ErrorAs(t, s.SaveFamily(ctx, odd, "check_valve", strings.Replace(text, "kind: ball", "kind: dragon", 1),
		"try"), &fe)
	assert.Regexp(t, `^check_valve\.yaml:\d+: part ball: kind "dragon"`, fe.Text)
	assert.ErrorIs(t, s.SaveFamily(ctx, iva, "check_valve", text, "try"), people.ErrForbidden)
	require.ErrorAs(t, s.SaveFamily(ctx, odd, "Check Valve", text, "try"), &fe)
	assert.False(t, s.OwnFamily("check_valve"))

	require.NoError(t, s.SaveFamily(ctx, odd, "check_valve",
		strings.Replace(text, "name: Check valve", "name: Check valve, ours", 1), "our own name"))
	other, err := job.New(s.Store)
	require.NoError(t, err)
	require.NoError(t, other.Refresh(ctx))
	assert.Equal(t, "Check valve, ours", other.Families()["check_valve"].Name, "a second instance sees it")
	own := strings.Replace(text, "code: check_valve", "code: ball_check", 1)
	require.NoError(t, s.SaveFamily(ctx, odd, "ball_check", own, "a new kind"))
	assert.Equal(t, "ball_check", load(t, s, newUnit(t, s, "ball_check")).Family.Code)
	history, err := s.Store.FamilyHistory(ctx, "check_valve")
	require.NoError(t, err)
	assert.Len(t, history, 1)
}

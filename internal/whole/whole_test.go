package whole_test

import (
	"flag"
	"testing"

	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhatOfAListRuns(t *testing.T) {
	all := []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 9}
	was := flag.Lookup("test.short").Value.String()
	t.Cleanup(func() { _ = flag.Set("test.short", was) })
	require.NoError(t, flag.Set("test.short", "false"))
	assert.Equal(t, all, whole.Of(t, all))
	require.NoError(t, flag.Set("test.short", "true"))
	some := whole.Of(t, all)
	require.NotEmpty(t, some)
	assert.LessOrEqual(t, len(some), 3)
	for i := 1; i < len(some); i++ {
		assert.Equal(t, some[i-1]+4, some[i])
	}
	assert.Equal(t, some, whole.Of(t, all), "the same each time")
	assert.Len(t, whole.Of(t, all[:1]), 1, "never nothing")
	assert.Empty(t, whole.Of(t, all[:0]))
}

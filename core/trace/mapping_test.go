package trace_test

import (
	"testing"

	"corvek/core/trace"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestParseMapping(t *testing.T) {
	m, err := trace.ParseMapping("time = t [s]\n\npressure = P in 1 in bar\nturns = rev\n")
	require.NoError(t, err)
	assert.Equal(t, "t [s]", m.Time)
	assert.Equal(t, []trace.Column{{Heading: "P in 1", Figure: "pressure", Unit: "bar"},
		{Heading: "rev", Figure: "turns"}}, m.Columns)
	for text, says := range map[string]string{"": "which column is the time", "time = t": "which figure",
		"pressure = P in bar": "which column is the time", "time = t\npressure": "line 2"} {
		_, err := trace.ParseMapping(text)
		assert.ErrorContains(t, err, says, text)
	}
}

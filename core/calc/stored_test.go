package calc_test

import (
	"encoding/json"
	"testing"

	"corvek/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every calculator's answer, written and read back, is written the same again.
func TestAnswersComeBackAsWritten(t *testing.T) {
	for _, d := range calc.All() {
		out, err := calc.Run(d.Name, []byte(d.Example))
		require.NoError(t, err, d.Name)
		text, err := json.Marshal(out)
		require.NoError(t, err)
		var back calc.Output
		require.NoError(t, json.Unmarshal(text, &back), d.Name)
		again, err := json.Marshal(&back)
		require.NoError(t, err)
		assert.JSONEq(t, string(text), string(again), d.Name)
		assert.Len(t, back.Results, len(out.Results), d.Name)
	}
}

func FuzzStoredAnswer(f *testing.F) {
	f.Add(`{"name":"pump","results":{"a":{"value":1,"unit":"m"},"b":[1,{"x":[{}]}]}}`)
	f.Fuzz(func(t *testing.T, s string) {
		var o calc.Output
		_ = json.Unmarshal([]byte(s), &o)
	})
}

package calc_test

import (
	"encoding/json"
	"fmt"
	"runtime"
	"strings"
	"testing"
	"time"

	"corvek/core/calc"
	"corvek/core/field"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What one call may cost, whoever asks. The time is that of a machine with other
// work to do.
const (
	mostTime   = 500 * time.Millisecond
	mostMemory = 64 << 20
)

// hostile are values that a calculator may be asked with in place of its own.
func hostile(in calc.Input, own any) []any {
	unit := "mm"
	if text, is := own.(string); is {
		if _, u, ok := strings.Cut(text, " "); ok {
			unit = u
		}
	}
	long := func(item any, n int) []any {
		out := make([]any, n)
		for i := range out {
			out[i] = item
		}
		return out
	}
	switch in.Kind {
	case calc.Single:
		return []any{"1e300 " + unit, "1e-300 " + unit, "0 " + unit, "1e12 " + unit, 1e308, 0, 60, 1e6, 5e5,
			"-1 " + unit}
	case calc.List:
		first := any("1 mm")
		if list, is := own.([]any); is && len(list) > 0 {
			first = list[0]
		}
		odd := make([]any, 200)
		for i := range odd {
			odd[i] = fmt.Sprintf("%d.%03d %s", 1+i%7, i*7%1000, strings.TrimLeft(fmt.Sprint(first), "0123456789. "))
		}
		return []any{long(first, 450), long(first, 100000), odd, []any{}, long("1e300 mm", 10)}
	case calc.Grid:
		row := long("50 mm", 100)
		return []any{long(any(row), 100), long(any(row), 5000), []any{[]any{}}}
	case calc.Text:
		return []any{strings.Repeat("<>", 900), strings.Repeat(">", 1999), strings.Repeat("x", 500000),
			strings.Repeat("sf", 900)}
	case calc.Objects:
		odd := make([]any, 24)
		for i := range odd {
			odd[i] = map[string]any{"thickness": fmt.Sprintf("%f mm", 0.0101+float64(i*i)*0.000007), "count": 1000}
		}
		return []any{odd, long(map[string]any{"thickness": "0.001 mm", "count": 1000}, 450),
			long(map[string]any{"thickness": "0.000001 mm", "count": 1000}, 20), long(map[string]any{}, 100000)}
	}
	return nil
}

// No question, however put, keeps a calculator long or fills the memory; one that
// is too large is refused at its input.
func TestCalculatorsAreBounded(t *testing.T) {
	for _, d := range calc.All() {
		var own map[string]any
		require.NoError(t, json.Unmarshal([]byte(d.Example), &own))
		for _, in := range d.Inputs {
			for i, value := range hostile(in, own[in.Name]) {
				asked := map[string]any{}
				for k, v := range own {
					asked[k] = v
				}
				asked[in.Name] = value
				body, err := json.Marshal(asked)
				require.NoError(t, err)
				var before, after runtime.MemStats
				runtime.ReadMemStats(&before)
				began := time.Now()
				_, err = calc.Run(d.Name, body)
				took := time.Since(began)
				runtime.ReadMemStats(&after)
				where := fmt.Sprintf("%s with %s no. %d", d.Name, in.Name, i)
				assert.Less(t, took, mostTime, where)
				assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(mostMemory), where)
				if err != nil {
					var fe *field.Error
					require.ErrorAs(t, err, &fe, where)
				}
			}
		}
	}
}

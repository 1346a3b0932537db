package calc_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"runtime"
	"strings"
	"testing"
	"time"

	"corvek/core/calc"
	"corvek/core/field"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
	"pgregory.net/rapid"
)

// What one call may cost, whoever asks: time of the processor, so that other work
// on the machine does not count, and memory.
const (
	mostTime   = 50 * time.Millisecond
	mostMemory = 64 << 20
)

// processor is the time that this thread has worked.
func processor() time.Duration {
	var u unix.Rusage
	_ = unix.Getrusage(unix.RUSAGE_THREAD, &u)
	return time.Duration(u.Utime.Nano() + u.Stime.Nano())
}

// cost runs a calculator and says what is wrong with how it went, "" for nothing. A
// call that took long is tried again: the collector may have worked on its thread.
func cost(name string, body []byte) string {
	runtime.LockOSThread()
	defer runtime.UnlockOSThread()
	var took time.Duration
	for range 3 {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		began := processor()
		_, err := calc.Run(name, body)
		took = processor() - began
		runtime.ReadMemStats(&after)
		var fe *field.Error
		switch used := after.TotalAlloc - before.TotalAlloc; {
		case err != nil && !errors.As(err, &fe):
			return "not refused in words: " + err.Error()
		case used > mostMemory:
			return fmt.Sprintf("took %d MB", used>>20)
		case took < mostTime:
			return ""
		}
	}
	return fmt.Sprintf("took %s", took)
}

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
				assert.Empty(t, cost(d.Name, body), "%s with %s no. %d", d.Name, in.Name, i)
			}
		}
	}
}

// Calculators asked at random, each input with its own value, a hostile one, or
// something that is no value at all, keep to the same bounds.
func TestCalculatorsAskedAtRandom(t *testing.T) {
	defs := calc.All()
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.SampledFrom(defs).Draw(t, "calculator")
		asked := map[string]any{}
		if err := json.Unmarshal([]byte(d.Example), &asked); err != nil {
			t.Fatal(err)
		}
		for _, in := range d.Inputs {
			odd := hostile(in, asked[in.Name])
			switch rapid.IntRange(0, 3).Draw(t, in.Name) {
			case 1:
				if len(odd) > 0 {
					asked[in.Name] = rapid.SampledFrom(odd).Draw(t, in.Name+" hostile")
				}
			case 2:
				asked[in.Name] = rapid.SampledFrom([]any{nil, true, "", "mm", "1e9999 mm", "0x10 mm", "١ mm", -1e-300,
					map[string]any{}, []any{nil}, "1 mm\x00"}).Draw(t, in.Name+" odd")
			case 3:
				delete(asked, in.Name)
			}
		}
		body, err := json.Marshal(asked)
		if err != nil {
			t.Fatal(err)
		}
		if fault := cost(d.Name, body); fault != "" {
			t.Fatalf("%s %s: %.2000s", d.Name, fault, body)
		}
	})
}

package draw

import (
	"regexp"
	"strconv"
	"testing"

	"corvek/core/metrology"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

var (
	guardRect = regexp.MustCompile(`class="tol-guard" x="([\d.]+)" y="[\d.]+" width="([\d.]+)"`)
	valueMark = regexp.MustCompile(`class="tol-p[^"]*" d="M([\d.]+) `)
)

// The pointer stands on a guard band just where the rule says undecided, on
// either side of a limit, so that picture and verdict never tell two stories.
func TestPointerStandsOnTheGuardWhenUndecided(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		limits := metrology.AtMost(7)
		if rapid.Bool().Draw(rt, "both") {
			limits = metrology.Between(2, 7)
		}
		u := rapid.Float64Range(.1, 1.5).Draw(rt, "U")
		value := rapid.Float64Range(0, 10).Draw(rt, "value")
		verdict := metrology.Judge(value, limits, u, true).Verdict
		svg := ToleranceBar{Limits: limits, Uncertainty: u, Value: value, HasValue: true, Verdict: verdict,
			Show: show}.SVG()
		at := number(rt, valueMark.FindStringSubmatch(svg)[1])
		on, edge := false, false
		for _, m := range guardRect.FindAllStringSubmatch(svg, -1) {
			from := number(rt, m[1])
			to := from + number(rt, m[2])
			on = on || at >= from && at <= to
			edge = edge || at > from-.6 && at < from+.6 || at > to-.6 && at < to+.6 // drawn to a tenth
		}
		if !edge && on != (verdict == metrology.Undecided) {
			rt.Fatalf("%g with U %g is %s, on the guard: %v\n%s", value, u, verdict, on, svg)
		}
	})
	plain := ToleranceBar{Limits: metrology.AtMost(7), Value: 6, HasValue: true, Verdict: metrology.In,
		Show: show}.SVG()
	require.NotContains(t, plain, "tol-guard", "no uncertainty, no band")
}

func number(rt *rapid.T, s string) float64 {
	v, err := strconv.ParseFloat(s, 64)
	if err != nil {
		rt.Fatal(err)
	}
	return v
}

package build_test

import (
	"maps"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"corvek/core/build"
	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// guidance is what is said of the units of a family at one station.
type guidance struct{ station, text string }

// has tells what a family has, as its units are asked: by part, by kind, by assembly.
func has(f *family.Family) func(string) bool {
	return func(name string) bool {
		for i := range f.Parts {
			if f.Parts[i].Code == name || "@"+f.Parts[i].Kind == name {
				return true
			}
		}
		return slices.ContainsFunc(f.Instances, func(in family.Instance) bool {
			return in.Base == name || in.Assembly == name
		})
	}
}

// saidOf is all guidance of the shipped families, each with the families that it is said of.
func saidOf(t *testing.T) map[guidance][]string {
	lib, err := family.Shipped()
	require.NoError(t, err)
	out := map[guidance][]string{}
	for _, code := range slices.Sorted(maps.Keys(lib)) {
		add := func(station, text string) {
			g := guidance{station, text}
			if !slices.Contains(out[g], code) {
				out[g] = append(out[g], code)
			}
		}
		f := lib[code]
		for _, s := range build.FillingOf(f, has(f)) {
			add("fill", s.Words)
		}
		for i := range f.Parts {
			for _, c := range build.ChecksOf(&f.Parts[i]) {
				add("build", c)
			}
		}
		for _, s := range f.StartUp {
			add("start", s)
		}
	}
	return out
}

// The table of the docs was gone through by hand: it has each line that is said of a family, with why, and no other.
func TestGuidanceWasGoneThroughByHand(t *testing.T) {
	text, err := os.ReadFile("../../docs/guidance.md")
	require.NoError(t, err)
	written := map[guidance][]string{}
	station := ""
	for line := range strings.Lines(string(text)) {
		if name, is := strings.CutPrefix(strings.TrimSpace(line), "## "); is {
			station = strings.ToLower(strings.TrimSuffix(strings.Fields(name)[0], ":"))
		}
		cells := strings.Split(strings.Trim(strings.TrimSpace(line), "|"), " | ")
		if len(cells) != 3 || strings.HasPrefix(cells[0], "---") || cells[0] == " asked" {
			continue
		}
		said, why, of := strings.TrimSpace(cells[0]), strings.TrimSpace(cells[1]), strings.TrimSpace(cells[2])
		assert.NotEmpty(t, why, said)
		written[guidance{station, said}] = strings.Split(of, ", ")
	}
	said := saidOf(t)
	for g, families := range said {
		assert.Equal(t, families, written[g], "%s: %q", g.station, g.text)
	}
	for g := range written {
		assert.NotEmpty(t, said[g], "%s: no family says %q", g.station, g.text)
	}
}

// belongs says of words of the trade which units they belong to, written from the thing: what has no gears is not
// told of teeth, what has no case of no drain.
var belongs = []struct {
	words string // as they stand in guidance
	units string // what a unit has: @kind of part, part, assembly or action; one of them
}{
	{`teeth|mesh freely`, "@gear_shaft @gerotor @ring_gear"},
	{`gears?\b`, "@gear_shaft @gerotor @ring_gear"},
	{`vanes?\b`, "@vanes"},
	{`needles\b|stuck in with grease`, "@needles"},
	{`slippers?`, "@piston_set"},
	{`case drain|drain valves|drain line|upper drain`, "@barrel @piston_set @piston gear_pump_with_valve"},
	{`case flow`, "@barrel @piston_set"},
	{`shaft seal|taped or sleeved shaft`, "@lip_seal"},
	{`\brod\b`, "@rod gear_pump_with_valve"}, // its load hangs on a cylinder
	{`\bram\b`, "ram_end return_spring"},
	{`stages? `, "stage_1 gas_stage"},
	{`pedal|brake fluid`, "keyhole_pin circlip"},
	{`suction|inlet valve|primed|prime\b`, "pump suction_strainer"},
	{`arrow|jog`, "pump motor outlet_filter inlet_fitting"},
	{`wheels|full lock|axle`, "axle_gears land_seals"},
	{`test load|drum|release`, "disc_springs"},
	{`gas\b`, "gas_stage"},
	{`drops|strokes of each|injector`, "plunger"},
	{`spool`, "@spool"},
	{`disc\b|discs\b`, "@disc_valve"},
	{`key\b|keyway`, "@key @pin"},
	{`splines?`, "@gear_shaft @rod"},
	{`cup\b`, "circlip keyhole_pin"},
	{`barrel`, "@barrel @tube"},
	{`bubbles|bled|bleed`, "cylinder valve motor cam_piston_pump plunger"},
	{`gasket`, "@gasket"},
	{`shims?\b|shimmed`, "@shims @bearing"},
}

// No line of guidance speaks of another kind of unit.
func TestNoGuidanceSpeaksOfAnotherKindOfUnit(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	met := map[string]bool{}
	all := saidOf(t)
	for _, code := range slices.Sorted(maps.Keys(lib)) {
		for _, test := range lib[code].Tests {
			g := guidance{"prove", test.Name + "; " + test.How}
			all[g] = append(all[g], code)
		}
	}
	for g, families := range all {
		for _, b := range belongs {
			if !regexp.MustCompile(`(?i)\b(?:` + b.words + `)`).MatchString(g.text) {
				continue
			}
			met[b.words] = true
			for _, code := range families {
				f := lib[code]
				of := func(what string) bool { return what == code || what == f.Action || has(f)(what) }
				assert.True(t, slices.ContainsFunc(strings.Fields(b.units), of), "%s is told: %s", code, g.text)
			}
		}
	}
	for _, b := range belongs {
		if b.words != `barrel` && b.words != `slippers?` && b.words != `gasket` {
			assert.True(t, met[b.words], "%s stands in no guidance: the rule tries nothing", b.words)
		}
	}
}

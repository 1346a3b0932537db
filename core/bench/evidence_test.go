package bench_test

import (
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/bench/benchtest"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/shop"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// written is a unit of a family with values typed in their fields, told as "field: value".
func written(t *testing.T, code string, values ...string) *bench.State {
	t.Helper()
	j := benchtest.Job(t, code)
	b := benchtest.Basis(t, j)
	s := &entry.Shop{Family: b.Catalog.Families, Tools: shop.Instruments{}, Who: "Iva", Now: time.Now()}
	for _, v := range values {
		field, text, _ := strings.Cut(v, ": ")
		ref, err := unit.ParseRef(field)
		require.NoError(t, err, field)
		place, f, err := entry.Resolve(j, ref, s)
		require.NoError(t, err, field)
		require.NoError(t, place.Write(f, text), v)
	}
	return benchtest.State(t, j)
}

// found is what is known of an evidence of a unit: seen, absent, or "" where nobody told.
func found(st *bench.State, code string) (state, source string) {
	for _, f := range st.Findings {
		if f.Code == code {
			return explain.Told(f.Strength), st.Sources[code]
		}
	}
	return "", ""
}

// Whatever is written down at a station is evidence at once, in the direction it points, with where it was seen; and
// what was not tried, not known or not looked at is nothing.
func TestWhatIsWrittenDownIsEvidence(t *testing.T) {
	for _, c := range []struct {
		name, family string
		values       []string
		evidence     string
		state        string
		source       string
	}{
		{"a spool that came out by force", "directional_spool_valve", []string{"u1/part/spool/off: yes",
			"u1/part/spool/stuck: stuck"}, "came_stuck", "seen", "came off stuck"},
		{"and is not for that stuck in service", "axial_piston_pump", []string{"u1/part/control_spool/off: yes",
			"u1/part/control_spool/stuck: stuck"}, "control_stuck", "", ""},
		{"seized is", "axial_piston_pump", []string{"u1/part/control_spool/off: yes",
			"u1/part/control_spool/stuck: seized"}, "control_stuck", "seen", "control spool: seized or stuck"},
		{"what came freely is none", "directional_spool_valve", []string{"u1/part/spool/off: yes",
			"u1/part/spool/stuck: free"}, "came_stuck", "absent", "came off freely"},
		{"what nobody noted is nothing", "directional_spool_valve", []string{"u1/part/spool/off: yes"}, "came_stuck",
			"",
			""},
		{"a cap that was loose", "axial_piston_pump", []string{"u1/part/control_cap/mark/loose/state: seen"},
			"adjuster_backed", "seen", "control cap: loose"},
		{"a passage blocked", "cam_piston_pump", []string{"u1/part/block/mark/blocked/state: seen"}, "passage_blocked",
			"seen", "passage blocked"},
		{"one dead at the baseline", "bent_axis_pump", []string{"u1/attempt/0/point/pulse/word: one dead"}, "one_dead",
			"seen", "as received: one dead"},
		{"even at the baseline", "bent_axis_pump", []string{"u1/attempt/0/point/pulse/word: even"}, "one_dead",
			"absent",
			"as received: even"},
		{"stiff at the baseline", "external_gear_pump", []string{"u1/attempt/0/point/hand_turn/word: stiff"},
			"told_drive_stiff", "seen", "as received: stiff"},
		{"a load that crept at the baseline", "directional_spool_valve", []string{
			"u1/attempt/0/point/hold/word: creeps"}, "drifts", "seen", "as received: creeps"},
		{"the caller's word stands beside a bench that held", "directional_spool_valve", []string{
			"job/symptom/drifts: yes", "u1/attempt/0/point/hold/word: holds"}, "drifts", "seen", "complaint"},
		{"a plate that came out the wrong way round", "external_gear_pump", []string{"u1/part/rear_plate/off: yes",
			"u1/part/rear_plate/facing: steel to the gears"}, "part_turned", "seen", "came out steel to the gears"},
		{"a back-up ring that was never there", "cartridge_vane_pump", []string{
			"u1/part/plate_backup/absent: was never fitted"}, "backup_missing", "seen", "was never fitted"},
		{"a drum out of square", "piston_pump_with_cartridge", []string{
			"u1/part/aux_drum/feature/square/found/v1: 0.12 mm"}, "drum_off_square", "seen", "out of its limits"},
		{"a drum that is square", "piston_pump_with_cartridge", []string{
			"u1/part/aux_drum/feature/square/found/v1: 0.02 mm"}, "drum_off_square", "absent", "within"},
		{"nothing was run at the baseline", "external_gear_pump", nil, "bench_good", "", ""},
		{"stiff at the baseline, and so not good", "external_gear_pump", []string{
			"u1/attempt/0/point/hand_turn/word: stiff"}, "bench_good", "absent", "as received: out"},
		{"not tried", "external_gear_pump", []string{"u1/gauge/new_unit: " + family.NotTried}, "new_pump_same", "", ""},
		{"asked: the same", "external_gear_pump", []string{"u1/gauge/new_unit: same"}, "new_pump_same", "seen",
			"asked at the machine"},
		{"what came into the sump", "external_gear_pump", []string{"u1/gauge/gained_what: fuel"}, "fuel_smell", "seen",
			"asked at the machine"},
	} {
		st := written(t, c.family, c.values...)
		state, source := found(st, c.evidence)
		assert.Equal(t, c.state, state, c.name)
		assert.Contains(t, source, c.source, c.name)
	}
}

// No complaint and no finding is a result; it holds only as long as nothing is told or seen.
func TestNothingToExplainIsAResult(t *testing.T) {
	open := func(values ...string) string {
		for _, s := range written(t, "external_gear_pump", values...).Stops["explain"] {
			if s.Kind == unit.StopConclusion {
				return s.Text
			}
		}
		return ""
	}
	assert.Contains(t, open(), "No conclusion")
	assert.Empty(t, open("u1/conclusion/cause: no_finding"))
	assert.Contains(t, open("u1/conclusion/cause: no_finding", "job/symptom/noisy: yes"), "found: noisy")
	assert.Contains(t, open("u1/conclusion/cause: no_finding", "u1/part/rear_plate/mark/heat_colours/state: seen"),
		"nothing to explain; found")
}

// Whatever evidence is tied to is there in some family, or in one of its variants: no tie that never speaks.
func TestEveryTieIsToSomething(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	base, err := explain.Shipped()
	require.NoError(t, err)
	there, tied := map[string]bool{}, map[string]string{}
	for _, f := range lib.List() {
		all := []*family.Family{f}
		for _, v := range f.VariantRules {
			one, err := f.As(v.Code, nil)
			require.NoError(t, err)
			all = append(all, one)
		}
		for _, one := range all {
			for i := range one.Parts {
				there["part "+one.Parts[i].Code], there["part @"+one.Parts[i].Kind] = true, true
				for _, ft := range one.Parts[i].Features {
					there["feature "+one.Parts[i].Code+"."+ft.Code] = true
				}
			}
			for i := range one.Tests {
				if step := &one.Tests[i]; step.Received {
					there["step "+step.Code] = true
					for _, w := range step.Words {
						there["word "+step.Code+"="+w] = true
					}
				}
			}
		}
		for i := range base.For(f.Code).Evidence {
			e := &base.For(f.Code).Evidence[i]
			for _, from := range e.Froms() {
				for _, to := range tiesOf(from) {
					tied[to] = f.Code + " " + e.Code
				}
			}
		}
	}
	for to, of := range tied {
		assert.True(t, there[to], "%s: %s", of, to)
	}
}

// tiesOf are what an evidence's place names.
func tiesOf(from explain.From) (out []string) {
	add := func(kind, name string) {
		if name != "" && name != "*" {
			out = append(out, kind+" "+name)
		}
	}
	of := func(p *explain.PartOf) {
		if p != nil {
			name, _ := p.MarshalText()
			add("part", string(name))
		}
	}
	step, _, _ := strings.Cut(from.Step, "=")
	add("step", step)
	add("step", from.Efficiency)
	if from.Word.Asked() {
		add("word", from.Word.String())
	}
	for _, path := range []string{from.Off.Path, from.Used, from.Grade, from.Odd} {
		add("feature", path)
	}
	of(from.Stuck)
	of(from.Never)
	of(from.Facing)
	if from.Mark != nil {
		of(&from.Mark.PartOf)
	}
	add("part", from.Missing)
	return out
}

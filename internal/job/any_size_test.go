package job_test

import (
	"testing"

	"corvek/core/build"
	"corvek/core/metrology"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// own types values into the first unit of a job as people type them.
func own(t *testing.T, s *job.Service, tag string, values ...[2]string) {
	t.Helper()
	for _, v := range values {
		put(t, s, tag, "u1/"+v[0], v[1])
	}
}

// A small pump in inch, with leaves in thou: its shaft of 0.750 in is healthy by its own unworn place, its gear of
// 1 in leaves 1 to 2 thou beside it, and its bolts are 1/2-13 of grade 5.
func TestASmallInchPumpIsJudgedByItsOwnSizes(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	own(t, s, tag,
		[2]string{"part/drive_gear/feature/journal/new_low", "0.7500 in"},
		[2]string{"part/drive_gear/feature/journal/new_from", "unworn"},
		[2]string{"part/drive_gear/feature/journal/found/r1c1", "0.7498 in"},
		[2]string{"part/drive_gear/feature/journal/found/r1c2", "0.7499 in"},
		[2]string{"part/drive_gear/feature/journal/found/r2c1", "0.7498 in"},
		[2]string{"part/drive_gear/feature/journal/found/r2c2", "0.7498 in"},
		[2]string{"part/drive_gear/feature/width/found/v1", "1.000 in"},
		[2]string{"part/rear_plate/feature/side_clearance/measured", "total"},
		[2]string{"part/rear_plate/feature/side_clearance/found/leaf:3 thou", "goes"},
		[2]string{"part/rear_plate/feature/side_clearance/found/leaf:4 thou", "stops"},
		[2]string{"part/cover_bolts/thread", "1/2-13 UNC"}, [2]string{"part/cover_bolts/class", "grade_5"})
	st := load(t, s, tag)
	journal := st.ByCode["drive_gear"].Features[0]
	assert.Equal(t, metrology.In, journal.Found.Verdict)
	assert.InDelta(t, 0.2/0.75, journal.Found.Used, 1e-6, "0.2 of the 0.75 thou that may be worn")
	assert.Empty(t, journal.Found.Questioned)
	side := st.ByCode["rear_plate"].Features[0].Found
	assert.Equal(t, metrology.In, side.Verdict)
	assert.InDelta(t, 1*25.4e-6, side.Limits.Lower, 1e-12)
	assert.InDelta(t, 4*25.4e-6, side.Limits.Upper, 1e-12)
	bolts := st.ByCode["cover_bolts"]
	j, bolted := build.JointOf(bolts.Def, bolts.Part.Joint)
	require.True(t, bolted)
	tight, err := build.Tighten(j)
	require.NoError(t, err)
	// 0.1419 in² = 91.55 mm² at 85 ksi: 0.75 · 53.65 kN = 40.24 kN; 0.15 · 12.7 mm · F.
	assert.InDelta(t, 76.66, tight.Torque, 0.1)
}

// A big cylinder of 320 H8 with a rod of 200 f7: out above H10, 320.230 mm, and below f9, 199.835 mm.
func TestABigCylinderIsJudgedByItsOwnSizes(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "double_acting_cylinder")
	set := func(name, value string) { put(t, s, tag, name, value) }
	own(
		t,
		s,
		tag,
		[2]string{
			"part/tube/feature/bore/new_low",
			"320.000 mm",
		},
		[2]string{"part/tube/feature/bore/new_high", "320.089 mm"},
		[2]string{"part/tube/feature/bore/new_from", "drawing"},
		[2]string{"part/rod/feature/diameter/new_low", "199.904 mm"},
		[2]string{"part/rod/feature/diameter/new_high", "199.950 mm"},
		[2]string{"part/rod/feature/diameter/new_from", "drawing"},
		[2]string{"part/rod/feature/span/found/v1", "2400 mm"},
		[2]string{"part/rod/feature/runout/found/v1", "1.8 mm"},
	)
	for _, slot := range []string{"r1c1", "r1c2", "r2c1", "r2c2", "r3c1", "r3c2", "r4c1", "r4c2"} {
		set("u1/part/tube/feature/bore/found/"+slot, "320.15 mm")
		set("u1/part/rod/feature/diameter/found/"+slot, "199.90 mm")
	}
	verdicts := func() map[string]metrology.Verdict {
		out := map[string]metrology.Verdict{}
		st := load(t, s, tag)
		for _, code := range []string{"tube", "rod"} {
			for _, f := range st.ByCode[code].Features {
				out[f.Path()] = f.Found.Verdict
				assert.Empty(t, f.Found.Questioned, f.Path())
			}
		}
		return out
	}
	is := verdicts()
	assert.Equal(t, metrology.In, is["tube.bore"])
	assert.Equal(t, metrology.In, is["rod.diameter"])
	assert.Equal(t, metrology.In, is["rod.runout"], "up to 2.4 mm of swing over 2.4 m")
	set("u1/part/tube/feature/bore/found/r3c1", "320.28 mm")
	assert.Equal(t, metrology.Out, verdicts()["tube.bore"])
}

// A brake with its own plates and springs holds what follows from them: plates of 150 on 100 mm have a mean
// radius of 63.33 mm at even pressure, so 10 faces at 0.12 hold 76.0 N·m a kN.
func TestABrakeHoldsByItsOwnPlatesAndSprings(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "winch_brake_pack")
	set := func(name, value string) { put(t, s, tag, name, value) }
	st := load(t, s, tag)
	own(
		t,
		s,
		tag,
		[2]string{
			"part/plates/feature/outer/found/v1",
			"150 mm",
		},
		[2]string{"part/plates/feature/inner/found/v1", "100 mm"},
		[2]string{"part/plates/friction_source", "lining sheet 7"},
		[2]string{"part/plates/stack_found", st.ByCode["plates"].Stack.Def.As},
		[2]string{"part/disc_springs/spring_outside", "90 mm"},
		[2]string{"part/disc_springs/spring_inside", "46 mm"},
		[2]string{"part/disc_springs/spring_thickness", "3 mm"},
		[2]string{"part/disc_springs/spring_cone", "2.5 mm"},
		[2]string{"part/disc_springs/stack_found", st.ByCode["disc_springs"].Stack.Def.As},
	)
	carries := func() (float64, bool) {
		st = load(t, s, tag)
		return st.Carries(partOf(t, st, "plates"), false)
	}
	_, ok := carries()
	assert.False(t, ok, "neither its friction nor the height of its springs is known")
	set("u1/part/plates/friction", "0.12")
	set("u1/part/disc_springs/stack_space", "29 mm")
	torque, ok := carries()
	require.True(t, ok)
	force := st.ByCode["disc_springs"].Stack.FoundDoes.Force
	require.Positive(t, force)
	assert.InDelta(t, 0.0760, torque/force, 1e-4)
}

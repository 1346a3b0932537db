package wording

import (
	"testing"
	"time"

	"corvek/core/family"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every kind of address says in words what it stands for; one that leads nowhere
// any more stays as it is.
func TestWhereAValueStands(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	families := func(u *unit.Unit) *family.Family { return lib[u.Family] }
	now := time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC)
	j := &unit.Job{Units: []*unit.Unit{unit.New(lib["external_gear_pump"], 1, "Iva", now)}}
	u := j.Units[0]
	u.AddPiece("K-1", "ring", 1, "")
	for _, c := range [][2]string{
		{"job/title", "Title"},
		{"u1/speed", "Speed"},
		{"u1/gauge/inlet", "Asked at the machine: inlet"},
		{"u1/part/rear_plate/found", "Rear side plate, found"},
		{"u1/part/rear_plate/feature/side_clearance/found/leaf:7 thou",
			"Rear side plate, side clearance, leaf 7 thou as found"},
		{"u1/part/front_cover/feature/bush_bore/built/r2c1",
			"Front cover, needle track bore, row 2, column 1 after the work"},
		{"u1/part/rear_plate/decision/reason", "Rear side plate, decision, reason"},
		{"u1/part/rear_plate/step/torque", "Rear side plate, fitting, tightened to"},
		{"u1/evidence/milky_oil/state", "Mark milky oil, seen or absent"},
		{"u1/conclusion/cause", "Conclusion, root cause"},
		{"u1/piece/1/place", "Kit piece 1, belongs to"},
		{"u1/part/wing/found", "u1/part/wing/found"},
		{"reading.131.found/grade", "reading.131.found/grade"},
		{"", ""},
	} {
		assert.Equal(t, c[1], Where(j, families, c[0]), c[0])
	}
	j.Units = append(j.Units, unit.New(lib["check_valve"], 2, "Iva", now))
	j.Units[1].Name = "Øvre valve"
	assert.Contains(t, Where(j, families, "u2/serial"), "Øvre valve, ")
}

package kit_test

import (
	"testing"

	"corvek/core/kit"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestRubberInTheFluidOfTheJob(t *testing.T) {
	for _, c := range []struct {
		fluid, material, want string
		hot                   float64
	}{
		{"mineral oil VG 46", "NBR", "suitable", 60}, {"mineral oil VG 46", "epdm", "unsuitable", 60},
		{"brake fluid DOT 4", "NBR", "unsuitable", 40}, {"brake fluid DOT 4", "EPDM", "suitable", 40},
		{"HFC water-glycol", "PU", "unsuitable", 40}, {"vegetable ester", "FKM", "suitable", 60},
		{"mineral oil VG 46", "NBR", "unsuitable", 120}, {"mineral oil VG 46", "NBR", "limited", 95},
	} {
		f, ok := kit.Setting{Fluid: c.fluid, Temperature: c.hot, HasTemperature: true}.Bears(c.material)
		require.True(t, ok, c)
		assert.Equal(t, c.want, f.Verdict, c)
		assert.Equal(t, c.want == "unsuitable", f.Stops)
		assert.NotEmpty(t, f.Steps)
	}
	_, ok := kit.Setting{Fluid: "something green"}.Bears("NBR")
	assert.False(t, ok, "nothing is said of a fluid that the table does not know")
}

// ISO 2230: NBR keeps seven years from the last day of its quarter, and three more after a look.
func TestAgeOnTheDay(t *testing.T) {
	for today, want := range map[string]string{"2031-06-30": "good", "2031-07-01": "extend", "2034-06-30": "extend",
		"2034-07-01": "expired"} {
		f, ok := kit.Setting{Today: today}.Age("NBR", "2024-Q2", false)
		require.True(t, ok)
		assert.Equal(t, want, f.Verdict, today)
		assert.Equal(t, want == "expired", f.Stops)
	}
	_, ok := kit.Setting{Today: "2031-06-30"}.Age("PTFE", "2024-Q2", false)
	assert.False(t, ok, "PTFE does not age")
}

func TestMixedRubbers(t *testing.T) {
	brake := kit.Setting{Fluid: "DOT 4 brake fluid"}
	assert.Contains(t, brake.Mixed([]string{"EPDM", "SBR", ""}), "EPDM and SBR")
	assert.Contains(t, brake.Mixed([]string{"EPDM"}), "EPDM swells in mineral oil")
	assert.Empty(t, kit.Setting{Fluid: "mineral oil"}.Mixed([]string{"NBR", "FKM"}))
	assert.Empty(t, kit.Setting{}.Mixed([]string{"EPDM", "NBR"}))
}

func mm(text string) quantity.Quantity {
	q, err := quantity.Parse(text, quantity.Length)
	if err != nil {
		panic(err)
	}
	return q
}

// A ring is found by inside and section, a lip seal by shaft and bore; the outside of a removed
// one is not the bore.
func TestSizesFoundFromWhatWasMeasured(t *testing.T) {
	assert.Contains(t, kit.Sizes(unit.Seal{Inside: mm("24.99 mm"), Section: mm("3.53 mm")}, 3), "AS568 -214")
	lips := kit.Sizes(unit.Seal{Shaft: mm("20 mm"), Bore: mm("35 mm"), Width: mm("7 mm")}, 1)
	require.Len(t, lips, 1)
	assert.Contains(t, lips[0], "20 x 35 x 7")
	assert.Equal(t, lips, kit.Sizes(unit.Seal{Shaft: mm("20 mm"), Outside: mm("35.1 mm"), Width: mm("7 mm")}, 1))
	assert.Empty(t, kit.Sizes(unit.Seal{Inside: mm("24.99 mm")}, 3))
}

// A rubber that does not suit, and a piece that was tried and does not go in, are open; one
// that is off its place needs no other reason.
func TestCheckOfPiecesThatDoNotSuit(t *testing.T) {
	places := []kit.Slot{{Part: "seal", Name: "Outer seal", Need: 1}}
	issues := kit.Check(places, []kit.Piece{{Number: 1, Count: 1, Place: "seal",
		Faults: []string{"swells", "too old"}}})
	require.Len(t, issues, 2)
	assert.True(t, issues[0].Seal)
	issues = kit.Check(places, []kit.Piece{{Number: 1, Count: 1, Place: "seal", Unfit: "too tight"}})
	require.Len(t, issues, 1)
	assert.Equal(t, 1, issues[0].Piece)
	assert.Empty(t, kit.Check(nil, []kit.Piece{{Number: 1, Count: 1, Place: "seal", Unfit: "too tight"}}))
}

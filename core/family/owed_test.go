package family_test

import (
	"slices"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/order"
	"corvek/core/quantity"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pumps, motors and the rest each owe what a rebuilt one must be able to: written here once more,
// by hand, so that no line is lost from the data.
var owedBy = map[string]string{
	"axial_piston_motor":         "turns runs slips starts case_low tight",
	"axial_piston_pump":          "turns runs delivers case_low tight controls",
	"bent_axis_unit":             "turns runs slips starts even case_low tight",
	"bent_axis_pump":             "turns runs delivers even case_low tight",
	"cam_piston_pump":            "turns first draws delivers even tight",
	"cartridge_vane_pump":        "turns runs delivers tight",
	"check_valve":                "opens holds tight",
	"directional_spool_valve":    "shifts holds tight",
	"double_acting_cylinder":     "moves tight holds stays",
	"external_gear_pump":         "turns runs delivers tight relief",
	"flow_divider":               "divides tight",
	"gas_booster":                "cycles holds stalls ratio vents",
	"gear_pump_with_valve":       "turns draws runs delivers stays tight divert",
	"gerotor_pump":               "turns draws runs delivers tight",
	"hydrostatic_axle":           "turns runs neutral pulls free tight sumps",
	"injector_lubricator":        "meters tight",
	"intensifier_ram":            "cycles multiplies stroke holds tight home by_hand",
	"internal_gear_pump":         "turns runs delivers relief tight",
	"lubricator_pump":            "meters tight",
	"master_cylinder":            "firm holds back tight first",
	"piston_pump_with_cartridge": "turns runs delivers case_low feed tight controls",
	"priority_valve":             "first rest tight",
	"radial_piston_motor":        "turns runs slips starts case_low tight",
	"relief_valve":               "opens reseats tight",
	"side_shimmed_gear_pump":     "turns draws runs delivers tight",
	"single_acting_cylinder":     "moves lifts stays home tight",
	"slave_cylinder":             "firm moves holds back tight",
	"split_flow_piston_pump":     "turns runs delivers case_low shares tight controls",
	"spool_divider":              "divides tight",
	"telescopic_cylinder":        "moves order lifts stays home tight",
	"vane_pump":                  "turns runs delivers control tight",
	"winch_brake_pack":           "releases grips drags pulls tight",
}

func TestWhatEachFamilyOwes(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	require.Len(t, lib, len(owedBy))
	for code, want := range owedBy {
		var got []string
		shown := map[string]bool{}
		for _, o := range lib[code].Owes {
			got = append(got, o.Code)
			for _, step := range o.By {
				shown[step] = true
			}
		}
		assert.ElementsMatch(t, strings.Fields(want), got, code)
		for _, step := range lib[code].Tests {
			assert.True(t, shown[step.Code], "%s %s: no claim speaks of it", code, step.Code)
		}
	}
}

// No limit of a test is one figure for every size: sizes, flows, forces and pressures are held
// against what this unit is and what its job needs. Times of a hold, temperatures and counts are no
// sizes.
func TestNoTestLimitIsOneFigureForAllSizes(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	sizes := []quantity.Dimension{quantity.Flow, quantity.Pressure, quantity.Length, quantity.Force, quantity.Torque,
		quantity.Volume, quantity.Time}
	limits := 0
	for code, f := range lib {
		for _, step := range f.Tests {
			for _, r := range step.Reads {
				if r.Least == "" && r.Most == "" {
					continue
				}
				limits++
				g, _ := family.FigureByCode(r.Figure)
				assert.False(t, slices.Contains(sizes, g.Dim) && !r.Relative(), "%s %s: %s", code, step.Code, r.Figure)
			}
		}
	}
	assert.Greater(t, limits, 60)
}

// A claim names steps that there are and needs that a job knows; what stands in whose way and a rule hold only among
// what the family has.
func TestClaimsOrdersAndRulesAreStrict(t *testing.T) {
	const head = "code: x\nname: X\naction: valve\nparts:\n" +
		"  - {code: cap, name: Cap, kind: cover}\n" +
		"  - {code: ball, name: Ball, kind: ball, features: [{code: d, name: D,\n" +
		"      method: value, wears: shaft,\n" +
		"      rule: {fit: h6, out: \"0.1 %\", basis: shop practice}}]}\n" +
		"order: {behind: [[cap, ball]]}\n" +
		"tests: [hand_turn, leak_watch]\n"
	f, err := family.Load("x.yaml", []byte(head+"owes: [turns, {as: tight, says: dry all round}]\n"))
	require.NoError(t, err)
	require.Len(t, f.Owes, 2)
	assert.Equal(t, "dry all round", f.Owes[1].Says)
	assert.Equal(t, []string{"leak_watch"}, f.Owes[1].By)
	o, err := f.Ordered([]*family.Part{&f.Parts[0], &f.Parts[1]})
	require.NoError(t, err)
	assert.Equal(t, []string{"cap"}, o.InWay(order.Set{"cap": true, "ball": true}, "ball"))

	for add, says := range map[string]string{
		"owes: [delivers]\n":                                  "there is no step \"p50\"",
		"owes: [nothing]\n":                                   "no shared claim",
		"owes: [turns, turns]\n":                              "there twice",
		"owes: [{code: a, says: b}]\n":                        "no step of the test shows it",
		"owes: [{code: a, by: [hand_turn]}]\n":                "what it says",
		"owes: [{code: a, says: b, by: [complaint]}]\n":       "there is no step",
		"owes: [{as: turns, needs: [weather]}]\n":             "nothing that a job needs",
		"owes: [{as: turns, level: high}]\n":                  "is not known here",
		"owes: [{code: complaint, says: b, by: [prime]}]\n":   "written for each job",
		"leaks: [{name: a, feature: ball.d, shape: plane}]\n": "gap_share",
	} {
		_, err := family.Load("x.yaml", []byte(head+add))
		assert.ErrorContains(t, err, says, add)
	}
	for from, to := range map[string][2]string{
		"[[cap, ball]]":           {"[[cap, seat]]", "no part or assembly \"seat\""},
		"{behind: [[cap, ball]]}": {"{behind: [[cap, ball], [ball, cap]]}", "keep one another in"},
		"{behind: [[cap, ball]]":  {"{before: [[cap, ball]]", "is not known here"},
		"behind: [[cap, ball]]":   {"behind: [cap, ball]", "from the outside in"},
		"fit: h6":                 {"fit: hh66", "no tolerance"},
		"basis: shop practice":    {"times: 2", "says on what it stands"},
		"out: \"0.1 %\"":          {"of: cap.d", "which there is not"},
		"fit: h6, ":               {"fits: h6, ", "is not known here"},
	} {
		_, err := family.Load("x.yaml", []byte(strings.Replace(head, from, to[0], 1)))
		assert.ErrorContains(t, err, to[1], to[0])
	}
}

// A family that names no claims owes each step of its test, so that older files prove no less.
func TestAFamilyWithoutClaimsOwesItsTest(t *testing.T) {
	f, err := family.Load("x.yaml", []byte("code: x\nname: X\naction: valve\nparts:\n"+
		"  - {code: ball, name: Ball, kind: ball}\ntests: [hand_turn, leak_watch]\n"))
	require.NoError(t, err)
	require.Len(t, f.Owes, 2)
	assert.Equal(t, []string{"hand_turn"}, f.Owes[0].By)
	assert.Equal(t, []string{"leak_watch"}, f.Owes[1].By)
}

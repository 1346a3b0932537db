package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// entered is something typed or tapped at one page of a new unit.
type entered struct{ field, value string }

// heard is what another page says of it at once. A page that starts with "no " must
// not say so.
type heard struct{ page, words string }

// alone lets a unit be opened that came in without its machine: nobody can be asked.
var alone = entered{"u1/not_asked", "came in without its machine"}

// What is entered at one page is heard by all the others at once, each row of what
// the product promises; nothing else is written in between.
func TestWhatIsEnteredOnceIsHeardEverywhere(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	for _, row := range []struct {
		name, family string
		enter        []entered
		hear         []heard
	}{
		{"a symptom", "axial_piston_pump", []entered{{"job/symptom/weak_hot", "yes"}}, []heard{
			{"explain", "Weak when hot"}, {"no explain", "no cause is made up"},
			{"prove", "The complaint: weak when hot"}, {"prove", "as hot as on the machine"},
			{"report", "weak when hot"}, {"no report", "No complaint"},
		}},
		{"a gauge answer that points elsewhere", "external_gear_pump", []entered{{"u1/gauge/inlet", "choked"}}, []heard{
			{"receive", "it starves; mend the inlet and try again"}, {"strip", "ELSEWHERE"},
			{"strip", "Look there first"}, {"explain", "asked at the machine"}, {"report", "it starves"},
		}},
		{"a gauge answer that clears it", "vane_pump", []entered{{"u1/gauge/new_unit", "same"}}, []heard{
			{"receive", "CLEARED"}, {"strip", "Do not open"},
			{"explain", "asked at the machine"}, {"report", "cleared"},
		}},
		{"water in the drained oil", "external_gear_pump", []entered{{"u1/drained_look", "milky"},
			{"u1/water", "2 L"}, {"u1/drained", "60 L"}, {"u1/capacity", "80 L"}}, []heard{
			{"explain", "drained: milky"}, {"explain", "Water"}, {"no explain", "no cause is made up"},
			{"start-up-card", "does not go back in"}, {"report", "milky, 2 L of water in it"},
		}},
		{"another sump that gained", "external_gear_pump", []entered{{"u1/gained_elsewhere", "5 L"}}, []heard{
			{"explain", "another sump gained 5 L"}, {"report", "5 L gained by another sump"},
			{"handover", "sump that gained"}, {"start-up-card", "sump"},
		}},
		{"the variant", "external_gear_pump", []entered{{"u1/model", "TQ32-R1"}, {"u1/variant", "One shaft seal"}},
			[]heard{
				{"strip", "One shaft seal"}, {"no build", "Outer shaft seal"}, {"no kit", "Outer shaft seal"},
				{"no decide", "Outer shaft seal"}, {"kit", "seal kit with one shaft seal"},
				{"report", "not on this unit"}, {"report", "Outer shaft seal"},
			}},
		{"a part that is not on this unit", "external_gear_pump", []entered{
			{"u1/part/relief_spring/absent", "this casting has none"}}, []heard{
			{"strip", "not on this unit"}, {"no measure", "Relief spring"}, {"no decide", "Relief spring"},
			{"no kit", "Relief spring"}, {"no build", "Relief spring"}, {"report", "this casting has none"},
		}},
		{"another number of pieces", "external_gear_pump", []entered{alone, {"u1/part/front_needles/off", "yes"},
			{"u1/part/front_needles/found", "33"}}, []heard{
			{"strip", "33 of 34"}, {"explain", "1 not found"}, {"decide", "Front needles"},
			{"report", "33 of 34"},
		}},
		{"pieces of a broken part", "axial_piston_pump", []entered{alone, {"u1/part/retainer/off", "yes"},
			{"u1/part/retainer/found", "0"}, {"u1/part/retainer/bits", "3"}, {"u1/part/retainer/bits_make", "1"}},
			[]heard{
				{"explain", "Retainer plate broken"}, {"decide", "broken"}, {"kit", "Retainer plate"},
				{"handover", "flush"}, {"report", "broken"},
			}},
		{"a spool that was seized", "axial_piston_pump", []entered{alone, {"u1/part/control_spool/off", "yes"},
			{"u1/part/control_spool/stuck", "seized"}}, []heard{
			{"explain", "seized"}, {"decide", "seized"},
			{"build?part=control_spool", "Move it by hand through its whole way"}, {"report", "seized"},
		}},
		{"a mark on a part", "axial_piston_pump", []entered{{"u1/part/retainer/mark/cracked/state", "seen"}}, []heard{
			{"measure", "cracked"}, {"decide", "cracked"}, {"kit", "Retainer plate"}, {"explain", "cracked"},
			{"report", "cracked"},
		}},
		{"a clearance", "external_gear_pump", []entered{{"u1/displacement", "32 cc/rev"}, {"u1/speed", "1450 rpm"},
			{"u1/duty_pressure", "175 bar"}, {"u1/viscosity", "46 cSt"},
			{"u1/part/drive_gear/feature/tip/found/v1", "45 mm"},
			{"u1/part/body/feature/tip_clearance/measured", "total"},
			{"u1/part/drive_gear/feature/width/found/v1", "35 mm"},
			{"u1/part/drive_gear/feature/tip_land/found/v1", "16 mm"},
			{"u1/part/body/feature/tip_clearance/found/leaf:6 thou", "goes"},
			{"u1/part/body/feature/tip_clearance/found/leaf:7 thou", "goes"},
			{"u1/part/body/feature/tip_clearance/found/leaf:8 thou", "stops"}}, []heard{
			{"measure?part=body", "OUT"}, {"decide", "tip clearance"}, {"explain", "of the wear limit"},
			{"prove", "Tip clearance"}, {"report", "0.178 mm to under 0.203 mm"},
		}},
		{"a stack as removed", "winch_brake_pack", []entered{{"u1/part/disc_springs/stack_found",
			"disc> disc< disc> disc< disc> disc< disc> disc<"}}, []heard{
			{"strip?part=disc_springs&face=stack", "dished spring at place 2 is turned over"},
			{"explain", "stack as removed"},
			{"build?part=disc_springs", "as removed"}, {"report", "as removed: 8 pieces: disc> disc<"},
			{"report", "removed against what belongs"},
		}},
		{"a concluded cause", "external_gear_pump", []entered{{"u1/evidence/fine_lines/state", "seen"},
			{"u1/conclusion/cause", "contamination"}, {"u1/conclusion/action", "Flush the tank"},
			{"u1/conclusion/owner", "the mill"}}, []heard{
			{"decide", "Hard dirt in the oil"}, {"start-up-card", "Flush the tank"}, {"report", "Hard dirt in the oil"},
			{"handover", "Flush the tank"}, {"prove", "Hard dirt in the oil"},
		}},
		{"a decision", "external_gear_pump", []entered{{"u1/part/drive_gear/decision/choice", "replace"},
			{"u1/part/drive_gear/decision/reason", "customer wants it"}}, []heard{
			{"kit", "Drive gear and shaft"}, {"build", "new"}, {"report", "customer wants it"},
		}},
	} {
		t.Run(row.name, func(t *testing.T) {
			tag := b.newJob(row.family)
			for _, e := range row.enter {
				res, body := b.set(tag, e.field, e.value, "")
				require.Equal(t, http.StatusOK, res.StatusCode, "%s: %s", e.field, body)
			}
			for _, c := range row.hear {
				page, not := strings.CutPrefix(c.page, "no ")
				_, body := b.get("/jobs/" + tag + "/" + page)
				if not {
					assert.NotContains(t, plain(body), c.words, page)
				} else {
					assert.Contains(t, plain(body), c.words, page)
				}
			}
		})
	}
}

// newJob opens a job with one unit of a family and nothing told.
func (b *browser) newJob(family string) (tag string) {
	res, body := b.post("/jobs", url.Values{"customer": {"Ostrey Fish Meal Works"}, "title": {"a unit on the bench"},
		"family": {family}})
	require.Equal(b.site.t, http.StatusSeeOther, res.StatusCode, body)
	return strings.Split(res.Header.Get("Location"), "/")[2]
}

// What is decided comes to hours, days and sums in the offer, at once and for every one of
// the three, and each sum opens its working.
func TestOffersFollowTheDecisions(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	offers := func() string {
		_, page := b.get("/jobs/T-0405/decide?face=offers")
		return plain(page)
	}
	page := offers()
	assert.Contains(t, page, "Hours at the bench 12 h", "eleven for the job and one for the plate that is lapped")
	assert.Contains(t, page, "cost = 780.0 + 12.00 h·72.00 + 0 = 1644", "the working")
	assert.Contains(t, page, "Still open: control spring, flow-control spring")
	assert.Contains(t, page, "at least 1572", "an overhaul renews parts that have no price yet")
	b.set("T-0405", "u1/part/valve_plate/decision/choice", "replace", "")
	page = offers()
	assert.Contains(t, page, "Hours at the bench 11 h")
	assert.Contains(t, page, "New parts 8 without a price: swash plate, retainer plate", "its set goes with it")
	b.set("T-0405", "u1/part/valve_plate/price", "310", "")
	assert.Contains(t, offers(), "Money for parts 1090")
}

// A reading moves the proposal, and with it the offer, at once.
func TestAReadingMovesTheOffer(t *testing.T) {
	t.Parallel()
	b := serve(t).as("iva")
	renewed := func() string {
		_, page := b.get("/jobs/T-0417/decide?face=offers")
		return plain(page)
	}
	assert.Contains(t, renewed(), "New parts 6 ")
	b.set("T-0417", "u1/part/relief_spring/feature/free_length/found/v1", "40.20 mm", "41.72 mm")
	assert.Contains(t, renewed(), "New parts 7 ")
}

// Where nothing was entered no figure is shown: nought hours are a claim.
func TestOffersWithoutFiguresShowNone(t *testing.T) {
	t.Parallel()
	s := serve(t)
	_, page := s.as("iva").get("/jobs/T-0421/decide?face=offers")
	text := plain(page)
	assert.Contains(t, text, "Hours at the bench not entered")
	assert.Contains(t, text, "Money for parts not entered")
	assert.NotContains(t, text, "0 h")
	assert.Contains(t, text, "For a sum enter")
}

// What the customer says rules the work: the policy, or how the job ends, and until he says
// it the job waits for him by itself.
func TestTheCustomersWordRules(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	wait := func() string { return b.state("T-0412", 1).Job.Waiting }
	require.Equal(t, "outside", wait())
	res, _ := b.post("/jobs/T-0412/decide/offered", url.Values{})
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.Equal(t, "customer", wait())
	_, page := b.get("/jobs/T-0412/decide")
	assert.Contains(t, plain(page), "The customer has the offer of")
	res, _ = b.post("/jobs/T-0412/decide/answer", url.Values{"answer": {"overhaul"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, "nobody said it")
	res, _ = b.post("/jobs/T-0412/decide/answer", url.Values{"answer": {"overhaul"}, "answer_by": {"Liss Moen"},
		"answer_note": {"do it properly"}})
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.Equal(t, "outside", wait(), "the rod is still at the plater")
	assert.Equal(t, "full_overhaul", b.state("T-0412", 1).Job.Policy)
	_, paper := b.get("/jobs/T-0412/quote")
	assert.Contains(t, plain(paper), "by Liss Moen. do it properly")
	b.set("T-0412", "u1/part/rod/rework/rechrome/back", "2031-05-20", "")
	assert.Equal(t, "technician", wait())
	res, _ = b.post("/jobs/T-0412/decide/answer", url.Values{"answer": {"replace"}, "answer_by": {"Liss Moen"}})
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.Equal(t, "replaced", b.state("T-0412", 1).Unit.Ending)
}

// A rebuild that costs nearly as much as a new unit is advised against with its sum; who takes it all the same says
// why.
func TestFullWearAgainstANewUnitAsksWhy(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/jobs/T-0412/decide?face=offers")
	assert.Contains(t, plain(page), "Advised against")
	take := url.Values{"answer": {"rebuild"}, "answer_by": {"Liss Moen"}}
	res, body := b.post("/jobs/T-0412/decide/answer", take)
	require.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "a new one is less than")
	take.Set("answer_note", "nothing to be had before the season")
	res, _ = b.post("/jobs/T-0412/decide/answer", take)
	assert.Equal(t, http.StatusOK, res.StatusCode)
}

// The parts list says what is to be got, by supplier, on paper and as a table that no
// spreadsheet takes for formulas.
func TestPartsListBySupplier(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	b.set("T-0417", "u1/part/front_needles/order_supplier", "Havn Bearings", "")
	b.set("T-0417", "u1/part/front_needles/order_state", "back_order", "")
	b.set("T-0417", "u1/part/front_needles/order_due", "2031-06-02", "")
	b.set("T-0417", "u1/part/front_gasket/seal_maker_no", "=1+1", "")
	_, page := b.get("/jobs/T-0417/parts-list")
	text := plain(page)
	assert.Contains(t, text, "Havn Bearings")
	assert.Contains(t, text, "back order, due 2031-06-02")
	res, csv := b.get("/jobs/T-0417/parts-list.csv")
	assert.Contains(t, res.Header.Get("Content-Type"), "text/csv")
	assert.Contains(t, csv, "Havn Bearings,Press feed pump,Front needles,,,,,,34,0,34,back order,,2031-06-02")
	assert.Contains(t, csv, ",'=1+1,")
	assert.Equal(t, "parts", b.state("T-0417", 1).Job.Waiting)
}

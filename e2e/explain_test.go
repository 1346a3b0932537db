package e2e

import (
	"context"
	"fmt"
	"testing"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A new user's story of a broken retainer with a split case gasket, weeks in
// service: it reads as an argument, asks for what would close it and for an
// action outside the unit, and stands on both papers.
func TestBrokenRetainerAsAnArgument(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	tag, err := s.jobs.Create(context.Background(), people.Actor{Name: "Iva Brask", Role: people.RoleTechnician},
		job.NewJob{Customer: "Hallen Sawmill", Title: "Debarker pump",
			Complaint: "Lost all pressure on Monday, six weeks old", Family: "axial_piston_pump"})
	require.NoError(t, err)
	u := enter(t, s, "iva", true)
	u.open("/jobs/" + tag + "/explain")
	u.says("no cause is made up")
	u.MustElement("#all-marks").MustClick()
	u.MustWait(`() => location.search.includes("marks=all") && document.getElementById("all-marks") === null`)
	u.ready()
	ev := func(code string) string { return fmt.Sprintf("u1/evidence/%s/state", code) }
	for _, code := range []string{"retainer_broken", "case_gasket_split", "slippers_lifted", "weeks_in_service"} {
		u.tap(ev(code), "seen")
	}
	u.tap(ev("fine_lines"), "absent")
	lead := u.MustElement("article .ca-h").MustText()
	assert.Contains(t, lead, "Case over-pressure against suction, sudden")
	assert.Contains(t, lead, "outside the unit")
	u.says("To close it, look at", "drain line", "case drain shut")

	// The technician's own theory is weighed like any other.
	u.open("/jobs/" + tag + "/explain?face=matrix&theory=side_load")
	u.says("the marks do not support it", "Retainer plate broken")
	assert.NotEmpty(t, u.MustElements(".matrix .mx-for"))
	u.open("/jobs/" + tag + "/explain?face=story")
	assert.Len(t, u.MustElements("article"), 2)
	u.says("What decides between them")

	u.open("/jobs/" + tag + "/explain")
	u.press(u.MustElementR("article button", "set as root cause"))
	u.MustWait(`() => Alpine.store("sent").idle() &&
		document.querySelector("article button[aria-pressed=true]") !== null`)
	assert.Contains(t, u.state(tag).Stops["explain"][0].Text, "The cause lies outside the unit",
		"an action and an owner are asked for")
	u.open("/jobs/" + tag + "/report")
	u.MustWait(`() => document.body.innerText.includes("Slippers were pulled off and the retainer broke")`)
	u.open("/jobs/" + tag + "/dispute")
	text := u.MustElement("body").MustText()
	assert.Contains(t, text, "strongly supported by the evidence")
	assert.Contains(t, text, "No picture was taken before cleaning")
	assert.Contains(t, text, "not opened in this record")
	u.quiet()
}

// The board shows what is known and what tells most; any mark there is comes with
// a word of it.
func TestAnyMarkIsFound(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "iva", true)
	u.open("/jobs/T-0417/explain")
	all := len(u.state("T-0417").Knowledge.Evidence)
	shown := len(u.MustElements(".evidence"))
	assert.Less(t, shown, all/2, "not all marks at once")
	assert.GreaterOrEqual(t, shown, len(u.state("T-0417").Findings)/2)
	u.typeInto(u.MustElement("#board-find"), "milky")
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelectorAll(".evidence").length < 9`)
	assert.NotNil(t, u.MustElement("#mark-milky_oil"))
	u.says("All " + fmt.Sprint(all) + " marks")
	u.tap("u1/evidence/milky_oil/state", "seen")
	u.open("/jobs/T-0417/explain")
	assert.NotNil(t, u.MustElement("#mark-milky_oil"), "what was answered stays on the board")
	u.quiet()
}

// A failure has several causes: one more is named by its part in it and from the list,
// what lies outside asks for its action, and all stand on the report.
func TestOneMoreCause(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "iva", true)
	u.open("/jobs/T-0405/explain")
	u.press(u.MustElementR("summary", "One more cause"))
	u.MustElement("#cause-role").MustSelect("contributed")
	u.MustElement("#cause-code").MustSelect("Water in the fluid")
	u.typeInto(u.MustElement("#cause-words"), "tank breather open since spring")
	u.press(u.MustElementR("button", "^Name it$"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.getElementById("cause-2") !== null`)
	u.says("Water in the fluid", "contributed, outside the unit", "tank breather open since spring")
	u.fill("u1/cause/2/action", "Fit a breather")
	u.fill("u1/cause/2/owner", "Hallen Sawmill")
	u.open("/jobs/T-0405/report")
	assert.Contains(t, u.MustElement("body").MustText(), "Contributed: Water in the fluid, outside the unit; "+
		"tank breather open since spring. Against it: Fit a breather, by Hallen Sawmill.")
	u.open("/jobs/T-0405/explain")
	u.press(u.MustElement("#cause-2 form .button"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.getElementById("cause-2") === null`)
	u.quiet()
}

// Where a mark comes from and how it was found changes what it counts.
func TestOriginOfAMarkCounts(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "iva", true)
	u.open("/jobs/T-0405/explain")
	before := u.state("T-0405").Explained().Ranking[0].Posterior
	u.MustElement(`select[data-field="u1/evidence/embedded_grit/origin"]`).MustSelect("made during teardown")
	u.MustWait(`() => Alpine.store("sent").idle()`)
	after := u.state("T-0405")
	assert.Less(t, after.Explained().Ranking[0].Posterior, before, "a mark made by the bench counts for nothing")
	u.MustElement(`select[data-field="u1/evidence/fine_lines/found_how"]`).MustSelect("after wiping")
	u.MustWait(`() => Alpine.store("sent").idle()`)
	assert.Less(t, u.state("T-0405").Explained().Ranking[0].Posterior, after.Explained().Ranking[0].Posterior,
		"seen only after wiping, it says less")
	u.quiet()
}

// Two quick taps land on the row that was aimed at, though the list is drawn
// anew between them; a mark seen can have a note, and Enter saves it.
func TestTwoQuickTapsMarkOneRow(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "iva", true)
	u.open("/jobs/T-0417/explain?marks=all")
	before := len(u.state("T-0417").Unit.Marks)
	u.MustEval(`() => {
		const b = document.querySelector('#mark-milky_oil [data-value="seen"]');
		b.click();
		b.click();
	}`)
	u.ready()
	marks := u.state("T-0417").Unit.Marks
	assert.LessOrEqual(t, len(marks)-before, 1)
	assert.Equal(t, "seen", u.state("T-0417").Unit.LastSaid("milky_oil").State)
	note := u.MustElement(`[data-field="u1/evidence/milky_oil/note"]`)
	note.MustEval(`() => this.focus()`)
	u.MustInsertText("only in the sump, 2 cups")
	u.Keyboard.MustType(input.Enter)
	u.MustWait(`() => Alpine.store("sent").idle() && document.getElementById("saved").textContent.startsWith("saved")`)
	assert.Equal(t, "only in the sump, 2 cups", u.state("T-0417").Unit.LastSaid("milky_oil").Note)
	u.quiet()
}

// After a bulk strip all facings stand on one sheet: one tap each.
func TestFacingsOnOneSheet(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	who := people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}
	tag, err := s.jobs.Create(context.Background(), who,
		job.NewJob{Customer: "Ostrey", Title: "Spare pump", Family: "external_gear_pump"})
	require.NoError(t, err)
	s.nobodyToAsk(t, tag)
	require.NoError(t, s.jobs.TakeOffRest(context.Background(), who, tag, 1))
	u := enter(t, s, "iva", true)
	u.open("/jobs/" + tag + "/strip")
	for _, p := range u.state(tag).Parts {
		if len(p.Def.Facings) == 0 {
			continue
		}
		if sheet, _, _ := u.Has("#facings"); !sheet {
			break
		}
		u.press(u.MustElement(fmt.Sprintf(`#facing-%s [data-value=%q]`, p.Code, p.Def.Facings[0])))
		u.ready()
		assert.Equal(t, p.Def.Facings[0], u.state(tag).ByCode[p.Code].Facing)
	}
	assert.NotContains(t, fmt.Sprint(u.state(tag).Stops["strip"]), "facing not noted")
	u.quiet()
}

package e2e

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"corvek/internal/exchange"
	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A lead lets a stop pass with a reason; a technician is not offered it.
func TestLeadPassesAStop(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	iva := enter(t, s, "iva", true)
	iva.open("/jobs/T-0417/handover")
	iva.says("Front needles: 33 of 34")
	assert.Empty(t, iva.MustElements(".fold [name=reason]"))

	odd := enter(t, s, "odd", true)
	odd.open("/jobs/T-0417/handover")
	row := odd.MustElementR(".open-row", "Front needles")
	row.MustElement("summary").MustClick()
	row.MustElementR("button", "^Waive$").MustClick()
	odd.refused("write down why")
	row = odd.MustElementR(".open-row", "Front needles")
	row.MustElementR(".button", "checked another way").MustClick()
	row.MustElementR("button", "^Waive$").MustClick()
	odd.MustWait(`() => Alpine.store("sent").idle() &&
		document.body.innerText.includes("checked another way (Odd Renfeld)")`)
	assert.Zero(t, odd.state("T-0417").Open("strip"))
}

// A failed test stays in the ledger, asks for the one change, and can open a new round.
func TestFailedTestGoesBackAsANewRound(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	u.open("/jobs/T-0398/prove")
	u.says("FAILED", "first try")
	u.press(u.MustElementR("button", "Start attempt 2"))
	u.refused("one thing that was changed")
	u.press(u.MustElement(`form[action$="prove/round"] [data-fill]`))
	u.MustElement("#down-to").MustSelect("Cap O-ring")
	u.press(u.MustElementR("button", "back to Build"))
	u.MustWait(`() => location.pathname.endsWith("/build") && document.readyState === "complete"`)
	u.says("round 2", "out again 1 time")
	st := u.state("T-0398")
	assert.Equal(t, 2, st.Round)
	assert.Len(t, st.Attempts, 1, "the failed attempt is kept")
	assert.False(t, st.ByCode["cap_ring"].Step.Done)
	assert.True(t, st.ByCode["spool"].Step.Done, "what nobody touched stays built")
	u.quiet()
}

// A loose piece is written down, tied to what is missing, and the count ties.
func TestLoosePieceIsTied(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	st := u.state("T-0417")
	u.open(fmt.Sprintf("/jobs/T-0417/strip?part=%s", st.ByCode["front_needles"].Code))
	u.says("1 not found")
	u.typeInto(u.MustElement(`form.inline input[name=what]`), "needle")
	u.typeInto(u.MustElement(`form.inline input[name=place]`), "sump")
	u.MustElementR("form.inline button", "Add").MustClick()
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelector(".loose") !== null`)
	u.says("1 × needle")
	assert.Equal(t, 2, u.state("T-0417").Open("strip"), "the short count, and a needle that belongs to nothing yet")
	u.MustElement(`[data-field="u1/loose/1/part"]`).MustSelect("Front needles (1 missing)")
	u.MustWait(`() => Alpine.store("sent").idle() && document.body.innerText.includes("nothing to settle")`)
	assert.Zero(t, u.state("T-0417").Open("strip"))
}

// A picture comes in through the page, and something else is refused at the field.
func TestPictureComesIn(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	dir := t.TempDir()
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewRGBA(image.Rect(0, 0, 40, 30))))
	good, bad := filepath.Join(dir, "plate.png"), filepath.Join(dir, "program.png")
	require.NoError(t, os.WriteFile(good, b.Bytes(), 0o600))
	require.NoError(t, os.WriteFile(bad, []byte("MZ this is a program"), 0o600))
	u.open("/jobs/T-0412/pictures")
	u.MustElement("#picture").MustSetFiles(bad)
	u.press(u.MustElementR("form button", "^Add it$"))
	u.refused("not a JPEG")
	u.MustElement("#picture").MustSetFiles(good)
	u.typeInto(u.MustElement("#caption"), "rear plate")
	u.press(u.MustElementR("form button", "^Add it$"))
	u.MustWait(`() => /pictures\/\d+$/.test(location.pathname) && document.readyState === "complete"`)
	u.says("rear plate", "Nothing is marked yet")

	// A mark without a place is refused; one tapped on the picture is kept where it was tapped.
	u.press(u.MustElementR("button", "^Mark it$"))
	u.refused("tap the picture")
	box := u.MustElement("[data-shot]").MustShape().Box()
	u.Mouse.MustMoveTo(box.X+box.Width*.25, box.Y+box.Height*.5).MustClick(proto.InputMouseButtonLeft)
	u.typeInto(u.MustElement("#mark-note"), "nail catches")
	u.press(u.MustElementR("button", "^Mark it$"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelector(".numbered li[value='1']") !== null`)
	u.says("nail catches")
	at := u.state("T-0412").Job.Pictures
	require.Len(t, at, 1)
	require.Len(t, at[0].Marks, 1)
	assert.InDelta(t, .25, at[0].Marks[0].X, .02)
	assert.InDelta(t, .5, at[0].Marks[0].Y, .02)
	assert.Equal(t, [2]int{40, 30}, [2]int{at[0].Width, at[0].Height})
	u.open("/jobs/T-0412/report")
	assert.Len(t, u.MustElements(".shot .shot-c"), 1, "the mark is printed")
}

// A job file made elsewhere comes in through the Jobs board.
func TestJobFileComesInThroughTheBoard(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	from, to := serve(t), serve(t)
	file := filepath.Join(t.TempDir(), "job.zip")
	f, err := os.Create(file)
	require.NoError(t, err)
	iva := enter(t, from, "iva", true)
	tag := iva.newPump()
	require.NoError(t, exchange.Write(context.Background(), from.jobs.Store, tag, f))
	require.NoError(t, f.Close())
	u := enter(t, to, "odd", true)
	u.open("/jobs")
	u.MustElementR("summary", "Bring in").MustClick()
	u.MustElement(`input[type=file]`).MustSetFiles(file)
	u.press(u.MustElementR("button", "^Bring in$"))
	u.MustWait(`(tag) => location.pathname.startsWith("/jobs/" + tag) && document.readyState === "complete"`, tag)
	u.says("spare press pump")
	assert.Equal(t, "weak when hot", u.state(tag).Job.Complaint)
}

// The Jobs board finds by a part of a word, and says so when nothing is left.
func TestFindOnTheBoard(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "tove", false)
	u.open("/jobs")
	u.Keyboard.MustType('/')
	u.MustInsertText("gate weir")
	u.MustWait(`() => [...document.querySelectorAll(".job")].filter(j => !j.hidden).length === 1`)
	u.says("Gate cylinder")
	u.MustInsertText(" of gold")
	u.MustWait(`() => document.querySelectorAll(".job:not([hidden])").length === 0`)
	u.says("No job goes by that")
}

// A calculator is found by what it asks or answers, and Enter opens it.
func TestFindInTheToolbox(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "tove", false)
	u.open("/toolbox?for=T-0412")
	u.Keyboard.MustType('/')
	u.MustInsertText("cracking pressure")
	u.MustWait(`() => document.querySelectorAll("[data-found]").length === 1 && ` +
		`document.querySelectorAll(".bay").length === 1`)
	u.says("Coil spring")
	u.Keyboard.MustType(input.Enter)
	u.MustWait(`() => location.pathname === "/toolbox/coil_spring" && location.search === "?for=T-0412&unit=1" && ` +
		`document.readyState === "complete"`)
	u.open("/toolbox")
	u.Keyboard.MustType('/')
	u.MustInsertText("dragon")
	u.MustWait(`() => document.querySelector("[data-found]") === null`)
	u.says("No calculator asks or answers that")
	u.Keyboard.MustType(input.Enter)
	assert.Equal(t, u.shop.URL+"/toolbox?find=dragon", u.MustInfo().URL, "nothing found opens nothing")
}

// A calculator's page works out what its address carries and puts errors at the input.
func TestToolbox(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", false)
	u.open("/toolbox/cylinder")
	u.typeInto(u.MustElement("#in-bore"), "63 mm")
	u.typeInto(u.MustElement("#in-pressure"), "3000 lb")
	u.press(u.MustElementR("button", "Work it out"))
	u.MustWait(`() => document.body.innerText.includes("psi?")`)
	assert.Equal(t, "3000 lb", u.MustElement("#in-pressure").MustProperty("value").String(), "what was typed stays")
	u.typeInto(u.MustElement("#in-pressure"), "210 bar") // works as one types
	u.MustWait(`() => document.body.innerText.includes("65462 N")`)
	u.quiet()
}

// A figure typed while an earlier one is still being worked out stays, also when the
// answer comes after the field was left.
func TestWhatIsTypedMeanwhileStays(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", false)
	u.open("/toolbox/cylinder")
	u.MustEval(`() => {
		const ask = window.fetch;
		window.asked = 0;
		window.fetch = async (...what) => {
			window.asked++;
			const answer = await ask(...what);
			if (window.asked === 1) await new Promise((let_go) => { window.letGo = let_go; });
			return answer;
		};
	}`)
	u.typeInto(u.MustElement("#in-bore"), "63 mm")
	u.MustWait(`() => window.letGo !== undefined`)
	u.typeInto(u.MustElement("#in-pressure"), "210 bar")
	u.MustEval(`() => window.letGo()`)
	u.MustWait(`() => document.body.innerText.includes("65462 N")`)
	assert.Equal(t, "210 bar", u.MustElement("#in-pressure").MustProperty("value").String())
	u.quiet()
}

// Light and dark, and a phone's width, without sideways scroll.
func TestThemesAndWidths(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	u.open("/jobs/T-0417/measure")
	u.MustElement("button.is-square").MustClick()
	dark := u.MustEval(`() => getComputedStyle(document.body).backgroundColor`).String()
	u.MustReload()
	u.ready()
	assert.Equal(t, dark, u.MustEval(`() => getComputedStyle(document.body).backgroundColor`).String(),
		"the choice is kept")
	for _, width := range []int{800, 390} {
		u.MustSetViewport(width, 1000, 1, false)
		for _, station := range []string{"receive", "strip", "measure", "prove"} {
			u.open("/jobs/T-0417/" + station)
			assert.LessOrEqual(t, u.MustEval(`() => document.documentElement.scrollWidth - innerWidth`).Int(), 0,
				"%s at %d", station, width)
		}
	}
	u.quiet()
}

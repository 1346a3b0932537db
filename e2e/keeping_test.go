package e2e

import (
	"context"
	"fmt"
	"net"
	"net/http/httptest"
	"testing"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/web"
	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

type inputKey = input.Key

// What was typed stays through a wrong unit, a reload, Back, and a server that is gone.
func TestNothingTypedIsLost(t *testing.T) {
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "iva", false)
	field := "u1/speed"
	entry := fmt.Sprintf(`[data-field=%q]`, field)
	u.open("/jobs/T-0417/receive")

	u.fill(field, "1480 bar")
	u.says("is a pressure")
	u.MustReload()
	u.ready()
	assert.Equal(t, "1480 bar", u.MustElement(entry).MustProperty("value").String())
	u.says("is a pressure")
	assert.Equal(t, "1450 rpm", u.state("T-0417").Unit.Speed.Typed, "nothing wrong was stored")

	u.open("/jobs")
	u.MustNavigateBack()
	u.ready()
	assert.Equal(t, "1480 bar", u.MustElement(entry).MustProperty("value").String())

	// The server goes away in the middle of a save, and comes back at the same address.
	addr := s.Listener.Addr().String()
	s.CloseClientConnections()
	s.Close()
	el := u.MustElement(entry)
	el.MustEval(`() => { this.focus(); this.select(); }`)
	u.Keyboard.MustType(input.Backspace)
	u.MustInsertText("1490 rpm")
	u.Keyboard.MustType(input.Tab)
	u.MustWait(`() => document.getElementById("saved").textContent.includes("does not answer")`)
	listener, err := net.Listen("tcp", addr)
	require.NoError(t, err)
	app, server, err := web.New(web.Config{Jobs: s.jobs, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	again := httptest.NewUnstartedServer(app)
	_ = again.Listener.Close()
	again.Listener = listener
	again.Start()
	defer again.Close()
	defer server.Close() // lets the page go that listens
	u.MustWait(`() => document.getElementById("saved").textContent.startsWith("saved")`)
	assert.Equal(t, "1490 rpm", u.state("T-0417").Unit.Speed.Typed)
}

// Two people on one field: the second sees what the first did and chooses.
func TestSecondPersonSeesTheFirst(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	iva, odd := enter(t, s, "iva", false), enter(t, s, "odd", false)
	field := "u1/filtration"
	iva.open("/jobs/T-0417/receive")
	odd.open("/jobs/T-0417/receive")
	mine := odd.MustElement(fmt.Sprintf(`[data-field=%q]`, field))
	mine.MustEval(`() => { this.focus(); this.select(); }`)
	odd.MustInsertText("none at all")
	iva.fill(field, "return filter 10 µm")
	odd.MustWait(`(f) => document.querySelector('[data-field="' + f + '"]').dataset.base.includes("10 µm")`, field)
	assert.Equal(t, "none at all", mine.MustProperty("value").String(),
		"what comes by itself disturbs nobody who types")
	odd.Keyboard.MustType(input.Tab)
	odd.MustWait(`() => Alpine.store("sent").idle() && document.body.innerText.includes("Iva Brask set this")`)
	odd.says()
	assert.Contains(t, odd.MustElement(".notices").MustText(), "return filter 10 µm")
	assert.Equal(t, "return filter 10 µm", iva.state("T-0417").Unit.Filtration)
	odd.press(odd.MustElementR("button", "use mine"))
	odd.MustWait(`() => Alpine.store("sent").idle() &&
		document.getElementById("saved").textContent.startsWith("saved")`)
	assert.Equal(t, "none at all", iva.state("T-0417").Unit.Filtration)
}

// A caliper types a bare figure and Enter: it takes the unit that stands in the
// field, the verdict is marked as older until it is saved, and the next cell is
// ready for the next one.
func TestCaliperFillsAGrid(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "mirre", false)
	p := u.state("T-0412").ByCode["rod"]
	u.open(fmt.Sprintf("/jobs/T-0412/measure?part=%s&feature=diameter", p.Code))
	first := u.MustElement(fmt.Sprintf(`[data-field="u1/part/%s/feature/%s/found/r1c1"]`, p.Features[0].Part.Code,
		p.Features[0].Code))
	first.MustEval(`() => { this.focus(); this.select(); }`)
	for i := range 8 {
		u.Keyboard.MustType(input.Backspace)
		u.MustInsertText(fmt.Sprintf("49.9%d", 50+i))
		if i == 0 {
			assert.True(t, u.MustHas(".sheet:has(.unsaved) .verdict"), "what stands there is older than what is typed")
		}
		u.Keyboard.MustType(input.Enter)
	}
	u.ready()
	u.MustWait(`() => Alpine.store("sent").idle()`)
	f := u.state("T-0412").ByCode["rod"].Features[0]
	assert.Equal(t, "49.950 mm", f.Entry("found", "r1c1"))
	assert.Equal(t, "49.957 mm", f.Entry("found", "r4c2"))
	assert.Equal(t, "49.950 mm", first.MustProperty("value").String(), "shown with its unit")
	assert.False(t, u.MustHas(".unsaved"))

	// An inch reader's bare figure takes the unit that stands in the field, and
	// in an empty field the reader's own.
	u.MustElement("[data-units=in]").MustClick()
	u.MustWait(`() => document.querySelector("[data-units=in]").getAttribute("aria-pressed") === "true"`)
	u.open("/jobs/T-0417/receive")
	u.fill("u1/duty_pressure", "170")
	assert.Equal(t, "170 bar", u.state("T-0417").Unit.DutyPressure.Typed)
	u.fill("u1/duty_pressure", "")
	u.fill("u1/duty_pressure", "2500")
	assert.Equal(t, "2500 psi", u.state("T-0417").Unit.DutyPressure.Typed)
	u.quiet()
}

// Rows of a spreadsheet go on into the places behind the one they were pasted into; more than there are places is
// refused, and nothing is put in.
func TestPastedRowsFillTheSheet(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "mirre", false)
	u.open("/jobs/T-0412/measure?part=rod&feature=diameter")
	paste := func(slot, text string) { u.paste("u1/part/rod/feature/diameter/found/"+slot, text) }
	paste("r2c1", "49.941\t49.942\r\n49.931\t49.932\r\n")
	u.ready()
	u.MustWait(`() => !document.querySelector(".unsaved")`)
	f := u.state("T-0412").ByCode["rod"].Features[0]
	for slot, want := range map[string]string{"r1c2": "49.948 mm", "r2c1": "49.941 mm", "r2c2": "49.942 mm",
		"r3c1": "49.931 mm", "r3c2": "49.932 mm", "r4c1": "49.952 mm"} {
		assert.Equal(t, want, f.Entry("found", slot), slot)
	}
	paste("r4c1", "1\n2\n3")
	u.refused("3 figures were pasted and 2 places are here")
	assert.Equal(t, "49.952 mm", u.state("T-0412").ByCode["rod"].Features[0].Entry("found", "r4c1"))
	u.quiet()
}

// Keys of the shell: units, parts, next open thing, help.
func TestKeys(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", false)
	u.open("/jobs/T-0417/measure")
	u.says("8.79 L/min")
	u.Keyboard.MustType('u')
	u.MustWait(`() => document.body.innerText.includes("2.32 gpm")`)
	u.Keyboard.MustType('u')
	u.MustWait(`() => document.body.innerText.includes("8.79 L/min")`)
	before := u.MustElement("h2").MustText()
	u.Keyboard.MustType(input.ArrowRight)
	u.MustWait(`(was) => document.readyState === "complete" && document.querySelector("h2").innerText !== was`, before)
	u.Keyboard.MustType('n')
	u.MustWait(`() => document.readyState === "complete" && document.querySelector("h2").innerText.includes("Front ` +
		`side plate")`)
	u.ready()
	// An arrow on a choice moves the choice and not the page.
	at := u.MustInfo().URL
	u.open("/jobs/T-0417/decide")
	u.MustElement(".decide .button").MustFocus()
	u.Keyboard.MustType(input.ArrowRight)
	assert.Equal(t, "rework", u.MustEval(`() => document.activeElement.textContent.trim()`).String())
	assert.Contains(t, u.MustInfo().URL, "/decide")
	u.open("/jobs/T-0417/strip")
	u.Keyboard.MustType('/')
	u.MustWait(`() => document.activeElement && document.activeElement.name === "find"`)
	u.MustNavigate(at)
	u.ready()
	u.Keyboard.MustType('?')
	u.MustWait(`() => document.getElementById("help").open`)
	// Single letters can be switched off, for hands that lean on the keys.
	u.MustElement("#single-keys").MustClick()
	u.Keyboard.MustType(input.Escape)
	u.MustWait(`() => !document.getElementById("help").open`)
	u.Keyboard.MustType('u')
	u.says("8.79 L/min")
	u.quiet()
}

func TestViewerCanLookButNotTouch(t *testing.T) {
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "tove", true)
	u.open("/jobs/T-0417/receive")
	assert.True(t, u.MustElement(`[data-field]`).MustProperty("readOnly").Bool())
	assert.True(t, u.MustElement(`[data-set]`).MustProperty("disabled").Bool())
	_, err := s.jobs.Create(context.Background(), people.Actor{Role: people.RoleViewer}, job.NewJob{})
	assert.ErrorIs(t, err, people.ErrForbidden)
}

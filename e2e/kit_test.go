package e2e

import (
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A piece comes to its place by dragging, by a tap on the place that is offered, and by key;
// a pasted list finds its places, and what is left waits for a reason.
func TestPiecesComeToTheirPlaces(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	u.open("/jobs/T-0417/kit")
	u.MustElementR("summary", "A whole list").MustClick()
	u.MustElement("#kp-list").MustInput("K1; gasket; 1\nK2; shaft seal; 1\nK3; rear gasket; 1\nK4; washer; 3")
	u.press(u.MustElementR("button", "^Take the list$"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelectorAll(".loose").length === 3`)
	place := func(code string) string {
		for _, k := range u.state("T-0417").Unit.Kit {
			if k.Code == code {
				return k.Part
			}
		}
		return "?"
	}
	assert.Equal(t, "rear_gasket", place("K3"), "its name says it")
	assert.Empty(t, place("K1"), "two gaskets were open when it came")

	u.press(u.MustElementR(".loose .button", "^Front gasket$"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelectorAll(".loose").length === 2`)
	assert.Equal(t, "front_gasket", place("K1"))

	// The browser's own drag, as a hand with a mouse makes it.
	u.MustEval(`() => {
		const data = new DataTransfer();
		const piece = [...document.querySelectorAll(".loose")].find((x) => x.textContent.includes("K2"));
		const to = document.getElementById("place-seal_inner");
		const send = (el, type) => el.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true,
			dataTransfer: data }));
		send(piece, "dragstart");
		send(to, "dragover");
		send(to, "drop");
	}`)
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelectorAll(".loose").length === 1`)
	assert.Equal(t, "seal_inner", place("K2"))

	u.typeInto(u.MustElement(`.loose [data-field$="/left_reason"]`), "washers for the hoist, not of this pump")
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelector(".loose.ok") !== null`)
	for _, stop := range u.state("T-0417").Stops["kit"] {
		assert.NotEqual(t, unit.StopPiece, stop.Kind, stop.Text)
	}
	u.quiet()
}

// With one thumb on a phone: the customer was given the offer, and says what he takes.
func TestTheCustomersAnswerByThumb(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	u.MustSetViewport(390, 844, 2, true)
	u.open("/jobs/T-0412/decide?face=offers")
	assert.LessOrEqual(t, u.MustEval(`() => document.documentElement.scrollWidth - innerWidth`).Int(), 0)
	u.press(u.MustElementR("button", "Given to him today"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.body.innerText.includes("the job waits for his word")`)
	require.Equal(t, "customer", u.state("T-0412").Job.Waiting)
	u.press(u.MustElement(`input[name=answer][value=overhaul]`))
	u.press(u.MustElementR("button", "^Keep his answer$"))
	u.refused("who of the")
	assert.True(t, u.MustElement(`input[name=answer][value=overhaul]`).MustProperty("checked").Bool(),
		"nothing is lost")
	u.typeInto(u.MustElement("#answer-by"), "Liss Moen")
	u.press(u.MustElementR("button", "^Keep his answer$"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelector(".offer.taken") !== null`)
	u.says("Full overhaul", "says Liss Moen")
	assert.Equal(t, "full_overhaul", u.state("T-0412").Job.Policy)
	u.quiet()
}

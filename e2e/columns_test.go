package e2e

import (
	"testing"

	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// Many parts are typed on one sheet: Enter goes down the column, a block of a spreadsheet fills to the right and
// down, and one that is larger than the sheet is refused whole.
func TestOneSheetForMany(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "mirre", false)
	u.open("/jobs/T-0412/columns?face=limits")
	cell := func(part, feature, name string) string { return "u1/part/" + part + "/feature/" + feature + "/" + name }
	found := func(slot string) string { return "u1/part/rod/feature/diameter/found/" + slot }

	u.open("/jobs/T-0412/columns")
	first := u.MustElement(`[data-field="` + found("r1c1") + `"]`)
	first.MustEval(`() => { this.focus(); this.select(); }`)
	u.Keyboard.MustType([]input.Key("49.901")...)
	u.Keyboard.MustType(input.Enter)
	u.ready()
	under := u.MustEval(`() => document.activeElement.closest("tr").id`).Str()
	assert.NotEqual(t, "col-rod-diameter", under, "down the column, not along the row")
	f := u.state("T-0412").ByCode["rod"].Features[0]
	assert.Equal(t, "49.901 mm", f.Entry("found", "r1c1"))

	paste := func(slot, text string) { u.paste(found(slot), text) }
	paste("r2c1", "49.941\t49.942\t49.943\r\n")
	u.ready()
	u.MustWait(`() => !document.querySelector(".unsaved")`)
	f = u.state("T-0412").ByCode["rod"].Features[0]
	assert.Equal(t, "49.943 mm", f.Entry("found", "r3c1"), "along the row of the sheet")
	paste("r4c2", "1\t2\t3")
	u.refused("3 figures were pasted and 2 of them have no cell here")

	u.open("/jobs/T-0412/columns?face=limits")
	u.fill(cell("rod", "diameter", "lower"), "49.90 mm")
	assert.Equal(t, "49.90 mm", u.state("T-0412").ByCode["rod"].Features[0].Lower.Typed)
	u.open("/jobs/T-0412/columns?face=marks")
	u.tap("u1/part/piston/sound", "yes")
	assert.True(t, u.state("T-0412").ByCode["piston"].Sound)
	u.quiet()
}

// paste puts a text into a cell as the clipboard brings it.
func (u *user) paste(field, text string) {
	u.ready()
	u.MustElement(`[data-field="`+field+`"]`).MustEval(`(text) => {
		const data = new DataTransfer();
		data.setData("text/plain", text);
		this.focus();
		this.dispatchEvent(new ClipboardEvent("paste", {clipboardData: data, bubbles: true, cancelable: true}));
	}`, text)
}

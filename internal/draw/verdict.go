package draw

import "strings"

// Verdict draws a verdict in 18 by 18 px as the line marks it: a tick, a crossed square, a
// diamond with a question. "" for no verdict.
func Verdict(verdict string) string {
	mark, known := map[string]Mark{"in": {Shape: "ok", Tone: "petrol"}, "out": {Shape: "out", Tone: "red"},
		"undecided": {Shape: "ask", Tone: "ochre"}}[verdict]
	if !known {
		return ""
	}
	var b strings.Builder
	b.WriteString(`<svg class="said" width="18" height="18" viewBox="0 0 22 22" aria-hidden="true"><g ` +
		`transform="translate(11 ` + num(11-markY) + `)">`)
	drawMark(&b, mark, 0)
	return b.String() + `</g></svg>`
}

package e2e

import (
	"fmt"
	"strings"
	"testing"

	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// plainHost is a name that the browser takes to this machine: over http it is not a secure
// page, as in a shop without certificates.
const plainHost = "shop.example"

// A page that comes for the first time stands still: what a finger goes for has not moved
// when it arrives.
func TestPagesStandStillAsTheyCome(t *testing.T) {
	whole.Only(t)
	// Before the others, and not beside them: what moves is what comes late.
	u := enter(t, serve(t), "odd", true)
	require.NoError(t, proto.NetworkSetCacheDisabled{CacheDisabled: true}.Call(u.Page))
	for _, size := range screens {
		u.MustSetViewport(size[0], size[1], 1, false)
		for _, page := range append(stationPages(), "/jobs", "/jobs/T-0409/kit", "/jobs/T-0388/prove", "/toolbox") {
			u.open(page)
			moved := u.MustEval(`async () => {
				await document.fonts.ready;
				return new Promise((tell) => {
					let sum = 0;
					const add = (list) => list.forEach((x) => (sum += x.value));
					const seen = new PerformanceObserver((list) => add(list.getEntries()));
					seen.observe({ type: "layout-shift", buffered: true });
					const frames = (n) => requestAnimationFrame(() => {
						if (n) return frames(n - 1);
						add(seen.takeRecords());
						tell(sum);
					});
					frames(3);
				});
			}`).Num()
			assert.Less(t, moved, 0.05, fmt.Sprintf("%s at %v", page, size))
		}
	}
}

// In a shop without certificates, under a name of its own, all goes as it does elsewhere:
// browsers keep some of what they can for secure pages.
func TestWithoutCertificates(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	s.URL = strings.Replace(s.URL, "127.0.0.1", plainHost, 1)
	u := enter(t, s, "iva", true)
	u.open("/jobs/T-0417/receive")
	require.False(t, u.MustEval(`() => window.isSecureContext`).Bool())
	u.fill("u1/model", "GX-33")
	u.tap("u1/rotation", "left")
	u.MustElementR("summary", "^A second account").MustClick()
	u.typeInto(u.MustElement("#teller"), "the fitter")
	u.typeInto(u.MustElement("#told"), "it howls")
	u.press(u.MustElementR("button", "^Write it down$"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelector("main").innerText.includes("it howls")`)
	st := u.state("T-0417")
	assert.Equal(t, "GX-33", st.Unit.Model)
	assert.Equal(t, "left", st.Unit.Rotation)
	u.quiet()
}

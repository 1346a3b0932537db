package e2e

import (
	"fmt"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/proto"
)

// BenchmarkEnterToVerdict is the time from Enter behind a reading to the page that shows
// what it came to, on this machine and with a quarter of its speed in the browser.
func BenchmarkEnterToVerdict(b *testing.B) {
	s := serve(b)
	page := chrome(b).MustIncognito().MustPage(s.URL + "/sign-in")
	b.Cleanup(func() { _ = page.Close() })
	in := page.MustWaitNavigation()
	page.MustElement(`input[name=sign_in][value=iva]`).MustParent().MustElement("button").MustClick()
	in()
	for _, slow := range []float64{1, 4} {
		b.Run(fmt.Sprintf("CPU 1/%.0f", slow), func(b *testing.B) {
			page.MustNavigate(s.URL + "/jobs/T-0412/measure?part=rod&feature=diameter").MustWaitLoad()
			_ = proto.EmulationSetCPUThrottlingRate{Rate: slow}.Call(page)
			var took []float64
			n := 0
			for b.Loop() {
				n++
				took = append(took, page.MustEval(`(n) => new Promise((done) => {
					const el = document.querySelectorAll(".cells input")[n % 8];
					el.focus();
					el.value = "49.9" + (10 + n % 80);
					el.dispatchEvent(new Event("input", { bubbles: true }));
					const began = performance.now();
					const shown = () => requestAnimationFrame(() => done(performance.now() - began));
					addEventListener("laid", shown, { once: true });
					el.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true, cancelable: true }));
				})`, n).Num())
			}
			slices.Sort(took)
			b.ReportMetric(took[len(took)/2], "ms/median")
			b.ReportMetric(took[len(took)*95/100], "ms/p95")
		})
	}
}

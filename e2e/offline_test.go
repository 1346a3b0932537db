package e2e

import (
	"context"
	"fmt"
	"testing"

	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func (u *user) offline(on bool) {
	u.t.Helper()
	require.NoError(u.t, proto.NetworkEmulateNetworkConditions{Offline: on, DownloadThroughput: -1,
		UploadThroughput: -1}.Call(u))
}

// The connection drops in the middle of a sheet: readings wait in the browser,
// are marked so, and are sent once when it is back.
func TestReadingsWaitWhileTheConnectionIsDown(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "mirre", false)
	p := u.state("T-0412").ByCode["rod"]
	f := p.Features[0]
	u.open(fmt.Sprintf("/jobs/T-0412/measure?part=%s&feature=diameter", p.Code))
	field := func(slot string) string {
		return fmt.Sprintf("u1/part/%s/feature/%s/found/%s", f.Part.Code, f.Code, slot)
	}
	u.offline(true)
	u.MustElement(fmt.Sprintf(`[data-field="%s"]`, field("r1c1"))).MustEval(`() => { this.focus(); this.select(); }`)
	slots := []string{"r1c1", "r1c2", "r2c1", "r2c2"}
	for i := range slots {
		u.Keyboard.MustType(input.Backspace)
		u.MustInsertText(fmt.Sprintf("49.9%d mm", 60+i))
		u.Keyboard.MustType(input.Enter)
	}
	u.MustWait(`(n) => document.querySelectorAll("input.unsaved").length >= n`, len(slots))
	u.MustWait(`() => document.getElementById("saved").className.includes("wait")`)
	assert.NotEqual(t, "49.960 mm", u.state("T-0412").ByCode["rod"].Features[0].Entry("found", "r1c1"))

	u.offline(false)
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelectorAll("input.unsaved").length === 0`)
	got := u.state("T-0412").ByCode["rod"].Features[0]
	history, err := u.shop.jobs.Store.Record(context.Background(), "T-0412", 1000)
	require.NoError(t, err)
	sent := map[string]int{}
	for _, e := range history {
		sent[e.Field]++
	}
	for i, slot := range slots {
		assert.Equal(t, fmt.Sprintf("49.9%d mm", 60+i), got.Entry("found", slot))
		assert.Equal(t, 1, sent[field(slot)], "%s was sent %d times", slot, sent[field(slot)])
	}
}

// What another bench writes while the connection is down shows when it stands again: the line on which the
// page hears is opened anew, and a page that did not come is asked for again.
func TestWhatWasWrittenMeanwhileShows(t *testing.T) {
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "mirre", false)
	u.open("/jobs/T-0412/receive")
	shows := func(value string) {
		t.Helper()
		u.MustWait(`(value) => document.querySelector('[data-field="job/caller"]').value === value`, value)
	}
	write := func(value, base string) {
		t.Helper()
		_, err := s.jobs.Set(t.Context(), people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}, "T-0412",
			job.Edit{Field: "job/caller", Value: value, Base: base})
		require.NoError(t, err)
	}
	stood := u.state("T-0412").Job.Caller
	write("Ane at the quay", stood)
	shows("Ane at the quay")
	u.offline(true)
	write("Per at the slip", "Ane at the quay")
	u.MustWait(`() => !navigator.onLine`)
	u.offline(false)
	shows("Per at the slip")
}

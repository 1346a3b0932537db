package web

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"corvek/core/trace"
	"corvek/internal/rig"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestStandsTellWhatIsWrong(t *testing.T) {
	s := serve(t)
	b := s.as("odd")
	const nodes = "pressure = ns=2;s=P1 in bar"
	for _, c := range []struct{ name, at, nodes, says string }{
		{"", "opc.tcp://10.0.0.4:4840", nodes, "what the stand is called"},
		{strings.Repeat("x", 61), "opc.tcp://10.0.0.4:4840", nodes, "longer than 60"},
		{"east", "10.0.0.4", nodes, "is an address like"},
		{"east", "opc.tcp://10.0.0.4:4840", "pressure = P1", "line 1"},
	} {
		res, body := b.post("/stands", url.Values{"name": {c.name}, "endpoint": {c.at}, "nodes": {c.nodes}})
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, body, c.says)
		assert.Contains(t, body, c.nodes, "nothing typed is lost")
	}
	res, _ := b.post("/stands", url.Values{"name": {"east"}, "endpoint": {"opc.tcp://127.0.0.1:1"}, "nodes": {nodes}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page := b.get("/stands")
	assert.Contains(t, page, "read only")
	res, _ = s.as("iva").get("/stands")
	assert.Equal(t, http.StatusForbidden, res.StatusCode, "stands are set up by a lead")
	res, _ = b.post("/stands/drop", url.Values{"name": {"east"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = b.get("/stands")
	assert.Contains(t, page, "No stand is set up yet")
}

// A stand that is not there is told at the button; commands of no stand are refused.
func TestAStandThatIsNotThere(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	for _, path := range []string{"run", "stop", "take", "leave", "connect"} {
		res, body := b.post("/jobs/T-0398/stand/"+path, url.Values{"code": {"hold"}, "name": {"none"}})
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, path)
		assert.NotEmpty(t, body)
	}
	res, _ := b.get("/jobs/T-0398/stand/live")
	assert.Equal(t, http.StatusNoContent, res.StatusCode, "the page is told to ask no more")
	require.NoError(t, s.server.store.SaveStand(t.Context(), store.Stand{Name: "gone",
		Endpoint: "opc.tcp://127.0.0.1:1", Nodes: rig.SimulatedNodes()}))
}

// A day of readings opens by its outline and can be looked at closely.
func TestARecordingIsShown(t *testing.T) {
	s := serve(t)
	at := time.Date(2031, 5, 20, 12, 0, 0, 0, time.UTC)
	id, err := s.server.store.OpenRecording(t.Context(), "T-0388", store.Recording{Unit: 1, Attempt: 2, Stand: "east",
		Channels: "pressure flow", ByName: "Iva Brask", StartedAt: at})
	require.NoError(t, err)
	for n := range 400 {
		part := &trace.Trace{Channels: []string{"pressure", "flow"}}
		for i := range 100 {
			moment := at.Add(time.Duration(n*100+i) * 100 * time.Millisecond)
			part.Samples = append(part.Samples, trace.Sample{At: moment, Values: []float64{175e5, 7e-4}})
		}
		require.NoError(t, s.server.store.AddChunk(t.Context(), id, n, part))
	}
	require.NoError(t, s.server.store.AddNote(t.Context(), id, at.Add(time.Minute), "start p100"))
	b := s.as("tove")
	path := fmt.Sprintf("/jobs/T-0388/recordings/%d", id)
	_, page := b.get(path)
	assert.Contains(t, page, `class="strips"`)
	assert.Contains(t, page, "start p100")
	_, page = b.get(path + "?from=60&to=61")
	assert.NotContains(t, page, "an hour is shown at most")
	for _, bad := range []string{"?from=x&to=2", "?from=5&to=2", "?from=0&to=99999999", "?from=90000&to=90001"} {
		res, page := b.get(path + bad)
		assert.Equal(t, http.StatusOK, res.StatusCode)
		assert.Contains(t, page, "an hour is shown at most", bad)
	}
	_, csv := b.get(path + "/samples.csv")
	lines := strings.Split(strings.TrimSpace(csv), "\n")
	assert.Len(t, lines, 40001)
	assert.Equal(t, "time s,pressure bar,flow L/min", lines[0])
	assert.Equal(t, "0.1,175.0,42.00", lines[2])
	_, page = b.get("/jobs/T-0388/prove")
	assert.Contains(t, page, path)
	for _, bad := range []string{"/jobs/T-0388/recordings/9999", "/jobs/T-0388/recordings/x",
		"/jobs/T-0398" + path[12:]} {
		res, _ := b.get(bad)
		assert.Equal(t, http.StatusNotFound, res.StatusCode, bad)
	}
}

package web

import (
	"fmt"
	"html"
	"math"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/trace"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/rig"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestStandsTellWhatIsWrong(t *testing.T) {
	t.Parallel()
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
	east := url.Values{"name": {"east"}, "endpoint": {"opc.tcp://127.0.0.1:1"}, "nodes": {nodes}}
	res, _ := b.post("/stands", east)
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page := b.get("/stands")
	assert.Contains(t, page, "read only")
	assert.Contains(t, page, "for practice only")
	east.Set("place", "new")
	b.post("/stands", east)
	_, page = b.get("/stands")
	assert.Contains(t, page, `<a href="/plan/shop">east</a>`, "it is a stand of the plan now")
	_, page = b.get("/plan/shop")
	assert.Contains(t, page, `<a href="/stands">read as east</a>`)
	res, _ = b.post("/plan/place", url.Values{"name": {"long bench"}, "kind": {"bench"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	res, page = b.post("/stands", url.Values{"name": {"long bench"}, "endpoint": {"opc.tcp://127.0.0.1:1"},
		"nodes": {nodes}, "place": {"new"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "is another place of the shop")
	res, _ = s.as("iva").get("/stands")
	assert.Equal(t, http.StatusForbidden, res.StatusCode, "stands are set up by a lead")
	res, _ = b.post("/stands/drop", url.Values{"name": {"east"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = b.get("/stands")
	assert.Contains(t, page, "No stand is set up yet")
}

// A stand that is not there is told at the button; commands of no stand are refused.
func TestAStandThatIsNotThere(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	for _, path := range []string{"run", "stop", "take", "leave", "connect"} {
		res, body := b.post("/jobs/T-0398/stand/"+path, url.Values{"code": {"hold"}, "name": {"none"}})
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, path)
		assert.NotEmpty(t, body)
	}
	res, _ := b.get("/jobs/T-0398/stand/live")
	assert.Equal(t, http.StatusNoContent, res.StatusCode, "the page is told to ask no more")
	require.NoError(t, s.server.Store.SaveStand(t.Context(), store.Stand{Name: "gone",
		Endpoint: "opc.tcp://127.0.0.1:1", Nodes: rig.SimulatedNodes()}, "Odd Lead", "to practise on"))
}

// A day of readings opens by its outline and can be looked at closely.
func TestARecordingIsShown(t *testing.T) {
	t.Parallel()
	s := serve(t)
	at := time.Date(2031, 5, 20, 12, 0, 0, 0, time.UTC)
	id, err := s.server.Store.OpenRecording(t.Context(), "T-0388", store.Recording{Unit: 1, Attempt: 2, Stand: "east",
		Channels: "pressure flow", ByName: "Iva Brask", StartedAt: at})
	require.NoError(t, err)
	for n := range 400 {
		part := &trace.Trace{Channels: []string{"pressure", "flow"}}
		for i := range 100 {
			moment := at.Add(time.Duration(n*100+i) * 100 * time.Millisecond)
			values := []float64{175e5 + float64(i%2)*1e5, 7e-4}
			part.Samples = append(part.Samples, trace.Sample{At: moment, Values: values})
		}
		require.NoError(t, s.server.Store.AddChunk(t.Context(), id, n, part))
	}
	require.NoError(t, s.server.Store.AddNote(t.Context(), id, at.Add(time.Minute), "start p100"))
	b := s.as("tove")
	path := fmt.Sprintf("/jobs/T-0388/recordings/%d", id)
	_, page := b.get(path)
	assert.Contains(t, page, `class="strips"`)
	assert.Contains(t, page, "start p100")
	_, page = b.get(path + "?from=60&to=61")
	assert.NotContains(t, page, "an hour is shown at most")
	assert.Regexp(t, `(?s)Ripple in this stretch.*<td>175\.5 bar</td>\s*<td>1\.\d* bar</td>\s*<td>0\.6 %`, page)
	for _, bad := range []string{"?from=x&to=2", "?from=5&to=2", "?from=0&to=99999999", "?from=90000&to=90001"} {
		res, page := b.get(path + bad)
		assert.Equal(t, http.StatusOK, res.StatusCode)
		assert.Contains(t, page, "an hour is shown at most", bad)
	}
	_, csv := b.get(path + "/samples.csv")
	lines := strings.Split(strings.TrimSpace(csv), "\n")
	assert.Len(t, lines, 40001)
	assert.Equal(t, "time s,pressure bar,flow L/min", lines[0])
	assert.Equal(t, "0.1,176.0,42.00", lines[2])
	_, page = b.get("/jobs/T-0388/prove")
	assert.Contains(t, page, path)
	for _, bad := range []string{"/jobs/T-0388/recordings/9999", "/jobs/T-0388/recordings/x",
		"/jobs/T-0398" + path[12:]} {
		res, _ := b.get(bad)
		assert.Equal(t, http.StatusNotFound, res.StatusCode, bad)
	}
}

// A log of another stand comes in by its columns, is kept as a recording, and a stretch of it
// is taken at a step.
func TestALogOfAnotherStandIsTaken(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	jobtest.ToTheStand(t, s.server.Jobs, "T-0417")
	who := people.Actor{Name: "Iva", Role: people.RoleTechnician}
	require.NoError(t, s.server.Jobs.NextAttempt(t.Context(), who, "T-0417", 1, bench.Change{}))
	var text strings.Builder
	text.WriteString("t;P1;Q1\n")
	for i := range 200 {
		fmt.Fprintf(&text, "%d,%d;17%d,0;44,1\n", i/10, i%10, 5+i%2)
	}
	const columns = "time = t\npressure = P1 in bar\nflow = Q1 in L/min\n"
	upload := func(log, columns string) (*http.Response, string) {
		return b.sendForm("/jobs/T-0417/prove/log", map[string]string{"columns": columns},
			&file{"log", "east.csv", []byte(log)})
	}
	for _, c := range []struct{ log, columns, says string }{
		{"", columns, "empty"}, {text.String(), "", "which column is the time"},
		{text.String(), "time = t\npressure = P9 in bar", "no column"},
		{"t;P1;Q1\n0;high;1\n", columns, "line 2"},
	} {
		res, body := upload(c.log, c.columns)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, body, c.says)
	}
	res, body := upload(text.String(), columns)
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	list, err := s.server.Store.Recordings(t.Context(), "T-0417", 1)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, 200, list[0].Samples)
	path := fmt.Sprintf("/jobs/T-0417/recordings/%d", list[0].ID)
	_, page := b.get(path)
	assert.Contains(t, page, "Take the mean from second")
	res, body = b.post(path+"/take", url.Values{"first": {"5"}, "last": {"2"}, "code": {"p100"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, body)
	res, body = b.post(path+"/take", url.Values{"first": {"5"}, "last": {"15"}, "code": {"p100"}})
	require.Less(t, res.StatusCode, 400, body)
	st, err := s.server.Jobs.Load(t.Context(), "T-0417", 1)
	require.NoError(t, err)
	p := st.Attempt().Attempt.Point("p100")
	require.NotNil(t, p)
	assert.Equal(t, "175.5 bar", p.Figure("pressure").Typed)
	assert.Equal(t, "44.10 L/min", p.Figure("flow").Typed)
	assert.Equal(t, unit.SourceLog, st.Attempt().Source)
	assert.Equal(t, unit.SourceLog, p.Taking("flow").From)
	assert.Equal(t, 10*time.Second, p.Held(), "by the times of its samples")

	// An exercise that comes back as a file stays one, whether the file says so or its figures do.
	var ran, file strings.Builder
	ran.WriteString("t;P1;Q1;simulated\n")
	file.WriteString("t;P1;Q1\n")
	r := store.Recording{Unit: 1, Attempt: 1, Stand: "practice", ByName: "x", Source: unit.SourceSimulated}
	tr := &trace.Trace{Channels: []string{"pressure", "flow"}}
	for i := range 100 {
		p, q := 170+7*math.Sin(float64(i*i)), 44+math.Cos(float64(3*i))
		tr.Samples = append(tr.Samples, trace.Sample{At: time.Now().Add(time.Duration(i) * 100 * time.Millisecond),
			Values: []float64{p * 1e5, q / 6e4}})
		row := strings.ReplaceAll(fmt.Sprintf("%d.%d;%.1f;%.2f", i/10, i%10, p, q), ".", ",")
		fmt.Fprintf(&ran, "%s;yes\n", row)
		fmt.Fprintf(&file, "%s\n", row)
	}
	_, err = s.server.Store.KeepLog(t.Context(), "T-0417", r, tr)
	require.NoError(t, err)
	for name, log := range map[string]string{"it says so": ran.String(), "its figures do": file.String()} {
		res, body = upload(log, columns)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, name)
		assert.Contains(t, body, "of an exercise on the simulated stand", name)
	}
}

// At a step that reads a standby its calculator stands, filled in with what was read.
func TestAStepLeadsToItsCalculator(t *testing.T) {
	t.Parallel()
	b := serve(t).as("iva")
	u := b.state("T-0405", 1).Unit
	for figure, value := range map[string]string{"standby": "600 psi", "flow": "22 gpm"} {
		res, answer := b.set("T-0405", u.PointRef(0, "standby", figure).String(), value, "")
		require.Equal(t, http.StatusOK, res.StatusCode, answer)
	}
	_, page := b.get("/jobs/T-0405/receive?face=tested")
	m := regexp.MustCompile(`href="(/toolbox/standby[^"]*)"`).FindStringSubmatch(page)
	require.NotNil(t, m)
	_, tool := b.get(html.UnescapeString(m[1]))
	assert.Contains(t, tool, `value="600 psi"`)
	assert.Contains(t, tool, `value="22 gpm"`)
}

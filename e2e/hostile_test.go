package e2e

import (
	"errors"
	"io"
	"net/http"
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/field"
	kept "corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// hostileText is what somebody might type who means no good, or who pastes it: it
// tries to become markup, a script, an address, a template, and to spoil the lines.
const hostileText = `"><script>window.hit=1</script><img src=x onerror="window.hit=1"></textarea></title>` +
	`<svg onload=window.hit=1>'-window.hit-'{{.}}${window.hit=1}javascript:window.hit=1 &lt;b&gt; ` +
	"\u202eABC\u200b\u0301\u0301" + `WWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWWW`

// filled puts the text into every field of text that a job has.
func filled(t *testing.T, s *shop, tag string) (fields int) {
	ctx, who := t.Context(), people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}
	require.NoError(t, s.jobs.AddLoose(ctx, who, tag, 1, hostileText, hostileText, 1))
	require.NoError(t, s.jobs.AddPiece(ctx, who, tag, 1, "K-1", hostileText, 1, ""))
	require.NoError(t, s.jobs.AddAccount(ctx, who, tag, 1, "fitter", hostileText))
	jobtest.ToTheStand(t, s.jobs, tag)
	require.NoError(t, s.jobs.NextAttempt(ctx, who, tag, 1, bench.Change{}))
	st, err := s.jobs.Load(ctx, tag, 1)
	require.NoError(t, err)
	u, part := st.Unit, st.ByCode["rear_plate"]
	ref := map[unit.Scope]func(string) unit.Ref{
		unit.ScopeJob: unit.JobRef, unit.ScopeUnit: u.Ref,
		unit.ScopePart:       func(n string) unit.Ref { return u.PartRef(part.Code, n) },
		unit.ScopeFeature:    func(n string) unit.Ref { return u.FeatureRef(part.Code, part.Features[0].Code, n) },
		unit.ScopeEvidence:   func(n string) unit.Ref { return u.EvidenceRef("milky_oil", n) },
		unit.ScopeConclusion: u.ConclusionRef,
		unit.ScopeDecision:   func(n string) unit.Ref { return u.DecisionRef(part.Code, n) },
		unit.ScopeStep:       func(n string) unit.Ref { return u.StepRef(part.Code, n) },
		unit.ScopeLoose:      func(n string) unit.Ref { return u.LooseRef(1, n) },
		unit.ScopePiece:      func(n string) unit.Ref { return u.PieceRef(u.Kit[len(u.Kit)-1].Number, n) },
		unit.ScopeAttempt:    func(n string) unit.Ref { return u.AttemptRef(1, n) },
		unit.ScopePicture:    func(n string) unit.Ref { return unit.Ref{Scope: unit.ScopePicture, Number: 1, Name: n} },
	}
	for scope, of := range ref {
		for _, f := range entry.Fields(scope) {
			if f.Derived || f.Kind != entry.Line && f.Kind != entry.Area {
				continue
			}
			at := of(f.Name).String()
			_, err := s.jobs.Set(ctx, who, tag, job.Edit{Field: at, Value: hostileText})
			var theirs *job.Conflict
			if errors.As(err, &theirs) {
				_, err = s.jobs.Set(ctx, who, tag, job.Edit{Field: at, Value: hostileText, Base: theirs.Theirs})
			}
			var refused *field.Error
			if errors.As(err, &refused) {
				continue // a field of text that takes only some, such as a list of shims
			}
			require.NoError(t, err, at)
			fields++
		}
	}
	return fields
}

// Whatever is typed into a field is text on every page and paper, and nothing else.
func TestHostileTextStaysText(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	const tag = "T-0417"
	fields := filled(t, s, tag)
	assert.GreaterOrEqual(t, fields, 35)
	ctx := t.Context()
	require.NoError(t, s.jobs.Store.SaveInstrument(ctx, &kept.Instrument{Name: hostileText, Kind: hostileText,
		Resolution: "1 mm"}))
	require.NoError(t, s.jobs.Store.SaveLetterhead(ctx, kept.Letterhead{Name: hostileText, Address: hostileText,
		Sheet: "a4"}, hostileText))
	_, err := s.jobs.Create(ctx, people.Actor{Name: hostileText, Role: people.RoleTechnician},
		job.NewJob{Customer: hostileText, Title: hostileText, Family: "check_valve"})
	require.NoError(t, err)

	u := enter(t, s, "odd", true)
	pages := append(stationPages(), "/jobs", "/jobs?find=window.hit", "/instruments", "/shop", "/shop/store", "/change",
		"/toolbox/shims?measured_clearance=%3Cscript%3Ewindow.hit%3D1%3C/script%3E")
	for _, p := range []string{"record", "report", "dispute", "start-up-card", "tag", "line", "pictures", "pictures/1",
		"receive?face=fluid", "explain?face=matrix", "strip?part=rear_plate", "build?part=rear_plate",
		"decide?part=rear_plate", "strip?find=%3Cimg%20src%3Dx%20onerror%3Dwindow.hit%3D1%3E"} {
		pages = append(pages, "/jobs/"+tag+"/"+p)
	}
	const spoilt = `() => [window.hit, document.querySelectorAll("[onerror], [onload], [onclick], img[src='x'], ` +
		`a[href^='javascript'], script:not([src])").length].join(" ")`
	for _, page := range pages {
		u.MustNavigate(s.URL + page).MustWaitLoad()
		assert.Equal(t, " 0", u.MustEval(spoilt).Str(), page)
	}
	u.quiet()

	// Files are whole, whatever stands in them.
	var cookies []string
	for _, c := range u.MustCookies() {
		cookies = append(cookies, c.Name+"="+c.Value)
	}
	for path, begins := range map[string]string{"report.pdf": "%PDF-", "export": "PK", "line.svg": "<"} {
		req, err := http.NewRequestWithContext(ctx, http.MethodGet, s.URL+"/jobs/"+tag+"/"+path, nil)
		require.NoError(t, err)
		req.Header.Set("Cookie", strings.Join(cookies, "; "))
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		body, err := io.ReadAll(res.Body)
		_ = res.Body.Close()
		require.NoError(t, err)
		assert.Equal(t, http.StatusOK, res.StatusCode, path)
		assert.True(t, strings.HasPrefix(strings.TrimSpace(string(body)), begins), path)
		assert.NotContains(t, string(body), "<script>", path)
	}
}

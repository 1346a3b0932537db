package web

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"net/http/httptest"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/demo"
	"corvek/internal/exchange"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/store/storetest"
	"corvek/internal/whole"

	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
	"pgregory.net/rapid"
)

// A hand that wants PROVED without having deserved it does whatever a technician and a lead can do, in
// any order, over the real handlers. The judge beside it knows nothing of the program's rules: it keeps
// the record of the acts (what was shown last at each step, on what, and what moved since), and says
// whether the claim was earned.

// bench1 is who begins an exercise, which no form does.
var bench1 = people.Actor{Name: "iva", Role: people.RoleTechnician}

// earned holds what the program claims against the record of acts.
func (d *deceiver) earned() {
	st := d.state()
	claim, _ := st.Claim()
	if claim != proof.Proved {
		return
	}
	for _, s := range d.steps() {
		if why := d.j.shown(st.Family, &s.Test); why != "" {
			d.r.Fatalf("%s %s is PROVED, and %s: %s\n  %s", d.code, d.tag, s.Name, why, strings.Join(d.did, "\n  "))
		}
		for _, o := range st.Family.Owes {
			for _, need := range o.Needs {
				if slices.Contains(o.By, s.Code) && d.j.lacks[need] && !slices.Contains(o.May, need) {
					d.r.Fatalf("%s %s is PROVED, and nobody knows the %s\n  %s", d.code, d.tag, need,
						strings.Join(d.did, "\n  "))
				}
			}
		}
		if shown := st.Shown[s.Code]; shown.Judged.Verdict == "out" {
			d.r.Fatalf("%s is PROVED over a row that is out: %s", d.code, s.Name)
		}
	}
}

// proven is a job of a family that was proved honestly, as a document.
type proven struct {
	text  []byte
	sound map[string]map[string]string
}

func (s *served) proven(t *testing.T, code string, clock *time.Time) proven {
	jobs := s.server.Jobs
	tag := jobtest.Built(t, jobs, code)
	jobtest.Test(t, jobs, tag, clock)
	st, err := jobs.Load(t.Context(), tag, 1)
	require.NoError(t, err)
	claim, missing := st.Claim()
	require.Equal(t, proof.Proved, claim, missing)
	out := proven{sound: map[string]map[string]string{}}
	for _, step := range st.Plan() {
		if step.Skipped == "" {
			out.sound[step.Code] = jobtest.Reads(t, st, step.Code)
		}
	}
	var b bytes.Buffer
	require.NoError(t, exchange.Text(&b, st.Job, func(func(unit.Entry, error) bool) {}))
	out.text = b.Bytes()
	return out
}

// bareShop is a shop without a job or an instrument, of a technician and a lead, with the clock it goes by.
func bareShop(t *testing.T) (*served, *atomic.Int64) {
	jobs, err := job.New(storetest.New(t))
	require.NoError(t, err)
	hash, err := bcrypt.GenerateFromPassword([]byte(people.DemoPassword), bcrypt.MinCost)
	require.NoError(t, err)
	for signIn, role := range map[string]string{"iva": people.RoleTechnician, "odd": people.RoleLead} {
		require.NoError(t, jobs.Store.AddPerson(t.Context(), &store.Person{SignIn: signIn, Name: signIn, Initials: "X",
			Role: role, PasswordHash: string(hash)}, "test", "added"))
	}
	app, server, err := New(Config{Jobs: jobs, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	s := &served{httptest.NewServer(app), server, t}
	t.Cleanup(s.Close)
	clock := &atomic.Int64{}
	clock.Store(time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC).UnixNano())
	jobs.Now = func() time.Time { return time.Unix(0, clock.Load()).UTC() }
	return s, clock
}

// cheats is how many times a hundred sequences are tried; the long trial takes more of each hundred.
const cheats = 5

// Nobody gets PROVED by leaving out, by order, by change or by label.
func TestNobodyIsProvedWithoutHavingShownIt(t *testing.T) {
	t.Parallel()
	made := allProven(t)
	codes := slices.Sorted(maps.Keys(made))
	var proved, tested atomic.Int64
	for n := range cheats {
		t.Run(fmt.Sprintf("hundred %d", n+1), func(t *testing.T) {
			t.Parallel()
			s, clock := bareShop(t)
			number, iva, odd := 0, s.as("iva"), s.as("odd")
			rapid.Check(t, func(r *rapid.T) {
				code := rapid.SampledFrom(codes).Draw(r, "family")
				number++
				d := &deceiver{r: r, site: s, iva: iva, odd: odd, tag: fmt.Sprintf("C-%d", number),
					clock: clock, code: code, sound: made[code].sound}
				d.bring(made[code].text)
				for range rapid.IntRange(1, 4).Draw(r, "acts") {
					acts := d.acts()
					acts[d.pick(slices.Sorted(maps.Keys(acts)), "act")]()
					d.earned()
				}
				if claim, _ := d.state().Claim(); claim == proof.Proved {
					proved.Add(1)
				} else {
					tested.Add(1)
				}
			})
		})
	}
	t.Cleanup(func() { // when all hundreds are over
		t.Logf("%d stayed proved, %d did not", proved.Load(), tested.Load())
		if proved.Load() == 0 || tested.Load() == 0 {
			t.Error("the judge was never asked, or nothing ever fell")
		}
	})
}

// allProven makes a job of each family that was proved honestly.
func allProven(t *testing.T) map[string]proven {
	s, clock := bareShop(t)
	at := s.server.Jobs.Now()
	s.server.Jobs.Now = func() time.Time { return at }
	out := map[string]proven{}
	for _, f := range whole.Of(t, s.server.Jobs.Families().List()) {
		out[f.Code] = s.proven(t, f.Code, &at)
	}
	clock.Store(at.UnixNano())
	return out
}

// bring takes the document in as a job of its own, and asks the judge to believe its first test.
func (d *deceiver) bring(text []byte) {
	var content map[string]any
	require.NoError(d.r, json.Unmarshal(text, &content))
	content["tag"] = d.tag
	text, err := json.Marshal(content)
	require.NoError(d.r, err)
	doc, err := exchange.Parse(text)
	require.NoError(d.r, err)
	ctx := d.site.t.Context()
	require.NoError(d.r, exchange.Import(ctx, d.site.server.Jobs, doc, demo.Files, "test"))
	st := d.state()
	claim, missing := st.Claim()
	require.Equal(d.r, proof.Proved, claim, "%s: %v", d.code, missing)
	d.shop, err = d.site.server.Jobs.Shop(ctx, "iva")
	require.NoError(d.r, err)
	d.j = &judge{world: map[string]string{}, duty: st.Duty.Pressure, lacks: map[string]bool{}}
	d.j.world["unit:serial"], d.j.world["unit:fluid"] = st.Unit.Serial, st.Unit.Fluid
	d.j.world["complaint:words"] = st.Job.Complaint
	first := try{closed: true, oil: true, steps: map[string]*tried{}}
	for _, s := range d.steps() {
		done := first.step(s.Code)
		for name, text := range d.sound[s.Code] {
			r := reading{good: true, world: maps.Clone(d.j.world)}
			if name == "pressure" {
				q, _ := quantity.Parse(text, quantity.Pressure)
				r.pressure = q.SI
			}
			done.read[name] = r
		}
		q, _ := quantity.Parse(s.Hold, quantity.Time)
		done.held = time.Duration(q.SI * float64(time.Second))
		done.from, done.to = maps.Clone(d.j.world), maps.Clone(d.j.world)
	}
	d.j.tries = []try{first}
	for _, p := range st.Parts {
		if slices.ContainsFunc(st.Unit.Kit, func(k *unit.Piece) bool { return k.Part == p.Code }) {
			d.bare = append(d.bare, p.Code)
		} else {
			d.kept = append(d.kept, p.Code)
		}
	}
}

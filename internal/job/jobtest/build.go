// Package jobtest brings jobs to where a test begins.
package jobtest

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"

	"github.com/stretchr/testify/require"
)

// who does what the tests need done.
var who = people.Actor{Name: "Iva", Role: people.RoleTechnician}

// ToTheStand builds the first unit of a job as it belongs, fills it, and reads the cautions
// of the test.
func ToTheStand(t testing.TB, s *job.Service, tag string) {
	t.Helper()
	Build(t, s, tag)
	st, err := s.Load(context.Background(), tag, 1)
	require.NoError(t, err)
	for _, station := range []string{"build", "prove"} {
		for _, c := range st.Family.ReadAt(station) {
			require.NoError(t, s.Acknowledge(context.Background(), who, tag, 1, c.Code))
		}
	}
}

// Build fits every part of the first unit of a job as it belongs, last off first on, and fills
// it, in one write.
func Build(t testing.TB, s *job.Service, tag string) {
	t.Helper()
	ctx := context.Background()
	st, err := s.Load(ctx, tag, 1)
	require.NoError(t, err)
	shop, err := s.Shop(ctx, who.Name)
	require.NoError(t, err)
	require.NoError(t, s.Store.Update(ctx, tag, func(j *unit.Job, _ store.History) (*store.Change, error) {
		for _, place := range st.Places {
			if !slices.ContainsFunc(j.Unit(1).Kit, func(k *unit.Piece) bool { return k.Part == place.Part }) {
				j.Unit(1).AddPiece("", place.Name, place.Need, place.Part)
			}
		}
		for _, v := range values(st, shop) {
			place, f, err := entry.Resolve(j, v.ref, shop)
			if err != nil {
				return nil, err
			}
			if err := place.Write(f, v.text); err != nil {
				return nil, fmt.Errorf("%s: %w", v.ref, err)
			}
		}
		return &store.Change{Job: j, Entries: []unit.Entry{{Who: who.Name, At: shop.Now, Action: "built"}}}, nil
	}))
}

type value struct {
	ref  unit.Ref
	text string
}

// values are what is entered of a build without a fault.
func values(st *bench.State, shop *entry.Shop) (out []value) {
	u := st.Unit
	for _, p := range st.InOrder() {
		say := func(name, text string) { out = append(out, value{u.StepRef(p.Code, name), text}) }
		joint := p.Part.Joint
		if p.Def.Bolt != nil && joint.Thread == "" && joint.Torque.IsZero() { // read off the head, or out of the book
			for _, v := range jointOf(u, p) {
				out = append(out, v)
				switch v.ref.Name {
				case "thread":
					joint.Thread = v.text
				case "class":
					joint.Class = v.text
				}
			}
		}
		if _, right := build.FittingWays(p.Def); right != "" {
			say("facing", right)
		}
		if p.AsksFeel() {
			say("turn", "free")
		}
		if must, asked := st.CountsIn(p); asked {
			say("count", fmt.Sprint(must))
		}
		switch {
		case p.Stack == nil:
		case p.Def.Stack.As != "":
			say("stack_fit", p.Def.Stack.As)
		default:
			say("stack_fit", "shim=0.10mm")
		}
		if st.Track(p).Worn() {
			say("press", "1.5 mm")
		}
		if j, bolted := build.JointOf(p.Def, joint); bolted {
			tight, err := build.Tighten(j)
			switch {
			case err != nil || tight.Unknown:
			case tight.Torque > 0:
				say("torque", fmt.Sprintf("%.1f N·m", tight.Torque))
			default:
				say("torque", "60 N·m")
			}
		}
		if p.Def.Reaches {
			say("cycled", entry.Yes)
		}
		for _, w := range p.Going() {
			out = append(out, value{u.ReworkRef(p.Code, w.Code, "flat_how"), unit.FlatBlued})
		}
		say("done", entry.Yes)
	}
	for _, f := range st.Filling() {
		out = append(out, value{u.FillRef(f.Code), shop.Now.UTC().Format("2006-01-02T15:04:05Z")})
	}
	return out
}

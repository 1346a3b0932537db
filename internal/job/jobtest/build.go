// Package jobtest brings jobs to where a test begins.
package jobtest

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"corvek/core/entry"
	"corvek/core/invented"
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
		for _, v := range invented.Built(st, shop.Now) {
			place, f, err := entry.Resolve(j, v.Ref, shop)
			if err != nil {
				return nil, err
			}
			if err := place.Write(f, v.Text); err != nil {
				return nil, fmt.Errorf("%s: %w", v.Ref, err)
			}
		}
		return &store.Change{Job: j, Entries: []unit.Entry{{Who: who.Name, At: shop.Now, Action: "built"}}}, nil
	}))
}

package store_test

import (
	"testing"
	"time"

	"corvek/core/quantity"
	"corvek/core/workshop"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTheShopBehindTheBenchIsKept(t *testing.T) {
	s, ctx := storetest.New(t), t.Context()
	ane := &store.Person{SignIn: "ane", Name: "Ane", Role: "lead"}
	require.NoError(t, s.AddPerson(ctx, ane, "Ane", "added"))
	before, err := s.WorkshopVersion(ctx)
	require.NoError(t, err)

	require.NoError(t, s.SaveHands(ctx, &workshop.Hands{PersonID: ane.ID, Skills: []string{"bench", "test"},
		Hours: "Mon-Fri 7-15"}, "Ane", "hours"))
	require.NoError(t, s.AddAbsence(ctx, &workshop.Absence{PersonID: ane.ID, From: "2031-05-12", To: "2031-05-14",
		Note: "fair"}, "Ane", "away"))
	require.NoError(t, s.AddAbsence(ctx, &workshop.Absence{PersonID: ane.ID, From: "2031-04-01", To: "2031-04-02"},
		"Ane", "away"))
	require.NoError(t, s.CloseDay(ctx, &workshop.ClosedDay{Day: "2031-05-17", Name: "feast"}, "Ane", "closed"))
	pressure, _ := quantity.Parse("400 bar", quantity.Pressure)
	require.NoError(t, s.SavePlace(ctx, &workshop.Place{Name: "stand 1", Kind: "stand"}, "Ane", "place"))
	require.NoError(t, s.SavePlace(ctx, &workshop.Place{Name: "stand 1", Kind: "stand", Pressure: pressure}, "Ane",
		"place"))

	w, err := s.Workshop(ctx, "2031-05-10")
	require.NoError(t, err)
	assert.Equal(t, []workshop.Hands{{PersonID: ane.ID, Name: "Ane", Skills: []string{"bench", "test"},
		Hours: "Mon-Fri 7-15"}}, w.Hands)
	require.Len(t, w.Absences, 1, "what is over is not read")
	assert.EqualValues(t, "2031-05-14", w.Absences[0].To)
	assert.Equal(t, []workshop.ClosedDay{{Day: "2031-05-17", Name: "feast"}}, w.Closed)
	require.Len(t, w.Places, 1)
	assert.Equal(t, "400 bar", w.Places[0].Pressure.Typed)

	after, err := s.WorkshopVersion(ctx)
	require.NoError(t, err)
	assert.Greater(t, after, before)

	require.NoError(t, s.DropAbsence(ctx, w.Absences[0].ID, "Ane", "back"))
	require.NoError(t, s.OpenDay(ctx, "2031-05-17", "Ane", "open"))
	require.NoError(t, s.DropPlace(ctx, w.Places[0].ID, "Ane", "gone"))
	w, err = s.Workshop(ctx, "2031-05-10")
	require.NoError(t, err)
	assert.Empty(t, w.Absences)
	assert.Empty(t, w.Closed)
	assert.Empty(t, w.Places)
}

func TestPinsAndTheDaysPlanAreKept(t *testing.T) {
	s, ctx := storetest.New(t), t.Context()
	at := time.Date(2031, 5, 15, 8, 0, 0, 0, time.UTC)
	prove := workshop.Key{Tag: "T-1", Unit: 1, Code: "prove"}
	for _, person := range []string{"Bo", "Ane"} {
		require.NoError(
			t,
			s.SavePin(ctx, &store.PlanPin{Spot: workshop.Spot{Key: prove, Person: person, Start: &at}, ByName: "Ane"}),
		)
	}
	pins, err := s.PlanPins(ctx)
	require.NoError(t, err)
	require.Len(t, pins, 1)
	assert.Equal(t, "Ane", pins[0].Person)
	assert.True(t, at.Equal(*pins[0].Start))
	require.NoError(t, s.DropPin(ctx, prove))
	pins, err = s.PlanPins(ctx)
	require.NoError(t, err)
	assert.Empty(t, pins)

	spots := []workshop.Spot{{Key: workshop.Key{Tag: "T-1", Unit: 1, Code: "build"}, Person: "Ane", Start: &at}}
	kept, err := s.KeepPlan(ctx, &store.PlanDay{Day: "2031-05-14", Spots: spots})
	require.NoError(t, err)
	assert.True(t, kept)
	kept, err = s.KeepPlan(ctx, &store.PlanDay{Day: "2031-05-14", Spots: []workshop.Spot{}})
	require.NoError(t, err)
	assert.False(t, kept, "the plan that the day began with stays")
	none, err := s.PlanBefore(ctx, "2031-05-14")
	require.NoError(t, err)
	assert.Nil(t, none)
	stood, err := s.PlanBefore(ctx, "2031-05-15")
	require.NoError(t, err)
	require.Len(t, stood.Spots, 1)
	assert.Equal(t, spots[0].Key, stood.Spots[0].Key)
	assert.True(t, at.Equal(*stood.Spots[0].Start))
}

package job_test

import (
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/unit"
	"corvek/core/workshop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// received lists the kit as name, count and place.
func received(st *bench.State) map[string][2]any {
	out := map[string][2]any{}
	for _, k := range st.Unit.Kit {
		out[k.Name+" "+k.Code] = [2]any{k.Count, k.Part}
	}
	return out
}

// A pack leaves its rest on a line of its own, a piece goes by itself only where it fits one
// place, and a list is taken whole or not at all.
func TestPiecesFindTheirPlaces(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	ctx := t.Context()
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/seal_outer/seal_maker_no", "K32-1")
	require.NoError(
		t,
		s.AddPieces(ctx, iva, tag, 1, "number;name;count;for\nK32-1;seal;1\n;gasket;1\n;rear gasket;1\n"+
			"P9;retaining ring;100;seal_ring"),
	)
	st := load(t, s, tag)
	assert.Equal(t, map[string][2]any{"seal K32-1": {1, "seal_outer"}, "gasket ": {1, ""},
		"rear gasket ": {1, "rear_gasket"}, "retaining ring P9": {99, ""}}, received(st),
		"the last of two lines of a name is the rest of the pack")
	for _, k := range st.Pieces {
		if k.Name == "gasket" {
			assert.Equal(t, []string{"front_gasket"}, k.Fits, "the rear one is filled now")
			require.NoError(t, s.JoinPiece(ctx, iva, tag, 1, k.Number, "front_gasket"))
		}
	}
	assert.Contains(t, received(load(t, s, tag)), "gasket ")
	assert.Equal(t, "front_gasket", received(load(t, s, tag))["gasket "][1])

	before := len(load(t, s, tag).Unit.Kit)
	for _, bad := range []string{"x;ring;many", "x;ring;1;;WOOD", "x;ring;1;;NBR;soon",
		"number;name;for\n1;ring;nowhere"} {
		assert.Error(t, s.AddPieces(ctx, iva, tag, 1, bad), bad)
	}
	assert.Len(t, load(t, s, tag).Unit.Kit, before)
	assert.Error(t, s.JoinPiece(ctx, iva, tag, 1, 1, "body"), "no new one goes there")
	assert.Error(t, s.JoinPiece(ctx, iva, tag, 1, 77, "front_gasket"))
}

// A new piece that was tried and measured not to fit loses to the original, unless that cannot
// go back either.
func TestANewPieceThatDoesNotFitLoses(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	put(t, s, tag, "u1/part/control_spool/decision/choice", "replace")
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "C-7", "control spool", 1, "control_spool"))
	put(t, s, tag, "u1/piece/1/fit", unit.FitTight)
	put(t, s, tag, "u1/part/control_spool/decision/choice", "")
	spool := func() *bench.Part { return load(t, s, tag).ByCode["control_spool"] }
	assert.NotContains(t, spool().Proposal.Reason, "too tight", "a word without a measure decides nothing")
	put(t, s, tag, "u1/piece/1/fit_gap", "0.001 mm")
	assert.Equal(t, decide.Keep, spool().Choice())
	assert.Contains(t, spool().Proposal.Reason, "too tight, 0.001 mm measured there")
	for _, issue := range load(t, s, tag).KitIssues {
		assert.NotEqual(t, 1, issue.Piece, "it needs no other reason")
	}
}

// An order that is awaited makes the job wait for parts; the piece that comes ends it.
func TestTheJobWaitsForItsParts(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/front_gasket/order_state", unit.OrderBack)
	assert.Equal(t, "parts", load(t, s, tag).Job.Waiting)
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "front gasket", 1, ""))
	assert.Equal(t, "technician", load(t, s, tag).Job.Waiting)
}

// The days of an order are noted as it is placed and as the last piece of it is there, and tell the next plan how long
// that supplier took.
func TestAnOrderKeepsItsDays(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	order := func() unit.Order { return load(t, s, tag).ByCode["front_gasket"].Order }
	put(t, s, tag, "u1/part/front_gasket/order_state", unit.OrderWanted)
	assert.Empty(t, order().Placed, "nobody ordered it yet")
	put(t, s, tag, "u1/part/front_gasket/order_supplier", "Brenn & Holt")
	put(t, s, tag, "u1/part/front_gasket/order_state", unit.OrderPlaced)
	today := unit.DateOf(s.Now())
	require.Equal(t, today, order().Placed)
	put(t, s, tag, "u1/part/front_gasket/order_state", unit.OrderWanted)
	assert.Empty(t, order().Placed, "a press too many: it was not ordered after all")
	put(t, s, tag, "u1/part/front_gasket/order_state", unit.OrderPlaced)
	put(t, s, tag, "u1/part/front_gasket/order_placed", string(today.Add(-9)))
	put(t, s, tag, "u1/part/front_gasket/order_state", unit.OrderBack)
	assert.Equal(t, today.Add(-9), order().Placed, "what was noted stays")
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "front gasket", 1, ""))
	assert.Equal(t, today, order().Came)
	over, err := s.Store.Waited(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []workshop.PieceCame{{Supplier: "Brenn & Holt", Days: 9}}, over.Orders)
}

// A rubber that the job's fluid swells, and one that is too old today, stop the kit.
func TestRubbersAreHeldAgainstTheJob(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "master_cylinder")
	put(t, s, tag, "u1/fluid", "DOT 4 brake fluid")
	var cup string
	for _, p := range load(t, s, tag).Parts {
		if p.Place != nil {
			cup = p.Code
			break
		}
	}
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "cup", 1, cup))
	put(t, s, tag, "u1/piece/1/material", "NBR")
	open := func() (kinds []unit.StopKind) {
		for _, stop := range load(t, s, tag).Stops["kit"] {
			if stop.Number == 1 {
				kinds = append(kinds, stop.Kind)
			}
		}
		return kinds
	}
	assert.Equal(t, []unit.StopKind{unit.StopSeal}, open())
	put(t, s, tag, "u1/piece/1/material", "EPDM")
	assert.Empty(t, open())
	put(t, s, tag, "u1/piece/1/cure", "1999-Q1")
	assert.Equal(t, []unit.StopKind{unit.StopSeal}, open())
}

// A piece that is left over is held against the unit's own kept parts, its variants and the
// other units of the job.
func TestALeftOverPieceIsComparedElsewhere(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	_, err := s.AddUnit(t.Context(), iva, tag, "external_gear_pump", "Feed pump")
	require.NoError(t, err)
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "front needles", 1, ""))
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "swash bearings", 1, ""))
	st := load(t, s, tag)
	assert.Contains(t, st.Pieces[0].Elsewhere, "unit 2, Feed pump: front needles")
	assert.Contains(t, strings.Join(st.Pieces[1].Elsewhere, "; "), "has swash bearings")
}

// A kit of another build is refused by what its bag says; what two kits leave alike is linked; how long a piece takes
// is what the parts wait for, where nobody said it of all.
func TestAKitOfAnotherBuildIsRefused(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "vane_pump")
	put(t, s, tag, "u1/variant", "Left-hand cartridge")
	err := edit(s, t.Context(), iva, tag, "u1/kit_came", "Cartridge kit R", "")
	assert.ErrorContains(
		t,
		err,
		"belongs to right-hand cartridge; this one is left-hand cartridge and takes cartridge kit L",
	)
	put(t, s, tag, "u1/kit_came", "cartridge kit L")

	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "R-77", "plastic ring", 1, ""))
	assert.NotContains(t, strings.Join(load(t, s, tag).Pieces[0].Elsewhere, " "), "left over too")
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "R-77", "ring, plastic", 1, ""))
	assert.Contains(t, strings.Join(load(t, s, tag).Pieces[0].Elsewhere, " "), "line 2 is left over too")

	put(t, s, tag, "u1/part/rotor/off", "yes")
	put(t, s, tag, "u1/part/rotor/decision/choice", "replace")
	put(t, s, tag, "u1/part/rotor/order_days", "18")
	put(t, s, tag, "job/rebuild_days", "2")
	states, err := s.LoadAll(t.Context(), tag)
	require.NoError(t, err)
	assert.InDelta(t, 20, bench.OffersOf(states).Rebuild.Days, 1e-9, "two at the bench behind eighteen for the rotor")
	put(t, s, tag, "job/parts_days", "5")
	states, err = s.LoadAll(t.Context(), tag)
	require.NoError(t, err)
	assert.InDelta(t, 7, bench.OffersOf(states).Rebuild.Days, 1e-9, "as it was said of all")
}

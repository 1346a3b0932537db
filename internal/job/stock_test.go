package job_test

import (
	"errors"
	"math/rand"
	"sync"
	"testing"

	"corvek/core/field"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// drawer fills a line of the stock with lots of so many, and gives their codes.
func drawer(t *testing.T, s *job.Service, item *stock.Item, counts ...int) (codes []string) {
	t.Helper()
	var lots []store.NewLot
	for _, n := range counts {
		lots = append(lots, store.NewLot{Item: item, Lot: stock.Lot{Left: n, Cure: "2030-Q1", CameOn: "2031-05-01"}})
	}
	require.NoError(t, s.Store.TakeIn(t.Context(), lots, "Ane", "came"))
	for _, l := range lots {
		codes = append(codes, l.Lot.Code)
	}
	return codes
}

// left is how many pieces of a lot are there.
func left(t *testing.T, s *job.Service, code string) int {
	t.Helper()
	all, err := s.Store.Stock(t.Context())
	require.NoError(t, err)
	if _, l := all.Lot(code); l != nil {
		return l.Left
	}
	return 0
}

func TestAPieceIsTakenOfADrawerAndPutBack(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), t.Context()
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/seal_outer/seal_maker_no", "K32-1")
	put(t, s, tag, "u1/fluid", "mineral oil VG 46")
	lot := drawer(t, s, &stock.Item{Number: "K32-1", Name: "Shaft seal", Material: "NBR", Drawer: "A1"}, 4)[0]

	st := load(t, s, tag)
	found, err := s.StockFor(ctx, st)
	require.NoError(t, err)
	require.Len(t, found.Offers["seal_outer"], 1)
	assert.Equal(t, 1, found.Offers["seal_outer"][0].Take)

	require.NoError(t, s.Book(ctx, iva, tag, 1, "seal_outer", found.Offers["seal_outer"][0].Item.ID))
	found, err = s.StockFor(ctx, st)
	require.NoError(t, err)
	assert.Equal(t, 1, found.Booked["seal_outer"].Count)

	// The label of the drawer is read where a bag's number is asked: it goes to the place it is for, and the
	// promise is kept.
	require.NoError(t, s.AddPiece(ctx, iva, tag, 1, "https://bench.example/stock/lots/"+lot, "", 1, ""))
	st = load(t, s, tag)
	k := st.Unit.Kit[len(st.Unit.Kit)-1]
	assert.Equal(
		t,
		[]string{"seal_outer", lot, "2030-Q1", "NBR"},
		[]string{k.Part, k.Lot, k.Seal.Cure, k.Seal.Material},
	)
	assert.Equal(t, 3, left(t, s, lot))
	found, err = s.StockFor(ctx, st)
	require.NoError(t, err)
	assert.Empty(t, found.Booked)

	require.NoError(t, undo(t, s, iva, tag))
	assert.Equal(t, 4, left(t, s, lot), "what is taken back lies in the drawer again")

	require.NoError(t, s.Take(ctx, iva, tag, 1, lot, 3, "seal_outer"))
	assert.Equal(t, 1, left(t, s, lot))
	var rest int
	for _, k := range load(t, s, tag).Unit.Kit {
		if k.Lot == lot && k.Part == "" {
			rest = k.Number
			assert.Equal(t, 2, k.Count, "the place wants one")
		}
	}
	code, err := s.PutToStock(ctx, iva, tag, 1, rest, "")
	require.NoError(t, err)
	assert.Equal(t, lot, code)
	assert.Equal(t, 3, left(t, s, lot))
	for _, issue := range load(t, s, tag).KitIssues {
		assert.NotContains(t, issue.Text, "left over", "what lies in the drawer is no piece left over")
	}
	require.Error(t, s.Take(ctx, iva, tag, 1, lot, 4, "seal_outer"), "there are three")
	require.Error(t, s.Take(ctx, iva, tag, 1, "S-NONE22", 1, ""))
	_, err = s.PutToStock(ctx, iva, tag, 1, rest, "")
	require.Error(t, err, "it lies there already")
}

// The rest of a bag that was bought for one job becomes a lot that the next one takes.
func TestTheRestOfABagGoesToTheStock(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), t.Context()
	first, second := newUnit(t, s, "external_gear_pump"), newUnit(t, s, "external_gear_pump")
	require.NoError(t, s.AddPieces(ctx, iva, first, 1,
		"number;name;count;size;material;cure\nP9;O-ring;10;24.2 x 3;NBR;2030-Q2"))
	require.Len(t, load(t, s, first).Unit.Kit, 1)
	code, err := s.PutToStock(ctx, iva, first, 1, 1, "B7")
	require.NoError(t, err)
	all, err := s.Store.Stock(ctx)
	require.NoError(t, err)
	item, lot := all.Lot(code)
	require.NotNil(t, lot)
	assert.Equal(
		t,
		[]any{"P9", "B7", 10, "2030-Q2", first},
		[]any{item.Number, item.Drawer, lot.Left, lot.Cure, lot.FromTag},
	)

	require.NoError(t, s.Take(ctx, iva, second, 1, code, 8, ""))
	assert.Equal(t, 2, left(t, s, code))
	err = undo(t, s, iva, first)
	var fault *field.Error
	require.ErrorAs(t, err, &fault, "eight of them are with another job")
	assert.Equal(t, 2, left(t, s, code))
	require.NoError(t, undo(t, s, iva, second))
	require.NoError(t, undo(t, s, iva, first))
	assert.Zero(t, left(t, s, code))
}

// What another job is promised is not taken from under it, and what was hurt when it was tried goes to nobody.
func TestPromisedAndDamagedPiecesStayWhereTheyAre(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), t.Context()
	first, second := newUnit(t, s, "external_gear_pump"), newUnit(t, s, "external_gear_pump")
	item := &stock.Item{Number: "K32-1", Name: "Shaft seal", Material: "NBR"}
	lot := drawer(t, s, item, 2)[0]
	put(t, s, first, "u1/part/seal_outer/seal_maker_no", "K32-1")
	err := s.Book(ctx, iva, second, 1, "seal_outer", item.ID)
	require.ErrorContains(t, err, "may go there", "its number is not known")
	require.NoError(t, s.Book(ctx, iva, first, 1, "seal_outer", item.ID))
	require.ErrorContains(t, s.Take(ctx, iva, second, 1, lot, 2, ""), "1 to "+first)
	assert.Equal(t, 2, left(t, s, lot))
	require.NoError(t, s.Take(ctx, iva, second, 1, lot, 1, ""))
	require.NoError(t, s.Take(ctx, iva, first, 1, lot, 1, "seal_outer"), "its own promise is kept")

	put(t, s, second, "u1/piece/1/fit", unit.FitNicked)
	require.NoError(t, s.JoinPiece(ctx, iva, second, 1, 1, ""))
	_, err = s.PutToStock(ctx, iva, second, 1, 1, "")
	require.ErrorContains(t, err, "damaged")
	_, err = s.Set(ctx, iva, second, job.Edit{Field: "u1/piece/1/fit", Value: unit.FitWrong, Base: unit.FitNicked})
	require.NoError(t, err)
	_, err = s.PutToStock(ctx, iva, second, 1, 1, "")
	require.NoError(t, err, "a good piece of another build goes back")
	assert.Equal(t, 1, left(t, s, lot))
}

// Two benches reach into a drawer at once: what is taken never exceeds what was there.
func TestManyHandsInOneDrawerAtOnce(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), t.Context()
	lot := drawer(t, s, &stock.Item{Name: "Shim"}, 5)[0]
	var wait sync.WaitGroup
	var turn sync.Mutex
	took := 0
	for range 4 {
		tag := newUnit(t, s, "external_gear_pump")
		wait.Go(func() {
			for range 3 {
				err := s.Take(ctx, iva, tag, 1, lot, 1, "")
				turn.Lock()
				if err == nil {
					took++
				} else {
					var fault *field.Error
					assert.True(t, errors.As(err, &fault), "%v", err)
				}
				turn.Unlock()
			}
		})
	}
	wait.Wait()
	assert.Equal(t, 5, took)
	assert.Zero(t, left(t, s, lot))
}

// Whatever hands do: what came and was counted is what lies in the drawers and what jobs hold, and the lines of
// what came and went say the same.
func TestTheDrawersAgreeWithTheJobs(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), t.Context()
	random := rand.New(rand.NewSource(7))
	tags := []string{newUnit(t, s, "external_gear_pump"), newUnit(t, s, "axial_piston_pump")}
	item := &stock.Item{Number: "P9", Name: "O-ring"}
	lots := drawer(t, s, item, 20, 20)
	brought := 40 // in all, also by bags whose rest was put there
	for range 120 {
		tag := tags[random.Intn(2)]
		kit := load(t, s, tag).Unit.Kit
		switch random.Intn(5) {
		case 0, 1:
			_ = s.Take(ctx, iva, tag, 1, lots[random.Intn(2)], 1+random.Intn(4), "")
		case 2:
			if len(kit) > 0 {
				_, _ = s.PutToStock(ctx, iva, tag, 1, kit[random.Intn(len(kit))].Number, "")
			}
		case 3:
			_ = s.AddPiece(ctx, iva, tag, 1, "P9", "O-ring", 1+random.Intn(3), "")
		case 4:
			if act, err := s.Store.LastAct(ctx, tag, iva.Name); err == nil && act != nil {
				_ = s.Undo(ctx, iva, tag, act.Version)
			}
		}
	}
	held, given := 0, 0
	for _, tag := range tags {
		for _, k := range load(t, s, tag).Unit.Kit {
			if k.Lot != "" && k.ToLot == "" {
				held += k.Count
			}
			if k.Lot == "" && k.ToLot != "" {
				given += k.Count
			}
		}
	}
	all, err := s.Store.Stock(ctx)
	require.NoError(t, err)
	lying := all.Item(item.ID).Left()
	assert.Equal(t, brought+given, held+lying)
	moves, err := s.Store.Moves(ctx, item.ID)
	require.NoError(t, err)
	sum := 0
	for _, m := range moves {
		sum += m.Delta
	}
	assert.Equal(t, lying, sum)
	assert.NotZero(t, held)
	assert.NotZero(t, given)
}

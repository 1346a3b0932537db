package stock_test

import (
	"bytes"
	"math/rand"
	"strings"
	"testing"

	"corvek/core/kit"
	"corvek/core/stock"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Storage groups of ISO 2230: A 5 + 2 years, B 7 + 3, C 10 + 5; a quarter counts from its last day.
func TestAgeOfALot(t *testing.T) {
	for _, c := range []struct {
		material, cure string
		today          unit.Date
		verdict        string
		good, ends     unit.Date
		soon           bool
	}{
		{"NBR", "2024-06-23", "2031-05-14", "good", "2031-06-23", "2034-06-23", true},
		{"NBR", "2024-06-23", "2031-04-24", "good", "2031-06-23", "2034-06-23", false}, // 60 days before
		{"NBR", "2024-06-23", "2031-04-25", "good", "2031-06-23", "2034-06-23", true},
		{"NBR", "2024-06-23", "2031-06-23", "good", "2031-06-23", "2034-06-23", true},
		{"NBR", "2024-06-23", "2031-06-24", "extend", "2031-06-23", "2034-06-23", false},
		{"NBR", "2024-06-23", "2034-06-24", "expired", "2031-06-23", "2034-06-23", false},
		{"pu", "2025-02-14", "2031-05-14", "extend", "2030-02-14", "2032-02-14", false},
		{"FKM", "2021-Q1", "2031-05-14", "extend", "2031-03-31", "2036-03-31", false},
	} {
		a := stock.AgeOf(c.material, c.cure, c.today)
		assert.True(t, a.Known, c)
		assert.Equal(t, c.verdict, a.Verdict, "%v", c)
		assert.Equal(t, [2]unit.Date{c.good, c.ends}, [2]unit.Date{a.Good, a.Ends}, "%v", c)
		assert.Equal(t, c.soon, a.Soon, "%v", c)
	}
	for _, none := range [][2]string{{"PTFE", "2020-Q1"}, {"steel", "2020-Q1"}, {"NBR", ""}, {"NBR", "spring"}} {
		assert.False(t, stock.AgeOf(none[0], none[1], "2031-05-14").Known, none)
	}
}

func ring(id uint, material string, lots ...stock.Lot) *stock.Item {
	return &stock.Item{ID: id, Name: "O-ring", Size: "24.2 x 3", Material: material, Lots: lots}
}

func wants(open int) stock.Place {
	return stock.Place{
		Tag:     "T-0001",
		Unit:    1,
		Want:    kit.Want{Part: "ring", Kind: "o_ring", Size: "24.2 x 3", Open: open},
		Setting: kit.Setting{Fluid: "mineral oil VG 46", Today: "2031-05-14"},
	}
}

func codes(offers []stock.Offer) (out []string) {
	for _, o := range offers {
		out = append(out, o.Lot.Code)
	}
	return out
}

// What goes bad first is taken first, what must be looked at after what is good, what does not go in last.
func TestWhatGoesBadFirstIsTakenFirst(t *testing.T) {
	s := &stock.Stock{Items: []*stock.Item{
		ring(
			1,
			"NBR",
			stock.Lot{Code: "young", Left: 5, Cure: "2030-Q1"},
			stock.Lot{Code: "old", Left: 5, Cure: "2025-Q1"},
			stock.Lot{Code: "over", Left: 5, Cure: "2023-Q1"},
		),
		ring(2, "EPDM", stock.Lot{Code: "swells", Left: 5, Cure: "2030-Q4"}),
		{ID: 3, Name: "O-ring", Size: "26 x 3", Material: "NBR", Lots: []stock.Lot{{Code: "other", Left: 5}}},
	}}
	offers := s.Offers(wants(2))
	require.Equal(t, []string{"old", "young", "over", "swells"}, codes(offers))
	assert.Equal(t, 2, offers[0].Take)
	assert.Contains(t, offers[2].Says, "look at it")
	assert.False(t, offers[2].Stops)
	assert.True(t, offers[3].Stops, "EPDM does not bear mineral oil")
	p := wants(2)
	p.Material = "FKM"
	assert.Contains(t, s.Offers(p)[0].Says, "the one that was in is FKM")
}

// What is promised to another job is not offered; what is promised to this one comes first.
func TestBookedPiecesAreKept(t *testing.T) {
	s := &stock.Stock{Items: []*stock.Item{
		ring(1, "NBR", stock.Lot{Code: "a", Left: 3, Cure: "2025-Q1"}),
		ring(2, "NBR", stock.Lot{Code: "b", Left: 3, Cure: "2030-Q1"}),
	}}
	s.Items[0].Bookings = []stock.Booking{{Tag: "T-0002", Unit: 1, Part: "ring", ItemID: 1, Count: 2}}
	s.Items[1].Bookings = []stock.Booking{{Tag: "T-0001", Unit: 1, Part: "ring", ItemID: 2, Count: 1}}
	offers := s.Offers(wants(3))
	require.Equal(t, []string{"b", "a"}, codes(offers))
	assert.Equal(t, []int{3, 1}, []int{offers[0].Take, offers[1].Take})
	assert.True(t, offers[0].Booked)
	s.Items[0].Bookings[0].Count = 3
	assert.Equal(t, []string{"b"}, codes(s.Offers(wants(3))))
	item, n := s.BookedFor("T-0002", 1, "ring")
	assert.Equal(t, []any{s.Items[0], 3}, []any{item, n})
	assert.True(t, (&stock.Item{Minimum: 1}).Low("2031-05-14"))
	old := ring(9, "NBR", stock.Lot{Left: 9, Cure: "2015-Q1"})
	old.Minimum = 2
	assert.True(t, old.Low("2031-05-14"), "what is too old is not there")
	assert.Equal(t, 4, old.Lacks("2031-05-14"))
	assert.True(t, s.Items[0].Left()-s.Items[0].Booked() == 0)
}

// However pieces are promised: no offer holds more than lies there, and all that others are promised can still be
// taken.
func TestOffersLeaveWhatOthersArePromised(t *testing.T) {
	random := rand.New(rand.NewSource(1))
	for range 2000 {
		i := ring(1, "NBR")
		for k := range 1 + random.Intn(3) {
			i.Lots = append(i.Lots, stock.Lot{Code: string(rune('a' + k)), Left: 1 + random.Intn(5), Cure: "2030-Q1"})
		}
		others := random.Intn(i.Left() + 1)
		if others > 0 {
			i.Bookings = []stock.Booking{{Tag: "T-0002", Unit: 1, Part: "x", Count: others}}
		}
		open := 1 + random.Intn(6)
		for _, o := range (&stock.Stock{Items: []*stock.Item{i}}).Offers(wants(open)) {
			require.Positive(t, o.Take)
			require.LessOrEqual(t, o.Take, min(o.Lot.Left, open))
			require.GreaterOrEqual(t, i.Left()-o.Take, others)
		}
	}
}

func TestCodesOfLots(t *testing.T) {
	code := stock.Code([]byte{0, 1, 2, 29, 30, 255})
	assert.Equal(t, "S-234Z2H", code)
	for text, want := range map[string]string{code: code, " s-234z2h ": code,
		"https://bench.example/stock/lots/S-234Z2H": code} {
		got, is := stock.IsCode(text)
		assert.True(t, is, text)
		assert.Equal(t, want, got)
	}
	for _, none := range []string{"", "S-", "S-12", "T-0417", "S-10OI", "SB2-07", "S-234Z2H4567"} {
		_, is := stock.IsCode(none)
		assert.False(t, is, none)
	}
}

// A list that is written is read back to the same lines; what is wrong is said with its line.
func TestListsOfTheStock(t *testing.T) {
	came, err := stock.ReadList("number;name;qty;size;material;cured;drawer;min;price\n" +
		"R-1;O-ring;12;-214;nbr;2030-Q1;A1;4;0,35\nR-1;O-ring;6;-214;nbr;2031-Q1;A1;4;0.35\n;;;;;;;;\n")
	require.NoError(t, err)
	require.Len(t, came, 2)
	assert.Equal(t, "NBR", came[0].Item.Material)
	assert.InDelta(t, 0.35, came[0].Item.Price.SI, 1e-12)
	s := &stock.Stock{}
	laid := s.Lay(came)
	assert.Same(t, laid[0].Item, laid[1].Item, "of one number they are one line")
	for k, l := range laid {
		l.Item.Lots = append(l.Item.Lots, stock.Lot{Code: string(rune('a' + k)), Left: l.Count, Cure: l.Cure})
	}
	s.Items = append(s.Items, laid[0].Item)
	var b bytes.Buffer
	require.NoError(t, s.WriteList(&b))
	assert.Contains(t, b.String(), ",'-214,", "a spreadsheet takes it for no formula")
	again, err := stock.ReadList(b.String())
	require.NoError(t, err)
	require.Len(t, again, 2)
	for k := range again {
		assert.Equal(t, [2]any{came[k].Count, came[k].Cure}, [2]any{again[k].Count, again[k].Cure})
		assert.Equal(t, came[k].Item.Says(), again[k].Item.Says())
		assert.Same(t, s.Items[0], s.Lay(again)[k].Item)
	}
	for text, says := range map[string]string{"": "is a list", "number;name\nS-2345;ring": "label of a drawer",
		"name;count\nring;many": "whole number", "name;cured\nring;spring": "quarter",
		"name;price\nring;cheap": "money"} {
		_, err := stock.ReadList(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func FuzzReadList(f *testing.F) {
	f.Add("number;name;count\nR-1;O-ring;2")
	f.Add("a,b,c,d,e,f,g,h,i,j,k,l\n\"")
	f.Fuzz(func(t *testing.T, text string) {
		came, err := stock.ReadList(text)
		if err != nil {
			return
		}
		for _, c := range came {
			if c.Item.Name == "" || c.Count < 0 || strings.TrimSpace(c.Item.Name) != c.Item.Name {
				t.Fatalf("%q gives %+v", text, c)
			}
		}
	})
}

package family_test

import (
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func draft(t *testing.T, code string) *family.Draft {
	t.Helper()
	text, err := family.ShippedText(code)
	require.NoError(t, err)
	d, err := family.ReadDraft(text)
	require.NoError(t, err)
	return d
}

func load(t *testing.T, d *family.Draft) *family.Family {
	t.Helper()
	f, err := family.Load("draft.yaml", []byte(d.Text()))
	require.NoError(t, err, d.Text())
	return f
}

// A family taken up and written again without an act is the same family.
func TestADraftKeepsWhatItReads(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for code, f := range lib {
		d := draft(t, code)
		for i, l := range d.Lines() {
			d.SetLine(i, l)
		}
		for i, v := range d.Variants() {
			d.SetVariant(i, v)
		}
		g := load(t, d)
		require.Len(t, g.Parts, len(f.Parts), code)
		for i := range f.Parts {
			assert.Equal(t, f.Parts[i].Code, g.Parts[i].Code, code)
			assert.Equal(t, f.Parts[i].Count, g.Parts[i].Count, code)
			assert.Len(t, g.Parts[i].Features, len(f.Parts[i].Features), code)
		}
		for i := range f.VariantRules {
			own, err := g.As(f.VariantRules[i].Code, nil)
			require.NoError(t, err)
			was, err := f.As(f.VariantRules[i].Code, nil)
			require.NoError(t, err)
			assert.Len(t, own.Parts, len(was.Parts), "%s %s", code, f.VariantRules[i].Code)
		}
	}
}

// Parts and assemblies are put in, taken out, moved and changed, a variant is written,
// and the family loads after each act.
func TestAFamilyIsWrittenActByAct(t *testing.T) {
	d := draft(t, "gerotor_pump")
	n := len(load(t, d).Parts)
	d.SetWord("code", "tarn_gerotor")
	d.SetWord("name", "Tarn gerotor pump")
	d.AddLine(0, family.DraftLine{Name: "Wear plate", Kind: "plate", Count: 2})
	d.AddLine(len(d.Lines())-1, family.DraftLine{Assembly: "check_valve", Branch: "Check valve", Count: 2})
	f := load(t, d)
	assert.Equal(t, "Tarn gerotor pump", f.Name)
	assert.Len(t, f.Parts, n+1+2*3, "a plate, and two check valves of three parts")
	plate, ok := f.PartByCode("wear_plate")
	require.True(t, ok)
	assert.Equal(t, 2, plate.Count)
	_, ok = f.PartByCode("check_valve_2.ball")
	assert.True(t, ok)

	d.AddLine(0, family.DraftLine{Name: "Wear plate", Kind: "o_ring"})
	second, ok := load(t, d).PartByCode("wear_plate_2")
	require.True(t, ok, "a code of its own")
	assert.True(t, second.Renew, "what is soft is renewed")
	d.RemoveLine(1)
	_, ok = load(t, d).PartByCode("wear_plate_2")
	assert.False(t, ok)
	d.MoveLine(1, -1)
	assert.Equal(t, "wear_plate", load(t, d).Parts[0].Code)
	line := d.Lines()[0]
	line.Name, line.Count, line.Renew = "Bronze plate", 3, true
	d.SetLine(0, line)
	assert.Equal(t, "Bronze plate", load(t, d).Parts[0].Name)
	assert.Equal(t, 3, load(t, d).Parts[0].Count)

	d.AddVariant(family.DraftVariant{Name: "Short rotor", Suffix: []string{"SH"}, Kit: "kit SH",
		Without: []string{"check_valve_2"}, Counts: map[string]int{"wear_plate": 1}})
	f = load(t, d)
	own, err := f.As("Short rotor", nil)
	require.NoError(t, err)
	assert.Len(t, own.Parts, len(f.Parts)-3)
	assert.Equal(t, 1, own.CountOf("wear_plate"))
	variants := d.Variants()
	last := variants[len(variants)-1]
	last.Without, last.Counts = nil, nil
	d.SetVariant(len(variants)-1, last)
	assert.NotContains(t, d.Text(), "without:\n")
	own, err = load(t, d).As("Short rotor", nil)
	require.NoError(t, err)
	assert.Len(t, own.Parts, len(f.Parts))
	d.RemoveVariant(len(variants) - 1)
	assert.Len(t, d.Variants(), len(variants)-1)
}

func TestADraftRefusesWhatIsNoFamily(t *testing.T) {
	for _, text := range []string{"", "- a\n- b", "code: [", "x"} {
		_, err := family.ReadDraft(text)
		assert.Error(t, err, "%q", text)
	}
}

// Whatever acts come, with whatever places and counts, none panics and the text stays one
// that can be taken up again.
func TestDraftActsAtRandom(t *testing.T) {
	text, err := family.ShippedText("vane_pump")
	require.NoError(t, err)
	rapid.Check(t, func(r *rapid.T) {
		d, err := family.ReadDraft(text)
		require.NoError(r, err)
		for range rapid.IntRange(1, 12).Draw(r, "acts") {
			i, word := rapid.IntRange(-3, 40).Draw(r, "place"), rapid.StringN(0, 12, 40).Draw(r, "word")
			switch rapid.IntRange(0, 6).Draw(r, "act") {
			case 0:
				d.AddLine(i, family.DraftLine{Name: word, Kind: "plate", Count: i})
			case 1:
				d.AddLine(i, family.DraftLine{Assembly: "check_valve", Branch: word, Count: i})
			case 2:
				d.RemoveLine(i)
			case 3:
				d.MoveLine(i, rapid.IntRange(-1, 1).Draw(r, "by"))
			case 4:
				d.SetLine(i, family.DraftLine{Name: word, Count: i, Branch: word})
			case 5:
				d.AddVariant(family.DraftVariant{Name: word, Suffix: []string{word}, Without: []string{"magnet"}})
			case 6:
				d.SetVariant(i, family.DraftVariant{Name: word, Counts: map[string]int{"vanes": i}})
			}
		}
		again, err := family.ReadDraft(d.Text())
		require.NoError(r, err)
		require.Len(r, again.Lines(), len(d.Lines()))
	})
}

package entry_test

import (
	"math"
	"strings"
	"sync"
	"testing"
	"time"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type anything struct{}

func (anything) KnowsMark(code string) bool  { return code != "unheard_of" }
func (anything) KnowsCause(code string) bool { return code == "fair_wear" }

// families are read once: that is the slow part.
var families = sync.OnceValues(family.Shipped)

// bench is a gear pump with everything that can be addressed on it.
func bench(t *testing.T) (*unit.Job, *entry.Shop) {
	t.Helper()
	lib, err := families()
	require.NoError(t, err)
	noon := time.Date(2031, 5, 14, 12, 0, 0, 0, time.UTC)
	shop := &entry.Shop{
		Family:    func(u *unit.Unit) *family.Family { return lib[u.Family] },
		Knowledge: func(string) entry.Knowledge { return anything{} },
		Tools: shop.Instruments{
			"micrometer 3": {Name: "Micrometer 3", Resolution: "0.001 mm"},
		},
		Who: "Iva",
		Now: noon,
	}
	u := unit.New(lib["external_gear_pump"], 1, "Iva", noon)
	u.Part("rear_plate").Feature("side_clearance").Lower = quantity.Kept("3 thou", quantity.Length, "")
	u.AddLoose("needle", "sump", 1)
	u.AddPiece("K-1", "ring", 1, "")
	j := &unit.Job{Tag: "T-1", Title: "Pump", ReceivedOn: "2031-05-14", Policy: "on_condition",
		Waiting: entry.WaitTechnician, Units: []*unit.Unit{u}}
	j.AddPicture(&unit.Picture{Name: "a.jpg", Unit: 1})
	return j, shop
}

func set(j *unit.Job, shop *entry.Shop, ref, value string) error {
	r, err := unit.ParseRef(ref)
	if err != nil {
		return err
	}
	p, f, err := entry.Resolve(j, r, shop)
	if err != nil {
		return err
	}
	return p.Write(f, value)
}

func get(t *testing.T, j *unit.Job, shop *entry.Shop, ref string) string {
	t.Helper()
	r, err := unit.ParseRef(ref)
	require.NoError(t, err)
	p, f, err := entry.Resolve(j, r, shop)
	require.NoError(t, err)
	return f.Get(p)
}

func TestRefusalsSayWhatIsAccepted(t *testing.T) {
	for _, c := range []struct{ ref, value, says string }{
		{"job/title", "", "cannot be left empty"},
		{"job/title", strings.Repeat("x", entry.MostLine+1), "longer than 400"},
		{"job/waiting", "godot", "use technician"},
		{"job/promised_on", "soon", "is a date like"},
		{"job/promised_on", "2031-05-13", "before the unit came in"},
		{"job/promised_on", "2061-05-13", "ten years"},
		{"job/labour_hours", "6 bar", "time"},
		{"job/parts_cost", "-3", "below zero"},
		{"job/warranty_hold", "maybe", "use yes or nothing"},
		{"job/received_on", "2031-01-01", "field that can be set"},
		{"job/no_such", "x", "field that can be set"},
		{"u1/speed", "1450 bar", "pressure"},
		{"u1/speed", "1450", "needs a unit"},
		{"u1/rotation", "sideways", "use right, left, both"},
		{"u1/shims_available", "0.05 mm x0", "whole number"},
		{"u1/gauge/weather", "fine", "not known"},
		{"u1/gauge/new_unit", "perhaps", "not offered"},
		{"u2/speed", "1450 rpm", "no unit 2"},
		{"u1/evidence/unheard_of/state", "seen", "not known"},
		{"u1/evidence/fine_lines/origin", "", "cannot be left empty"},
		{"u1/conclusion/cause", "gremlins", "not a cause"},
		{"u1/loose/1/part", "wing", "not a part"},
		{"u1/loose/2/part", "key", "is not a field"},
		{"u1/loose/1/what", "pin", "field that can be set"},
		{"u1/part/wing/found", "1", "is not a field"},
		{"u1/part/key/found", "1.5", "whole number"},
		{"u1/part/key/found", "+1", "whole number"},
		{"u1/part/key/stack_found", "disc>", "no stack"},
		{"u1/part/front_plate/facing", "up", "use bronze to the gears"},
		{"u1/part/key/step/turn", "drags evenly", "use free"},
		{"u1/part/rear_plate/feature/side_clearance/upper", "1 thou", "above the upper"},
		{"u1/part/rear_plate/feature/side_clearance/found/leaf:7 thou", "wobbles", "goes, drags or stops"},
		{"u1/part/rear_plate/feature/side_clearance/found/r1c1", "1 mm", "not a place of this sheet"},
		{"u1/attempt/0/point/p100/flow", "plenty", "number"},
		{"u1/attempt/0/point/none/flow", "1 L/min", "not known"},
		{"picture/9/caption", "x", "is not a field"},
	} {
		j, shop := bench(t)
		before := j.Clone()
		assert.ErrorContains(t, set(j, shop, c.ref, c.value), c.says, "%s = %q", c.ref, c.value)
		assert.Equal(t, before, j, "nothing was written")
	}
}

// A bare figure takes the unit that stood in the field; a figure with a unit, a
// count and a word stay as they are.
func TestBareFigureTakesTheUnitOfItsField(t *testing.T) {
	j, shop := bench(t)
	for _, c := range []struct{ ref, typed, unit, kept string }{
		{"u1/part/drive_gear/feature/journal/found/r1c1", "19.991", "mm", "19.991 mm"},
		{"u1/part/drive_gear/feature/journal/found/r1c1", " 0.7872 ", "in", "0.7872 in"},
		{"u1/part/drive_gear/feature/journal/found/r1c1", "19.991 mm", "in", "19.991 mm"},
		{"u1/part/drive_gear/feature/journal/found/r1c1", "7/8", "in", "7/8 in"},
		{"u1/part/rear_plate/feature/face/found/grade", "3", "mm", "3"},
		{"u1/part/rear_plate/feature/side_clearance/found/leaf:7 thou", "goes", "thou", "goes"},
		{"u1/duty_pressure", "175", "bar", "175 bar"},
		{"u1/duty_pressure", "strong", "bar", "strong"},
		{"u1/duty_pressure", "", "bar", ""},
		{"u1/part/key/found", "1", "mm", "1"},
		{"job/parts_cost", "310", "mm", "310"},
		{"u1/fluid", "46", "bar", "46"},
	} {
		r, err := unit.ParseRef(c.ref)
		require.NoError(t, err)
		p, f, err := entry.Resolve(j, r, shop)
		require.NoError(t, err)
		assert.Equal(t, c.kept, f.With(p, c.typed, c.unit), "%s: %q in %s", c.ref, c.typed, c.unit)
	}
}

// Looking a value up changes nothing; the first word of a new round starts from
// the last one of the round before, and both are kept.
func TestRounds(t *testing.T) {
	j, shop := bench(t)
	u := j.Units[0]
	before := j.Clone()
	for _, ref := range []string{"u1/part/key/decision/choice", "u1/part/key/step/done",
		"u1/evidence/fine_lines/state", "u1/conclusion/cause", "u1/attempt/0/point/p100/flow"} {
		assert.Empty(t, get(t, j, shop, ref))
	}
	assert.Equal(t, before, j)
	require.NoError(t, set(j, shop, "u1/part/key/decision/choice", "replace"))
	require.NoError(t, set(j, shop, "u1/part/key/decision/reason", "worn"))
	require.NoError(t, set(j, shop, "u1/part/key/step/done", entry.Yes))
	require.NoError(t, set(j, shop, "u1/conclusion/cause", "fair_wear"))
	u.Rounds = append(u.Rounds, &unit.Round{Number: 2})
	assert.Equal(t, "replace", get(t, j, shop, "u1/part/key/decision/choice"))
	assert.Equal(t, entry.Yes, get(t, j, shop, "u1/part/key/step/done"), "a part that nobody touched stays built")
	require.NoError(t, set(j, shop, "u1/part/key/decision/choice", "keep"))
	key := u.Part("key")
	require.Len(t, key.Decisions, 2)
	assert.Equal(t, "replace", key.Decisions[0].Choice)
	assert.Equal(t, "worn", key.Decisions[1].Reason, "taken over")
	assert.Equal(t, "Iva", key.Steps[0].By)
	require.NoError(t, set(j, shop, "u1/part/key/step/done", ""))
	require.Len(t, key.Steps, 2, "what was done in the round before stays")
	assert.True(t, key.Steps[0].Done)
	assert.False(t, key.Built(2).Done)
	assert.True(t, key.Built(1).Done)
}

func TestToolBringsItsResolution(t *testing.T) {
	j, shop := bench(t)
	at := "u1/part/drive_gear/feature/journal/"
	require.NoError(t, set(j, shop, at+"instrument", "Micrometer 3"))
	assert.Equal(t, "0.001 mm", get(t, j, shop, at+"resolution"))
	require.NoError(t, set(j, shop, at+"resolution", "0.002 mm"))
	require.NoError(t, set(j, shop, at+"instrument", "a borrowed one"))
	assert.Equal(t, "0.002 mm", get(t, j, shop, at+"resolution"))
}

// A closed attempt stays as it was, but for what may be said of it later.
func TestClosedAttemptStays(t *testing.T) {
	j, shop := bench(t)
	j.Units[0].Attempts[0].Closed = true
	assert.ErrorContains(t, set(j, shop, "u1/attempt/0/point/p100/flow", "40 L/min"), "closed")
	assert.ErrorContains(t, set(j, shop, "u1/attempt/0/one_change", "bled"), "closed")
	assert.NoError(t, set(j, shop, "u1/attempt/0/note", "loud at the end"))
}

func TestWarrantyHoldKeepsThePartsOn(t *testing.T) {
	j, shop := bench(t)
	j.WarrantyHold = true
	assert.ErrorContains(t, set(j, shop, "u1/part/key/off", entry.Yes), "warranty hold")
}

// What was kept before and cannot be read any more stays to be seen and is no
// number: nothing may be worked out from it.
func TestUnreadableIsNoNumber(t *testing.T) {
	j, _ := bench(t)
	f, ok := entry.Find(unit.ScopeUnit, "speed")
	require.True(t, ok)
	p := &entry.Place{Unit: j.Units[0]}
	require.NoError(t, f.Load(p, "quite fast"))
	assert.Equal(t, "quite fast", f.Get(p))
	assert.True(t, math.IsNaN(j.Units[0].Speed.SI))
}

// The table itself: names once a scope, labels for people, a unit wherever a
// bare figure could be meant.
func TestTableIsSound(t *testing.T) {
	scopes := []unit.Scope{
		unit.ScopeJob, unit.ScopePicture, unit.ScopeUnit, unit.ScopeEvidence, unit.ScopeConclusion, unit.ScopeLoose,
		unit.ScopePiece,
		unit.ScopeAttempt, unit.ScopePoint, unit.ScopePart, unit.ScopeDecision, unit.ScopeStep, unit.ScopeFeature,
		unit.ScopeReading,
	}
	for _, scope := range scopes {
		names := map[string]bool{}
		require.NotEmpty(t, entry.Fields(scope), scope)
		for _, f := range entry.Fields(scope) {
			assert.False(t, names[f.Name], "%s %s is there twice", scope, f.Name)
			names[f.Name] = true
			assert.Regexp(t, `^[a-z][a-z_]*$`, f.Name, "a name is a column and a member of documents")
			assert.NotEmpty(t, f.Label, f.Name)
			assert.Equal(t, f.Kind == entry.Choice, f.Choices != nil, "%s %s", scope, f.Name)
			if f.Kind == entry.Quantity && f.Bare != "" {
				_, err := quantity.ParseDefault("1", f.Dim, f.Bare)
				assert.NoError(t, err)
			}
		}
	}
}

// FuzzSet writes anything anywhere: it is refused or kept as typed, never a panic.
func FuzzSet(f *testing.F) {
	lib, err := family.Shipped()
	if err != nil {
		f.Fatal(err)
	}
	shop := &entry.Shop{Family: func(u *unit.Unit) *family.Family { return lib[u.Family] },
		Knowledge: func(string) entry.Knowledge { return anything{} }}
	for _, seed := range [][2]string{
		{"u1/speed", "1450 rpm"}, {"u1/part/rear_plate/feature/side_clearance/found/leaf:7 thou", "goes"},
		{"job/symptom/weak_hot", "yes"},
		{"u1/shims_available", "0.05 mm x2, 2 thou"}, {"job/promised_on", "2031-05-27"}, {"u1/gauge/inlet", "good"},
	} {
		f.Add(seed[0], seed[1])
	}
	f.Fuzz(func(t *testing.T, ref, value string) {
		u := unit.New(lib["external_gear_pump"], 1, "", time.Time{})
		j := &unit.Job{Tag: "T-1", Units: []*unit.Unit{u}}
		if set(j, shop, ref, value) != nil {
			return
		}
		if got := get(t, j, shop, ref); got != value {
			t.Fatalf("%s: typed %q, kept %q", ref, value, got)
		}
	})
}

// What is special of a field it says itself.
func TestAFieldSaysWhatItIs(t *testing.T) {
	for address, is := range map[string]func(*entry.Field) bool{
		"u1/conclusion/cause":          func(f *entry.Field) bool { return f.Signed },
		"u1/part/key/off":              func(f *entry.Field) bool { return f.Opens && !f.Signed },
		"u1/variant":                   func(f *entry.Field) bool { return f.Lays },
		"u1/more/section":              func(f *entry.Field) bool { return f.Lays },
		"u1/fill/case":                 func(f *entry.Field) bool { return f.Clocked },
		"u1/part/key/step/done":        func(f *entry.Field) bool { return f.Fits },
		"job/lesson":                   func(f *entry.Field) bool { return f.Closing },
		"u1/evidence/conclusion/state": func(f *entry.Field) bool { return !f.Signed },
	} {
		f, ok := entry.Of(address)
		if assert.True(t, ok, address) {
			assert.True(t, is(f), address)
		}
	}
	_, ok := entry.Of("u1/conclusion/")
	assert.False(t, ok)
	assert.True(t, entry.Together("u1/part/key/off", "u1/part/key/found"))
	for first, second := range map[string]string{"u1/part/key/off": "u1/part/pin/found",
		"u1/part/key/found": "u1/part/key/off", "u1/part/pin/off": "u1/conclusion/cause", "": ""} {
		assert.False(t, entry.Together(first, second), "%s with %s", first, second)
	}
}

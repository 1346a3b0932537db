package unit_test

import (
	"fmt"
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func ExampleRef() {
	u := &unit.Unit{Number: 1}
	fmt.Println(u.Ref("speed"))
	fmt.Println(u.PartRef("front_needles", "found"))
	fmt.Println(u.ReadingRef("rear_plate", "side_clearance", unit.StageFound, "leaf:7 thou"))
	r, err := unit.ParseRef("u2/part/pocket_2.lower_valve/feature/seat/upper")
	fmt.Println(r.Unit, r.Part, r.Feature, r.Name, err)
	// Output:
	// u1/speed
	// u1/part/front_needles/found
	// u1/part/rear_plate/feature/side_clearance/found/leaf:7 thou
	// 2 pocket_2.lower_valve seat upper <nil>
}

func TestEveryScopeIsReadAsItIsWritten(t *testing.T) {
	u := &unit.Unit{Number: 3}
	for want, r := range map[string]unit.Ref{
		"job/title":                              unit.JobRef("title"),
		"job/symptom/weak_hot":                   unit.SymptomRef("weak_hot"),
		"picture/2/caption":                      {Scope: unit.ScopePicture, Number: 2, Name: "caption"},
		"u3/speed":                               u.Ref("speed"),
		"u3/gauge/case_drain":                    u.GaugeRef("case_drain"),
		"u3/identity/bleed_top":                  u.IdentityRef("bleed_top"),
		"u3/evidence/fine_lines/state":           u.EvidenceRef("fine_lines", "state"),
		"u3/conclusion/cause":                    u.ConclusionRef("cause"),
		"u3/loose/1/part":                        u.LooseRef(1, "part"),
		"u3/piece/4/place":                       u.PieceRef(4, "place"),
		"u3/attempt/0/note":                      u.AttemptRef(0, "note"),
		"u3/attempt/2/point/p100/flow":           u.PointRef(2, "p100", "flow"),
		"u3/part/key/off":                        u.PartRef("key", "off"),
		"u3/part/key/decision/choice":            u.DecisionRef("key", "choice"),
		"u3/part/key/mark/sheared/state":         u.PartMarkRef("key", "sheared", "state"),
		"u3/part/key/step/torque":                u.StepRef("key", "torque"),
		"u3/part/key/feature/width/upper":        u.FeatureRef("key", "width", "upper"),
		"u3/part/k/feature/w/found/v1":           u.ReadingRef("k", "w", "found", "v1"),
		"u3/part/k/feature/w/built/leaf:1/64 in": u.ReadingRef("k", "w", "built", "leaf:1/64 in"),
	} {
		assert.Equal(t, want, r.String())
		got, err := unit.ParseRef(want)
		require.NoError(t, err, want)
		assert.Equal(t, r, got)
	}
}

func TestWhatIsNoAddressIsRefused(t *testing.T) {
	for _, text := range []string{
		"", "/", "job", "job/", "job/title/x", "job/symptom", "u1", "u1/", "u0/speed", "u-1/speed", "u01/speed",
		"ux/speed", "v1/speed", "1/speed",
		"u1/gauge", "u1/part/key", "u1/part/key/", "u1/part//found", "u1/part/key/feature/w",
		"u1/part/key/feature/w/later/v1",
		"u1/evidence/x", "u1/evidence//state", "u1/loose/x/part", "u1/loose/1", "u1/attempt/1/point/p100",
		"picture/x/caption", "picture/1", "unit.3.speed",
		"u99999999999999999999/speed", "u1/part/key/step/done/now",
	} {
		_, err := unit.ParseRef(text)
		assert.Error(t, err, text)
	}
}

func FuzzParseRef(f *testing.F) {
	f.Add("u1/part/key/feature/width/found/v1")
	f.Add("job/symptom/weak_hot")
	f.Add("u1/attempt/2/point/p100/flow")
	f.Fuzz(func(t *testing.T, text string) {
		if r, err := unit.ParseRef(text); err == nil && r.String() != text {
			t.Fatalf("%q is read as %q", text, r)
		}
	})
}

func TestStopCodes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := unit.StopCode{
			Unit:    rapid.IntRange(1, 12).Draw(t, "unit"),
			Station: rapid.SampledFrom([]string{"receive", "strip", "kit"}).Draw(t, "station"),
			Kind:    rapid.SampledFrom(unit.StopKinds).Draw(t, "kind"),
		}
		if c.Kind == unit.StopLoose || c.Kind == unit.StopPiece || c.Kind == unit.StopSeal ||
			c.Kind == unit.StopOutside && rapid.Bool().Draw(t, "of a further cause") {
			c.Number = rapid.IntRange(1, 500).Draw(t, "number")
		} else if rapid.Bool().Draw(t, "of a part") {
			c.Part = rapid.StringMatching(`[a-z][a-z0-9_.-]{0,12}`).Draw(t, "part")
			if rapid.Bool().Draw(t, "of a feature") {
				c.Feature = rapid.StringMatching(`[a-z][a-z0-9_]{0,12}`).Draw(t, "feature")
			}
		}
		got, ok := unit.ParseStopCode(c.String())
		if !ok || got != c {
			t.Fatalf("%s is read as %+v", c, got)
		}
	})
	for _, text := range []string{"", "u1/strip", "u1/strip/dragons", "u0/strip/short/key", "u1.strip.short.key",
		"u1/strip/short/a/b/c", "u1/strip/loose/x"} {
		_, ok := unit.ParseStopCode(text)
		assert.False(t, ok, text)
	}
}

package exchange_test

import (
	"context"
	"fmt"
	"maps"
	"runtime"
	"strings"
	"testing"

	"corvek/core/field"
	"corvek/internal/exchange"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A bad value is refused with its path and in words, and nothing of the job stays.
func TestImportRefusesWithThePathOfTheBadValue(t *testing.T) {
	s, ctx := service(t), context.Background()
	part := func(more map[string]any) map[string]any {
		more["code"] = "rear_plate"
		return map[string]any{"parts": []any{more}}
	}
	feature := func(more map[string]any) map[string]any {
		more["code"] = "side_clearance"
		return part(map[string]any{"features": []any{more}})
	}
	reading := func(more map[string]any) map[string]any {
		return feature(map[string]any{"readings": []any{more}})
	}
	asked := func(more map[string]any) map[string]any {
		one := map[string]any{"unit": 1, "kind": "refit", "due_on": "2031-06-01", "asked_by": "Iva Brask"}
		maps.Copy(one, more)
		return map[string]any{"follow_ups": []any{one}}
	}
	cases := []struct {
		path string
		job  map[string]any
		unit map[string]any
		root map[string]any
	}{
		{path: "job.tag", job: map[string]any{"tag": "../T 1"}},
		{path: "job.tag", job: map[string]any{"tag": nil}},
		{path: "job.title", job: map[string]any{"title": " \u0020"[:0]}},
		{path: "job.title", job: map[string]any{"title": 7}},
		{path: "job.waiting", job: map[string]any{"waiting": "godot"}},
		{path: "job.policy", job: map[string]any{"policy": "guess"}},
		{path: "reopenings[0].reason", root: map[string]any{"reopenings": []any{map[string]any{"reason": " ", "by": "x",
			"handed_over_at": "2031-02-01T00:00:00Z", "at": "2031-02-02T00:00:00Z"}}}},
		{path: "reopenings[0].handed_over_at", root: map[string]any{"reopenings": []any{map[string]any{
			"reason": "back", "by": "x", "at": "2031-02-02T00:00:00Z"}}}},
		{path: "follow_ups[0].kind", root: asked(map[string]any{"kind": "weather"})},
		{path: "follow_ups[0].due_on", root: asked(map[string]any{"due_on": "soon"})},
		{path: "follow_ups[0].unit", root: asked(map[string]any{"unit": 7})},
		{path: "follow_ups[0].result", root: asked(map[string]any{"result": "perhaps"})},
		{path: "follow_ups[0].answered_by", root: asked(map[string]any{"result": "good"})},
		{path: "job.received_on", job: map[string]any{"received_on": "soon"}},
		{path: "job.received_on", job: map[string]any{"received_on": nil}},
		{path: "job.promised_on", job: map[string]any{"promised_on": "2030-12-24"}},
		{path: "job.handed_over_at", job: map[string]any{"handed_over_at": "2030-12-24T10:00:00Z"}},
		{path: "job.labour_hours", job: map[string]any{"labour_hours": "-3 h"}},
		{path: "job.parts_cost", job: map[string]any{"parts_cost": "many"}},
		{path: "job.symptoms[0]", job: map[string]any{"symptoms": []any{"grumpy"}}},
		{path: "job.surprise", job: map[string]any{"surprise": 1}},
		{path: "job.complaint", job: map[string]any{"complaint": strings.Repeat("x", 4001)}},
		{path: "customer.name", root: map[string]any{"customer": map[string]any{"name": ""}}},
		{path: "units", root: map[string]any{"units": []any{}}},
		{path: "units", root: map[string]any{"units": "none"}},
		{path: "units[0].family", unit: map[string]any{"family": "zeppelin"}},
		{path: "units[0].speed", unit: map[string]any{"speed": "1450 bar"}},
		{path: "units[0].rotation", unit: map[string]any{"rotation": "sideways"}},
		{path: "units[0].shims_fitted", unit: map[string]any{"shims_fitted": "a few"}},
		{path: "units[0].gauge.weather", unit: map[string]any{"gauge": map[string]any{"weather": "fine"}}},
		{path: "units[0].identity.halo", unit: map[string]any{"identity": map[string]any{"halo": "yes"}}},
		{path: "units[0].parts[0].code", unit: map[string]any{"parts": []any{map[string]any{"code": "wing"}}}},
		{path: "units[0].parts[0].kind", unit: map[string]any{"parts": []any{map[string]any{"code": "wing",
			"kind": "dragon", "name": "x"}}}},
		{path: "units[0].parts[0].code", unit: map[string]any{"parts": []any{map[string]any{"code": "a wing/1",
			"kind": "spacer", "name": "x"}}}},
		{path: "units[0].parts[0].expected", unit: part(map[string]any{"expected": -1})},
		{path: "units[0].parts[0].found", unit: part(map[string]any{"found": "-1"})},
		{path: "units[0].parts[0].off", unit: part(map[string]any{"off": "perhaps"})},
		{path: "units[0].parts[0].facing", unit: part(map[string]any{"facing": "inside out"})},
		{path: "units[0].parts[0].stuck", unit: part(map[string]any{"stuck": "glued"})},
		{path: "units[0].parts[0].stack_found", unit: part(map[string]any{"stack_found": "disc>"})},
		{path: "units[0].parts[0].features[0].code", unit: part(map[string]any{
			"features": []any{map[string]any{"code": "mood"}}})},
		{path: "units[0].parts[0].features[0].upper", unit: feature(map[string]any{"lower": "7 thou",
			"upper": "3 thou"})},
		{path: "units[0].parts[0].features[0].standing", unit: feature(map[string]any{"standing": "gospel"})},
		{path: "units[0].parts[0].features[0].readings[0].stage",
			unit: reading(map[string]any{"stage": "later", "slot": "leaf:7 thou", "value": "goes"})},
		{path: "units[0].parts[0].features[0].readings[0].slot",
			unit: reading(map[string]any{"stage": "found", "slot": "r1c1", "value": "1 mm"})},
		{path: "units[0].parts[0].features[0].readings[0].value",
			unit: reading(map[string]any{"stage": "found", "slot": "leaf:7 thou", "value": "wobbles"})},
		{path: "units[0].parts[0].features[0].readings[0].round",
			unit: reading(map[string]any{"round": 4, "stage": "found", "slot": "leaf:7 thou", "value": "goes"})},
		{path: "units[0].parts[0].features[0].readings[0].at",
			unit: reading(map[string]any{"stage": "found", "slot": "leaf:7 thou", "value": "goes", "at": "noon"})},
		{path: "units[0].parts[0].decisions[0].choice",
			unit: part(map[string]any{"decisions": []any{map[string]any{"round": 1, "choice": "pray"}}})},
		{path: "units[0].parts[0].steps[0].turn", unit: part(map[string]any{
			"steps": []any{map[string]any{"round": 1, "turn": "like butter"}}})},
		{path: "units[0].parts[0].steps[0].torque", unit: part(map[string]any{
			"steps": []any{map[string]any{"round": 1, "torque": "tight"}}})},
		{path: "units[0].rounds[1].number", unit: map[string]any{"rounds": []any{map[string]any{"number": 1},
			map[string]any{"number": 3}}}},
		{path: "units[0].loose[0].part", unit: map[string]any{"loose": []any{map[string]any{"what": "chip",
			"count": 1, "part": "wing"}}}},
		{path: "units[0].loose[0].count", unit: map[string]any{"loose": []any{map[string]any{"what": "chip",
			"count": 0}}}},
		{path: "units[0].kit[0].place", unit: map[string]any{"kit": []any{map[string]any{"name": "ring", "count": 1,
			"place": "wing"}}}},
		{path: "units[0].kit[1]", unit: map[string]any{"kit": []any{map[string]any{"line": 1, "name": "a",
			"count": 1}, map[string]any{"line": 1, "name": "b", "count": 1}}}},
		{path: "units[0].evidence[0].code", unit: map[string]any{"evidence": []any{map[string]any{"round": 1,
			"code": "bad_vibes", "state": "seen"}}}},
		{path: "units[0].evidence[0].state", unit: map[string]any{"evidence": []any{map[string]any{"round": 1,
			"code": "fine_lines", "state": "felt"}}}},
		{path: "units[0].conclusions[0].cause", unit: map[string]any{"conclusions": []any{map[string]any{"round": 1,
			"cause": "gremlins"}}}},
		{path: "units[0].attempts[0].points[0].code", unit: map[string]any{
			"attempts": []any{map[string]any{"number": 0, "round": 1, "source": "typed",
				"points": []any{map[string]any{"code": "p999"}}}}}},
		{path: "units[0].attempts[0].points[0].flow", unit: map[string]any{
			"attempts": []any{map[string]any{"number": 0, "round": 1, "source": "typed",
				"points": []any{map[string]any{"code": "p100", "flow": "plenty"}}}}}},
		{path: "units[0].attempts[0].source", unit: map[string]any{"attempts": []any{map[string]any{"number": 0,
			"round": 1, "source": "dreamt"}}}},
		{path: "units[0].attempts", unit: map[string]any{"attempts": []any{map[string]any{"number": 1, "round": 1,
			"source": "typed"}}}},
		{path: "acknowledgements[0].caution", root: map[string]any{
			"acknowledgements": []any{map[string]any{"caution": "dragons", "by": "Iva"}}}},
		{path: "stop_passes[0].code", root: map[string]any{
			"stop_passes": []any{map[string]any{"code": "let me through", "reason": "x", "by": "Odd"}}}},
		{path: "stop_passes[0].code", root: map[string]any{
			"stop_passes": []any{map[string]any{"code": "u2/strip/still_on", "reason": "x", "by": "Odd"}}}},
		{path: "stop_passes[0].reason", root: map[string]any{
			"stop_passes": []any{map[string]any{"code": "u1/strip/still_on", "by": "Odd"}}}},
		{path: "attachments[0].part", root: map[string]any{"attachments": []any{map[string]any{"file": "x",
			"name": "x", "part": "wing"}}}},
		{path: "attachments[0].unit", root: map[string]any{"attachments": []any{map[string]any{"file": "x",
			"name": "x", "unit": 3}}}},
		{path: "attachments[0].marks[0].x", root: map[string]any{"attachments": []any{map[string]any{"file": "x",
			"name": "x", "marks": []any{map[string]any{"x": 3, "y": 0.5}}}}}},
		{path: "attachments[0].file", root: map[string]any{
			"attachments": []any{map[string]any{"file": "files/none.png", "name": "x"}}}},
		{path: "worked_figures[0].calculator", root: map[string]any{
			"worked_figures": []any{map[string]any{"calculator": "oracle", "inputs": map[string]any{},
				"answer": map[string]any{}}}}},
		{path: "worked_figures[0].inputs", root: map[string]any{
			"worked_figures": []any{map[string]any{"calculator": "mesh", "answer": map[string]any{}}}}},
		{path: "record[0].at", root: map[string]any{"record": []any{map[string]any{"who": "x", "at": "then",
			"action": "set"}}}},
		{path: "record[0].brought", root: map[string]any{"record": []any{map[string]any{"who": "x",
			"at": "2031-01-01T00:00:00Z", "action": "set", "brought": "no"}}}},
		{path: "job.withdrawn_at", job: map[string]any{"withdrawn_at": "lately"}},
		{path: "job.withdrawn_reason", job: map[string]any{"withdrawn_reason": strings.Repeat("x", 401)}},
		{path: "job.tag", job: map[string]any{"tag": strings.Repeat("T", 41)}},
		{path: "job.tag", job: map[string]any{"tag": "T-1'; DROP TABLE jobs"}},
		{path: "job.promised_on", job: map[string]any{"promised_on": "9031-01-01"}},
		{path: "job.warranty_hold", job: map[string]any{"warranty_hold": "maybe"}},
		{path: "job.timer_until", job: map[string]any{"timer_until": "in a while"}},
		{path: "customer.nickname", root: map[string]any{"customer": map[string]any{"name": "x", "nickname": "y"}}},
		{path: "units[0].name", unit: map[string]any{"name": []any{"n"}}},
		{path: "units[0].duty_pressure", unit: map[string]any{"duty_pressure": "1e400 bar"}},
		{path: "units[0].displacement", unit: map[string]any{"displacement": "NaN cc/rev"}},
		{path: "units[0].parts", unit: map[string]any{"parts": map[string]any{}}},
		{path: "units[0].parts[0].expected", unit: part(map[string]any{"expected": 1e9})},
		{path: "units[0].parts[0].expected", unit: part(map[string]any{"expected": 1.5})},
		{path: "units[0].parts[1].code", unit: map[string]any{"parts": []any{
			map[string]any{"code": "rear_plate"}, map[string]any{"code": "rear_plate"}}}},
		{path: "units[0].evidence[0].round", unit: map[string]any{"evidence": []any{map[string]any{"round": -1,
			"code": "fine_lines", "state": "seen"}}}},
		{path: "units[0].attempts[0].number", unit: map[string]any{"attempts": []any{map[string]any{"number": -4,
			"round": 1, "source": "typed"}}}},
		{path: "units[0].attempts[0].verdict", unit: map[string]any{"attempts": []any{map[string]any{"number": 0,
			"round": 1, "source": "typed", "verdict": "splendid"}}}},
		{path: "attachments[0].media_type", root: map[string]any{"attachments": []any{map[string]any{
			"file": "x", "name": "x", "media_type": 7}}}},
		{path: "attachments[0].number", root: map[string]any{"attachments": []any{map[string]any{
			"file": "x", "name": "x", "number": 0}}}},
		{path: "surprise", root: map[string]any{"surprise": true}},
	}
	require.Greater(t, len(cases), 80)
	for _, c := range cases {
		t.Run(c.path, func(t *testing.T) {
			tree := minimal()
			for at, more := range map[*map[string]any]map[string]any{
				ptr(tree["job"]): c.job, ptr(tree["units"].([]any)[0]): c.unit, &tree: c.root,
			} {
				maps.Copy(*at, more)
			}
			err := bring(ctx, s, tree)
			var fe *field.Error
			require.ErrorAs(t, err, &fe)
			assert.Equal(t, c.path, fe.Field, fe.Text)
			assert.NotContains(t, fe.Text, "SQL")
			_, err = s.Store.Job(ctx, "T-1")
			assert.ErrorIs(t, err, store.ErrNotFound, "nothing half imported stays")
		})
	}
	require.NoError(t, bring(ctx, s, minimal()), "the document they were made from is fine")
}

func TestParseRefuses(t *testing.T) {
	for text, says := range map[string]string{
		``:                                      "not a job document",
		`{"format":"other"}`:                    "format",
		`[1]`:                                   "an object",
		`{"format":"corvek.job","version":9}`:   "version 9",
		`{"format":"corvek.job","version":2} 1`: "something after its end",
	} {
		_, err := exchange.Parse([]byte(text))
		assert.ErrorContains(t, err, says)
	}
}

// A small file that would become a large one in the memory is refused unread.
func TestHostileDocumentsAreBounded(t *testing.T) {
	head := `{"format":"corvek.job","version":2,"x":[`
	for name, text := range map[string]string{
		"many objects": head + strings.Repeat("{},", 1_000_000) + "1]}",
		"many lists":   head + strings.Repeat("[],", 1_000_000) + "1]}",
		"many figures": head + strings.Repeat("1,", 1_000_000) + "1]}",
		"deep":         head + strings.Repeat("[", 5000) + strings.Repeat("]", 5000) + "]}",
		"deep objects": head + strings.Repeat(`{"a":`, 5000) + "1" + strings.Repeat("}", 5000) + "]}",
	} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, err := exchange.Parse([]byte(text))
		runtime.ReadMemStats(&after)
		assert.ErrorContains(t, err, "more than", name)
		assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(16<<20), name)
	}
	// Brackets and commas within words are words.
	_, err := exchange.Parse([]byte(head + `"` + strings.Repeat(`[{,\"`, 300_000) + `"]}`))
	assert.NoError(t, err)
}

// What cannot have been is refused, with the place in the file: moments of no bench's years and
// out of order, two attempts open at once, letters that cannot be kept, limits upside down.
func TestWhatCannotHaveBeenIsRefused(t *testing.T) {
	s, ctx := service(t), context.Background()
	object := func(v any) map[string]any { return v.(map[string]any) }
	unitOf := func(tree map[string]any) map[string]any { return object(tree["units"].([]any)[0]) }
	attempt := func(n int, more map[string]any) map[string]any {
		a := map[string]any{"number": n, "round": 1, "source": "typed"}
		maps.Copy(a, more)
		return a
	}
	for says, bend := range map[string]func(tree map[string]any){
		"job.handed_over_at: is of a year": func(tree map[string]any) {
			tree["job"].(map[string]any)["handed_over_at"] = "9999-01-03T00:00:00Z"
		},
		"withdrawn_at: lies before the unit came in": func(tree map[string]any) {
			maps.Copy(object(tree["job"]), map[string]any{"withdrawn_at": "2001-01-03T00:00:00Z",
				"withdrawn_by": "Odd", "withdrawn_reason": "twice"})
		},
		"job.handed_over_at: lies before the job was opened again": func(tree map[string]any) {
			object(tree["job"])["handed_over_at"] = "2031-02-03T00:00:00Z"
			tree["reopenings"] = []any{map[string]any{"reason": "wept", "by": "Odd", "at": "2031-03-01T00:00:00Z",
				"handed_over_at": "2031-01-05T00:00:00Z"}}
		},
		"attempts[2]: is open beside another": func(tree map[string]any) {
			unitOf(tree)["attempts"] = []any{attempt(0, nil), attempt(1, nil), attempt(2, nil)}
		},
		"hold_to: lies before the hold began": func(tree map[string]any) {
			unitOf(tree)["attempts"] = []any{attempt(0, map[string]any{"points": []any{map[string]any{"code": "p100",
				"hold_from": "2031-01-05T10:10:00Z", "hold_to": "2031-01-05T10:00:00Z"}}})}
		},
		"title: holds a character that cannot be kept": func(tree map[string]any) {
			object(tree["job"])["title"] = "pump\u0000"
		},
		"setting_high: the lower limit lies above the upper one": func(tree map[string]any) {
			maps.Copy(unitOf(tree), map[string]any{"setting_low": "200 bar", "setting_high": "100 bar"})
		},
		"duty_pressure: this is more than anything": func(tree map[string]any) {
			unitOf(tree)["duty_pressure"] = "1e300 bar"
		},
		"most: the lower limit lies above the upper one": func(tree map[string]any) {
			unitOf(tree)["step_limits"] = []any{map[string]any{"code": "p100.flow", "least": "50 L/min",
				"most": "40 L/min", "source": "book"}}
		},
	} {
		tree := minimal()
		bend(tree)
		tag := fmt.Sprintf("T-%d", 700+len(says))
		object(tree["job"])["tag"] = tag
		assert.ErrorContains(t, bring(ctx, s, tree), says)
	}
}

// A fault in a document of this version is told at its place in it.
func TestFaultsHaveThePlaceOfThisVersion(t *testing.T) {
	s, ctx := service(t), context.Background()
	part := func(more map[string]any) map[string]any {
		more["code"] = "rear_plate"
		return map[string]any{"parts": []any{more}}
	}
	for path, more := range map[string]map[string]any{
		"units[0].parts[0].seal.hardness": part(map[string]any{"seal": map[string]any{"hardness": "5"}}),
		"units[0].parts[0].seal.colour":   part(map[string]any{"seal": map[string]any{"colour": "blue"}}),
		"units[0].parts[0].seal":          part(map[string]any{"seal": "NBR"}),
		"units[0].parts[0].order.state":   part(map[string]any{"order": map[string]any{"state": "lost"}}),
		"units[0].parts[0].seal_standard": part(map[string]any{"seal_standard": "AS568"}),
		"units[0].setting.high":           {"setting": map[string]any{"low": "200 bar", "high": "100 bar"}},
		"units[0].loose_items[0].count":   {"loose_items": []any{map[string]any{"what": "chip", "count": 0}}},
		"units[0].kit[0].part": {"kit": []any{map[string]any{"name": "ring", "count": 1,
			"part": "wing"}}},
		"units[0].attempts[0].points[0].figures.flow": {"attempts": []any{map[string]any{"round": 1,
			"source": "typed", "points": []any{map[string]any{"code": "p100",
				"figures": map[string]any{"flow": "plenty"}}}}}},
		"units[0].number":        {"number": 2},
		"quote.answer":           {"/quote": map[string]any{"answer": "perhaps"}},
		"title":                  {"/title": ""},
		"job":                    {"/job": map[string]any{"title": "x"}},
		"pictures[0].unit":       {"/pictures": []any{map[string]any{"name": "x", "unit": 3}}},
		"units[0].parts[0].code": {"parts": []any{map[string]any{"code": "wing"}}, "/whole": true},
	} {
		tree := map[string]any{"format": "corvek.job", "version": 3, "tag": "T-1", "title": "x",
			"policy": "on_condition", "waiting": "technician", "received_on": "2031-01-01",
			"customer": map[string]any{"name": "x"}}
		one := map[string]any{"family": "external_gear_pump", "name": "n"}
		tree["units"] = []any{one}
		for name, v := range more {
			if head, of := strings.CutPrefix(name, "/"); of {
				tree[head] = v
			} else {
				one[name] = v
			}
		}
		var fe *field.Error
		if assert.ErrorAs(t, bring(ctx, s, tree), &fe, path) {
			assert.Equal(t, path, fe.Field, fe.Text)
		}
	}
}

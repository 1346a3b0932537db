package store_test

import (
	"context"
	"strings"
	"testing"

	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// rowsOfFour is a job as version 4 of the schema kept it: by row numbers.
const rowsOfFour = `
INSERT INTO customers (id, name) VALUES (1, 'Ostrey Fish Meal');
INSERT INTO jobs (id, tag, customer_id, title, waiting, received_on)
    VALUES (7, 'T-0417', 1, 'Press pump', 'hands', '2031-05-14');
INSERT INTO units (id, job_id, ordinal, family, name, serial, gauge, marks) VALUES
    (53, 7, 1, 'external_gear_pump', 'Press pump', '22-0917', 'inlet=good', 'long_shaft=yes'),
    (54, 7, 2, 'check_valve', 'Valve', '', '', '');
INSERT INTO rounds (unit_id, number) VALUES (53, 1), (54, 1);
INSERT INTO parts (id, unit_id, code, name, ordinal, expected, found)
    VALUES (90, 53, 'rear_plate', 'Rear plate', 1, 1, '1'), (91, 53, 'key', 'Key', 2, 1, ''),
    (92, 54, 'ball', 'Ball', 1, 1, '');
INSERT INTO features (id, part_id, code, upper) VALUES (30, 90, 'side_clearance', '7 thou'), (31, 90, 'face', '');
INSERT INTO readings (feature_id, round, stage, slot, value) VALUES (30, 1, 'found', 'leaf:7 thou', 'goes');
INSERT INTO loose_items (id, unit_id, what, part_id) VALUES (5, 53, 'chip', NULL), (6, 53, 'needle', 91);
INSERT INTO kit_pieces (id, unit_id, number, name, part_id) VALUES (8, 53, 'K-1', 'ring', 90),
    (9, 53, 'K-2', 'odd ring', NULL);
INSERT INTO attempts (id, unit_id, round, number) VALUES (60, 53, 1, 0);
INSERT INTO points (attempt_id, code, flow, word) VALUES (60, 'p100', '37.8 L/min', ''),
    (60, 'hand_turn', '', 'drags evenly');
INSERT INTO build_steps (part_id, round, done, turn) VALUES (91, 1, true, 'tight spot');
INSERT INTO evidence (unit_id, round, code, state, found_how, age)
    VALUES (53, 1, 'fine_lines', 'seen', 'before wiping', 'not told');
INSERT INTO attachments (id, job_id, part_id, name, media_type, content)
    VALUES (40, 7, 92, 'a.jpg', 'image/jpeg', 'x');
INSERT INTO picture_marks (attachment_id, number, x, y, part_id) VALUES (40, 1, 0.5, 0.5, 92);
INSERT INTO stop_passes (job_id, code, stop_text, reason, by_name) VALUES
    (7, 'u1.strip.short.key', 'a', 'r', 'Odd'), (7, 'u1.measure.must.rear_plate.side_clearance', 'b', 'r', 'Odd'),
    (7, 'u1.measure.open.rear_plate.face', 'c', 'r', 'Odd'),
    (7, 'u1.kit.place90.piece0', 'd', 'r', 'Odd'), (7, 'u1.kit.place0.piece9', 'e', 'r', 'Odd'),
    (7, 'u1.build.undone', 'f', 'r', 'Odd'), (7, 'u1.receive.duty pressure', 'g', 'r', 'Odd');
INSERT INTO record_entries (job_id, who, action, field) VALUES
    (7, 'Iva', 'set', 'job..title'), (7, 'Iva', 'set', 'job.0.symptom/weak_hot'),
    (7, 'Iva', 'set', 'unit.53.speed'), (7, 'Iva', 'set', 'unit.53.gauge/inlet'),
    (7, 'Iva', 'set', 'unit.53.mark/long_shaft'),
    (7, 'Iva', 'set', 'part.91.found'), (7, 'Iva', 'set', 'decision.90.choice'),
    (7, 'Iva', 'set', 'step.91.turn'), (7, 'Iva', 'set', 'feature.30.upper'),
    (7, 'Iva', 'set', 'reading.30.found/leaf:7 thou'),
    (7, 'Iva', 'set', 'evidence.53.fine_lines'), (7, 'Iva', 'set', 'foundhow.53.fine_lines'),
    (7, 'Iva', 'set', 'conclusion.53.cause'), (7, 'Iva', 'set', 'loose.6.part'), (7, 'Iva', 'set', 'piece.9.place'),
    (7, 'Iva', 'set', 'attempt.60.note'), (7, 'Iva', 'set', 'point.60.p100/flow'),
    (7, 'Iva', 'closed attempt 1: in', '');
`

// What an older version kept by row numbers is found by its names afterwards:
// the job, the addresses in its record, and the waivers.
func TestOldAddressesAreMigrated(t *testing.T) {
	ctx := context.Background()
	address := storetest.URL(t)
	s, err := store.Open(ctx, address)
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, store.MigrateTo(ctx, address, "", 4))
	_, err = s.Pool.Exec(ctx, rowsOfFour)
	require.NoError(t, err)
	require.NoError(t, storetest.Migrate(ctx, address))

	j, err := s.Job(ctx, "T-0417")
	require.NoError(t, err)
	assert.Equal(t, "technician", j.Waiting)
	u := j.Units[0]
	assert.Equal(t, map[string]string{"long_shaft": "yes"}, u.Identity)
	plate := u.Part("rear_plate")
	assert.Equal(t, []string{"side_clearance", "face"}, []string{plate.Features[0].Code, plate.Features[1].Code},
		"in their order")
	assert.Equal(t, "goes", plate.Features[0].Readings[0].Value)
	assert.Equal(t, [2]string{"", "key"}, [2]string{u.Loose[0].Part, u.Loose[1].Part})
	assert.Equal(t, [2]string{"rear_plate", ""}, [2]string{u.Kit[0].Part, u.Kit[1].Part})
	assert.Equal(t, "tight_spot", u.Part("key").Steps[0].Turn)
	assert.Equal(t, [2]string{"before_wiping", "not_told"}, [2]string{u.Marks[0].How, u.Marks[0].Age})
	assert.Equal(t, "uniform drag", u.Attempt(0).Point("hand_turn").Word)
	assert.Equal(t, [2]any{2, "ball"}, [2]any{j.Pictures[0].Unit, j.Pictures[0].Part})
	assert.Equal(t, "ball", j.Pictures[0].Marks[0].Part)

	var codes []string
	for _, p := range j.Waivers {
		codes = append(codes, p.Code)
	}
	assert.ElementsMatch(t, []string{
		"u1/strip/short/key", "u1/measure/not_measured/rear_plate/side_clearance",
		"u1/measure/undecided/rear_plate/face",
		"u1/kit/place/rear_plate", "u1/kit/piece/2", "u1/build/unfitted", "u1/receive/duty_pressure",
	}, codes)
	record, err := s.Record(ctx, "T-0417", 100)
	require.NoError(t, err)
	var fields []string
	for _, e := range record {
		fields = append([]string{e.Field}, fields...)
	}
	assert.Equal(t, []string{
		"job/title", "job/symptom/weak_hot", "u1/speed", "u1/gauge/inlet", "u1/identity/long_shaft",
		"u1/part/key/found", "u1/part/rear_plate/decision/choice", "u1/part/key/step/turn",
		"u1/part/rear_plate/feature/side_clearance/upper",
		"u1/part/rear_plate/feature/side_clearance/found/leaf:7 thou", "u1/evidence/fine_lines/state",
		"u1/evidence/fine_lines/found_how",
		"u1/conclusion/cause", "u1/loose/2/part", "u1/piece/2/place", "u1/attempt/0/note",
		"u1/attempt/0/point/p100/flow", "",
	}, fields)
	_, err = s.Pool.Exec(ctx, "UPDATE record_entries SET who = 'nobody'")
	assert.ErrorContains(t, err, "append-only", "the record is closed again")
	found, err := s.InHand(ctx, store.Sought{Find: "22-0917"}, 5, "", 5)
	require.NoError(t, err)
	assert.Len(t, found, 1, "jobs of before are found by what stands on the plate")
}

// Sign-offs of before were words. One is taken over as data where a lead wrote it for the very line
// before it, and nothing was changed since.
func TestOnlyTrueSignOffsAreTakenOver(t *testing.T) {
	ctx := t.Context()
	const before = 34
	const write = `SELECT record_write($1, jsonb_build_array(jsonb_build_object('who', $2::text, 'at', now(),
		'action', $3::text, 'field', $4::text, 'before', '', 'after', '')))`
	signed := "signed off the papers of unit 1: record of 1 line, fingerprint "
	cases := map[string]struct {
		who, action string // with the fingerprint of the line before it where it ends in a blank
		after       []string
		taken       bool
	}{
		"true":                       {"Odd", signed, nil, true},
		"closed since":               {"Odd", signed, []string{"handed over", ""}, true},
		"a lesson written since":     {"Odd", signed, []string{"set", "job/lesson"}, true},
		"by a technician":            {"Iva", signed, nil, false},
		"by nobody of the shop":      {"Corvek", signed, nil, false},
		"for another record":         {"Odd", signed + strings.Repeat("ab", 32), nil, false},
		"a kit piece called like it": {"Odd", "kit piece: " + signed, nil, false},
		"changed since":              {"Odd", signed, []string{"set", "u1/speed"}, false},
		"a part called handed over":  {"Odd", signed, []string{"handed over cover", ""}, false},
		"an act that calls itself so ": {
			"Odd",
			signed,
			[]string{"kept the paper of the day x, SHA-256 y", ""},
			false,
		},
	}
	address := storetest.URL(t)
	require.NoError(t, store.MigrateTo(ctx, address, "", before))
	conn, err := pgx.Connect(ctx, address)
	require.NoError(t, err)
	defer conn.Close(context.Background())
	_, err = conn.Exec(ctx, `INSERT INTO people (sign_in, name, initials, role, password_hash)
		VALUES ('odd', 'Odd', 'O', 'lead', ''), ('iva', 'Iva', 'I', 'technician', '');
		INSERT INTO customers (id, name) VALUES (1, 'Ostrey')`)
	require.NoError(t, err)
	job := int64(0)
	for name, c := range cases { // each is a job of its own
		job++
		_, err := conn.Exec(ctx, `INSERT INTO jobs (id, tag, customer_id, title, received_on)
			VALUES ($1, $2, 1, 'Pump', now())`, job, name)
		require.NoError(t, err)
		_, err = conn.Exec(ctx, write, job, "Iva", "created", "")
		require.NoError(t, err)
		if strings.HasSuffix(c.action, " ") {
			var head string
			require.NoError(t, conn.QueryRow(ctx, `SELECT encode(job_chain, 'hex') FROM record_entries
				WHERE job_id = $1`, job).Scan(&head))
			c.action += head
		}
		_, err = conn.Exec(ctx, write, job, c.who, c.action, "")
		require.NoError(t, err)
		if len(c.after) > 0 {
			_, err = conn.Exec(ctx, write, job, "Iva", c.after[0], c.after[1])
			require.NoError(t, err)
		}
	}
	require.NoError(t, store.Migrate(ctx, address, ""))
	s, err := store.Open(ctx, address)
	require.NoError(t, err)
	defer s.Close()
	for name, c := range cases {
		told, err := s.Events(ctx, name)
		require.NoError(t, err)
		assert.Equal(t, c.taken, len(told) == 1, name)
	}
	v, err := s.VerifyLines(ctx)
	require.NoError(t, err)
	assert.Empty(t, v.Faults)
}

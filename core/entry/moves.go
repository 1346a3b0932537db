package entry

import (
	"strings"

	"corvek/core/unit"
)

// Moves says what becomes of the claims of a test when a value is another than it was when their
// figures were taken.
type Moves string

// What a value moves.
const (
	MovesNothing   Moves = "nothing"   // it is told on paper, and nothing was shown by it
	MovesUnit      Moves = "unit"      // every claim falls: it is another unit, or filled with another oil
	MovesPart      Moves = "part"      // the claims that rest on the part fall
	MovesComplaint Moves = "complaint" // the complaint was another one
	MovesNeed      Moves = "need"      // claims are held against it as it stands now
	MovesTest      Moves = "test"      // it is what was shown itself, and judged as it stands now
)

// movesOf is the table of what each value moves. Every field has its place in it.
var movesOf = []struct {
	scope unit.Scope
	moves Moves
	names string
}{
	{unit.ScopeJob, MovesComplaint, "symptom complaint"},
	{unit.ScopeJob, MovesNothing, `title caller site held_by half_done policy stands told_day
		waiting waiting_note received_on promised_on warranty_hold
		warranty_note parts_cost labour_hours labour_rate outside_cost
		worked_hours agreed_sum rebuild_days new_price new_days downtime_cost
		parts_days life_rebuild life_overhaul quoted_on answer answer_by answer_on answer_note lesson lesson_at
		operator_note part_only valves_at collected_by gave_old_parts gave_springs gave_card timer_note timer_until
		handed_over_at withdrawn_at withdrawn_by withdrawn_reason`},
	{unit.ScopePicture, MovesNothing, "caption before_cleaning"},

	{unit.ScopeUnit, MovesUnit, "maker model serial variant rotation identity more fluid fill need_medium"},
	{unit.ScopeUnit, MovesNeed, `viscosity density displacement speed duty_pressure temperature setting_low
		setting_high setting_source need_flow need_torque need_line_pull need_drum need_rope need_layer need_factor
		need_load need_load_time need_creep need_leak need_shot need_back_low need_back_high need_pressure need_pilot
		need_aux_flow need_apart need_force need_stroke need_fill need_turns need_draw_time need_cold need_hot
		need_standing
		need_complaint_pressure need_complaint_temperature need_complaint_time`},
	{unit.ScopeUnit, MovesNothing, `name machine asset kit_came rated_pressure hours parts_temperature filtration
		changed modification modification_kept shims_fitted shims_available off_body off_gears not_asked no_before
		gauge ending
		ending_note capacity level_before drained water gained_elsewhere vessel drained_look flushed flushed_by
		flush other_sump`},

	{unit.ScopeEvidence, MovesNothing, "state origin found_how age note"},
	{unit.ScopeConclusion, MovesNothing, "cause statement action owner blamed blamed_found cured"},
	{unit.ScopeCause, MovesNothing, "role code words lies action owner"},
	{unit.ScopeLoose, MovesNothing, "what place count bit part note"},

	{unit.ScopePiece, MovesPart, `standard size material hardness cure maker_no inside section shaft bore width outside
		number name count place fit fit_gap`},
	{unit.ScopePiece, MovesNothing, "left_reason lot to_lot"},

	{unit.ScopePart, MovesPart, "absent"},
	// What a part was found to be, what belongs in its place and what it costs; what is wrong with that
	// stands open at its station, and keeps the unit from being proved from there.
	{unit.ScopePart, MovesNothing, `seal_standard seal_size seal_material seal_hardness seal_cure seal_maker_no
		seal_inside seal_section seal_shaft seal_bore seal_width seal_outside expected expected_from expected_why off
		found bits bits_make facing fastener note explained witness stuck freed sound stack_found stack_from stack_right
		spring_outside spring_inside spring_thickness spring_cone stack_space stack_needed friction
		friction_source thread class dry joint_torque joint_source joint_angle
		snug locking engaged lip_groove lip_groove_width lip_position lip_bore lip_shoulder price coil_is coil_rate
		coil_wire coil_mean coil_turns order_state order_supplier order_number order_due order_days
		order_placed order_came
		handling`},
	{unit.ScopePartMark, MovesPart, "state"},
	{unit.ScopePartMark, MovesNothing, "origin found_how age note grade"},
	{unit.ScopeDecision, MovesPart, "choice"},
	{unit.ScopeDecision, MovesNothing, "reason"},
	{unit.ScopeRework, MovesPart, "goes taken flat_now"},
	{unit.ScopeRework, MovesNothing, "flat_how flat_first price sent back"},
	{unit.ScopeStep, MovesPart, `done facing count turn turn_round torque turn_torque push proud press cycled over
		taken_out stack_fit`},
	{unit.ScopeStep, MovesNothing, "order_why note stack_removed"},
	{unit.ScopeFeature, MovesNothing, `lower upper standing source measured limit_for instrument resolution tool
		permitted setting new_low new_high new_from new_source
		made_low made_high made_source`},
	{unit.ScopeReading, MovesPart, "value"},

	{unit.ScopeAttempt, MovesTest, `pressure_gauge flow_meter thermometer source ran_on_stand ran_on_oil
		ran_on_temperature ran_on_viscosity ran_on_clean`},
	{unit.ScopeAttempt, MovesNothing, `one_change change_kind change_part second_change second_kind second_part note
		closed verdict`},
	{unit.ScopePoint, MovesTest, `pressure pressure_end flow case_flow outlet_a outlet_b leakage leakage_in leakage_out
		speed torque start_torque drag_torque temperature temperature_end standby cut_off cracking reseat falling
		breakaway pilot back_pressure supply vent drift stroke rest_stroke time suction_lift turns strokes
		drops volume stroke_volume shut_in force current coil noise word hold_from hold_to not_applicable`},
	{unit.ScopeLimit, MovesNeed, "least most source"},
}

var moves = func() map[*Field]Moves {
	out := map[*Field]Moves{}
	for _, row := range movesOf {
		for _, name := range strings.Fields(row.names) {
			if f, known := Find(row.scope, name); known {
				out[f] = row.moves
			}
		}
	}
	return out
}()

// Moves says what the value moves; it is "" only of a field that the table forgot.
func (f *Field) Moves() Moves { return moves[f] }

//go:generate go run corvek/core/entry/movesgen ../../docs/claims.md

// MovesTable is the table of what each value moves, as Markdown.
func MovesTable() string {
	var b strings.Builder
	b.WriteString("| of | moves | values |\n|---|---|---|\n")
	for _, row := range movesOf {
		b.WriteString("| `" + string(row.scope) + "` | " + string(row.moves) + " |")
		for _, name := range strings.Fields(row.names) {
			b.WriteString(" `" + name + "`")
		}
		b.WriteString(" |\n")
	}
	return b.String()
}

// Package wording is where codes become words for people: what a station, a
// choice or a way of waiting is called. The code keeps codes only, so that a
// language is one such package.
package wording

import (
	"strings"

	"corvek/core/unit"
)

// Stations are the names of the stations.
var Stations = map[string]string{
	"receive": "Receive", "strip": "Strip", "measure": "Measure", "explain": "Explain", "decide": "Decide",
	"kit": "Kit", "build": "Build", "prove": "Prove", "handover": "Hand over",
}

// What is said of a mark, on the unit or on one of its parts.
var (
	markOrigins = map[string]string{"found_so": "there before teardown",
		"made_by_us": "made during teardown", "unknown": "unknown"}
	markHow  = map[string]string{"": "found when?"}
	markAges = map[string]string{"": "how old?", "fresh": "fresh, bright", "old": "old, dull",
		"not_told": "cannot tell"}
)

// Claims are what papers and pages say of a test.
var Claims = map[string]string{
	"proved": "PROVED", "tested_not_proved": "TESTED, NOT PROVED",
	"exercise": "EXERCISE on the simulated stand, NOT TESTED", "not_tested": "NOT TESTED",
}

// Endings are how papers and pages say that a unit was not rebuilt.
var Endings = map[string]string{
	"replaced": "REPLACED by another unit, not rebuilt", "condemned": "CONDEMNED, not rebuilt",
	"returned": "RETURNED UNOPENED", "findings": "FINDINGS ONLY, not rebuilt and not tested",
	"no_fault": "NO FAULT FOUND",
}

// choices are the words for the codes of a field that do not speak for
// themselves, by scope and name.
var choices = map[string]map[string]string{
	"job/policy": {"on_condition": "on condition", "full_overhaul": "full overhaul"},
	"job/waiting": {
		"technician": "Technician", "stand": "The stand", "parts": "Parts", "soak": "Soak or drain",
		"outside": "Outside work", "customer": "Customer's word", "ready": "Ready to go",
	},
	"unit/rotation": {"right": "clockwise", "left": "anticlockwise", "both": "both ways"},
	"feature/standing": {"maker": "maker's document", "shop": "the shop's own", "sheet": "model sheet",
		"earlier": "guidance of an earlier version"},
	"feature/new_from": {"document": "maker's document", "sheet": "model sheet",
		"unworn": "unworn place, made to one size",
		"sister": "new or sister part", "told": "as told", "rework": "reworked to",
		"earlier": "guidance of an earlier version"},
	"feature/tool": {"bore_gauge": "bore gauge", "depth_micrometer": "depth micrometer",
		"depth_gauge": "depth gauge", "dial": "dial indicator", "air_gauge": "air gauge",
		"optical_flat": "optical flat", "leaves": "feeler leaves"},
	"feature/measured":  {"total": "total", "each": "each side"},
	"feature/limit_for": {"total": "total", "each": "each side"},
	"decision/choice":   {"replace": "new"},
	"step/turn_round":   {"hand": "drawn up by hand", "half": "half torque", "full": "full torque"},
	"job/answer": {"rebuild": "rebuild", "overhaul": "full overhaul", "replace": "a new unit",
		"return": "back as it is"},
	"rework/flat_how": {"blued": "blued on a surface plate", "straight_edge": "straight-edge and leaf",
		"dial": "dial on a surface plate", "optical": "optical flat", "not_found": "not found"},
	"part/order_state": {"wanted": "to order", "back_order": "back order", "made": "made outside",
		"obsolete": "not made any more"},
	"attempt/change_kind": {"swap": "swapped for one known to be good", "renew": "new, or reworked and measured",
		"refit": "out and fitted again as it belongs", "loosen": "joint slackened", "adjust": "set to its book",
		"clean":   "washed, bled, worked free",
		"inspect": "only looked at", "mask": "hidden, not cured",
		"nothing": "nothing, run once more"},
	"step/turn":    {"falls": "falls of its own weight", "glides": "moved by a finger"},
	"part/coil_is": {"own": "this variant's", "another": "another variant's", "changed": "changed in the field"},
	"unit/flush":   {"none": "there is none"},
	"unit/ending": {"replaced": "replaced by another", "returned": "returned unopened", "findings": "findings only",
		"no_fault": "no fault found"},
	"evidence/origin":    markOrigins,
	"evidence/found_how": markHow,
	"evidence/age":       markAges,
	"mark/origin":        markOrigins,
	"mark/found_how":     markHow,
	"mark/age":           markAges,
	"cause/role": {"first_failure": "gave way first", "root": "a root cause too",
		"contributing": "contributed"},
	"cause/lies": {"inside": "inside the unit", "outside": "outside the unit", "assembly": "at assembly",
		"handling": "in handling"},
	"part/stack_from": {"": "the family's stack", "as_removed": "as removed: this unit's own",
		"variant": "its variant", "drawing": "drawing or book", "unknown": "not known"},
	"part/expected_from": {"counted": "counted here", "variant": "by its variant", "drawing": "by drawing or book"},
}

// Choice is what a code of a field is called.
func Choice(scope unit.Scope, name, code string) string {
	if words, ok := choices[string(scope)+"/"+name][code]; ok {
		return words
	}
	return Plain(code)
}

// Plain writes a code that speaks for itself.
func Plain(code string) string { return strings.ReplaceAll(code, "_", " ") }

// suggestions are ready-made answers to tap beside a field.
var suggestions = map[string][]string{
	"unit/ending_note":     {"scrapped with the customer's word", "back to the maker, seals whole"},
	"point/not_applicable": {"not on this unit", "not possible on this stand", "only on the machine"},
	"unit/flushed_by":      {"the customer", "our field crew"},
	"unit/other_sump":      {"drained, flushed and refilled", "drained and refilled by the customer"},
	"conclusion/cured":     {"cause mended and tried before it ran"},
	"unit/not_asked":       {"came in without its machine", "the machine is not to be had any more"},
	"unit/no_before":       {"shaft broken", "seized", "came alone, no stand takes it", "came apart"},
	"unit/drained_look":    {"clear", "dark, burnt", "milky", "metal in it"},
	"job/operator_note": {"The first strokes are soft until the air is out: stroke it unloaded",
		"Never start it dry: fill the case first", "A drop at the seal in the first hour is normal; more is not",
		"Do not raise the relief to make it stronger"},
	"unit/flushed":           {"Tank emptied and wiped, cooler and lines flushed, filters renewed by the customer"},
	"unit/modification_kept": {"carried over", "left out, agreed with the customer"},
	"part/explained":         {"lost by the bench", "short since an earlier repair", "found and thrown away"},
	"part/absent":            {"this variant has none", "was never fitted", "replaced by the part added here"},
	"part/freed":             {"washed and worked", "soaked overnight", "heat", "pressed", "sacrificed"},
	"part/witness":           {"two lines across the joint", "punch marks"},
	"loose/note":             {"none missing: not from this unit", "swarf"},
	"decision/reason":        {"still fits well", "spare at hand", "customer wants it"},
	"part/seal_standard":     {"AS568", "ISO 3601", "ISO 6194", "ISO 15"},
	"part/seal_material":     {"NBR", "FKM", "EPDM", "PTFE", "PU"},
	"piece/standard":         {"AS568", "ISO 3601", "ISO 6194", "ISO 15"},
	"piece/material":         {"NBR", "FKM", "EPDM", "PTFE", "PU"},
	"conclusion/owner":       {"the customer", "our field crew"},
	"cause/owner":            {"the customer", "our field crew", "this bench"},
}

// Suggestions are ready-made answers for a field.
func Suggestions(scope unit.Scope, name string) []string { return suggestions[string(scope)+"/"+name] }

// Waivers are ready-made reasons for a lead to let a stop pass.
var Waivers = []string{"agreed with the customer", "not needed for this duty", "checked another way"}

// examples show how a field is filled in.
var examples = map[string]string{
	"unit/displacement": "32 cc/rev", "unit/speed": "1450 rpm", "unit/duty_pressure": "175 bar",
	"unit/rated_pressure": "250 bar",
	"unit/viscosity":      "46 cSt",
	"unit/capacity":       "120 L", "unit/level_before": "110 L", "unit/vessel": "20 L",
	"unit/shims_fitted": "0.10 mm, 0.05 mm", "unit/shims_available": "0.05 mm x2, 0.02 mm x4",
	"part/seal_cure": "2029-Q2", "piece/cure": "2029-Q2", "part/order_due": "2031-05-20",
	"part/seal_size": "24.2 x 3", "piece/size": "24.2 x 3",
	"job/promised_on": "2031-05-27", "job/timer_until": "4 h",
}

// Example shows how a field is filled in, "" where that needs no showing.
func Example(scope unit.Scope, name string) string { return examples[string(scope)+"/"+name] }

package answer

import (
	"strconv"
	"strings"

	"corvek/core/calc"
	"corvek/core/quantity"
)

// Headline is what an answer comes to, in a word or a figure, read at a glance.
type Headline struct{ Tone, Word, Text string }

// asked names the results that answer what a calculator is opened for; the
// first that is there is shown large.
var asked = map[string][]string{
	"annular_leak": {"flow"}, "bolt_pattern": {"order"}, "bolt_torque": {"torque", "torque_min"}, "cleanliness": {"code"},
	"clearance": {"diametral", "diametral_min"}, "coil_spring": {"cracking_pressure", "force", "rate"}, "compatible": {"reason"}, "creep_leak": {"leak"},
	"cylinder": {"push_force"}, "disc_stack": {"force", "free_length"}, "ejection": {"force"}, "feeler": {"next_leaf", "midpoint", "at_least"},
	"fill_plan": {"additions"}, "flow_divider": {"error_a"}, "fluid_balance": {"unexplained"}, "friction_pack": {"torque"}, "gap_ratio": {"flow_ratio"},
	"heat": {"temperature_rate", "power"}, "intensifier": {"ram_force", "output_pressure"}, "judge": {"margin_upper", "margin_lower"}, "line_pull": {"pull"},
	"lip_offset": {"press_depths"}, "lip_seal_find": {"candidates"}, "mesh": {"opening"}, "motor": {"overall_efficiency", "volumetric_efficiency", "theoretical_torque"},
	"needle_complement": {"most"}, "orifice": {"flow"}, "oring_find": {"candidates"}, "oring_gland": {"squeeze"}, "piston_ripple": {"ripple"}, "plane_leak": {"flow"},
	"pressure_decay": {"leak"}, "proud": {"proud"}, "pump": {"overall_efficiency", "volumetric_efficiency", "theoretical_flow"},
	"readings": {"wear", "range"}, "rebuild_or_replace": {"rebuild_cost"}, "residual": {"old_fraction"}, "retainer_lift": {"force_total"},
	"rod_bow": {"bow_per_metre"}, "runout": {"eccentricity"}, "shelf_life": {"expires"}, "shims": {"resulting_clearance"}, "spring_check": {"deviation"},
	"standby": {"advice"}, "stored_energy": {"isentropic_energy", "liquid_energy"}, "viscosity": {"kinematic"}, "wear_life": {"hours_left", "used"},
}

// titles are calculators whose names of the contract say too little on a shelf.
var titles = map[string]string{
	"oring_find": "O-ring find", "oring_gland": "O-ring gland", "disc_stack": "Dished-spring stack", "compatible": "Elastomer and fluid", "residual": "Old oil left",
	"standby": "Standby pressure", "ejection": "Air behind a piston", "judge": "In, out or undecided", "proud": "Standing proud", "mesh": "Strainer mesh",
	"cleanliness": "Oil cleanliness", "feeler": "Feeler leaves", "heat": "Heat made", "pump": "Pump figures", "motor": "Motor figures",
}

// Title is what a calculator is called on its shelf.
func Title(calculator string) string {
	if t, ok := titles[calculator]; ok {
		return t
	}
	return Capital(strings.ReplaceAll(calculator, "_", " "))
}

var tones = map[string]string{
	"in": "petrol", "good": "petrol", "suitable": "petrol", "balanced": "petrol", "rebuild": "petrol", "replace": "petrol",
	"out": "red", "expired": "red", "unsuitable": "red", "short": "red", "over_ceiling": "red",
	"undecided": "ochre", "extend": "ochre", "limited": "ochre", "low": "ochre", "high": "ochre",
}

// Asked is what a calculator is opened for, the most wanted result first.
func Asked(calculator string) []string { return asked[calculator] }

// Head gives the headline of an answer in the shop's units.
func Head(out *calc.Output, s quantity.System) Headline {
	h := verdictOf(out)
	for _, key := range Asked(out.Name) {
		value := out.Get(key)
		if value == nil {
			continue
		}
		text, other := headText(key, value, s)
		label := strings.ToLower(Label(key))
		switch value.(type) {
		case string, []map[string]any:
			label = "" // the words speak for themselves
		}
		switch {
		case h.Word == "" && label == "":
			h.Word = text
		case h.Word == "":
			h.Word, h.Text = text, join(label, other)
		case label == "":
			h.Text = text
		default:
			h.Text = join(label+" "+text, other)
		}
		return h
	}
	return h
}

func join(a, b string) string {
	if b == "" {
		return a
	}
	return a + " · " + b
}

// verdictOf is the word a calculator judges by, with its tone.
func verdictOf(out *calc.Output) Headline {
	for _, key := range []string{"verdict", "advice"} {
		if word, ok := out.Get(key).(string); ok && (key == "verdict" || tones[word] != "") {
			return Headline{Tone: tones[word], Word: strings.ToUpper(strings.ReplaceAll(word, "_", " "))}
		}
	}
	if possible, ok := out.Get("possible").(bool); ok {
		if possible {
			return Headline{Tone: "petrol", Word: "CAN BE SET"}
		}
		return Headline{Tone: "red", Word: "NOT WITH THESE"}
	}
	if out.Get("backup_needed") == true {
		return Headline{Tone: "ochre", Word: "BACK-UP RING"}
	}
	return Headline{}
}

// headText writes one result for the headline, and the same in the other system.
func headText(key string, value any, s quantity.System) (text, other string) {
	switch v := value.(type) {
	case calc.Figure:
		if text, ok := percent(key, v); ok {
			return text, ""
		}
		text, other = Text(v, s), Text(v, otherSystem(s))
		if other == text {
			other = ""
		}
		return text, other
	case []calc.Figure:
		parts := make([]string, len(v))
		for i, f := range v {
			parts[i] = Text(f, s)
		}
		return strings.Join(parts, " "), ""
	case []map[string]any:
		return tableText(key, v, s), ""
	case string:
		return v, ""
	}
	return "", ""
}

// tableText is the first row of a table, which is the one to act on.
func tableText(key string, rows []map[string]any, s quantity.System) string {
	if len(rows) == 0 {
		return map[string]string{"candidates": "no standard size is near", "press_depths": "no depth keeps the lip off the groove", "additions": "full to the mark"}[key]
	}
	row := rows[0]
	size := func(names ...string) string {
		parts := make([]string, len(names))
		for i, name := range names {
			f, _ := row[name].(calc.Figure)
			parts[i] = Text(f, s)
		}
		return strings.Join(parts, " × ")
	}
	switch key {
	case "press_depths":
		return "outer face " + strings.ReplaceAll(size("from", "to"), " × ", " to ") + " deep"
	case "additions":
		return strconv.Itoa(len(rows)) + " additions, first " + size("add")
	}
	if code, ok := row["code"].(string); ok {
		return row["standard"].(string) + " " + code
	}
	return size("shaft", "bore", "width")
}

// shares are results without a unit that people speak of in per cent.
var shares = map[string]bool{
	"volumetric_efficiency": true, "hydromechanical_efficiency": true, "overall_efficiency": true, "case_fraction": true, "share_a": true, "share_b": true, "error_a": true,
	"speed_difference": true, "squeeze": true, "stretch": true, "fill": true, "ripple": true, "ripple_of_ideal": true, "used": true, "water_fraction": true,
	"old_fraction": true, "thermal_share": true, "proof_share": true, "flat_fraction": true,
}

func percent(key string, f calc.Figure) (string, bool) {
	if f.Unit != "" || !shares[key] {
		return "", false
	}
	return quantity.Figures(100*f.Value, 3) + " %", true
}

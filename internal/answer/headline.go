package answer

import (
	"strconv"
	"strings"

	"corvek/core/calc"
	"corvek/core/quantity"
)

// Headline is what an answer comes to, in a word or a figure, read at a glance.
type Headline struct{ Tone, Word, Text string }

var tones = map[string]string{
	"in": "petrol", "good": "petrol", "suitable": "petrol", "balanced": "petrol", "rebuild": "petrol",
	"replace": "petrol",
	"out":     "red", "expired": "red", "unsuitable": "red", "short": "red", "over_ceiling": "red",
	"undecided": "ochre", "extend": "ochre", "limited": "ochre", "low": "ochre", "high": "ochre",
}

// Tone is the colour of a verdict's word, "" where it has none.
func Tone(verdict string) string { return tones[verdict] }

// Head gives the headline of an answer in the shop's units.
func Head(out *calc.Output, s quantity.System) Headline {
	h := verdictOf(out)
	d, err := calc.Find(out.Name)
	if err != nil {
		return h
	}
	for _, key := range d.Asked {
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
		if word, ok := out.Get(key).(string); ok && (key == "verdict" || Tone(word) != "") {
			return Headline{Tone: Tone(word), Word: strings.ToUpper(strings.ReplaceAll(word, "_", " "))}
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
		text, other = Text(v, s), otherText(v, s)
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
		return map[string]string{"candidates": "no standard size is near",
			"press_depths": "no depth keeps the lip off the groove", "additions": "full to the mark"}[key]
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
	"volumetric_efficiency": true, "hydromechanical_efficiency": true, "overall_efficiency": true,
	"case_fraction": true, "share_a": true, "share_b": true, "error_a": true,
	"speed_difference": true, "squeeze": true, "stretch": true, "fill": true, "ripple": true,
	"ripple_of_ideal": true, "used": true, "water_fraction": true,
	"old_fraction": true, "thermal_share": true, "proof_share": true, "flat_fraction": true,
}

func percent(key string, f calc.Figure) (string, bool) {
	// What an outlet of its own does is named like what they all do.
	if _, whole, ok := strings.Cut(strings.TrimPrefix(key, "outlet_"), "_"); ok && strings.HasPrefix(key, "outlet_") {
		key = whole
	}
	if f.Unit != "" || !shares[key] {
		return "", false
	}
	return quantity.Figures(100*f.Value, 3) + " %", true
}

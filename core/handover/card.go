// Package handover holds the rules of what goes out with a unit: the start-up card, and what
// is asked back once it runs.
package handover

import (
	"slices"
	"strings"

	"corvek/core/seal"
)

// Circuit is what the unit goes back into, as the shop wrote it.
type Circuit struct{ Fluid, Filtration string }

// noFilter are the words by which a shop says that a circuit has no filter.
var noFilter = []string{"none", "no filter", "without", "no"}

// Fit brings a step of a family's start-up to a circuit: the fluid by its name where it is no
// oil, and no filter where there is none. "" where nothing of the step is left.
func (c Circuit) Fit(step string) string {
	if named, known := seal.NamedFluid(c.Fluid); known && !strings.Contains(named, "oil") {
		step = strings.NewReplacer("clean oil of the grade on this card", "the clean fluid on this card",
			"clean oil", "the clean fluid on this card", "ring of oil", "ring of fluid", "for oil", "for fluid",
		).Replace(step)
	}
	filtration := strings.ToLower(strings.TrimSpace(c.Filtration))
	switch {
	case !strings.Contains(step, "filter"):
	case slices.Contains(noFilter, filtration):
		return without(step, "filter")
	case filtration == "":
		step = strings.NewReplacer("change the return filter", "change the return filter, where there is one,",
			"Change the return filter", "Change the return filter, where there is one,").Replace(step)
	}
	return step
}

// Oil says when the oil is changed where no filter takes out what the first hours wear off; "" where
// there is one, or nobody said.
func (c Circuit) Oil() string {
	if !slices.Contains(noFilter, strings.ToLower(strings.TrimSpace(c.Filtration))) {
		return ""
	}
	return "No filter in this circuit: change the oil after the first fifty hours, then as the machine's maker says."
}

// without leaves out the clauses of a step that speak of something.
func without(step, of string) string {
	var left []string
	for _, clause := range strings.Split(strings.TrimSuffix(step, "."), ";") {
		if clause = strings.TrimSpace(clause); !strings.Contains(strings.ToLower(clause), of) {
			left = append(left, clause)
		}
	}
	if len(left) == 0 {
		return ""
	}
	return strings.Join(left, "; ") + "."
}

// running are the kinds of parts that bear on one another while a unit turns: new ones have
// to run in. A new spring or plug does not.
var running = []string{"gear_shaft", "bush", "bearing", "needles", "rotor", "vanes", "cam_ring", "cam", "piston",
	"piston_set", "barrel", "swash", "valve_plate", "retainer", "gerotor", "ring_gear", "plate"}

// Runs reports that a part of a kind runs against others.
func Runs(kind string) bool { return slices.Contains(running, kind) }

// Renewed is what was fitted new.
type Renewed struct{ Soft, Running bool }

// Asks is what the first hours ask of whoever runs a unit of a family's action with such parts.
func (r Renewed) Asks(action string) (out []string) {
	if r.Soft {
		out = append(out, "New seals: wipe every joint dry after the first hour, warm, and look again after the first "+
			"day.")
	}
	if r.Running && (action == "pump" || action == "motor") {
		out = append(out, "New running parts: half load for the first hour, and look at the oil for bright metal "+
			"after it.")
	}
	switch action {
	case "pump":
		out = append(
			out,
			"Level: read it with the machine standing as its maker says, after the first hour, after the "+
				"first day and after some days of work.",
		)
	case "cylinder":
		out = append(
			out,
			"Level: every rod home first, then read it as the machine's maker says, after the first hour, "+
				"after the first day and after some days of work.",
		)
	}
	return out
}

// Bolts is when those who mounted a unit look at its bolts again.
const Bolts = "Mounting bolts and unions: torque by the machine's manual, and once more, cold, after the first hours."

// Never is what nobody does to try a unit that makes pressure, "" of one that makes none.
func Never(action string) string {
	if action != "pump" {
		return ""
	}
	return "Never try it against a closed line or a shut valve: what is set wrong or blocked breaks there."
}

// Normal is what is no fault of a unit of an action in its first hours, so that nobody stops for it.
func Normal(action string) string {
	switch action {
	case "pump":
		return "Normal: it growls until the air is out, a minute at most, and grows as warm as the oil."
	case "motor":
		return "Normal: it grows as warm as the oil, and starts a little harder while it is new."
	case "cylinder":
		return "Normal: a rod that wets a finger, and the first strokes jerky until the air is out."
	}
	return "Normal: it grows as warm as the oil, and a new lever or coil works a little stiffer in the first days."
}

// Notice is what the operator must stop a unit of an action for.
func Notice(action string) string {
	switch action {
	case "pump", "motor":
		return "Stop it at once for a whine, foam in the tank, a shaft that sweats or a case that grows too hot to " +
			"touch."
	case "cylinder":
		return "Stop it for a rod that comes out wet, a load that sinks, or a stroke that jerks."
	}
	return "Stop it for a wet joint, a load that sinks, or a part that no longer comes back by itself."
}

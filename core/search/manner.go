package search

import (
	"slices"

	"corvek/core/family"
)

// Manner is how a step of the test that is out shows its trouble.
type Manner int

// The manners.
const (
	Binds   Manner = iota // turns, slides or starts hard, heats up
	Leaks                 // too little comes, too much slips past inside
	Weeps                 // oil comes out
	Sets                  // a pressure is not what it is set to
	Answers               // it does not shift, follow or rest as it should
	manners
)

// hard are figures of a hard start or a hard turn.
var hard = []string{"torque", "start_torque", "drag_torque", "breakaway", "temperature", "temperature_end", "noise",
	"rest_stroke", "back_pressure", "force"}

// settings are pressures that a spring and its stack give.
var settings = []string{"standby", "cut_off", "cracking", "reseat", "falling", "pilot"}

// MannerOf tells the manner of a step by the figure that is out, "" for what was seen.
func MannerOf(t *family.Test, figure string) Manner {
	read, _ := t.ReadOf(figure)
	said := func(word string) bool { return slices.Contains(t.Words, word) }
	switch {
	case figure != "" && (read.By == family.BySetting || read.By == family.ByReseat ||
		slices.Contains(settings, figure)):
		return Sets
	case figure != "" && (read.By == family.ByLimit || read.By == family.ByOverall) && slices.Contains(hard, figure):
		return Binds
	case figure != "":
		return Leaks
	case said("stiff") || said("heats up") || said("smooth") || said("home") || said("rolls free"):
		return Binds
	case said("dry"):
		return Weeps
	case said("draws") || said("holds") || said("firm") || said("tight") || said("yes"):
		return Leaks
	}
	return Answers
}

// often is how much a fault of a kind of part speaks for itself, by manner: 3 often, 1 sometimes, 0.3 seldom, 0.05
// hardly ever. Guidance of ours, by what each kind does in a unit.
var often = map[string][manners]float64{
	// binds, leaks, weeps, sets, answers
	"body":           {0.3, 1, 0.3, 0.05, 0.3},
	"cover":          {0.3, 0.3, 0.3, 0.05, 0.05},
	"plate":          {1, 3, 0.05, 0.05, 0.3},
	"valve_plate":    {0.3, 3, 0.05, 0.05, 0.3},
	"tube":           {1, 3, 0.3, 0.05, 0.05},
	"gland":          {1, 0.3, 1, 0.05, 0.05},
	"bolts":          {1, 0.3, 0.3, 0.05, 0.05},
	"dowels":         {1, 0.05, 0.05, 0.05, 0.05},
	"key":            {0.3, 0.3, 0.05, 0.05, 0.3},
	"pin":            {1, 0.05, 0.05, 0.05, 0.3},
	"retaining_ring": {0.3, 0.05, 0.05, 0.05, 0.3},
	"shims":          {1, 0.3, 0.05, 3, 0.3},
	"plug":           {0.3, 0.3, 1, 0.3, 0.3},
	"fitting":        {0.3, 0.3, 1, 0.05, 0.3},
	"spacer":         {1, 0.3, 0.05, 0.3, 0.05},
	"o_ring":         {0.05, 1, 3, 0.05, 0.3},
	"backup_ring":    {0.3, 1, 1, 0.05, 0.05},
	"lip_seal":       {0.3, 0.05, 3, 0.05, 0.05},
	"piston_seal":    {1, 3, 1, 0.05, 0.3},
	"gasket":         {0.05, 0.3, 3, 0.05, 0.05},
	"gear_shaft":     {1, 1, 0.05, 0.05, 0.05},
	"rod":            {1, 0.3, 1, 0.05, 0.05},
	"cam":            {1, 0.3, 0.05, 0.05, 0.3},
	"rotor":          {1, 1, 0.05, 0.05, 0.3},
	"gerotor":        {1, 3, 0.05, 0.05, 0.3},
	"ring_gear":      {1, 1, 0.05, 0.05, 0.05},
	"vanes":          {0.3, 3, 0.05, 0.05, 0.3},
	"cam_ring":       {0.3, 3, 0.05, 0.05, 0.3},
	"barrel":         {0.3, 3, 0.05, 0.05, 0.05},
	"piston":         {1, 3, 0.3, 0.05, 0.3},
	"piston_set":     {1, 3, 0.05, 0.05, 0.3},
	"retainer":       {0.3, 1, 0.05, 0.05, 0.05},
	"swash":          {0.3, 0.3, 0.05, 0.3, 1},
	"needles":        {1, 0.05, 0.05, 0.05, 0.05},
	"bearing":        {3, 0.3, 0.3, 0.05, 0.05},
	"bush":           {3, 1, 0.05, 0.05, 0.05},
	"plate_pack":     {3, 0.3, 0.05, 0.3, 1},
	"spring":         {0.3, 0.3, 0.05, 3, 1},
	"disc_springs":   {0.3, 0.3, 0.05, 3, 1},
	"poppet":         {0.05, 3, 0.05, 3, 1},
	"ball":           {0.05, 3, 0.05, 1, 1},
	"spool":          {1, 1, 0.05, 1, 3},
	"disc_valve":     {0.3, 3, 0.05, 0.3, 1},
}

// seats is the share of what speaks for a part that lies in how it is fitted: much where it is clamped or pressed,
// little where it runs.
var seats = map[string]float64{"cover": 0.8, "plate": 0.5, "valve_plate": 0.5, "gland": 0.7, "bolts": 0.7,
	"dowels": 0.8, "key": 0.5, "pin": 0.8, "retaining_ring": 0.7, "shims": 0.4, "plug": 0.6, "fitting": 0.8,
	"spacer": 0.5, "o_ring": 0.6, "backup_ring": 0.6, "lip_seal": 0.5, "piston_seal": 0.4, "gasket": 0.5,
	"bearing": 0.5, "bush": 0.5, "needles": 0.4, "cam_ring": 0.4, "vanes": 0.3, "retainer": 0.3, "swash": 0.3,
	"plate_pack": 0.4, "disc_springs": 0.4, "poppet": 0.2, "disc_valve": 0.4}

const (
	runs    = 0.2 // the seat of what has none in the table
	clogs   = 0.5 // of what speaks for a part that dirt can hold
	unnamed = 0.05
)

// clog are the kinds that dirt holds open or shut.
var clog = []string{"spool", "poppet", "ball", "disc_valve", "plug", "fitting"}

// setBy are the kinds that make a setting.
var setBy = []string{"shims", "spring", "disc_springs"}

// Clogs reports a kind of part that dirt holds open or shut.
func Clogs(kind string) bool { return slices.Contains(clog, kind) }

// SetBy reports a kind of part that makes a setting.
func SetBy(kind string) bool { return slices.Contains(setBy, kind) }

// amounts are figures that tell how much of what was seen there is: of a hard turn, of what comes out, of what slips.
var amounts = []string{"torque", "start_torque", "drag_torque", "breakaway", "leakage", "drops", "drift", "vent"}

// Amount reports a figure that tells how much of what was seen there is; less is better.
func Amount(figure string) bool { return slices.Contains(amounts, figure) }

// Suspect is a part with what speaks against it: as it is, and as it was fitted.
type Suspect struct {
	Part, Kind string
	Itself     Against
	Fitted     Against
	Own        bool     // the step asks for the very assembly it belongs to
	Aside      bool     // it lies beside what the step moves
	Within     string   // the sub-assembly it belongs to, "" for none
	Behind     []string // the joints that clamp it
}

// A part of the assembly that a step asks for is suspected so much more, and one beside what it moves so much less.
const (
	ownAssembly = 3
	aside       = 0.05
)

// nobody is what is kept for what nobody thought of, as a share of all.
const nobody = 0.08

// TroublesOf are the ways in which the parts of a unit can be what a step shows, with what speaks for each.
func TroublesOf(parts []Suspect, m Manner) (out []Trouble) {
	all := 0.0
	for _, p := range parts {
		speaks, known := often[p.Kind]
		if !known {
			speaks = [manners]float64{0.3, 0.3, 0.3, 0.3, 0.3}
		}
		weight := speaks[m]
		if p.Own {
			weight *= ownAssembly
		}
		if p.Aside {
			weight *= aside
		}
		seat, has := seats[p.Kind]
		if !has {
			seat = runs
		}
		add := func(way Way, w float64) {
			all += w
			out = append(out, Trouble{Part: p.Part, Way: way, Weight: w, Behind: p.Behind, Within: p.Within})
		}
		itself := weight * (unnamed + p.Itself.Weight()) * (1 - seat)
		switch {
		case m == Sets && SetBy(p.Kind):
			add(Fault, itself/2)
			add(Setting, itself/2)
		case Clogs(p.Kind) && m != Weeps:
			add(Fault, itself*(1-clogs))
			add(Dirt, itself*clogs)
		default:
			add(Fault, itself)
		}
		add(Seat, weight*(unnamed+p.Fitted.Weight())*seat)
	}
	return append(out, Trouble{Way: Fault, Weight: nobody / (1 - nobody) * all})
}

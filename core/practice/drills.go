package practice

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/fastener"
	"corvek/core/fluidpower"
	"corvek/core/kit"
	"corvek/core/order"
	"corvek/core/quantity"
	"corvek/core/seal"
)

// Drill is a short question of the trade, drawn anew each time.
type Drill struct {
	Code, Name string
	What       string // the rule behind it
	draw       func(t *Task, r *rand.Rand)
}

// Task is one drawing of a drill.
type Task struct {
	Drill Drill
	Inch  bool
	Seed  uint64
	Says  []string // what is the case
	Asks  []Ask
	Line  *Line // that is looked at for it; nil for none

	families family.Library
}

var drills = []Drill{
	{Code: "each_from_total", Name: "Each from the whole stack", draw: drawEach,
		What: "A stack is measured whole and its pieces are judged each: divide by how many there are."},
	{Code: "counts", Name: "Counts that do not tie", draw: drawCounts,
		What: "What went in is what came out, whole or in bits. Bits count for the pieces that they make."},
	{Code: "fewest_leaves", Name: "A verdict with two leaves", draw: drawLeaves,
		What: "A gap is in when the thinnest leaf that is not too thin goes, and the thickest that is not too " +
			"thick stops."},
	{Code: "facing", Name: "Which way round", draw: drawFacing,
		What: "A part that goes in two ways round goes wrong one time in two. It is noted as it comes off, and read " +
			"off the line as it goes in."},
	{Code: "order", Name: "What must wait", draw: drawOrder,
		What: "A part that closes over another waits for it. Tightening counts too."},
	{Code: "torque", Name: "Torque from head mark and thread", draw: drawTorque,
		What: "T = K·d·F, F three quarters of the proof load; K 0.15 oiled, 0.20 dry. The maker's figure goes " +
			"before this one."},
	{Code: "stack", Name: "Dished springs for a force", draw: drawStack,
		What: "Springs that lie nested add their force, springs that stand opposed add their travel. A spring under " +
			"force is let go slowly, in a press."},
	{Code: "seal", Name: "Rubber for fluid and heat", draw: drawSeal,
		What: "It must bear the fluid, the hottest and the coldest. What the table does not hold, the maker of " +
			"the seal says."},
	{Code: "hold", Name: "A hold that cooled", draw: drawHold,
		What: "Oil that is shut in loses some 10 bar for each degree that it cools; what is lost beyond that leaked."},
	{Code: "plan", Name: "The test for a claim", draw: drawPlan,
		What: "A claim is shown by the steps that show it, all of them. Whatever else was run says nothing of it."},
	{Code: "claims", Name: "What this certificate does not show", draw: drawClaims,
		What: "A claim stands on steps. Where one of them was not run, or was out, it is said and not shown."},
}

// Drills are they, in the order of the stations.
func Drills() []Drill { return drills }

// DrillByCode finds one.
func DrillByCode(code string) (d Drill, known bool) {
	for _, d := range drills {
		if d.Code == code {
			return d, true
		}
	}
	return d, false
}

// NewTask draws a drill; the same seed draws the same. Families are what the shop works on.
func NewTask(d Drill, inch bool, seed uint64, families family.Library) *Task {
	t := &Task{Drill: d, Inch: inch, Seed: seed, families: families}
	d.draw(t, chance(d.Code, inch, seed))
	return t
}

// Judge holds answers against what is so, one for each that is asked.
func (t *Task) Judge(answers []string) ([]Verdict, error) { return judge(t.Asks, answers) }

func (t *Task) say(format string, args ...any) { t.Says = append(t.Says, fmt.Sprintf(format, args...)) }

// in is a unit of ours by its name.
func in(name string, d quantity.Dimension) quantity.Unit {
	u, known := quantity.UnitByName(name, d)
	if !known {
		panic(name) // it stands in our own table
	}
	return u
}

// length is the unit of lengths with the step of a caliper.
func (t *Task) length() (unit string, step, one float64) {
	if t.Inch {
		return "in", 0.001, in("in", quantity.Length).In(1e-3)
	}
	return "mm", 0.01, 1
}

func drawEach(t *Task, r *rand.Rand) {
	unit, step, one := t.length()
	n := between(r, 5, 14)
	each := math.Round((1.6+1.6*r.Float64())*one/step) * step
	total := float64(n) * each
	t.say("A pack of %d friction plates measures %s over all, pressed together.", n, shown(total, step, unit))
	t.Asks = []Ask{{Name: "Each of them is", Unit: unit, Want: each, Step: step, Within: step, slips: []slip{
		{total, "That is the whole pack: it is judged by the piece."},
		{total / float64(n-1), "There are as many plates as were counted, not one fewer."},
		{total / float64(n+1), "There are as many plates as were counted, not one more."},
	}}}
}

func drawCounts(t *Task, r *rand.Rand) {
	what := pick(r, [2]string{"needle", "needles"}, [2]string{"slipper", "slippers"}, [2]string{"vane", "vanes"},
		[2]string{"piston ring", "piston rings"})
	n := between(r, 7, 24)
	missing, made := between(r, 0, 2), between(r, 1, 2)
	bits := made*2 + between(r, 0, 2)
	whole := n - missing - made
	t.say("The drawing has %d %s. On the bench lie %d whole ones, and %d bits that together make %d more.", n,
		what[1], whole,
		bits, made)
	t.Asks = []Ask{{Name: "Still in the machine, or in the tank", Want: float64(missing), Step: 1, Within: 0.1,
		slips: []slip{
			{float64(missing + made), "The bits are pieces too: they count for what they make."},
			{float64(n - whole - bits), "Bits are not pieces: so many bits make fewer."},
			{float64(whole + made), "That is what was found; what is missing is the rest."},
		}}}
}

func drawLeaves(t *Task, r *rand.Rand) {
	unit, step := "mm", 0.01
	leaves := []float64{0.03, 0.04, 0.05, 0.06, 0.08, 0.10, 0.13, 0.15, 0.20, 0.25, 0.30}
	if t.Inch {
		unit, step = "in", 0.001
		leaves = []float64{0.001, 0.002, 0.003, 0.004, 0.005, 0.006, 0.008, 0.010, 0.012, 0.015}
	}
	i := between(r, 1, len(leaves)-4)
	k := between(r, i+1, min(i+3, len(leaves)-2))
	least := leaves[i-1] + (leaves[i]-leaves[i-1])*pick(r, 0.5, 1)
	most := leaves[k] + (leaves[k+1]-leaves[k])*pick(r, 0, 0.5)
	var at []string
	for _, l := range leaves {
		at = append(at, shown(l, step, ""))
	}
	t.say("A clearance is in from %s to %s %s.", shown(least, step/10, ""), shown(most, step/10, ""), unit)
	t.say("At hand are leaves of %s %s.", strings.Join(at, ", "), unit)
	t.Asks = []Ask{
		{Name: "It is not too small when this one goes", Unit: unit, Want: leaves[i], Step: step,
			Within: step / 4, slips: []slip{
				{leaves[i-1], "That one is thinner than the least: it may go though the gap is too small."},
				{leaves[i+1], "A thinner one shows it too, and goes into more gaps that are in."},
			}},
		{Name: "And not too large when this one stops", Unit: unit, Want: leaves[k], Step: step,
			Within: step / 4, slips: []slip{
				{leaves[k+1], "That one is thicker than the most: it may stop though the gap is too large."},
				{leaves[k-1], "A thicker one shows it too, and stops in more gaps that are in."},
			}},
	}
}

func drawTorque(t *Task, r *rand.Rand) {
	type head struct{ class, mark string }
	name, unit := pick(r, "M6", "M8", "M10", "M12", "M16", "M20"), "N·m"
	h := pick(r, head{"8.8", "8.8"}, head{"10.9", "10.9"}, head{"12.9", "12.9"})
	if t.Inch {
		name, unit = pick(r, "1/4-20", "5/16-18", "3/8-16", "1/2-13", "5/8-11"), "lbf·ft"
		h = pick(r, head{"grade 2", "no lines at all"}, head{"grade 5", "three lines"}, head{"grade 8", "six lines"})
	}
	k, other, how := fastener.KOiled, fastener.KDry, "oiled"
	if r.IntN(3) == 0 {
		k, other, how = fastener.KDry, fastener.KOiled, "dry"
	}
	thread, err := fastener.ParseThread(name)
	if err != nil {
		panic(err) // they stand in our own table
	}
	t.say("A screw %s, %s; on its head stands: %s. The maker's figure is not to be had.", name, how, h.mark)
	ask := Ask{Name: "It is tightened to", Unit: unit, Step: 1}
	for _, c := range fastener.Span(thread, k, fastener.UsualPreload) {
		if c.Class.Name == h.class {
			ask.Want = in(unit, quantity.Torque).In(c.Torque)
			continue
		}
		says := "That is for " + c.Class.Name + ": read the head once more."
		ask.slips = append(ask.slips, slip{in(unit, quantity.Torque).In(c.Torque), says})
	}
	for _, c := range fastener.Span(thread, other, fastener.UsualPreload) {
		if c.Class.Name == h.class {
			ask.slips = append(ask.slips, slip{in(unit, quantity.Torque).In(c.Torque),
				"That is for the other one of oiled and dry."})
		}
	}
	ask.slips = append(ask.slips, slip{ask.Want / fastener.UsualPreload,
		"That is the proof load whole; three quarters of it are aimed at."})
	if ask.Within = ask.Want * 0.08; ask.Want < 10 {
		ask.Step = 0.1
	}
	t.Asks = []Ask{ask}
}

func drawSeal(t *Task, r *rand.Rand) {
	for range 200 {
		fluid := pick(r, seal.Fluids()...)
		hot, cold := float64(pick(r, 60, 80, 95, 110, 130, 150)), float64(pick(r, -5, -15, -25, -35))
		t.Asks = []Ask{{Name: "The ring is of"}}
		right := 0
		for _, i := range r.Perm(len(seal.Elastomers())) {
			o, known := sealOption(seal.Elastomers()[i], fluid, hot, cold)
			if !known || o.Right && right > 0 || !o.Right && len(t.Asks[0].Options)-right == 3 {
				continue
			}
			if o.Right {
				right++
			}
			t.Asks[0].Options = append(t.Asks[0].Options, o)
		}
		if right == 1 && len(t.Asks[0].Options) == 4 {
			t.say("An O-ring lies in %s, between %.0f and %.0f °C.", fluid, cold, hot)
			return
		}
	}
	panic("no ring for any fluid: the table of the elastomers is not whole")
}

// sealOption is a rubber as an answer, as the kit judges it at the hottest and at the coldest; known is false where
// the table does not say or bears it with limits.
func sealOption(rubber, fluid string, hot, cold float64) (o Option, known bool) {
	o = Option{Words: rubber, Right: true}
	for _, at := range []float64{cold, hot} {
		in := kit.Setting{Fluid: fluid, Temperature: at, HasTemperature: true}
		f, ok := in.Bears(rubber)
		if !ok || f.Verdict != seal.Suitable && f.Verdict != seal.Unsuitable {
			return o, false
		}
		o.Says = fmt.Sprintf("At %.0f °C, %s.", at, f.Text)
		if f.Stops {
			o.Right = false
			break
		}
	}
	return o, true
}

func drawHold(t *Task, r *rand.Rand) {
	const bar = 1e5
	start := float64(between(r, 32, 50)) * 5
	warm, cooled := float64(between(r, 30, 55)), float64(between(r, 2, 6))
	leaked := float64(between(r, -2, 2))
	leaks := r.IntN(2) == 0
	if leaks {
		leaked = float64(between(r, 25, 60))
	}
	t1 := warm + fluidpower.Kelvin
	heat := fluidpower.ShutIn{}.Thermal(start*bar, t1, cooled) / bar
	end := math.Round(start - heat - leaked)
	brought := fluidpower.ShutIn{}.Brought(end*bar, t1, t1-cooled) / bar
	unit, of := "bar", 1.0
	if t.Inch {
		unit, of = "psi", in("psi", quantity.Pressure).In(bar)
	}
	t.say("Oil is shut in at %s and %.0f °C. Ten minutes later the gauge shows %s, at %.0f °C.",
		shown(math.Round(start*of), 1, unit), warm, shown(math.Round(end*of), 1, unit), warm-cooled)
	said := fmt.Sprintf("Cooling by %.0f °C takes %.0f %s; %.0f %s were lost.", cooled, heat*of, unit,
		(start-end)*of, unit)
	t.Asks = []Ask{
		{Name: "Brought to the temperature at the start, it shows", Unit: unit,
			Want: math.Round(brought * of), Step: 1,
			Within: 3 * of, slips: []slip{
				{math.Round((end - heat) * of), "The wrong way: it cooled, so that the heat is added again."},
				{math.Round(end * of), "That is what the gauge shows; what the cooling took is added."},
			}},
		{Name: "And so", Options: []Option{
			{Words: "the cooling explains it", Right: !leaks, Says: said},
			{Words: "it leaks as well", Right: leaks, Says: said},
		}},
	}
}

// drawOrder builds a unit of some family part of the way, and asks which part must wait.
func drawOrder(t *Task, r *rand.Rand) {
	for range 300 {
		f := pick(r, t.families.List()...)
		parts := make([]*family.Part, len(f.Parts))
		for i := range f.Parts {
			parts[i] = &f.Parts[i]
		}
		o, err := f.Ordered(parts)
		if err != nil || len(parts) < 8 {
			continue
		}
		in := built(o, r, between(r, 1, len(parts)-4))
		if t.mustWait(f, o, in, r) {
			return
		}
	}
	panic("no family has a part that waits for another")
}

// built fits so many parts, each as it may go.
func built(o *order.Order, r *rand.Rand, steps int) order.Set {
	in := order.Set{}
	codes := o.Codes()
	for range steps {
		for _, i := range r.Perm(len(codes)) {
			if !in[codes[i]] && len(o.Over(in, codes[i])) == 0 {
				in[codes[i]] = true
				break
			}
		}
	}
	return in
}

func (t *Task) mustWait(f *family.Family, o *order.Order, in order.Set, r *rand.Rand) bool {
	var waits, goes []Option
	var there []string
	for _, code := range o.Codes() {
		p, known := f.PartByCode(code)
		switch {
		case !known:
			continue
		case in[code]:
			there = append(there, strings.ToLower(p.Name))
			continue
		}
		over := o.Over(in, code)
		if len(over) == 0 {
			goes = append(goes, Option{Words: p.Name, Says: p.Name + " may go in now."})
			continue
		}
		under, known := f.PartByCode(strings.TrimSuffix(over[0], order.Tight))
		if !known || under.Code == code {
			continue
		}
		waits = append(waits, Option{Words: p.Name, Right: true, Says: under.Name + " goes in before it."})
	}
	if len(waits) == 0 || len(goes) < 3 {
		return false
	}
	r.Shuffle(len(goes), func(i, k int) { goes[i], goes[k] = goes[k], goes[i] })
	options := append(goes[:3:3], pick(r, waits...))
	r.Shuffle(4, func(i, k int) { options[i], options[k] = options[k], options[i] })
	words := map[string]bool{}
	for _, o := range options {
		words[o.Words] = true
	}
	if len(words) < 4 {
		return false // two parts of one name cannot be told apart here
	}
	t.say("%s. In already: %s.", f.Name, strings.Join(there, ", "))
	t.Asks = []Ask{{Name: "Which of these must wait?", Options: slices.Clone(options)}}
	return true
}

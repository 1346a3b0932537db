package calc

import (
	"strings"

	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/spring"
)

func init() { register(discDef) }

// discFlat is the share of flat beyond which the load curve is no longer trusted.
const discFlat = 0.75

var discDef = &Def{
	Name:    "disc_stack",
	Title:   "Dished-spring stack",
	Asked:   []string{"force", "free_length"},
	Subject: "Springs, fasteners",
	Summary: "Force and travel of a stack of dished springs, at a deflection, a force or an installed height",
	Inputs: []Input{
		q("outside", quantity.Length, "diameter"),
		q("inside", quantity.Length, "diameter"),
		q("thickness", quantity.Length, ""),
		q("cone_height", quantity.Length, "free height of one disc less its thickness"),
		absent(q("youngs", quantity.Pressure, ""), "206 GPa"),
		atMost(absent(number("poisson", ""), "0.3"), 0.5),
		{Name: "stack", Kind: Text, Help: "each disc < or >, like >><<"},
		optional(q("deflection", quantity.Length, "of the whole stack")),
		optional(q("force", quantity.Force, "")),
		optional(q("installed_height", quantity.Length, "")),
		optional(q("needed_force", quantity.Force, "")),
	},
	Results: []Result{
		{"groups", "", "nest sizes"},
		{"free_length", "m", ""},
		{"solid_deflection", "m", ""},
		{"flat_fraction", "", "deflection of a disc over its cone height"},
		{"single_force_flat", "N", ""},
		{"force", "N", ""},
		{"deflection", "m", ""},
		{"energy", "J", ""},
		{"verdict", "", "against needed_force"},
	},
	Formula: "F(s) = 4E/(1−μ²)·t⁴/(K1·De²)·x·((h−x)(h−x/2)+1), x = s/t, h = h0/t; " +
		"a nest of n carries n times the force, groups add travel",
	Source:      "Almen and Laszlo, DIN 2092",
	Assumptions: "no friction, no flats, equal discs",
	Example: `{"outside":"50 mm","inside":"25.4 mm","thickness":"2 mm","cone_height":"1.4 mm","stack":">><<",` +
		`"installed_height":"9 mm"}`,
	Run: runDisc,
}

func runDisc(a *Args, o *Output) error {
	d := spring.Disc{
		Outside:   a.Val("outside"),
		Inside:    a.Val("inside"),
		Thickness: a.Val("thickness"),
		Cone:      a.Val("cone_height"),
		Youngs:    a.Or("youngs", spring.SteelYoungs),
		Poisson:   a.Or("poisson", spring.SteelPoisson),
	}
	for _, n := range []string{"outside", "inside", "thickness", "cone_height"} {
		if a.Val(n) == 0 {
			return field.Errorf(n, "must be more than zero here")
		}
	}
	if d.Inside >= d.Outside {
		return field.Errorf("inside", "must be smaller than the outside diameter")
	}
	text := strings.Join(strings.Fields(a.Text("stack")), "")
	if len(text) > 1000 {
		return field.Errorf("stack", "has more than 1000 discs")
	}
	nests, err := spring.Nests(text)
	if err != nil {
		return field.Errorf("stack", "%s", err)
	}
	s := spring.Stack{Disc: d, Nests: nests}
	groups := make([]float64, len(nests))
	for i, n := range nests {
		groups[i] = float64(n)
	}
	o.List("groups", groups, "")
	o.Fig("free_length", s.FreeLength(), "m")
	o.Fig("solid_deflection", s.Solid(), "m")
	o.Step("%d groups of nests %v: free length Σ(h0 + n·t) = %s, travel to flat %s", len(nests), nests,
		mm(s.FreeLength()), mm(s.Solid()))
	if d.Dips() {
		o.Warn("load_dips",
			"h0/t is above √2: the load falls again before the disc is flat; the smaller deflection is taken")
	}
	loads := 0
	last := ""
	for _, n := range []string{"deflection", "force", "installed_height"} {
		if a.Has(n) {
			loads++
			last = n
		}
	}
	if loads > 1 {
		return field.Errorf(last, "give one of deflection, force and installed_height")
	}
	o.Fig("single_force_flat", d.Flat(), "N")
	o.Step("one disc flat: %s N", f(d.Flat()))
	if loads == 0 {
		return nil
	}
	force, deflection, most, energy, err := loadDisc(a, s, last)
	if err != nil {
		return err
	}
	o.Fig("flat_fraction", most/d.Cone, "")
	o.Fig("force", force, "N")
	o.Fig("deflection", deflection, "m")
	o.Fig("energy", energy, "J")
	o.Step("at %s of travel the stack presses with %s N; the most a disc is pressed is %s of flat", mm(deflection),
		f(force), f(most/d.Cone))
	if most > discFlat*d.Cone*(1+1e-9) {
		o.Warn("near_flat", "a disc is pressed beyond 75 %% of flat; real force rises above this figure and life falls")
	}
	if a.Has("needed_force") {
		verdict := "out"
		if force >= a.Val("needed_force")*(1-1e-12) {
			verdict = "in"
		}
		o.Word("verdict", verdict)
	}
	return nil
}

func loadDisc(a *Args, s spring.Stack, given string) (force, deflection, most, energy float64, err error) {
	const slack = 1 + 1e-9
	switch given {
	case "force":
		force = a.Val("force")
		if force > s.MostForce()*slack {
			return 0, 0, 0, 0, field.Errorf("force", "is more than presses every disc flat, %s N", f(s.MostForce()))
		}
		deflection, most, energy = s.Travel(force)
		return force, deflection, most, energy, nil
	case "installed_height":
		deflection = s.FreeLength() - a.Val("installed_height")
		if deflection < -1e-12 {
			return 0, 0, 0, 0, field.Errorf("installed_height",
				"is more than the free length of %s: the stack would rattle", mm(s.FreeLength()))
		}
	default:
		deflection = a.Val("deflection")
	}
	if deflection > s.Solid()*slack {
		return 0, 0, 0, 0, field.Errorf(given, "asks for %s of travel; the stack is flat after %s", mm(deflection),
			mm(s.Solid()))
	}
	force, most, energy = s.ForceAt(deflection)
	return force, deflection, most, energy, nil
}

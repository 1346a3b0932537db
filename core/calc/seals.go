package calc

import (
	"math"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/seal"
)

func init() { register(oringFindDef, glandDef, lipFindDef, lipOffsetDef, shelfDef, compatibleDef) }

var oringFindDef = &Def{
	Name:    "oring_find",
	Title:   "O-ring find",
	Asked:   []string{"candidates"},
	Subject: "Seals",
	Summary: "Standard O-rings nearest to a measured one",
	Inputs: []Input{
		q("inside", quantity.Length, "diameter"),
		q("section", quantity.Length, "thickness"),
		optional(q("tolerance", quantity.Length, "most that either may differ")),
	},
	Results: []Result{
		{
			"candidates",
			"",
			"best first: standard, code, inside, section, their differences and, where certain, tolerances",
		},
	},
	Formula:     "ranked by |Δsection|/section + |Δinside|/(inside + section)",
	Source:      "AS568, ISO 3601-1 general series",
	Assumptions: "an old ring has shrunk or set; measure the groove too",
	Example:     `{"inside":"24.0 mm","section":"3.5 mm"}`,
	Run: func(a *Args, o *Output) error {
		if a.Val("section") == 0 {
			return field.Errorf("section", "must be more than zero here")
		}
		found := seal.FindRings(a.Val("inside"), a.Val("section"), a.Val("tolerance"), 8)
		list := []map[string]any{}
		for _, r := range found {
			row := map[string]any{
				"standard": r.Standard,
				"code":     r.Code,
				"inside":   Figure{r.Inside, "m"},
				"section":  Figure{r.Section, "m"},
				"d_inside": Figure{
					r.Inside - a.Val("inside"),
					"m",
				},
				"d_section":         Figure{r.Section - a.Val("section"), "m"},
				"section_tolerance": Figure{r.SectionTolerance, "m"},
			}
			inside := mm(r.Inside)
			if r.InsideTolerance > 0 {
				row["inside_tolerance"] = Figure{r.InsideTolerance, "m"}
				inside += " ± " + mm(r.InsideTolerance)
			}
			list = append(list, row)
			o.Step("%s %s: %s × %s ± %s", r.Standard, r.Code, inside, mm(r.Section), mm(r.SectionTolerance))
		}
		o.Table("candidates", list)
		if len(found) > 0 && !found[0].Near(a.Val("inside"), a.Val("section")) {
			o.Warn(
				"none_near",
				"no standard ring is near this one; look whether it is a made-to-order ring, swollen or set, or "+
					"another kind of seal",
			)
		}
		if len(found) == 0 {
			o.Step("none within %s", mm(a.Val("tolerance")))
			o.Warn("none", "no standard size lies within the tolerance")
		}
		return nil
	},
}

// Usual bounds of O-ring glands, shop guidance after common design tables.
var squeezeBounds = map[string][2]float64{"static_radial": {.10, .30}, "dynamic_radial": {.08, .20}, "face": {.10, .30}}

const (
	mostStretch = 0.05
	mostFill    = 0.85
)

// extrusion gives the pressure a ring of this hardness holds at the gap beside
// it without a back-up ring; it falls as the gap grows.
var extrusion = map[float64]struct{ pressure, gap float64 }{70: {100e5, 0.10e-3}, 90: {200e5, 0.15e-3}}

var glandDef = &Def{
	Name:    "oring_gland",
	Title:   "O-ring gland",
	Asked:   []string{"squeeze"},
	Subject: "Seals",
	Summary: "Stretch, squeeze, fill and extrusion gap of an O-ring in its groove",
	Inputs: []Input{
		q("inside", quantity.Length, "of the free ring"),
		q("section", quantity.Length, "of the free ring"),
		choice("use", "", "", "static_radial", "dynamic_radial", "face"),
		optional(q("bore", quantity.Length, "ring in a piston groove")),
		q("gland_diameter", quantity.Length, "groove bottom; for a rod gland the outer one"),
		q("gland_width", quantity.Length, ""),
		optional(q("rod", quantity.Length, "ring in a rod gland")),
		optional(q("gland_depth", quantity.Length, "face seals")),
		optional(q("mating_diameter", quantity.Length, "piston in the bore, or hole round the rod")),
		q("pressure", quantity.Pressure, ""),
		absent(number("hardness", "Shore A, 70 or 90"), "70"),
	},
	Results: []Result{
		{"stretch", "", ""},
		{"squeeze", "", ""},
		{"fill", "", ""},
		{"extrusion_gap", "m", "diametral"},
		{"backup_needed", "", ""},
	},
	Formula: "depth = (bore − groove)/2 or (groove − rod)/2; squeeze = (section − depth)/section; fill = " +
		"π/4·section²/(depth·width)",
	Source:      "common gland design bounds; AS568 rings",
	Assumptions: "free section; stretch thins the ring a little",
	Example: `{"inside":"44.04 mm","section":"3.53 mm","use":"static_radial","bore":"50.8 mm",` +
		`"gland_diameter":"45 mm","gland_width":"4.8 mm","mating_diameter":"50.65 mm","pressure":"210 bar"}`,
	Run: runGland,
}

func runGland(a *Args, o *Output) error {
	section, groove := a.Val("section"), a.Val("gland_diameter")
	use := a.Text("use")
	hardness := a.Or("hardness", 70)
	limit, ok := extrusion[hardness]
	if !ok {
		return field.Errorf("hardness", "is 70 or 90 Shore A here")
	}
	var depth, on, gap float64
	hasGap := a.Has("mating_diameter") && use != "face"
	switch {
	case use == "face":
		if !a.Has("gland_depth") {
			return field.Errorf("gland_depth", "is needed for a face seal")
		}
		depth, on = a.Val("gland_depth"), groove
	case a.Has("bore") && a.Has("rod"):
		return field.Errorf("rod", "give the bore for a piston groove or the rod for a rod gland, not both")
	case a.Has("bore"):
		depth, on, gap = (a.Val("bore")-groove)/2, groove, a.Val("bore")-a.Val("mating_diameter")
		if depth <= 0 {
			return field.Errorf("gland_diameter", "must be smaller than the bore")
		}
	case a.Has("rod"):
		depth, on, gap = (groove-a.Val("rod"))/2, a.Val("rod"), a.Val("mating_diameter")-a.Val("rod")
		if depth <= 0 {
			return field.Errorf("gland_diameter", "must be larger than the rod")
		}
	default:
		return field.Errorf("bore", "is missing; give it for a piston groove, or the rod for a rod gland")
	}
	if hasGap && gap < 0 {
		return field.Errorf("mating_diameter", "does not go together with the bore or rod: the gap would be below zero")
	}
	stretch, squeeze := (on-a.Val("inside"))/a.Val("inside"), (section-depth)/section
	fill := math.Pi / 4 * section * section / (depth * a.Val("gland_width"))
	o.Fig("stretch", stretch, "")
	o.Fig("squeeze", squeeze, "")
	o.Fig("fill", fill, "")
	o.Step("depth %s: squeeze (%s − depth)/section = %s; stretch %s; fill %s", mm(depth), mm(section), f(squeeze),
		f(stretch), f(fill))
	bounds := squeezeBounds[use]
	switch {
	case squeeze < bounds[0]-1e-9:
		o.Warn("squeeze_low", "squeeze is below the usual %s to %s", f(bounds[0]), f(bounds[1]))
	case squeeze > bounds[1]+1e-9:
		o.Warn("squeeze_high", "squeeze is above the usual %s to %s", f(bounds[0]), f(bounds[1]))
	}
	if stretch > mostStretch+1e-9 {
		o.Warn("stretch_high", "stretch is above 5 %%")
	}
	if stretch < -0.03 {
		o.Warn("ring_too_large", "the ring is larger than its seat and may buckle")
	}
	if fill > mostFill+1e-9 {
		o.Warn("fill_high", "the groove is filled more than 85 %%; swelling has no room")
	}
	holds := limit.pressure
	if hasGap {
		o.Fig("extrusion_gap", gap, "m")
		if gap > limit.gap {
			holds *= limit.gap / gap
		}
	}
	backup := a.Val("pressure") > holds
	o.Bool("backup_needed", backup)
	if backup {
		o.Warn(
			"backup_needed",
			"a ring of %.0f Shore A holds about %s at this gap without help: back-up ring on the side away from "+
				"pressure, on both where pressure comes from either",
			hardness,
			bar(holds),
		)
	}
	return nil
}

var pressFit = map[string]float64{"new": seal.NewPressFit, "old": seal.OldPressFit}

var lipFindDef = &Def{
	Name:    "lip_seal_find",
	Asked:   []string{"candidates"},
	Subject: "Seals",
	Summary: "Standard rotary seals for a shaft and a housing",
	Inputs: []Input{
		q("shaft", quantity.Length, ""),
		optional(q("bore", quantity.Length, "of the housing, or seal_outside")),
		optional(q("seal_outside", quantity.Length, "of the seal itself")),
		optional(choice("seal_state", "", "with seal_outside", "old", "new")),
		optional(q("width", quantity.Length, "")),
		{
			Name:     "stock",
			Kind:     Objects,
			Optional: true,
			Help:     "seals on the shelf",
			Parts: []Input{
				q("shaft", quantity.Length, ""),
				q("bore", quantity.Length, ""),
				q("width", quantity.Length, ""),
			},
		},
	},
	Results:     []Result{{"candidates", "", "best first: standard, shaft, bore, width, differences"}},
	Formula:     "ranked by |Δshaft| + |Δbore|",
	Source:      "ISO 6194-1 sizes; common inch sizes",
	Assumptions: "a new seal is about 0.25 mm larger than its bore, an old one 0.1 mm",
	Example:     `{"shaft":"3/4 in","bore":"1-1/4 in"}`,
	Run: func(a *Args, o *Output) error {
		bore := a.Val("bore")
		switch {
		case a.Has("bore") && a.Has("seal_outside"):
			return field.Errorf("seal_outside", "give the housing's bore or the seal's outside, not both")
		case a.Has("seal_outside") && !a.Has("seal_state"):
			return field.Errorf("seal_state", "say old or new: an old seal has relaxed")
		case a.Has("seal_outside"):
			bore = a.Val("seal_outside") - pressFit[a.Text("seal_state")]
			o.Step("bore taken as %s − %s press fit = %s", mm(a.Val("seal_outside")),
				mm(pressFit[a.Text("seal_state")]), mm(bore))
			o.Warn("not_the_bore", "a seal's outside is not the bore; measure the housing too")
		case !a.Has("bore"):
			return field.Errorf("bore", "is missing; give it in mm or in, or seal_outside with seal_state")
		}
		if bore <= a.Val("shaft") {
			return field.Errorf("bore", "must be larger than the shaft")
		}
		var stock []seal.Lip
		for _, s := range a.Objects("stock") {
			stock = append(stock,
				seal.Lip{Standard: "stock", Shaft: s["shaft"].SI, Bore: s["bore"].SI, Width: s["width"].SI})
		}
		list := []map[string]any{}
		for _, l := range seal.FindLips(a.Val("shaft"), bore, a.Val("width"), stock, 8) {
			list = append(
				list,
				map[string]any{
					"standard": l.Standard,
					"shaft":    Figure{l.Shaft, "m"},
					"bore":     Figure{l.Bore, "m"},
					"width":    Figure{l.Width, "m"},
					"d_shaft":  Figure{l.Shaft - a.Val("shaft"), "m"},
					"d_bore":   Figure{l.Bore - bore, "m"},
				},
			)
			o.Step("%s: %s × %s × %s", l.Standard, mm(l.Shaft), mm(l.Bore), mm(l.Width))
		}
		o.Table("candidates", list)
		if len(list) == 0 {
			o.Step("nothing near %s × %s in the tables", mm(a.Val("shaft")), mm(bore))
			o.Warn("none", "no common size is near; ask the supplier, or sleeve the housing")
		}
		return nil
	},
}

var lipOffsetDef = &Def{
	Name:    "lip_offset",
	Asked:   []string{"press_depths"},
	Subject: "Seals",
	Summary: "How deep to press a seal so that its lip runs beside the worn groove",
	Inputs: []Input{
		q("groove_from_face", quantity.Length, "near edge of the groove, from the housing's outer face"),
		q("groove_width", quantity.Length, ""),
		q("seal_width", quantity.Length, ""),
		q("lip_position", quantity.Length, "from the seal's outer face"),
		q("bore_depth", quantity.Length, ""),
		optional(q("shoulder_depth", quantity.Length, "where the seal must stop")),
		absent(q("margin", quantity.Length, "kept from the groove"), "0"),
	},
	Results:     []Result{{"press_depths", "", "from and to, of the seal's outer face"}},
	Formula:     "lip = depth + lip_position outside [groove − margin, groove + width + margin]",
	Source:      "geometry",
	Assumptions: "the shaft beside the groove is sound",
	Example: `{"groove_from_face":"5 mm","groove_width":"0.8 mm","seal_width":"7 mm","lip_position":"4 mm",` +
		`"bore_depth":"12 mm","margin":"0.5 mm"}`,
	Run: func(a *Args, o *Output) error {
		bottom := a.Val("bore_depth")
		if a.Has("shoulder_depth") {
			bottom = math.Min(bottom, a.Val("shoulder_depth"))
		}
		if a.Val("lip_position") > a.Val("seal_width") {
			return field.Errorf("lip_position", "lies outside the seal's width")
		}
		list := []map[string]any{}
		for _, s := range seal.PressDepths(a.Val("groove_from_face"), a.Val("groove_width"), a.Val("seal_width"),
			a.Val("lip_position"), bottom, a.Val("margin")) {
			list = append(list, map[string]any{"from": Figure{s.From, "m"}, "to": Figure{s.To, "m"}})
			o.Step("outer face from %s to %s deep", mm(s.From), mm(s.To))
		}
		o.Table("press_depths", list)
		if len(list) == 0 {
			o.Step("no depth keeps the lip off the groove and the seal in its bore")
			o.Warn("none", "sleeve the shaft, or use a seal with another lip position")
		}
		return nil
	},
}

var shelfDef = &Def{
	Name:    "shelf_life",
	Asked:   []string{"expires"},
	Subject: "Seals",
	Summary: "How long a stored seal may still be fitted",
	Inputs: []Input{
		{Name: "elastomer", Kind: Text, Help: "ISO 1629 letters"},
		{Name: "cure_date", Kind: Text, Help: "2017-Q3 or 2017-08-21"},
		optional(Input{Name: "on", Kind: Text, Help: "the day that is asked about, 2031-05-14"}),
		optional(choice("stored", "bag", "", "bag", "fitted")),
	},
	Results: []Result{
		{"group", "", "A, B or C"},
		{"life", "years", ""},
		{"extension", "years", "after inspection"},
		{"expires", "", ""},
		{"remaining", "years", ""},
		{"verdict", "", "good, extend or expired"},
	},
	Formula:     "expires = cure + life of the group; a quarter counts from its last day",
	Source:      "ISO 2230",
	Assumptions: "cool, dark, sealed, unstressed",
	Example:     `{"elastomer":"NBR","cure_date":"2017-Q3","on":"2023-05-01"}`,
	Run: func(a *Args, o *Output) error {
		g, err := seal.GroupOf(a.Text("elastomer"))
		if err != nil {
			return field.Errorf("elastomer", "%s", err)
		}
		cure, err := seal.ParseCure(a.Text("cure_date"))
		if err != nil {
			return field.Errorf("cure_date", "%s", err)
		}
		expires := cure.AddDate(g.Life, 0, 0)
		o.Word("group", g.Name)
		o.Fig("life", float64(g.Life), "years")
		o.Fig("extension", float64(g.Extension), "years")
		o.Word("expires", expires.Format(time.DateOnly))
		o.Step("group %s keeps %d years: %s + %d years = %s", g.Name, g.Life, cure.Format(time.DateOnly), g.Life,
			expires.Format(time.DateOnly))
		if a.Text("stored") == "fitted" {
			o.Warn("fitted", "a seal stored fitted is under stress; the years hold for a seal in its bag")
		}
		if !a.Has("on") {
			return nil
		}
		on, err := time.Parse(time.DateOnly, a.Text("on"))
		if err != nil {
			return field.Errorf("on", "is a date like 2031-05-14")
		}
		if made, _ := seal.CureBegins(a.Text("cure_date")); on.Before(made) {
			return field.Errorf("on", "lies before the cure of %s; look at both dates again", a.Text("cure_date"))
		}
		o.Fig("remaining", expires.Sub(on).Hours()/24/365.25, "years")
		switch {
		case !on.After(expires):
			o.Word("verdict", "good")
		case !on.After(expires.AddDate(g.Extension, 0, 0)):
			o.Word("verdict", "extend")
			o.Warn("extend", "inspect it for cracks, set and tackiness before its life is extended by %d years",
				g.Extension)
		default:
			o.Word("verdict", "expired")
		}
		return nil
	},
}

// nearHot is how close to the upper end a temperature counts as limited, K.
const nearHot = 10.0

var compatibleDef = &Def{
	Name:    "compatible",
	Title:   "Elastomer and fluid",
	Asked:   []string{"reason"},
	Subject: "Seals",
	Summary: "Compatibility of an elastomer with a fluid",
	Inputs: []Input{
		{Name: "elastomer", Kind: Text, Help: strings.Join(seal.Elastomers(), ", ")},
		{Name: "fluid", Kind: Text, Help: strings.Join(seal.Fluids(), ", ")},
		optional(q("temperature", quantity.Temperature, "")),
	},
	Results: []Result{
		{"verdict", "", "suitable, limited or unsuitable"},
		{"reason", "", ""},
		{"range", "degC", "low and high"},
	},
	Formula:     "table",
	Source:      "common resistance tables; doubtful pairs left out",
	Assumptions: "usual compounds; the seal maker's word wins",
	Example:     `{"elastomer":"NBR","fluid":"mineral oil","temperature":"80 °C"}`,
	Run: func(a *Args, o *Output) error {
		elastomer, liquid := strings.ToUpper(a.Text("elastomer")), strings.ToLower(
			strings.Join(strings.Fields(a.Text("fluid")), " "),
		)
		if elastomer == "AU" || elastomer == "EU" {
			elastomer = "PU"
		}
		verdict, r, known, ok := seal.Bears(elastomer, liquid)
		switch {
		case !known && r == (seal.Range{}):
			return field.Errorf("elastomer", "%q is not in the table; it knows %s", a.Text("elastomer"),
				strings.Join(seal.Elastomers(), ", "))
		case !known:
			return field.Errorf("fluid", "%q is not in the table; it knows %s", a.Text("fluid"),
				strings.Join(seal.Fluids(), ", "))
		case !ok:
			return field.Errorf("fluid", "for %s in %s the table holds nothing certain; ask the seal's maker",
				elastomer, liquid)
		}
		reason := map[string]string{seal.Suitable: "bears it",
			seal.Limited:    "bears it with swelling, ageing or only for a while",
			seal.Unsuitable: "is attacked or swells"}[verdict]
		if a.Has("temperature") && verdict != seal.Unsuitable {
			t := a.Val("temperature")
			switch {
			case t < r.Low || t > r.High:
				verdict, reason = seal.Unsuitable, "compatible with the fluid, but not at this temperature"
			case t > r.High-nearHot:
				verdict, reason = seal.Limited, "close to its upper temperature"
			}
		}
		o.Word("verdict", verdict)
		o.Word("reason", elastomer+" "+reason)
		o.Results = append(o.Results,
			Entry{"range", map[string]any{"low": Figure{r.Low, "degC"}, "high": Figure{r.High, "degC"}}})
		o.Step("%s in %s: %s; works from %s to %s °C", elastomer, liquid, verdict, f(r.Low), f(r.High))
		return nil
	},
}

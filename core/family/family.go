// Package family describes kinds of hydraulic units as data: their parts, what
// is measured on them and against which limit, how oil leaks past them, what the
// bench test asks and which cautions apply. A new family is a new data file.
//
// Quantities in a family are kept as written ("7 thou") and are checked when the
// file is loaded; errors name the file and the line.
package family

import "corvek/core/quantity"

// Family is one kind of unit.
type Family struct {
	Code     string    `yaml:"code"`
	Name     string    `yaml:"name"`
	Action   string    `yaml:"action"` // pump, motor, cylinder or valve: what its test figures mean
	Axes     []float64 `yaml:"axes"`   // heights of parallel axes in mm, the first is 0
	Lines    []Line    `yaml:"parts"`
	Leaks    []Leak    `yaml:"leaks"`
	Relief   *Relief   `yaml:"relief"`
	Symptoms []string  `yaml:"symptoms"`
	Cautions []string  `yaml:"cautions"`
	Tests    []Test    `yaml:"tests"`
	Order    Ordering  `yaml:"order"`
	Owes     []Owed    `yaml:"owes"` // what is claimed of a rebuilt unit, and what shows it
	Accept   Accept    `yaml:"accept"`
	Run      Run       `yaml:"run_on"` // what its test is run on
	StartUp  []string  `yaml:"start_up"`
	Bleed    string    `yaml:"bleed"`    // how its air gets out before it runs, "" where it needs nothing
	Prime    string    `yaml:"prime"`    // how a pump is primed, where not as every pump
	Variants string    `yaml:"variants"` // how variants are told apart, for the reader

	Gauge        []string       `yaml:"gauge"` // questions to ask before it is opened
	Marks        []IdentityMark `yaml:"marks"`
	SerialDigits int            `yaml:"serial_digits"`
	VariantRules []Variant      `yaml:"variant_rules"`
	Debris       bool           `yaml:"debris"` // pieces that break off go round with the oil

	// Put together from the lines: what a unit of the family consists of.
	Parts     []Part     `yaml:"-"` // in the order they come off
	Instances []Instance `yaml:"-"` // the assemblies among them

	OwnFeatures map[string][]Feature `yaml:"-" json:",omitempty"` // measured on one unit alone, by part

	written *Family // as it stands in its file
	file    string
}

// Part is one kind of piece in the unit, in the order parts come off.
type Part struct {
	Code      string    `yaml:"code"`
	Name      string    `yaml:"name"`
	Kind      string    `yaml:"kind"` // selects the glyph
	Count     int       `yaml:"count"`
	Branch    string    `yaml:"branch"` // a sub-assembly off the axis
	Facings   []string  `yaml:"facings"`
	Facing    string    `yaml:"facing"` // the right one of Facings
	Turns     *Turns    `yaml:"turns"`  // or the right one by which way the unit turns
	Renew     bool      `yaml:"renew"`  // renewed at every rebuild
	Wearing   bool      `yaml:"wearing"`
	Set       string    `yaml:"set"` // matched set: renewed together
	Bolt      *Bolt     `yaml:"bolt"`
	Checks    []string  `yaml:"checks"` // what to look to when fitting it
	TurnCheck bool      `yaml:"turn_check"`
	BothSides bool      `yaml:"both_sides"` // pressure comes from either side of it
	Reaches   bool      `yaml:"reaches"`    // screwed too deep it stands in the way of what moves
	Cautions  []string  `yaml:"cautions"`
	Reworks   []Rework  `yaml:"reworks"`
	Function  string    `yaml:"function"`     // what a seal keeps from what
	DoNot     string    `yaml:"do_not_touch"` // why a fastener is left alone
	Dry       bool      `yaml:"dry"`          // it runs without oil
	Condemned []string  `yaml:"condemned_by"` // marks that condemn this part and not every part
	Stack     *StackDef `yaml:"stack"`
	Shape     Shape     `yaml:"shape"`
	Features  []Feature `yaml:"features"`
	Assembly  string    `yaml:"-"` // code of the assembly it came with
	file      string
	line      int
}

// Bolt is how a fastened part is tightened.
type Bolt struct {
	Thread string `yaml:"thread"` // of a model's sheet alone, like class and torque
	Class  string `yaml:"class"`
	Torque string `yaml:"torque"`
	Source string `yaml:"source"` // of that torque
	Circle int    `yaml:"circle"` // bolts on one circle
}

// Rework is a way to save a worn part.
type Rework struct {
	Code    string   `yaml:"code"`
	Name    string   `yaml:"name"`
	For     string   `yaml:"for"`  // feature it answers
	Also    []string `yaml:"also"` // other features that are as new after it
	Hours   float64  `yaml:"hours"`
	Days    float64  `yaml:"days"`
	Stock   string   `yaml:"stock"` // most that may come off
	Caution string   `yaml:"caution"`
}

// Answers are the features that are as new after the rework.
func (r *Rework) Answers() []string { return append([]string{r.For}, r.Also...) }

// Shape gives the glyph its true proportions, in mm.
type Shape struct {
	W     float64   `yaml:"w"`    // along the axis
	OD    float64   `yaml:"od"`   // of revolution
	ID    float64   `yaml:"id"`   // bore
	On    []int     `yaml:"on"`   // axes it sits on; empty means the first
	Top   float64   `yaml:"top"`  // upper edge of a prismatic part
	Base  float64   `yaml:"base"` // lower edge
	Step  float64   `yaml:"step"` // boss, head or collar length
	Shaft []Segment `yaml:"shaft"`
	With  bool      `yaml:"with"` // stands in the column of the part before
	Face  string    `yaml:"face"` // left or right: the working face
}

// Segment is a length of a stepped shaft.
type Segment struct {
	L float64 `yaml:"l"`
	D float64 `yaml:"d"`
}

// Method is how a feature is measured.
type Method string

// The methods of measuring.
const (
	MethodFeeler Method = "feeler" // feeler leaves
	MethodDepth  Method = "depth"  // depth readings
	MethodGrid   Method = "grid"   // depths × axes
	MethodValue  Method = "value"  // one or a few readings
	MethodGrade  Method = "grade"  // by touch

	MethodTIR     Method = "tir"     // whole swing of a dial indicator; the bow is half of it
	MethodFit     Method = "fit"     // mating parts, hole less shaft, pair by pair
	MethodSisters Method = "sisters" // one reading a piece, the odd one named
)

// LimitSource tells how much a limit is worth.
type LimitSource string

// The standings of a limit. What ships with the product is guidance and never a
// maker's word; a limit typed at the bench is the maker's only with its document.
const (
	SourceMaker    LimitSource = "maker"
	SourceStandard LimitSource = "standard"
	SourceShop     LimitSource = "shop"
	SourceGuidance LimitSource = "guidance"
	SourceSheet    LimitSource = "sheet"   // the shop's sheet of the model
	SourceEarlier  LimitSource = "earlier" // guidance of an earlier version: no limit of this unit
	SourceNone     LimitSource = "none"
)

// Feature is something measured on a part.
type Feature struct {
	Code        string      `yaml:"code"`
	Name        string      `yaml:"name"`
	Method      Method      `yaml:"method"`
	How         string      `yaml:"how"`
	Size        bool        `yaml:"size"`      // it is not judged: others go by it
	AsNew       string      `yaml:"as_new"`    // of a model's sheet alone, like the limits
	AsNewTo     string      `yaml:"as_new_to"` // upper end, where it is a band
	Lower       string      `yaml:"lower"`
	Upper       string      `yaml:"upper"`
	LimitSource LimitSource `yaml:"standing"`
	Source      string      `yaml:"source"` // document the limit stands in, of a shop's own
	Wears       string      `yaml:"wears"`  // bore or shaft
	Rows        int         `yaml:"rows"`
	Cols        int         `yaml:"cols"`
	Leaves      []string    `yaml:"leaves"`
	Measured    string      `yaml:"measured"`  // total or each
	LimitFor    string      `yaml:"limit_for"` // total or each
	Instrument  string      `yaml:"instrument"`
	Resolution  string      `yaml:"resolution"`
	Clearance   bool        `yaml:"clearance"` // taken again at Build
	MustHave    bool        `yaml:"must"`      // never measured is a stop
	Worst       int         `yaml:"worst"`     // grade from which it is out; grades run 0..4
	Sample      int         `yaml:"sample"`    // readings that are enough of the set; 0: all of it
	Rule        *Rule       `yaml:"rule"`      // by which its limit follows from a size as new
	Mate        *Rule       `yaml:"mate"`      // by which its gap to what runs in or on it is judged
	line        int
}

// Leak ties a clearance to a way oil takes past it.
type Leak struct {
	Name         string  `yaml:"name"`
	Feature      string  `yaml:"feature"` // part.feature
	Shape        string  `yaml:"shape"`   // plane or annular
	Count        int     `yaml:"count"`
	Width        string  `yaml:"width"` // sums of the unit's own sizes
	Diameter     string  `yaml:"diameter"`
	Length       string  `yaml:"length"`
	GapShare     float64 `yaml:"gap_share"` // gap of one path per total clearance
	Share        float64 `yaml:"share"`     // share of the unit's pressure drop
	Eccentricity float64 `yaml:"eccentricity"`
	file         string
	line         int
}

// Relief ties a spring's free length to the pressure at which a valve opens, by the unit's own sizes.
type Relief struct {
	Part      string `yaml:"part"`      // the spring
	Feature   string `yaml:"feature"`   // its free length
	Installed string `yaml:"installed"` // its length as it sits, part.feature
	Seat      string `yaml:"seat"`      // diameter of the seat, part.feature
}

// Actions are what a unit can act as.
var Actions = []string{"pump", "motor", "cylinder", "valve"}

// Has answers whether a unit of the family, with all its parts, has an assembly, a part,
// a part of a @kind, a symptom:code or a question gauge:code.
func (f *Family) Has() func(string) bool {
	return f.HasOf(func(string) bool { return true })
}

// HasOf is Has of a unit on which only some of the parts are.
func (f *Family) HasOf(on func(part string) bool) func(string) bool {
	there := map[string]bool{}
	for _, code := range f.Symptoms {
		there["symptom:"+code] = true
	}
	for _, code := range f.Gauge {
		there["gauge:"+code] = true
	}
	for i := range f.Parts {
		if p := &f.Parts[i]; on(p.Code) {
			there[p.Code], there["@"+p.Kind] = true, true
			for _, in := range f.Instances {
				if in.Code == p.Assembly {
					there[in.Assembly] = true
				}
			}
		}
	}
	return func(what string) bool { return there[what] }
}

// PartByCode finds a part.
func (f *Family) PartByCode(code string) (*Part, bool) {
	for i := range f.Parts {
		if f.Parts[i].Code == code {
			return &f.Parts[i], true
		}
	}
	return nil, false
}

// CountOf is how many pieces of a part the family has, 0 of one it does not know.
func (f *Family) CountOf(code string) int {
	if p, ok := f.PartByCode(code); ok {
		return p.Count
	}
	return 0
}

// Springs reports that the part is a spring or a stack of them.
func (p *Part) Springs() bool { return p.Kind == "spring" || p.Kind == "disc_springs" }

// Rework finds a way to save the part by its code, nil when there is none.
func (p *Part) Rework(code string) *Rework {
	for i := range p.Reworks {
		if p.Reworks[i].Code == code {
			return &p.Reworks[i]
		}
	}
	return nil
}

// FeatureByCode finds a feature of the part.
func (p *Part) FeatureByCode(code string) (*Feature, bool) {
	for i := range p.Features {
		if p.Features[i].Code == code {
			return &p.Features[i], true
		}
	}
	return nil, false
}

// AsksEach reports that it must be said whether a reading is the whole clearance or that of each side: nothing
// but the hand knows to which wall the part was pushed.
func (f *Feature) AsksEach() bool {
	return (f.Method == MethodFeeler || f.Method == MethodDepth) && f.Measured == ""
}

// Dim is the dimension of the feature's figures.
func (f *Feature) Dim() quantity.Dimension {
	if f.Method == MethodGrade {
		return quantity.Number
	}
	return quantity.Length
}

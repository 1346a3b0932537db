package family

import (
	"bytes"
	"embed"
	"fmt"
	"maps"
	"math"
	"slices"
	"sort"
	"strings"
	"sync"

	"corvek/core/fastener"
	"corvek/core/quantity"

	"go.yaml.in/yaml/v3"
)

//go:embed families/*.yaml
var shipped embed.FS

// Library is the families a shop works with, by code.
type Library map[string]*Family

// Shipped gives the families that come with the product. They are read once; nobody
// may change one.
func Shipped() (Library, error) {
	lib, err := loadShipped()
	return maps.Clone(lib), err
}

var loadShipped = sync.OnceValues(func() (Library, error) {
	entries, err := shipped.ReadDir("families")
	if err != nil {
		return nil, err
	}
	lib := Library{}
	for _, e := range entries {
		text, err := shipped.ReadFile("families/" + e.Name())
		if err != nil {
			return nil, err
		}
		f, err := Load(e.Name(), text)
		if err != nil {
			return nil, err
		}
		for _, p := range f.Parts {
			for _, ft := range p.Features {
				if ft.LimitSource == SourceMaker {
					return nil, fmt.Errorf("%s:%d: what ships cannot claim a maker's limit", e.Name(), ft.line)
				}
			}
		}
		if lib[f.Code] != nil {
			return nil, fmt.Errorf("%s: the code %s is taken by %s", e.Name(), f.Code, lib[f.Code].file)
		}
		lib[f.Code] = f
	}
	return lib, nil
})

// ShippedText is a shipped family as it is written.
func ShippedText(code string) (string, error) {
	text, err := shipped.ReadFile("families/" + code + ".yaml")
	return string(text), err
}

// List gives the families sorted by name.
func (l Library) List() []*Family {
	out := make([]*Family, 0, len(l))
	for _, f := range l {
		out = append(out, f)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

// UnmarshalYAML notes the line, so that later checks can name it.
func (p *Part) UnmarshalYAML(n *yaml.Node) error {
	type plain Part
	if err := n.Decode((*plain)(p)); err != nil {
		return err
	}
	p.line = n.Line
	return unknownKeys(n, partKeys)
}

const partKeys = "code name kind count branch facings facing turns renew wearing set bolt checks turn_check cautions " +
	"both_sides reaches reworks function do_not_touch dry condemned_by stack shape features"

// UnmarshalYAML notes the line, so that later checks can name it.
func (f *Feature) UnmarshalYAML(n *yaml.Node) error {
	type plain Feature
	if err := n.Decode((*plain)(f)); err != nil {
		return err
	}
	f.line = n.Line
	return unknownKeys(
		n,
		"code name method how size as_new as_new_to lower upper standing source wears rows cols leaves measured "+
			"limit_for instrument resolution clearance must worst sample rule mate",
	)
}

// UnmarshalYAML notes the line, so that later checks can name it.
func (l *Leak) UnmarshalYAML(n *yaml.Node) error {
	type plain Leak
	if err := n.Decode((*plain)(l)); err != nil {
		return err
	}
	l.line = n.Line
	return unknownKeys(n, "name feature shape count width diameter length gap_share share eccentricity")
}

// UnmarshalYAML notes the line, so that later checks can name it.
func (v *Variant) UnmarshalYAML(n *yaml.Node) error {
	type plain Variant
	if err := n.Decode((*plain)(v)); err != nil {
		return err
	}
	v.line = n.Line
	return unknownKeys(n, "code name suffix serial_from serial_to mark measured kit stack spring note change")
}

// unknownKeys is needed because a decoder's own strictness ends at a custom unmarshaller.
func unknownKeys(n *yaml.Node, known string) error {
	names := strings.Fields(known)
	for i := 0; i+1 < len(n.Content); i += 2 {
		if key := n.Content[i]; !slices.Contains(names, key.Value) {
			return fmt.Errorf("line %d: %q is not known here; use %s", key.Line, key.Value, strings.Join(names, ", "))
		}
	}
	return nil
}

// Load reads and checks one family file. Errors carry the file's name and line.
func Load(file string, text []byte) (*Family, error) {
	f := &Family{file: file}
	doc, err := bounded(text)
	if err != nil {
		return nil, fmt.Errorf("%s%w", file, err)
	}
	dec := yaml.NewDecoder(bytes.NewReader(text))
	dec.KnownFields(true)
	if err := dec.Decode(f); err != nil {
		return nil, fmt.Errorf("%s: %s", file, strings.TrimPrefix(err.Error(), "yaml: "))
	}
	if len(f.Lines) > mostParts {
		return nil, fmt.Errorf("%s:%d: parts: %d are more than %d", file, keyLines(doc)["parts"], len(f.Lines),
			mostParts)
	}
	return f.whole(doc)
}

// whole puts the family together, and for each variant that changes it.
func (f *Family) whole(doc *yaml.Node) (*Family, error) {
	whole, err := f.checked(doc, nil, false)
	if err != nil {
		return nil, err
	}
	forms := []*Family{whole}
	for i := range f.VariantRules {
		if v := &f.VariantRules[i]; !v.Change.Empty() {
			form, err := f.checked(doc, v.Change, v.Own)
			if err != nil {
				return nil, fmt.Errorf("%w (in the variant %s)", err, v.Code)
			}
			forms = append(forms, form)
		}
	}
	return whole, f.orders(keyLines(doc)["order"], forms)
}

// checked puts the family together and looks it through.
func (f *Family) checked(doc *yaml.Node, change *Change, sized bool) (*Family, error) {
	whole, err := f.compose(change, nil)
	if err != nil {
		return nil, err
	}
	c := &checker{f: whole, at: keyLines(doc), sized: sized}
	c.family()
	return whole, c.err
}

// keyLines gives the line of each top-level key.
func keyLines(doc *yaml.Node) map[string]int {
	out := map[string]int{}
	if len(doc.Content) == 0 {
		return out
	}
	root := doc.Content[0]
	for i := 0; i+1 < len(root.Content); i += 2 {
		out[root.Content[i].Value] = root.Content[i].Line
	}
	return out
}

// mostSize is the largest size of a shape in mm; what is larger is a slip.
const mostSize = 20000

func segments(shaft []Segment) (out []float64) {
	for _, s := range shaft {
		out = append(out, s.L, s.D)
	}
	return out
}

// checker stops at the first fault, so that the reader mends one at a time.
type checker struct {
	f     *Family
	at    map[string]int // lines of the top-level keys
	file  string         // where what is looked at stands, "" for the family's own
	sized bool           // sizes of a model may stand in it
	err   error
}

func (c *checker) fail(line int, format string, args ...any) {
	if c.err == nil {
		where := c.f.file
		if c.file != "" {
			where = c.file
		}
		if line > 0 {
			where += fmt.Sprintf(":%d", line)
		}
		c.err = fmt.Errorf("%s: %s", where, fmt.Sprintf(format, args...))
	}
}

func (c *checker) quantity(line int, what, text string, d quantity.Dimension) {
	if text == "" {
		return
	}
	if _, err := quantity.Parse(text, d); err != nil {
		c.fail(line, "%s: %s", what, err)
	}
}

func (c *checker) family() {
	f := c.f
	if f.Code == "" || f.Name == "" {
		c.fail(1, "a family needs a code and a name")
	}
	if !slices.Contains(Actions, f.Action) {
		c.fail(1, "action is pump, motor, cylinder or valve, not %q", f.Action)
	}
	if len(f.Parts) == 0 {
		c.fail(1, "a family needs parts")
	}
	c.counts()
	seen := map[string]bool{}
	for i := range f.Parts {
		p := &f.Parts[i]
		c.file = p.file
		if p.Code == "" || p.Name == "" || p.Kind == "" {
			c.fail(p.line, "a part needs code, name and kind")
		}
		if seen[p.Code] {
			c.fail(p.line, "the part %s is there twice", p.Code)
		}
		seen[p.Code] = true
		c.part(p)
	}
	c.file = ""
	c.ordering()
	for _, l := range f.Leaks {
		c.file = l.file
		c.leak(l)
	}
	c.file = ""
	for _, s := range f.Symptoms {
		if _, ok := SymptomText(s); !ok {
			c.fail(c.at["symptoms"], "symptom %q is not in the vocabulary", s)
		}
	}
	c.cautions(c.at["cautions"], f.Cautions)
	c.run()
	c.identity()
	if f.Relief != nil {
		c.relief(f.Relief)
	}
	for _, t := range f.Tests {
		c.test(t)
	}
	c.owed()
}

func (c *checker) part(p *Part) {
	if p.Count > 10000 {
		c.fail(p.line, "part %s: %d pieces are more than a unit holds", p.Code, p.Count)
	}
	if _, known := KindByCode(p.Kind); p.Kind != "" && !known {
		c.fail(p.line, "part %s: kind %q is not one that can be drawn; use %s", p.Code, p.Kind,
			strings.Join(Kinds(), ", "))
	}
	c.shape(p)
	c.turned(p)
	if p.Facing != "" && !slices.Contains(p.Facings, p.Facing) {
		c.fail(p.line, "part %s: facing %q is not one of its facings", p.Code, p.Facing)
	}
	if b := p.Bolt; b != nil {
		if _, err := fastener.ParseThread(b.Thread); err != nil && b.Thread != "" {
			c.fail(p.line, "part %s: %s", p.Code, err)
		}
		if _, err := fastener.ClassByName(b.Class); err != nil && b.Class != "unknown" && b.Class != "" {
			c.fail(p.line, "part %s: %s", p.Code, err)
		}
		c.quantity(p.line, "torque", b.Torque, quantity.Torque)
	}
	for _, mark := range p.Condemned {
		if _, known := PartMark(mark); !known {
			c.fail(p.line, "part %s: %q is no mark that a part bears", p.Code, mark)
		}
	}
	c.cautions(p.line, p.Cautions)
	c.stack(p)
	seen := map[string]bool{}
	for i := range p.Features {
		ft := &p.Features[i]
		if seen[ft.Code] {
			c.fail(ft.line, "the feature %s is there twice", ft.Code)
		}
		seen[ft.Code] = true
		c.feature(p, ft)
	}
	for _, r := range p.Reworks {
		for _, code := range r.Answers() {
			if _, ok := p.FeatureByCode(code); !ok {
				c.fail(p.line, "part %s: rework %s answers the feature %q, which it has not", p.Code, r.Code, code)
			}
		}
		if _, known := WayByCode(r.Code); !known {
			c.fail(p.line, "part %s: %q is no kind of rework", p.Code, r.Code)
		}
		c.quantity(p.line, "stock", r.Stock, quantity.Length)
	}
	c.sizeless(p)
}

func (c *checker) shape(p *Part) {
	for _, v := range append([]float64{p.Shape.W, p.Shape.OD, p.Shape.ID, p.Shape.Top, p.Shape.Base, p.Shape.Step},
		segments(p.Shape.Shaft)...) {
		if !(math.Abs(v) <= mostSize) {
			c.fail(p.line, "part %s: a size of its shape is no length in mm up to %.0f", p.Code, float64(mostSize))
		}
	}
	for _, a := range p.Shape.On {
		if a < 0 || a >= len(c.f.Axes) {
			c.fail(p.line, "part %s: there is no axis %d", p.Code, a)
		}
	}
}

func (c *checker) feature(p *Part, ft *Feature) {
	where := p.Code + "." + ft.Code
	if ft.Code == "" || ft.Name == "" {
		c.fail(ft.line, "a feature of %s needs code and name", p.Code)
	}
	if !slices.Contains([]Method{MethodFeeler, MethodDepth, MethodGrid, MethodValue, MethodGrade, MethodTIR,
		MethodFit, MethodSisters}, ft.Method) {
		c.fail(ft.line, "%s: method %q is not known", where, ft.Method)
	}
	if ft.Rows < 0 || ft.Cols < 0 || ft.Rows > mostRows || ft.Cols > mostRows {
		c.fail(ft.line, "%s: %d rows and %d columns of readings; each is 1 to %d", where, ft.Rows, ft.Cols, mostRows)
	}
	c.quantity(ft.line, where+" as_new", ft.AsNew, quantity.Length)
	c.quantity(ft.line, where+" as_new_to", ft.AsNewTo, quantity.Length)
	c.quantity(ft.line, where+" lower", ft.Lower, quantity.Length)
	c.quantity(ft.line, where+" upper", ft.Upper, quantity.Length)
	lower, _ := quantity.Parse(ft.Lower, quantity.Length)
	if upper, err := quantity.Parse(ft.Upper, quantity.Length); err == nil && ft.Lower != "" && lower.SI > upper.SI {
		c.fail(ft.line, "%s: the lower limit %s lies above the upper one, %s", where, ft.Lower, ft.Upper)
	}
	c.quantity(ft.line, where+" resolution", ft.Resolution, quantity.Length)
	for _, leaf := range ft.Leaves {
		c.quantity(ft.line, where+" leaf", leaf, quantity.Length)
	}
	c.rule(where, ft)
	if ft.Method == MethodFeeler && len(ft.Leaves) == 0 {
		c.fail(ft.line, "%s: feeler needs its leaves", where)
	}
	if ft.Method == MethodGrade && (ft.Worst < 1 || ft.Worst > 4) {
		c.fail(ft.line, "%s: a grade is out from 1 to 4", where)
	}
}

func (c *checker) leak(l Leak) {
	part, feature := CutFeature(l.Feature)
	p, ok := c.f.PartByCode(part)
	if ok {
		_, ok = p.FeatureByCode(feature)
	}
	if !ok {
		c.fail(l.line, "leak %s: there is no feature %q", l.Name, l.Feature)
	}
	if l.Shape != "plane" && l.Shape != "annular" {
		c.fail(l.line, "leak %s: shape is plane or annular", l.Name)
	}
	for what, text := range map[string]string{"width": l.Width, "diameter": l.Diameter, "length": l.Length} {
		c.sum(l.line, "leak "+l.Name+": "+what, text)
	}
	if l.GapShare <= 0 || l.Share <= 0 || l.Length == "" {
		c.fail(l.line, "leak %s: gap_share, share and length must be given", l.Name)
	}
}

func (c *checker) relief(r *Relief) {
	p, ok := c.f.PartByCode(r.Part)
	if ok {
		_, ok = p.FeatureByCode(r.Feature)
	}
	if !ok {
		c.fail(c.at["relief"], "relief: there is no feature %s.%s", r.Part, r.Feature)
	}
	c.goesBy(c.at["relief"], "relief", r.Installed, r.Seat)
}

func (c *checker) cautions(line int, codes []string) {
	for _, code := range codes {
		if _, ok := CautionByCode(code); !ok {
			c.fail(line, "caution %q is not known", code)
		}
	}
}

package library

import (
	"cmp"
	"errors"
	"fmt"
	"html/template"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// formFuncs are what the templates of a family's form call.
var formFuncs = template.FuncMap{
	"ticks": func(title, name string, list []Tick) TickList { return TickList{title, name, list} },
	"word":  func(of, what, label, value string) FormWord { return FormWord{of + "-" + what, label, value} },
}

// FamilyForm is a family while a lead writes it: the form changes one draft, whose text
// goes with the page, and the line shows at once what it comes to. Nothing is kept before
// it is saved with a reason.
type FamilyForm struct {
	site.Reader
	Code       string // under which it is opened
	Text       string // the draft
	NewCode    string
	Name       string
	Action     string
	Actions    []string
	Variants   string // how variants are told apart, for the reader
	Lines      []FormLine
	Symptoms   []Tick
	Gauge      []Tick
	Cautions   []Tick
	Rules      []FormVariant
	Assemblies []site.Named
	Kinds      []family.KindGroup
	Shown      string // code of the variant that is drawn
	Line       template.HTML
	Count      string // how many parts and features it comes to
	Reason     string
	Error      *field.Error
	typed      url.Values
}

// FormLine is an entry of the list of parts.
type FormLine struct {
	family.DraftLine
	I      int
	No     int
	Called string // the kind in words, or the assembly's name
	Brings string // what an assembly brings
	Counts string // as it was typed
	Bad    string // what is wrong with the count
}

// Tick is one of a list to choose several from.
type Tick struct {
	Code, Name string
	On         bool
}

// TickList is a list to choose several from, folded under its title.
type TickList struct {
	Title, Name string
	Ticks       []Tick
}

// Chosen is how many are chosen.
func (l TickList) Chosen() (n int) {
	for _, t := range l.Ticks {
		if t.On {
			n++
		}
	}
	return n
}

// FormWord is a line of the form.
type FormWord struct{ ID, Label, Value string }

// FormVariant is a variant with what it leaves out and counts another way.
type FormVariant struct {
	family.DraftVariant
	I        int
	Suffixes string
	From, To string
	Others   string // counts that are others, as "plates 7, bolts 4"
	Without  []Tick
	Bad      string
}

func (s *Pages) familyForm(c *echo.Context) error {
	if err := s.Jobs.Refresh(c.Request().Context()); err != nil {
		return err
	}
	text, err := s.Jobs.FamilyText(c.Request().Context(), c.Param("code"))
	if err != nil {
		return err
	}
	d, err := family.ReadDraft(text)
	if err != nil {
		return err
	}
	v := &FamilyForm{Reader: s.Reader(c), Code: c.Param("code"), typed: url.Values{}}
	v.show(d)
	return s.Render(c, http.StatusOK, "family_form", v.Name, v)
}

// writeFamily applies what was typed to the draft, does the one act that was asked for,
// and shows the draft again; only saving keeps it.
func (s *Pages) writeFamily(c *echo.Context) error {
	form, err := c.FormValues()
	if err != nil {
		return err
	}
	d, err := family.ReadDraft(strings.ReplaceAll(form.Get("text"), "\r\n", "\n"))
	if err != nil {
		return field.Errorf("text", "%s", err)
	}
	v := &FamilyForm{Reader: s.Reader(c), Code: c.Param("code"), Reason: form.Get("reason"), Shown: form.Get("shown"),
		typed: form}
	v.Error = takeFamily(d, form)
	act, at, _ := strings.Cut(form.Get("do"), ":")
	i, _ := strconv.Atoi(at)
	if v.Error == nil {
		v.Error = actOn(d, form, act, i)
	}
	if v.Error == nil && act == "save" {
		err := s.Jobs.SaveFamily(c.Request().Context(), site.Who(c), d.Word("code"), d.Text(), v.Reason)
		if err == nil {
			return c.Redirect(http.StatusSeeOther, "/library/"+d.Word("code"))
		}
		if !errors.As(err, &v.Error) {
			return err
		}
	}
	v.show(d)
	status := http.StatusOK
	if v.Error != nil {
		status = http.StatusUnprocessableEntity
	}
	return s.Render(c, status, "family_form", v.Name, v)
}

// takeFamily writes what the form's fields hold into the draft.
func takeFamily(d *family.Draft, form url.Values) *field.Error {
	for _, key := range []string{"code", "name", "action", "variants"} {
		if form.Has(key) {
			d.SetWord(key, strings.TrimSpace(form.Get(key)))
		}
	}
	for _, key := range []string{"symptoms", "gauge", "cautions"} {
		if form.Has("lists") {
			d.SetList(key, inOrderOf(d.List(key), form[key]))
		}
	}
	for i, l := range d.Lines() {
		name := func(what string) string { return fmt.Sprintf("line-%d-%s", i, what) }
		if !form.Has(name("count")) {
			continue
		}
		count, err := wholeNumber(form.Get(name("count")))
		if err != nil {
			return field.Errorf(name("count"), "%s", err)
		}
		l.Count, l.Branch = count, strings.TrimSpace(form.Get(name("branch")))
		if l.Assembly == "" {
			l.Name, l.Renew = strings.TrimSpace(form.Get(name("name"))), form.Has(name("renew"))
			if l.Name == "" {
				return field.Errorf(name("name"), "say what the part is called")
			}
		}
		d.SetLine(i, l)
	}
	for i, x := range d.Variants() {
		if fault := takeVariant(d, i, fmt.Sprintf("variant-%d-", i), x, form); fault != nil {
			return fault
		}
	}
	return nil
}

// inOrderOf keeps the order that stands, and puts what is new behind it.
func inOrderOf(stands, chosen []string) []string {
	out := slices.DeleteFunc(slices.Clone(stands), func(x string) bool { return !slices.Contains(chosen, x) })
	for _, x := range chosen {
		if !slices.Contains(out, x) {
			out = append(out, x)
		}
	}
	return out
}

// takeVariant writes the fields whose names begin with prefix into variant i.
func takeVariant(d *family.Draft, i int, prefix string, v family.DraftVariant, form url.Values) *field.Error {
	name := func(what string) string { return prefix + what }
	if !form.Has(name("name")) {
		return nil
	}
	v.Name, v.Kit, v.Note = form.Get(name("name")), form.Get(name("kit")), form.Get(name("note"))
	if strings.TrimSpace(v.Name) == "" {
		return field.Errorf(name("name"), "say what the variant is called")
	}
	v.Suffix = strings.FieldsFunc(form.Get(name("suffix")), func(r rune) bool { return r == ',' || r == ' ' })
	v.Without = form[name("without")]
	for key, to := range map[string]*int{"from": &v.SerialFrom, "to": &v.SerialTo} {
		n, err := wholeNumber(cmp.Or(strings.TrimSpace(form.Get(name(key))), "0"))
		if err != nil {
			return field.Errorf(name(key), "%s", err)
		}
		*to = n
	}
	v.Counts = map[string]int{}
	for _, pair := range strings.FieldsFunc(form.Get(name("counts")), func(r rune) bool { return r == ',' }) {
		words := strings.Fields(pair)
		if len(words) != 2 {
			return field.Errorf(name("counts"), "%q is not a part and a number, as plates 7", strings.TrimSpace(pair))
		}
		n, err := wholeNumber(words[1])
		if err != nil {
			return field.Errorf(name("counts"), "%s", err)
		}
		v.Counts[words[0]] = n
	}
	d.SetVariant(i, v)
	return nil
}

// mostOfOne is the largest number a field of the form takes.
const mostOfOne = 10_000_000

func wholeNumber(text string) (int, error) {
	n, err := strconv.Atoi(strings.TrimSpace(text))
	if err != nil || n < 0 || n > mostOfOne {
		return 0, fmt.Errorf("%q is no whole number", text)
	}
	return n, nil
}

// actOn does the one act that a button asks for.
func actOn(d *family.Draft, form url.Values, act string, i int) *field.Error {
	after, err := strconv.Atoi(form.Get("after"))
	if err != nil {
		after = len(d.Lines()) - 1
	}
	switch act {
	case "up":
		d.MoveLine(i, -1)
	case "down":
		d.MoveLine(i, 1)
	case "out":
		d.RemoveLine(i)
	case "variant_out":
		d.RemoveVariant(i)
	case "part":
		name := strings.TrimSpace(form.Get("new_name"))
		if name == "" {
			return field.Errorf("new_name", "say what the part is called")
		}
		if _, known := family.KindByCode(form.Get("new_kind")); !known {
			return field.Errorf("new_kind", "choose what it looks like")
		}
		d.AddLine(after, family.DraftLine{Name: name, Kind: form.Get("new_kind"), Count: 1,
			Branch: strings.TrimSpace(form.Get("new_branch"))})
	case "assembly":
		all, err := family.Assemblies()
		if err != nil || all[form.Get("new_assembly")] == nil {
			return field.Errorf("new_assembly", "choose an assembly")
		}
		d.AddLine(after, family.DraftLine{Assembly: form.Get("new_assembly"), Count: 1,
			Branch: strings.TrimSpace(form.Get("new_branch"))})
	case "variant":
		name := strings.TrimSpace(form.Get("new_variant"))
		if name == "" {
			return field.Errorf("new_variant", "say what the variant is called")
		}
		d.AddVariant(family.DraftVariant{Name: name})
	}
	return nil
}

// show lays the draft out.
func (v *FamilyForm) show(d *family.Draft) {
	v.Text, v.NewCode, v.Name, v.Action, v.Variants = d.Text(), d.Word("code"), d.Word("name"), d.Word("action"),
		d.Word("variants")
	all, _ := family.Assemblies()
	for _, code := range slices.Sorted(maps.Keys(all)) {
		v.Assemblies = append(v.Assemblies, site.Named{Code: code, Name: all[code].Name})
	}
	v.Kinds, v.Actions = family.KindGroups(), family.Actions
	f, err := family.Load(v.NewCode+".yaml", []byte(v.Text))
	if err != nil && v.Error == nil {
		v.Error = field.Errorf("text", "%s", err)
	}
	v.lines(d, all)
	v.Symptoms = ticks(d.List("symptoms"), family.Symptoms,
		func(x family.Symptom) site.Named { return site.Named{Code: x.Code, Name: x.Text} })
	v.Gauge = ticks(
		d.List("gauge"),
		family.Questions(),
		func(q family.Question) site.Named { return site.Named{Code: q.Code, Name: q.Ask} },
	)
	v.Cautions = ticks(d.List("cautions"), family.Cautions(),
		func(c family.Caution) site.Named { return site.Named{Code: c.Code, Name: c.Title} })
	v.rules(d, f)
	if f == nil {
		return
	}
	if own, err := f.As(v.Shown, nil); err == nil && v.Shown != "" {
		f = own
	}
	features := 0
	for _, p := range f.Parts {
		features += len(p.Features)
	}
	v.Line, v.Count = familyLine(f), fmt.Sprintf("%d parts, %d measures, %d steps of the test", len(f.Parts), features,
		len(f.Tests))
}

func (v *FamilyForm) lines(d *family.Draft, all map[string]*family.Assembly) {
	for i, l := range d.Lines() {
		row := FormLine{DraftLine: l, I: i, No: i + 1, Counts: strconv.Itoa(l.Count)}
		name := fmt.Sprintf("line-%d-count", i)
		if v.Error != nil && v.Error.Field == name { // nothing typed is lost
			row.Counts, row.Bad = v.typed.Get(name), v.Error.Text
		}
		if kind, known := family.KindByCode(l.Kind); known {
			row.Called = kind.Name
		}
		if a := all[l.Assembly]; a != nil {
			row.Called = a.Name
			names := make([]string, len(a.Parts))
			for i := range a.Parts {
				names[i] = strings.ToLower(a.Parts[i].Name)
			}
			row.Brings = strings.Join(names, ", ")
		}
		v.Lines = append(v.Lines, row)
	}
}

// rules lays the variants out; what one can leave out are the parts and assemblies of the
// family as it is now.
func (v *FamilyForm) rules(d *family.Draft, f *family.Family) {
	for i, x := range d.Variants() {
		row := formVariant(i, x, f)
		if prefix := fmt.Sprintf("variant-%d-", i); v.Error != nil && strings.HasPrefix(v.Error.Field, prefix) {
			row.Bad = v.Error.Text
			row.Others, row.From = v.typed.Get(prefix+"counts"), v.typed.Get(prefix+"from")
			row.To = v.typed.Get(prefix + "to")
		}
		v.Rules = append(v.Rules, row)
	}
}

// formVariant lays one variant out.
func formVariant(i int, x family.DraftVariant, f *family.Family) FormVariant {
	row := FormVariant{DraftVariant: x, I: i, Suffixes: strings.Join(x.Suffix, ", ")}
	if x.SerialFrom > 0 {
		row.From = strconv.Itoa(x.SerialFrom)
	}
	if x.SerialTo > 0 {
		row.To = strconv.Itoa(x.SerialTo)
	}
	var others []string
	for _, code := range slices.Sorted(maps.Keys(x.Counts)) {
		others = append(others, code+" "+strconv.Itoa(x.Counts[code]))
	}
	row.Others = strings.Join(others, ", ")
	if f != nil {
		row.Without = leavable(f, x.Without)
	}
	return row
}

// leavable are the assemblies and the parts that a variant can be without.
func leavable(f *family.Family, without []string) (out []Tick) {
	for _, in := range f.Instances {
		if len(in.Parts) > 1 {
			out = append(out, Tick{in.Code, in.Name + ", all of it", slices.Contains(without, in.Code)})
		}
	}
	for _, p := range f.Parts {
		out = append(out, Tick{p.Code, p.Name, slices.Contains(without, p.Code)})
	}
	return out
}

func ticks[T any](on []string, all []T, named func(T) site.Named) (out []Tick) {
	for _, x := range all {
		n := named(x)
		out = append(out, Tick{n.Code, n.Name, slices.Contains(on, n.Code)})
	}
	return out
}

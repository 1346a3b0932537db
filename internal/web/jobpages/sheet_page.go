package jobpages

import (
	"strconv"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/sheet"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// ModelSheetPage is what this unit taught about its model: the differences to the shop's sheet, to be ticked.
type ModelSheetPage struct {
	JobPage
	Name    string // of the sheet, as it will be called
	Sheets  []SheetOffer
	Groups  []SheetPart
	Form    []string // parts that make the form true
	Kit     int      // lines of the kit
	Lesson  string
	Changed int
	Needs   string // what must be told first
	Keeps   bool   // the reader may keep it; of a job that is closed too
}

// SheetPart is what is new or other of one part, or of the unit itself.
type SheetPart struct {
	Name  string
	Lines []SheetLine
}

// SheetLine is one thing that can be kept: a size as new with its band and source is one.
type SheetLine struct {
	Group, Words, Was string
	New               bool
}

// SheetOffer is a sheet that may be of the unit.
type SheetOffer struct {
	ID    uint
	Name  string
	Why   string
	Sure  bool
	Units int
	Left  int // values that the unit does not have from it yet
}

// sheetOffers are the shop's sheets of a maker and model written so.
func (s *Pages) sheetOffers(l *look) (out []SheetOffer) {
	own := sheet.Gather(l.job, l.unit, l.st.Family)
	for _, f := range s.Jobs.SheetsOf(l.unit) {
		o := SheetOffer{ID: f.ID, Name: f.Name(), Why: f.Why, Sure: f.Sure, Units: len(f.Units())}
		for _, v := range f.Values {
			if sheet.Group(v.Key) == v.Key && own.Value(v.Key) == nil {
				o.Left++
			}
		}
		out = append(out, o)
	}
	return out
}

func (s *Pages) modelSheet(c *echo.Context) error {
	l, err := s.look(c, "strip")
	if err != nil {
		return err
	}
	p := ModelSheetPage{JobPage: l.page(), Sheets: s.sheetOffers(l), Lesson: l.job.Lesson,
		Keeps: l.Person.May(people.RoleTechnician)}
	own := sheet.Gather(l.job, l.unit, l.st.Family)
	p.Name = own.Name()
	if own.Model == "" {
		p.Needs = "Type the model number at Receive first: the next unit is known by it."
	}
	items := sheet.Differences(s.Jobs.SheetOf(own), own)
	p.Groups, p.Changed = l.sheetParts(items), len(items)
	for _, x := range own.Parts {
		p.Form = append(p.Form, l.partWords(x))
	}
	p.Kit = len(own.Kit)
	return s.renderBeside(c, "model_sheet", "Model sheet", l, p)
}

// partWords says of a part how it makes the form true.
func (l *look) partWords(x sheet.Part) string {
	if x.Absent == "" {
		return x.Name + ": more than the family"
	}
	name := x.Code
	if p := l.unit.Part(x.Code); p != nil {
		name = p.Name
	}
	return name + ": not there, " + x.Absent
}

// sheetParts gathers what can be kept by part.
func (l *look) sheetParts(items []sheet.Item) (out []SheetPart) {
	type place struct{ part, line int }
	parts, lines := map[string]int{}, map[string]place{}
	for _, item := range items {
		if at, there := lines[item.Group]; there {
			out[at.part].Lines[at.line].Words += ", " + valueWords(item)
			continue
		}
		name := l.partOf(item.Key)
		i, begun := parts[name]
		if !begun {
			i = len(out)
			parts[name] = i
			out = append(out, SheetPart{Name: name})
		}
		lines[item.Group] = place{i, len(out[i].Lines)}
		out[i].Lines = append(out[i].Lines,
			SheetLine{item.Group, l.featureOf(item.Key) + valueWords(item), item.Was, item.New})
	}
	return out
}

// partOf is the part of a value, or the unit itself.
func (l *look) partOf(key string) string {
	words := strings.Split(key, "/")
	if words[0] != "part" || len(words) < 2 {
		return l.unit.Name
	}
	for _, p := range l.unit.Parts {
		if p.Code == words[1] || p.Kind != "" && family.CodeOf(p.Name) == words[1] {
			return p.Name
		}
	}
	return words[1]
}

// featureOf is the feature that a value is of, with a colon.
func (l *look) featureOf(key string) string {
	words := strings.Split(key, "/")
	if len(words) < 4 || words[2] != "feature" {
		return ""
	}
	if p := l.st.ByCode[words[1]]; p != nil {
		if f, known := p.Def.FeatureByCode(words[3]); known {
			return strings.ToLower(f.Name) + ": "
		}
	}
	return words[3] + ": "
}

// valueWords writes a value with what it is called.
func valueWords(item sheet.Item) string {
	name := item.Key[strings.LastIndexByte(item.Key, '/')+1:]
	scope := unit.ScopeUnit
	switch {
	case strings.Contains(item.Key, "/feature/"):
		scope = unit.ScopeFeature
	case strings.HasPrefix(item.Key, "part/"):
		scope = unit.ScopePart
	case strings.HasPrefix(item.Key, "limit/"):
		scope = unit.ScopeLimit
	}
	label := name
	if f, known := entry.Find(scope, name); known {
		label = f.Label
	}
	return strings.ToLower(label) + " " + wording.Choice(scope, name, item.Text)
}

// keepSheet keeps what was ticked.
func (s *Pages) keepSheet(c *echo.Context) error {
	form, err := c.FormValues()
	if err != nil {
		return err
	}
	whole := func(name string) int {
		n, _ := strconv.Atoi(strings.TrimSpace(c.FormValue(name)))
		return n
	}
	return site.Done(c, s.Jobs.KeepSheet(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), job.Kept{
		Groups: form["keep"], Suffix: c.FormValue("suffix"), From: whole("serial_from"), To: whole("serial_to"),
		Reason: c.FormValue("reason")}))
}

// useSheet puts what a sheet knows into the unit.
func (s *Pages) useSheet(c *echo.Context) error {
	id, _ := strconv.ParseUint(c.FormValue("sheet"), 10, 32)
	return site.Done(c, s.Jobs.UseSheet(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), uint(id)))
}

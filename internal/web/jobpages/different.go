package jobpages

import (
	"fmt"
	"html/template"
	"maps"
	"slices"
	"sync"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/report"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// Different is how this unit's part differs from its family's, and what can be said
// of it.
type Different struct {
	Absent   Entry
	Count    string // proposed: as many as were found
	Said     string // what was said of the number
	Froms    []site.Named
	Assembly *AssemblyView // the part's, where it came with one
	Joint    *JointView    // where it is bolted
}

// AssemblyView is the assembly that a part belongs to.
type AssemblyView struct{ Code, Base, Name string }

// JointView is how this unit's own part is bolted on.
type JointView struct {
	Usual  string // the family's thread and class
	Class  Choice
	Dry    Press
	Snug   Press
	Thread Entry
	Rest   []Entry
}

func (l *look) different(x *bench.Part) Different {
	d := Different{Absent: l.field(l.unit.PartRef(x.Code, "absent")), Count: x.Found}
	for _, code := range []string{unit.CountCounted, unit.CountVariant, unit.CountDrawing} {
		d.Froms = append(d.Froms, site.Named{Code: code, Name: wording.Choice(unit.ScopePart, "expected_from", code)})
	}
	if x.From != unit.CountFamily {
		d.Said = fmt.Sprintf("this unit has %d, %s: %s", x.Expected, wording.Choice(unit.ScopePart, "expected_from",
			x.From), x.Why)
	}
	for _, in := range l.st.Family.Instances {
		if in.Code == x.Def.Assembly {
			d.Assembly = &AssemblyView{in.Code, in.Base, in.Name}
		}
	}
	if kind, known := family.KindByCode(x.Def.Kind); x.Def.Bolt != nil || known && kind.Bolted {
		d.Joint = l.joint(x)
	}
	return d
}

func (l *look) joint(x *bench.Part) *JointView {
	at := func(name string) unit.Ref { return l.unit.PartRef(x.Code, name) }
	j := &JointView{Snug: l.toggle(at("snug"), x.Joint.Snug), Class: l.choose(at("class")).Wrap(),
		Dry: l.toggle(at("dry"), x.Joint.Dry), Thread: l.field(at("thread")),
		Rest: l.fields(at, []string{"joint_torque", "joint_source", "joint_angle", "locking", "engaged"})}
	if b := x.Def.Bolt; b != nil && b.Thread != "" {
		j.Usual = b.Thread + ", class " + b.Class
	}
	return j
}

// KindTile is a kind of part as it is drawn in the palette.
type KindTile struct {
	Code, Name string
	Drawing    template.HTML
}

// KindShelf is the kinds that are looked for in one place.
type KindShelf struct {
	Name  string
	Kinds []KindTile
}

// glyphSize is how large a kind of part is drawn in the palette, in px.
const glyphSize = 56

// palette is every kind of part, drawn: an unknown part is chosen by what it looks like.
var palette = sync.OnceValue(func() (out []KindShelf) {
	for _, g := range family.KindGroups() {
		shelf := KindShelf{Name: g.Name}
		for _, k := range g.Kinds {
			shelf.Kinds = append(shelf.Kinds,
				KindTile{k.Code, k.Name, template.HTML(draw.Glyph(k.Code, k.Shape, glyphSize))})
		}
		out = append(out, shelf)
	}
	return out
})

// KeepView says what differs from the family, and where that is kept for the next unit of the model.
type KeepView struct {
	Differs []string
	URL     string
}

func (l *look) keep() *KeepView {
	differs := report.Differs(l.st)
	if len(differs) == 0 || !l.CanWork() {
		return nil
	}
	return &KeepView{differs, l.page().Act("sheet")}
}

// libraryAssemblies are those that the unit has not.
func (l *look) libraryAssemblies() (out []site.Named) {
	all, err := family.Assemblies()
	if err != nil {
		return nil
	}
	for _, code := range slices.Sorted(maps.Keys(all)) {
		if !slices.ContainsFunc(l.st.Family.Instances, func(i family.Instance) bool { return i.Base == code }) {
			out = append(out, site.Named{Code: code, Name: all[code].Name})
		}
	}
	return out
}

// changeAssembly puts one more of an assembly into the unit, or says that one is not
// on it.
func (s *Pages) changeAssembly(c *echo.Context) error {
	ctx, why := c.Request().Context(), c.FormValue("why")
	if less := c.FormValue("less"); less != "" {
		return site.Done(c, s.Jobs.LeaveOutAssembly(ctx, site.Who(c), c.Param("tag"), unitNo(c), less, why))
	}
	return site.Done(c, s.Jobs.AddAssembly(ctx, site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("assembly"), why))
}

package practicepages

import (
	"context"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"strings"

	"corvek/core/explain"
	"corvek/core/field"
	"corvek/core/hidden"
	"corvek/core/practice"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/casebook"
	"corvek/internal/instrument"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// Bench are the pages that a unit of practice has beside those of any job.
type Bench struct {
	*site.Site
	book *casebook.Book
}

// NewBench makes the room of the bench of practice.
func NewBench(s *site.Site, book *casebook.Book) site.Room {
	b := &Bench{s, book}
	return site.Room{Files: files, Routes: []site.Route{
		site.Post("/jobs/:tag/look", site.Work, b.look),
		site.Get("/jobs/:tag/told", site.View, b.told),
		site.Post("/jobs/:tag/name", site.Work, b.name),
	}}
}

// Admit lets a person to his own units of practice.
func Admit(book *casebook.Book) func(context.Context, people.Actor, string) (*site.Practice, error) {
	return func(ctx context.Context, who people.Actor, tag string) (*site.Practice, error) {
		row, err := book.Case(ctx, who, tag)
		if err != nil {
			return nil, err
		}
		return stands(row), nil
	}
}

func stands(row *store.PracticeCase) *site.Practice {
	return &site.Practice{Minutes: casebook.Minutes(row), Named: row.NamedAt != nil, Tag: row.Tag}
}

// look answers a look at a field: with what is seen, or with an instrument at what it touches. What is to be done and
// not to be looked at says so.
func (b *Bench) look(c *echo.Context) error {
	address := c.FormValue("field")
	ref, err := unit.ParseRef(address)
	if err != nil {
		return field.Errorf("field", "%s", err)
	}
	if !hidden.Shows(ref) {
		return c.JSON(http.StatusOK, map[string]any{"ok": true, "act": true})
	}
	ctx, who := c.Request().Context(), site.Who(c)
	seen, err := b.book.Look(ctx, who, c.Param("tag"), address)
	if err != nil {
		return err
	}
	row, err := b.book.Case(ctx, who, c.Param("tag"))
	if err != nil {
		return err
	}
	site.SetPractice(c, stands(row))
	card, err := b.card(c, seen)
	if err != nil {
		return err
	}
	return site.OK(c, card)
}

// LookCard is what is seen, as it stands beside the page.
type LookCard struct {
	Label, Says string
	Drawing     template.HTML
	Minutes     string
	Gone        bool
}

func (b *Bench) card(c *echo.Context, seen hidden.Seen) (map[string]any, error) {
	v := LookCard{Label: seen.Of, Says: seen.Says, Gone: seen.Gone, Minutes: fmt.Sprintf("%g min", seen.Minutes)}
	aloud := ""
	if seen.Reads {
		v.Drawing, v.Says, aloud = drawn(seen, b.Reader(c).Inch())
	}
	card, err := b.Part("practice_told", "look-card", v)
	return map[string]any{"card": string(card), "value": seen.Value, "aloud": aloud}, err
}

// drawn is an instrument at what it touches, and what the eye sees on it in words; where none of ours reaches, one that
// shows figures.
func drawn(seen hidden.Seen, inch bool) (drawing template.HTML, says, aloud string) {
	system, name := quantity.Metric, "mm"
	if inch {
		system, name = quantity.Inch, "in"
	}
	u, _ := quantity.UnitByName(name, quantity.Length)
	e, ok := practice.At(seen.On, inch, u.In(seen.Size))
	if !ok {
		return "", "The display shows " + quantity.Show(seen.Size, quantity.Length, system) + ".", ""
	}
	return template.HTML(instrument.Draw(e)), e.Kind.Name + ": read it, and type what it shows.",
		strings.Join(e.Aloud(), " ")
}

// ToldPage is a case before and after it was named.
type ToldPage struct {
	site.Reader
	Tag       string
	Concluded string // what stands on the record as its cause, "" for nothing
	Told      bool
	Right     bool
	Part      bool // he named some of it
	Gave      bool // it was given up
	Named     string
	Causes    []ToldCause
	Own, Best []ToldLook
	OwnSum    string
	BestSum   string
	Notes     []string // what is worth a thought, in the trade's words
}

// ToldCause is one of the troubles that it truly has.
type ToldCause struct{ Name, Lies, Remedy, Prevention string }

// ToldLook is a look of a path: what it showed, what it took, and what stood first after it.
type ToldLook struct {
	What, Showed, Minutes, Lead, Share, Gave string
	Turned                                   bool // from here on what it truly is stood first
}

func (b *Bench) told(c *echo.Context) error {
	ctx, who, tag := c.Request().Context(), site.Who(c), c.Param("tag")
	v := ToldPage{Reader: b.Reader(c), Tag: tag}
	told, err := b.book.Told(ctx, who, tag)
	switch {
	case errors.Is(err, casebook.ErrNotNamed):
		st, err := b.Jobs.Load(ctx, tag, 1)
		if err != nil {
			return err
		}
		if st.Cause != nil {
			v.Concluded = st.Cause.Name
		}
	case err != nil:
		return err
	default:
		v.lay(told)
	}
	return b.RenderOK(c, "practice_told", tag+": what it was", v)
}

func (v *ToldPage) lay(t *casebook.Told) {
	v.Told, v.Right, v.Part, v.Gave = true, t.Row.Right(), t.Row.Part(), len(t.Named) == 0
	for _, c := range t.Named {
		v.Named = strings.TrimPrefix(v.Named+", and "+c.Name, ", and ")
	}
	for _, c := range t.Causes {
		v.Causes = append(v.Causes, ToldCause{c.Name, c.Lies(), c.Remedy, c.Prevention})
	}
	w := t.Way
	for i, s := range w.Steps {
		row := lookRow(s.Step)
		row.Turned = i == w.Turned
		row.Gave = gave(s.Bits)
		if s.Gone {
			row.Showed = "too late"
		}
		v.Own = append(v.Own, row)
	}
	for _, s := range w.Best.Steps {
		v.Best = append(v.Best, lookRow(s))
	}
	v.OwnSum = (&site.Practice{Minutes: w.Minutes}).Spent()
	v.BestSum = (&site.Practice{Minutes: w.Best.Minutes}).Spent()
	v.Notes = notes(t)
}

func lookRow(s explain.Step) ToldLook {
	row := ToldLook{What: s.Looks[0].Text, Showed: "not there", Minutes: fmt.Sprintf("%.0f min", s.Minutes),
		Lead: s.Lead.Name, Share: fmt.Sprintf("%.0f %%", 100*s.P)}
	if len(s.Told) == 0 {
		row.Showed = "cannot be told"
	}
	for i, f := range s.Told {
		if f.Likely() {
			row.Showed = "there"
			for _, e := range s.Looks {
				if e.Code == s.Told[i].Code {
					row.What = e.Text
				}
			}
			break
		}
	}
	return row
}

// gave says what a look gave to what it truly is, in the words of Explain.
func gave(bits float64) string {
	const least, away = 0.1, -0.6
	switch {
	case bits >= least:
		return explain.Weight{Information: bits}.Force()
	case bits <= away:
		return "led away"
	}
	return "nothing"
}

// notes are what is worth a thought, each once.
func notes(t *casebook.Told) (out []string) {
	w := t.Way
	names := func(list []*explain.Evidence) string {
		var words []string
		for _, e := range list {
			words = append(words, strings.ToLower(e.Text))
		}
		return strings.Join(words, "; ")
	}
	if w.Early {
		out = append(out, "It was named before what had been seen made it as good as sure.")
	}
	if len(w.Unasked) > 0 {
		out = append(out, "Never looked at, though it would have told most: "+names(w.Unasked)+".")
	}
	if len(w.Taken) > 0 {
		out = append(out, "On the record without a look, or otherwise than the unit shows it: "+
			names(w.Taken[:min(len(w.Taken), mostNoted)])+".")
	}
	for _, s := range w.Steps {
		if s.Gone {
			out = append(out, "Too late for: "+names(s.Looks)+".")
		}
	}
	if w.Idle > 0 {
		out = append(out, fmt.Sprintf("%d looks told nothing of any cause; some are owed all the same, for the parts.",
			w.Idle))
	}
	return out
}

// mostNoted marks are named in one line.
const mostNoted = 6

// name ends the search: from now on it is told what it was.
func (b *Bench) name(c *echo.Context) error {
	if err := b.book.Name(c.Request().Context(), site.Who(c), c.Param("tag")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/jobs/"+c.Param("tag")+"/told")
}

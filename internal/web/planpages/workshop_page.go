package planpages

import (
	"errors"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/remaining"
	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/core/workshop"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// WorkshopPage is the shop behind the bench, for leads.
type WorkshopPage struct {
	site.Reader
	Hands   []HandsRow
	Away    []AwayRow
	Closed  []workshop.ClosedDay
	Places  []workshop.Place
	Read    map[uint]string // the stands that are read, by the place that they are
	Kinds   []remaining.Place
	Fault   *field.Error // of a person's own form
	FaultOf string       // which that is

	AwayForm, ClosedForm, PlaceForm []site.Plain
	AwayFault, PlaceFault           string // what belongs to none of their fields
	Who, Kind                       string // chosen in the lists

	Sites     []string // shops of one owner
	SiteForm  []site.Plain
	SiteFault string
	At        string // chosen in the list of shops

	Standard string
}

// HandsRow is what a person can do, each with a box to tick.
type HandsRow struct {
	ID     uint
	Name   string
	Hours  string
	Site   string
	Skills []SkillBox
}

// SkillBox is a skill that a person has or has not.
type SkillBox struct {
	Skill remaining.Skill
	Words string
	Has   bool
}

// AwayRow is an absence with whose it is.
type AwayRow struct {
	workshop.Absence
	Name string
}

// standardHours are offered where nobody's are kept.
const standardHours = "Mon-Fri 7:00-15:30"

// The forms of the page.
const (
	handsForm  = "hands" // and the number of the person
	awayForm   = "away"
	closedForm = "closed"
	placeForm  = "place"
	siteForm   = "site"
)

// forms are the forms of the page, each with what was typed into it where it was refused.
func (v *WorkshopPage) forms(c *echo.Context, of string, fault *field.Error) {
	form := func(name string, fields ...site.Plain) ([]site.Plain, string) {
		if of != name || fault == nil {
			return site.PlainForm(nil, fields...), ""
		}
		for i := range fields {
			fields[i].Value = c.FormValue(fields[i].Name)
		}
		fields = site.PlainForm(fault, fields...)
		return fields, site.Besides(fault, fields)
	}
	v.AwayForm, v.AwayFault = form(awayForm,
		site.Plain{Name: "from", Label: "First day", Type: "date"},
		site.Plain{Name: "to", Label: "Last day", Type: "date", Help: "Left empty: one day."},
		site.Plain{Name: "note", Label: "Why"})
	v.ClosedForm, _ = form(closedForm,
		site.Plain{Name: "day", Label: "Day", Type: "date"},
		site.Plain{Name: "called", Label: "What it is"})
	v.PlaceForm, v.PlaceFault = form(placeForm,
		site.Plain{Name: "name", Label: "Name, as marked"},
		site.Plain{Name: "hours", Label: "Hours", Help: "Left empty: at any hour. Else like " + standardHours + "."},
		site.Plain{Name: "pressure", Label: "A stand reaches: pressure", Help: "250 bar"},
		site.Plain{Name: "flow", Label: "Flow", Help: "120 L/min"},
		site.Plain{Name: "torque", Label: "Torque", Help: "400 N·m"})
	v.SiteForm, v.SiteFault = form(siteForm, site.Plain{Name: "called_shop", Label: "Name of a shop"})
	v.At = c.FormValue("site")
	v.Who, v.Kind = c.FormValue("person"), c.FormValue("kind")
}

// skillWords say what each skill is for.
var skillWords = map[remaining.Skill]string{
	remaining.Bench: "strips, washes, builds", remaining.Gauge: "measures and judges",
	remaining.Machine: "laps, hones, presses", remaining.Test: "runs a stand", remaining.Lead: "offers, orders, signs",
}

func (s *Pages) workshop(c *echo.Context) error { return s.renderWorkshop(c, http.StatusOK, "", nil) }

func (s *Pages) renderWorkshop(c *echo.Context, status int, of string, fault *field.Error) error {
	w, err := s.Store.Workshop(c.Request().Context(), unit.DateOf(s.Jobs.Now()))
	if err != nil {
		return err
	}
	v := WorkshopPage{
		Reader:   s.Reader(c),
		Closed:   w.Closed,
		Places:   w.Places,
		Kinds:    remaining.Places,
		Fault:    fault,
		Sites:    w.Sites,
		FaultOf:  of,
		Standard: standardHours,
	}
	stands, err := s.Store.Stands(c.Request().Context())
	if err != nil {
		return err
	}
	v.Read = map[uint]string{}
	for _, stand := range stands {
		if stand.PlaceID != nil {
			v.Read[*stand.PlaceID] = stand.Name
		}
	}
	v.forms(c, of, fault)
	names := map[uint]string{}
	for i := range w.Hands {
		h := &w.Hands[i]
		names[h.PersonID] = h.Name
		row := HandsRow{ID: h.PersonID, Name: h.Name, Hours: h.Hours, Site: h.Site}
		if fault != nil && of == handsForm+strconv.Itoa(int(h.PersonID)) {
			row.Hours, row.Site = c.FormValue("hours"), c.FormValue("site")
		}
		for _, skill := range remaining.Skills {
			row.Skills = append(row.Skills, SkillBox{skill, skillWords[skill], h.Can(skill)})
		}
		v.Hands = append(v.Hands, row)
	}
	for _, a := range w.Absences {
		v.Away = append(v.Away, AwayRow{a, names[a.PersonID]})
	}
	return s.Render(c, status, "workshop", "Hands, hours and places", v)
}

// back shows the page again, with a fault at a form or without one.
func (s *Pages) back(c *echo.Context, of string, err error) error {
	if fault, is := err.(*field.Error); is {
		return s.renderWorkshop(c, http.StatusUnprocessableEntity, of, fault)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/plan/shop")
}

// person is whom a form is about.
func (s *Pages) person(c *echo.Context) (*store.Person, error) {
	id, err := strconv.ParseUint(c.FormValue("person"), 10, 32)
	if err != nil {
		return nil, field.Errorf("person", "say who")
	}
	p, err := s.Store.Person(c.Request().Context(), uint(id))
	if err != nil {
		return nil, field.Errorf("person", "is not among the people of the shop")
	}
	return p, nil
}

func (s *Pages) saveHands(c *echo.Context) error {
	p, err := s.person(c)
	if err != nil {
		return s.back(c, handsForm, err)
	}
	form := handsForm + strconv.Itoa(int(p.ID))
	h := workshop.Hands{PersonID: p.ID, Hours: strings.TrimSpace(c.FormValue("hours")), Skills: []string{}}
	if h.Site, err = s.siteOf(c); err != nil {
		return s.back(c, form, err)
	}
	if _, err := workshop.ParseHours(h.Hours); err != nil {
		return s.back(c, form, field.Errorf("hours", "%s", err))
	}
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	for _, skill := range remaining.Skills {
		if slices.Contains(values["skill"], string(skill)) {
			h.Skills = append(h.Skills, string(skill))
		}
	}
	if len(h.Skills) > 0 && h.Hours == "" {
		return s.back(c, form, field.Errorf("hours", "say when %s is there, like %s", p.Name, standardHours))
	}
	action := "hours of " + p.Name + ": " + h.Hours + "; " + strings.Join(h.Skills, ", ") + at(h.Site)
	return s.back(c, form, s.Store.SaveHands(c.Request().Context(), &h, site.Who(c).Name, action))
}

// siteOf reads which of several shops a form is about, "" for any.
func (s *Pages) siteOf(c *echo.Context) (string, error) {
	asked := c.FormValue("site")
	sites, err := s.Store.Sites(c.Request().Context())
	if err == nil && !shop.Known(asked, sites) {
		err = field.Errorf("site", "is none of the shops")
	}
	return asked, err
}

func at(site string) string {
	if site == "" {
		return ""
	}
	return " at " + site
}

// addSite keeps one of several shops.
func (s *Pages) addSite(c *echo.Context) error {
	name := strings.TrimSpace(c.FormValue("called_shop"))
	if name == "" || len(name) > mostSiteName {
		return s.back(c, siteForm, field.Errorf("called_shop", "say what it is called, in at most %d letters",
			mostSiteName))
	}
	return s.back(c, siteForm, s.Store.AddSite(c.Request().Context(), name, site.Who(c).Name, "shop at "+name))
}

// mostSiteName is how long the name of a shop may be: it stands in rows of the board.
const mostSiteName = 40

func (s *Pages) dropSite(c *echo.Context) error {
	name := c.FormValue("site")
	err := s.Store.DropSite(c.Request().Context(), name, site.Who(c).Name, "no shop at "+name+" any more")
	if errors.Is(err, store.ErrSiteUsed) {
		err = field.Errorf(
			"called_shop",
			"%s has jobs in hand: say at each where it is done, then take the shop out",
			name,
		)
	}
	return s.back(c, siteForm, err)
}

// days reads the days of a form.
func days(c *echo.Context) (from, to unit.Date, err error) {
	from, ok := unit.ParseDate(c.FormValue("from"))
	if !ok {
		return from, to, field.Errorf("from", "is a day like 2031-05-27")
	}
	if to, ok = unit.ParseDate(c.FormValue("to")); !ok {
		to = from
		if c.FormValue("to") != "" {
			return from, to, field.Errorf("to", "is a day like 2031-05-27, or empty for one day")
		}
	}
	if to < from {
		return from, to, field.Errorf("to", "is before the first day")
	}
	return from, to, nil
}

// mostNote is how long a note may be.
const mostNote = 200

func (s *Pages) addAway(c *echo.Context) error {
	p, err := s.person(c)
	if err != nil {
		return s.back(c, awayForm, err)
	}
	a := workshop.Absence{PersonID: p.ID, Note: strings.TrimSpace(c.FormValue("note"))}
	if a.From, a.To, err = days(c); err != nil {
		return s.back(c, awayForm, err)
	}
	if len(a.Note) > mostNote {
		return s.back(c, awayForm, field.Errorf("note", "is longer than %d letters", mostNote))
	}
	action := p.Name + " away from " + string(a.From) + " to " + string(a.To)
	return s.back(c, awayForm, s.Store.AddAbsence(c.Request().Context(), &a, site.Who(c).Name, action))
}

func (s *Pages) dropAway(c *echo.Context) error {
	id, _ := strconv.ParseUint(c.FormValue("id"), 10, 32)
	return s.back(
		c,
		"away",
		s.Store.DropAbsence(c.Request().Context(), uint(id), site.Who(c).Name, "an absence taken out"),
	)
}

func (s *Pages) closeDay(c *echo.Context) error {
	day, ok := unit.ParseDate(c.FormValue("day"))
	name := strings.TrimSpace(c.FormValue("called"))
	if !ok {
		return s.back(c, closedForm, field.Errorf("day", "is a day like 2031-05-27"))
	}
	if len(name) > mostNote {
		return s.back(c, closedForm, field.Errorf("called", "is longer than %d letters", mostNote))
	}
	d := workshop.ClosedDay{Day: day, Name: name}
	return s.back(c, closedForm, s.Store.CloseDay(c.Request().Context(), &d, site.Who(c).Name,
		"closed on "+string(day)+": "+d.Name))
}

func (s *Pages) openDay(c *echo.Context) error {
	day, _ := unit.ParseDate(c.FormValue("day"))
	return s.back(
		c,
		closedForm,
		s.Store.OpenDay(c.Request().Context(), day, site.Who(c).Name, "open on "+string(day)),
	)
}

func (s *Pages) savePlace(c *echo.Context) error {
	p := workshop.Place{Name: strings.TrimSpace(c.FormValue("name")), Kind: c.FormValue("kind"),
		Hours: strings.TrimSpace(c.FormValue("hours"))}
	switch {
	case p.Name == "" || len(p.Name) > mostNote:
		return s.back(c, placeForm, field.Errorf("name", "say what it is called, in at most %d letters", mostNote))
	case !slices.Contains(remaining.Places, remaining.Place(p.Kind)):
		return s.back(c, placeForm, field.Errorf("kind", "say what it is"))
	}
	var err error
	if p.Site, err = s.siteOf(c); err != nil {
		return s.back(c, placeForm, err)
	}
	if _, err := workshop.ParseHours(p.Hours); err != nil {
		return s.back(c, placeForm, field.Errorf("hours", "%s", err))
	}
	for name, at := range map[string]struct {
		q *quantity.Quantity
		d quantity.Dimension
	}{"pressure": {&p.Pressure, quantity.Pressure}, "flow": {&p.Flow, quantity.Flow},
		"torque": {&p.Torque, quantity.Torque}} {
		text := strings.TrimSpace(c.FormValue(name))
		if text == "" {
			continue
		}
		q, err := quantity.Parse(text, at.d)
		if err != nil {
			return s.back(c, placeForm, field.Errorf(name, "%s", err))
		}
		*at.q = q
	}
	return s.back(
		c,
		"place",
		s.Store.SavePlace(c.Request().Context(), &p, site.Who(c).Name, "place "+p.Name+", "+p.Kind+at(p.Site)),
	)
}

func (s *Pages) dropPlace(c *echo.Context) error {
	id, _ := strconv.ParseUint(c.FormValue("id"), 10, 32)
	return s.back(
		c,
		"place",
		s.Store.DropPlace(c.Request().Context(), uint(id), site.Who(c).Name, "a place taken out"),
	)
}

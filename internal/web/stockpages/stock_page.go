package stockpages

import (
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// mostRows are shown; more are found by a word.
const mostRows = 300

// The narrower looks at the stock.
const (
	showLow  = "low"
	showAge  = "age"
	showBook = "booked"
)

// StockPage is what lies in the drawers, with one line opened.
type StockPage struct {
	site.Reader
	Find, Show string
	Sites      []string // shops of one owner
	Looks      []Look
	Rows       []ItemRow
	More       int // that are not shown
	Total      int // lines that there are
	Chosen     *ItemSheet
	ItemForm   []site.Plain
	ItemID     uint
	ItemFault  string
	ListFault  string
	List       string
	Adding     bool
}

// Look is a narrower look, with how many lines it has.
type Look struct {
	Name, URL string
	Count     int
	On        bool
}

// ItemRow is a line of the stock.
type ItemRow struct {
	*stock.Item
	URL   string
	On    bool
	Notes []Note
}

// Note is what is to be known of a line: too few, or ageing.
type Note struct {
	Text string
	Bad  bool
}

// ItemSheet is one line, opened.
type ItemSheet struct {
	*stock.Item
	Lots     []LotRow
	Moves    []stock.Move
	CameForm []site.Plain
	Fault    string
}

// LotRow is pieces that came together.
type LotRow struct {
	stock.Lot
	Note  Note
	Old   bool   // it goes in nowhere any more
	Count string // as it was typed and refused
	Fault string
}

func (s *Pages) stock(c *echo.Context) error { return s.render(c, http.StatusOK, refused{}) }

// refused is a form that was not taken, with what is wrong.
type refused struct {
	form  string // item, came, count, list
	lot   string
	fault *field.Error
}

func (s *Pages) render(c *echo.Context, status int, no refused) error {
	ctx := c.Request().Context()
	all, err := s.Store.Stock(ctx)
	if err != nil {
		return err
	}
	sites, err := s.Store.Sites(ctx)
	if err != nil {
		return err
	}
	v := StockPage{Reader: s.Reader(c), Find: strings.TrimSpace(query(c, "find")), Show: query(c, "show"),
		Sites: sites, Total: len(all.Items), Adding: query(c, "add") != "" || no.form == "item" || no.form == "list"}
	today := unit.DateOf(s.Jobs.Now())
	id, _ := strconv.ParseUint(query(c, "item"), 10, 32)
	counts := map[string]int{}
	for _, i := range all.Items {
		notes, ages := notesOf(i, today)
		is := map[string]bool{"": true, showLow: i.Low(today), showAge: ages, showBook: len(i.Bookings) > 0}
		for name, yes := range is {
			if yes {
				counts[name]++
			}
		}
		chosen := i.ID == uint(id)
		if chosen {
			if v.Chosen, err = s.sheet(c, i, today, no); err != nil {
				return err
			}
		}
		if !is[v.Show] || !holds(i, v.Find) {
			continue
		}
		if len(v.Rows) >= mostRows {
			v.More++
			continue
		}
		v.Rows = append(v.Rows, ItemRow{i, v.to(i.ID, v.Show), chosen, notes})
	}
	for _, look := range []Look{{Name: "All"}, {Name: "Too few", URL: showLow}, {Name: "Ageing", URL: showAge},
		{Name: "Booked", URL: showBook}} {
		v.Looks = append(v.Looks, Look{look.Name, v.to(0, look.URL), counts[look.URL], look.URL == v.Show})
	}
	v.forms(c, no)
	return s.Render(c, status, "stock", "Stock", v)
}

// query reads what a page is asked for, of the address or of the form that is shown again.
func query(c *echo.Context, name string) string {
	if v := c.QueryParam(name); v != "" {
		return v
	}
	return c.FormValue("at-" + name)
}

// to is the address of a line in this look.
func (v *StockPage) to(item uint, show string) string {
	q := url.Values{}
	if item > 0 {
		q.Set("item", strconv.Itoa(int(item)))
	}
	if show != "" {
		q.Set("show", show)
	}
	if v.Find != "" {
		q.Set("find", v.Find)
	}
	address := "/stock"
	if len(q) > 0 {
		address += "?" + q.Encode()
	}
	if item > 0 {
		address += "#line"
	}
	return address
}

// holds reports that a line has all words that are looked for.
func holds(i *stock.Item, find string) bool {
	text := strings.ToLower(strings.Join([]string{i.Number, i.Says(), i.Drawer, i.Supplier, i.Site}, " "))
	for _, l := range i.Lots {
		text += " " + strings.ToLower(l.Code)
	}
	return !slices.ContainsFunc(strings.Fields(strings.ToLower(find)), func(w string) bool {
		return !strings.Contains(text, w)
	})
}

// notesOf is what is to be known of a line, and whether any lot of it is old, or soon will be.
func notesOf(i *stock.Item, today unit.Date) (out []Note, ages bool) {
	if i.Low(today) {
		out = append(out, Note{"fewer free than " + strconv.Itoa(i.Minimum), true})
	}
	for _, l := range i.Lots {
		if a := stock.AgeOf(i.Material, l.Cure, today); a.Told() {
			n := ageNote(a)
			out, ages = append(out, Note{strconv.Itoa(l.Left) + " " + n.Text, n.Bad}), true
		}
	}
	return out, ages
}

// ageNote says how far a lot is on the shelf.
func ageNote(a stock.Age) Note {
	switch {
	case !a.Known:
		return Note{}
	case a.Over:
		return Note{"expired on " + string(a.Ends) + ": into no unit any more", true}
	case a.Look:
		return Note{"over shelf life since " + string(a.Good) + ": look at each first", false}
	case a.Soon:
		return Note{"expire on " + string(a.Good), false}
	}
	return Note{"good until " + string(a.Good), false}
}

func (s *Pages) sheet(c *echo.Context, i *stock.Item, today unit.Date, no refused) (*ItemSheet, error) {
	out := &ItemSheet{Item: i}
	for _, l := range i.Lots {
		age := stock.AgeOf(i.Material, l.Cure, today)
		row := LotRow{Lot: l, Note: ageNote(age), Old: age.Over}
		if no.form == "count" && no.lot == l.Code {
			row.Count, row.Fault = c.FormValue("count"), no.fault.Text
		}
		out.Lots = append(out.Lots, row)
	}
	typed := func(name string) string {
		if no.form == "came" {
			return c.FormValue(name)
		}
		return ""
	}
	out.CameForm = site.PlainForm(no.of("came"),
		site.Plain{Name: "count", Label: "How many came", Value: typed("count"), Mode: "numeric"},
		site.Plain{Name: "cure", Label: "Cured, as the bag has it", Value: typed("cure"), Help: "2031-Q2, or a day"})
	out.Fault = site.Besides(no.of("came"), out.CameForm)
	var err error
	out.Moves, err = s.Store.Moves(c.Request().Context(), i.ID)
	return out, err
}

// of is the fault of one form, nil where it is another's.
func (r refused) of(form string) error {
	if r.form != form || r.fault == nil {
		return nil
	}
	return r.fault
}

// forms are what a line consists of: the chosen one's, or empty for a new one.
func (v *StockPage) forms(c *echo.Context, no refused) {
	i := &stock.Item{}
	if v.Chosen != nil && !v.Adding {
		i = v.Chosen.Item
	}
	values := map[string]string{"number": i.Number, "name": i.Name, "standard": i.Standard, "size": i.Size,
		"material": i.Material, "drawer": i.Drawer, "minimum": "", "supplier": i.Supplier, "price": i.Price.Typed,
		"shop": i.Site}
	if i.Minimum > 0 {
		values["minimum"] = strconv.Itoa(i.Minimum)
	}
	if no.form == "item" {
		for name := range values {
			values[name] = c.FormValue(name)
		}
		id, _ := strconv.ParseUint(c.FormValue("id"), 10, 32)
		v.ItemID = uint(id)
	} else {
		v.ItemID = i.ID
	}
	if no.form == "list" {
		v.List, v.ListFault = c.FormValue("list"), no.fault.Text
	}
	v.ItemForm = site.PlainForm(no.of("item"),
		site.Plain{Name: "name", Label: "What it is", Value: values["name"], Help: "O-ring, shaft seal, bearing"},
		site.Plain{Name: "number", Label: "Number on the bag", Value: values["number"]},
		site.Plain{Name: "standard", Label: "Standard", Value: values["standard"], Help: "AS568, ISO 3601, ISO 15"},
		site.Plain{Name: "size", Label: "Size", Value: values["size"], Help: "-214, 24.2 x 3, 6204"},
		site.Plain{Name: "material", Label: "Material", Value: values["material"], Help: "NBR, FKM; bronze"},
		site.Plain{Name: "drawer", Label: "Drawer", Value: values["drawer"]},
		site.Plain{Name: "minimum", Label: "At least", Value: values["minimum"], Mode: "numeric"},
		site.Plain{Name: "supplier", Label: "Supplier", Value: values["supplier"]},
		site.Plain{Name: "price", Label: "Price each", Value: values["price"], Mode: "decimal"})
	if len(v.Sites) > 0 {
		v.ItemForm = append(v.ItemForm, site.PlainForm(no.of("item"), site.Plain{Name: "shop", Label: "Shop",
			Value: values["shop"], Help: strings.Join(v.Sites, ", ")})...)
	}
	v.ItemFault = site.Besides(no.of("item"), v.ItemForm)
}

// back goes on to a line, or shows the form again with what is wrong.
func (s *Pages) back(c *echo.Context, to string, no refused, err error) error {
	var fault *field.Error
	switch {
	case errors.Is(err, store.ErrNumberTaken):
		fault = field.Errorf("number", "is that of another line already")
	case errors.Is(err, store.ErrNotFound):
		fault = field.Errorf("item", "is not there any more")
	case errors.As(err, &fault):
	case err != nil:
		return err
	}
	if fault != nil {
		no.fault = fault
		return s.render(c, http.StatusUnprocessableEntity, no)
	}
	return c.Redirect(http.StatusSeeOther, to)
}

func at(item uint) string { return "/stock?item=" + strconv.Itoa(int(item)) }

// countOf reads a whole number of pieces.
func countOf(text string, least int) (int, *field.Error) {
	n, err := strconv.Atoi(strings.TrimSpace(text))
	if err != nil || n < least || n > stock.MostCount {
		return 0, field.Errorf("count", "is a whole number, from %d", least)
	}
	return n, nil
}

func (s *Pages) saveItem(c *echo.Context) error {
	no := refused{form: "item"}
	i := &stock.Item{Number: c.FormValue("number"), Name: c.FormValue("name"), Standard: c.FormValue("standard"),
		Size: c.FormValue("size"), Material: c.FormValue("material"), Drawer: c.FormValue("drawer"),
		Supplier: c.FormValue("supplier"), Site: c.FormValue("shop")}
	id, _ := strconv.ParseUint(c.FormValue("id"), 10, 32)
	i.ID = uint(id)
	if text := strings.TrimSpace(c.FormValue("minimum")); text != "" {
		n, fault := countOf(text, 0)
		if fault != nil {
			return s.back(c, "", no, field.Errorf("minimum", "%s", fault.Text))
		}
		i.Minimum = n
	}
	for _, fault := range []*field.Error{i.Priced(c.FormValue("price")), i.Check()} {
		if fault != nil {
			return s.back(c, "", no, fault)
		}
	}
	sites, err := s.Store.Sites(c.Request().Context())
	if err != nil {
		return err
	}
	if fault := i.Among(sites); fault != nil {
		return s.back(c, "", no, fault)
	}
	err = s.Store.SaveItem(c.Request().Context(), i, site.Who(c).Name, "line of the stock: "+i.Says())
	return s.back(c, at(i.ID), no, err)
}

func (s *Pages) came(c *echo.Context) error {
	no := refused{form: "came"}
	id, _ := strconv.ParseUint(c.FormValue("at-item"), 10, 32)
	n, fault := countOf(c.FormValue("count"), 1)
	if fault == nil {
		fault = stock.CheckCure(strings.TrimSpace(c.FormValue("cure")))
	}
	if fault != nil {
		return s.back(c, "", no, fault)
	}
	all, err := s.Store.Stock(c.Request().Context())
	if err != nil {
		return err
	}
	item := all.Item(uint(id))
	if item == nil {
		return store.ErrNotFound
	}
	came := []store.NewLot{{Item: item, Lot: stock.Lot{Left: n, Cure: strings.TrimSpace(c.FormValue("cure")),
		CameOn: unit.DateOf(s.Jobs.Now())}}}
	return s.back(c, at(item.ID), no, s.Store.TakeIn(c.Request().Context(), came, site.Who(c).Name, "came"))
}

func (s *Pages) count(c *echo.Context) error {
	no := refused{form: "count", lot: c.FormValue("lot")}
	n, fault := countOf(c.FormValue("count"), 0)
	if fault != nil {
		return s.back(c, "", no, fault)
	}
	why := stock.WhyCounted
	if n == 0 && c.FormValue("old") != "" {
		why = stock.WhyExpired
	}
	err := s.Store.Recount(c.Request().Context(), no.lot, n, site.Who(c).Name, why)
	return s.back(c, "/stock?item="+url.QueryEscape(c.FormValue("at-item")), no, err)
}

// empty says that a drawer was found empty: all lots of its line are gone.
func (s *Pages) empty(c *echo.Context) error {
	id, _ := strconv.ParseUint(c.FormValue("at-item"), 10, 32)
	return s.back(c, at(uint(id)), refused{}, s.Store.EmptyDrawer(c.Request().Context(), uint(id), site.Who(c).Name))
}

func (s *Pages) list(c *echo.Context) error {
	no := refused{form: "list"}
	came, err := stock.ReadList(c.FormValue("list"))
	if err != nil {
		return s.back(c, "", no, field.Errorf("list", "%s", err))
	}
	all, err := s.Store.Stock(c.Request().Context())
	if err != nil {
		return err
	}
	sites, err := s.Store.Sites(c.Request().Context())
	if err != nil {
		return err
	}
	today := unit.DateOf(s.Jobs.Now())
	var lots []store.NewLot
	for _, l := range all.Lay(came) {
		if fault := l.Item.Among(sites); fault != nil {
			return s.back(c, "", no, field.Errorf("list", "%s: the shop %s", l.Item.Says(), fault.Text))
		}
		lots = append(lots, store.NewLot{Item: l.Item, Lot: stock.Lot{Left: l.Count, Cure: l.Cure, CameOn: today}})
	}
	err = s.Store.TakeIn(c.Request().Context(), lots, site.Who(c).Name, "a list")
	return s.back(c, "/stock", no, err)
}

// lot leads to the line of a lot, by the code of its label.
func (s *Pages) lot(c *echo.Context) error {
	item, err := s.Store.ItemOfLot(c.Request().Context(), c.Param("code"))
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, at(item))
}

func (s *Pages) csv(c *echo.Context) error {
	all, err := s.Store.Stock(c.Request().Context())
	if err != nil {
		return err
	}
	var b strings.Builder
	if err := all.WriteList(&b); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="stock.csv"`)
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", []byte(b.String()))
}

package stock

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/core/list"
	"corvek/core/quantity"
	"corvek/core/seal"
	"corvek/core/shop"
	"corvek/core/unit"
)

// Come is pieces that came: of which line, how many, cured when.
type Come struct {
	Item  Item
	Count int
	Cure  string
}

// MostLines is how many lines a list may have.
const MostLines = 2000

// columns of a list, by the words that can stand in its head; a list is written with the first of them.
var columns = []list.Column{
	{Name: "number", Words: []string{"number", "no", "no.", "part number", "article", "code"}},
	{Name: "name", Words: []string{"name", "piece", "what", "description", "item"}},
	{Name: "count", Words: []string{"count", "qty", "quantity", "pieces", "pcs"}},
	{Name: "standard", Words: []string{"standard"}},
	{Name: "size", Words: []string{"size", "dimension"}},
	{Name: "material", Words: []string{"material", "elastomer", "compound"}},
	{Name: "cure", Words: []string{"cured", "cure", "cure date"}},
	{Name: "drawer", Words: []string{"drawer", "place", "shelf", "bin"}},
	{Name: "minimum", Words: []string{"minimum", "min", "at least"}},
	{Name: "supplier", Words: []string{"supplier", "from"}},
	{Name: "price", Words: []string{"price", "price each"}},
	{Name: "shop", Words: []string{"shop"}},
}

func names() (out []string) {
	for _, c := range columns {
		out = append(out, c.Name)
	}
	return out
}

// ErrList says what a list is.
var ErrList = errors.New(
	"is a list with a head: number; name; count; standard; size; material; cured; drawer; minimum; " +
		"supplier; price; shop",
)

// ReadList reads what came, pasted or as CSV.
func ReadList(text string) (out []Come, err error) {
	rows, err := list.Read(text, columns, names(), MostLines)
	if errors.Is(err, list.ErrEmpty) {
		return nil, ErrList
	}
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		cell := r.Cells
		c := Come{
			Cure: cell["cure"],
			Item: Item{Number: cell["number"], Name: cell["name"], Standard: cell["standard"],
				Size: cell["size"], Material: cell["material"], Drawer: cell["drawer"], Supplier: cell["supplier"],
				Site: cell["shop"]},
		}
		if c.Item.Name == "" {
			c.Item.Name = c.Item.Number
		}
		if c.Count, err = r.Count("count", 0, 0); err != nil {
			return nil, err
		}
		if c.Item.Minimum, err = r.Count("minimum", 0, 0); err != nil {
			return nil, err
		}
		fault := c.Item.Priced(cell["price"])
		if fault == nil {
			fault = c.Item.Check()
		}
		if fault == nil {
			fault = CheckCure(c.Cure)
		}
		if fault != nil {
			return nil, fmt.Errorf("line %d: %s %s", r.Line, fault.Field, fault.Text)
		}
		out = append(out, c)
	}
	return out, nil
}

// longest is how many letters one value of a line may have.
const longest = 100

// Check says what is wrong with a line as it was typed, nil for nothing, and writes a rubber as its letters.
func (i *Item) Check() *field.Error {
	for name, text := range map[string]*string{"number": &i.Number, "name": &i.Name, "standard": &i.Standard,
		"size": &i.Size, "material": &i.Material, "drawer": &i.Drawer, "supplier": &i.Supplier,
		"shop": &i.Site} {
		*text = strings.TrimSpace(*text)
		if len([]rune(*text)) > longest {
			return field.Errorf(name, "is longer than %d letters", longest)
		}
	}
	if _, err := seal.GroupOf(i.Material); err == nil {
		i.Material = strings.ToUpper(i.Material)
	}
	switch _, code := IsCode(i.Number); {
	case i.Name == "":
		return field.Errorf("name", "say what it is: O-ring, shaft seal, needle bearing")
	case code:
		return field.Errorf(
			"number",
			"is read as the label of a drawer; write it without the %s at its head",
			CodeStart,
		)
	case i.Minimum < 0 || i.Minimum > MostCount:
		return field.Errorf("minimum", "is a whole number from 0")
	}
	return nil
}

// Among refuses a shop that is none of the owner's.
func (i *Item) Among(sites []string) *field.Error {
	if shop.Known(i.Site, sites) {
		return nil
	}
	return field.Errorf("shop", "is none of the shops under Hands, hours and places")
}

// Priced reads the price of one piece, "" for none.
func (i *Item) Priced(text string) *field.Error {
	if text = strings.TrimSpace(text); text == "" {
		i.Price = quantity.Quantity{}
		return nil
	}
	q, err := quantity.Parse(text, quantity.Number)
	if err != nil || q.SI < 0 {
		return field.Errorf("price", "is an amount of money, like 4.20")
	}
	i.Price = q
	return nil
}

// CheckCure says what is wrong with the cure date on a bag, nil for nothing.
func CheckCure(text string) *field.Error {
	if text == "" {
		return nil
	}
	if _, err := seal.ParseCure(text); err != nil {
		return field.Errorf("cure", "is a quarter like 2031-Q2 or a day, as the bag has it")
	}
	return nil
}

// WriteList writes the stock as CSV, a line for each lot and one for each line that is empty.
func (s *Stock) WriteList(w io.Writer) error {
	out := csv.NewWriter(w)
	heads := []string{}
	for _, c := range columns {
		heads = append(heads, c.Words[0])
	}
	if err := out.Write(append(heads, "lot", "came")); err != nil {
		return err
	}
	for _, i := range s.Items {
		lots := i.Lots
		if len(lots) == 0 {
			lots = []Lot{{}}
		}
		for _, l := range lots {
			row := []string{i.Number, i.Name, strconv.Itoa(l.Left), i.Standard, i.Size, i.Material, l.Cure, i.Drawer,
				strconv.Itoa(i.Minimum), i.Supplier, i.Price.Typed, i.Site, l.Code, string(l.CameOn)}
			for k, cell := range row {
				row[k] = list.Plain(cell)
			}
			err := out.Write(row)
			if err != nil {
				return err
			}
		}
	}
	out.Flush()
	return out.Error()
}

// Laid is what came, with the line of the stock it goes to: one that is there, or a new one.
type Laid struct {
	Item *Item
	Come
}

// Lay finds the lines that a list goes to; two of its lines that are alike go to one.
func (s *Stock) Lay(came []Come) (out []Laid) {
	with := &Stock{Items: s.Items[:len(s.Items):len(s.Items)]}
	for k := range came {
		c := &came[k]
		item := with.Alike(&unit.Piece{Code: c.Item.Number, Name: c.Item.Name, Seal: c.Item.Seal(&Lot{Cure: c.Cure})},
			c.Item.Site)
		if item == nil {
			item = &c.Item
			with.Items = append(with.Items, item)
		}
		out = append(out, Laid{item, *c})
	}
	return out
}

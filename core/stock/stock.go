// Package stock is what lies in the drawers of a shop: seals, bearings, shims and parts, by lines of pieces that are
// alike and lots that came together; what of it goes bad when, what is promised to which job, and what to take first.
package stock

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/kit"
	"corvek/core/quantity"
	"corvek/core/seal"
	"corvek/core/shop"
	"corvek/core/unit"
)

// Item is a line of the stock: pieces that are alike.
type Item struct {
	ID       uint
	Number   string // what stands on the bag; of no two lines of a shop the same, "" where it has none
	Name     string
	Standard string // AS568, ISO 3601, ISO 15
	Size     string // as its standard or its bag has it
	Material string // ISO 1629 letters of a rubber, else what it is made of
	Drawer   string // where it lies
	Site     string // and in which of several shops, "" where there is one
	Minimum  int    // fewer than so many are told of
	Supplier string
	Price    quantity.Quantity `gorm:"serializer:number"` // of one, in the shop's money
	Lots     []Lot             // those that have any left
	Bookings []Booking
}

// Lot is pieces of a line that came together, so that they are of one age. Its code stands on its label.
type Lot struct {
	Code    string `gorm:"primaryKey"`
	ItemID  uint
	Left    int
	Cure    string    // of a rubber: 2029-Q2 or a day, "" where it does not say
	CameOn  unit.Date `gorm:"serializer:day"`
	FromTag string    // the job whose rest it is, "" where it was bought for the drawer
}

// CodeStart begins the code of every lot.
const CodeStart = "S-"

// IsCode reports that a text that was scanned or typed is the code of a lot, bare or as the address on its label, and
// gives it as it is kept.
func IsCode(text string) (code string, is bool) {
	code = strings.ToUpper(strings.TrimSpace(text[strings.LastIndexByte(text, '/')+1:]))
	rest, is := strings.CutPrefix(code, CodeStart)
	return code, is && len(rest) >= 4 && len(rest) <= 8 && strings.Trim(rest, codeLetters) == ""
}

// codeLetters are those of a code: none that is taken for another one.
const codeLetters = "23456789ABCDEFGHJKMNPQRSTVWXYZ"

// Code makes the code of a lot from random bytes, a letter of each.
func Code(random []byte) string {
	out := make([]byte, len(random))
	for i, r := range random {
		out[i] = codeLetters[int(r)%len(codeLetters)]
	}
	return CodeStart + string(out)
}

// Move is a line of what went into a lot and out of it.
type Move struct {
	ID      uint
	LotCode string
	Delta   int
	Tag     string // of the job that took or gave it, "" for none
	Why     string
	ByName  string
	At      time.Time `gorm:"default:now()"`
}

// Why pieces went that no job took.
const (
	WhyCounted = "counted"
	WhyEmpty   = "drawer found empty"
	WhyExpired = "too old, thrown away"
)

// Booking promises pieces of a line to a place of a unit.
type Booking struct {
	Tag    string `gorm:"primaryKey"`
	Unit   int    `gorm:"primaryKey"`
	Part   string `gorm:"primaryKey"`
	ItemID uint
	Count  int
	ByName string
	At     time.Time `gorm:"default:now()"`
}

// TableName is where lines are kept.
func (Item) TableName() string { return "stock_items" }

// TableName is where lots are kept.
func (Lot) TableName() string { return "stock_lots" }

// TableName is where what went in and out is kept.
func (Move) TableName() string { return "stock_moves" }

// TableName is where promises of pieces are kept.
func (Booking) TableName() string { return "stock_bookings" }

// MostCount is how many pieces a lot may hold.
const MostCount = 100000

// Left is how many pieces of the line lie there.
func (i *Item) Left() (n int) {
	for _, l := range i.Lots {
		n += l.Left
	}
	return n
}

// Booked is how many of them are promised.
func (i *Item) Booked() (n int) {
	for _, b := range i.Bookings {
		n += b.Count
	}
	return n
}

// PromisedBeside is how many of them are promised to other places than one.
func (i *Item) PromisedBeside(tag string, number int, part string) (n int) {
	for _, b := range i.beside(tag, number, part) {
		n += b.Count
	}
	return n
}

// PromisedTo says to which jobs those are.
func (i *Item) PromisedTo(tag string, number int, part string) string {
	var words []string
	for _, b := range i.beside(tag, number, part) {
		words = append(words, fmt.Sprintf("%d to %s", b.Count, b.Tag))
	}
	return strings.Join(words, ", ")
}

func (i *Item) beside(tag string, number int, part string) (out []Booking) {
	for _, b := range i.Bookings {
		if b.Tag != tag || b.Unit != number || b.Part != part {
			out = append(out, b)
		}
	}
	return out
}

// Low reports that fewer are free, of those that may still go in, than there should be.
func (i *Item) Low(today unit.Date) bool { return i.Lacks(today) > 0 }

// Good is how many pieces may still go in on a day.
func (i *Item) Good(today unit.Date) (n int) {
	for _, l := range i.Lots {
		if !AgeOf(i.Material, l.Cure, today).Over {
			n += l.Left
		}
	}
	return n
}

// Lacks is how many to order, so that twice the minimum is free of what may still go in; 0 where there are enough.
func (i *Item) Lacks(today unit.Date) int {
	free := i.Good(today) - i.Booked()
	if free >= i.Minimum {
		return 0
	}
	return 2*i.Minimum - free
}

// Says is the line as it is called: name, size and material.
func (i *Item) Says() string {
	return strings.Join(slices.DeleteFunc([]string{i.Name, strings.TrimSpace(i.Standard + " " + i.Size), i.Material},
		func(s string) bool { return s == "" }), " ")
}

// Seal is what a piece of a lot is, as a unit keeps it.
func (i *Item) Seal(l *Lot) unit.Seal {
	return unit.Seal{Standard: i.Standard, Size: i.Size, Material: i.Material, Cure: l.Cure, MakerNo: i.Number}
}

// Age is how far a lot is on the shelf.
type Age struct {
	Known   bool
	Good    unit.Date // the last day on which it goes in without more ado
	Ends    unit.Date // the last day on which it goes in at all, once it was looked at
	Over    bool      // it may not go in any more
	Look    bool      // it may after it was looked at
	Soon    bool      // it is good, and ends within SoonDays
	Verdict string    // good, extend, expired
}

// Told reports that something is to be known before a piece of the lot goes in, or soon will be.
func (a Age) Told() bool { return a.Over || a.Look || a.Soon }

// SoonDays is how long before its last day a lot is told of: time enough to use it or to order anew.
const SoonDays = 60

// AgeOf tells how far a lot of a material is on a day, by the storage groups of ISO 2230; what is no rubber, or
// says no date, does not age here.
func AgeOf(material, cure string, today unit.Date) (a Age) {
	group, err := seal.GroupOf(material)
	if err != nil {
		return a
	}
	cured, err := seal.ParseCure(cure)
	if err != nil {
		return a
	}
	good := cured.AddDate(group.Life, 0, 0)
	a.Known, a.Good, a.Ends = true, unit.DateOf(good), unit.DateOf(good.AddDate(group.Extension, 0, 0))
	switch {
	case today > a.Ends:
		a.Over, a.Verdict = true, "expired"
	case today > a.Good:
		a.Look, a.Verdict = true, "extend"
	default:
		a.Soon, a.Verdict = today.Add(SoonDays) > a.Good, "good"
	}
	return a
}

// Stock is all lines with what is left of them.
type Stock struct{ Items []*Item }

// Item finds a line by its number in the store.
func (s *Stock) Item(id uint) *Item {
	i := slices.IndexFunc(s.Items, func(i *Item) bool { return i.ID == id })
	if i < 0 {
		return nil
	}
	return s.Items[i]
}

// Lot finds a lot that has any left by the code of its label.
func (s *Stock) Lot(code string) (*Item, *Lot) {
	for _, i := range s.Items {
		for k := range i.Lots {
			if strings.EqualFold(i.Lots[k].Code, code) {
				return i, &i.Lots[k]
			}
		}
	}
	return nil, nil
}

// BookedFor is how many pieces are promised to a place of a unit, of which line.
func (s *Stock) BookedFor(tag string, number int, part string) (*Item, int) {
	for _, i := range s.Items {
		for _, b := range i.Bookings {
			if b.Tag == tag && b.Unit == number && b.Part == part {
				return i, b.Count
			}
		}
	}
	return nil, 0
}

// Booked is what is promised to each job, by its tag, in words that are others as soon as anything of it is.
func (s *Stock) Booked() map[string]string {
	out := map[string]string{}
	for _, i := range s.Items {
		for _, b := range i.Bookings {
			out[b.Tag] += fmt.Sprintf("%d/%s: %d of %d\n", b.Unit, b.Part, b.Count, i.ID)
		}
	}
	return out
}

// Place is a place of a unit that waits for pieces.
type Place struct {
	Tag  string
	Unit int
	Site string // of several shops, where the job is done
	kit.Want
	Material string // of the one that was in, "" where it is not known
	Setting  kit.Setting
}

// Offer is a lot that may be taken for a place.
type Offer struct {
	Item   *Item
	Lot    *Lot
	Open   int    // pieces that the place wants
	Free   int    // pieces of the lot that no other job is promised
	Take   int    // of them as many as the place wants
	Booked bool   // the line is promised to this place
	Age    Age    // on the day of the setting
	Says   string // what is to be known before it goes in, "" for nothing
	Stops  bool   // it does not go in
}

// mostOffers of one place are told.
const mostOffers = 4

// Offers are the lots that may go to a place, the one to take first at the head: what is promised to it, then what
// goes bad first. What is too old, or does not bear the fluid, stands last and says so.
func (s *Stock) Offers(p Place) (out []Offer) {
	for _, i := range s.Items {
		if len(i.Lots) == 0 || !kit.Plainly(kit.Offered{Name: i.Name, Code: i.Number, Size: i.Size}, p.Want) {
			continue
		}
		out = append(out, i.offers(p)...)
	}
	slices.SortStableFunc(out, func(a, b Offer) int {
		return cmp.Or(flag(a.Stops)-flag(b.Stops), flag(b.Booked)-flag(a.Booked),
			flag(!shop.Same(a.Item.Site, p.Site))-flag(!shop.Same(b.Item.Site, p.Site)),
			flag(a.Age.Look)-flag(b.Age.Look),
			cmp.Compare(lastDay(a), lastDay(b)), cmp.Compare(a.Lot.CameOn, b.Lot.CameOn),
			cmp.Compare(a.Lot.Code, b.Lot.Code))
	})
	return out[:min(len(out), mostOffers)]
}

func flag(b bool) int {
	if b {
		return 1
	}
	return 0
}

// lastDay orders what ages before what does not.
func lastDay(o Offer) unit.Date {
	if !o.Age.Known {
		return "9999"
	}
	return o.Age.Good
}

// offers are the lots of one line. What others are promised is taken off those that come last.
func (i *Item) offers(p Place) (out []Offer) {
	others := i.PromisedBeside(p.Tag, p.Unit, p.Part)
	free, mine := i.Left()-others, i.Booked() > others
	for k := range i.Lots {
		l := &i.Lots[k]
		o := Offer{Item: i, Lot: l, Open: p.Open, Free: max(0, min(l.Left, free)), Booked: mine,
			Age: AgeOf(i.Material, l.Cure, unit.Date(p.Setting.Today))}
		o.Take = min(o.Free, p.Open)
		o.Says, o.Stops = i.says(o.Age, p)
		if o.Take > 0 {
			out = append(out, o)
		}
	}
	return out
}

// says is what is to be known of a lot before it goes to a place.
func (i *Item) says(a Age, p Place) (text string, stops bool) {
	var words []string
	if !shop.Same(i.Site, p.Site) {
		words = append(words, "lies at "+i.Site)
	}
	switch {
	case a.Over:
		words, stops = append(words, "its shelf life ended on "+string(a.Ends)), true
	case a.Look:
		words = append(
			words,
			"over its shelf life since "+string(a.Good)+": look at it for cracks, set and tackiness first",
		)
	case a.Soon:
		words = append(words, "good until "+string(a.Good))
	}
	if f, known := p.Setting.Bears(i.Material); known && f.Verdict != seal.Suitable {
		words, stops = append(words, f.Text), stops || f.Stops
	}
	if p.Material != "" && i.Material != "" && !strings.EqualFold(p.Material, i.Material) {
		words = append(words, "the one that was in is "+p.Material)
	}
	return strings.Join(words, "; "), stops
}

// Alike is the line of a shop that a piece is of: by its number, else by standard, size, material and name; nil where
// there is none.
func (s *Stock) Alike(k *unit.Piece, site string) *Item {
	number := cmp.Or(k.Code, k.Seal.MakerNo)
	for _, i := range s.Items {
		if number != "" && strings.EqualFold(i.Number, number) && i.Site == site {
			return i
		}
	}
	for _, i := range s.Items {
		if number == "" && i.Number == "" && i.Site == site && strings.EqualFold(i.Size, k.Seal.Size) &&
			strings.EqualFold(i.Standard, k.Seal.Standard) && strings.EqualFold(i.Material, k.Seal.Material) &&
			strings.EqualFold(i.Name, k.Name) {
			return i
		}
	}
	return nil
}

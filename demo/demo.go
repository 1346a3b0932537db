// Package demo holds the made-up shop Tarnholm Hydraulics as open-format files
// and loads it through the same import that a user has. People, makers, model
// codes, serials and customers are invented.
package demo

import (
	"bytes"
	"context"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/partner"
	"corvek/core/quantity"
	"corvek/core/sheet"
	"corvek/core/shop"
	"corvek/core/stock"
	"corvek/core/trace"
	"corvek/core/unit"
	"corvek/core/workshop"
	"corvek/internal/exchange"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"
)

//go:embed shop.json jobs logs sheets
var files embed.FS

// today is the day the demo files were written for; loading moves them to now.
var today = time.Date(2031, 5, 14, 0, 0, 0, 0, time.UTC)

type showcase struct {
	People      []person
	Instruments []struct{ Name, Kind, Resolution, Class, FullScale, DueOn string }
	Hands       []hands
	Places      []struct{ Name, Kind, Pressure, Flow string }
	Stock       []stocked
	Partners    []struct {
		Name, Works, Price string
		Days, Most         float64
	}
	HourPrice string
}

// stocked is a line of the stock, with one lot of it.
type stocked struct {
	Number, Name, Standard, Size, Material, Drawer, Supplier, Price, Cure string

	Minimum, Count int
}

type hands struct {
	SignIn, Hours string
	Skills        []string
}

type person struct{ SignIn, Name, Initials, Role, Code string }

// Shop is the name of the made-up shop, and by is who loads it.
const (
	Shop = "Tarnholm Hydraulics"
	by   = "demo"
)

//go:embed mark.png
var mark []byte

// letterhead is what the made-up shop prints on its papers.
var letterhead = shop.Letterhead{Name: Shop, Mark: mark, Sheet: "a4", LeadSigns: true,
	Address: "7 Netmakers' Quay, Tarnholm\nbench +00 555 0142 · bench@tarnholm.example"}

func read() (s showcase, err error) {
	text, err := files.ReadFile("shop.json")
	if err == nil {
		err = json.Unmarshal(text, &s)
	}
	if err != nil {
		err = fmt.Errorf("shop.json: %w", err)
	}
	return s, err
}

// Strangers gives those of a store's people who are not the demo's: where there
// are any, it is a real shop's, and the demo has no business in it.
func Strangers(list []store.Person) ([]string, error) {
	s, err := read()
	if err != nil {
		return nil, err
	}
	own := map[string]string{}
	for _, p := range s.People {
		own[p.SignIn] = p.Name
	}
	var out []string
	for _, p := range list {
		if own[p.SignIn] != p.Name {
			out = append(out, p.Name)
		}
	}
	return out, nil
}

// Codes are the four digits with which a person of the demo takes over a bench, by
// sign-in name.
func Codes() (map[string]string, error) {
	s, err := read()
	out := map[string]string{}
	for _, p := range s.People {
		out[p.SignIn] = p.Code
	}
	return out, err
}

// Load stores the people and jobs of the demo and says how many jobs. Everybody has
// the one password; hash makes the stored form of it and of the codes. A load that was cut short
// goes on where it ended: each of its steps is done whole or not at all.
func Load(ctx context.Context, jobs *job.Service, password string, hash func(string) (string, error)) (int, error) {
	s, err := read()
	if err != nil {
		return 0, err
	}
	if err := jobs.Store.SaveDemo(ctx, store.DemoBegun); err != nil {
		return 0, err
	}
	if err := jobs.Store.SaveLetterhead(ctx, letterhead, by); err != nil {
		return 0, err
	}
	opens, err := hash(password)
	if err != nil {
		return 0, err
	}
	for _, p := range s.People {
		switch _, err := jobs.Store.PersonBySignIn(ctx, p.SignIn); {
		case err == nil:
			continue
		case !errors.Is(err, store.ErrNotFound):
			return 0, err
		}
		code := ""
		if p.Code != "" {
			if code, err = hash(p.Code); err != nil {
				return 0, err
			}
		}
		if err := jobs.Store.AddPerson(ctx, &store.Person{SignIn: p.SignIn, Name: p.Name, Initials: p.Initials,
			Role: p.Role, PasswordHash: opens, CodeHash: code}, by, "added "+p.Name+", "+p.Role); err != nil {
			return 0, err
		}
	}
	shift := int(jobs.Now().Sub(today).Hours() / 24)
	for _, i := range s.Instruments {
		row := shop.Instrument{Name: i.Name, Kind: i.Kind, Resolution: i.Resolution,
			Class: i.Class, FullScale: i.FullScale}
		if t, err := time.Parse(time.DateOnly, i.DueOn); err == nil {
			t = t.AddDate(0, 0, shift)
			row.DueOn = &t
		}
		if err := jobs.Store.SaveInstrument(ctx, &row); err != nil {
			return 0, err
		}
	}
	docs, err := Documents()
	if err != nil {
		return 0, err
	}
	for _, d := range docs {
		d.Shift(shift)
		if err := exchange.Import(ctx, jobs, d, Files, by); err != nil && !errors.Is(err, exchange.ErrTagTaken) {
			return 0, fmt.Errorf("%s: %w", d.Tag(), err)
		}
	}
	if err := s.keepWorkshop(ctx, jobs); err != nil {
		return 0, err
	}
	if err := s.keepStock(ctx, jobs, shift); err != nil {
		return 0, err
	}
	if err := keepLogs(ctx, jobs); err != nil {
		return 0, err
	}
	if err := keepSheets(ctx, jobs); err != nil {
		return 0, err
	}
	if err := s.sign(ctx, jobs, docs); err != nil {
		return 0, err
	}
	return len(docs), jobs.Store.SaveDemo(ctx, store.DemoDone)
}

// keepWorkshop says who can do what and is there when, and which places the shop has.
func (s showcase) keepWorkshop(ctx context.Context, jobs *job.Service) error {
	for _, h := range s.Hands {
		p, err := jobs.Store.PersonBySignIn(ctx, h.SignIn)
		if err != nil {
			return err
		}
		row := workshop.Hands{PersonID: p.ID, Skills: h.Skills, Hours: h.Hours}
		if err := jobs.Store.SaveHands(ctx, &row, by, "hours of "+p.Name); err != nil {
			return err
		}
	}
	for _, p := range s.Places {
		row := workshop.Place{Name: p.Name, Kind: p.Kind}
		row.Pressure, _ = quantity.Parse(p.Pressure, quantity.Pressure)
		row.Flow, _ = quantity.Parse(p.Flow, quantity.Flow)
		if err := jobs.Store.SavePlace(ctx, &row, by, "place "+p.Name); err != nil {
			return err
		}
	}
	for _, x := range s.Partners {
		row := partner.Partner{Name: x.Name, Works: x.Works, Days: x.Days, Most: x.Most}
		row.Price, _ = quantity.Parse(x.Price, quantity.Number)
		if err := jobs.Store.SavePartner(ctx, &row, by, "days of "+x.Name); err != nil {
			return err
		}
	}
	var prices store.Prices
	prices.HourPrice, _ = quantity.Parse(s.HourPrice, quantity.Number)
	if err := jobs.Store.SavePrices(ctx, prices, by, "price list"); err != nil {
		return err
	}
	return clash(ctx, jobs)
}

// keepStock fills the drawers: one lot ends soon, of one line there are too few.
func (s showcase) keepStock(ctx context.Context, jobs *job.Service, shift int) error {
	all, err := jobs.Store.Stock(ctx)
	if err != nil || len(all.Items) > 0 {
		return err
	}
	var lots []store.NewLot
	for _, x := range s.Stock {
		item := &stock.Item{Number: x.Number, Name: x.Name, Standard: x.Standard, Size: x.Size, Material: x.Material,
			Drawer: x.Drawer, Minimum: x.Minimum, Supplier: x.Supplier}
		if fault := item.Priced(x.Price); fault != nil {
			return fmt.Errorf("%s: %w", x.Number, fault)
		}
		lot := stock.Lot{Left: x.Count, CameOn: unit.DateOf(jobs.Now()).Add(-30)}
		if day, ok := unit.ParseDate(x.Cure); ok {
			lot.Cure = string(day.Add(shift))
		}
		lots = append(lots, store.NewLot{Item: item, Lot: lot})
	}
	return jobs.Store.TakeIn(ctx, lots, by, "the drawers as they were")
}

// clash pins the build of a job to tomorrow morning, though its pieces are not there by then.
func clash(ctx context.Context, jobs *job.Service) error {
	y, m, d := jobs.Now().AddDate(0, 0, 1).Date()
	at := time.Date(y, m, d, 9, 0, 0, 0, time.UTC)
	build := workshop.Key{Tag: "T-0421", Unit: 1, Code: "build"}
	return jobs.Store.SavePin(ctx, &store.PlanPin{Spot: workshop.Spot{Key: build, Person: "Iva Brask", Start: &at},
		ByName: "Odd Renfeld", At: jobs.Now()})
}

// keepSheets takes up what the shop knows of models: one rich, one thin, one with a wrong figure.
func keepSheets(ctx context.Context, jobs *job.Service) error {
	list, err := files.ReadDir("sheets")
	if err != nil {
		return err
	}
	for _, f := range list {
		text, err := files.ReadFile("sheets/" + f.Name())
		if err != nil {
			return err
		}
		doc, err := sheet.Read(text)
		if err != nil {
			return fmt.Errorf("%s: %w", f.Name(), err)
		}
		lead := people.Actor{Name: by, Role: people.RoleLead}
		if err := jobs.SaveSheet(ctx, lead, doc, "the shop's own sheet"); err != nil {
			return fmt.Errorf("%s: %w", f.Name(), err)
		}
	}
	return nil
}

// columns say what stands in the logs of the shop's stand.
const columns = "time = time s\npressure = P bar in bar\nflow = Q L/min in L/min\nspeed = n rpm in rpm\n" +
	"temperature = T oil C in °C"

// keepLogs brings in what the stand wrote: logs/TAG-ATTEMPT.csv, in seconds from the start of
// the attempt.
func keepLogs(ctx context.Context, jobs *job.Service) error {
	m, err := trace.ParseMapping(columns)
	if err != nil {
		return err
	}
	logs, err := files.ReadDir("logs")
	if err != nil {
		return err
	}
	for _, entry := range logs {
		name, _ := strings.CutSuffix(entry.Name(), ".csv")
		at := strings.LastIndex(name, "-")
		number, err := strconv.Atoi(name[at+1:])
		if err != nil {
			return fmt.Errorf("%s: %w", entry.Name(), err)
		}
		j, err := jobs.Store.Job(ctx, name[:at])
		if err != nil {
			return err
		}
		a := j.Units[0].Attempt(number)
		if a == nil {
			return fmt.Errorf("%s: there is no such attempt", entry.Name())
		}
		content, err := files.ReadFile("logs/" + entry.Name())
		if err != nil {
			return err
		}
		t, err := trace.ReadCSV(bytes.NewReader(content), m, a.At)
		if err != nil {
			return fmt.Errorf("%s: %w", entry.Name(), err)
		}
		if there, err := jobs.Store.Recordings(ctx, j.Tag, 1); err != nil || len(there) > 0 {
			if err != nil {
				return err
			}
			continue // of a load that was cut short
		}
		r := store.Recording{Unit: 1, Attempt: number, Stand: "east stand", ByName: a.By}
		if _, err := jobs.Store.KeepLog(ctx, j.Tag, r, t); err != nil {
			return err
		}
	}
	return nil
}

// sign lets the shop's lead answer for the papers of what was handed over.
func (s showcase) sign(ctx context.Context, jobs *job.Service, docs []*exchange.Document) error {
	i := slices.IndexFunc(s.People, func(p person) bool { return p.Role == people.RoleLead })
	lead := people.Actor{Name: s.People[i].Name, Initials: s.People[i].Initials, Role: people.RoleLead}
	for _, d := range docs {
		j, err := jobs.Store.Job(ctx, d.Tag())
		if err != nil {
			return err
		}
		if !j.HandedOver() {
			continue
		}
		done, err := jobs.Store.Events(ctx, j.Tag)
		if err != nil {
			return err
		}
		for number := range j.Units {
			if slices.ContainsFunc(done, func(e unit.Entry) bool {
				return e.Is(unit.EventSignedOff) && e.Event.Unit == number+1 && !e.Brought
			}) {
				continue // of a load that was cut short
			}
			if err := jobs.SignOff(ctx, lead, j.Tag, number+1); err != nil {
				return err
			}
		}
	}
	return nil
}

// Files gives the content of a demo attachment.
func Files(name string) ([]byte, error) { return files.ReadFile("jobs/" + name) }

// Documents reads the demo's jobs.
func Documents() ([]*exchange.Document, error) {
	entries, err := files.ReadDir("jobs")
	if err != nil {
		return nil, err
	}
	var out []*exchange.Document
	for _, e := range entries {
		if e.IsDir() {
			continue
		}
		text, err := files.ReadFile("jobs/" + e.Name())
		if err != nil {
			return nil, err
		}
		d, err := exchange.Parse(text)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", e.Name(), err)
		}
		out = append(out, d)
	}
	return out, nil
}

// Package demo holds the made-up shop Tarnholm Hydraulics as open-format files
// and loads it through the same import that a user has. People, makers, model
// codes, serials and customers are invented.
package demo

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"time"

	"corvek/internal/exchange"
	"corvek/internal/job"
	"corvek/internal/store"
)

//go:embed shop.json jobs
var files embed.FS

// today is the day the demo files were written for; loading moves them to now.
var today = time.Date(2031, 5, 14, 0, 0, 0, 0, time.UTC)

type shop struct {
	People      []struct{ SignIn, Name, Initials, Role string }
	Instruments []struct{ Name, Kind, Resolution, DueOn string }
}

// Load stores the people and jobs of the demo and says how many jobs; hash is that
// of everybody's password.
func Load(ctx context.Context, jobs *job.Service, hash string) (int, error) {
	text, err := files.ReadFile("shop.json")
	if err != nil {
		return 0, err
	}
	var s shop
	if err := json.Unmarshal(text, &s); err != nil {
		return 0, fmt.Errorf("shop.json: %w", err)
	}
	for _, p := range s.People {
		if err := jobs.Store.SavePerson(ctx, &store.Person{SignIn: p.SignIn, Name: p.Name, Initials: p.Initials,
			Role: p.Role, PasswordHash: hash}); err != nil {
			return 0, err
		}
	}
	shift := int(jobs.Now().Sub(today).Hours() / 24)
	for _, i := range s.Instruments {
		row := store.Instrument{Name: i.Name, Kind: i.Kind, Resolution: i.Resolution}
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
		if err := exchange.Import(ctx, jobs, d, Files, "demo"); err != nil {
			return 0, fmt.Errorf("%s: %w", d.Tag(), err)
		}
	}
	return len(docs), nil
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

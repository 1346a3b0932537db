package kit

import (
	"encoding/csv"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Line is one line of a kit's list as it came with the bag.
type Line struct {
	Code, Name                string
	Count                     int
	Size, Material, Cure, For string
}

// MostLines is how many lines a pasted list may have.
const MostLines = 200

// Columns of a list, by the words that can stand in its head.
var columns = []struct {
	name  string
	words []string
}{
	{"code", []string{"number", "no", "no.", "part number", "article", "code"}},
	{"name", []string{"name", "piece", "what", "description", "item"}},
	{"count", []string{"count", "qty", "quantity", "pieces", "pcs"}},
	{"size", []string{"size", "dimension"}},
	{"material", []string{"material", "elastomer", "compound"}},
	{"cure", []string{"cure", "cured", "cure date"}},
	{"for", []string{"for", "place", "belongs to"}},
}

// usualOrder is the order of the columns of a list without a head.
var usualOrder = []string{"code", "name", "count", "size", "material", "cure", "for"}

// ErrList says what a list is.
var ErrList = errors.New("is a list: one piece a line, number; name; count, and where known size; material; cured; for")

// ReadList reads a list that was typed, pasted or came as CSV: separated by tabs, semicolons
// or commas, with a head or in the usual order. Lines that say nothing are left out.
func ReadList(text string) ([]Line, error) {
	text = strings.ReplaceAll(strings.TrimPrefix(text, "\ufeff"), "\r\n", "\n")
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = separator(text), -1, true, true
	records, err := r.ReadAll()
	if err != nil {
		return nil, ErrList
	}
	order, records := head(records)
	var out []Line
	for i, rec := range records {
		l, err := line(rec, order)
		switch {
		case err != nil:
			return nil, fmt.Errorf("line %d: %w", i+1, err)
		case l.Name == "" && l.Code == "":
			continue
		case l.Name == "":
			l.Name = l.Code
		}
		if out = append(out, l); len(out) > MostLines {
			return nil, fmt.Errorf("has more than %d lines", MostLines)
		}
	}
	if len(out) == 0 {
		return nil, ErrList
	}
	return out, nil
}

// separator is what divides the fields of the list.
func separator(text string) rune {
	first, _, _ := strings.Cut(strings.TrimSpace(text), "\n")
	for _, c := range "\t;" {
		if strings.ContainsRune(first, c) {
			return c
		}
	}
	return ','
}

// head takes the first line as the columns' names where it has any of them.
func head(records [][]string) (order []string, rest [][]string) {
	if len(records) == 0 {
		return usualOrder, nil
	}
	known := 0
	for _, cell := range records[0] {
		name := column(cell)
		order = append(order, name)
		if name != "" {
			known++
		}
	}
	if known >= 2 || known == 1 && len(records[0]) == 1 {
		return order, records[1:]
	}
	return usualOrder, records
}

func column(cell string) string {
	cell = strings.ToLower(strings.TrimSpace(cell))
	for _, c := range columns {
		if slices.Contains(c.words, cell) {
			return c.name
		}
	}
	return ""
}

// longest is how much one field of a list may hold.
const longest = 200

func line(rec, order []string) (l Line, err error) {
	l.Count = 1
	if len(rec) == 1 && len(order) == len(usualOrder) { // only names
		rec = []string{"", rec[0]}
	}
	for i, cell := range rec {
		cell = strings.TrimSpace(cell)
		if i >= len(order) || cell == "" {
			continue
		}
		if len([]rune(cell)) > longest {
			return l, fmt.Errorf("%q is too long", string([]rune(cell)[:20])+"…")
		}
		switch order[i] {
		case "code":
			l.Code = cell
		case "name":
			l.Name = cell
		case "count":
			if l.Count, err = strconv.Atoi(cell); err != nil || l.Count < 1 || l.Count > 10000 {
				return l, fmt.Errorf("count %q is a whole number, like 2", cell)
			}
		case "size":
			l.Size = cell
		case "material":
			l.Material = cell
		case "cure":
			l.Cure = cell
		case "for":
			l.For = cell
		}
	}
	return l, nil
}

// Package list reads lists as people paste them or spreadsheets write them: a line each, fields parted by tabs,
// semicolons or commas, with a head that names the columns or in the usual order.
package list

import (
	"encoding/csv"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Column is a column of a list, with the words that may stand for it in a head.
type Column struct {
	Name  string
	Words []string
}

// Row is one line, by the names of its columns; what is empty is left out.
type Row struct {
	Line  int // counted without the head
	Cells map[string]string
}

// ErrEmpty says that nothing of a list was found.
var ErrEmpty = errors.New("holds no line")

// longest is how much one field of a list may hold.
const longest = 200

// Read takes a list apart; a line of one field, in a list without a head, is a name alone. Lines that say nothing are
// left out. usual is the order of the columns where no head tells it.
func Read(text string, columns []Column, usual []string, most int) ([]Row, error) {
	text = strings.ReplaceAll(strings.TrimPrefix(text, "\ufeff"), "\r\n", "\n")
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = separator(text), -1, true, true
	records, err := r.ReadAll()
	if err != nil {
		return nil, ErrEmpty
	}
	order, records := head(records, columns, usual)
	var out []Row
	for i, record := range records {
		row, err := rowOf(record, order, len(order) == len(usual))
		if err != nil {
			return nil, fmt.Errorf("line %d: %w", i+1, err)
		}
		if len(row) == 0 {
			continue
		}
		if out = append(out, Row{i + 1, row}); len(out) > most {
			return nil, fmt.Errorf("has more than %d lines", most)
		}
	}
	if len(out) == 0 {
		return nil, ErrEmpty
	}
	return out, nil
}

// formula are the letters by which a spreadsheet takes a text for a formula.
const formula = "=+-@\t\r"

// Plain keeps a spreadsheet from taking a text of a list for a formula, by a quote before it.
func Plain(cell string) string {
	if cell != "" && strings.ContainsRune(formula, rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

// typed is a cell without the quote that Plain put before it.
func typed(cell string) string {
	if rest, quoted := strings.CutPrefix(cell, "'"); quoted && rest != "" &&
		strings.ContainsRune(formula, rune(rest[0])) {
		return rest
	}
	return cell
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
func head(records [][]string, columns []Column, usual []string) (order []string, rest [][]string) {
	if len(records) == 0 {
		return usual, nil
	}
	known := 0
	for _, cell := range records[0] {
		name := column(cell, columns)
		order = append(order, name)
		if name != "" {
			known++
		}
	}
	if known >= 2 || known == 1 && len(records[0]) == 1 {
		return order, records[1:]
	}
	return usual, records
}

func column(cell string, columns []Column) string {
	cell = strings.ToLower(strings.TrimSpace(cell))
	for _, c := range columns {
		if slices.Contains(c.Words, cell) {
			return c.Name
		}
	}
	return ""
}

func rowOf(record, order []string, bare bool) (map[string]string, error) {
	if len(record) == 1 && bare { // only names
		order = []string{"name"}
	}
	out := map[string]string{}
	for i, cell := range record {
		cell = typed(strings.TrimSpace(cell))
		if i >= len(order) || cell == "" || order[i] == "" {
			continue
		}
		if len([]rune(cell)) > longest {
			return nil, fmt.Errorf("%q is too long", string([]rune(cell)[:20])+"…")
		}
		out[order[i]] = cell
	}
	return out, nil
}

// Count reads a whole number of a row that must be at least so large, empty for usual.
func (r Row) Count(name string, least, usual int) (int, error) {
	cell := r.Cells[name]
	if cell == "" {
		return usual, nil
	}
	n, err := strconv.Atoi(cell)
	if err != nil || n < least || n > 10000 {
		return 0, fmt.Errorf("line %d: %s %q is a whole number, like 2", r.Line, name, cell)
	}
	return n, nil
}

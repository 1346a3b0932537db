package kit

import (
	"errors"

	"corvek/core/list"
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
var columns = []list.Column{
	{Name: "code", Words: []string{"number", "no", "no.", "part number", "article", "code"}},
	{Name: "name", Words: []string{"name", "piece", "what", "description", "item"}},
	{Name: "count", Words: []string{"count", "qty", "quantity", "pieces", "pcs"}},
	{Name: "size", Words: []string{"size", "dimension"}},
	{Name: "material", Words: []string{"material", "elastomer", "compound"}},
	{Name: "cure", Words: []string{"cure", "cured", "cure date"}},
	{Name: "for", Words: []string{"for", "place", "belongs to"}},
}

// usualOrder is the order of the columns of a list without a head.
var usualOrder = []string{"code", "name", "count", "size", "material", "cure", "for"}

// ErrList says what a list is.
var ErrList = errors.New(
	"is a list: one piece a line, number; name; count, and where known size; material; cured; for",
)

// ReadList reads a list that was typed, pasted or came as CSV. Lines that name nothing are left out.
func ReadList(text string) (out []Line, err error) {
	rows, err := list.Read(text, columns, usualOrder, MostLines)
	if errors.Is(err, list.ErrEmpty) {
		return nil, ErrList
	}
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		c := r.Cells
		l := Line{Code: c["code"], Name: c["name"], Size: c["size"], Material: c["material"], Cure: c["cure"],
			For: c["for"]}
		if l.Name == "" {
			l.Name = l.Code
		}
		if l.Count, err = r.Count("count", 1, 1); err != nil {
			return nil, err
		}
		if l.Name != "" {
			out = append(out, l)
		}
	}
	if len(out) == 0 {
		return nil, ErrList
	}
	return out, nil
}

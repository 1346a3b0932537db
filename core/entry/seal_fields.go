package entry

import (
	"errors"
	"strings"

	"corvek/core/quantity"
	"corvek/core/seal"
	"corvek/core/unit"
)

// sealFields are the values that say what a seal or a bearing is; prefix begins their
// names, where the thing has others.
func sealFields(t table, prefix string, of func(*Place) *unit.Seal) []*Field {
	words := func(name, label string, at func(*unit.Seal) *string) *Field {
		return t.line(prefix+name, label, func(p *Place) *string { return at(of(p)) })
	}
	size := func(name, label string, at func(*unit.Seal) *quantity.Quantity) *Field {
		return t.size(prefix+name, label, quantity.Length, func(p *Place) *quantity.Quantity { return at(of(p)) })
	}
	return []*Field{
		words("standard", "Standard", func(s *unit.Seal) *string { return &s.Standard }),
		words("size", "Size", func(s *unit.Seal) *string { return &s.Size }),
		words("material", "Material", func(s *unit.Seal) *string { return &s.Material }).checked(material),
		t.size(prefix+"hardness", "Hardness, Shore A", quantity.Number,
			func(p *Place) *quantity.Quantity { return &of(p).Hardness }).checked(shore),
		words("cure", "Cured", func(s *unit.Seal) *string { return &s.Cure }).checked(cured),
		words("maker_no", "Maker's part number", func(s *unit.Seal) *string { return &s.MakerNo }),
		size("inside", "Inside, measured", func(s *unit.Seal) *quantity.Quantity { return &s.Inside }),
		size("section", "Section, measured", func(s *unit.Seal) *quantity.Quantity { return &s.Section }),
		size("shaft", "Shaft it runs on", func(s *unit.Seal) *quantity.Quantity { return &s.Shaft }),
		size("bore", "Bore of the housing", func(s *unit.Seal) *quantity.Quantity { return &s.Bore }),
		size("width", "Width", func(s *unit.Seal) *quantity.Quantity { return &s.Width }),
		size("outside", "Outside of the removed seal", func(s *unit.Seal) *quantity.Quantity { return &s.Outside }),
	}
}

var (
	errMaterial = errors.New("is written as ISO 1629 letters, like NBR, FKM, EPDM, or PTFE, PU")
	errShore    = errors.New("is a hardness in Shore A: between 20 and 99")
)

// material takes the letters of rubbers that the tables know.
func material(_ *Place, text string) error {
	if text == "" || strings.EqualFold(text, "PTFE") {
		return nil
	}
	if _, err := seal.GroupOf(text); err != nil {
		return errMaterial
	}
	return nil
}

func shore(_ *Place, text string) error {
	if q := quantity.Kept(text, quantity.Number, ""); text != "" && (q.SI < 20 || q.SI > 99) {
		return errShore
	}
	return nil
}

func cured(_ *Place, text string) error {
	if text == "" {
		return nil
	}
	_, err := seal.ParseCure(text)
	return err
}

package family

import (
	"bytes"
	"slices"

	"go.yaml.in/yaml/v3"
)

// sizeless refuses sizes of a part. A family is a form: sizes, threads, torques and springs are of a model or
// of a unit, and stand on their sheets.
func (c *checker) sizeless(p *Part) {
	if c.sized {
		return
	}
	no := func(line int, what, text string) {
		if text != "" {
			c.fail(line, "%s: %s is a size, and a family has none: it belongs on the sheet of a model", p.Code, what)
		}
	}
	for _, ft := range p.Features {
		no(ft.line, ft.Code+" as new", ft.AsNew+ft.AsNewTo)
		no(ft.line, "a limit of "+ft.Code, ft.Lower+ft.Upper)
		if ft.Source != "" {
			no(ft.line, "the document of "+ft.Code, ft.Source)
		}
	}
	if b := p.Bolt; b != nil {
		no(p.line, "its thread", b.Thread)
		no(p.line, "its strength class", b.Class)
		no(p.line, "its torque", b.Torque)
	}
	if s := p.Stack; s != nil {
		no(p.line, "the height of its stack", s.Installed)
		no(p.line, "the force of its stack", s.Needed)
		if s.Spring != nil {
			no(p.line, "its dished spring", s.Spring.Outside+" ")
		}
		for _, piece := range s.Pieces {
			no(p.line, "the thickness of a "+piece.Code, piece.Thickness)
		}
	}
}

// WithoutSizes gives the text of a family of an earlier version without the sizes it had, and says whether
// there were any. What cannot be read stays as it is, and is refused where it is loaded.
func WithoutSizes(text []byte) (out []byte, had bool) {
	doc, err := bounded(text)
	if err != nil || doc.Kind == 0 {
		return text, false
	}
	dropSizes(doc, "", &had)
	if !had {
		return text, false
	}
	var b bytes.Buffer
	enc := yaml.NewEncoder(&b)
	enc.SetIndent(2)
	if enc.Encode(doc) != nil {
		return text, false
	}
	return b.Bytes(), true
}

// sizesOf are the keys that hold sizes, by the key of the mapping they stand in.
var sizesOf = map[string][]string{
	"features": {"nominal", "as_new", "as_new_to", "lower", "upper", "standing", "source"},
	"bolt":     {"thread", "class", "torque", "source"},
	"stack":    {"installed", "needed", "spring"},
	"friction": {"friction"},
	"pieces":   {"thickness"},
	"relief":   {"rate", "override"},
}

func dropSizes(n *yaml.Node, under string, had *bool) {
	if n.Kind == yaml.MappingNode {
		for _, key := range sizesOf[under] {
			if get(n, key) != nil && (key != "standing" || wordOf(n, "method") != "grade") {
				remove(n, key)
				*had = *had || key != "standing"
			}
		}
		for _, key := range []string{"relief", "friction"} {
			if c := get(n, key); c != nil && absolute(c, "installed", "seat", "outer", "inner") {
				remove(n, key)
				*had = true
			}
		}
		if get(n, "feature") == nil && get(n, "measured") != nil && get(n, "measured").Kind == yaml.MappingNode {
			remove(n, "measured")
			*had = true
		}
		if leaks := get(n, "leaks"); leaks != nil {
			leaks.Content = slices.DeleteFunc(leaks.Content, func(l *yaml.Node) bool {
				return absolute(l, "width", "diameter", "length")
			})
		}
		for i := 0; i+1 < len(n.Content); i += 2 {
			dropSizes(n.Content[i+1], n.Content[i].Value, had)
		}
		return
	}
	for _, c := range n.Content {
		dropSizes(c, under, had)
	}
}

// absolute reports that one of the keys holds a length where a sum of sizes belongs.
func absolute(n *yaml.Node, keys ...string) bool {
	for _, key := range keys {
		if text := wordOf(n, key); text != "" {
			if _, err := ReadSum(text); err != nil {
				return true
			}
		}
	}
	return false
}

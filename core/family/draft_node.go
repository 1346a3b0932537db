package family

import (
	"slices"
	"strconv"
	"strings"
	"unicode"

	"go.yaml.in/yaml/v3"
)

// entries are the mappings of a list, none where there is no such list.
func (d *Draft) entries(key string) []*yaml.Node {
	list := get(d.root, key)
	if list == nil || list.Kind != yaml.SequenceNode {
		return nil
	}
	return list.Content
}

func (d *Draft) entry(key string, i int) *yaml.Node {
	if all := d.entries(key); i >= 0 && i < len(all) {
		return all[i]
	}
	return nil
}

// list is the list of a key, made where it is not there.
func (d *Draft) list(key string) *yaml.Node {
	list := get(d.root, key)
	if list == nil || list.Kind != yaml.SequenceNode {
		list = &yaml.Node{Kind: yaml.SequenceNode}
		set(d.root, key, list)
	}
	return list
}

// get is the value of a key of a mapping, nil where it has none.
func get(m *yaml.Node, key string) *yaml.Node {
	if m == nil || m.Kind != yaml.MappingNode {
		return nil
	}
	for i := 0; i+1 < len(m.Content); i += 2 {
		if m.Content[i].Value == key {
			return m.Content[i+1]
		}
	}
	return nil
}

// set puts a value under a key, in the place where it stood or at the end.
func set(m *yaml.Node, key string, value *yaml.Node) {
	for i := 0; i+1 < len(m.Content); i += 2 {
		if m.Content[i].Value == key {
			m.Content[i+1] = value
			return
		}
	}
	m.Content = append(m.Content, &yaml.Node{Kind: yaml.ScalarNode, Tag: "!!str", Value: key}, value)
}

func remove(m *yaml.Node, key string) {
	for i := 0; i+1 < len(m.Content); i += 2 {
		if m.Content[i].Value == key {
			m.Content = slices.Delete(m.Content, i, i+2)
			return
		}
	}
}

// child is the mapping under a key, made where it is not there.
func child(m *yaml.Node, key string) *yaml.Node {
	c := get(m, key)
	if c == nil || c.Kind != yaml.MappingNode {
		c = &yaml.Node{Kind: yaml.MappingNode, Style: yaml.FlowStyle}
		set(m, key, c)
	}
	return c
}

// prune takes a mapping out that says nothing.
func prune(m *yaml.Node, key string) {
	if c := get(m, key); c != nil && c.Kind == yaml.MappingNode && len(c.Content) == 0 {
		remove(m, key)
	}
}

func keysOf(m *yaml.Node) (out []string) {
	for i := 0; i+1 < len(m.Content); i += 2 {
		out = append(out, m.Content[i].Value)
	}
	return out
}

func wordOf(m *yaml.Node, key string) string {
	if n := get(m, key); n != nil && n.Kind == yaml.ScalarNode {
		return n.Value
	}
	return ""
}

func setWord(m *yaml.Node, key, value string) {
	value = oneLine(value)
	switch n := get(m, key); {
	case value == "":
		remove(m, key)
	case n != nil && n.Kind == yaml.ScalarNode && n.Value == value: // as it is written
	default:
		set(m, key, &yaml.Node{Kind: yaml.ScalarNode, Tag: "!!str", Value: value})
	}
}

// oneLine is a word as a family file holds it: what was typed or pasted of tabs and ends of lines
// is a blank there.
func oneLine(text string) string {
	return strings.TrimSpace(strings.Map(func(r rune) rune {
		if unicode.IsControl(r) {
			return ' '
		}
		return r
	}, text))
}

func wholeOf(m *yaml.Node, key string) int {
	n, _ := strconv.Atoi(wordOf(m, key))
	return n
}

// setWhole writes a whole number; 0 is not written, and neither is the 1 of what there
// is one of.
func setWhole(m *yaml.Node, key string, value int) {
	one := value == 1 && (key == "count" || key == "times")
	if old := get(m, key); value <= 0 || one && old == nil {
		remove(m, key)
		return
	}
	if wordOf(m, key) != strconv.Itoa(value) {
		set(m, key, &yaml.Node{Kind: yaml.ScalarNode, Tag: "!!int", Value: strconv.Itoa(value)})
	}
}

func listOf(m *yaml.Node, key string) (out []string) {
	n := get(m, key)
	if n == nil || n.Kind != yaml.SequenceNode {
		return nil
	}
	for _, x := range n.Content {
		out = append(out, x.Value)
	}
	return out
}

func setList(m *yaml.Node, key string, values []string) {
	switch {
	case len(values) == 0:
		remove(m, key)
	case !slices.Equal(values, listOf(m, key)):
		list := &yaml.Node{Kind: yaml.SequenceNode, Style: yaml.FlowStyle}
		for _, v := range values {
			list.Content = append(list.Content, &yaml.Node{Kind: yaml.ScalarNode, Tag: "!!str", Value: oneLine(v)})
		}
		set(m, key, list)
	}
}

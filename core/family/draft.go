package family

import (
	"bytes"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"go.yaml.in/yaml/v3"
)

// Draft is a family while somebody writes it act by act: its text, of which each act
// changes one thing and leaves the rest as it is written.
type Draft struct {
	doc  yaml.Node
	root *yaml.Node
}

// DraftLine is an entry of the list of parts: a part, or an assembly that brings several.
type DraftLine struct {
	Assembly string // its code, "" of a part
	Code     string // of a part; of an assembly what begins the codes of its parts
	Name     string // of a part
	Kind     string
	Branch   string
	Count    int // pieces of a part, times of an assembly
	Renew    bool
}

// DraftVariant is a variant as the form writes it.
type DraftVariant struct {
	Code, Name, Kit, Note string
	Suffix                []string
	SerialFrom, SerialTo  int
	Without               []string       // parts and assemblies that it has not
	Counts                map[string]int // of parts, where they are others
	More                  bool           // it changes what the form does not show
}

// ReadDraft takes up a family's text.
func ReadDraft(text string) (*Draft, error) {
	d := &Draft{}
	if _, err := bounded([]byte(text)); err != nil {
		return nil, fmt.Errorf("the text%w", err)
	}
	if err := yaml.Unmarshal([]byte(text), &d.doc); err != nil {
		return nil, fmt.Errorf("the text cannot be read: %s", strings.TrimPrefix(err.Error(), "yaml: "))
	}
	if len(d.doc.Content) == 0 || d.doc.Content[0].Kind != yaml.MappingNode {
		return nil, fmt.Errorf("the text is no family: it names no code")
	}
	d.root = d.doc.Content[0]
	return d, nil
}

// Text writes the family.
func (d *Draft) Text() string {
	var b bytes.Buffer
	enc := yaml.NewEncoder(&b)
	enc.SetIndent(2)
	if err := enc.Encode(&d.doc); err != nil {
		return ""
	}
	return b.String()
}

// Word is a single word or line of the family, as its name.
func (d *Draft) Word(key string) string { return wordOf(d.root, key) }

// SetWord changes it; an empty one is taken out.
func (d *Draft) SetWord(key, value string) { setWord(d.root, key, value) }

// List is a list of codes, as the symptoms.
func (d *Draft) List(key string) []string { return listOf(d.root, key) }

// SetList changes it.
func (d *Draft) SetList(key string, codes []string) { setList(d.root, key, codes) }

// Lines are the entries of the list of parts, in the order they come off.
func (d *Draft) Lines() (out []DraftLine) {
	for _, n := range d.entries("parts") {
		l := DraftLine{Assembly: wordOf(n, "use"), Code: wordOf(n, "code"), Name: wordOf(n, "name"),
			Kind: wordOf(n, "kind"), Branch: wordOf(n, "branch"), Count: max(1, wholeOf(n, "count")),
			Renew: wordOf(n, "renew") == "true"}
		if l.Assembly != "" {
			l.Code, l.Count = wordOf(n, "as"), max(1, wholeOf(n, "times"))
		}
		out = append(out, l)
	}
	return out
}

// SetLine changes what the form shows of an entry; what it does not show stays.
func (d *Draft) SetLine(i int, l DraftLine) {
	n := d.entry("parts", i)
	if n == nil {
		return
	}
	setWord(n, "branch", l.Branch)
	if wordOf(n, "use") != "" {
		setWhole(n, "times", l.Count)
		return
	}
	setWord(n, "name", l.Name)
	setWhole(n, "count", l.Count)
	if l.Renew {
		set(n, "renew", &yaml.Node{Kind: yaml.ScalarNode, Tag: "!!bool", Value: "true"})
	} else {
		remove(n, "renew")
	}
}

// AddLine puts a part or an assembly behind entry i, or first with i −1. A part without a
// code gets one from its name.
func (d *Draft) AddLine(i int, l DraftLine) {
	n := &yaml.Node{Kind: yaml.MappingNode, Style: yaml.FlowStyle}
	if l.Assembly != "" {
		setWord(n, "use", l.Assembly)
		if as := d.asOf(l); as != "" {
			setWord(n, "as", as)
		}
		setWhole(n, "times", l.Count)
	} else {
		setWord(n, "code", d.free(CodeOf(l.Name)))
		setWord(n, "name", l.Name)
		setWord(n, "kind", l.Kind)
		setWhole(n, "count", l.Count)
		if kind, known := KindByCode(l.Kind); known && kind.Soft {
			set(n, "renew", &yaml.Node{Kind: yaml.ScalarNode, Tag: "!!bool", Value: "true"})
		}
	}
	setWord(n, "branch", l.Branch)
	list := d.list("parts")
	at := min(max(i+1, 0), len(list.Content))
	list.Content = slices.Insert(list.Content, at, n)
}

// asOf begins the codes of an assembly's parts where it stands there already, or stands
// there several times.
func (d *Draft) asOf(l DraftLine) string {
	if l.Code != "" {
		return l.Code
	}
	for _, x := range d.Lines() {
		if x.Assembly == l.Assembly {
			return d.free(l.Assembly)
		}
	}
	if l.Count > 1 {
		return l.Assembly
	}
	return ""
}

// free is a code that no entry has yet.
func (d *Draft) free(code string) string {
	if code == "" {
		code = "part"
	}
	taken := map[string]bool{}
	for _, l := range d.Lines() {
		taken[l.Code] = true
	}
	for n := 2; taken[code]; n++ {
		if next := strings.TrimRight(code, "0123456789_") + "_" + strconv.Itoa(n); !taken[next] {
			return next
		}
	}
	return code
}

// RemoveLine takes an entry out.
func (d *Draft) RemoveLine(i int) {
	if list := d.list("parts"); d.entry("parts", i) != nil {
		list.Content = slices.Delete(list.Content, i, i+1)
	}
}

// MoveLine lets an entry come off earlier (−1) or later (1).
func (d *Draft) MoveLine(i, by int) {
	list := d.list("parts")
	if j := i + by; d.entry("parts", i) != nil && d.entry("parts", j) != nil {
		list.Content[i], list.Content[j] = list.Content[j], list.Content[i]
	}
}

// Variants are the rules by which variants are told, with what the form shows of them.
func (d *Draft) Variants() (out []DraftVariant) {
	for _, n := range d.entries("variant_rules") {
		v := DraftVariant{Code: wordOf(n, "code"), Name: wordOf(n, "name"), Kit: wordOf(n, "kit"),
			Note:   wordOf(n, "note"),
			Suffix: listOf(n, "suffix"), SerialFrom: wholeOf(n, "serial_from"), SerialTo: wholeOf(n, "serial_to"),
			Counts: map[string]int{}}
		change := get(n, "change")
		if change != nil {
			v.Without = listOf(change, "without")
			parts := get(change, "parts")
			for i := 0; parts != nil && i+1 < len(parts.Content); i += 2 {
				code, part := parts.Content[i].Value, parts.Content[i+1]
				if count := wholeOf(part, "count"); count > 0 {
					v.Counts[code] = count
				}
				v.More = v.More || len(part.Content) > 2
			}
			for i := 0; i+1 < len(change.Content); i += 2 {
				v.More = v.More || !slices.Contains([]string{"without", "parts"}, change.Content[i].Value)
			}
		}
		out = append(out, v)
	}
	return out
}

// SetVariant changes what the form shows of a variant; what it does not show stays.
func (d *Draft) SetVariant(i int, v DraftVariant) {
	n := d.entry("variant_rules", i)
	if n == nil {
		return
	}
	setWord(n, "name", v.Name)
	setList(n, "suffix", v.Suffix)
	setWhole(n, "serial_from", v.SerialFrom)
	setWhole(n, "serial_to", v.SerialTo)
	setWord(n, "kit", v.Kit)
	setWord(n, "note", v.Note)
	change := child(n, "change")
	setList(change, "without", v.Without)
	parts := child(change, "parts")
	for _, code := range keysOf(parts) {
		if _, stays := v.Counts[code]; !stays {
			remove(child(parts, code), "count")
		}
	}
	for _, code := range slices.Sorted(maps.Keys(v.Counts)) {
		if n := v.Counts[code]; n > 0 { // also 1, where the family has more of it
			set(child(parts, code), "count", &yaml.Node{Kind: yaml.ScalarNode, Tag: "!!int", Value: strconv.Itoa(n)})
		}
	}
	for _, code := range keysOf(parts) {
		prune(parts, code)
	}
	prune(change, "parts")
	prune(n, "change")
}

// AddVariant writes one more variant; its code comes from its name.
func (d *Draft) AddVariant(v DraftVariant) {
	taken := map[string]bool{}
	for _, x := range d.Variants() {
		taken[x.Code] = true
	}
	code := CodeOf(v.Name)
	for n := 2; taken[code]; n++ {
		code = CodeOf(v.Name) + "_" + strconv.Itoa(n)
	}
	n := &yaml.Node{Kind: yaml.MappingNode}
	setWord(n, "code", code)
	list := d.list("variant_rules")
	list.Content = append(list.Content, n)
	d.SetVariant(len(list.Content)-1, v)
}

// RemoveVariant takes a variant out.
func (d *Draft) RemoveVariant(i int) {
	if list := d.list("variant_rules"); d.entry("variant_rules", i) != nil {
		list.Content = slices.Delete(list.Content, i, i+1)
	}
}

// DraftOfVariant takes up one variant by itself, as the shop's own are kept.
func DraftOfVariant(text string) (*Draft, error) {
	d, err := ReadDraft(text)
	if err != nil {
		return nil, err
	}
	d.root = &yaml.Node{Kind: yaml.MappingNode}
	d.list("variant_rules").Content = []*yaml.Node{d.doc.Content[0]}
	return d, nil
}

package family

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// Sum is a size that follows from sizes of the unit: "0.5 drive_gear.tip - 0.5 drive_gear.journal". It has no
// term of its own: a family has no sizes.
type Sum []Term

// Term is so many times a size, part.feature.
type Term struct {
	Times float64
	Path  string
}

var sumTerm = regexp.MustCompile(`^\s*([+-]?)\s*(?:(\d+(?:\.\d+)?)\s+)?([a-z]\w*(?:\.\w+)*\.[a-z]\w*)`)

// ReadSum reads a sum as a family writes it.
func ReadSum(text string) (out Sum, err error) {
	for rest := text; strings.TrimSpace(rest) != ""; {
		m := sumTerm.FindStringSubmatch(rest)
		if m == nil || len(out) > 0 && m[1] == "" {
			return nil, fmt.Errorf("%q is no sum of sizes such as 0.5 gear.tip - 0.5 gear.journal", text)
		}
		t := Term{1, m[3]}
		if m[2] != "" {
			t.Times, _ = strconv.ParseFloat(m[2], 64)
		}
		if m[1] == "-" {
			t.Times = -t.Times
		}
		out, rest = append(out, t), rest[len(m[0]):]
	}
	return out, nil
}

// Of works the sum out. Lacks are the sizes that are not known, and then there is no sum.
func (s Sum) Of(size func(path string) (m float64, ok bool)) (v float64, lacks []string) {
	for _, t := range s {
		m, ok := size(t.Path)
		if !ok {
			lacks = append(lacks, t.Path)
		}
		v += t.Times * m
	}
	return v, lacks
}

// sumWithin begins the codes in a sum with the prefix of an assembly.
func sumWithin(text, prefix string, has func(part string) bool) string {
	sum, err := ReadSum(text)
	if err != nil || prefix == "" {
		return text
	}
	for _, t := range sum {
		if part, _ := CutFeature(t.Path); has(part) {
			text = regexp.MustCompile(`(^|[ +-])`+regexp.QuoteMeta(t.Path)+`\b`).
				ReplaceAllString(text, "${1}"+prefix+t.Path)
		}
	}
	return text
}

// sum looks a sum through.
func (c *checker) sum(line int, what, text string) {
	sum, err := ReadSum(text)
	if err != nil {
		c.fail(line, "%s: %s", what, err)
	}
	for _, t := range sum {
		c.goesBy(line, what, t.Path)
	}
}

package exchange

import (
	"fmt"
	"regexp"
	"strings"
)

// fromFirst brings a document of the first version to the second. That version
// named stops by row numbers in places, wrote answers as "question=answer"
// words, and kept some meanings as sentences.
func (d *Document) fromFirst() {
	if head, ok := d.root["job"].(map[string]any); ok {
		delete(head, "station")
		replace(head, "waiting", map[string]string{"hands": "technician"})
	}
	for _, u := range objects(d.root["units"]) {
		pairs(u, "gauge", "gauge")
		pairs(u, "marks", "identity")
		for _, e := range objects(u["evidence"]) {
			underlined(e, "found_how")
			underlined(e, "age")
		}
		for _, p := range objects(u["parts"]) {
			for _, s := range objects(p["steps"]) {
				replace(s, "turn", map[string]string{"drags evenly": "uniform_drag", "tight spot": "tight_spot"})
			}
		}
		for _, a := range objects(u["attempts"]) {
			for _, p := range objects(a["points"]) {
				replace(p, "word", map[string]string{"drags evenly": "uniform drag"})
			}
		}
	}
	d.firstPasses()
}

// firstPasses renames waivers. One that named only the number of a row of the
// other shop goes into the record, so that its reason is not lost.
func (d *Document) firstPasses() {
	var kept []any
	lost, _ := d.root["record"].([]any)
	for _, p := range objects(d.root["stop_passes"]) {
		code, _ := p["code"].(string)
		if byRow.MatchString(code) {
			lost = append(lost, map[string]any{"who": p["by"], "at": p["at"],
				"action": fmt.Sprintf("waived elsewhere: %v: %v", p["stop_text"], p["reason"])})
			continue
		}
		p["code"] = secondCode(code)
		kept = append(kept, p)
	}
	if d.root["stop_passes"] != nil {
		d.root["stop_passes"], d.root["record"] = kept, lost
	}
}

var byRow = regexp.MustCompile(`^u\d+\.kit\.place`)

func secondCode(code string) string {
	code = strings.ReplaceAll(code, ".", "/")
	for _, r := range [][2]string{
		{"/measure/open/", "/measure/undecided/"}, {"/measure/must/", "/measure/not_measured/"},
		{"/build/undone", "/build/unfitted"}, {"/duty pressure", "/duty_pressure"},
	} {
		code = strings.Replace(code, r[0], r[1], 1)
	}
	if strings.HasSuffix(code, "/strip/loose") {
		code += "/1"
	}
	return code
}

func objects(v any) []map[string]any {
	list, _ := v.([]any)
	var out []map[string]any
	for _, x := range list {
		if o, ok := x.(map[string]any); ok {
			out = append(out, o)
		}
	}
	return out
}

func replace(o map[string]any, name string, words map[string]string) {
	if text, ok := o[name].(string); ok {
		if to, known := words[text]; known {
			o[name] = to
		}
	}
}

func underlined(o map[string]any, name string) {
	if text, ok := o[name].(string); ok {
		o[name] = strings.ReplaceAll(text, " ", "_")
	}
}

// pairs makes an object of "question=answer" words.
func pairs(o map[string]any, from, to string) {
	text, ok := o[from].(string)
	if !ok {
		return
	}
	delete(o, from)
	answers := map[string]any{}
	for _, w := range strings.Fields(text) {
		if k, v, cut := strings.Cut(w, "="); cut {
			answers[k] = v
		}
	}
	o[to] = answers
}

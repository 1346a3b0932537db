package calc

import (
	"encoding/json"
	"sort"
)

// UnmarshalJSON reads an answer that was written earlier, its results in the
// order the calculator declares them.
func (o *Output) UnmarshalJSON(text []byte) error {
	var raw struct {
		Name     string
		Results  map[string]json.RawMessage
		Steps    []string
		Warnings []Warning
	}
	if err := json.Unmarshal(text, &raw); err != nil {
		return err
	}
	*o = Output{Name: raw.Name, Steps: raw.Steps, Warnings: raw.Warnings}
	place := map[string]int{}
	if d := registry[raw.Name]; d != nil {
		for i, r := range d.Results {
			place[r.Name] = i - len(d.Results)
		}
	}
	names := make([]string, 0, len(raw.Results))
	for n := range raw.Results {
		names = append(names, n)
	}
	sort.Slice(names, func(i, j int) bool {
		if place[names[i]] != place[names[j]] {
			return place[names[i]] < place[names[j]]
		}
		return names[i] < names[j]
	})
	for _, n := range names {
		v, err := readResult(raw.Results[n])
		if err != nil {
			return err
		}
		o.Results = append(o.Results, Entry{n, v})
	}
	return nil
}

// readResult tells a result's kind by its shape.
func readResult(text json.RawMessage) (any, error) {
	var v any
	if err := json.Unmarshal(text, &v); err != nil {
		return nil, err
	}
	list, ok := v.([]any)
	if !ok {
		return shaped(v), nil
	}
	figs, rows := []Figure{}, []map[string]any{}
	for _, item := range list {
		switch x := shaped(item).(type) {
		case Figure:
			figs = append(figs, x)
		case map[string]any:
			rows = append(rows, x)
		}
	}
	if len(rows) > 0 {
		return rows, nil
	}
	return figs, nil
}

// shaped turns {value, unit} objects into figures, at any depth.
func shaped(v any) any {
	m, ok := v.(map[string]any)
	if !ok {
		return v
	}
	value, isNumber := m["value"].(float64)
	unit, isText := m["unit"].(string)
	if isNumber && isText && len(m) == 2 {
		return Figure{value, unit}
	}
	for k, x := range m {
		m[k] = shaped(x)
	}
	return m
}

package exchange

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/unit"
)

// thing is what a list of a document of the second version holds: values of a scope, and lists.
type thing struct {
	scope unit.Scope
	lists map[string]thing
}

// secondLists are the lists of that version, by their names in it.
var secondLists = map[string]thing{"units": {unit.ScopeUnit, map[string]thing{
	"loose": {scope: unit.ScopeLoose}, "evidence": {scope: unit.ScopeEvidence},
	"conclusions": {scope: unit.ScopeConclusion}, "causes": {scope: unit.ScopeCause},
	"kit": {scope: unit.ScopePiece}, "step_limits": {scope: unit.ScopeLimit},
	"attempts": {unit.ScopeAttempt, map[string]thing{"points": {scope: unit.ScopePoint}}},
	"parts": {unit.ScopePart, map[string]thing{
		"features": {scope: unit.ScopeFeature}, "marks": {scope: unit.ScopePartMark},
		"decisions": {scope: unit.ScopeDecision}, "reworks": {scope: unit.ScopeRework},
		"steps": {scope: unit.ScopeStep},
	}},
}}, "attachments": {scope: unit.ScopePicture}}

// secondNames are lists that are called otherwise now.
var secondNames = map[string]string{"loose": "loose_items", "attachments": "pictures"}

// fromSecond brings a document of the second version to this one. That version had the job's own
// values in an object of their own, and every value under the one name by which it is entered; now
// they stand as the types of a job declare them. Where each was is kept, so that a fault is told
// at its place in the file.
func (d *Document) fromSecond() {
	d.was = map[string]string{}
	if head, ok := d.root["job"].(map[string]any); ok {
		for _, name := range slices.Collect(maps.Keys(head)) {
			if _, both := d.root[name]; both {
				continue
			}
			d.root[name], d.was[name] = head[name], "job."+name
			delete(head, name)
		}
		if len(head) == 0 {
			delete(d.root, "job")
		}
	}
	d.bring(thing{unit.ScopeJob, secondLists}, d.root, "", "")
	d.root["version"] = Version
}

// bring gives an object of a scope, and the lists in it, their places of now; at is where it
// stands now and was where it stood.
func (d *Document) bring(t thing, o map[string]any, at, was string) {
	for _, f := range entry.Fields(t.scope) {
		path := f.Path()
		v, given := o[f.Name]
		if !given || len(path) == 1 && path[0] == f.Name {
			continue
		}
		delete(o, f.Name)
		in := o
		for _, name := range path[:len(path)-1] {
			below, is := in[name].(map[string]any)
			if !is {
				below = map[string]any{}
				in[name] = below
			}
			in = below
		}
		in[path[len(path)-1]] = v
		now, then := at+strings.Join(path, "."), was+f.Name
		if t.scope == unit.ScopeJob {
			then = "job." + f.Name
		}
		d.was[now] = then
	}
	for name, of := range t.lists {
		list, given := o[name]
		if !given {
			continue
		}
		now := name
		if other, renamed := secondNames[name]; renamed {
			now = other
			delete(o, name)
			o[now] = list
			d.was[at+now] = was + name
		}
		rows, _ := list.([]any)
		for i, row := range rows {
			if row, is := row.(map[string]any); is {
				here := fmt.Sprintf("[%d].", i)
				d.bring(of, row, at+now+here, was+name+here)
			}
		}
	}
}

// heads are the members of a document of the second version beside its job's.
var heads = []string{"customer", "units", "acknowledgements", "stop_passes", "reopenings", "follow_ups", "pictures",
	"worked_figures", "record"}

// asWritten is the place in the file of what stands at a path now.
func (d *Document) asWritten(path string) string {
	if d.was == nil {
		return path
	}
	for end := len(path); end > 0; end-- {
		if end < len(path) && path[end] != '.' && path[end] != '[' {
			continue
		}
		if was, moved := d.was[path[:end]]; moved {
			return was + path[end:]
		}
	}
	head, _, _ := strings.Cut(path, ".")
	head, _, _ = strings.Cut(head, "[")
	if _, there := d.root[head]; !there && !slices.Contains(heads, head) {
		return "job." + path // it is missing there
	}
	return path
}

package exchange

import (
	"bytes"
	"encoding/json"
	"reflect"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
)

//go:generate go run corvek/internal/exchange/schemagen ../../docs/job.schema.json

// Schema is the JSON Schema of a job document. It is made from the types that a job has, with the
// labels of the table of fields, so that a new field is in it at once.
func Schema() []byte {
	document := shapeOf(reflect.TypeFor[content](), nil, "")
	members := document["properties"].(shape)
	members["format"], members["version"] = shape{"const": Format}, shape{"const": Version}
	members["whole"] = shape{"type": "boolean",
		"description": "What the document does not say is not so; else it is as the family lays it out"}
	pictures := members["pictures"].(shape)["items"].(shape)["properties"].(shape)
	pictures["file"] = shape{"type": "string",
		"description": "Where its content lies in the zip; files/NN.EXT of its number and name without"}
	calculations := members["worked_figures"].(shape)["items"].(shape)["properties"].(shape)
	calculations["inputs"], calculations["answer"] = shape{"type": "object"}, shape{"type": "object"}
	members["units"].(shape)["minItems"] = 1
	document["required"] = append([]string{"format", "version"}, required[reflect.TypeFor[unit.Job]()]...)
	document["$schema"] = "https://json-schema.org/draft/2020-12/schema"
	document["title"] = "Corvek job document"
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetIndent("", "  ")
	enc.SetEscapeHTML(false)
	if err := enc.Encode(document); err != nil {
		panic(err) // it is made of nothing that cannot be written
	}
	return b.Bytes()
}

type shape map[string]any

// scopes are those whose fields stand on a type.
var scopes = map[reflect.Type]unit.Scope{
	reflect.TypeFor[content](): unit.ScopeJob, reflect.TypeFor[unit.Picture](): unit.ScopePicture,
	reflect.TypeFor[unit.Unit](): unit.ScopeUnit, reflect.TypeFor[unit.Conclusion](): unit.ScopeConclusion,
	reflect.TypeFor[unit.UnitMark](): unit.ScopeEvidence, reflect.TypeFor[unit.PartMark](): unit.ScopePartMark,
	reflect.TypeFor[unit.NamedCause](): unit.ScopeCause, reflect.TypeFor[unit.Loose](): unit.ScopeLoose,
	reflect.TypeFor[unit.Piece](): unit.ScopePiece, reflect.TypeFor[unit.Attempt](): unit.ScopeAttempt,
	reflect.TypeFor[unit.Point](): unit.ScopePoint, reflect.TypeFor[unit.StepLimit](): unit.ScopeLimit,
	reflect.TypeFor[unit.Part](): unit.ScopePart, reflect.TypeFor[unit.Decision](): unit.ScopeDecision,
	reflect.TypeFor[unit.Rework](): unit.ScopeRework, reflect.TypeFor[unit.Step](): unit.ScopeStep,
	reflect.TypeFor[unit.Feature](): unit.ScopeFeature,
}

// required are the members without which a thing cannot be read. A number that may be 0, such as
// that of the attempt as received, is left out where it is.
var required = map[reflect.Type][]string{
	reflect.TypeFor[unit.Job](): {"tag", "title", "policy", "waiting", "received_on", "customer",
		"units"},
	reflect.TypeFor[unit.Customer]():        {"name"},
	reflect.TypeFor[unit.Unit]():            {"family", "name"},
	reflect.TypeFor[unit.Part]():            {"code"},
	reflect.TypeFor[unit.Feature]():         {"code"},
	reflect.TypeFor[unit.Reading]():         {"round", "stage", "slot", "value"},
	reflect.TypeFor[unit.UnitMark]():        {"round", "code"},
	reflect.TypeFor[unit.PartMark]():        {"round", "code"},
	reflect.TypeFor[unit.Decision]():        {"round"},
	reflect.TypeFor[unit.Rework]():          {"route"},
	reflect.TypeFor[unit.Step]():            {"round"},
	reflect.TypeFor[unit.Account]():         {"teller", "words"},
	reflect.TypeFor[unit.Round]():           {"number"},
	reflect.TypeFor[unit.NamedCause]():      {"number", "round"},
	reflect.TypeFor[unit.Conclusion]():      {"round"},
	reflect.TypeFor[unit.Attempt]():         {"round"},
	reflect.TypeFor[unit.Point]():           {"code"},
	reflect.TypeFor[unit.StepLimit]():       {"code"},
	reflect.TypeFor[unit.Picture]():         {"name", "media_type"},
	reflect.TypeFor[unit.Acknowledgement](): {"caution", "by", "at"},
	reflect.TypeFor[unit.Waiver]():          {"code", "reason", "by", "at"},
	reflect.TypeFor[unit.Reopening]():       {"reason", "handed_over_at", "by", "at"},
	reflect.TypeFor[unit.FollowUp]():        {"unit", "kind", "due_on", "asked_by"},
	reflect.TypeFor[unit.Worked]():          {"calculator", "inputs", "answer", "by", "at"},
	reflect.TypeFor[unit.Entry]():           {"who", "at", "action"},
	reflect.TypeFor[unit.Event]():           {"kind"},
}

// shapeOf describes a type; labels are those of the fields of its scope by their path, of which at
// is the beginning.
func shapeOf(t reflect.Type, labels map[string]string, at string) shape {
	switch {
	case t == reflect.TypeFor[quantity.Quantity]():
		return shape{"type": "string"}
	case t == reflect.TypeFor[time.Time]():
		return shape{"type": "string", "format": "date-time"}
	case t == reflect.TypeFor[unit.Date]():
		return shape{"type": "string", "format": "date"}
	case t == reflect.TypeFor[map[string]quantity.Quantity]():
		return figures()
	}
	switch t.Kind() {
	case reflect.Pointer:
		return shapeOf(t.Elem(), labels, at)
	case reflect.Slice:
		return shape{"type": "array", "items": shapeOf(t.Elem(), labels, at)}
	case reflect.Map:
		return shape{"type": "object", "additionalProperties": shapeOf(t.Elem(), nil, "")}
	case reflect.Bool:
		return shape{"type": "boolean"}
	case reflect.Int, reflect.Int64:
		return shape{"type": "integer", "minimum": 0}
	case reflect.Float64:
		return shape{"type": "number", "minimum": 0, "maximum": 1} // a share of a picture
	case reflect.Struct:
		return object(t, labels, at)
	}
	return shape{"type": "string"}
}

// object describes a struct by the members that its JSON has.
func object(t reflect.Type, labels map[string]string, at string) shape {
	if scope, own := scopes[t]; own {
		labels, at = map[string]string{}, ""
		for _, f := range entry.Fields(scope) {
			labels[strings.Join(f.Path(), ".")] = f.Label
		}
	}
	members := shape{}
	for _, f := range reflect.VisibleFields(t) {
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if name == "" || name == "-" {
			continue
		}
		member := shapeOf(f.Type, labels, at+name+".")
		if label := labels[at+name]; label != "" {
			member["description"] = label
		}
		members[name] = member
	}
	if t == reflect.TypeFor[unit.Reading]() {
		members["stage"] = shape{"enum": []string{unit.StageFound, unit.StageBuilt}}
	}
	s := shape{"type": "object", "additionalProperties": false, "properties": members}
	if names := required[t]; names != nil {
		s["required"] = names
	}
	return s
}

// figures are those that a step of a test can read, by their code.
func figures() shape {
	members := shape{}
	for _, g := range family.Figures {
		members[g.Code] = shape{"type": "string", "description": g.Name}
	}
	return shape{"type": "object", "additionalProperties": false, "properties": members}
}

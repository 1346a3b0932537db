package exchange

import (
	"bytes"
	"encoding/json"

	"corvek/core/entry"
	"corvek/core/unit"
)

//go:generate go run corvek/internal/exchange/schemagen ../../docs/job.schema.json

// Schema is the JSON Schema of a job document. Its values are those of the table
// of fields, so that a new field is in it at once.
func Schema() []byte {
	text := shape{"type": "string"}
	whole := shape{"type": "integer", "minimum": 0}
	moment := shape{"type": "string", "format": "date-time"}
	answers := shape{"type": "object", "additionalProperties": text}
	round := shape{"type": "integer", "minimum": 1}

	feature := of(unit.ScopeFeature, shape{"code": text, "readings": many1(record(shape{
		"round": round, "stage": shape{"enum": []string{unit.StageFound, unit.StageBuilt}}, "slot": text,
		"value": text, "by": text, "at": moment,
	}, "round", "stage", "slot", "value"))}, "code")
	part := of(unit.ScopePart, shape{
		"code": text, "name": text, "kind": text, "branch": text, "features": many1(feature),
		"marks":     many1(of(unit.ScopePartMark, shape{"round": round, "code": text}, "round", "code")),
		"decisions": many1(of(unit.ScopeDecision, shape{"round": round}, "round")),
		"reworks":   many1(of(unit.ScopeRework, shape{"route": text}, "route")),
		"steps":     many1(of(unit.ScopeStep, shape{"round": round, "by": text}, "round")),
	}, "code")
	attempt := of(unit.ScopeAttempt, shape{
		"number": whole, "round": round, "by": text, "at": moment,
		"points": many1(of(unit.ScopePoint, shape{"code": text}, "code")),
	}, "number", "round")
	one := of(unit.ScopeUnit, shape{
		"family": text, "gauge": answers, "identity": answers, "flush": answers, "fill": answers,
		"more":     answers,
		"accounts": many1(record(shape{"number": whole, "teller": text, "words": text}, "teller", "words")),
		"rounds": many1(record(shape{"number": round, "reason": text, "back_to": text, "opened_by": text,
			"opened_at": moment}, "number")),
		"parts":       many1(part),
		"causes":      many1(of(unit.ScopeCause, shape{"number": whole, "round": round}, "number", "round")),
		"loose":       many1(of(unit.ScopeLoose, shape{"number": whole})),
		"evidence":    many1(of(unit.ScopeEvidence, shape{"round": round, "code": text}, "round", "code")),
		"conclusions": many1(of(unit.ScopeConclusion, shape{"round": round}, "round")),
		"kit":         many1(of(unit.ScopePiece, shape{"line": whole})),
		"attempts":    many1(attempt),
		"step_limits": many1(of(unit.ScopeLimit, shape{"code": text}, "code")),
	}, "family", "name")
	share := shape{"type": "number", "minimum": 0, "maximum": 1}
	mark := record(shape{"number": whole, "x": share, "y": share, "note": text, "evidence": text, "part": text,
		"mark": text},
		"x", "y")
	picture := of(unit.ScopePicture, shape{
		"file": text, "number": whole, "name": text, "media_type": text, "unit": whole, "part": text, "mark": text,
		"marks": many1(mark),
	}, "file", "name", "media_type")
	signed := func(more shape, required ...string) shape {
		more["by"], more["at"] = text, moment
		return record(more, append(required, "by", "at")...)
	}
	object := shape{"type": "object"}
	event := record(shape{"kind": text, "unit": whole, "hand_over": whole, "lines": whole, "head": text, "state": text,
		"on": moment, "name": text, "sum": text, "asked": text, "due": text, "result": text, "words": text}, "kind")
	document := record(shape{
		"format": shape{"const": Format}, "version": shape{"const": Version},
		"job": of(unit.ScopeJob, shape{"tag": text, "symptoms": shape{"type": "array", "items": text}},
			"tag", "title", "policy", "waiting", "received_on"),
		"customer":         record(shape{"name": text, "place": text, "contact": text}, "name"),
		"units":            shape{"type": "array", "minItems": 1, "items": one},
		"acknowledgements": many1(signed(shape{"caution": text}, "caution")),
		"stop_passes":      many1(signed(shape{"code": text, "stop_text": text, "reason": text}, "code", "reason")),
		"reopenings": many1(signed(shape{"reason": text, "handed_over_at": moment}, "reason",
			"handed_over_at")),
		"follow_ups": many1(record(shape{"unit": whole, "kind": text, "due_on": text, "asked_by": text,
			"result": text, "note": text, "answered_by": text, "answered_at": moment}, "unit", "kind", "due_on",
			"asked_by")),
		"attachments": many1(picture),
		"worked_figures": many1(signed(shape{"calculator": text, "note": text, "inputs": object,
			"answer": object}, "calculator", "inputs", "answer")),
		"record": many1(record(shape{
			"who":     text,
			"role":    text,
			"at":      moment,
			"action":  text,
			"field":   text,
			"before":  text,
			"after":   text,
			"event":   event,
			"brought": shape{"type": "boolean"},
		}, "who", "at", "action")),
	}, "format", "version", "job", "customer", "units")
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

func many1(items shape) shape { return shape{"type": "array", "items": items} }

// record is an object with just these members.
func record(members shape, required ...string) shape {
	s := shape{"type": "object", "additionalProperties": false, "properties": members}
	if len(required) > 0 {
		s["required"] = required
	}
	return s
}

// of is an object with the declared fields of a scope beside the members given.
func of(scope unit.Scope, members shape, required ...string) shape {
	for _, f := range entry.Fields(scope) {
		if many[f.Name] || f.Kind == entry.Reading {
			continue
		}
		kind := shape{"type": "string", "description": f.Label}
		switch {
		case f.Kind == entry.Flag:
			kind["type"] = "boolean"
		case f.Kind == entry.Whole && f.Required:
			kind["type"], kind["minimum"] = "integer", 0
		case f.Kind == entry.Day:
			kind["format"] = "date"
		case f.Kind == entry.Timer:
			kind["format"] = "date-time"
		}
		members[f.Name] = kind
	}
	return record(members, required...)
}

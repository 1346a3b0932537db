package api

import (
	"net/http"

	"corvek/core/calc"

	"github.com/labstack/echo/v5"
)

type object = map[string]any

// OpenAPI describes the calculators' interface, made from the registry, so that
// it cannot fall behind what the server answers.
func OpenAPI(families []string) object {
	paths := object{
		"/api/v1/calc": object{"get": object{"summary": "The calculators",
			"responses": object{"200": object{"description": "names and summaries",
				"content": jsonOf(object{"type": "array", "items": object{"type": "object",
					"required":   []string{"name", "summary"},
					"properties": object{"name": object{"type": "string"}, "summary": object{"type": "string"}}}})}}}},
	}
	for _, d := range calc.All() {
		paths["/api/v1/calc/"+d.Name] = object{"post": object{
			"summary": d.Summary, "description": d.Formula + "\n\nSource: " + d.Source + ". Assumes: " +
				d.Assumptions + ".", "operationId": d.Name,
			"requestBody": object{"required": true, "content": jsonOf(requestOf(d))},
			"responses": object{
				"200": object{"description": "results, working, warnings", "content": jsonOf(answerOf(d))},
				"422": object{"description": "an input that cannot be computed", "content": jsonOf(ref("Refusal"))},
			},
		}}
	}
	paths[apiExplainPath] = explainOpenAPI(families)
	return object{
		"openapi": "3.1.0",
		"info": object{"title": "Corvek calculators and explain", "version": "1",
			"description": "Quantities are strings \"number unit\"; results are in SI units."},
		"paths": paths,
		"components": object{"schemas": object{
			"Figure": object{"type": "object", "required": []string{"value", "unit"},
				"additionalProperties": false, "properties": object{"value": object{"type": "number"},
					"unit": object{"type": "string"}}},
			"Warning": object{"type": "object", "required": []string{"code", "text"},
				"properties": object{"code": object{"type": "string"}, "text": object{"type": "string"}}},
			"Refusal": object{"type": "object", "required": []string{"error"},
				"properties": object{"error": object{"type": "object", "required": []string{"field", "text"},
					"properties": object{"field": object{"type": "string"}, "text": object{"type": "string"}}}}},
		}},
	}
}

func jsonOf(schema object) object {
	return object{"application/json": object{"schema": schema}}
}

func ref(name string) object { return object{"$ref": "#/components/schemas/" + name} }

func requestOf(d *calc.Def) object {
	props, required := object{}, []string{}
	for _, in := range d.Inputs {
		props[in.Name] = inputSchema(in)
		if !in.Optional {
			required = append(required, in.Name)
		}
	}
	return object{"type": "object", "properties": props, "required": required, "additionalProperties": false,
		"example": rawExample(d.Example)}
}

// inputSchema gives the shape of an input; a quantity is text, or a bare number
// where it has no unit of its own.
func inputSchema(in calc.Input) object {
	one := object{"type": []string{"string", "number"}, "description": in.Describe() + describeHelp(in.Help)}
	switch in.Kind {
	case calc.Text:
		return object{"type": "string", "description": in.Help}
	case calc.Choice:
		return object{"type": "string", "enum": in.Choices, "description": in.Help}
	case calc.List:
		return object{"type": "array", "items": one}
	case calc.Grid:
		return object{"type": "array", "items": object{"type": "array", "items": one}}
	case calc.Objects:
		props := object{}
		for _, p := range in.Parts {
			props[p.Name] = inputSchema(p)
		}
		return object{"type": "array", "items": object{"type": "object", "properties": props,
			"additionalProperties": false}}
	case calc.Figures:
		return object{"type": "object", "additionalProperties": one, "description": in.Help}
	}
	return one
}

func describeHelp(s string) string {
	if s == "" {
		return ""
	}
	return "; " + s
}

// answerOf describes the results: numbers as figures, words, yes or no, lists.
func answerOf(d *calc.Def) object {
	props := object{}
	for _, r := range d.Results {
		props[r.Name] = object{"description": r.Help, "anyOf": []object{ref("Figure"), {"type": "string"},
			{"type": "boolean"}, {"type": "array"}, {"type": "object"}}}
	}
	return object{"type": "object", "required": []string{"name", "results", "steps", "warnings"},
		"additionalProperties": false, "properties": object{
			"name":     object{"const": d.Name},
			"results":  object{"type": "object", "properties": props, "additionalProperties": false},
			"steps":    object{"type": "array", "items": object{"type": "string"}},
			"warnings": object{"type": "array", "items": ref("Warning")},
		}}
}

// rawExample keeps an example as the JSON it is.
func rawExample(s string) any { return jsonText(s) }

// jsonText marshals as itself.
type jsonText string

// MarshalJSON gives the text unchanged; examples are checked by the calculators' tests.
func (t jsonText) MarshalJSON() ([]byte, error) { return []byte(t), nil }

func (s *Pages) openAPI(c *echo.Context) error {
	return c.JSON(http.StatusOK, OpenAPI(s.Jobs.Knowledge.Families()))
}

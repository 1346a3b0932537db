package api

import (
	"io"
	"net/http"

	"corvek/core/field"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

const apiExplainPath = "/api/v1/explain"

// explainCase answers a written case. Like the calculators it keeps no state and
// knows no job, so it is open.
func (s *Pages) explainCase(c *echo.Context) error {
	body, err := io.ReadAll(io.LimitReader(c.Request().Body, site.MostOpenBody+1))
	if err != nil {
		return err
	}
	if len(body) > site.MostOpenBody {
		return field.Errorf("case", "is larger than %d kB", site.MostOpenBody>>10)
	}
	answer, err := s.Jobs.Knowledge.Answer(body)
	if err != nil {
		return err
	}
	return c.JSON(http.StatusOK, answer)
}

// explainOpenAPI describes the explain interface.
func explainOpenAPI(families []string) object {
	text, figure, yes := object{"type": "string"}, object{"type": "number"}, object{"type": "boolean"}
	list := func(props object, required ...string) object {
		return object{"type": "array", "items": object{"type": "object", "properties": props, "required": required,
			"additionalProperties": false}}
	}
	codes := object{"type": "array", "items": text}
	weights := list(object{"evidence": text, "strength": figure, "bits": figure}, "evidence", "strength", "bits")
	misfits := list(object{"evidence": text, "lacking": yes}, "evidence", "lacking")
	stories := list(object{"causes": codes, "posterior": figure, "open": misfits}, "causes", "posterior")
	request := object{"type": "object", "required": []string{"family", "evidence"}, "additionalProperties": false,
		"example": object{"family": "check_valve", "evidence": []object{{"code": "end_deep", "state": "seen"},
			{"code": "seat_wide", "state": "absent"}}},
		"properties": object{
			"family": object{"type": "string", "enum": families},
			"evidence": list(object{"code": text, "state": object{"type": "string",
				"enum": []string{"seen", "absent", "not_looked"}},
				"grade":    object{"type": "integer", "minimum": 0, "maximum": 4},
				"strength": object{"type": "number", "minimum": 0, "maximum": 1}}, "code"),
			"closed_jobs": object{"type": "object", "additionalProperties": object{"type": "integer", "minimum": 0}},
		}}
	answer := object{"type": "object", "additionalProperties": false,
		"required": []string{"family", "ranking", "two_together", "pairs", "stories", "next", "would_change",
			"open_bits"},
		"properties": object{
			"family": text, "two_together": figure, "open_bits": figure, "decider": text, "pairs": stories,
			"stories": stories,
			"ranking": list(object{"cause": text, "name": text, "where": text, "posterior": figure,
				"alone": figure, "for": weights, "against": weights, "misfits": misfits},
				"cause", "name", "where", "posterior", "alone", "for", "against", "misfits"),
			"next": list(object{"evidence": text, "text": text, "look": text, "minutes": figure,
				"bits": figure, "destroys_evidence": yes, "or": codes}, "evidence", "text", "look", "minutes", "bits",
				"destroys_evidence"),
			"would_change": list(object{"evidence": text, "seen": yes, "chance": figure, "to": text}, "evidence",
				"seen", "chance", "to"),
		}}
	return object{"post": object{
		"summary": "Weigh the evidence of a case", "operationId": "explain",
		"description": "Causes ranked by Bayes' rule, one or two together enumerated exactly; weights in bits.",
		"requestBody": object{"required": true, "content": jsonOf(request)},
		"responses": object{
			"200": object{"description": "ranking, stories, next checks", "content": jsonOf(answer)},
			"422": object{"description": "a case that cannot be read", "content": jsonOf(ref("Refusal"))},
		},
	}}
}

package field_test

import (
	"testing"

	"corvek/core/field"

	"github.com/stretchr/testify/assert"
)

func TestErrorNamesItsField(t *testing.T) {
	assert.Equal(t, "bore: is empty", field.Errorf("bore", "is %s", "empty").Error())
	assert.Equal(t, "not a case", field.Errorf("", "not a case").Error())
}

func TestDecodeJSONSaysWhatIsWrong(t *testing.T) {
	type thing struct {
		Count int `json:"count"`
	}
	for body, says := range map[string]string{
		`{"count":`:      "ends too early",
		``:               "ends too early",
		`{bad}`:          "at character 2",
		`[1]`:            "an object",
		`{"count":"x"}`:  "count cannot be a string",
		`{"colour":1}`:   `unknown field "colour"`,
		`{"count":1} {}`: "something after the end",
		`{"count":1}]`:   "something after the end",
	} {
		assert.ErrorContains(t, field.DecodeJSON([]byte(body), &thing{}, true), says, body)
	}
	var got thing
	assert.NoError(t, field.DecodeJSON([]byte(" {\"count\": 3}\n "), &got, true))
	assert.Equal(t, 3, got.Count)
	assert.NoError(t, field.DecodeJSON([]byte(`{"colour":1}`), &got, false), "lenient where it is asked to be")
}

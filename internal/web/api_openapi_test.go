package web

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"strconv"
	"strings"
	"testing"

	"corvek/core/calc"
	"corvek/internal/web/api"

	jsonschema "github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What the server describes is what it takes and answers, for every calculator.
func TestOpenAPIIsTrue(t *testing.T) {
	t.Parallel()
	s := serve(t)
	res, err := http.Get(s.URL + "/api/v1/openapi.json")
	require.NoError(t, err)
	defer res.Body.Close()
	doc, err := jsonschema.UnmarshalJSON(res.Body)
	require.NoError(t, err)
	told := doc.(map[string]any)
	// Each schema is compiled alone, with the shared ones it refers to: compiling
	// out of the whole description walks all of it every time.
	schema := func(name string, path ...string) *jsonschema.Schema {
		at := told["paths"].(map[string]any)["/api/v1/"+name].(map[string]any)["post"].(map[string]any)
		for _, p := range append(path, "content", "application/json") {
			at = at[p].(map[string]any)
		}
		alone := map[string]any{"components": told["components"]}
		for k, v := range at["schema"].(map[string]any) {
			alone[k] = v
		}
		c := jsonschema.NewCompiler()
		require.NoError(t, c.AddResource("one.json", alone))
		compiled, err := c.Compile("one.json")
		require.NoError(t, err, name)
		return compiled
	}
	post := func(name, body string) (int, any) {
		res, err := http.Post(s.URL+"/api/v1/"+name, "application/json", strings.NewReader(body))
		require.NoError(t, err)
		defer res.Body.Close()
		text, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		v, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
		require.NoError(t, err)
		return res.StatusCode, v
	}
	for _, d := range calc.All() {
		t.Run(d.Name, func(t *testing.T) {
			in, err := jsonschema.UnmarshalJSON(strings.NewReader(d.Example))
			require.NoError(t, err)
			assert.NoError(t, schema("calc/"+d.Name, "requestBody").Validate(in))
			status, out := post("calc/"+d.Name, d.Example)
			assert.Equal(t, http.StatusOK, status)
			assert.NoError(t, schema("calc/"+d.Name, "responses", "200").Validate(out))
			bad := `{"no_such_input":1}`
			v, _ := jsonschema.UnmarshalJSON(strings.NewReader(bad))
			assert.Error(t, schema("calc/"+d.Name, "requestBody").Validate(v), "the description can refuse")
			status, out = post("calc/"+d.Name, bad)
			assert.Equal(t, http.StatusUnprocessableEntity, status)
			assert.NoError(t, schema("calc/"+d.Name, "responses", "422").Validate(out))
		})
	}
	t.Run("explain", func(t *testing.T) {
		for body, want := range map[string]int{
			`{"family":"check_valve","evidence":[{"code":"end_deep","state":"seen"},{"code":"seat_wide",` +
				`"grade":1}]}`: http.StatusOK,
			`{"family":"check_valve","evidence":[]}`:                                    http.StatusOK,
			`{"family":"dragon","evidence":[]}`:                                         http.StatusUnprocessableEntity,
			`{"family":"check_valve","evidence":[{"code":"end_deep","state":"maybe"}]}`: http.StatusUnprocessableEntity,
		} {
			v, err := jsonschema.UnmarshalJSON(strings.NewReader(body))
			require.NoError(t, err)
			assert.Equal(t, want == http.StatusOK, schema("explain", "requestBody").Validate(v) == nil, body)
			status, out := post("explain", body)
			assert.Equal(t, want, status, body)
			assert.NoError(t, schema("explain", "responses", strconv.Itoa(want)).Validate(out), body)
		}
	})
	_, err = json.Marshal(api.OpenAPI(s.server.Jobs.Knowledge.Families()))
	assert.NoError(t, err)
}

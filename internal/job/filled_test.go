package job_test

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"corvek/core/calc"
	"corvek/core/field"
	"corvek/core/filled"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a unit of any family fills into a calculator is an input of it, says whence it is, and is taken as it stands:
// the calculator itself is the judge.
func TestWhatAUnitFillsInIsTaken(t *testing.T) {
	whole.Only(t)
	t.Parallel() // hundreds of writes, in a store of its own
	s := emptyShop(t)
	answered := map[string]bool{}
	for _, f := range s.Families().List() {
		st := load(t, s, jobtest.Built(t, s, f.Code))
		for _, d := range calc.All() {
			about := []filled.Subject{{}}
			if subjects := filled.Subjects(st, d.Name); subjects != nil {
				about = subjects
			}
			for _, subject := range about {
				in := map[string]any{}
				for _, x := range filled.Of(st, d.Name, subject.Code) {
					assert.NotEmpty(t, x.Whence, "%s %s", d.Name, x.Name)
					in[x.Name] = typedAs(t, d, x)
				}
				if len(in) == 0 {
					continue
				}
				body, err := json.Marshal(in)
				require.NoError(t, err)
				_, err = calc.Run(d.Name, body)
				var fault *field.Error
				if errors.As(err, &fault) { // what is missing may be; what is there must be right
					assert.NotContains(
						t,
						in,
						fault.Field,
						"%s of %s %s: %s",
						d.Name,
						f.Code,
						subject.Code,
						fault.Text,
					)
				}
				answered[d.Name] = answered[d.Name] || err == nil
			}
		}
	}
	for _, name := range []string{"pump", "motor", "annular_leak", "plane_leak", "readings", "judge",
		"feeler", "runout",
		"bolt_torque", "bolt_pattern", "gap_ratio"} {
		assert.True(t, answered[name], "%s is worked out from a unit alone", name)
	}
}

// typedAs is an input as JSON has it: lists by commas.
func typedAs(t *testing.T, d *calc.Def, x filled.Input) any {
	t.Helper()
	for _, in := range d.Inputs {
		if in.Name != x.Name {
			continue
		}
		if in.Kind == calc.List {
			return strings.Split(x.Text, ", ")
		}
		return x.Text
	}
	t.Errorf("%s has no input %s", d.Name, x.Name)
	return nil
}

// A figure that is put back keeps whence its inputs are; one that was typed over says that it was typed.
func TestAFigurePutBackSaysWhenceItIs(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := jobtest.Built(t, s, "external_gear_pump")
	in := map[string]any{}
	for _, x := range filled.Of(load(t, s, tag), "pump", "") {
		in[x.Name] = x.Text
	}
	require.Contains(t, in, "displacement")
	in["speed"] = "1000 rpm"
	body, err := json.Marshal(in)
	require.NoError(t, err)
	require.NoError(t, s.PutFigure(t.Context(), iva, tag, job.Working{Calculator: "pump", Inputs: body,
		About: "no_such_part"}))
	w := load(t, s, tag).Job.Worked[0]
	assert.Equal(t, "displacement of the unit", w.Whence["displacement"])
	assert.NotContains(t, w.Whence, "speed")
	assert.Empty(t, w.About)
}

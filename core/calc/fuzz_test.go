package calc_test

import (
	"encoding/json"
	"strings"
	"testing"

	"corvek/core/calc"
	"corvek/core/field"
)

func FuzzRun(f *testing.F) {
	for _, d := range calc.All() {
		f.Add(d.Name, d.Example)
	}
	f.Fuzz(func(t *testing.T, name, in string) {
		out, err := calc.Run(name, []byte(in))
		if err != nil {
			var fe *field.Error
			if !asField(err, &fe) || strings.TrimSpace(fe.Text) == "" {
				t.Fatalf("%v is no field error", err)
			}
			return
		}
		if _, err := json.Marshal(out); err != nil {
			t.Fatal(err)
		}
	})
}

func asField(err error, fe **field.Error) bool {
	e, ok := err.(*field.Error)
	*fe = e
	return ok
}

package kit_test

import (
	"strings"
	"testing"

	"corvek/core/kit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestReadList(t *testing.T) {
	seal := kit.Line{Code: "K32-1", Name: "shaft seal", Count: 2, Size: "20 x 35 x 7", Material: "NBR", Cure: "2029-Q2"}
	for name, c := range map[string]struct {
		text string
		want []kit.Line
	}{
		"semicolons in the usual order": {"K32-1; shaft seal; 2; 20 x 35 x 7; NBR; 2029-Q2\n", []kit.Line{seal}},
		"tabs from a spreadsheet": {"name\tqty\tpart number\nshaft seal\t2\tK32-1\r\n",
			[]kit.Line{{Code: "K32-1", Name: "shaft seal", Count: 2}}},
		"commas with a head": {"Number,Piece,Count,For\nK32-1,\"seal, outer\",1,seal_outer",
			[]kit.Line{{Code: "K32-1", Name: "seal, outer", Count: 1, For: "seal_outer"}}},
		"only names": {"front gasket\nrear gasket", []kit.Line{{Name: "front gasket", Count: 1},
			{Name: "rear gasket", Count: 1}}},
		"a number alone is its name": {"K32-9;;3", []kit.Line{{Code: "K32-9", Name: "K32-9", Count: 3}}},
	} {
		got, err := kit.ReadList(c.text)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, got, name)
	}
	for text, says := range map[string]string{"": "is a list", " \n;;\n": "is a list",
		"a;b;many": "whole number", "a;b;0": "whole number", "x;" + strings.Repeat("n", 300): "too long",
		strings.Repeat("a;b;1\n", 201): "more than 200"} {
		_, err := kit.ReadList(text)
		assert.ErrorContains(t, err, says)
	}
}

// Whatever is pasted is read within its bounds or refused.
func FuzzReadList(f *testing.F) {
	for _, text := range []string{"a;b;1", "name,count\nx,2", "\"", "a\tb", "\ufeffnumber;name\n1;2", "a;b;-1"} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		lines, err := kit.ReadList(text)
		if err != nil {
			return
		}
		if len(lines) == 0 || len(lines) > kit.MostLines {
			t.Fatal(len(lines))
		}
		for _, l := range lines {
			if l.Name == "" || l.Count < 1 || l.Count > 10000 {
				t.Fatalf("%+v", l)
			}
		}
	})
}

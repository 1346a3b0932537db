package hidden_test

import (
	"corvek/core/hidden"
	"fmt"
	"testing"
)

func TestShow(t *testing.T) {
	s := shopOf(t)
	for _, fam := range []string{"external_gear_pump", "vane_pump"} {
		for seed := range uint64(4) {
			c, _ := hidden.Draw(s, fam, "own", seed)
			p, _ := s.Best(c)
			st, _ := s.State(c)
			fmt.Println(c.Causes, c.True.Symptoms)
			for _, x := range p.Steps {
				fmt.Println("   ", x.Looks[0].Code, len(x.Looks), x.Told, x.Minutes, x.Lead.Code, x.P)
			}
			for _, f := range st.Findings {
				if f.Strength > 0.5 {
					fmt.Print(" ", f.Code, "[", st.Sources[f.Code], "]")
				}
			}
			fmt.Println()
		}
	}
}

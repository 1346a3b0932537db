package metrology_test

import (
	"fmt"

	"corvek/core/metrology"
)

// A reading is in or out only where its uncertainty lets that be said: 20.003 mm against 20.000 mm
// at most, read to ±0.005 mm, is neither.
func ExampleJudge() {
	limit := metrology.AtMost(20.000e-3)
	for _, mm := range []float64{19.990, 20.003, 20.010} {
		fmt.Println(mm, metrology.Judge(mm/1000, limit, 0.005e-3, true).Verdict)
	}
	// Output:
	// 19.99 in
	// 20.003 undecided
	// 20.01 out
}

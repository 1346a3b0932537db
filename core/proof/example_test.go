package proof_test

import (
	"fmt"

	"corvek/core/metrology"
	"corvek/core/proof"
)

// A test is in only where all of its steps are: one that is out makes it out, and one that cannot be
// told leaves it open.
func ExampleSum() {
	fmt.Println(proof.Sum([]metrology.Verdict{metrology.In, metrology.In}))
	fmt.Println(proof.Sum([]metrology.Verdict{metrology.In, metrology.Undecided}))
	fmt.Println(proof.Sum([]metrology.Verdict{metrology.Undecided, metrology.Out}))
	// Output:
	// in
	// undecided
	// out
}

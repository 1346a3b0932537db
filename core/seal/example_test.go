package seal_test

import (
	"fmt"

	"corvek/core/seal"
)

// Nitrile bears mineral oil, and ethylene-propylene does not.
func ExampleBears() {
	for _, rubber := range []string{"NBR", "EPDM"} {
		verdict, _, _, ok := seal.Bears(rubber, "mineral oil")
		fmt.Println(rubber, verdict, ok)
	}
	// Output:
	// NBR suitable true
	// EPDM unsuitable true
}

// A cure date is a quarter or a day; shelf life runs from the end of it.
func ExampleParseCure() {
	end, err := seal.ParseCure("2029-Q2")
	fmt.Println(end.Format("2006-01-02"), err)
	// Output: 2029-06-30 <nil>
}

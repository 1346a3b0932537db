package bearing_test

import (
	"fmt"

	"corvek/core/bearing"
)

// Round a shaft of 20 mm lie 28 needles of 2.5 mm: π / asin(d / (s + d)) is 28.2.
func ExampleNeedleComplement() {
	most, gap := bearing.NeedleComplement(0.020, 0.0025)
	fmt.Println(most, gap < 0.0025)
	// Output: 28 true
}

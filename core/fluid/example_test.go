package fluid_test

import (
	"fmt"

	"corvek/core/fluid"
)

// An oil of 46 cSt at 40 °C and 6.8 cSt at 100 °C, on Walther's line.
func ExampleVI() {
	vi, ok := fluid.VI(46, 6.8)
	fmt.Printf("%.0f %v\n", vi, ok)
	// Output: 102 true
}

// Particle counts become codes of ISO 4406: more than 1300 and up to 2500 in a millilitre is 18.
func ExampleCode() {
	fmt.Println(fluid.Code(1300), fluid.Code(1301), fluid.Code(2500))
	// Output: 17 18 18
}

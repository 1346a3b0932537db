package spring_test

import (
	"fmt"

	"corvek/core/spring"
)

// A relief spring of 18 N/mm, 45 mm long and held at 40 mm, pushes with 90 N; on a seat of 6 mm the
// valve opens at 31.8 bar.
func ExampleForce() {
	force := spring.Force(18e3, 0.045, 0.040)
	fmt.Printf("%.0f N, %.1f bar\n", force, spring.Cracking(force, 0.006)/1e5)
	// Output: 90 N, 31.8 bar
}

package friction_test

import (
	"fmt"

	"corvek/core/friction"
)

// A brake of eight faces, 120 by 80 mm, pressed with 5 kN at a coefficient of 0.1.
func ExampleTorque() {
	mean := friction.MeanRadius(0.060, 0.040)
	fmt.Printf("%.2f mm, %.0f N·m\n", mean*1000, friction.Torque(8, 0.1, 5000, mean))
	// Output: 50.67 mm, 203 N·m
}

package fastener_test

import (
	"fmt"

	"corvek/core/fastener"
)

// T = K · d · F: an M10 bolt, oiled (K 0.15), to a preload of 30 kN.
func ExampleTorque() {
	fmt.Printf("%.0f N·m\n", fastener.Torque(0.15, 0.010, 30e3))
	fmt.Printf("%.0f N\n", fastener.Preload(0.15, 0.010, 45))
	// Output:
	// 45 N·m
	// 30000 N
}

// A circle of bolts is tightened crosswise.
func ExampleCrosswise() {
	fmt.Println(fastener.Crosswise(4))
	// Output: [1 3 2 4]
}

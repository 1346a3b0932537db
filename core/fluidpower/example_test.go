package fluidpower_test

import (
	"fmt"

	"corvek/core/fluidpower"
)

// A pump of 32 cc/rev at 1450 rev/min delivers 46.4 L/min in theory.
func ExampleTheoreticalFlow() {
	fmt.Printf("%.1f L/min\n", fluidpower.TheoreticalFlow(32e-6, 1450)*60000)
	// Output: 46.4 L/min
}

// A motor of 32 cc/rev across 175 bar turns with 89 N·m in theory: Δp · V / 2π.
func ExampleTheoreticalTorque() {
	fmt.Printf("%.0f N·m\n", fluidpower.TheoreticalTorque(175e5, 32e-6))
	// Output: 89 N·m
}

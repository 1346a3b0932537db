package leakage_test

import (
	"fmt"

	"corvek/core/leakage"
)

// Q = w · h³ · Δp / (12 · µ · l): a gap 20 mm wide, 0.05 mm high, 10 mm long, at 100 bar and 40 mPa·s.
// Twice the height lets through eight times as much.
func ExamplePlane() {
	q := leakage.Plane(0.020, 50e-6, 0.010, 100e5, 0.040)
	fmt.Printf("%.3f L/min, %.0f times\n", q*60000, leakage.Plane(0.020, 100e-6, 0.010, 100e5, 0.040)/q)
	// Output: 0.313 L/min, 8 times
}

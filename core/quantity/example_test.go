package quantity_test

import (
	"fmt"

	"corvek/core/quantity"
)

// What was typed stays as it was; the figure is worked out beside it.
func ExampleParse() {
	q, err := quantity.Parse("7 thou", quantity.Length)
	fmt.Println(q, err)
	fmt.Printf("%.4f mm\n", q.SI*1000)
	_, err = quantity.Parse("7 bar", quantity.Length)
	fmt.Println(err)
	// Output:
	// 7 thou <nil>
	// 0.1778 mm
	// "bar" is a pressure; a length is wanted here, in mm, in, thou, µm, cm, m
}

// The shop's measures say in which unit a figure is shown.
func ExampleShow() {
	const bar = 1e5
	fmt.Println(quantity.Show(175*bar, quantity.Pressure, quantity.Metric))
	fmt.Println(quantity.Show(175*bar, quantity.Pressure, quantity.Inch))
	// Output:
	// 175.0 bar
	// 2538 psi
}

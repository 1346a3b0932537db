package wording_test

import (
	"fmt"

	"corvek/core/unit"
	"corvek/core/wording"
)

// Codes are called as the trade calls them.
func ExampleChoice() {
	fmt.Println(wording.Choice(unit.ScopeUnit, "rotation", "right"))
	fmt.Println(wording.Choice(unit.ScopeStep, "turn", "uniform_drag"))
	// Output:
	// clockwise
	// uniform drag
}

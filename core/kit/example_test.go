package kit_test

import (
	"fmt"

	"corvek/core/kit"
)

// A supplier's list is pasted as it comes: number, piece and how many, by tabs or semicolons.
func ExampleReadList() {
	lines, err := kit.ReadList("RX-11; Ring 24.2 x 3; 2\nRX-12; Lip seal; 1")
	for _, l := range lines {
		fmt.Println(l.Code, l.Name, l.Count)
	}
	fmt.Println(err)
	// Output:
	// RX-11 Ring 24.2 x 3 2
	// RX-12 Lip seal 1
	// <nil>
}

package field_test

import (
	"fmt"

	"corvek/core/field"
)

// A fault says where it is and, in words, what is accepted.
func ExampleErrorf() {
	err := field.Errorf("u1/speed", "%q is a pressure; a rotation is wanted here", "bar")
	fmt.Println(err)
	fmt.Println(err.Field)
	// Output:
	// u1/speed: "bar" is a pressure; a rotation is wanted here
	// u1/speed
}

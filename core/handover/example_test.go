package handover_test

import (
	"fmt"

	"corvek/core/handover"
)

// What is asked back has a usual day, and nothing else is asked back.
func ExampleUsualDays() {
	days, ok := handover.UsualDays("refit")
	fmt.Println(days, ok)
	_, ok = handover.UsualDays("weather")
	fmt.Println(ok)
	// Output:
	// 14 true
	// false
}

package wording

import "fmt"

// Counted writes a number with the word for one or for several.
func Counted(n int, one, several string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, several)
}

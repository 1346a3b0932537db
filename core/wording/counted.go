package wording

import "fmt"

// Counted writes a number with the word for one or for several.
func Counted(n int, one, several string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, several)
}

// OrNothing is a value as it stands in a sentence, where it may be empty.
func OrNothing(text string) string {
	if text == "" {
		return "nothing"
	}
	return text
}

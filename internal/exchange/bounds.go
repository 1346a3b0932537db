package exchange

import "fmt"

// Limits of what is read, so that a hostile file cannot fill the memory.
const (
	MaxDocument   = 32 << 20
	MaxAttachment = 20 << 20
	maxFiles      = 500
	maxPictures   = 128 << 20 // bytes of all pictures of a job
	maxValues     = 200_000   // of a document: a job of 5,000 readings has some 60,000
	maxDepth      = 40
)

// bounded counts the values of a document before any of them is made: an empty
// object of three characters takes a hundred times as much when it is read.
func bounded(text []byte) error {
	values, depth, quoted := 0, 0, false
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case quoted && c == '\\':
			i++
		case c == '"':
			quoted = !quoted
		case quoted:
		case c == '{' || c == '[':
			depth++
			values++
		case c == '}' || c == ']':
			depth--
		case c == ',':
			values++
		}
		if values > maxValues {
			return fmt.Errorf("the document holds more than %d values", maxValues)
		}
		if depth > maxDepth {
			return fmt.Errorf("the document is nested more than %d deep", maxDepth)
		}
	}
	return nil
}

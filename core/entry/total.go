package entry

import (
	"regexp"
	"strconv"
	"strings"
)

// counts is a count as the hand says it of several places: 4 × 6 of four pockets, 3 + 3 + 2 piston by piston.
var counts = regexp.MustCompile(`^\s*\d{1,5}(\s*[x×*]\s*\d{1,5})?(\s*\+\s*\d{1,5}(\s*[x×*]\s*\d{1,5})?){0,40}\s*$`)

// total works out such a count; what is none stays as it was typed.
func total(text string) string {
	if !counts.MatchString(text) || !strings.ContainsAny(text, "x×*+") {
		return text
	}
	sum := 0
	for _, term := range strings.Split(text, "+") {
		product := 1
		for _, factor := range strings.FieldsFunc(term, func(r rune) bool { return strings.ContainsRune("x×* ", r) }) {
			n, err := strconv.Atoi(factor)
			if err != nil {
				return text
			}
			product *= n
		}
		if sum += product; sum > mostWhole {
			return text
		}
	}
	return strconv.Itoa(sum)
}

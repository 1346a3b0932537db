package fluid

import (
	"fmt"
	"strconv"
	"strings"
)

// Cleanliness is how clean an oil is by ISO 4406: the codes of the particles of at least 4, 6 and 14 µm
// in a millilitre. A code of an older count without the smallest has less than none there.
type Cleanliness [3]int

// notCounted stands for a size that was not counted.
const notCounted = -1

// ParseCleanliness reads a cleanliness as people write it: 18/16/13, or 16/13 and -/16/13 where the
// smallest were not counted. Each code is from 0 to 28, and no larger one follows a smaller.
func ParseCleanliness(text string) (c Cleanliness, ok bool) {
	parts := strings.Split(strings.TrimPrefix(strings.ToUpper(strings.TrimSpace(text)), "ISO "), "/")
	if len(parts) == 2 {
		parts = append([]string{"-"}, parts...)
	}
	if len(parts) != 3 {
		return c, false
	}
	for i, part := range parts {
		part = strings.TrimSpace(part)
		if i == 0 && (part == "-" || part == "*") {
			c[0] = notCounted
			continue
		}
		n, err := strconv.Atoi(part)
		if err != nil || n < 0 || n > MostCode || i > 0 && c[i-1] != notCounted && n > c[i-1] {
			return Cleanliness{}, false
		}
		c[i] = n
	}
	return c, true
}

// Within reports that an oil is as clean as another, in every size that both counted.
func (c Cleanliness) Within(most Cleanliness) bool {
	for i := range c {
		if c[i] != notCounted && most[i] != notCounted && c[i] > most[i] {
			return false
		}
	}
	return true
}

// String writes it as ISO 4406 does.
func (c Cleanliness) String() string {
	if c[0] == notCounted {
		return fmt.Sprintf("-/%d/%d", c[1], c[2])
	}
	return fmt.Sprintf("%d/%d/%d", c[0], c[1], c[2])
}

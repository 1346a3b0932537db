package fastener

import (
	"fmt"
	"strings"
)

// pipeThreads are the parallel pipe threads of ISO 228-1: size in inches, diameter over the crests in mm, threads per
// inch.
var pipeThreads = []struct {
	size     string
	diameter float64
	tpi      float64
}{
	{"1/16", 7.723, 28}, {"1/8", 9.728, 28}, {"1/4", 13.157, 19}, {"3/8", 16.662, 19}, {"1/2", 20.955, 14},
	{"5/8", 22.911, 14}, {"3/4", 26.441, 14}, {"7/8", 30.201, 14}, {"1", 33.249, 11}, {"1-1/8", 37.897, 11},
	{"1-1/4", 41.910, 11}, {"1-1/2", 47.803, 11}, {"1-3/4", 53.746, 11}, {"2", 59.614, 11},
}

// cutPipe tells a pipe thread by its letter in front or behind: G 1/2, G1/2 A, 1/2 BSP, 1/2 BSPP.
func cutPipe(text string) (size string, pipe bool) {
	for _, end := range []string{"BSPP", "BSP"} {
		if before, is := strings.CutSuffix(text, end); is {
			return plainSize(before), true
		}
	}
	if after, is := strings.CutPrefix(text, "G"); is {
		after = strings.TrimSpace(after)
		for _, fit := range []string{"A", "B"} { // classes of the outside thread
			after = strings.TrimSuffix(after, fit)
		}
		return plainSize(after), true
	}
	return "", false
}

func plainSize(text string) string {
	text = strings.TrimSpace(strings.NewReplacer(`"`, "", "IN", "").Replace(text))
	return strings.Join(strings.Fields(text), "-")
}

func parsePipe(typed, size string) (Thread, error) {
	for _, t := range pipeThreads {
		if t.size == size {
			return Thread{
				Name:     "G " + size,
				Diameter: t.diameter * 1e-3,
				Pitch:    inch / t.tpi,
				Inch:     true,
				Pipe:     true,
			}, nil
		}
	}
	return Thread{}, fmt.Errorf("%q is no pipe thread in the table; G 1/16 to G 2, like G 1/2 or G 1-1/4", typed)
}

// NoTable is why no torque of a thread is worked out by size and class.
func (t Thread) NoTable() string {
	return t.Name + " is a pipe thread: its torque is the maker's, or spanner and angle; " +
		"no table by size and class tells it"
}

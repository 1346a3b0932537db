package fluid_test

import (
	"testing"

	"corvek/core/fluid"

	"github.com/stretchr/testify/assert"
)

func TestParseCleanliness(t *testing.T) {
	for text, says := range map[string]string{
		"18/16/13": "18/16/13", " ISO 18 / 16 / 13 ": "18/16/13", "16/13": "-/16/13", "-/16/13": "-/16/13",
		"*/16/13": "-/16/13", "0/0/0": "0/0/0", "28/28/28": "28/28/28",
		"": "", "18": "", "18/16/13/9": "", "13/16/18": "", "18/16/17": "",
		"29/16/13": "", "x/16/13": "", "18/-/13": "",
		"-1/16/13": "",
	} {
		c, ok := fluid.ParseCleanliness(text)
		assert.Equal(t, says != "", ok, text)
		if ok {
			assert.Equal(t, says, c.String(), text)
		}
	}
}

// An oil is within a limit where no size that both counted has more.
func TestWithin(t *testing.T) {
	for _, c := range []struct {
		oil, most string
		within    bool
	}{
		{"18/16/13", "18/16/13", true}, {"17/15/12", "18/16/13", true}, {"19/16/13", "18/16/13", false},
		{"18/16/14", "18/16/13", false}, {"16/13", "18/16/13", true}, {"17/13", "18/16/13", false},
		{"22/16/13", "-/16/13", true},
	} {
		oil, _ := fluid.ParseCleanliness(c.oil)
		most, _ := fluid.ParseCleanliness(c.most)
		assert.Equal(t, c.within, oil.Within(most), "%s of %s", c.oil, c.most)
	}
}

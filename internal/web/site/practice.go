package site

import (
	"fmt"
	"math"

	"github.com/labstack/echo/v5"
)

// Practice is what stands on each page of a unit of practice.
type Practice struct {
	Minutes float64 // that the looks at it took
	Named   bool    // he said what is wrong, and is told what it was
	Tag     string
}

// Spent is how long that took, in words.
func (p *Practice) Spent() string {
	minutes := int(math.Round(p.Minutes))
	if minutes < 60 {
		return fmt.Sprintf("%d min", minutes)
	}
	return fmt.Sprintf("%d h %d min", minutes/60, minutes%60)
}

const practiceKey = "practice"

// SetPractice says what stands on the page that a request is answered with.
func SetPractice(c *echo.Context, p *Practice) { c.Set(practiceKey, p) }

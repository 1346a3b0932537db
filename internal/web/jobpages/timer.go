package jobpages

import (
	"fmt"
	"time"
)

// timerWords is a timer as it is read.
func timerWords(until *time.Time, now time.Time) string {
	if until == nil || until.IsZero() {
		return ""
	}
	left := until.Sub(now)
	switch {
	case left <= 0:
		return "ready since " + until.Format("Mon 15:04")
	case left < time.Hour:
		return fmt.Sprintf("ready in %d min", int(left.Minutes())+1)
	case left < 24*time.Hour:
		return fmt.Sprintf("ready in %d h %02d min", int(left.Hours()), int(left.Minutes())%60)
	}
	return "ready " + until.Format("Mon 2 Jan 15:04")
}

package handover

import "slices"

// What is asked back after a hand-over, in the order it is offered.
const (
	AskFirstHours = "first_hours"
	AskFirstDay   = "first_day"
	AskLevel      = "level"
	AskComplaint  = "complaint"
	AskRefit      = "refit"
	AskCause      = "cause" // whether what lies outside the unit was cured
	AskSump       = "sump"  // whether the other sump gained again
)

// Asks are all of them.
var Asks = []string{AskFirstHours, AskFirstDay, AskLevel, AskComplaint, AskRefit, AskCause, AskSump}

// usualDays is after how many days each is asked where no day is given.
var usualDays = map[string]int{AskFirstHours: 1, AskFirstDay: 2, AskLevel: 2, AskComplaint: 3, AskRefit: 14,
	AskCause: 1, AskSump: 2}

// UsualDays is after how many days something is asked back where nobody gave a day; ok is
// false for what is never asked.
func UsualDays(ask string) (days int, ok bool) {
	days, ok = usualDays[ask]
	return days, ok
}

// Results are the answers that can come back.
var Results = []string{"good", "came_again", "other_fault", "not_refitted"}

// Answers reports that a result is one of them.
func Answers(result string) bool { return slices.Contains(Results, result) }

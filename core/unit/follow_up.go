package unit

import "time"

// FollowUp is something that is asked back after a hand-over, and what came of it.
type FollowUp struct {
	Number     int // from 1 within the job
	Unit       int
	Kind       string // one of core/handover
	DueOn      Date
	AskedBy    string
	Result     string // "" while no answer came
	Note       string // in his words
	AnsweredBy string
	AnsweredAt time.Time
}

// Answered reports that an answer came.
func (f *FollowUp) Answered() bool { return f.Result != "" }

// Acts of the record about what is asked back; with what it is behind.
const (
	ActAskedBack = "asked back: "
	ActCameBack  = "came back: "
)

// MostFollowUps of a job are kept.
const MostFollowUps = 100

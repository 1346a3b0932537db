package unit

import "time"

// FollowUp is something that is asked back after a hand-over, and what came of it.
type FollowUp struct {
	OfJob `json:"-"`

	Number     int       `json:"number,omitempty" gorm:"primaryKey"` // from 1 within the job
	Unit       int       `json:"unit,omitempty"`
	Kind       string    `json:"kind,omitempty"` // one of core/handover
	DueOn      Date      `json:"due_on,omitempty" gorm:"serializer:day"`
	AskedBy    string    `json:"asked_by,omitempty"`
	Result     string    `json:"result,omitempty"` // "" while no answer came
	Note       string    `json:"note,omitempty"`   // in his words
	AnsweredBy string    `json:"answered_by,omitempty"`
	AnsweredAt time.Time `json:"answered_at,omitzero" gorm:"serializer:moment"`
}

// Answered reports that an answer came.
func (f *FollowUp) Answered() bool { return f.Result != "" }

// MostFollowUps of a job are kept.
const MostFollowUps = 100

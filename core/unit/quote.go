package unit

import "corvek/core/quantity"

// Quote is the offer to the customer and what he said to it.
type Quote struct {
	// "" while none was given
	GivenOn Date `json:"given_on,omitempty" gorm:"column:quoted_on;serializer:day"`
	// One of the Answer constants, "" while he has not said
	Answer string `json:"answer,omitempty"`
	// Who said it
	Person     string `json:"person,omitempty" gorm:"column:answer_by"`
	AnsweredOn Date   `json:"answered_on,omitempty" gorm:"column:answer_on;serializer:day"`
	Note       string `json:"note,omitempty" gorm:"column:answer_note"`
	// The sum of the offer that he took, as it stood then
	Agreed quantity.Quantity `json:"agreed,omitzero" gorm:"column:agreed_sum;serializer:number"`
}

// What a customer can answer.
const (
	AnswerRebuild  = "rebuild"
	AnswerOverhaul = "overhaul"
	AnswerReplace  = "replace"
	AnswerReturn   = "return" // as it is, nothing is done
)

// Answers are what a customer can answer, in the order of the offers.
var Answers = []string{AnswerRebuild, AnswerOverhaul, AnswerReplace, AnswerReturn}

// Open reports that an offer was given and not answered.
func (q Quote) Open() bool { return q.GivenOn != "" && q.Answer == "" }

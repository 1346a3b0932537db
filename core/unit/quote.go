package unit

// Quote is the offer to the customer and what he said to it.
type Quote struct {
	GivenOn    Date   `json:"given_on,omitempty"` // "" while none was given
	Answer     string `json:"answer,omitempty"`   // one of the Answer constants, "" while he has not said
	Person     string `json:"person,omitempty"`   // who said it
	AnsweredOn Date   `json:"answered_on,omitempty"`
	Note       string `json:"note,omitempty"`
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

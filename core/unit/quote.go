package unit

// Quote is the offer to the customer and what he said to it.
type Quote struct {
	GivenOn    Date   // "" while none was given
	Answer     string // one of the Answer constants, "" while he has not said
	Person     string // who said it
	AnsweredOn Date
	Note       string
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

package practicepages

import (
	"fmt"
	"html/template"
	"math/rand/v2"
	"net/http"
	"slices"
	"strconv"

	"corvek/core/practice"
	"corvek/core/quantity"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// question is something that is asked for practice, with how its answers are judged.
type question struct {
	Code             string
	Title, What, URL string
	Others           []Link // beside it
	Drawing          template.HTML
	Wide             bool // its lines are fine: it can be looked at closer
	Says             []string
	Asks             []practice.Ask
	Aloud            []string // what the eye sees, in words, where that was asked for
	Helps            bool     // it can be said in words
	Inch             bool
	Seed             uint64

	judge func(answers []string) ([]practice.Verdict, error)
}

// QuestionPage is a question, with what is said of an answer.
type QuestionPage struct {
	site.Reader
	*question
	Form []AnswerField
	Said []SaidRow // of an answer; nil before
	In   string    // yes for inch
	Help string    // its address in words
}

// AnswerField is a figure to be typed, or answers to choose from.
type AnswerField struct {
	site.Plain
	Unit    string
	Options []practice.Option
}

// SaidRow is what is said of one answer.
type SaidRow struct {
	practice.Verdict
	Name string
}

// asked is the seed of the address, one by chance where it names none, and whether lengths and so on are in inch: as
// it says, or as the reader has them; other are units that count as inch here.
func (s *Pages) asked(c *echo.Context, other quantity.System) (seed uint64, inch bool) {
	seed, err := strconv.ParseUint(c.FormValue("seed"), 10, 64)
	if err != nil {
		units := s.Reader(c).Units
		return rand.Uint64() >> 32, units == quantity.Inch || units == other
	}
	return seed, c.FormValue("inch") == "yes"
}

// shows answers a request for a question.
func (s *Pages) shows(find func(*echo.Context) (*question, error)) echo.HandlerFunc {
	return func(c *echo.Context) error {
		q, err := find(c)
		if err != nil {
			return err
		}
		return s.show(c, http.StatusOK, q, nil, nil)
	}
}

// judges answers a request with answers to one.
func (s *Pages) judges(find func(*echo.Context) (*question, error)) echo.HandlerFunc {
	return func(c *echo.Context) error {
		q, err := find(c)
		if err != nil {
			return err
		}
		typed := make([]string, len(q.Asks))
		for i := range typed {
			typed[i] = c.FormValue("answer" + strconv.Itoa(i))
		}
		said, err := q.judge(typed)
		if site.IsField(err) {
			return s.show(c, http.StatusUnprocessableEntity, q, nil, err)
		}
		if err != nil {
			return err
		}
		right := !slices.ContainsFunc(said, func(v practice.Verdict) bool { return !v.Right })
		if err := s.Store.AddPracticeAnswer(c.Request().Context(), &store.PracticeAnswer{PersonID: site.Who(c).ID,
			Code: q.Code, WasRight: right, At: s.Jobs.Now()}); err != nil {
			return err
		}
		return s.show(c, http.StatusOK, q, said, nil)
	}
}

func (s *Pages) show(c *echo.Context, status int, q *question, said []practice.Verdict, fault error) error {
	v := QuestionPage{Reader: s.Reader(c), question: q}
	if q.Inch {
		v.In = "yes"
	}
	v.Help = fmt.Sprintf("%s?seed=%d&inch=%s&help=1", q.URL, q.Seed, v.In)
	for i := range q.Asks {
		ask := &q.Asks[i]
		name := "answer" + strconv.Itoa(i)
		plain := site.Plain{Name: name, Label: ask.Name, Value: c.FormValue(name), Focus: i == 0 && fault == nil}
		if ask.Unit != "" {
			plain.Label += " (" + ask.Unit + ")"
		}
		v.Form = append(v.Form, AnswerField{site.PlainForm(fault, plain)[0], ask.Unit, ask.Options})
		if said != nil {
			v.Said = append(v.Said, SaidRow{said[i], ask.Name})
		}
	}
	return s.Render(c, status, "practice_question", q.Title, v)
}

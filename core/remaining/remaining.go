// Package remaining tells what a unit still needs before it goes out: pieces of work with hours, and waits. It is
// worked out from what is on record, so that a count, a decision or a test that failed changes it at once.
package remaining

import (
	"fmt"
	"time"

	"corvek/core/unit"
)

// Unit is what is on record, as far as work follows from it.
type Unit struct {
	Owes    func(station string) bool // what its ending asks for
	Receive int                       // things that stand open at Receive

	On        int // parts that are still to come off
	Off       int // parts that are off, and were looked at by nobody
	Unread    int // features of what is off that were not measured
	Concluded bool
	Undecided int // parts that somebody has to decide on

	Quote Quote
	New   []Piece // new pieces that are not in the kit
	Ways  []Way   // ways of rework that are gone and not done

	Unbuilt   int // parts that are to go in
	Tight     int // of them, those that are tightened to a figure
	Fill      bool
	Steps     []Step // of the test, that are not shown
	LeadSigns bool
	SignedOff func() bool // asked where nothing else is left; nil for not
	Gone      bool        // handed over
}

// Quote is how far the offer is.
type Quote struct {
	Wanted, Answered bool
	Given            unit.Date // "" while it was not
}

// Piece is a new piece that is waited for.
type Piece struct {
	Part, Name string
	Ordered    bool
	Due        unit.Date // as its supplier says, "" where nobody does
	Days       float64   // lead time, 0 where it is not known
	Sigma      float64   // of the logarithm of them, 0 where nobody said
	From       string    // who supplies it, where the days are his
	By         string    // who supplies it, where the shop knows him
	Placed     unit.Date // the day it was ordered, "" where nobody noted it
}

// Way is a way of rework.
type Way struct {
	Part, Route, Name string
	Hours, Days       float64
	Sigma             float64   // of the logarithm of the days, 0 where nobody said
	Work              string    // the way, as it is called
	By                string    // who does it, where the days are his
	Sent              unit.Date // "" while it is here
}

// Need is what a unit asks of a stand, in base units, 0 where it is not known.
type Need struct{ Pressure, Flow, Torque float64 }

// Step is a step of the test.
type Step struct {
	Code, Name string
	Hold       time.Duration
}

// Kind is a kind of work, by which it is known who can do it and how far it is off as a rule.
type Kind string

// The kinds of work.
const (
	Receive  Kind = "receive"
	Strip    Kind = "strip"
	Wash     Kind = "wash"
	Soak     Kind = "soak" // runs by itself
	Measure  Kind = "measure"
	Explain  Kind = "explain"
	Decide   Kind = "decide"
	Offer    Kind = "offer"
	Word     Kind = "word"  // the customer's: a wait
	Order    Kind = "order" // what is missing is ordered
	Parts    Kind = "parts" // a wait
	Rework   Kind = "rework"
	Outside  Kind = "outside" // a wait
	Build    Kind = "build"
	Fill     Kind = "fill"
	SetUp    Kind = "set_up" // on the stand
	Prove    Kind = "prove"
	Hold     Kind = "hold" // on the stand, and long enough to leave it alone
	Sign     Kind = "sign"
	HandOver Kind = "hand_over"
)

// Kinds are they, in the order of the work.
var Kinds = []Kind{
	Receive,
	Strip,
	Wash,
	Soak,
	Measure,
	Explain,
	Decide,
	Offer,
	Word,
	Order,
	Parts,
	Rework,
	Outside,
	Build,
	Fill,
	SetUp,
	Prove,
	Hold,
	Sign,
	HandOver,
}

// Task is a piece of work, or a wait.
type Task struct {
	Code  string // the kind, and what it is about: it stays the same while the work does
	Kind  Kind
	Name  string
	Time  time.Duration // of hands, or of what runs by itself
	Days  float64       // of a wait for others
	Sigma float64       // of the logarithm of the days as those say who are waited for, 0 where they did not
	Until unit.Date     // of a wait: the day that somebody said, "" for none
	By    string        // who is waited for, as the shop knows him; "" for anybody
	Since unit.Date     // of a wait: the day it began, "" where it did not yet or nobody noted it
	After []string      // codes of what must be done before
}

// Waits reports that the task needs nobody of the shop.
func (t *Task) Waits() bool { return t.Kind == Word || t.Kind == Parts || t.Kind == Outside }

// Alone reports that the task runs without hands, in a place of the shop.
func (t *Task) Alone() bool { return t.Kind == Soak || t.Kind == Hold }

// list is what is gathered, each after what came before it.
type list struct {
	g     *Guidance
	tasks []Task
	last  []string // what the next task comes after
}

func (l *list) add(kind Kind, about, name string, took time.Duration) *Task {
	code := string(kind)
	if about != "" {
		code += ":" + about
	}
	l.tasks = append(l.tasks, Task{Code: code, Kind: kind, Name: name, Time: took, After: l.last})
	return &l.tasks[len(l.tasks)-1]
}

// then adds what is done next: what follows comes after it.
func (l *list) then(kind Kind, name string, took time.Duration) *Task {
	t := l.add(kind, "", name, took)
	l.last = []string{t.Code}
	return t
}

// Of tells what a unit still needs, in an order in which each task comes after what it waits for.
func Of(u *Unit, g *Guidance) []Task {
	l := &list{g: g}
	if u.Gone {
		return nil
	}
	l.takeIn(u)
	l.find(u)
	l.ask(u)
	l.bring(u)
	l.putTogether(u)
	l.prove(u)
	if u.Owes("handover") {
		signed := len(l.tasks) == 0 && u.SignedOff != nil && u.SignedOff()
		if u.LeadSigns && !signed {
			l.then(Sign, "A lead reads and signs", g.Sign)
		}
		l.then(HandOver, "Papers, painted, handed over", g.HandOver)
	}
	return l.tasks
}

func (l *list) takeIn(u *Unit) {
	if u.Owes("receive") && u.Receive > 0 {
		l.then(Receive, counted(u.Receive, "open thing", "open things")+" at Receive", l.g.Receive)
	}
}

// find is what must be done until it is known what is wrong.
func (l *list) find(u *Unit) {
	if u.Owes("strip") && u.On > 0 {
		l.then(Strip, counted(u.On, "part", "parts")+" off", l.g.StripStart+times(l.g.Strip, u.On))
	}
	if n := u.On + u.Off; u.Owes("measure") && n > 0 {
		l.then(Wash, counted(n, "part", "parts")+" washed", l.g.WashStart+times(l.g.Wash, n))
		l.then(Soak, "Soaks and dries", l.g.Soak)
	}
	if n := u.Unread; u.Owes("measure") && n > 0 {
		l.then(Measure, counted(n, "place", "places")+" measured", times(l.g.Measure, n))
	}
	if u.Owes("explain") && !u.Concluded {
		l.then(Explain, "The cause found", l.g.Explain)
	}
	if u.Owes("decide") && u.Undecided > 0 {
		l.then(Decide, counted(u.Undecided, "part", "parts")+" decided on", times(l.g.Decide, u.Undecided))
	}
}

// ask is what the customer is asked.
func (l *list) ask(u *Unit) {
	if !u.Quote.Wanted || u.Quote.Answered || !u.Owes("decide") {
		return
	}
	if u.Quote.Given == "" {
		l.then(Offer, "The offer made", l.g.Offer)
	}
	t := l.then(Word, "The customer's word", 0)
	t.Days, t.Since = l.g.Word, u.Quote.Given
}

// bring is what is brought, made and saved before it goes together, beside each other.
func (l *list) bring(u *Unit) {
	if !u.Owes("build") {
		return
	}
	from := l.last
	all := l.pieces(u)
	l.last = from
	for _, w := range u.Ways {
		if w.Days > 0 {
			t := l.add(Outside, w.Part+"."+w.Route, w.Name+", away"+with(" at ", w.By), 0)
			t.Days, t.Sigma, t.Since, t.By = w.Days, w.Sigma, w.Sent, w.By
			all = append(all, t.Code)
			continue
		}
		t := l.add(Rework, w.Part+"."+w.Route, w.Name, time.Duration(w.Hours*float64(time.Hour)))
		all = append(all, t.Code)
	}
	if len(all) > 0 {
		l.last = all
	}
}

// pieces are the waits for new pieces: each whose day somebody named by itself, the others together.
func (l *list) pieces(u *Unit) (all []string) {
	l.order(u)
	unnamed := 0
	for _, n := range u.New {
		if n.Due == "" && n.Days == 0 {
			unnamed++
			continue
		}
		t := l.add(Parts, n.Part, n.Name+" comes"+with(" from ", n.From), 0)
		t.Days, t.Sigma, t.Until, t.By = n.Days, n.Sigma, n.Due, n.By
		if n.Ordered {
			t.Since = n.Placed
		}
		all = append(all, t.Code)
	}
	if unnamed > 0 {
		t := l.add(Parts, "", counted(unnamed, "piece comes", "pieces come"), 0)
		t.Days = l.g.Parts
		all = append(all, t.Code)
	}
	return all
}

func (l *list) order(u *Unit) {
	n := 0
	for _, p := range u.New {
		if !p.Ordered {
			n++
		}
	}
	if n > 0 {
		l.then(Order, counted(n, "piece", "pieces")+" ordered", l.g.Order)
	}
}

func (l *list) putTogether(u *Unit) {
	if !u.Owes("build") {
		return
	}
	if u.Unbuilt > 0 {
		l.then(Build, counted(u.Unbuilt, "part", "parts")+" in",
			l.g.BuildStart+times(l.g.Build, u.Unbuilt)+times(l.g.Tighten, u.Tight))
	}
	if u.Fill {
		l.then(Fill, "Filled and bled", l.g.Fill)
	}
}

// prove is what the stand is needed for. A hold long enough to leave it alone is a task of its own.
func (l *list) prove(u *Unit) {
	if !u.Owes("prove") || len(u.Steps) == 0 {
		return
	}
	l.then(SetUp, "On the stand", l.g.SetUp)
	took, n := time.Duration(0), 0
	for _, s := range u.Steps {
		n++
		took += l.g.Step
		if s.Hold <= l.g.Stays {
			took += s.Hold
		}
	}
	l.then(Prove, counted(n, "step", "steps")+" shown", took)
	for _, s := range u.Steps {
		if s.Hold > l.g.Stays {
			t := l.add(Hold, s.Code, s.Name+" holds", s.Hold)
			l.last = []string{t.Code}
		}
	}
}

// with is a word with a name behind it, nothing where there is none.
func with(word, name string) string {
	if name == "" {
		return ""
	}
	return word + name
}

func times(d time.Duration, n int) time.Duration { return d * time.Duration(n) }

func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

package bench

import (
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/search"
)

// Left is what may still be wrong at steps that are out, and what to change next.
type Left struct {
	Step    string // in words
	Parts   []LeftPart
	Others  int     // parts that are not listed,
	Share   float64 // and what they come to together
	Unknown float64 // something that nobody thought of
	Next    *Advised
}

// LeftPart is a part with how likely it bears what a step shows.
type LeftPart struct {
	Name  string
	Share float64
}

// Advised is a change that is worth making next.
type Advised struct {
	Change
	Does    string // what to do, in words
	Minutes float64
	If      []IfSo
}

// IfSo is where an outcome would point.
type IfSo struct {
	Outcome search.Outcome
	Part    string // "" is something that nobody thought of
	Share   float64
}

// What is shown of what is left: from which share on, and how many.
const (
	leastShare  = 0.03
	mostLeft    = 6
	leastChance = 0.1 // of an outcome that is told
)

// Left is what is left of each step that is out as the unit is; steps that say the same are told together.
func (st *Inferred) Left() []Left { return st.left() }

func (st *Inferred) workLeft() (out []Left) {
	s := st.Search()
	for _, step := range s.StillOut() {
		l := Left{Step: st.stepName(step)}
		for _, p := range s.Parts(step) {
			x := st.ByCode[p.Part]
			switch {
			case x == nil:
				l.Unknown = p.P
			case p.P < leastShare || len(l.Parts) == mostLeft:
				l.Others, l.Share = l.Others+1, min(1, l.Share+p.P)
			default:
				l.Parts = append(l.Parts, LeftPart{x.Name, p.P})
			}
		}
		if a, ok := s.Advise(step, st.candidates(step)); ok {
			l.Next = st.advised(a)
		}
		same := slices.IndexFunc(out, func(o Left) bool {
			return slices.Equal(o.Parts, l.Parts) && (o.Next == nil) == (l.Next == nil) &&
				(o.Next == nil || o.Next.Change == l.Next.Change)
		})
		if same >= 0 {
			out[same].Step += "; " + l.Step
			continue
		}
		out = append(out, l)
	}
	return out
}

// The minutes of a change: the test after it, each part on the way off and on again, and the change itself.
const (
	testAgain = 10
	offAndOn  = 4
)

var minutesOf = map[search.Kind]float64{search.Swap: 20, search.Renew: 25, search.Refit: 10, search.Loosen: 5,
	search.Adjust: 10, search.Clean: 15}

// tried reports that a change was made already: once more it tells what it told. A cover is slackened by its bolts.
func (st *Inferred) tried(kind search.Kind, part string) bool {
	return slices.ContainsFunc(st.tries(), func(t search.Try) bool {
		return slices.ContainsFunc(t.Moves, func(m search.Move) bool {
			return m.Kind == kind &&
				(m.Part == part || kind == search.Loosen && slices.Contains(st.ways()[m.Part], part))
		})
	})
}

// candidates are the single changes that could be made for a step. What is renewed whenever it comes out is not
// fitted again, and a joint is slackened only where nothing is under pressure.
func (st *Inferred) candidates(step string) (out []search.Candidate) {
	manner := st.mannerOf(step)
	test, known := st.Family.TestByCode(step)
	add := func(kind search.Kind, p *Part) {
		if st.tried(kind, p.Code) {
			return
		}
		out = append(out, search.Candidate{Move: st.move(kind, p.Code),
			Minutes: testAgain + minutesOf[kind] + offAndOn*float64(len(st.ways()[p.Code]))})
	}
	for _, p := range st.Parts {
		if p.Def.DoNot != "" {
			continue
		}
		if p.Def.Renew {
			add(search.Renew, p)
		} else {
			add(search.Swap, p)
			add(search.Refit, p)
		}
		if joint(p.Def) && p.Def.Tightened() && manner == search.Binds && known && bare(test) {
			add(search.Loosen, p)
		}
		if manner == search.Sets && search.SetBy(p.Def.Kind) {
			add(search.Adjust, p)
		}
		if search.Clogs(p.Def.Kind) {
			add(search.Clean, p)
		}
	}
	return out
}

// bare reports a step at which nothing is under pressure and nothing is driven: a slack joint hurts nobody.
func bare(t *family.Test) bool {
	return t.Pressure == 0 && t.Caution == "" && !slices.ContainsFunc(t.Reads, func(r family.Read) bool {
		return r.Figure == "pressure" || r.Figure == "supply" || r.Figure == "speed"
	})
}

// doing are what is done, and how it is written once done.
var doing = map[search.Kind]struct{ before, after, done string }{
	search.Swap:   {"swap ", " for one known to be good", " swapped"},
	search.Renew:  {"renew ", "", " renewed"},
	search.Refit:  {"take ", " out and put it in again as it belongs", " fitted again"},
	search.Loosen: {"slacken ", ", and turn", " slackened for one run"},
	search.Adjust: {"set ", " to its book", " set to its book"},
	search.Clean:  {"wash ", " and work it free", " washed and worked free"},
}

// changeOf is one change of a part, in words.
func changeOf(kind search.Kind, p *Part) Change {
	return Change{Words: strings.ToLower(p.Name) + doing[kind].done, Kind: string(kind), Part: p.Code}
}

func (st *Inferred) advised(a search.Advice) *Advised {
	name, d := strings.ToLower(st.ByCode[a.Part].Name), doing[a.Kind]
	out := &Advised{Change: changeOf(a.Kind, st.ByCode[a.Part]),
		Does: d.before + name + d.after, Minutes: a.Minutes}
	for _, o := range search.Outcomes {
		g, told := a.After[o]
		if !told || g.Chance < leastChance {
			continue
		}
		name := ""
		if x := st.ByCode[g.Part]; x != nil {
			name = strings.ToLower(x.Name)
		}
		out.If = append(out.If, IfSo{o, name, g.P})
	}
	return out
}

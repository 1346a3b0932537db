package exchange

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/job"
)

func (r *reader) unit(t *tree, number int) {
	code := t.text("family", mostName)
	plain := r.shop.Family(&unit.Unit{Family: code})
	if plain == nil {
		t.fail("family", "%q is not in the library", code)
		return
	}
	u := unit.New(plain, t.whole("number", number, number, number), "", r.job.ReceivedOn.Time())
	r.job.Units = append(r.job.Units, u)
	f := r.ownFamily(t, u, plain)
	if r.whole {
		u.Parts = nil
	}
	r.fields(t, &entry.Place{Unit: u, Family: f}, unit.ScopeUnit)
	r.answers(t, u, f, "gauge", u.GaugeRef)
	r.answers(t, u, f, "identity", u.IdentityRef)
	r.answers(t, u, f, "flush", u.FlushRef)
	r.answers(t, u, f, "fill", u.FillRef)
	r.rounds(t, u)
	for _, x := range t.list("accounts", job.MostAccounts) {
		a := u.AddAccount(x.text("teller", entry.MostLine), x.text("words", entry.MostArea))
		a.Number = x.whole("number", a.Number, 1, 1000)
		if a.Teller == "" || a.Words == "" {
			x.fail("words", "an account has a teller and words")
		}
		x.end()
	}
	parts := t.list("parts", job.MostParts)
	seen := map[string]bool{}
	for _, x := range parts {
		x.first(seen)
		onUnit(x, u)
		r.part(x, u, f)
	}
	inOrder(u, parts)
	r.loose(t, u)
	r.marks(t, u, f)
	for _, x := range t.list("kit", job.MostPieces) {
		k := u.AddPiece("", "", 1, "")
		k.Number = x.whole("line", k.Number, 1, 10000)
		r.fields(x, &entry.Place{Unit: u, Family: f, Piece: k}, unit.ScopePiece)
		x.end()
	}
	r.stepLimits(t, u, f)
	r.grounds(t, u)
	r.attempts(t, u, f)
	unique(t, "accounts", u.Accounts, func(a *unit.Account) any { return a.Number })
	unique(t, "loose_items", u.Loose, func(l *unit.Loose) any { return l.Number })
	unique(t, "causes", u.Causes, func(c *unit.NamedCause) any { return c.Number })
	unique(t, "kit", u.Kit, func(k *unit.Piece) any { return k.Number })
	unique(t, "evidence", u.Marks, func(m *unit.UnitMark) any { return [2]any{m.Round, m.Code} })
	unique(t, "conclusions", u.Conclusions, func(c *unit.Conclusion) any { return c.Round })
	unique(t, "attempts", u.Attempts, func(a *unit.Attempt) any { return a.Number })
	t.end()
}

// ownFamily lays the unit out as its variant and its assemblies make it, before its
// parts are read.
func (r *reader) ownFamily(t *tree, u *unit.Unit, plain *family.Family) *family.Family {
	if v, _ := t.values["variant"].(string); plain.VariantNamed(v) != nil {
		u.Variant = v
	}
	r.answers(t, u, plain, "more", u.MoreRef)
	f := r.shop.Family(u)
	if f != plain && !r.whole {
		u.Follow(plain, plain, f, unit.CountVariant, u.Variant)
	}
	return f
}

// onUnit lets the document say what is on the unit, where the variant had said it.
func onUnit(t *tree, u *unit.Unit) {
	code, _ := t.values["code"].(string)
	if p := u.Part(code); p != nil && p.From == unit.CountVariant {
		p.Absent, p.From, p.Why = "", unit.CountFamily, ""
	}
}

// answers takes an object of answers by their code.
func (r *reader) answers(t *tree, u *unit.Unit, f *family.Family, name string, ref func(string) unit.Ref) {
	x := t.object(name)
	for code := range x.values {
		text := x.text(code, mostName)
		place, field, err := entry.Resolve(r.job, ref(code), r.shop)
		if err == nil {
			err = field.Set(place, text)
		}
		if err != nil {
			x.fail(code, "%q is no answer the family %s knows", text, f.Code)
		}
	}
}

func (r *reader) rounds(t *tree, u *unit.Unit) {
	list := t.list("rounds", job.MostRounds)
	if list == nil {
		return
	}
	u.Rounds = nil
	for i, x := range list {
		n := &unit.Round{
			Number: x.whole("number", i+1, 1, job.MostRounds), Reason: x.text("reason", entry.MostLine),
			BackTo:   x.text("back_to", mostName),
			OpenedBy: x.text("opened_by", mostName), OpenedAt: x.moment("opened_at"),
		}
		if n.Number != i+1 {
			x.fail("number", "rounds are numbered from 1 in their order")
		}
		if !slices.Contains([]string{"", "strip", "build"}, n.BackTo) {
			x.fail("back_to", "is strip or build")
		}
		x.end()
		u.Rounds = append(u.Rounds, n)
	}
}

// round takes the number of a round that the unit has.
func round(t *tree, u *unit.Unit) int { return t.whole("round", 1, 1, len(u.Rounds)) }

func (r *reader) loose(t *tree, u *unit.Unit) {
	for _, x := range t.list("loose_items", job.MostLoose) {
		l := u.AddLoose("", "", 1)
		l.Number = x.whole("number", l.Number, 1, 10000)
		r.fields(x, &entry.Place{Unit: u, Loose: l}, unit.ScopeLoose)
		x.end()
	}
}

func (r *reader) marks(t *tree, u *unit.Unit, f *family.Family) {
	board := r.shop.Knowledge(f.Code)
	for _, x := range t.list("evidence", 2000) {
		m := &unit.UnitMark{Mark: unit.Mark{Round: round(x, u), Code: x.text("code", mostName),
			Origin: unit.OriginFound}}
		if !board.KnowsMark(m.Code) {
			x.fail("code", "%q is not a mark known for this family", m.Code)
		}
		r.fields(x, &entry.Place{Unit: u, Family: f, Mark: &m.Mark}, unit.ScopeEvidence)
		u.Marks = append(u.Marks, m)
		x.end()
	}
	for _, x := range t.list("causes", job.MostCauses) {
		c := u.AddCause("", "", "")
		c.Number, c.Round = x.whole("number", c.Number, 1, 10000), round(x, u)
		r.fields(x, &entry.Place{Unit: u, Family: f, Cause: c}, unit.ScopeCause)
		if c.Code == "" && c.Words == "" {
			x.fail("words", "a cause is of the list, or in words")
		}
		x.end()
	}
	for _, x := range t.list("conclusions", mostLayers) {
		c := &unit.Conclusion{Round: round(x, u)}
		// Documents older than the list of causes have these two in the conclusion.
		for _, old := range [][2]string{{unit.RoleFirst, "proximate"}, {unit.RoleContributing, "contributing"}} {
			if words := x.text(old[1], entry.MostLine); words != "" {
				u.AddCause(old[0], "", words).Round = c.Round
			}
		}
		r.fields(x, &entry.Place{Unit: u, Family: f, Conclusion: c}, unit.ScopeConclusion)
		u.Conclusions = append(u.Conclusions, c)
		x.end()
	}
}

// complaintOf makes the complaint's step of what older documents say of it in words.
func complaintOf(words string) *unit.Point {
	if strings.HasPrefix(strings.ToLower(words), "yes") {
		return &unit.Point{Code: family.ComplaintTest, Word: family.ComplaintGone}
	}
	return &unit.Point{Code: family.ComplaintTest, Skipped: words}
}

// stepLimits are the unit's own limits of figures of its test.
func (r *reader) stepLimits(t *tree, u *unit.Unit, f *family.Family) {
	list := t.list("step_limits", 200)
	if list == nil {
		return
	}
	u.Limits = nil
	for _, x := range list {
		l := &unit.StepLimit{Code: x.text("code", mostName)}
		test, known := f.TestByCode(l.Step())
		if known {
			_, known = test.ReadOf(l.Figure())
		}
		if !known {
			x.fail("code", "the test of %s reads no %q", f.Code, l.Code)
		}
		r.fields(x, &entry.Place{Unit: u, Family: f, Test: test, Limit: l}, unit.ScopeLimit)
		u.Limits = append(u.Limits, l)
		x.end()
	}
	unique(t, "step_limits", u.Limits, func(l *unit.StepLimit) any { return l.Code })
}

func (r *reader) attempts(t *tree, u *unit.Unit, f *family.Family) {
	list := t.list("attempts", job.MostAttempts+1)
	if list == nil {
		return
	}
	u.Attempts = nil
	for _, x := range list {
		a := &unit.Attempt{Number: x.whole("number", 0, 0, job.MostAttempts), Round: round(x, u),
			By: x.text("by", mostName), At: x.moment("at"), Ground: x.whole("ground", 0, 0, len(u.Grounds))}
		repeated := x.text("condition_repeated", entry.MostArea) // of documents older than the complaint's step
		for _, y := range x.list("points", 200) {
			p := &unit.Point{Code: y.text("code", mostName)}
			test, known := f.TestByCode(p.Code)
			if !known {
				y.fail("code", "the family %s has no test step %q", f.Code, p.Code)
			}
			r.fields(y, &entry.Place{Unit: u, Family: f, Attempt: a, Point: p, Test: test}, unit.ScopePoint)
			r.takings(y, u, p)
			r.pours(y, p)
			if !p.HoldTo.IsZero() && p.HoldTo.Before(p.HoldFrom) {
				y.fail("hold_to", "lies before the hold began")
			}
			a.Points = append(a.Points, p)
			y.end()
		}
		if repeated != "" && a.Point(family.ComplaintTest) == nil {
			a.Points = append(a.Points, complaintOf(repeated))
		}
		unique(x, "points", a.Points, func(p *unit.Point) any { return p.Code })
		r.fields(x, &entry.Place{Unit: u, Family: f, Attempt: a}, unit.ScopeAttempt)
		u.Attempts = append(u.Attempts, a)
		x.end()
	}
	open := map[int]bool{}
	for i, a := range u.Attempts {
		if a.Number == 0 || a.Closed {
			continue
		}
		if open[a.Round] {
			t.fail(fmt.Sprintf("attempts[%d]", i), "is open beside another of the same round; one is closed first")
		}
		open[a.Round] = true
	}
	if u.Attempt(0) == nil {
		t.fail("attempts", "the as-received one, number 0, is missing")
	}
}

package practice

import (
	"math/rand/v2"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
)

// stepNames are the steps of a test as they stand in a sentence.
func stepNames(f *family.Family, codes []string) string {
	var names []string
	for _, code := range codes {
		if t, known := f.TestByCode(code); known {
			names = append(names, strings.ToLower(t.Name[:1])+t.Name[1:])
		}
	}
	return strings.Join(names, ", and ")
}

// drawPlan asks which steps of a test show a claim: all of those that its family says, and no others.
func drawPlan(t *Task, r *rand.Rand) {
	for range 300 {
		f := pick(r, t.families.List()...)
		if len(f.Owes) < 4 {
			continue
		}
		o := pick(r, f.Owes...)
		right := stepNames(f, o.By)
		seen := map[string]bool{right: true}
		options := []Option{{Words: upper(right), Right: true, Says: "It is shown by " + right + "."}}
		for _, i := range r.Perm(len(f.Owes)) {
			words := stepNames(f, f.Owes[i].By)
			if words == "" || seen[words] || len(options) == 4 {
				continue
			}
			seen[words] = true
			options = append(options, Option{Words: upper(words), Says: "That shows that it " + f.Owes[i].Says + "."})
		}
		if right == "" || len(options) < 4 {
			continue
		}
		r.Shuffle(len(options), func(i, k int) { options[i], options[k] = options[k], options[i] })
		t.say("%s, rebuilt. The customer is to be told: it %s.", f.Name, o.Says)
		t.Asks = []Ask{{Name: "That is shown by", Options: options}}
		return
	}
	panic("no family owes four claims")
}

func upper(text string) string {
	if text == "" {
		return ""
	}
	return strings.ToUpper(text[:1]) + text[1:]
}

// mostClaims keeps a certificate to what is read at once.
const mostClaims = 8

// drawClaims lays out a certificate with the steps that were run, and asks which two of its claims they do not show.
func drawClaims(t *Task, r *rand.Rand) {
	for range 300 {
		f := pick(r, t.families.List()...)
		if len(f.Owes) < 4 || len(f.Owes) > mostClaims {
			continue
		}
		var steps []string
		for _, o := range f.Owes {
			for _, code := range o.By {
				if !slices.Contains(steps, code) {
					steps = append(steps, code)
				}
			}
		}
		left := map[string]bool{}
		for _, i := range r.Perm(len(steps))[:min(2, len(steps))] {
			left[steps[i]] = true
		}
		open := unshown(f, left)
		if len(open) != 2 {
			continue
		}
		t.claims(f, steps, left, open)
		return
	}
	panic("no family has two claims that two steps show")
}

// unshown are the claims of a family that are not shown where some steps were left out, by their number from 1.
func unshown(f *family.Family, left map[string]bool) (out []int) {
	for i, o := range f.Owes {
		told, owed := proof.Tell(o, func(code string) *proof.Shown {
			step, known := f.TestByCode(code)
			if !known {
				return nil
			}
			s := &proof.Shown{Test: step}
			if !left[code] {
				s.Read, s.Attempt, s.Closed, s.Held = true, 1, true, 24*time.Hour
				s.Judged.Verdict = metrology.In
			}
			return s
		}, func(string) bool { return true })
		if owed && !told.Shown() {
			out = append(out, i+1)
		}
	}
	return out
}

func (t *Task) claims(f *family.Family, steps []string, left map[string]bool, open []int) {
	t.say("%s: the certificate says that it", f.Name)
	for i, o := range f.Owes {
		t.say("%d. %s;", i+1, o.Says)
	}
	run := slices.DeleteFunc(slices.Clone(steps), func(code string) bool { return left[code] })
	t.say("What was run, and came out well: %s.", stepNames(f, run))
	words := func(n int) string {
		return "It is shown by " + stepNames(f, f.Owes[n-1].By) + ", and not all of that was run."
	}
	ask := func(name string, n int) Ask {
		a := Ask{Name: name, Want: float64(n), Step: 1, Within: 0.1}
		for i := range f.Owes {
			if !slices.Contains(open, i+1) {
				a.slips = append(a.slips, slip{float64(i + 1), "No. " + strconv.Itoa(i+1) + " is shown by " +
					stepNames(f, f.Owes[i].By) + ". " + words(n)})
			}
		}
		for _, other := range open {
			if other != n {
				a.slips = append(a.slips, slip{float64(other), "That one is the other of the two."})
			}
		}
		return a
	}
	t.Asks = []Ask{ask("Not shown is, of the two the first", open[0]), ask("And the second", open[1])}
}

package unit

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
)

// StateForm is the form in which states are fingerprinted. It steps when the same job would get
// another fingerprint than before: a value that is new and empty gives none.
const StateForm = 1

// Section is a piece of a job with the fingerprint of what it says, so that of two states it can
// be told in which piece they differ.
type Section struct {
	Path string // u1/part/rear_plate, as a Ref begins
	Sum  string // the first 16 digits of its SHA-256
}

// Sections are the fingerprints of all that a job says, in its order: what was typed, seen,
// decided and done, and nothing that is worked out from it. It fails where a figure is none, such
// as a place on a picture that is not a number.
func (j *Job) Sections() ([]Section, error) {
	w := &sections{}
	head := *j
	// Where a customer is found is the shop's, and may be written anew with any job of his.
	head.Customer = Customer{Name: j.Customer.Name}
	head.Units, head.Pictures, head.Worked, head.FollowUps = nil, nil, nil, nil
	head.Reopenings, head.Acknowledgements, head.Waivers = nil, nil, nil
	w.add("job", head)
	add(w, "job/read_caution", j.Acknowledgements)
	add(w, "job/waived_stop", j.Waivers)
	add(w, "job/opened_again", j.Reopenings)
	add(w, "job/asked_back", j.FollowUps)
	add(w, "job/worked_figure", j.Worked)
	for _, p := range j.Pictures {
		w.add(fmt.Sprintf("picture/%d", p.Number), p)
	}
	for _, u := range j.Units {
		w.unit(u)
	}
	return w.all, w.fault
}

type sections struct {
	all   []Section
	fault error
}

func (w *sections) add(path string, v any) {
	text, err := json.Marshal(v)
	if err != nil && w.fault == nil {
		w.fault = fmt.Errorf("%s: %w", path, err)
	}
	sum := sha256.Sum256(text)
	w.all = append(w.all, Section{path, hex.EncodeToString(sum[:8])})
}

// add takes a list as one section, where it holds anything.
func add[T any](w *sections, path string, rows []*T) {
	if len(rows) > 0 {
		w.add(path, rows)
	}
}

func (w *sections) unit(u *Unit) {
	at := fmt.Sprintf("u%d", u.Number)
	head := *u
	head.Parts, head.Attempts, head.Limits, head.Accounts, head.Rounds, head.Loose = nil, nil, nil, nil, nil, nil
	head.Marks, head.Conclusions, head.Causes, head.Kit = nil, nil, nil, nil
	w.add(at, head)
	add(w, at+"/account", u.Accounts)
	add(w, at+"/round", u.Rounds)
	add(w, at+"/loose", u.Loose)
	add(w, at+"/evidence", u.Marks)
	add(w, at+"/conclusion", u.Conclusions)
	add(w, at+"/cause", u.Causes)
	add(w, at+"/piece", u.Kit)
	add(w, at+"/limit", u.Limits)
	for _, p := range u.Parts {
		w.add(at+"/part/"+p.Code, p)
	}
	for _, a := range u.Attempts {
		run := fmt.Sprintf("%s/attempt/%d", at, a.Number)
		head := *a
		head.Points = nil
		w.add(run, head)
		for _, p := range a.Points {
			w.add(run+"/point/"+p.Code, p)
		}
	}
}

// StateOf is the one fingerprint of all sections, with the form it is of in front.
func StateOf(all []Section) string {
	h := sha256.New()
	for _, s := range all {
		fmt.Fprintf(h, "%d:%s=%s;", len(s.Path), s.Path, s.Sum)
	}
	return fmt.Sprintf("%d:%s", StateForm, hex.EncodeToString(h.Sum(nil)))
}

// State is the fingerprint of all that a job says.
func (j *Job) State() (string, error) {
	all, err := j.Sections()
	return StateOf(all), err
}

// Differ gives the paths of the sections in which two states differ, in the order of the first;
// those that only the second has come last.
func Differ(a, b []Section) (out []string) {
	other := map[string]string{}
	for _, s := range b {
		other[s.Path] = s.Sum
	}
	for _, s := range a {
		if other[s.Path] != s.Sum {
			out = append(out, s.Path)
		}
		delete(other, s.Path)
	}
	for _, s := range b {
		if _, only := other[s.Path]; only {
			out = append(out, s.Path)
		}
	}
	return out
}

package exchange

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"corvek/core/calc"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/handover"
	"corvek/core/unit"
	"corvek/internal/job"
)

// What a document holds at most, beyond the limits of typing.
const (
	mostReadings = 2000
	mostLayers   = job.MostRounds
	mostName     = 200
)

// reader lays a job out from a document.
type reader struct {
	shop  *entry.Shop
	whole bool // what the document does not say is not so
	job   *unit.Job
	fault error
}

// read lays the job of a document out, with its record and the names of its
// pictures' files.
func read(d *Document, shop *entry.Shop) (j *unit.Job, record []unit.Entry, files []string, err error) {
	if site, is := d.root["site"].(string); is { // one of another owner's shops stays what it was
		other := *shop
		other.Sites = append(slices.Clone(shop.Sites), site)
		shop = &other
	}
	r := &reader{shop: shop, job: &unit.Job{}}
	root := &tree{values: d.root, taken: map[string]bool{"format": true, "version": true}, fault: &r.fault}
	r.whole = root.flag("whole")
	r.head(root)
	customer := root.object("customer")
	r.job.Customer = unit.Customer{Name: customer.text("name", entry.MostLine),
		Place: customer.text("place", entry.MostLine), Contact: customer.text("contact", entry.MostLine)}
	if strings.TrimSpace(r.job.Customer.Name) == "" {
		customer.fail("name", "cannot be left empty")
	}
	customer.end()
	units := root.list("units", job.MostUnits)
	if len(units) == 0 {
		root.fail("units", "a job has at least one unit")
	}
	for i, t := range units {
		r.unit(t, i+1)
	}
	r.read(root)
	r.passes(root)
	r.reopenings(root)
	r.followUps(root)
	files = r.pictures(root)
	r.worked(root, d)
	record = r.record(root)
	root.end()
	var wrong *field.Error
	if errors.As(r.fault, &wrong) {
		wrong.Field = d.asWritten(wrong.Field)
	}
	return r.job, record, files, r.fault
}

var tagForm = regexp.MustCompile(`^[A-Za-z0-9][A-Za-z0-9-]{0,39}$`)

func (r *reader) head(t *tree) {
	j := r.job
	if j.Tag = t.text("tag", 40); !tagForm.MatchString(j.Tag) {
		t.fail("tag", "is made of letters, digits and hyphens, like T-0417")
	}
	r.fields(t, &entry.Place{Job: j}, unit.ScopeJob)
	for i, v := range words(t, "symptoms", 100) {
		place := &entry.Place{Job: j, Ref: unit.SymptomRef(v)}
		if _, known := family.SymptomText(v); !known {
			t.fail(fmt.Sprintf("symptoms[%d]", i), "%q is not a symptom", v)
		}
		f, _ := entry.Find(unit.ScopeJob, "symptom")
		_ = f.Set(place, entry.Yes)
	}
	if j.ReceivedOn == "" {
		t.fail("received_on", "cannot be left empty")
	}
	if j.Withdrawn() && (j.WithdrawnBy == "" || j.WithdrawnReason == "") {
		t.fail("withdrawn_reason", "a job is withdrawn by somebody, with a reason")
	}
	if j.Withdrawn() && unit.DateOf(j.WithdrawnAt) < j.ReceivedOn {
		t.fail("withdrawn_at", "lies before the unit came in, on %s", j.ReceivedOn)
	}
	if j.HandedOver() && unit.DateOf(j.HandedOverAt) < j.ReceivedOn {
		t.fail("handed_over_at", "lies before the unit came in, on %s", j.ReceivedOn)
	}
}

// words takes a list of texts.
func words(t *tree, name string, most int) []string {
	v, ok := t.get(name)
	if !ok {
		return nil
	}
	list, is := v.([]any)
	if !is || len(list) > most {
		t.fail(name, "is a list of at most %d words", most)
		return nil
	}
	var out []string
	for i, x := range list {
		s, is := x.(string)
		if !is {
			t.fail(fmt.Sprintf("%s[%d]", name, i), "is text, between quotation marks")
			return nil
		}
		out = append(out, s)
	}
	return out
}

// fields takes the declared values of a scope, each through the check that
// typing it goes through.
func (r *reader) fields(t *tree, p *entry.Place, scope unit.Scope) {
	p.Shop = r.shop
	if p.Job == nil {
		p.Job = r.job
	}
	for _, f := range entry.Fields(scope) {
		if unit.Coded(scope, f.Name) {
			continue
		}
		t, name := t.at(f.Path())
		v, given := t.get(name)
		text, is := "", true
		switch x := v.(type) {
		case nil:
			if f.Required && f.Get(p) == "" {
				t.fail(name, "cannot be left empty")
			}
			continue
		case string:
			text = x
			if !legible(x) {
				t.fail(name, "holds a character that cannot be kept")
				continue
			}
		case bool:
			if is = f.Kind == entry.Flag; x {
				text = entry.Yes
			}
		case json.Number:
			text, is = x.String(), f.Kind == entry.Whole
		default:
			is = false
		}
		if !given || !is {
			t.fail(name, "cannot be read as a value of this kind")
			continue
		}
		if !likely(f.Kind, text) {
			t.fail(name, "is of a year that no bench wrote in")
			continue
		}
		p.Ref.Name = f.Name
		if err := f.Set(p, text); err != nil {
			t.fail(name, "%s", err)
		}
	}
}

// unique refuses two entries of a list that are the same thing.
func unique[T any](t *tree, name string, rows []T, key func(T) any) {
	seen := map[any]bool{}
	for i, r := range rows {
		if seen[key(r)] {
			t.fail(fmt.Sprintf("%s[%d]", name, i), "is there twice")
		}
		seen[key(r)] = true
	}
}

func (r *reader) read(root *tree) {
	for _, x := range root.list("acknowledgements", 200) {
		a := &unit.Acknowledgement{
			Caution: x.text("caution", mostName),
			By:      x.text("by", mostName),
			At:      x.moment("at"),
		}
		if _, known := family.CautionByCode(a.Caution); !known {
			x.fail("caution", "%q is not a caution", a.Caution)
		}
		r.job.Acknowledgements = append(r.job.Acknowledgements, a)
		x.end()
	}
	unique(root, "acknowledgements", r.job.Acknowledgements, func(a *unit.Acknowledgement) any { return a.Caution })
}

func (r *reader) passes(root *tree) {
	for _, x := range root.list("stop_passes", 2000) {
		p := &unit.Waiver{
			Code: x.text("code", mostName), Text: x.text("stop_text", entry.MostArea),
			Reason: x.text("reason", entry.MostLine),
			By:     x.text("by", mostName), At: x.moment("at"),
		}
		code, ok := unit.ParseStopCode(p.Code)
		u := r.job.Unit(code.Unit)
		switch {
		case !ok:
			x.fail("code", "%q is not the code of a stop", p.Code)
		case u == nil:
			x.fail("code", "the job has no unit %d", code.Unit)
		case code.Kind != unit.StopCaution && code.Kind != unit.StopGauges &&
			code.Part != "" && u.Part(code.Part) == nil:
			x.fail("code", "unit %d has no part %q", code.Unit, code.Part)
		case strings.TrimSpace(p.Reason) == "" || p.By == "":
			x.fail("reason", "a stop is waived by somebody, with a reason")
		}
		r.job.Waivers = append(r.job.Waivers, p)
		x.end()
	}
	unique(root, "stop_passes", r.job.Waivers, func(p *unit.Waiver) any { return p.Code })
}

// reopenings lie in the order in which they were made.
func (r *reader) reopenings(root *tree) {
	for i, x := range root.list("reopenings", job.MostReopenings) {
		o := &unit.Reopening{Number: i + 1, HandedOver: x.moment("handed_over_at"),
			Reason: x.text("reason", entry.MostLine), By: x.text("by", mostName), At: x.moment("at"),
			Touches: x.text("touches", mostName)}
		x.taken["number"] = true // of its place
		switch {
		case strings.TrimSpace(o.Reason) == "" || o.By == "":
			x.fail("reason", "a job is opened again by somebody, with a reason")
		case o.Touches != "" && o.Touches != unit.TouchesUnit && o.Touches != unit.TouchesPapers:
			x.fail("touches", "is unit or papers")
		case o.HandedOver.IsZero():
			x.fail("handed_over_at", "is the moment of the hand-over that was taken back")
		case i > 0 && o.HandedOver.Before(r.job.Reopenings[i-1].At):
			x.fail("handed_over_at", "lies before the job was opened again the last time")
		}
		r.job.Reopenings = append(r.job.Reopenings, o)
		x.end()
	}
	if n := len(r.job.Reopenings); n > 0 && r.job.HandedOver() &&
		r.job.HandedOverAt.Before(r.job.Reopenings[n-1].At) {
		root.fail("handed_over_at", "lies before the job was opened again the last time")
	}
}

// followUps lie in the order in which they were asked.
func (r *reader) followUps(root *tree) {
	for i, x := range root.list("follow_ups", unit.MostFollowUps) {
		f := &unit.FollowUp{Number: i + 1, Unit: x.whole("unit", 1, 1, max(1, len(r.job.Units))),
			Kind: x.text("kind", mostName), AskedBy: x.text("asked_by", mostName), Result: x.text("result", mostName),
			Note: x.text("note", entry.MostLine), AnsweredBy: x.text("answered_by", mostName),
			AnsweredAt: x.moment("answered_at")}
		day, isDay := unit.ParseDate(x.text("due_on", mostName))
		f.DueOn = day
		x.taken["number"] = true // of its place
		_, asked := handover.UsualDays(f.Kind)
		switch {
		case !asked:
			x.fail("kind", "is nothing that is asked back")
		case !isDay:
			x.fail("due_on", "is a date like 2031-05-27")
		case f.AskedBy == "":
			x.fail("asked_by", "is who asked")
		case f.Result != "" && !handover.Answers(f.Result):
			x.fail("result", "is no answer that can come back")
		case f.Answered() != (f.AnsweredBy != "") || f.Answered() == f.AnsweredAt.IsZero():
			x.fail("answered_by", "an answer has who gave it to us, and when")
		}
		r.job.FollowUps = append(r.job.FollowUps, f)
		x.end()
	}
}

func (r *reader) pictures(root *tree) (files []string) {
	for _, x := range root.list("pictures", job.MostPictures) {
		p := r.job.AddPicture(&unit.Picture{Name: x.text("name", mostName),
			MediaType: x.text(
				"media_type",
				mostName,
			), Part: x.text("part", mostName), Mark: x.text("mark", mostName)})
		p.Number = x.whole("number", p.Number, 1, 10000)
		p.Unit = x.whole("unit", 1, 1, len(r.job.Units))
		u := r.job.Unit(p.Unit)
		if u == nil {
			return nil
		}
		r.fields(x, &entry.Place{Picture: p}, unit.ScopePicture)
		known(x, "part", u, p.Part)
		bears(x, p.Part, p.Mark)
		for _, y := range x.list("marks", job.MostMarks) {
			m := p.AddMark(&unit.PictureMark{X: y.share("x"), Y: y.share("y"), Note: y.text("note", entry.MostLine),
				Evidence: y.text("evidence", mostName), Part: y.text("part", mostName),
				Mark: y.text("mark", mostName)})
			m.Number = y.whole("number", m.Number, 1, 1000)
			known(y, "part", u, m.Part)
			bears(y, m.Part, m.Mark)
			if m.Evidence != "" && !r.shop.Knowledge(u.Family).KnowsMark(m.Evidence) {
				y.fail("evidence", "%q is not a mark known for this family", m.Evidence)
			}
			y.end()
		}
		unique(x, "marks", p.Marks, func(m *unit.PictureMark) any { return m.Number })
		file := x.text("file", mostName)
		if file == "" {
			file = fileOf(p)
		}
		files = append(files, file)
		x.taken["width"], x.taken["height"] = true, true // of the picture itself
		x.end()
	}
	unique(root, "pictures", r.job.Pictures, func(p *unit.Picture) any { return p.Number })
	return files
}

// known refuses a part that the unit does not have.
func known(t *tree, name string, u *unit.Unit, part string) {
	if part != "" && u.Part(part) == nil {
		t.fail(name, "%q is not a part of unit %d", part, u.Number)
	}
}

// bears refuses a mark that no part bears, and one without its part.
func bears(t *tree, part, mark string) {
	if _, known := family.PartMark(mark); mark != "" && (!known || part == "") {
		t.fail("mark", "%q is not a mark of a part that is named", mark)
	}
}

// mostInputs are more than any calculator has.
const mostInputs = 60

// worked keeps a calculation as it stands, written tightly so that it compares
// equal when it goes out again.
func (r *reader) worked(root *tree, d *Document) {
	for i, x := range root.list("worked_figures", job.MostWorked) {
		w := &unit.Worked{Calculator: x.text("calculator", mostName), Note: x.text("note", entry.MostLine),
			Unit: x.whole("unit", 0, 0, job.MostUnits), About: x.text("about", mostName), By: x.text("by", mostName),
			At: x.moment("at")}
		whence := x.object("whence")
		if len(whence.values) > mostInputs {
			x.fail("whence", "names more than %d inputs", mostInputs)
			whence.values = nil
		}
		for name := range whence.values {
			if w.Whence == nil {
				w.Whence = map[string]string{}
			}
			w.Whence[name] = whence.text(name, entry.MostLine)
		}
		x.taken["line"] = true // of its place
		if _, err := calc.Find(w.Calculator); err != nil {
			x.fail("calculator", "there is no calculator called %q", w.Calculator)
		}
		if i < len(d.worked) {
			w.Inputs, w.Answer = tight(x, "inputs", d.worked[i].Inputs), tight(x, "answer", d.worked[i].Answer)
		}
		r.job.AddWorked(w)
		x.end()
	}
}

// tight writes an object of a document without blanks, in its order.
func tight(t *tree, name string, raw json.RawMessage) string {
	v, _ := t.get(name)
	var b bytes.Buffer
	if _, is := v.(map[string]any); !is || json.Compact(&b, raw) != nil {
		t.fail(name, "is an object, between braces")
	}
	return b.String()
}

func (r *reader) record(root *tree) (out []unit.Entry) {
	for _, x := range root.list("record", mostRecord) {
		e := unit.Entry{
			Who: x.text("who", mostName), Role: x.text("role", mostName), At: x.moment("at"),
			Action: x.text("action", entry.MostArea+mostName), Field: x.text("field", mostName),
			Before: x.text("before", entry.MostArea), After: x.text("after", entry.MostArea),
		}
		if _, told := x.get("event"); told {
			e.Event = event(x.object("event"))
		} else {
			e.Event = unit.EventOfWords(e.Action)
		}
		out = append(out, e)
		x.flag("brought") // whatever it says: all that comes is brought
		x.end()
	}
	return out
}

// mostHandOvers of a job are told of.
const mostHandOvers = 1000

func event(x *tree) *unit.Event {
	e := &unit.Event{Kind: x.text("kind", mostName), Unit: x.whole("unit", 0, 0, job.MostUnits),
		HandOver: x.whole("hand_over", 0, 0, mostHandOvers), Lines: x.whole("lines", 0, 0, mostRecord),
		Head: x.text("head", mostName), State: x.text("state", mostName), Name: x.text("name", entry.MostLine),
		Sum: x.text("sum", mostName), Asked: x.text("asked", mostName), Due: unit.Date(x.text("due", mostName)),
		Result: x.text("result", mostName), Words: x.text("words", entry.MostArea)}
	if _, told := x.get("on"); told {
		e.On = x.moment("on")
	}
	x.end()
	return e
}

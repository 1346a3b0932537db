package planpages

import (
	"cmp"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/plan"
	"corvek/core/shop"
	"corvek/core/wording"
	"corvek/core/workshop"
	"corvek/internal/planning"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// PlanPage is who does what when.
type PlanPage struct {
	site.Reader
	site.Shops
	NoHands bool // nobody's hours are kept: there is nothing to plan with
	Jobs    int
	Chart   Chart

	LateOnes, ClashOnes int // in all; so many of them are listed as there is room for

	Weeks   int // how many times two weeks ahead the chart is
	Late    []LateJob
	Clashes []Clash
	Today   []PersonDay
	Task    *TaskSheet
	Why     *WhySheet
	Moved   int
	Shifts  []Clash // what has other hands or another day than in yesterday's plan
	Left    []string
	Fault   *field.Error
	Chosen  string // address of the task that is looked at
	Undo    string // how it stood before it was moved, "" where it was not just now
}

// LateJob is a job that ends after its day.
type LateJob struct {
	Tag, Title, Promised, Ends, By string
	URL                            string
}

// Clash is what cannot be as it stands, with what would settle it.
type Clash struct{ Tag, Text, URL string }

// PersonDay is what one person has before him today.
type PersonDay struct {
	Name  string
	Tasks []DayTask
}

// DayTask is a task of a day.
type DayTask struct {
	From, To, Tag, Name, Place, URL string
	Runs                            bool // he is at it
}

// TaskSheet is the task that is looked at.
type TaskSheet struct {
	Tag, Code, Name, When, With string
	Unit                        int
	Pinned, Waits, Runs         bool
	PinnedBy                    string
	Person, Place, Start        string // as the form shows them
	People, Places              []string
	Faults                      map[string]string // of the form, by field
	JobURL, WhyURL              string
}

// WhySheet is why a job ends when it does, and what would help.
type WhySheet struct {
	Tag, Title, Ends string
	Never, Late      bool         // something of it cannot be done at all; it is done after its day
	Dates            []PromiseRow // by how many of 100 shops in which the plan is worked off
	Past             string       // what hours and first tests are learned from
	Promised         string       // in how many of 100 the day that was promised holds, "" where none was
	Tell, TellDay    string       // what whoever runs the machine is to be told, "" where he was
	Links            []string
	Helps            []string
}

// address is that of a task in forms.
func address(k workshop.Key) string { return k.Tag + "/" + strconv.Itoa(k.Unit) + "/" + k.Code }

func whyURL(tag string) string { return "/plan?why=" + url.QueryEscape(tag) + "#why" }

func taskURL(k workshop.Key) string { return "/plan?task=" + url.QueryEscape(address(k)) + "#task" }

func (s *Pages) plan(c *echo.Context) error { return s.renderPlan(c, http.StatusOK, nil) }

func (s *Pages) renderPlan(c *echo.Context, status int, fault *field.Error) error {
	p, err := s.plans.Now(c.Request().Context())
	if err != nil {
		return err
	}
	v := PlanPage{Reader: s.Reader(c), NoHands: len(p.Shop.Hands) == 0, Jobs: len(p.Laid.Jobs), Left: p.Left,
		Moved: p.Plan.Cost.Moved, Fault: fault}
	if v.Shops, err = s.Shops(c, "/plan"); err != nil {
		return err
	}
	chosen := -1
	if text := cmp.Or(c.QueryParam("task"), c.FormValue("task")); text != "" {
		chosen = taskOf(p, text)
	}
	if !v.NoHands {
		v.Weeks = firstDay(c) / chartDays
		v.Chart = chartOf(p, chosen, v.Site, firstDay(c))
		v.Late, v.Clashes = lateJobs(p, v.Site), clashes(p, v.Site)
		v.Today, v.Shifts = today(p, v.Site), shifts(p, v.Site)
		v.LateOnes, v.ClashOnes = len(v.Late), len(v.Clashes)
		v.Late, v.Clashes = v.Late[:min(v.LateOnes, mostTold)], v.Clashes[:min(v.ClashOnes, mostTold)]
	}
	if chosen >= 0 {
		v.Task = taskSheet(p, chosen)
		v.Chosen, v.Undo = address(p.Laid.Keys[chosen]), c.QueryParam("was")
		if fault != nil && v.Task.typed(c, fault) {
			v.Fault = nil
		}
	}
	if tag := c.QueryParam("why"); tag != "" && !v.NoHands {
		if v.Why, err = whySheet(p, tag); err != nil {
			return err
		}
		if v.Why != nil {
			if err := s.tell(c, v.Why); err != nil {
				return err
			}
		}
	}
	return s.Render(c, status, "plan", "Plan", v)
}

// mostAhead is how many times two weeks ahead may be looked at: a year.
const mostAhead = 26

// firstDay is the day of the plan that the chart begins with.
func firstDay(c *echo.Context) int {
	n, _ := strconv.Atoi(cmp.Or(c.QueryParam("ahead"), c.FormValue("ahead")))
	return max(0, min(n, mostAhead)) * chartDays
}

// Back and On are how many times two weeks ahead lie before and behind what is shown.
func (v PlanPage) Back() int { return v.Weeks - 1 }

// On is the next two weeks.
func (v PlanPage) On() int { return v.Weeks + 1 }

// taskOf finds a task by its address, −1 where it is not in the plan any more.
func taskOf(p *planning.Planned, text string) int {
	tag, rest, _ := strings.Cut(text, "/")
	number, code, _ := strings.Cut(rest, "/")
	unit, _ := strconv.Atoi(number)
	return slices.Index(p.Laid.Keys, workshop.Key{Tag: tag, Unit: unit, Code: code})
}

func lateJobs(p *planning.Planned, site string) (out []LateJob) {
	for j, late := range p.Plan.Late {
		if late <= 0 || !shop.Same(p.Laid.Jobs[j].Site, site) {
			continue
		}
		job := p.Laid.Jobs[j]
		out = append(out, LateJob{Tag: job.Tag, Title: job.Title, Promised: job.Promised.Time().Format("Mon 2 Jan"),
			Ends: when(p.Laid.Time(p.Plan.Ends[j])), By: howLate(late), URL: whyURL(job.Tag)})
	}
	return out
}

func howLate(m plan.Minute) string {
	if days := (m + dayMinutes - 1) / dayMinutes; days > 1 {
		return strconv.Itoa(days) + " days late"
	}
	return "1 day late"
}

// nowhere says why a task cannot be planned.
var nowhere = map[plan.Why]string{
	plan.NoneCan:  "nobody here can do it, or no stand here reaches what it needs",
	plan.NoWindow: "nobody is there long enough for it at one time",
	plan.Waits:    "what comes before it cannot be planned",
}

func clashes(p *planning.Planned, site string) (out []Clash) {
	for i, at := range p.Plan.Tasks {
		if !jobIn(p, i, site) {
			continue
		}
		k := p.Laid.Keys[i]
		c := Clash{Tag: k.Tag, URL: taskURL(k)}
		switch {
		case at.Nowhere != "" && at.Nowhere != plan.Waits:
			c.Text = p.Laid.Tasks[i].Name + ": " + nowhere[at.Nowhere]
		case at.PinBroken:
			c.Text = p.Laid.Tasks[i].Name + ": " + pinBroken(p, i)
		default:
			continue
		}
		out = append(out, c)
	}
	return out
}

// mostTold of each are listed: late jobs, what cannot be, what moved. How many there are is said above.
const mostTold = 60

// shifts are the tasks that yesterday's plan had with other hands, at another place or on another day.
func shifts(p *planning.Planned, site string) (out []Clash) {
	stood := map[workshop.Key]workshop.Spot{}
	for _, s := range p.Stood {
		stood[s.Key] = s
	}
	for i, at := range p.Plan.Tasks {
		was, had := stood[p.Laid.Keys[i]]
		if !at.Moved || !jobIn(p, i, site) || !had || was.Start == nil {
			continue
		}
		if len(out) == mostTold {
			break
		}
		person, place := p.Laid.On(at)
		text := fmt.Sprintf("%s: %s%s, now %s%s", p.Laid.Tasks[i].Name, was.Start.UTC().Format("Mon 2 Jan"),
			who(was.Person, was.Place), p.Laid.Time(at.Start).Format("Mon 2 Jan"), who(person, place))
		out = append(out, Clash{Tag: p.Laid.Keys[i].Tag, Text: text, URL: taskURL(p.Laid.Keys[i])})
	}
	return out
}

// who is with whom and where, behind a comma.
func who(person, place string) string {
	words := ""
	for _, w := range []string{person, place} {
		if w != "" {
			words += ", " + w
		}
	}
	return words
}

// pinBroken says why a task does not stand where it is pinned.
func pinBroken(p *planning.Planned, i int) string {
	pin, at := p.Laid.Problem.Tasks[i].Pin, p.Plan.Tasks[i]
	for _, r := range pin.On {
		if !slices.Contains(at.On, r) {
			return "pinned to " + p.Laid.Problem.Resources[r].Name + ", who or which cannot do it"
		}
	}
	return fmt.Sprintf("pinned to %s, possible from %s", when(p.Laid.Time(pin.Start)), when(p.Laid.Time(at.Start)))
}

// today is what each has before him on the day that the plan begins with.
func today(p *planning.Planned, site string) (out []PersonDay) {
	for r := range p.Shop.Hands {
		if !p.Shop.In(r, site) {
			continue
		}
		d := PersonDay{Name: p.Shop.Hands[r].Name}
		for i, at := range p.Plan.Tasks {
			if !slices.Contains(at.On, r) || at.Start >= dayMinutes {
				continue
			}
			_, place := p.Laid.On(at)
			from, to := p.Laid.Time(at.Start), p.Laid.Time(at.End)
			until := to.Format("15:04")
			if at.End > dayMinutes {
				until = to.Format("Mon 15:04")
			}
			d.Tasks = append(d.Tasks, DayTask{From: from.Format("15:04"), To: until, Tag: p.Laid.Keys[i].Tag,
				Name: p.Laid.Tasks[i].Name, Place: place, URL: taskURL(p.Laid.Keys[i]),
				Runs: p.Laid.Problem.Tasks[i].Running != nil})
		}
		slices.SortStableFunc(d.Tasks, func(a, b DayTask) int { return strings.Compare(a.From, b.From) })
		out = append(out, d)
	}
	return out
}

// pinForm is how a moment is written in a field of the form.
const pinForm = "2006-01-02T15:04"

func taskSheet(p *planning.Planned, i int) *TaskSheet {
	at, k, task := p.Plan.Tasks[i], p.Laid.Keys[i], p.Laid.Tasks[i]
	t := &TaskSheet{Tag: k.Tag, Unit: k.Unit, Code: k.Code, Name: task.Name, Waits: task.Waits(),
		Runs:   p.Laid.Problem.Tasks[i].Running != nil,
		JobURL: "/jobs/" + url.PathEscape(k.Tag), WhyURL: whyURL(k.Tag)}
	if at.Nowhere != "" {
		t.When = nowhere[at.Nowhere]
	} else {
		t.When = when(p.Laid.Time(at.Start)) + " to " + when(p.Laid.Time(at.End))
		t.Person, t.Place = p.Laid.On(at)
		t.Start = p.Laid.Time(at.Start).Format(pinForm)
	}
	for _, need := range p.Laid.Problem.Tasks[i].Needs {
		for _, r := range need {
			if name := p.Laid.Problem.Resources[r].Name; r < len(p.Shop.Hands) {
				t.People = append(t.People, name)
			} else {
				t.Places = append(t.Places, name)
			}
		}
	}
	for _, pin := range p.Pins {
		if pin.Key == k {
			t.Pinned, t.PinnedBy = true, pin.ByName
		}
	}
	return t
}

// PromiseRow is the day by which a job is done in so many of 100.
type PromiseRow struct {
	Of  int
	Day string
}

// promises are the days by which a job is done, by chance.
func (w *WhySheet) promises(p *planning.Planned, j int) error {
	promise, err := p.Promise(j)
	if err != nil {
		return err
	}
	for _, by := range promise.By {
		w.Dates = append(w.Dates, PromiseRow{by.Of, by.Day.Time().Format("Mon 2 Jan")})
	}
	if promise.Due {
		w.Promised = fmt.Sprintf("%s holds in %.0f of 100", p.Laid.Jobs[j].Promised.Time().Format("Mon 2 Jan"),
			100*promise.Holds)
	}
	return nil
}

// typed puts back what was typed into the form, with what is wrong with it, and reports that it has the field of the
// fault.
func (t *TaskSheet) typed(c *echo.Context, fault *field.Error) bool {
	has := map[string]bool{"person": len(t.People) > 0, "place": len(t.Places) > 0, "start": true}
	t.Faults = map[string]string{fault.Field: fault.Text}
	for name, at := range map[string]*string{"person": &t.Person, "place": &t.Place, "start": &t.Start} {
		if text := c.FormValue(name); text != "" {
			*at = text
		}
	}
	return has[fault.Field] && !t.Waits
}

// helpEffort is how many tasks are laid out for each help that is tried.
const helpEffort = 60_000

func whySheet(p *planning.Planned, tag string) (*WhySheet, error) {
	j := p.Job(tag)
	if j < 0 {
		return nil, nil
	}
	w := &WhySheet{Tag: tag, Title: p.Laid.Jobs[j].Title, Late: p.Plan.Late[j] > 0}
	if p.Plan.Undone[j] {
		w.Never = true
		return w, nil
	}
	w.Ends, w.Past = when(p.Laid.Time(p.Plan.Ends[j])), pastWords(p, j)
	if err := w.promises(p, j); err != nil {
		return nil, err
	}
	links, err := plan.Hangs(p.Laid.Problem, p.Plan, j)
	if err != nil {
		return nil, err
	}
	for _, k := range links {
		w.Links = append(w.Links, linkWords(p, k))
	}
	if !w.Late {
		return w, nil
	}
	helps, err := plan.Helps(p.Laid.Problem, p.Plan, j, plan.Options{Effort: helpEffort, Nodes: -1})
	if err != nil {
		return nil, err
	}
	for _, h := range helps[:min(len(helps), mostHelps)] {
		w.Helps = append(w.Helps, helpWords(p, h))
	}
	return w, nil
}

// pastWords say what hours and first tests are learned from.
func pastWords(p *planning.Planned, j int) string {
	l := p.Learned
	if l.Jobs == 0 && l.Tests == 0 {
		return "guidance as it ships, for no job of this shop says yet how long it took"
	}
	_, _, own := l.Of(p.Laid.Jobs[j].Units[0].Model)
	return fmt.Sprintf(
		"guidance, moved by %s of this shop (%d of this model) and %s",
		wording.Counted(l.Jobs, "job", "jobs"),
		own,
		wording.Counted(l.Tests, "unit that was tested", "units that were tested"),
	)
}

// mostHelps are told.
const mostHelps = 3

func linkWords(p *planning.Planned, k plan.Link) string {
	name := p.Laid.Tasks[k.Task].Name
	span := when(p.Laid.Time(k.From)) + " to " + when(p.Laid.Time(k.To)) + ": "
	switch k.For {
	case plan.ForHands:
		words := span + name + " waits for " + p.Laid.Problem.Resources[k.On].Name
		if k.Behind >= 0 {
			words += ", who or which is at " + p.Laid.Keys[k.Behind].Tag + ", " + p.Laid.Tasks[k.Behind].Name
		}
		return words
	case plan.ForHours:
		return span + name + " waits until somebody is there"
	case plan.ForRelease:
		return span + name
	case plan.ForPin:
		return span + name + " was put there by hand"
	case plan.ForDay:
		return span + name + " stays on the day that it had"
	case plan.ForRest:
		return span + name + " rests"
	}
	return span + name
}

func helpWords(p *planning.Planned, h plan.Help) string {
	saved := "saves " + span(h.Saved)
	day := p.Laid.Time(h.Day).Format("Mon 2 Jan")
	switch h.Kind {
	case plan.MoreHands:
		return "One more like " + p.Laid.Problem.Resources[h.On].Name + " on " + day + " " + saved
	case plan.Longer:
		return p.Laid.Problem.Resources[h.On].Name + " three hours longer on " + day + " " + saved
	}
	return p.Laid.Tasks[h.Task].Name + " " + span(h.Early) + " sooner " + saved
}

func span(m plan.Minute) string {
	switch {
	case m >= 2*dayMinutes:
		return strconv.Itoa(m/dayMinutes) + " days"
	case m >= dayMinutes:
		return "a day"
	case m >= 120:
		return strconv.Itoa(m/60) + " hours"
	}
	return strconv.Itoa(m) + " minutes"
}

// shopTime reads a moment of the form, on the clock of the shop.
func shopTime(text string) (*time.Time, error) {
	if text == "" {
		return nil, nil
	}
	t, err := time.Parse(pinForm, text)
	return &t, err
}

package workshop_test

import (
	"slices"
	"testing"
	"time"

	"corvek/core/plan"
	"corvek/core/quantity"
	"corvek/core/remaining"
	"corvek/core/unit"
	"corvek/core/workshop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestHoursAsPeopleWriteThem(t *testing.T) {
	week, err := workshop.ParseHours("Mon–Thu 7:00–12:00 and 12:30 - 16:00, friday 7-13; Sat to Sun 22:15-24:00")
	require.NoError(t, err)
	day := []workshop.Span{{From: 420, To: 720}, {From: 750, To: 960}}
	late := []workshop.Span{{From: 1335, To: 1440}}
	assert.Equal(t, workshop.Week{day, day, day, day, {{From: 420, To: 780}}, late, late}, week)

	for text, says := range map[string]string{
		"Mon":                 "write days and hours",
		"Mun 7-12":            `"mun" is no weekday`,
		"Mon 7-25":            "does not go forward within a day",
		"Mon 12-7":            "does not go forward within a day",
		"Mon seven to twelve": "write hours like",
	} {
		_, err := workshop.ParseHours(text)
		assert.ErrorContains(t, err, says, text)
	}
	none, err := workshop.ParseHours("  ")
	require.NoError(t, err)
	assert.Empty(t, slices.Concat(none[:]...))
}

func FuzzHours(f *testing.F) {
	f.Add("Mon-Fri 7:00-15:30, Sat 8-12")
	f.Fuzz(func(t *testing.T, text string) {
		week, err := workshop.ParseHours(text)
		if err != nil {
			return
		}
		for _, d := range week {
			for _, s := range d {
				assert.True(t, s.From >= 0 && s.From < s.To && s.To <= 24*60, "%q: %v", text, s)
			}
		}
	})
}

// monday is a Monday, at eight.
var monday = time.Date(2031, 5, 12, 8, 0, 0, 0, time.UTC)

func bar(text string) quantity.Quantity {
	q, _ := quantity.Parse(text, quantity.Pressure)
	return q
}

// small is a shop of one who does everything and one who tests, with a weak stand and a strong one.
func small() *workshop.Workshop {
	var all []string
	for _, s := range remaining.Skills {
		all = append(all, string(s))
	}
	return &workshop.Workshop{
		Hands: []workshop.Hands{
			{PersonID: 1, Name: "Ane", Skills: all, Hours: "Mon-Fri 8-16"},
			{PersonID: 2, Name: "Bo", Skills: []string{"test"}, Hours: "Mon-Fri 8-12"},
		},
		Places: []workshop.Place{
			{ID: 1, Name: "stand 1", Kind: "stand", Pressure: bar("210 bar")},
			{ID: 2, Name: "stand 2", Kind: "stand", Pressure: bar("400 bar")},
		},
	}
}

func toTest(tag string, promised unit.Date, pressure float64) workshop.Job {
	return workshop.Job{Tag: tag, Promised: promised, Units: []workshop.UnitWork{{Number: 1,
		Need: remaining.Need{Pressure: pressure}, Tasks: []remaining.Task{
			{Code: "build", Kind: remaining.Build, Name: "20 parts in", Time: 3 * time.Hour},
			{
				Code:  "prove",
				Kind:  remaining.Prove,
				Name:  "6 steps shown",
				Time:  2 * time.Hour,
				After: []string{"build"},
			},
		}}}}
}

func planned(t *testing.T, w *workshop.Workshop, jobs []workshop.Job, pins, stood []workshop.Spot) (*workshop.Laid,
	*plan.Plan) {
	l := w.Lay(jobs, monday, pins, stood, workshop.Learn(remaining.Usual(), nil, 0, 0))
	p, err := plan.Make(l.Problem, plan.Options{})
	require.NoError(t, err)
	return l, p
}

func TestAJobIsPlannedByHandsHoursAndStands(t *testing.T) {
	l, p := planned(t, small(), []workshop.Job{toTest("T-1", "2031-05-12", 300e5)}, nil, nil)
	person, place := l.On(p.Tasks[0])
	assert.Equal(t, "Ane", person)
	assert.Empty(t, place, "the shop has no bench of its own to be planned")
	_, place = l.On(p.Tasks[1])
	assert.Equal(t, "stand 2", place, "stand 1 does not reach 300 bar")
	assert.Equal(t, monday.Add(5*time.Hour), l.Time(p.Tasks[1].End))
	assert.Zero(t, p.Cost.Late)

	_, p = planned(t, small(), []workshop.Job{toTest("T-1", "2031-05-12", 500e5)}, nil, nil)
	assert.Equal(t, plan.NoneCan, p.Tasks[1].Nowhere, "no stand here reaches 500 bar")
	assert.Equal(t, []bool{true}, p.Undone)
}

func TestClosedDaysAbsencesPinsAndWhatStands(t *testing.T) {
	w := small()
	w.Closed = []workshop.ClosedDay{{Day: "2031-05-13"}}
	w.Absences = []workshop.Absence{{PersonID: 1, From: "2031-05-12", To: "2031-05-12"}}
	jobs := []workshop.Job{toTest("T-1", "2031-05-20", 0)}
	l, p := planned(t, w, jobs, nil, nil)
	assert.Equal(t, "2031-05-14 08:00", l.Time(p.Tasks[0].Start).Format("2006-01-02 15:04"))

	at := time.Date(2031, 5, 15, 8, 0, 0, 0, time.UTC)
	pin := workshop.Spot{
		Key:    workshop.Key{Tag: "T-1", Unit: 1, Code: "prove"},
		Person: "Bo",
		Place:  "stand 1",
		Start:  &at,
	}
	l, p = planned(t, w, jobs, []workshop.Spot{pin}, nil)
	person, place := l.On(p.Tasks[1])
	assert.Equal(t, []string{"Bo", "stand 1"}, []string{person, place})
	assert.Equal(t, at, l.Time(p.Tasks[1].Start))

	_, again := planned(t, w, jobs, nil, l.Spots(p))
	assert.Zero(t, again.Cost.Moved, "the plan that stands is kept")
}

// A part that comes sooner than yesterday's plan had it is not waited for until that day.
func TestAWaitIsNotHeldToTheDayItHad(t *testing.T) {
	jobs := func(until unit.Date) []workshop.Job {
		return []workshop.Job{{Tag: "T-1", Units: []workshop.UnitWork{{Number: 1, Tasks: []remaining.Task{
			{Code: "parts", Kind: remaining.Parts, Name: "seal comes", Until: until},
		}}}}}
	}
	l, p := planned(t, small(), jobs("2031-05-20"), nil, nil)
	_, sooner := planned(t, small(), jobs("2031-05-15"), nil, l.Spots(p))
	assert.Equal(t, monday.AddDate(0, 0, 3), l.Time(sooner.Tasks[0].End))
}

func TestWaitsAreLaidByWhatIsKnownOfThem(t *testing.T) {
	wait := func(change func(x *remaining.Task)) string {
		x := remaining.Task{Code: "parts", Kind: remaining.Parts, Name: "seal comes", Days: 3}
		change(&x)
		job := workshop.Job{Tag: "T-1", Units: []workshop.UnitWork{{Number: 1, Tasks: []remaining.Task{x}}}}
		l, p := planned(t, small(), []workshop.Job{job}, nil, nil)
		return l.Time(p.Tasks[0].End).Format("2 15:04")
	}
	assert.Equal(t, "15 08:00", wait(func(*remaining.Task) {}), "three days from now")
	assert.Equal(
		t,
		"14 08:00",
		wait(func(x *remaining.Task) { x.Since = "2031-05-11" }),
		"three days since it was ordered",
	)
	assert.Equal(t, "20 08:00", wait(func(x *remaining.Task) { x.Until = "2031-05-20" }), "the day that was said")
	assert.Equal(
		t,
		"13 08:00",
		wait(func(x *remaining.Task) { x.Until = "2031-05-02" }),
		"overdue: looked for tomorrow",
	)
}

// Who is told, and where: hands and places of another shop do nothing for a job, and who has it does all of it that
// he can.
func TestShopsAndHolder(t *testing.T) {
	w := small()
	w.Hands[0].Site, w.Hands[1].Site = "Quay", "Slip"
	w.Places[0].Site = "Slip"
	onto := func(j workshop.Job) (out [][]string) {
		l := w.Lay([]workshop.Job{j}, monday, nil, nil, &workshop.Learned{Guidance: remaining.Usual()})
		for _, task := range l.Problem.Tasks {
			for _, one := range task.Needs {
				var names []string
				for _, r := range one {
					names = append(names, l.Problem.Resources[r].Name)
				}
				out = append(out, names)
			}
		}
		return out
	}
	job := toTest("T-1", "2031-05-16", 100e5)
	build, test, stand := []string{"Ane"}, []string{"Ane", "Bo"}, []string{"stand 1", "stand 2"}
	assert.Equal(t, [][]string{build, test, stand}, onto(job), "done anywhere")
	job.HeldBy = "Bo"
	assert.Equal(t, [][]string{build, {"Bo"}, stand}, onto(job), "Bo has it, and can test only")
	job.HeldBy, job.Site = "", "Slip"
	assert.Equal(t, [][]string{nil, {"Bo"}, stand}, onto(job), "nobody at Slip builds")
	job.Site = "Quay"
	assert.Equal(t, [][]string{build, {"Ane"}, {"stand 2"}}, onto(job))
}

// A stand whose brake does not hold what a motor must give shows nothing of it; one of which that is not known may.
func TestAStandMustHoldTheTorque(t *testing.T) {
	weak, _ := quantity.Parse("150 N·m", quantity.Torque)
	p := workshop.Place{Torque: weak}
	assert.True(t, p.Reaches(remaining.Need{Torque: 150}))
	assert.False(t, p.Reaches(remaining.Need{Torque: 200}))
	assert.True(t, (&workshop.Place{}).Reaches(remaining.Need{Torque: 200}))
}

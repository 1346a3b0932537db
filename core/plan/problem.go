// Package plan lays out what a shop still has to do: who does which task when, and with what.
//
// A task takes one of each thing it needs (a person who can do it, a stand that reaches the pressure) for as long
// as it lasts, within the hours in which all of these are there. What runs without hands (soaking, draining,
// curing, a part on its way) needs nobody and runs through the night. Of all plans that keep what runs, what a
// person pinned, hours, skills and order, the best has the least cost of lateness; of those the one that changes
// least of the plan that stands; of those the one that is finished first.
//
// Small plans are proved best by branch and bound, large ones searched by simulated annealing over the order of tasks
// (van Laarhoven, Aarts and Lenstra, Job shop scheduling by simulated annealing, 1992), with the moves of the blocks
// of the critical path (Balas and Vazacopoulos, 1998).
package plan

// Minute is a time of the shop's wall clock: minutes since the midnight that the plan begins with.
type Minute = int

// day is how many minutes a day has. A shop's clock is the one on its wall: an hour that is put forward in spring
// is in the hours of nobody.
const day = 24 * 60

// Problem is what is to be planned.
type Problem struct {
	Now       Minute // nothing that does not run already starts before it
	Resources []Resource
	Jobs      []Job
	Tasks     []Task
}

// Resource is a person or a place, of which one task at a time has hold.
type Resource struct {
	Name  string
	Works *Calendar // nil: at any hour
}

// Job is what is promised as a whole.
type Job struct {
	Name   string
	HasDue bool
	Due    Minute
	Cost   int64 // of a minute late, in thousandths of money or whatever the shop counts in
	// Safe is how long before Due the job is to be done, so that the day holds when something takes longer than
	// planned; each minute of it that is used up costs SafeShare of one that is late.
	Safe Minute
}

// SafeShare is which part of a late minute a minute costs that a job ends nearer to its day than is safe.
const SafeShare = 4

// Task is one piece of work on a job, or a wait.
type Task struct {
	Name string
	Job  int    // index into Jobs
	Work Minute // how long it takes while whoever it needs is there
	Cut  bool   // it may be left at the end of the day and gone on with
	// Needs are lists of resources; of each list it has hold of one. None: it runs by itself.
	Needs   [][]int
	After   []After
	Release Minute // not before

	Running *Spot // begun already: Work is what is left of it from now
	Pin     *Spot // a person put it there; where that cannot be, it is told, and the task stands where it can
	Was     *Spot // where the plan that stands has it
}

// After is a task that must be done before, and how long after it nothing may begin.
type After struct {
	Task int
	Wait Minute
}

// Spot is a place in a plan.
type Spot struct {
	Start Minute // Anytime in a pin: only by whom
	On    []int  // resources, one of each need; none in a pin: only when
}

// Anytime is the start of a pin that says only by whom.
const Anytime = -1 << 40

// Cost is how good a plan is, the first figure that differs deciding.
type Cost struct {
	Broken int   // pins that could not be held, and tasks that find no hour at all
	Late   int64 // cost of lateness
	Moved  int   // tasks that have other hands, another place or another day than in the plan that stands
	Finish int64 // sum of the minutes at which the jobs end
}

// Less reports that a plan of this cost is better than one of the other.
func (c Cost) Less(o Cost) bool {
	switch {
	case c.Broken != o.Broken:
		return c.Broken < o.Broken
	case c.Late != o.Late:
		return c.Late < o.Late
	case c.Moved != o.Moved:
		return c.Moved < o.Moved
	}
	return c.Finish < o.Finish
}

// Plan is where every task stands.
type Plan struct {
	Tasks  []Placed // as in the problem
	Ends   []Minute // by job: when its last task ends, 0 where it has none or is not done
	Late   []Minute // by job, 0 where it is not
	Undone []bool   // by job: some of its tasks find no hour, so that it is never done
	Cost   Cost
	Proved bool // nothing better is possible
}

// Placed is a task in the plan.
type Placed struct {
	Start, End Minute
	On         []int // resources that it has hold of
	Moved      bool
	PinBroken  bool // it could not stand where a person put it
	Nowhere    Why  // it finds no hour: why
}

// Why is the reason for which a task cannot be planned at all.
type Why string

// The reasons.
const (
	NoneCan  Why = "none_can"  // a need that no resource of this shop meets
	NoWindow Why = "no_window" // nobody's hours are long enough for what may not be cut
	Waits    Why = "waits"     // for a task that cannot be planned itself, or for itself
)

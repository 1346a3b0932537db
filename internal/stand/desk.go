// Package stand is the test stands that are at work: which of them works for which unit, who
// drives it, and that all it shows is kept.
//
// A Desk and a Session may be used by many at once. A Session has one goroutine that reads and
// drives the stand (rig.Run), one that writes what it showed to the store (recorder), and one
// that lets it go when nobody looks any more; all three end with it, and Desk.Close waits for
// them. Who watches is told of the end: his channel is closed.
package stand

import (
	"context"
	"errors"
	"strings"
	"sync"
	"time"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/mount"
	"corvek/core/trace"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/rig"
	"corvek/internal/store"
)

// Desk holds the stands that are at work. A stand works for one unit at a time, and is driven
// by one instance of the program.
type Desk struct {
	jobs   *job.Service
	mounts Mounts  // nil where a simulated stand shows what the record says of a unit
	pace   float64 // of programs on the simulated stand

	mu     sync.Mutex
	at     map[string]*Session // by the name of the stand
	closed bool
	work   sync.WaitGroup
}

// Mounts lays a unit of practice on its stand as it truly is, so that the stand is to it what a real one is to a real
// unit.
type Mounts func(ctx context.Context, who people.Actor, st *bench.State, t *family.Test) (mount.Mounted, error)

// ForPractice is a desk for units of practice.
func ForPractice(jobs *job.Service, pace float64, mounts Mounts) *Desk {
	d := NewDesk(jobs, pace)
	d.mounts = mounts
	return d
}

// NewDesk gives a desk at which no stand works. pace is how many seconds of a program pass in
// one on the simulated stand, 0 for one.
func NewDesk(jobs *job.Service, pace float64) *Desk {
	return &Desk{jobs: jobs, pace: pace, at: map[string]*Session{}}
}

// Session is a stand at work for a unit.
type Session struct {
	Stand         string
	Said          string // what it calls itself, "" where it did not say so
	Simulated     bool
	Tag           string
	Unit, Attempt int
	Recording     int64

	desk    *Desk
	run     *rig.Run
	release func() // lets other instances have the stand
}

// Source is where figures of this stand are from.
func (w *Session) Source() string {
	switch {
	case w.Exercise():
		return unit.SourceSimulated
	case w.Said == "":
		return unit.SourceUnknown
	}
	return unit.SourceStand
}

// Exercise reports that what the stand shows says nothing of the unit.
func (w *Session) Exercise() bool { return w.Simulated && (w.desk == nil || w.desk.mounts == nil) }

// Of is the stand at work for a unit, nil where there is none.
func (d *Desk) Of(tag string, unit int) *Session {
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, w := range d.at {
		if w.Tag == tag && w.Unit == unit {
			return w
		}
	}
	return nil
}

// WorksFor is the tag of the job that a stand works for, "" where it is free.
func (d *Desk) WorksFor(name string) string {
	d.mu.Lock()
	defer d.mu.Unlock()
	if w := d.at[name]; w != nil {
		return w.Tag
	}
	return ""
}

// forgotten is how long a stand that nobody looks at and that drives nothing is kept, and
// looked how often it is looked.
const (
	forgotten = 5 * time.Minute
	looked    = 10 * time.Second
)

func busy(name, tag string) error {
	return field.Errorf("stand", "%s works for %s just now; let it go there first", name, tag)
}

// Connect begins to read a stand for the open attempt of a unit. What it shows is recorded.
func (d *Desk) Connect(ctx context.Context, who people.Actor, st *bench.State, name string) error {
	a := st.Attempt()
	if a == nil || a.Closed {
		return field.Errorf("stand", "start an attempt first")
	}
	if tag := d.WorksFor(name); tag != "" {
		return busy(name, tag)
	}
	setup, err := d.setup(ctx, name)
	if err != nil {
		return err
	}
	release, err := d.jobs.Store.Claim(ctx, "stand "+name)
	if errors.Is(err, store.ErrClaimed) {
		return field.Errorf("stand", "%s is at work from another bench just now; let it go there first", name)
	}
	if err != nil {
		return err
	}
	if err := d.reach(ctx, who, st, setup, release); err != nil {
		release()
		return err
	}
	return nil
}

// reach dials a stand that is ours and begins to read it.
func (d *Desk) reach(ctx context.Context, who people.Actor, st *bench.State, setup rig.Setup, release func()) error {
	link, err := rig.Dial(ctx, setup)
	if err != nil {
		return field.Errorf("stand", "%s", err)
	}
	a := st.Attempt()
	w := &Session{Stand: setup.Name, Said: link.Said, Simulated: link.Simulated(), Tag: st.Job.Tag,
		Unit: st.Unit.Number, Attempt: a.Number, desk: d, release: release}
	if err := d.begin(ctx, who, w, a, link); err != nil {
		link.Close()
		return err
	}
	return nil
}

// setup is how a stand of the shop is reached.
func (d *Desk) setup(ctx context.Context, name string) (s rig.Setup, err error) {
	list, err := d.jobs.Store.Stands(ctx)
	if err != nil {
		return s, err
	}
	for _, row := range list {
		if row.Name != name {
			continue
		}
		nodes, err := rig.ParseNodes(row.Nodes)
		if err != nil {
			return s, field.Errorf("stand", "%s: %s", name, err)
		}
		return rig.Setup{Name: name, Endpoint: row.Endpoint, Nodes: nodes}, nil
	}
	return s, field.Errorf("stand", "no stand is called %q", name)
}

// begin begins to keep what the stand shows, and to read it. The link stays the caller's where
// it fails.
func (d *Desk) begin(ctx context.Context, who people.Actor, w *Session, a *bench.Attempt, link *rig.Link) error {
	if why := a.Mixed(w.Source()); why != "" {
		return field.Errorf("stand", "%s", why)
	}
	if w.Exercise() {
		if err := d.jobs.BeginExercise(ctx, who, w.Tag, w.Unit); err != nil {
			return err
		}
	}
	var err error
	w.Recording, err = d.jobs.Store.OpenRecording(ctx, w.Tag, store.Recording{
		Unit:      w.Unit,
		Attempt:   w.Attempt,
		Stand:     w.Stand,
		Said:      w.Said,
		Source:    w.Source(),
		Channels:  strings.Join(link.Channels(), " "),
		ByName:    who.Name,
		StartedAt: d.jobs.Now(),
	})
	if err != nil {
		return err
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	switch other := d.at[w.Stand]; {
	case d.closed:
		return field.Errorf("stand", "the program is being stopped")
	case other != nil: // somebody was quicker
		return busy(w.Stand, other.Tag)
	}
	pace := 1.0
	if w.Simulated && d.pace > 0 {
		pace = d.pace
	}
	w.run = rig.Start(link, newRecorder(d.jobs.Store, w.Recording, link.Channels()), pace)
	d.at[w.Stand] = w
	d.work.Go(w.forget)
	return nil
}

// forget lets a stand go that nobody looks at any more.
func (w *Session) forget() {
	clock := time.NewTicker(looked)
	defer clock.Stop()
	for {
		select {
		case <-w.run.Over():
			w.release()
			return
		case <-clock.C:
		}
		if w.run.Left() > forgotten {
			w.Leave()
			return
		}
	}
}

// Leave lets the stand go, and its drive with it. A second time it does nothing.
func (w *Session) Leave() {
	w.desk.mu.Lock()
	if w.desk.at[w.Stand] == w {
		delete(w.desk.at, w.Stand)
	}
	w.desk.mu.Unlock()
	w.run.Close()
	w.release()
}

// Close lets all stands go, and takes no more.
func (d *Desk) Close() {
	d.mu.Lock()
	d.closed = true
	all := make([]*Session, 0, len(d.at))
	for _, w := range d.at {
		all = append(all, w)
	}
	d.mu.Unlock()
	for _, w := range all {
		w.Leave()
	}
	d.work.Wait()
}

// Channels are the figures that the stand shows, by code.
func (w *Session) Channels() []string { return w.run.Channels() }

// Drives reports that the stand is driven from here, and not only read.
func (w *Session) Drives() bool { return w.run.Drives() }

// Now is what the stand shows just now.
func (w *Session) Now() rig.Frame { return w.run.Now() }

// Trace is what is held in memory of it.
func (w *Session) Trace() trace.Trace { return w.run.Trace() }

// Watch gives what the stand shows as it comes; the channel is closed when it is let go. done
// ends it.
func (w *Session) Watch() (frames <-chan rig.Frame, done func()) { return w.run.Watch() }

// Stop lets the drive go at once, for a reason that is told.
func (w *Session) Stop(ctx context.Context, why string) error { return w.run.Stop(ctx, why) }

// Drive begins to drive a step of the plan.
func (w *Session) Drive(ctx context.Context, who people.Actor, st *bench.State, code string) error {
	a := st.Attempt()
	t, known := st.Step(code)
	switch {
	case a == nil || a.Closed || a.Number != w.Attempt:
		return field.Errorf("stand", "the attempt it was connected for is over")
	case !known:
		return field.Errorf("stand", "is not a step of this test")
	case !w.run.Drives():
		return field.Errorf("stand", "%s is read and not driven from here", w.Stand)
	}
	if w.Simulated {
		m, err := w.mounted(ctx, who, st, t)
		if err != nil {
			return err
		}
		if err := w.run.Mount(ctx, m); err != nil {
			return field.Errorf("stand", "%s: %s", w.Stand, err)
		}
	}
	w.run.Program(code, st.Program(t))
	if t.Hold == "" {
		return nil
	}
	w.desk.mu.Lock()
	defer w.desk.mu.Unlock()
	if !w.desk.closed {
		w.desk.work.Go(func() { w.holdBegins(who, code) })
	}
	return nil
}

// mounted is the unit as a simulated stand has it.
func (w *Session) mounted(ctx context.Context, who people.Actor, st *bench.State, t *family.Test) (mount.Mounted,
	error) {
	if w.desk.mounts != nil {
		return w.desk.mounts(ctx, who, st, t)
	}
	facts, err := st.Facts()
	if err != nil {
		return mount.Mounted{}, err
	}
	return facts.Mount(t), nil
}

// holdBegins starts the hold of a step when the ramp is over.
func (w *Session) holdBegins(who people.Actor, code string) {
	frames, done := w.run.Watch()
	defer done()
	for f := range frames {
		switch {
		case f.State == rig.Ramping && f.Step == code:
			continue
		case f.State == rig.Holding && f.Step == code:
			ctx, cancel := context.WithTimeout(context.Background(), writeTime)
			defer cancel()
			// An attempt that was closed meanwhile needs none.
			_ = w.desk.jobs.StartHold(ctx, who, w.Tag, w.Unit, code)
		}
		return
	}
}

// Take writes what the stand showed over the last seconds at a step, still or not.
func (w *Session) Take(ctx context.Context, who people.Actor, code string) error {
	t := w.run.Trace()
	last := t.Last(trace.SteadyOver)
	shown := map[string]float64{}
	for _, code := range t.Channels {
		if mean, _, read := last.Mean(code); read {
			shown[code] = mean
		}
	}
	return w.desk.jobs.TakePoint(ctx, who, w.Tag, w.Unit, job.Reading{Step: code, Source: w.Source(), Stand: w.Stand,
		Shown: shown})
}

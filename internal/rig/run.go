package rig

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"sync"
	"time"

	"corvek/core/mount"
	"corvek/core/proof"
	"corvek/core/trace"
)

// period is how often a stand is read.
const period = 100 * time.Millisecond

// late is from when on a reading does not follow the one before it: one fell out between them.
const late = 5 * period / 2

// Kept is how much of a run is held in memory for its strip chart.
const Kept = 2 * time.Minute

// State is where a run of the stand is.
type State string

// The states of a run.
const (
	Idle    State = "idle"
	Ramping State = "ramping"
	Holding State = "holding"
	Stopped State = "stopped" // by a limit, by hand or by a lost signal; told until the next start
	Lost    State = "lost"
)

// Frame is what a run shows at one moment.
type Frame struct {
	trace.Sample
	State  State
	Step   string
	Why    string // why it was stopped or lost
	Left   time.Duration
	Steady bool
	Moves  string // what is not steady
}

// Recorder keeps what a stand showed. It is called from one goroutine.
type Recorder interface {
	Keep(trace.Sample)
	Note(at time.Time, text string)
	Close()
}

// Run is a stand at work for one unit: it is read ten times a second, watched, driven, and
// all of it recorded. It goes on until Close. A Run may be used by many at once; its own
// goroutine is the only one that reads the stand.
type Run struct {
	link *Link // changed by the own goroutine alone, under mu

	wire    sync.Mutex // held while the stand is set, so that nothing overtakes a stop
	mu      sync.Mutex
	kept    trace.Trace
	frame   Frame
	program *proof.Program
	guard   proof.Guard
	step    string
	started time.Time
	watch   map[chan Frame]bool
	seen    time.Time // somebody last looked
	rec     Recorder
	pace    float64
	cancel  context.CancelFunc
	over    chan struct{}
}

// Start begins to read a stand. rec may be nil. pace is how many seconds of a program pass in
// one: 1, but where only an exercise is tried.
func Start(link *Link, rec Recorder, pace float64) *Run {
	ctx, cancel := context.WithCancel(context.Background())
	r := &Run{link: link, watch: map[chan Frame]bool{}, rec: rec, pace: pace, cancel: cancel, over: make(chan struct{}),
		seen: time.Now()}
	r.kept.Channels = link.Channels()
	r.frame.State = Idle
	go r.loop(ctx)
	return r
}

// Close lets the drive go and ends the run. A second time it does nothing.
func (r *Run) Close() {
	r.cancel()
	<-r.over
}

// Over is closed when the run has ended.
func (r *Run) Over() <-chan struct{} { return r.over }

// linked is the link as it is now: where a stand was lost it is another.
func (r *Run) linked() *Link {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.link
}

// Channels are the figures that are read, by code.
func (r *Run) Channels() []string { return r.linked().Channels() }

// Drives reports that the stand can be driven.
func (r *Run) Drives() bool { return r.linked().Drives() }

// Mount puts a unit on the simulated stand.
func (r *Run) Mount(ctx context.Context, m mount.Mounted) error { return r.linked().Mount(ctx, m) }

// Program begins to drive a step.
func (r *Run) Program(step string, p proof.Program) {
	r.mu.Lock()
	defer r.mu.Unlock()
	from := 0.0
	if now, read := r.reader(r.frame.Sample)("pressure"); read && r.program != nil {
		from = now
	}
	p = p.Begin(from)
	r.program, r.guard, r.step, r.started = &p, p.Guard, step, time.Now()
	r.frame.State, r.frame.Why, r.frame.Step = Ramping, "", step
	r.note("start " + step)
}

// Stop lets the drive go at once, for a reason that is told.
func (r *Run) Stop(ctx context.Context, why string) error {
	r.mu.Lock()
	r.stopped(why)
	r.tell()
	link := r.link
	r.mu.Unlock()
	r.wire.Lock()
	defer r.wire.Unlock()
	return link.Set(ctx, false, 0, 0)
}

// stopped notes that the drive was let go. The caller holds mu.
func (r *Run) stopped(why string) {
	r.program = nil
	r.frame.State, r.frame.Why, r.frame.Left = Stopped, why, 0
	r.note("stopped: " + why)
}

func (r *Run) note(text string) {
	if r.rec != nil {
		r.rec.Note(time.Now(), text)
	}
}

// Now is the newest frame.
func (r *Run) Now() Frame {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.frame
}

// Trace is what is held in memory.
func (r *Run) Trace() trace.Trace {
	r.mu.Lock()
	defer r.mu.Unlock()
	out := r.kept
	out.Samples = append([]trace.Sample(nil), r.kept.Samples...)
	return out
}

// Left is how long nobody has looked.
func (r *Run) Left() time.Duration {
	r.mu.Lock()
	defer r.mu.Unlock()
	if len(r.watch) > 0 || r.program != nil {
		return 0
	}
	return time.Since(r.seen)
}

// Watch gives frames as they come. A watcher that is too slow misses some; at the end of the
// run the channel is closed. done ends it.
func (r *Run) Watch() (frames <-chan Frame, done func()) {
	c := make(chan Frame, 4)
	r.mu.Lock()
	if r.watch == nil { // the run has ended
		close(c)
	} else {
		r.watch[c] = true
	}
	r.mu.Unlock()
	return c, func() {
		r.mu.Lock()
		delete(r.watch, c)
		r.seen = time.Now()
		r.mu.Unlock()
	}
}

func (r *Run) loop(ctx context.Context) {
	defer close(r.over)
	clock := time.NewTicker(period)
	defer clock.Stop()
	defer func() {
		_ = r.link.Set(context.Background(), false, 0, 0)
		r.mu.Lock()
		for c := range r.watch {
			close(c)
		}
		r.watch = nil
		r.mu.Unlock()
		if r.rec != nil {
			r.rec.Close()
		}
		r.link.Close()
	}()
	for {
		select {
		case <-ctx.Done():
			return
		case <-clock.C:
		}
		s, err := r.link.Read(ctx)
		if ctx.Err() != nil {
			return
		}
		if err != nil {
			r.lost(err)
			r.again(ctx)
			continue
		}
		on, pressure, speed := r.take(s)
		if err = r.set(ctx, on, pressure, speed); err != nil && ctx.Err() == nil {
			r.lost(err)
		}
	}
}

// set drives the stand on, or lets it go when a program has ended. A program that was
// stopped since the sample was taken is not driven on.
func (r *Run) set(ctx context.Context, on bool, pressure, speed float64) error {
	r.wire.Lock()
	defer r.wire.Unlock()
	r.mu.Lock()
	on = on && r.program != nil
	r.mu.Unlock()
	switch {
	case on:
		return r.link.Set(ctx, true, pressure, speed)
	case r.letGo():
		return r.link.Set(ctx, false, 0, 0)
	}
	return nil
}

// letGo reports once that a program has ended and the drive must be told so.
func (r *Run) letGo() bool {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.started.IsZero() || r.program != nil {
		return false
	}
	r.started = time.Time{}
	return true
}

// take keeps a sample, watches the limits and says what the stand is to be set to.
func (r *Run) take(s trace.Sample) (on bool, pressure, speed float64) {
	r.mu.Lock()
	defer r.mu.Unlock()
	before := r.frame.Sample
	r.kept.Samples = append(r.kept.Samples, s)
	if n := len(r.kept.Samples); n > int(2*Kept/period) { // trimmed by halves, so that it costs little
		r.kept.Samples = append([]trace.Sample(nil), r.kept.Samples[n-int(Kept/period):]...)
	}
	if r.rec != nil {
		r.rec.Keep(s)
	}
	if r.frame.State == Lost {
		r.frame.State = Stopped
	}
	r.frame.Sample = s
	r.frame.Steady, r.frame.Moves = r.kept.Steady("pressure", "flow", "speed")
	if r.program != nil {
		on, pressure, speed = r.drive(before)
	}
	r.tell()
	return on, pressure, speed
}

// drive moves the program on. The caller holds mu.
func (r *Run) drive(before trace.Sample) (on bool, pressure, speed float64) {
	at := time.Duration(float64(time.Since(r.started)) * r.pace)
	// What was before the start, or longer ago than a reading that fell out, is no jump: on the
	// ramp the pressure has moved on meanwhile, as it should.
	if before.At.Before(r.started) || r.frame.Sample.At.Sub(before.At) > late {
		before = trace.Sample{}
	}
	guard := r.guard
	if !r.program.Holding(at) { // on its way down from where the step before stood
		guard.Pressure = max(guard.Pressure, 1.1*r.program.From)
	}
	if why := guard.Watch(r.reader(r.frame.Sample), r.reader(before)); why != "" {
		r.stopped(why)
		return false, 0, 0
	}
	pressure, speed, done := r.program.At(at)
	if done {
		r.program = nil
		r.frame.State, r.frame.Left = Idle, 0
		r.note("end " + r.step)
		return false, 0, 0
	}
	r.frame.State, r.frame.Left = Ramping, r.program.Ramp+r.program.Hold-at
	if r.program.Holding(at) {
		r.frame.State = Holding
	}
	return true, pressure, speed
}

func (r *Run) reader(s trace.Sample) func(string) (float64, bool) {
	return func(figure string) (float64, bool) {
		i := r.kept.Channel(figure)
		if i < 0 || i >= len(s.Values) || math.IsNaN(s.Values[i]) {
			return 0, false
		}
		return s.Values[i], true
	}
}

// lost notes that the stand answers no more. What ran is stopped: the stand's own guard must
// let the drive go when the beat ends.
func (r *Run) lost(err error) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.frame.State != Lost {
		r.program = nil
		why := "the stand answers no more"
		if !errors.Is(err, context.DeadlineExceeded) {
			why += ": " + err.Error()
		}
		r.frame.State, r.frame.Why, r.frame.Steady, r.frame.Left = Lost, why, false, 0
		r.note("lost: " + why)
	}
	r.tell()
}

// again tries to reach the stand anew. What answers there must be what answered before: what another
// stand shows is not written under the name of this one.
func (r *Run) again(ctx context.Context) {
	r.link.Close()
	link, err := Dial(ctx, r.link.Setup)
	if err == nil && link.Said != r.link.Said {
		err = r.another(link)
	}
	if err != nil {
		select {
		case <-ctx.Done():
		case <-time.After(time.Second):
		}
		return
	}
	r.mu.Lock()
	r.link = link
	r.mu.Unlock()
	_ = link.Set(ctx, false, 0, 0)
}

// another tells that what answers now is not what answered before.
func (r *Run) another(link *Link) error {
	link.Close()
	const silent = "one that says nothing of itself"
	err := fmt.Errorf("what answers now is another stand: %s, was %s", cmp.Or(link.Said, silent),
		cmp.Or(r.link.Said, silent))
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.frame.Why != err.Error() {
		r.frame.Why = err.Error()
		r.note(r.frame.Why)
	}
	r.tell()
	return err
}

// tell gives the frame to who watches. The caller holds mu.
func (r *Run) tell() {
	for c := range r.watch {
		select {
		case c <- r.frame:
		default:
		}
	}
}

package web

import (
	"context"
	"log/slog"
	"strings"
	"sync"
	"time"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/trace"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/rig"
	"corvek/internal/store"
)

// desk holds the stands that are at work. A stand works for one unit at a time, and is
// driven by one instance of the program.
type desk struct {
	mu sync.Mutex
	at map[string]*atWork // by the name of the stand

	pace float64 // of programs on the simulated stand
}

// atWork is a stand at work for a unit.
type atWork struct {
	*rig.Run
	Stand         string
	Simulated     bool
	Tag           string
	Unit, Attempt int
	Recording     int64
}

// source is where figures of this stand are from.
func (w *atWork) source() string {
	if w.Simulated {
		return unit.SourceSimulated
	}
	return unit.SourceStand
}

// of is the stand at work for a unit, nil where there is none.
func (d *desk) of(tag string, unit int) *atWork {
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, w := range d.at {
		if w.Tag == tag && w.Unit == unit {
			return w
		}
	}
	return nil
}

// forgotten is how long a stand that nobody looks at and that drives nothing is kept.
const forgotten = 5 * time.Minute

// connect begins to read a stand for a unit. What it shows is recorded.
func (s *Server) connect(ctx context.Context, who people.Actor, st *bench.State, name string) error {
	a := st.Attempt()
	if a == nil || a.Closed {
		return field.Errorf("stand", "start an attempt first")
	}
	s.desk.mu.Lock()
	other := s.desk.at[name]
	s.desk.mu.Unlock()
	if other != nil {
		return field.Errorf("stand", "%s works for %s just now; let it go there first", name, other.Tag)
	}
	list, err := s.store.Stands(ctx)
	if err != nil {
		return err
	}
	for _, row := range list {
		if row.Name != name {
			continue
		}
		nodes, err := rig.ParseNodes(row.Nodes)
		if err != nil {
			return field.Errorf("stand", "%s: %s", name, err)
		}
		link, err := rig.Dial(ctx, rig.Setup{Name: name, Endpoint: row.Endpoint, Nodes: nodes})
		if err != nil {
			return field.Errorf("stand", "%s", err)
		}
		w := &atWork{Stand: name, Simulated: link.Simulated, Tag: st.Job.Tag, Unit: st.Unit.Number, Attempt: a.Number}
		if why := a.Mixed(w.source()); why != "" {
			link.Close()
			return field.Errorf("stand", "%s", why)
		}
		if w.Simulated {
			if err := s.jobs.BeginExercise(ctx, who, w.Tag, w.Unit); err != nil {
				link.Close()
				return err
			}
		}
		return s.attend(ctx, who, w, link)
	}
	return field.Errorf("stand", "no stand is called %q", name)
}

// attend begins to keep what the stand shows, and to read it.
func (s *Server) attend(ctx context.Context, who people.Actor, w *atWork, link *rig.Link) error {
	id, err := s.store.OpenRecording(ctx, w.Tag, store.Recording{Unit: w.Unit, Attempt: w.Attempt, Stand: w.Stand,
		Source: w.source(), Channels: strings.Join(link.Channels(), " "), ByName: who.Name,
		StartedAt: s.jobs.Now()})
	if err != nil {
		link.Close()
		return err
	}
	w.Recording = id
	s.desk.mu.Lock()
	defer s.desk.mu.Unlock()
	if s.desk.at[w.Stand] != nil { // somebody was quicker
		link.Close()
		return field.Errorf("stand", "%s works for %s just now; let it go there first", w.Stand, s.desk.at[w.Stand].Tag)
	}
	pace := 1.0
	if w.Simulated && s.desk.pace > 0 {
		pace = s.desk.pace
	}
	w.Run = rig.Start(link, newRecorder(s.store, id, link.Channels()), pace)
	s.desk.at[w.Stand] = w
	go s.forget(w)
	return nil
}

// forget lets a stand go that nobody looks at any more.
func (s *Server) forget(w *atWork) {
	for {
		time.Sleep(10 * time.Second)
		s.desk.mu.Lock()
		there := s.desk.at[w.Stand] == w
		s.desk.mu.Unlock()
		if !there {
			return
		}
		if w.Left() > forgotten {
			s.leave(w)
			return
		}
	}
}

// leave lets a stand go.
func (s *Server) leave(w *atWork) {
	s.desk.mu.Lock()
	if s.desk.at[w.Stand] != w {
		s.desk.mu.Unlock()
		return
	}
	delete(s.desk.at, w.Stand)
	s.desk.mu.Unlock()
	w.Close()
}

// Close lets all stands go.
func (s *Server) Close() {
	s.changes.stop()
	s.desk.mu.Lock()
	all := make([]*atWork, 0, len(s.desk.at))
	for _, w := range s.desk.at {
		all = append(all, w)
	}
	s.desk.mu.Unlock()
	for _, w := range all {
		s.leave(w)
	}
}

// chunk is how many samples are kept together: ten seconds.
const chunk = 100

// recorder keeps what a stand shows in the store. The stand is never kept waiting for it.
type recorder struct {
	store *store.Store
	id    int64
	part  trace.Trace
	queue chan func(context.Context, *recorder) error
	over  chan struct{}
	seq   int
}

func newRecorder(s *store.Store, id int64, channels []string) *recorder {
	r := &recorder{store: s, id: id, queue: make(chan func(context.Context, *recorder) error, 64),
		over: make(chan struct{})}
	r.part.Channels = channels
	go r.write()
	return r
}

func (r *recorder) write() {
	defer close(r.over)
	for act := range r.queue {
		ctx, cancel := context.WithTimeout(context.Background(), writeTime)
		if err := act(ctx, r); err != nil {
			slog.Error("a recording could not be kept", "recording", r.id, "error", err)
		}
		cancel()
	}
}

// put hands something to the writer; where the store is too slow for a minute and more, it
// is lost rather than the stand held up.
func (r *recorder) put(act func(context.Context, *recorder) error) {
	select {
	case r.queue <- act:
	default:
		slog.Error("a recording is lost: the store is too slow", "recording", r.id)
	}
}

// Keep keeps a sample.
func (r *recorder) Keep(s trace.Sample) {
	r.part.Samples = append(r.part.Samples, s)
	if len(r.part.Samples) >= chunk {
		r.flush()
	}
}

func (r *recorder) flush() {
	if len(r.part.Samples) == 0 {
		return
	}
	part := r.part
	r.part.Samples = nil
	r.put(func(ctx context.Context, r *recorder) error {
		r.seq++
		return r.store.AddChunk(ctx, r.id, r.seq, &part)
	})
}

// Note keeps what happened.
func (r *recorder) Note(at time.Time, text string) {
	r.put(func(ctx context.Context, r *recorder) error { return r.store.AddNote(ctx, r.id, at, text) })
}

// Close keeps what is left.
func (r *recorder) Close() {
	r.flush()
	close(r.queue)
	<-r.over
}

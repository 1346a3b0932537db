package stand

import (
	"context"
	"log/slog"
	"time"

	"corvek/core/trace"
	"corvek/internal/store"
)

// writeTime is how long the store may take over one write.
const writeTime = 15 * time.Second

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

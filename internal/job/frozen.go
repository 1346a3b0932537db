package job

import (
	"bytes"
	"compress/gzip"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"corvek/core/bench"
	"corvek/core/proof"
	"corvek/core/remaining"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// FrozenName is the paper of a hand-over that holds what was worked out on that day, and what
// it rests on: bench.Frozen as packed JSON.
const FrozenName = "worked-out.json.gz"

// MediaPacked is the media type of papers that are data, and not given out.
const MediaPacked = "application/gzip"

// mostFrozen bounds what a frozen hand-over unpacks to.
const mostFrozen = 64 << 20

// Pack writes data as packed JSON.
func Pack(data any) ([]byte, error) {
	var b bytes.Buffer
	z := gzip.NewWriter(&b)
	if err := json.NewEncoder(z).Encode(data); err != nil {
		return nil, err
	}
	err := z.Close()
	return b.Bytes(), err
}

// Unpack reads what Pack wrote.
func Unpack(content []byte, data any) error {
	z, err := gzip.NewReader(bytes.NewReader(content))
	if err != nil {
		return err
	}
	return json.NewDecoder(io.LimitReader(z, mostFrozen)).Decode(data)
}

// handOver is a job as it went out once.
type handOver struct {
	tag    string
	number int
}

// Frozen is what the units of a job that is handed over rested on, nil of an open one, and of
// one that is not frozen yet.
func (s *Service) Frozen(ctx context.Context, j *unit.Job) (*bench.Frozen, error) {
	if !j.HandedOver() {
		return nil, nil
	}
	at := handOver{j.Tag, j.HandOver()}
	if f, ok := s.frozen.Get(at); ok {
		return f, nil
	}
	p, err := s.Store.Paper(ctx, j.Tag, at.number, FrozenName)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	f := &bench.Frozen{}
	if err := Unpack(p.Content, f); err != nil {
		return nil, fmt.Errorf("what was worked out at hand-over %d of %s: %w", at.number, j.Tag, err)
	}
	s.frozen.Add(at, f)
	return f, nil
}

// freeze keeps what the job's units come to as they are now.
func (w *writing) freeze(later bool) error {
	f := bench.Freeze(w.states, w.service.moment(), later)
	content, err := Pack(f)
	if err != nil {
		return err
	}
	sum := sha256.Sum256(content)
	p := store.Paper{HandOver: w.Job.HandOver(), Name: FrozenName, MediaType: MediaPacked, At: f.At,
		SHA256: hex.EncodeToString(sum[:]), Content: content}
	w.papers = append(w.papers, p)
	for _, st := range w.states {
		claim, _ := st.Claim()
		w.results = append(w.results, store.Result{HandOver: p.HandOver, Unit: st.Unit.Number,
			Proved: claim == proof.Proved, Attempts: len(st.Unit.Attempts), Rounds: st.Unit.Round(),
			Reckoned: st.Reckoned(remaining.Usual()).Hours()})
	}
	w.happened(unit.Event{Kind: unit.EventPaperKept, HandOver: p.HandOver, Name: p.Name, Sum: p.SHA256})
	return nil
}

// FreezeLater freezes a job that was handed over by an earlier version of the program, by what
// is known now, and says so.
func (s *Service) FreezeLater(ctx context.Context, who people.Actor, tag string) error {
	return s.changeAny(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		f, err := s.Frozen(ctx, w.was)
		if err != nil {
			return err
		}
		if f != nil || !w.Job.HandedOver() {
			return store.ErrUnchanged
		}
		w.freezes = later
		return nil
	})
}

// Today is a job's unit by what is known today, beside what was worked out when it was handed
// over.
type Today struct {
	Frozen *bench.Frozen
	Then   bench.Outcome
	Shown  bench.Outcome // what this version of the program makes of it, by what was known then
	Now    bench.Outcome // and by what is known today
}

// Today works a unit that was handed over out anew, by what is known today. It changes nothing.
func (s *Service) Today(ctx context.Context, tag string, number int) (*Today, error) {
	st, err := s.Load(ctx, tag, number)
	if err != nil {
		return nil, err
	}
	f, err := s.Frozen(ctx, st.Job)
	if err != nil {
		return nil, err
	}
	if f == nil || f.Unit(number) == nil {
		return nil, fmt.Errorf("%w: unit %d of %s is not handed over", store.ErrNotFound, number, tag)
	}
	now, err := s.compute(s.catalog(), st.Job, number)
	if err != nil {
		return nil, err
	}
	return &Today{Frozen: f, Then: f.Unit(number).Outcome, Shown: st.Outcome(), Now: now.Outcome()}, nil
}

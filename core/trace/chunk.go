package trace

import (
	"encoding/binary"
	"errors"
	"math"
	"time"
)

// Outline is a stretch of a trace by the least and the most of each channel, NaN where
// nothing was read.
type Outline struct {
	From, To  time.Time
	Low, High []float64
}

// Outline gives the outline of the whole trace.
func (t *Trace) Outline() Outline {
	n := len(t.Channels)
	o := Outline{Low: make([]float64, n), High: make([]float64, n)}
	for i := range n {
		o.Low[i], o.High[i] = math.NaN(), math.NaN()
	}
	if len(t.Samples) == 0 {
		return o
	}
	o.From, o.To = t.Samples[0].At, t.Samples[len(t.Samples)-1].At
	for _, s := range t.Samples {
		for i, v := range s.Values {
			o.widen(i, v, v)
		}
	}
	return o
}

func (o *Outline) widen(i int, low, high float64) {
	if !math.IsNaN(low) && !(o.Low[i] <= low) {
		o.Low[i] = low
	}
	if !math.IsNaN(high) && !(o.High[i] >= high) {
		o.High[i] = high
	}
}

// Join joins neighbouring outlines until at most as many are left, so that a day is drawn by
// as many lines as a screen has.
func Join(list []Outline, most int) []Outline {
	if most < 1 || len(list) <= most {
		return list
	}
	each := (len(list) + most - 1) / most
	var out []Outline
	for at := 0; at < len(list); at += each {
		group := list[at:min(at+each, len(list))]
		o := Outline{From: group[0].From, To: group[len(group)-1].To,
			Low: append([]float64(nil), group[0].Low...), High: append([]float64(nil), group[0].High...)}
		for _, g := range group[1:] {
			for i := range o.Low {
				o.widen(i, g.Low[i], g.High[i])
			}
		}
		out = append(out, o)
	}
	return out
}

// A chunk is kept as little-endian numbers: of each sample the milliseconds since the first
// as uint32 and a float32 a channel; of an outline a float32 for each least and each most.
// Seven digits are more than any gauge has.
const number32 = 4

// Pack writes the samples of a chunk.
func (t *Trace) Pack() []byte {
	out := make([]byte, 0, len(t.Samples)*(1+len(t.Channels))*number32)
	for _, s := range t.Samples {
		// Rounded, not cut: 4.1 s of a log is a nanosecond short of it as a binary fraction.
		after := s.At.Sub(t.Samples[0].At).Round(time.Millisecond)
		out = binary.LittleEndian.AppendUint32(out, uint32(after.Milliseconds()))
		for _, v := range s.Values {
			out = binary.LittleEndian.AppendUint32(out, math.Float32bits(float32(v)))
		}
	}
	return out
}

var errChunk = errors.New("what was kept of this run is damaged")

// Unpack reads samples that Pack wrote, behind those that are there.
func (t *Trace) Unpack(content []byte, from time.Time) error {
	row := (1 + len(t.Channels)) * number32
	if len(content)%row != 0 {
		return errChunk
	}
	for ; len(content) > 0; content = content[row:] {
		after := binary.LittleEndian.Uint32(content)
		s := Sample{At: from.Add(time.Duration(after) * time.Millisecond)}
		for i := range t.Channels {
			bits := binary.LittleEndian.Uint32(content[(1+i)*number32:])
			s.Values = append(s.Values, float64(math.Float32frombits(bits)))
		}
		t.Samples = append(t.Samples, s)
	}
	return nil
}

// Pack writes an outline.
func (o Outline) Pack() []byte {
	var out []byte
	for _, v := range append(append([]float64(nil), o.Low...), o.High...) {
		out = binary.LittleEndian.AppendUint32(out, math.Float32bits(float32(v)))
	}
	return out
}

// UnpackOutline reads an outline that Pack wrote.
func UnpackOutline(content []byte, channels int, from, to time.Time) (Outline, error) {
	o := Outline{From: from, To: to}
	if len(content) != 2*channels*number32 {
		return o, errChunk
	}
	for i := range 2 * channels {
		v := float64(math.Float32frombits(binary.LittleEndian.Uint32(content[i*number32:])))
		if i < channels {
			o.Low = append(o.Low, v)
		} else {
			o.High = append(o.High, v)
		}
	}
	return o, nil
}

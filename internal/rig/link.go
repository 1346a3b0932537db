package rig

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"strings"
	"time"

	"corvek/core/mount"
	"corvek/core/trace"

	"github.com/gopcua/opcua"
	"github.com/gopcua/opcua/id"
	"github.com/gopcua/opcua/ua"
)

// answerWithin is how long a stand has for one answer: what takes longer counts as lost, so
// that a loss is told within a second.
const answerWithin = 600 * time.Millisecond

// Link is the connection to a stand over OPC UA.
type Link struct {
	Setup Setup
	Said  string // what the stand calls itself, "" where it did not say so in time

	client   *opcua.Client
	channels []Node
	control  map[string]Node
}

// Dial connects to a stand.
func Dial(ctx context.Context, s Setup) (*Link, error) {
	ctx, cancel := context.WithTimeout(ctx, 3*time.Second)
	defer cancel()
	client, err := opcua.NewClient(s.Endpoint, opcua.SecurityMode(ua.MessageSecurityModeNone),
		opcua.AutoReconnect(false), opcua.RequestTimeout(answerWithin), opcua.DialTimeout(2*time.Second))
	if err != nil {
		return nil, fmt.Errorf("the stand %s: %w", s.Name, err)
	}
	if err := client.Connect(ctx); err != nil {
		return nil, fmt.Errorf("the stand %s does not answer at %s: %w", s.Name, s.Endpoint, err)
	}
	l := &Link{Setup: s, client: client, control: map[string]Node{}}
	for _, n := range s.Nodes {
		if n.figure() {
			l.channels = append(l.channels, n)
		} else {
			l.control[n.Code] = n
		}
	}
	name, err := client.Node(ua.NewNumericNodeID(0, id.Server_ServerStatus_BuildInfo_ProductName)).Value(ctx)
	if err == nil && name != nil {
		said, _ := name.Value().(string)
		l.Said = strings.TrimSpace(said)
	}
	return l, nil
}

// Simulated reports that the stand says of itself that it is the simulated one.
func (l *Link) Simulated() bool { return l.Said == ProductName }

// Close ends the connection.
func (l *Link) Close() {
	ctx, cancel := context.WithTimeout(context.Background(), time.Second)
	defer cancel()
	_ = l.client.Close(ctx)
}

// Channels are the figures that the stand reads.
func (l *Link) Channels() (out []string) {
	for _, n := range l.channels {
		out = append(out, n.Code)
	}
	return out
}

// Drives reports whether the stand can be driven from here.
func (l *Link) Drives() bool {
	_, on := l.control[NodeDrive]
	_, pressure := l.control[NodePressure]
	return on && pressure
}

// Read reads all channels once, in base units.
func (l *Link) Read(ctx context.Context) (s trace.Sample, err error) {
	ctx, cancel := context.WithTimeout(ctx, answerWithin)
	defer cancel()
	req := &ua.ReadRequest{TimestampsToReturn: ua.TimestampsToReturnNeither}
	for _, n := range l.channels {
		req.NodesToRead = append(req.NodesToRead, &ua.ReadValueID{NodeID: n.ID})
	}
	res, err := l.client.Read(ctx, req)
	if err != nil {
		return s, err
	}
	if len(res.Results) != len(l.channels) {
		return s, errors.New("the stand answered something else than was asked")
	}
	s.At = time.Now()
	for i, r := range res.Results {
		v := math.NaN()
		if r.Status == ua.StatusOK && r.Value != nil {
			v = float(r.Value.Value())*l.channels[i].Unit.Factor + l.channels[i].Unit.Offset
		}
		s.Values = append(s.Values, v)
	}
	return s, nil
}

// float reads whatever number a stand speaks in.
func float(v any) float64 {
	switch x := v.(type) {
	case float64:
		return x
	case float32:
		return float64(x)
	case int16:
		return float64(x)
	case uint16:
		return float64(x)
	case int32:
		return float64(x)
	case uint32:
		return float64(x)
	case int64:
		return float64(x)
	case uint64:
		return float64(x)
	}
	return math.NaN()
}

// Set drives the stand: on or off, at a pressure in Pa and a speed in rev/min.
func (l *Link) Set(ctx context.Context, on bool, pressure, speed float64) error {
	values := []write{{NodeDrive, on}, {NodePressure, pressure}, {NodeSpeed, speed}, {NodeBeat, true}}
	if !on { // the drive first, whatever becomes of the rest
		return l.write(ctx, values[:2]...)
	}
	return l.write(ctx, values...)
}

// Mount tells the simulated stand which unit lies on it. A real stand has no such node.
func (l *Link) Mount(ctx context.Context, m mount.Mounted) error {
	text, err := json.Marshal(m)
	if err != nil {
		return err
	}
	return l.write(ctx, write{NodeMounted, string(text)})
}

type write struct {
	node  string
	value any
}

func (l *Link) write(ctx context.Context, values ...write) error {
	ctx, cancel := context.WithTimeout(ctx, answerWithin)
	defer cancel()
	req := &ua.WriteRequest{}
	for _, w := range values {
		n, has := l.control[w.node]
		if !has {
			continue
		}
		if v, number := w.value.(float64); number {
			w.value = (v - n.Unit.Offset) / n.Unit.Factor
		}
		req.NodesToWrite = append(req.NodesToWrite, &ua.WriteValue{NodeID: n.ID, AttributeID: ua.AttributeIDValue,
			Value: &ua.DataValue{EncodingMask: ua.DataValueValue, Value: ua.MustVariant(w.value)}})
	}
	if len(req.NodesToWrite) == 0 {
		return nil
	}
	res, err := l.client.Write(ctx, req)
	if err != nil {
		return err
	}
	for i, code := range res.Results {
		if code != ua.StatusOK {
			return fmt.Errorf("the stand refuses %s: %w", req.NodesToWrite[i].NodeID, code)
		}
	}
	return nil
}

package rig

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"net"
	"slices"
	"strconv"
	"sync"
	"time"

	"corvek/core/mount"

	"github.com/gopcua/opcua/id"
	"github.com/gopcua/opcua/server"
	"github.com/gopcua/opcua/server/attrs"
	"github.com/gopcua/opcua/ua"
)

// ProductName is how the simulated stand says of itself that it is one. Whatever a shop
// calls it, figures of a server of this name are an exercise.
const ProductName = "Corvek simulated stand"

// tick is how often the simulated stand moves on.
const tick = 20 * time.Millisecond

// deadMan is how long the simulated stand runs on without a beat of who drives it.
const deadMan = time.Second

// Server is the simulated stand behind OPC UA.
type Server struct {
	Endpoint string // opc.tcp://127.0.0.1:4840

	mu    sync.Mutex
	bench *Simulated
	// chosen is what is wrong with the stand, whatever unit lies on it.
	chosen []string
	shown  map[string]float64 // what the instruments show since the last tick
	beat   time.Time
	pace   float64
	space  uint16
}

// Serve runs a simulated stand on an address of this machine until ctx ends. pace is how
// many seconds of the stand pass in one, 1 for a stand as it is. The address must be on
// loopback: nobody else has any business with a stand that is none.
func Serve(ctx context.Context, addr string, pace float64, faults ...string) (*Server, error) {
	return serve(ctx, ProductName, addr, pace, faults...)
}

// serve runs it under a name of its own.
func serve(ctx context.Context, name, addr string, pace float64, faults ...string) (*Server, error) {
	host, port, err := net.SplitHostPort(addr)
	if err != nil {
		return nil, fmt.Errorf("%q is no address like 127.0.0.1:4840: %w", addr, err)
	}
	if ip := net.ParseIP(host); ip == nil || !ip.IsLoopback() {
		return nil, fmt.Errorf("%s is not on this machine: the simulated stand serves on loopback only", host)
	}
	n, err := strconv.Atoi(port)
	if err != nil {
		return nil, fmt.Errorf("%q is no port", port)
	}
	if n == 0 {
		if n, err = freePort(host); err != nil {
			return nil, err
		}
	}
	s := &Server{Endpoint: fmt.Sprintf("opc.tcp://%s:%d", host, n), bench: NewSimulated(uint64(n)), pace: pace,
		chosen: faults}
	s.bench.Unit.Faults = faults
	srv := server.New(server.EndPoint(host, n), server.EnableAuthMode(ua.UserTokenTypeAnonymous),
		server.EnableSecurity("None", ua.MessageSecurityModeNone), server.ServerName(name),
		server.ProductName(name), server.ManufacturerName("Corvek"))
	s.space = uint16(srv.AddNamespace(s))
	if err := srv.Start(ctx); err != nil {
		return nil, err
	}
	go func() {
		clock := time.NewTicker(tick)
		defer clock.Stop()
		for {
			select {
			case <-ctx.Done():
				_ = srv.Close()
				return
			case <-clock.C:
				s.step()
			}
		}
	}()
	return s, nil
}

func freePort(host string) (int, error) {
	l, err := net.Listen("tcp", net.JoinHostPort(host, "0"))
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

func (s *Server) step() {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.bench.Controls.Drive && time.Since(s.beat) > deadMan {
		s.bench.Controls = Controls{} // nobody is there any more
	}
	s.bench.Step(tick.Seconds() * s.pace)
	s.shown = s.bench.Read()
}

// Driven reports whether the drive runs, and the pressure it is set to.
func (s *Server) Driven() (on bool, pressure float64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.bench.Controls.Drive, s.bench.Controls.Pressure
}

// Fault sets what is wrong with the stand.
func (s *Server) Fault(faults ...string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.chosen = faults
	s.bench.Unit.Faults = faults
}

// value is what a node shows.
func (s *Server) value(node string) (v any, known bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	switch node {
	case NodeDrive:
		return s.bench.Controls.Drive, true
	case NodePressure:
		return s.bench.Controls.Pressure, true
	case NodeSpeed:
		return s.bench.Controls.Speed, true
	case NodeMounted, NodeBeat:
		return "", true
	}
	if !slices.Contains(channels, node) {
		return nil, false
	}
	if read, ok := s.shown[node]; ok {
		return read, true
	}
	return math.NaN(), true
}

// set writes a node; ok is false where it cannot be written.
func (s *Server) set(node string, v any) (ok bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	c := &s.bench.Controls
	switch node {
	case NodeDrive:
		c.Drive, ok = v.(bool)
		s.beat = time.Now()
	case NodePressure:
		c.Pressure, ok = v.(float64)
	case NodeSpeed:
		c.Speed, ok = v.(float64)
	case NodeBeat:
		s.beat, ok = time.Now(), true
	case NodeMounted:
		text, is := v.(string)
		var m mount.Mounted
		if !is || json.Unmarshal([]byte(text), &m) != nil {
			return false
		}
		// What is wrong with the unit comes with it; what was chosen for the stand stays.
		m.Faults = append(m.Faults, s.chosen...)
		s.bench.Unit, ok = m, true
	}
	return ok
}

func (s *Server) silent() bool {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.bench.has(mount.FaultSilent)
}

// Attribute answers a read.
func (s *Server) Attribute(n *ua.NodeID, a ua.AttributeID) *ua.DataValue {
	for s.silent() {
		time.Sleep(tick)
	}
	if n.IntID() == id.ObjectsFolder {
		if v, err := s.Objects().Attribute(a); err == nil {
			return v.Value
		}
		return failed(ua.StatusBadAttributeIDInvalid)
	}
	v, known := s.value(n.StringID())
	if !known {
		return failed(ua.StatusBadNodeIDUnknown)
	}
	switch a {
	case ua.AttributeIDValue:
	case ua.AttributeIDNodeID:
		v = n
	case ua.AttributeIDNodeClass:
		v = int32(ua.NodeClassVariable)
	case ua.AttributeIDBrowseName:
		v = &ua.QualifiedName{NamespaceIndex: s.space, Name: n.StringID()}
	case ua.AttributeIDDisplayName:
		v = ua.NewLocalizedText(n.StringID())
	default:
		return failed(ua.StatusBadAttributeIDInvalid)
	}
	return &ua.DataValue{EncodingMask: ua.DataValueValue | ua.DataValueServerTimestamp | ua.DataValueStatusCode,
		ServerTimestamp: time.Now(), Status: ua.StatusOK, Value: ua.MustVariant(v)}
}

func failed(code ua.StatusCode) *ua.DataValue {
	return &ua.DataValue{EncodingMask: ua.DataValueServerTimestamp | ua.DataValueStatusCode,
		ServerTimestamp: time.Now(), Status: code}
}

// SetAttribute answers a write.
func (s *Server) SetAttribute(n *ua.NodeID, a ua.AttributeID, v *ua.DataValue) ua.StatusCode {
	if a != ua.AttributeIDValue || v.Value == nil || !s.set(n.StringID(), v.Value.Value()) {
		return ua.StatusBadTypeMismatch
	}
	return ua.StatusOK
}

// Name is the URI of the stand's namespace.
func (s *Server) Name() string { return "urn:corvek:stand" }

// ID is the number of the stand's namespace.
func (s *Server) ID() uint16 { return s.space }

// SetID is told the number of the stand's namespace.
func (s *Server) SetID(n uint16) { s.space = n }

// AddNode does nothing: the nodes of the stand are its channels.
func (s *Server) AddNode(n *server.Node) *server.Node { return n }

// Node finds a node for the server's own needs.
func (s *Server) Node(*ua.NodeID) *server.Node { return nil }

// Root is the folder above.
func (s *Server) Root() *server.Node { return s.folder(id.RootFolder, "Root") }

// Objects is the folder in which the channels stand.
func (s *Server) Objects() *server.Node { return s.folder(id.ObjectsFolder, "Stand") }

func (s *Server) folder(number uint32, name string) *server.Node {
	return server.NewNode(ua.NewNumericNodeID(s.space, number), map[ua.AttributeID]*ua.DataValue{
		ua.AttributeIDNodeClass:   server.DataValueFromValue(int32(ua.NodeClassObject)),
		ua.AttributeIDBrowseName:  server.DataValueFromValue(attrs.BrowseName(name)),
		ua.AttributeIDDisplayName: server.DataValueFromValue(attrs.DisplayName(name, name)),
	}, nil, nil)
}

// Browse lists the channels.
func (s *Server) Browse(d *ua.BrowseDescription) *ua.BrowseResult {
	out := &ua.BrowseResult{StatusCode: ua.StatusGood}
	if d.NodeID.IntID() != id.ObjectsFolder {
		return out
	}
	for _, name := range slices.Concat(channels, []string{NodeDrive, NodePressure, NodeSpeed}) {
		node := ua.NewStringExpandedNodeID(s.space, name)
		out.References = append(out.References, &ua.ReferenceDescription{
			ReferenceTypeID: ua.NewNumericNodeID(0, id.HasComponent), IsForward: true, NodeID: node,
			BrowseName:  &ua.QualifiedName{NamespaceIndex: s.space, Name: name},
			DisplayName: ua.NewLocalizedText(name), NodeClass: ua.NodeClassVariable, TypeDefinition: node,
		})
	}
	return out
}

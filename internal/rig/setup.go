package rig

import (
	"fmt"
	"net/url"
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/quantity"

	"github.com/gopcua/opcua/ua"
)

// Nodes by which a stand is driven. A stand that only tells has none of them.
const (
	NodeDrive    = "drive"        // runs while true
	NodePressure = "set_pressure" // in the unit of its line
	NodeSpeed    = "set_speed"
	NodeBeat     = "beat"    // written ten times a second while a program runs
	NodeMounted  = "mounted" // only of the simulated stand: the unit that lies on it
)

var controls = []string{NodeDrive, NodePressure, NodeSpeed, NodeBeat, NodeMounted}

// Node is a value of a stand: where it stands and in which unit it speaks.
type Node struct {
	Code string // a figure of the test, or one of the controls
	ID   *ua.NodeID
	Unit quantity.Unit
}

// Setup is a stand as the shop describes it.
type Setup struct {
	Name     string
	Endpoint string
	Nodes    []Node
}

// mostNodes keeps a stand to what can be read ten times a second.
const mostNodes = 64

// ParseNodes reads a description of a stand's nodes, a line a node:
//
//	pressure = ns=2;s=Bench.P1 in bar
//	drive = ns=2;i=41
//
// Errors name the line.
func ParseNodes(text string) (out []Node, err error) {
	for at, line := range strings.Split(text, "\n") {
		line = strings.TrimSpace(line)
		if line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		n, err := parseNode(line)
		if err != nil {
			return nil, fmt.Errorf("line %d: %w", at+1, err)
		}
		if slices.ContainsFunc(out, func(o Node) bool { return o.Code == n.Code }) {
			return nil, fmt.Errorf("line %d: %s stands there twice", at+1, n.Code)
		}
		if out = append(out, n); len(out) > mostNodes {
			return nil, fmt.Errorf("line %d: a stand has at most %d nodes", at+1, mostNodes)
		}
	}
	if !slices.ContainsFunc(out, func(n Node) bool { return n.figure() }) {
		return nil, fmt.Errorf("line 1: no node is a figure, such as pressure = ns=2;s=P1 in bar")
	}
	return out, nil
}

func parseNode(line string) (n Node, err error) {
	code, rest, ok := strings.Cut(line, "=")
	if !ok {
		return n, fmt.Errorf("%q: write figure = node in unit, as in pressure = ns=2;s=P1 in bar", line)
	}
	n.Code = strings.TrimSpace(code)
	address, unit, _ := strings.Cut(rest, " in ")
	n.ID, err = ua.ParseNodeID(strings.TrimSpace(address))
	if err != nil || !strings.Contains(address, "=") {
		return n, fmt.Errorf("%q is no OPC UA node such as ns=2;s=P1", strings.TrimSpace(address))
	}
	dim, known := n.dim()
	if !known {
		return n, fmt.Errorf("%q is no figure of a stand: %s", n.Code, strings.Join(codes(), ", "))
	}
	n.Unit = quantity.Unit{Factor: 1}
	if unit = strings.TrimSpace(unit); unit != "" {
		if n.Unit, ok = quantity.UnitByName(unit, dim); !ok {
			return n, fmt.Errorf("%s: %q is no unit of %s", n.Code, unit, dim)
		}
	} else if dim != quantity.Number {
		return n, fmt.Errorf("%s: say its unit, as in %s = %s in %s", n.Code, n.Code, strings.TrimSpace(address),
			example(dim))
	}
	return n, nil
}

func example(dim quantity.Dimension) string {
	u, _ := quantity.ShopUnit(1, dim, quantity.Metric)
	return u.Name
}

// dim is what the node's value is a quantity of.
func (n Node) dim() (dim quantity.Dimension, known bool) {
	switch n.Code {
	case NodeDrive, NodeBeat, NodeMounted:
		return quantity.Number, true
	case NodePressure:
		return quantity.Pressure, true
	case NodeSpeed:
		return quantity.Rotation, true
	}
	f, known := family.FigureByCode(n.Code)
	return f.Dim, known
}

// figure reports that the node is read.
func (n Node) figure() bool { return !slices.Contains(controls, n.Code) }

func codes() (out []string) {
	for _, f := range family.Figures {
		out = append(out, f.Code)
	}
	return append(out, NodeDrive, NodePressure, NodeSpeed, NodeBeat)
}

// CheckEndpoint says what is wrong with the address of a stand.
func CheckEndpoint(text string) error {
	u, err := url.Parse(text)
	if err != nil || u.Scheme != "opc.tcp" || u.Hostname() == "" || u.Port() == "" {
		return fmt.Errorf("is an address like opc.tcp://127.0.0.1:4840")
	}
	return nil
}

// SimulatedNodes is the description of the simulated stand.
func SimulatedNodes() string {
	var b strings.Builder
	for _, code := range slices.Concat(channels, controls) {
		n := Node{Code: code}
		dim, _ := n.dim()
		fmt.Fprintf(&b, "%s = ns=1;s=%s", code, code)
		if dim != quantity.Number {
			fmt.Fprintf(&b, " in %s", baseUnit(dim))
		}
		b.WriteString("\n")
	}
	return b.String()
}

// baseUnit is the name of the unit whose figures need no factor.
func baseUnit(dim quantity.Dimension) string {
	if dim == quantity.Temperature {
		return "°C"
	}
	return dim.Base()
}

// Read is how many of the nodes are read.
func Read(nodes []Node) (n int) {
	for _, node := range nodes {
		if node.figure() {
			n++
		}
	}
	return n
}

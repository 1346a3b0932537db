package rig_test

import (
	"testing"

	"corvek/internal/rig"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestNodesOfAStand(t *testing.T) {
	nodes, err := rig.ParseNodes("# east stand\npressure = ns=2;s=Bench.P1 in bar\n\ndrive = ns=2;i=41\n" +
		"temperature = ns=2;s=T in °F\n")
	require.NoError(t, err)
	require.Len(t, nodes, 3)
	assert.Equal(t, "ns=2;s=Bench.P1", nodes[0].ID.String())
	assert.InDelta(t, 1e5, nodes[0].Unit.Factor, 1e-9)
	for _, c := range []struct{ text, says string }{
		{"", "no node is a figure"}, {"drive = ns=2;i=41", "no node is a figure"},
		{"pressure", "line 1"}, {"pressure = P1 in bar", "no OPC UA node"},
		{"pressure = ns=2;s=P1", "say its unit"}, {"pressure = ns=2;s=P1 in mm", "no unit of a pressure"},
		{"mood = ns=2;s=P1", "no figure of a stand"},
		{"pressure = ns=2;s=P1 in bar\npressure = ns=2;s=P2 in bar", "line 2: pressure stands there twice"},
	} {
		_, err := rig.ParseNodes(c.text)
		assert.ErrorContains(t, err, c.says, c.text)
	}
	nodes, err = rig.ParseNodes(rig.SimulatedNodes())
	require.NoError(t, err, "the simulated stand is described in the same way")
	assert.Greater(t, len(nodes), 20)
	assert.NoError(t, rig.CheckEndpoint("opc.tcp://127.0.0.1:4840"))
	for _, bad := range []string{"", "127.0.0.1:4840", "http://x:1", "opc.tcp://host"} {
		assert.Error(t, rig.CheckEndpoint(bad), bad)
	}
}

func FuzzParseNodes(f *testing.F) {
	f.Add("pressure = ns=2;s=P1 in bar\n")
	f.Add("= =\n")
	f.Fuzz(func(t *testing.T, text string) {
		nodes, err := rig.ParseNodes(text)
		if err == nil && len(nodes) == 0 {
			t.Fatal("nothing was read and nothing said")
		}
	})
}

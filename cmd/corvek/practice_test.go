package main

import (
	"context"
	"testing"
	"time"

	"corvek/internal/rig"

	"github.com/gopcua/opcua"
	"github.com/gopcua/opcua/ua"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whatever is sent to the practice stand, only the stand can end by it: it comes back at the same
// address, and who started it goes on.
func TestThePracticeStandComesBack(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	defer stop()
	endpoint, err := keptUp(ctx, binary)
	require.NoError(t, err)
	nodes, err := rig.ParseNodes(rig.SimulatedNodes())
	require.NoError(t, err)
	answers := func() bool {
		link, err := rig.Dial(ctx, rig.Setup{Name: practice, Endpoint: endpoint, Nodes: nodes})
		if err != nil {
			return false
		}
		defer link.Close()
		_, err = link.Read(ctx)
		return err == nil
	}
	require.True(t, answers())
	for _, often := range []time.Duration{0, -time.Second} {
		client, err := opcua.NewClient(endpoint, opcua.SecurityMode(ua.MessageSecurityModeNone))
		require.NoError(t, err)
		if client.Connect(ctx) == nil {
			_, _ = client.Subscribe(
				ctx,
				&opcua.SubscriptionParameters{Interval: often},
				make(chan *opcua.PublishNotificationData),
			)
			_ = client.Close(ctx)
		}
	}
	assert.Eventually(t, answers, 20*time.Second, 100*time.Millisecond)
}

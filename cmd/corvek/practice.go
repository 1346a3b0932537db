package main

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"log/slog"
	"os"
	"os/exec"
	"strings"
	"time"

	"corvek/internal/job"
	"corvek/internal/rig"
	"corvek/internal/store"
)

// practice is what the simulated stand of the demo is called.
const practice = "practice stand"

// comesBack is how long a practice stand that ended stays away.
const comesBack = time.Second

// practise runs a simulated stand beside the demo and sets it up in the shop.
func practise(ctx context.Context, jobs *job.Service) error {
	self, err := os.Executable()
	if err != nil {
		return err
	}
	endpoint, err := keptUp(ctx, self)
	if err != nil {
		return err
	}
	return jobs.Store.SaveStand(ctx, store.Stand{Name: practice, Endpoint: endpoint, Nodes: rig.SimulatedNodes()},
		"Corvek", "a stand to practise on")
}

// keptUp runs a simulated stand as a program of its own, with a bound of memory, until the context
// ends: whatever a client sends it, only the stand ends, and comes back at the same address.
func keptUp(ctx context.Context, self string) (endpoint string, err error) {
	stand, endpoint, err := beside(ctx, self, "127.0.0.1:0")
	if err != nil {
		return "", err
	}
	go func() {
		for {
			err := stand.Wait()
			if ctx.Err() != nil {
				return
			}
			slog.Warn("the practice stand ended and is started again", "error", err)
			for {
				select {
				case <-ctx.Done():
					return
				case <-time.After(comesBack):
				}
				if stand, _, err = beside(ctx, self, strings.TrimPrefix(endpoint, "opc.tcp://")); err == nil {
					break
				}
				slog.Error("the practice stand does not start again", "error", err)
			}
		}
	}()
	return endpoint, nil
}

// beside starts this program as a stand, which ends when this one does, and gives the address
// that it tells.
func beside(ctx context.Context, self, addr string) (stand *exec.Cmd, endpoint string, err error) {
	stand = exec.CommandContext(ctx, self, "rig", "--addr", addr, "--beside")
	// The stand reads nothing; it ends where its input does, however this program ended.
	if _, err = stand.StdinPipe(); err != nil {
		return nil, "", err
	}
	stand.Stderr = io.Discard
	out, err := stand.StdoutPipe()
	if err != nil {
		return nil, "", err
	}
	if err := stand.Start(); err != nil {
		return nil, "", err
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		_ = stand.Wait()
		return nil, "", fmt.Errorf("the practice stand did not start: %w", err)
	}
	return stand, strings.TrimSpace(line), nil
}

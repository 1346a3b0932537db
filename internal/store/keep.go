package store

import (
	"context"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"time"
)

// Keeper copies the store into a folder, again and again, and keeps the newest.
type Keeper struct {
	Store  *Store
	Folder string        // "" where no copies are made by themselves
	Every  time.Duration // from one to the next
	Keep   int           // at least one

	one sync.Mutex // copies are made one at a time
}

const (
	copyPrefix = "corvek-"
	copySuffix = ".zip"
	copyStamp  = "20060102-150405"

	lookForCopy = 10 * time.Minute // how often it is asked whether one is due
)

// Run copies whenever it is due, until the context ends. A copy that fails is
// noted, and tried again at the next look.
func (k *Keeper) Run(ctx context.Context) {
	tick := time.NewTicker(lookForCopy)
	defer tick.Stop()
	for {
		if k.due(ctx) {
			if _, err := k.Now(ctx); err != nil && ctx.Err() == nil {
				slog.Error("the store was not copied", "error", err)
			}
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// due reports that the last good copy is older than it may be.
func (k *Keeper) due(ctx context.Context) bool {
	if k.Folder == "" {
		return false
	}
	last, err := k.Store.LastGoodCopy(ctx)
	return err == nil && time.Since(last) >= k.Every
}

// Now copies the store into the folder and drops the oldest copies there.
func (k *Keeper) Now(ctx context.Context) (Copy, error) {
	if k.Folder == "" {
		return Copy{}, fmt.Errorf("no folder for copies is set; start Corvek with --backups FOLDER")
	}
	k.one.Lock()
	defer k.one.Unlock()
	if err := os.MkdirAll(k.Folder, 0o700); err != nil {
		return Copy{}, k.failed(ctx, k.Folder, err)
	}
	file := filepath.Join(k.Folder, copyPrefix+time.Now().UTC().Format(copyStamp)+copySuffix)
	c, err := k.Store.Backup(ctx, file)
	if err != nil {
		return c, k.failed(ctx, file, err)
	}
	return c, k.dropOldest()
}

func (k *Keeper) failed(ctx context.Context, file string, err error) error {
	if nerr := k.Store.NoteBadCopy(ctx, file, err.Error()); nerr != nil && ctx.Err() == nil {
		slog.Error("that a copy failed was not noted", "error", nerr)
	}
	return err
}

// dropOldest removes what is beyond the number to keep. Their names sort by time;
// files of other names are left alone.
func (k *Keeper) dropOldest() error {
	entries, err := os.ReadDir(k.Folder)
	if err != nil {
		return err
	}
	var names []string
	for _, e := range entries {
		stamp := strings.TrimSuffix(strings.TrimPrefix(e.Name(), copyPrefix), copySuffix)
		if _, err := time.Parse(copyStamp, stamp); err == nil && e.Name() == copyPrefix+stamp+copySuffix {
			names = append(names, e.Name())
		}
	}
	slices.Sort(names)
	for len(names) > max(k.Keep, 1) {
		if err := os.Remove(filepath.Join(k.Folder, names[0])); err != nil {
			return err
		}
		names = names[1:]
	}
	return nil
}

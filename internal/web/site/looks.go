package site

import (
	"embed"
	"slices"
	"sync"
)

// looks are the static files and the parsed pages of a program's rooms. They are in the program itself, so that all
// servers of the same rooms share them; a test has many of these.
var looks shelf

type shelf struct {
	mu     sync.Mutex
	rooms  []embed.FS // of whose files they are
	assets *assets
	views  *views
}

// of reads those of rooms, or gives them where they were read before.
func (l *shelf) of(rooms []Room) (*assets, *views, error) {
	var files []embed.FS
	for _, room := range rooms {
		of, _ := room.Files.(embed.FS)
		files = append(files, of)
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.views != nil && slices.Equal(files, l.rooms) {
		return l.assets, l.views, nil
	}
	a, err := loadAssets(rooms)
	if err != nil {
		return nil, nil, err
	}
	v, err := loadViews(a, rooms)
	if err != nil {
		return nil, nil, err
	}
	l.rooms, l.assets, l.views = files, a, v
	return a, v, nil
}

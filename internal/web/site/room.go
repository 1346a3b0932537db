package site

import (
	"os"
	"path/filepath"

	"golang.org/x/sys/unix"
)

// LeastRoom on a disk, in bytes, below which the shop is warned.
const LeastRoom = 1 << 30

// RoomAt is how many bytes are left for us on the disk that a folder is on, or
// will be. It is unknown without a folder.
func RoomAt(folder string) (left uint64, known bool) {
	if folder == "" {
		return 0, false
	}
	for {
		if _, err := os.Stat(folder); err == nil || folder == filepath.Dir(folder) {
			break
		}
		folder = filepath.Dir(folder)
	}
	var fs unix.Statfs_t
	if unix.Statfs(folder, &fs) != nil {
		return 0, false
	}
	return fs.Bavail * uint64(fs.Bsize), true
}

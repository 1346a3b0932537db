package shoppages

import (
	"testing"
	"time"

	"corvek/internal/web/site"

	"github.com/stretchr/testify/assert"
)

func TestAgoAndBytes(t *testing.T) {
	for d, want := range map[time.Duration]string{0: "just now", time.Minute: "1 minute ago",
		119 * time.Minute: "119 minutes ago", 2 * time.Hour: "2 hours ago", 47 * time.Hour: "47 hours ago",
		48 * time.Hour: "2 days ago"} {
		assert.Equal(t, want, ago(d))
	}
	assert.Equal(t, "12 kB", bytesOf(12_400))
	assert.Equal(t, "3.5 MB", bytesOf(3_456_789))
	assert.Equal(t, "81.9 GB", bytesOf(81_856_000_000))
	room, known := site.RoomAt("/tmp/not/there/yet")
	assert.True(t, known)
	assert.Positive(t, room)
	_, known = site.RoomAt("")
	assert.False(t, known)
}

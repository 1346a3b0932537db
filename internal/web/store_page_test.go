package web

import (
	"net/http"
	"net/url"
	"testing"
	"time"

	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A lead sees that there is no copy, makes one, and sees when it was; a record that
// was bent by hand stands there in words.
func TestStorePageTellsOfCopiesAndOfTheRecord(t *testing.T) {
	s := serve(t)
	s.server.copies = &store.Keeper{Store: s.server.store, Folder: t.TempDir(), Every: time.Hour, Keep: 3}
	b := s.as("odd")
	_, page := b.get("/shop/store")
	assert.Contains(t, page, "There is no good copy")
	assert.Contains(t, page, "lines fit")
	assert.Contains(t, page, "owns no table")
	res, _ := b.plainPost("/shop/store/copy", url.Values{})
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = b.get("/shop/store")
	assert.Contains(t, page, "just now")
	assert.NotContains(t, page, "There is no good copy")

	s.server.copies.Folder = "/proc/none"
	res, page = b.plainPost("/shop/store/copy", url.Values{})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "/proc/none")

	_, err := storetest.Owner(t, s.server.store).Exec(t.Context(), `
		ALTER TABLE record_entries DISABLE TRIGGER record_append_only;
		UPDATE record_entries SET after = after || '!' WHERE place = 7`)
	require.NoError(t, err)
	_, page = b.get("/shop/store")
	assert.Contains(t, page, "It does not hold: line 7, ")
}

func TestAgoAndBytes(t *testing.T) {
	for d, want := range map[time.Duration]string{0: "just now", time.Minute: "1 minute ago",
		119 * time.Minute: "119 minutes ago", 2 * time.Hour: "2 hours ago", 47 * time.Hour: "47 hours ago",
		48 * time.Hour: "2 days ago"} {
		assert.Equal(t, want, ago(d))
	}
	assert.Equal(t, "12 kB", bytesOf(12_400))
	assert.Equal(t, "3.5 MB", bytesOf(3_456_789))
	assert.Equal(t, "81.9 GB", bytesOf(81_856_000_000))
	room, known := roomAt("/tmp/not/there/yet")
	assert.True(t, known)
	assert.Positive(t, room)
	_, known = roomAt("")
	assert.False(t, known)
}

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
	t.Parallel()
	s := serve(t)
	s.server.Copies = &store.Keeper{Store: s.server.Store, Folder: t.TempDir(), Every: time.Hour, Keep: 3}
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

	s.server.Copies.Folder = "/proc/none"
	res, page = b.plainPost("/shop/store/copy", url.Values{})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "/proc/none")

	_, err := storetest.Owner(t, s.server.Store).Exec(t.Context(), `
		ALTER TABLE record_entries DISABLE TRIGGER record_append_only;
		UPDATE record_entries SET after = after || '!' WHERE place = 7`)
	require.NoError(t, err)
	_, page = b.get("/shop/store")
	assert.Contains(t, page, "It does not hold: line 7, ")
}

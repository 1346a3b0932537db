package web

import (
	"go/parser"
	"go/token"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// No room knows another, and the site knows none: what two of them need stands in the site, or
// below.
func TestRoomsKnowTheSiteOnly(t *testing.T) {
	t.Parallel()
	files, err := filepath.Glob("*/*.go")
	require.NoError(t, err)
	rooms := map[string]bool{}
	for _, file := range files {
		room := filepath.Dir(file)
		rooms[room] = true
		f, err := parser.ParseFile(token.NewFileSet(), file, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, i := range f.Imports {
			path, err := strconv.Unquote(i.Path.Value)
			require.NoError(t, err)
			other, within := strings.CutPrefix(path, "corvek/internal/web/")
			if within {
				assert.True(t, room != "site" && other == "site" || room == "site" && other == "site/static",
					"%s knows %s", file, other)
			}
		}
	}
	assert.Len(t, rooms, 11)
}

package wording

import (
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// riddles are phrases that were said more plainly since; the glossary has what stands in
// their place.
var riddles = []string{
	"whatever the leaves leave open", "half of what speaks", "not told yet", "Another than its family",
	"figures are bits", `"found so"`, "Two stories", "with the way there", `"Told: `, "belongs to nothing yet",
	"said by hand", "in the room there is", "do not bear it", "must be answered: ",
}

// The old phrases stand nowhere that a reader could meet them.
func TestNoRiddles(t *testing.T) {
	root := filepath.Join("..", "..")
	for _, folder := range []string{"internal", "core", "cmd", "docs"} {
		err := filepath.WalkDir(filepath.Join(root, folder), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || strings.HasSuffix(path, "_test.go") {
				return err
			}
			switch filepath.Ext(path) {
			case ".go", ".html", ".yaml", ".js", ".md":
			default:
				return nil
			}
			text, err := os.ReadFile(path)
			if err != nil || strings.HasSuffix(path, "glossary.md") {
				return err
			}
			for _, r := range riddles {
				assert.False(t, strings.Contains(string(text), r), "%s says %q", path, r)
			}
			return nil
		})
		require.NoError(t, err)
	}
}

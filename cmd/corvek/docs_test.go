package main

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// named is a file that a doc names between backquotes; a word in capitals stands for any.
var named = regexp.MustCompile("`([A-Za-z0-9_./*-]+\\.(?:go|md|sh|json|html|css|js|sql|yaml|csv|scss|mjs))`")

// A file that the docs name is there, by its path or the end of it.
func TestDocsNameFilesThatAreThere(t *testing.T) {
	var files []string
	require.NoError(t, filepath.WalkDir("../..", func(path string, d fs.DirEntry, err error) error {
		if err == nil && d.IsDir() && d.Name() == ".git" {
			return filepath.SkipDir
		}
		files = append(files, filepath.ToSlash(path))
		return err
	}))
	docs, err := filepath.Glob("../../docs/*.md")
	require.NoError(t, err)
	n := 0
	for _, doc := range append(docs, "../../README.md") {
		text, err := os.ReadFile(doc)
		require.NoError(t, err)
		for _, m := range named.FindAllStringSubmatch(string(text), -1) {
			if strings.Contains(m[1], "*") || regexp.MustCompile(`[A-Z]{3}`).MatchString(m[1]) {
				continue
			}
			there := false
			for _, f := range files {
				there = there || strings.HasSuffix(f, "/"+m[1])
			}
			assert.True(t, there, "%s names %s", doc, m[1])
			n++
		}
	}
	assert.Greater(t, n, 15)
}

package main

import (
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Each direct dependency stands in the list with its reason, and nothing else does.
func TestDependenciesAreListed(t *testing.T) {
	mod, err := os.ReadFile("../../go.mod")
	require.NoError(t, err)
	list, err := os.ReadFile("../../docs/dependencies.md")
	require.NoError(t, err)
	direct := map[string]bool{}
	for _, m := range regexp.MustCompile(`(?m)^\t(\S+) v\S+$`).FindAllStringSubmatch(string(mod), -1) {
		direct[m[1]] = true
		assert.Contains(t, string(list), m[1])
	}
	assert.Greater(t, len(direct), 15)
	for _, line := range strings.Split(string(list), "\n") {
		cell, _, is := strings.Cut(strings.TrimPrefix(line, "| "), " | ")
		if !is || !strings.Contains(cell, "/") {
			continue
		}
		for _, name := range strings.Split(cell, ", ") {
			assert.True(t, direct[name], "%s is listed and not used", name)
		}
	}
}

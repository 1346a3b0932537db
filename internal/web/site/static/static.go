// Package static holds the styles, faces, scripts and marks of the pages that ship with the
// program. Colours, and the looks of drawings, stand in internal/draw.
package static

import "embed"

// Files are they, by their path below this folder.
//
//go:embed css fonts js lib mark.svg
var Files embed.FS

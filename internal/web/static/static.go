// Package static holds the styles, faces, scripts and marks that ship with the
// program. Pages serve them; papers take colours and strokes from the same sheets.
package static

import "embed"

// Files are they, by their path below this folder.
//
//go:embed css fonts js lib mark.svg
var Files embed.FS

package document

import (
	"fmt"
	"image/color"
	"strings"

	"github.com/boombuler/barcode/qr"
)

// rim is how many dots wide the quiet rim of a code is (ISO/IEC 18004).
const rim = 4

// CodeOf draws what a code leads to, for a cell of a table: a label of its own.
func CodeOf(address string) string { return codeSVG(address) }

// codeSVG draws an address as a code for a phone's camera, "" where it is too long or there
// is none.
func codeSVG(address string) string {
	if address == "" {
		return ""
	}
	code, err := qr.Encode(address, qr.M, qr.Auto)
	if err != nil {
		return ""
	}
	size := code.Bounds().Dx()
	dark := func(x, y int) bool { return x < size && code.At(x, y) == color.Black }
	var path strings.Builder
	for y := range size {
		for x := 0; x < size; x++ {
			run := 0
			for dark(x+run, y) {
				run++
			}
			if run > 0 {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", x+rim, y+rim, run, run)
				x += run
			}
		}
	}
	return fmt.Sprintf(`<svg class="code" viewBox="0 0 %d %d" role="img" aria-label="code that opens the job"><path `+
		`class="code-d" d="%s"/></svg>`, size+2*rim, size+2*rim, path.String())
}

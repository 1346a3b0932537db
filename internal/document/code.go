package document

import (
	"fmt"
	"strings"

	"github.com/skip2/go-qrcode"
)

// codeSVG draws an address as a code for a phone's camera, "" where it is too long or there
// is none.
func codeSVG(address string) string {
	if address == "" {
		return ""
	}
	code, err := qrcode.New(address, qrcode.Medium)
	if err != nil {
		return ""
	}
	dots := code.Bitmap() // with its quiet rim
	var path strings.Builder
	for y, row := range dots {
		for x := 0; x < len(row); x++ {
			run := 0
			for x+run < len(row) && row[x+run] {
				run++
			}
			if run > 0 {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", x, y, run, run)
				x += run
			}
		}
	}
	return fmt.Sprintf(`<svg class="code" viewBox="0 0 %d %d" role="img" aria-label="code that opens the job"><path `+
		`class="code-d" d="%s"/></svg>`, len(dots), len(dots), path.String())
}

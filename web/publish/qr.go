package publish

import (
	"fmt"
	"html/template"
	"strings"

	"rsc.io/qr"
)

// quiet is how many modules of nothing there are around a code (ISO/IEC 18004 §9.1).
const quiet = 4

// qrCode draws a link for a telephone to read, as SVG.
func qrCode(link string) (template.HTML, error) {
	code, err := qr.Encode(link, qr.M)
	if err != nil {
		return "", fmt.Errorf("drawing a link: %w", err)
	}
	var d strings.Builder
	for y := range code.Size {
		for x := 0; x < code.Size; x++ {
			from := x
			for code.Black(x, y) { // what is beyond is white
				x++
			}
			if x > from {
				fmt.Fprintf(&d, "M%d %dh%dv1h%dz", from+quiet, y+quiet, x-from, from-x)
			}
		}
	}
	side := code.Size + 2*quiet
	return template.HTML(fmt.Sprintf(
		`<svg class="qr" viewBox="0 0 %d %d" role="img" aria-label="The link as a QR code"><path d="M0 0h%dv%dH0z" fill="#fff"/><path d="%s" fill="#000"/></svg>`,
		side,
		side,
		side,
		side,
		d.String(),
	)), nil
}

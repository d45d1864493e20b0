package publish

import (
	"bytes"
	"fmt"
	"image/png"
	"regexp"
	"strings"
	"testing"

	"rsc.io/qr"

	"openplot/core/number"
)

// The drawing has the modules that the library's own picture has, four modules from its edges
// (ISO/IEC 18004 §9.1), and the three finder patterns (§6.3.3).
func TestQRCode(t *testing.T) {
	for _, link := range []string{"http://a.example/", "https://skerry.example/_preview/" + strings.Repeat("k7", 40)} {
		drawn, err := qrCode(link)
		if err != nil {
			t.Fatal(err)
		}
		code, err := qr.Encode(link, qr.M)
		if err != nil {
			t.Fatal(err)
		}
		picture, err := png.Decode(bytes.NewReader(code.PNG()))
		if err != nil {
			t.Fatal(err)
		}
		side := code.Size + 8
		if !strings.Contains(string(drawn), fmt.Sprintf(`viewBox="0 0 %d %d"`, side, side)) ||
			picture.Bounds().Dx() != side*code.Scale {
			t.Fatalf("%s is %d px wide: %.60s", link, picture.Bounds().Dx(), drawn)
		}
		black := map[[2]int]bool{}
		for _, m := range regexp.MustCompile(`M(\d+) (\d+)h(\d+)v1h`).FindAllStringSubmatch(string(drawn), -1) {
			var n [3]int
			for i := range n {
				if n[i], err = number.Whole(m[i+1]); err != nil {
					t.Fatal(err)
				}
			}
			for x := range n[2] {
				black[[2]int{n[0] + x, n[1]}] = true
			}
		}
		for y := range side {
			for x := range side {
				r, _, _, _ := picture.At(x*code.Scale+code.Scale/2, y*code.Scale+code.Scale/2).RGBA()
				if black[[2]int{x, y}] != (r == 0) {
					t.Fatalf("%s: the module at %d, %d is black: %v", link, x, y, r != 0)
				}
			}
		}
		for _, at := range [][2]int{{0, 0}, {code.Size - 7, 0}, {0, code.Size - 7}} {
			for y := range 7 {
				for x := range 7 {
					ring := max(max(3-x, x-3), max(3-y, y-3))
					if black[[2]int{4 + at[0] + x, 4 + at[1] + y}] != (ring != 2) {
						t.Fatalf("%s has no finder pattern at %v", link, at)
					}
				}
			}
		}
	}
	if _, err := qrCode(strings.Repeat("x", 5000)); err == nil {
		t.Error("a link of 5,000 letters is drawn")
	}
}

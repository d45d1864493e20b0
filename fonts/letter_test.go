package fonts

import (
	"strings"
	"testing"
)

// The letter A of every shipped upright family stands about as high as capitals do, on the
// baseline; and what a family lacks is said to be lacking.
func TestLetter(t *testing.T) {
	seen := map[string]bool{}
	for _, f := range Faces {
		if f.Italic || f.Extended || seen[f.Family] {
			continue
		}
		seen[f.Family] = true
		o, ok := Letter(f.Family, 'A')
		if !ok || o.Height < 500 || o.Height > 900 || o.Width < 300 || o.Top+o.Height < -30 || o.Top+o.Height > 60 ||
			strings.Count(o.Path, "M") != strings.Count(o.Path, "Z") {
			t.Errorf("%s: %v %.0f × %.0f, down to %.0f", f.Family, ok, o.Width, o.Height, o.Top+o.Height)
		}
	}
	if len(seen) < 8 {
		t.Errorf("only %d families", len(seen))
	}
	for _, r := range []rune{'水', '\u200b'} {
		if _, ok := Letter("Caveat", r); ok {
			t.Errorf("%q has an outline", r)
		}
	}
	if _, ok := Letter("Nope", 'A'); ok {
		t.Error("a family that isn't shipped has letters")
	}
}

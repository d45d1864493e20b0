package style

import "testing"

// What a length is written as is read as that length: at any width it is as large.
func TestLengthsAreReadAsTheyAreWritten(t *testing.T) {
	for _, l := range []Length{
		Pixels(12), {N: 1.5, Unit: Rem}, {N: 40, Unit: Percent}, Fluid(34, 46, 375, 1280), Fluid(64, 96, 375, 1280), Fluid(20, 12, 375, 1280),
		Least(Pixels(600), Length{N: 90, Unit: Percent}), Sum(Length{N: 100, Unit: Percent}, Pixels(-24)),
	} {
		got := ParseLength(l.String(), Length{})
		for w := 320.0; w <= 1920; w += 160 {
			want, _ := l.Resolve(w, Viewport{Width: w, Height: 800})
			if px, ok := got.Resolve(w, Viewport{Width: w, Height: 800}); !ok || px != want {
				t.Errorf("%s at %v: %v, want %v", l, w, px, want)
			}
		}
	}
	for _, bad := range []string{"clamp(1px, 2px)", "clamp(1px, x, 3px)", "min(", "max()", "clamp(clamp(1px, 2px, 3px), 4px, 5px)"} {
		if got := ParseLength(bad, Pixels(7)); got != Pixels(7) {
			t.Errorf("%s is read as %s", bad, got)
		}
	}
}

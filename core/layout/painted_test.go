package layout

import (
	"math"
	"testing"

	"openplot/core/element"
	"openplot/core/style"
)

// A box turned by 90 degrees is as wide as it was high; one of 100 by 100 turned by 45 is as
// wide as its diagonal. Both keep their middle.
func TestPainted(t *testing.T) {
	for _, tt := range []struct{ turn, w, h, wantW, wantH float64 }{
		{0, 80, 20, 80, 20}, {90, 80, 20, 20, 80}, {-90, 80, 20, 20, 80}, {45, 100, 100, 100 * math.Sqrt2, 100 * math.Sqrt2}, {180, 80, 20, 80, 20},
	} {
		b := &Box{Node: &element.Node{Styles: []style.Style{{Rotate: tt.turn}}}, W: tt.w, H: tt.h}
		x, y, w, h := b.Painted(0)
		if math.Abs(w-tt.wantW) > 1e-9 || math.Abs(h-tt.wantH) > 1e-9 || math.Abs(x+w/2-tt.w/2) > 1e-9 ||
			math.Abs(y+h/2-tt.h/2) > 1e-9 {
			t.Errorf("%v by %v turned by %v: %v, %v, %v by %v", tt.w, tt.h, tt.turn, x, y, w, h)
		}
	}
}

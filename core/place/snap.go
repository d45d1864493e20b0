package place

import "math"

// Snap gives what a measure becomes that is dragged to px: the step that is nearest, when it
// is no further than near, and its index; otherwise whole px, and -1. With only there is
// nothing between the steps.
func Snap(px float64, steps []float64, near float64, only bool) (float64, int) {
	best, at := math.Inf(1), -1
	for i, s := range steps {
		if d := math.Abs(s - px); d < best {
			best, at = d, i
		}
	}
	if at >= 0 && (only || best <= near) {
		return steps[at], at
	}
	return math.Round(px), -1
}

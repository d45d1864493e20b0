package layout

import "openplot/core/style"

// distribute gives the offset of the first of n subjects and the extra space
// between neighbours, when free px are left (CSS Box Alignment 3 §5.3). Where
// subjects overflow, space-around and space-evenly fall back to start, which is the
// far end of a reversed axis (their fallback is safe center, §4.3), and
// space-between to where the axis begins.
func distribute(a style.Alignment, free float64, n int, reversed bool) (first, between float64) {
	switch a {
	case style.AlignCenter:
		return free / 2, 0
	case style.AlignEnd:
		return free, 0
	}
	if free < 0 && (a == style.SpaceAround || a == style.SpaceEvenly) && reversed {
		return free, 0
	}
	if free <= 0 || n == 0 {
		return 0, 0
	}
	switch a {
	case style.SpaceBetween:
		if n > 1 {
			return 0, free / float64(n-1)
		}
	case style.SpaceAround:
		return free / float64(2*n), free / float64(n)
	case style.SpaceEvenly:
		return free / float64(n+1), free / float64(n+1)
	}
	return 0, 0
}

// flipped is an alignment seen from the other end of a reversed axis. The space-*
// values and stretch look alike from both.
func flipped(a style.Alignment) style.Alignment {
	switch a {
	case style.AlignStart:
		return style.AlignEnd
	case style.AlignEnd:
		return style.AlignStart
	}
	return a
}

// selfAlignment resolves align-self or justify-self against the container's
// *-items (CSS Box Alignment 3 §6).
func selfAlignment(self, items style.Alignment) style.Alignment {
	if self != style.AlignAuto {
		return self
	}
	return items
}

// offset is where a subject stands in an alignment container with free px left.
func offset(a style.Alignment, free float64) float64 {
	switch a {
	case style.AlignCenter:
		return free / 2
	case style.AlignEnd:
		return free
	}
	return 0
}

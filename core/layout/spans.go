package layout

import (
	"math"

	"openplot/core/shape"
	"openplot/core/style"
)

// spans gives the places of the tracks in a container of a size. Sizes are rounded
// down to 1/64 px as Chromium does it: tracks that are defined alike and that no
// item's edge parts, told by cuts, make one set, which is rounded as a whole; what
// flexible sets lose by it goes on to the next one, in single precision.
func (z *sizer) spans(a style.Alignment, size float64, cuts []bool) []Span {
	n := 0
	alike := true
	for i := range z.tracks {
		if !z.tracks[i].collapsed {
			n++
		}
		alike = alike && z.tracks[i].Track == z.tracks[0].Track
	}
	first, between := 0.0, 0.0
	if a != style.AlignAuto && a != style.AlignStretch {
		first, between = distribute(a, size-z.total(), n, false)
	}
	out := make([]Span, len(z.tracks))
	at, leftover := first, float32(0)
	for start := 0; start < len(z.tracks); {
		end := start + 1
		for alike && end < len(z.tracks) && !cuts[end] {
			end++
		}
		sum := 0.0
		for i := start; i < end; i++ {
			sum += z.tracks[i].base
		}
		used := shape.Floor64(sum + 1e-6)
		if z.tracks[start].Fr > 0 && z.flexed {
			share := float32(sum)*64 + leftover
			whole := float32(math.Floor(float64(share)))
			used, leftover = float64(whole)/64, share-whole
		}
		done := 0.0
		for i := start; i < end; i++ { // parts of a set are only looked at, not laid out in
			part := used
			if sum > 0 {
				part = shape.Floor64(used * (done + z.tracks[i].base) / sum)
			}
			done += z.tracks[i].base
			before := 0.0
			if i > start {
				before = out[i-1].End() - out[start].Start - z.gutters(start, i-1, between)
			}
			if i == end-1 {
				part = used
			}
			out[i] = Span{at + before + z.gutters(start, i, between), part - before}
		}
		at += used + z.gutters(start, end, between)
		start = end
	}
	return out
}

// gutters is what lies between track i and track j, after each track before j that
// isn't collapsed.
func (z *sizer) gutters(i, j int, between float64) float64 {
	sum := 0.0
	for ; i < j; i++ {
		if !z.tracks[i].collapsed {
			sum += z.gap + between
		}
	}
	return sum
}

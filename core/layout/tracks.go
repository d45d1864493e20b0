package layout

import (
	"cmp"
	"math"
	"slices"

	"openplot/core/style"
)

// track is a grid track while its size is found. Sizes are in px.
type track struct {
	min, max    style.Length // of minmax(); auto where unit is Auto
	fr          float64
	base, limit float64
	// infinitelyGrowable is the mark of that name (CSS Grid 2 §12.5, step 3).
	infinitelyGrowable bool
}

// contribution is a grid item's area in one axis (0-based) and its contributions there.
type contribution struct {
	start, span int
	min, max    float64 // min-content and max-content contributions in px
}

// sizeTracks finds the sizes of the tracks of one axis: the Grid Sizing
// Algorithm's track sizing (CSS Grid 2 §12.3). available is the container's
// content size in this axis in px, or NaN where it is indefinite.
func (c *context) sizeTracks(ts []track, items []contribution, gap, available float64) {
	c.initializeTrackSizes(ts, available)
	resolveIntrinsicTrackSizes(ts, items, gap)
	maximizeTracks(ts, gap, available)
	expandFlexibleTracks(ts, items, gap, available)
	stretchAutoTracks(ts, gap, available)
}

// initializeTrackSizes is §12.4.
func (c *context) initializeTrackSizes(ts []track, available float64) {
	for i := range ts {
		t := &ts[i]
		t.base = t.min.Or(available, c.viewport, 0)
		t.limit = math.Inf(1)
		if px, ok := t.max.Resolve(available, c.viewport); ok && t.fr == 0 {
			t.limit = max(px, t.base)
		} else if t.fr > 0 {
			t.limit = math.Inf(1)
		}
	}
}

func (t *track) intrinsicMin() bool { return t.min.Unit == style.Auto }
func (t *track) intrinsicMax() bool { return t.max.Unit == style.Auto && t.fr == 0 }

// resolveIntrinsicTrackSizes is §12.5: items by the number of tracks they span,
// fewest first; those that span a flexible track don't size intrinsic ones beside
// it here. An auto minimum counts as the min-content contribution.
func resolveIntrinsicTrackSizes(ts []track, items []contribution, gap float64) {
	sorted := slices.Clone(items)
	slices.SortStableFunc(sorted, func(a, b contribution) int { return cmp.Compare(a.span, b.span) })
	for len(sorted) > 0 {
		n := 1
		for n < len(sorted) && sorted[n].span == sorted[0].span {
			n++
		}
		group := slices.DeleteFunc(slices.Clone(sorted[:n]), func(it contribution) bool {
			return slices.ContainsFunc(ts[it.start:it.start+it.span], func(t track) bool { return t.fr > 0 && it.span > 1 })
		})
		sorted = sorted[n:]
		distribute(ts, group, gap, func(t *track) *float64 { return &t.base }, (*track).intrinsicMin, func(it contribution) float64 { return it.min })
		for i := range ts {
			ts[i].limit = max(ts[i].limit, ts[i].base)
		}
		limit := func(t *track) *float64 { return &t.limit }
		distribute(ts, group, gap, limit, (*track).intrinsicMax, func(it contribution) float64 { return it.min })
		distribute(ts, group, gap, limit, (*track).intrinsicMax, func(it contribution) float64 { return it.max })
		for i := range ts {
			ts[i].infinitelyGrowable = false
		}
	}
	for i := range ts {
		if math.IsInf(ts[i].limit, 1) && ts[i].fr == 0 {
			ts[i].limit = ts[i].base
		}
	}
}

// distribute is "distribute extra space" (§12.5.1) for items of one span: size
// picks the base size or the growth limit, affected the tracks that may grow, and
// want an item's contribution.
func distribute(ts []track, items []contribution, gap float64, size func(*track) *float64, affected func(*track) bool, want func(contribution) float64) {
	planned := make([]float64, len(ts))
	limits := len(ts) > 0 && size(&ts[0]) == &ts[0].limit
	current := func(t *track) float64 {
		if v := *size(t); !math.IsInf(v, 1) {
			return v
		}
		return t.base
	}
	for _, it := range items {
		span := ts[it.start : it.start+it.span]
		space := want(it) - gap*float64(it.span-1)
		var grow []int
		for i := range span {
			space -= current(&span[i])
			if affected(&span[i]) {
				grow = append(grow, i)
			}
		}
		if space <= 0 || len(grow) == 0 {
			continue
		}
		increase := make([]float64, len(span))
		// Up to limits.
		open := slices.Clone(grow)
		for space > 1e-9 && len(open) > 0 {
			share := space / float64(len(open))
			next := open[:0:0]
			for _, i := range open {
				t := &span[i]
				room := math.Inf(1)
				if !limits {
					room = t.limit - t.base
				} else if !math.IsInf(t.limit, 1) && !t.infinitelyGrowable {
					room = 0
				}
				if add := min(share, room-increase[i]); add > 0 {
					increase[i] += add
					space -= add
				}
				if increase[i] < room {
					next = append(next, i)
				}
			}
			if len(next) == len(open) {
				break // all took their share
			}
			open = next
		}
		// Beyond limits: those with an intrinsic maximum if there are any.
		if space > 1e-9 {
			beyond := slices.DeleteFunc(slices.Clone(grow), func(i int) bool { return !span[i].intrinsicMax() })
			if len(beyond) == 0 {
				beyond = grow
			}
			for _, i := range beyond {
				increase[i] += space / float64(len(beyond))
			}
		}
		for i, v := range increase {
			planned[it.start+i] = max(planned[it.start+i], v)
		}
	}
	for i := range ts {
		t := &ts[i]
		if limits && math.IsInf(t.limit, 1) {
			touched := slices.ContainsFunc(items, func(it contribution) bool { return i >= it.start && i < it.start+it.span })
			if affected(t) && touched {
				t.limit, t.infinitelyGrowable = t.base+planned[i], true
			}
			continue
		}
		*size(t) += planned[i]
	}
}

// maximizeTracks is §12.6.
func maximizeTracks(ts []track, gap, available float64) {
	if math.IsNaN(available) {
		for i := range ts {
			if ts[i].fr == 0 {
				ts[i].base = max(ts[i].base, ts[i].limit)
			}
		}
		return
	}
	free := available - total(ts, gap)
	for free > 1e-9 {
		var open []int
		for i := range ts {
			if ts[i].fr == 0 && ts[i].base < ts[i].limit {
				open = append(open, i)
			}
		}
		if len(open) == 0 {
			return
		}
		share := free / float64(len(open))
		for _, i := range open {
			add := min(share, ts[i].limit-ts[i].base)
			ts[i].base += add
			free -= add
		}
	}
}

// expandFlexibleTracks is §12.7, with "find the size of an fr" (§12.7.1).
func expandFlexibleTracks(ts []track, items []contribution, gap, available float64) {
	flex := 0.0
	for _, t := range ts {
		flex += t.fr
	}
	if flex == 0 {
		return
	}
	var fr float64
	if math.IsNaN(available) {
		for _, t := range ts {
			if t.fr > 0 {
				fr = max(fr, t.base/max(t.fr, 1))
			}
		}
		for _, it := range items {
			span := ts[it.start : it.start+it.span]
			if slices.ContainsFunc(span, func(t track) bool { return t.fr > 0 }) {
				fr = max(fr, sizeOfFr(span, gap, it.max))
			}
		}
	} else {
		fr = sizeOfFr(ts, gap, available)
	}
	for i := range ts {
		if ts[i].fr > 0 {
			ts[i].base = max(ts[i].base, fr*ts[i].fr)
		}
	}
}

// sizeOfFr is §12.7.1.
func sizeOfFr(ts []track, gap, space float64) float64 {
	inflexible := make([]bool, len(ts))
	for {
		left, flex := space-gap*float64(len(ts)-1), 0.0
		for i, t := range ts {
			if t.fr == 0 || inflexible[i] {
				left -= t.base
			} else {
				flex += t.fr
			}
		}
		fr := max(left, 0) / max(flex, 1)
		again := false
		for i, t := range ts {
			if t.fr > 0 && !inflexible[i] && fr*t.fr < t.base {
				inflexible[i], again = true, true
			}
		}
		if !again {
			return fr
		}
	}
}

// stretchAutoTracks is §12.8; align-content and justify-content are never emitted,
// so that they are normal and stretch.
func stretchAutoTracks(ts []track, gap, available float64) {
	var autos []int
	for i := range ts {
		if ts[i].intrinsicMax() {
			autos = append(autos, i)
		}
	}
	if free := available - total(ts, gap); free > 0 && len(autos) > 0 { // false for NaN
		for _, i := range autos {
			ts[i].base += free / float64(len(autos))
		}
	}
}

func total(ts []track, gap float64) float64 {
	sum := gap * float64(max(len(ts)-1, 0))
	for _, t := range ts {
		sum += t.base
	}
	return sum
}

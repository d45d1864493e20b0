package layout

import (
	"cmp"
	"math"
	"slices"

	"openplot/core/style"
)

// track is a grid track while its size is found. Sizes are in px.
type track struct {
	style.Track
	base, limit float64
	fit         float64 // of fit-content(), or infinite
	// infinitelyGrowable is the mark of that name (CSS Grid 2 §12.5, step 3).
	infinitelyGrowable bool
	planned            float64
	touched            bool // by an item whose contribution is distributed
	collapsed          bool // an empty one of auto-fit, with its gutter
}

// intrinsicMin and the others classify the sizing functions (§7.2.1).
func (t *track) intrinsicMin() bool { return t.Min.Keyword() }
func (t *track) intrinsicMax() bool { return t.Fr == 0 && t.Max.Keyword() }
func (t *track) autoMin() bool      { return t.Min.Unit == style.Auto }
func (t *track) maxContentMax() bool {
	return t.Fr == 0 && (t.Max.Unit == style.MaxContent || t.Max.Unit == style.Auto)
}

// flexible reports whether any of the tracks has a flex factor.
func flexible(ts []track) bool {
	return slices.ContainsFunc(ts, func(t track) bool { return t.Fr > 0 })
}

// contribution is a grid item's place in one axis (from 0) and its contributions
// there, its margins included.
type contribution struct {
	start, span int
	// least is the minimum contribution, min and max the min-content and
	// max-content ones.
	least, min, max float64
}

// sizing is the constraint under which tracks are sized (§12.2).
type sizing uint8

const (
	definite sizing = iota // or indefinite without a constraint
	minContent
	maxContent
)

// sizer finds the sizes of the tracks of one axis.
type sizer struct {
	c      *context
	tracks []track
	items  []contribution
	gap    float64
	// available is the container's content size in this axis, NaN where indefinite;
	// an indefinite one is no less than least.
	available float64
	least     float64
	under     sizing
	stretch   bool // align-content or justify-content is normal or stretch
	flexed    bool // flexible tracks share the space by their factors
	// ofHeights: an item's min-content and max-content contributions are the same, so that what
	// the one needs is enough for the other.
	ofHeights bool
	// ofContent: some track's minimum is min-content or max-content.
	ofContent bool

	spanning, group, overFlexible []contribution
	incurred                      []float64
	grow, open                    []int
}

// sizer gives one with nothing in it.
func (c grids) sizer() *sizer {
	z := last(&c.sizers)
	*z = sizer{
		c: c.context, tracks: z.tracks[:0], items: z.items[:0], spanning: z.spanning, group: z.group, overFlexible: z.overFlexible,
		incurred: z.incurred, grow: z.grow, open: z.open,
	}
	return z
}

// release lets another sizing use this one's memory.
func (z *sizer) release() { z.c.sizers = append(z.c.sizers, z) }

// run is the track sizing algorithm (§12.3).
func (z *sizer) run() {
	z.initializeTrackSizes()
	z.resolveIntrinsicTrackSizes()
	z.maximizeTracks()
	z.expandFlexibleTracks()
	if z.stretch {
		z.stretchAutoTracks()
	}
}

// newTracks prepares n tracks, the explicit ones and then implicit ones (§7.6);
// percentages of an indefinite size count as auto.
func (z *sizer) newTracks(explicit []style.Track, implicit style.Track, n int) {
	z.tracks = z.tracks[:0]
	for i := range n {
		t := implicit
		if i < len(explicit) {
			t = explicit[i]
		}
		k := track{Track: t, fit: math.Inf(1)}
		if isAuto(z.available) {
			if t.Min.OfBase() {
				k.Min = style.Length{}
			}
			if t.Max.OfBase() {
				k.Max = style.Length{}
			}
		}
		if t.Fit.Unit != style.Auto {
			k.Min, k.Max = style.Length{}, style.Length{Unit: style.MaxContent}
			if px, ok := t.Fit.Resolve(z.available, z.c.viewport); ok {
				k.fit = px
			}
		}
		z.tracks = append(z.tracks, k)
	}
}

// initializeTrackSizes is §12.4.
func (z *sizer) initializeTrackSizes() {
	for i := range z.tracks {
		t := &z.tracks[i]
		t.base = t.Min.Or(z.available, z.c.viewport, 0)
		z.ofContent = z.ofContent || t.Min.Unit == style.MinContent || t.Min.Unit == style.MaxContent
		t.limit = math.Inf(1)
		if t.Fr == 0 && !t.intrinsicMax() {
			t.limit = max(t.Max.Or(z.available, z.c.viewport, 0), t.base)
		}
	}
}

// resolveIntrinsicTrackSizes is §12.5.
func (z *sizer) resolveIntrinsicTrackSizes() {
	intrinsic := false
	for i := range z.tracks {
		intrinsic = intrinsic || z.tracks[i].intrinsicMin() || z.tracks[i].intrinsicMax()
	}
	if intrinsic {
		z.fitNonSpanningItems()
		spanning := append(z.spanning[:0], z.items...)
		z.spanning = spanning
		slices.SortStableFunc(spanning, func(a, b contribution) int { return cmp.Compare(a.span, b.span) })
		overFlexible := z.overFlexible[:0]
		for len(spanning) > 0 {
			n := 1
			for n < len(spanning) && spanning[n].span == spanning[0].span {
				n++
			}
			group := z.group[:0]
			for _, it := range spanning[:n] {
				switch {
				case flexible(z.span(it)):
					overFlexible = append(overFlexible, it)
				case it.span > 1:
					group = append(group, it)
				}
			}
			z.accommodate(group, false)
			z.group = group
			spanning = spanning[n:]
		}
		z.accommodate(overFlexible, true)
		z.overFlexible = overFlexible
	}
	for i := range z.tracks {
		if t := &z.tracks[i]; math.IsInf(t.limit, 1) {
			t.limit = t.base
		}
	}
}

func (z *sizer) span(it contribution) []track { return z.tracks[it.start : it.start+it.span] }

// fitNonSpanningItems is step 2.
func (z *sizer) fitNonSpanningItems() {
	for _, it := range z.items {
		if it.span != 1 {
			continue
		}
		t := &z.tracks[it.start]
		if t.Fr > 0 {
			continue // step 4
		}
		switch t.Min.Unit {
		case style.MinContent:
			t.base = max(t.base, it.min)
		case style.MaxContent:
			t.base = max(t.base, it.max)
		case style.Auto:
			t.base = max(t.base, it.least) // browsers do so under a min-content constraint too
		}
		if t.intrinsicMax() {
			v := it.max
			if t.Max.Unit == style.MinContent {
				v = it.min
			}
			if math.IsInf(t.limit, 1) {
				t.limit = 0
			}
			t.limit = max(t.limit, min(v, t.fit))
		}
	}
	for i := range z.tracks {
		t := &z.tracks[i]
		t.limit = max(t.limit, t.base)
	}
}

// accommodate is steps 3 and 4 for items of one span, or all that cross flexible
// tracks: base sizes for minimums, then growth limits for maximums.
func (z *sizer) accommodate(items []contribution, overFlexible bool) {
	if len(items) == 0 {
		return
	}
	in := func(is func(*track) bool) func(*track) bool {
		return func(t *track) bool { return is(t) && (!overFlexible || t.Fr > 0) }
	}
	intrinsicMax := (*track).intrinsicMax
	// 1. For intrinsic minimums.
	z.distribute(
		items,
		overFlexible,
		false,
		in((*track).intrinsicMin),
		func(it contribution) float64 { return it.least },
		intrinsicMax,
	)
	if z.ofContent {
		// 2. For content-based minimums.
		contentMin := func(t *track) bool { return t.Min.Unit == style.MinContent || t.Min.Unit == style.MaxContent }
		z.distribute(
			items,
			overFlexible,
			false,
			in(contentMin),
			func(it contribution) float64 { return it.min },
			intrinsicMax,
		)
		// 3. For max-content minimums.
		maxMin := func(t *track) bool { return t.Min.Unit == style.MaxContent }
		z.distribute(
			items,
			overFlexible,
			false,
			in(maxMin),
			func(it contribution) float64 { return it.max },
			(*track).maxContentMax,
		)
	}
	// 4. No growth limit below its base size.
	for i := range z.tracks {
		z.tracks[i].limit = max(z.tracks[i].limit, z.tracks[i].base)
	}
	if overFlexible {
		return
	}
	// 5. For intrinsic maximums, 6. for max-content maximums.
	z.distribute(items, false, true, intrinsicMax, func(it contribution) float64 { return it.min }, intrinsicMax)
	if !z.ofHeights {
		z.distribute(
			items,
			false,
			true,
			(*track).maxContentMax,
			func(it contribution) float64 { return it.max },
			intrinsicMax,
		)
	}
	for i := range z.tracks {
		z.tracks[i].infinitelyGrowable = false
	}
}

// distribute is "distribute extra space across spanned tracks" (§12.5.1): affected
// tells the tracks that may grow, want the contribution to accommodate, beyond
// those preferred to grow past their limits.
func (z *sizer) distribute(
	items []contribution,
	byFlex, limits bool,
	affected func(*track) bool,
	want func(contribution) float64,
	beyond func(*track) bool,
) {
	for i := range z.tracks {
		z.tracks[i].planned, z.tracks[i].touched = 0, false
	}
	size := func(t *track) float64 {
		if limits && !math.IsInf(t.limit, 1) {
			return t.limit
		}
		return t.base
	}
	for _, it := range items {
		span := z.span(it)
		space := want(it) - z.gap*float64(it.span-1)
		grow := z.grow[:0]
		for i := range span {
			space -= size(&span[i])
			if affected(&span[i]) {
				grow = append(grow, i)
				span[i].touched = true
			}
		}
		z.grow = grow
		if space <= 1e-9 || len(grow) == 0 {
			continue
		}
		if cap(z.incurred) < len(span) {
			z.incurred = make([]float64, 2*len(span))
		}
		incurred := z.incurred[:len(span)]
		clear(incurred)
		if byFlex {
			shareByFlex(span, grow, space, incurred)
		} else {
			z.shareEqually(span, grow, space, incurred, limits, beyond)
		}
		for i, v := range incurred {
			t := &span[i]
			t.planned = max(t.planned, v)
		}
	}
	for i := range z.tracks {
		t := &z.tracks[i]
		if !limits {
			t.base += t.planned
			continue
		}
		if math.IsInf(t.limit, 1) {
			if t.touched {
				t.limit, t.infinitelyGrowable = t.base+t.planned, true
			}
			continue
		}
		t.limit += t.planned
	}
}

// shareByFlex divides by flex factors, equally where they are all 0 (step 4).
func shareByFlex(span []track, grow []int, space float64, incurred []float64) {
	sum := 0.0
	for _, i := range grow {
		sum += span[i].Fr
	}
	for _, i := range grow {
		if sum > 0 {
			incurred[i] = space * span[i].Fr / sum
		} else {
			incurred[i] = space / float64(len(grow))
		}
	}
}

// shareEqually divides equally up to limits, and then beyond them.
func (z *sizer) shareEqually(
	span []track,
	grow []int,
	space float64,
	incurred []float64,
	limits bool,
	beyond func(*track) bool,
) {
	room := func(t *track) float64 {
		if !limits {
			return t.limit - t.base
		}
		switch {
		case math.IsInf(t.limit, 1):
			return max(t.fit-t.base, 0)
		case t.infinitelyGrowable:
			return max(t.fit-t.limit, 0)
		}
		return 0
	}
	space = z.share(grow, space, incurred, func(i int) float64 { return room(&span[i]) })
	if space <= 0 {
		return
	}
	// Beyond limits; the growth limit of a fit-content() track goes no further than
	// its argument.
	past := slices.DeleteFunc(slices.Clone(grow), func(i int) bool { return !beyond(&span[i]) })
	space = z.share(past, space, incurred, func(i int) float64 {
		t := &span[i]
		if limits {
			return max(t.fit-min(t.limit, t.fit), 0)
		}
		return math.Inf(1)
	})
	if !limits {
		z.share(grow, space, incurred, func(int) float64 { return math.Inf(1) })
	}
}

// share divides space equally among tracks until each has as much as most gives,
// and gives what is left of it.
func (z *sizer) share(among []int, space float64, incurred []float64, most func(int) float64) float64 {
	open := append(z.open[:0], among...)
	z.open = open
	for space > 1e-9 && len(open) > 0 {
		part := space / float64(len(open))
		before, next := len(open), open[:0]
		for _, i := range open {
			left := most(i) - incurred[i]
			if add := min(part, left); add > 0 {
				incurred[i] += add
				space -= add
			}
			if left > part {
				next = append(next, i)
			}
		}
		if len(next) == before {
			return 0 // all took their share
		}
		open = next
	}
	return max(space, 0)
}

// maximizeTracks is §12.6.
func (z *sizer) maximizeTracks() {
	if z.under == minContent {
		return
	}
	available := z.available
	if isAuto(available) {
		sum := z.gaps()
		for i := range z.tracks {
			t := &z.tracks[i]
			sum += t.base
			if t.Fr == 0 {
				sum += max(t.limit-t.base, 0)
			}
		}
		available = sum
	}
	free := available - z.total()
	for free > 1e-9 {
		open := z.open[:0]
		for i := range z.tracks {
			if t := &z.tracks[i]; t.Fr == 0 && t.base < t.limit {
				open = append(open, i)
			}
		}
		z.open = open
		if len(open) == 0 {
			return
		}
		share := free / float64(len(open))
		for _, i := range open {
			add := min(share, z.tracks[i].limit-z.tracks[i].base)
			z.tracks[i].base += add
			free -= add
		}
	}
}

// expandFlexibleTracks is §12.7.
func (z *sizer) expandFlexibleTracks() {
	flex := 0.0
	for i := range z.tracks {
		flex += z.tracks[i].Fr
	}
	if flex == 0 || z.under == minContent {
		return
	}
	var fr float64
	if isAuto(z.available) {
		for i := range z.tracks {
			if t := &z.tracks[i]; t.Fr > 0 {
				fr = max(fr, t.base/max(t.Fr, 1))
			}
		}
		for _, it := range z.items {
			span := z.span(it)
			if flexible(span) {
				fr = max(fr, z.sizeOfFr(span, it.max))
			}
		}
	} else {
		fr = z.sizeOfFr(z.tracks, z.available)
	}
	for i := range z.tracks {
		if t := &z.tracks[i]; t.Fr > 0 {
			t.base = max(t.base, fr*t.Fr)
			z.flexed = z.flexed || t.base == fr*t.Fr
		}
	}
}

// sizeOfFr is "find the size of an fr" (§12.7.1).
func (z *sizer) sizeOfFr(ts []track, space float64) float64 {
	var few [32]bool
	inflexible := few[:]
	if len(ts) > len(few) {
		inflexible = make([]bool, len(ts))
	}
	gaps := z.gap * float64(max(len(ts)-1, 0))
	if len(ts) == len(z.tracks) {
		gaps = z.gaps()
	}
	for {
		left, flex := space-gaps, 0.0
		for i := range ts {
			if ts[i].Fr == 0 || inflexible[i] {
				left -= ts[i].base
			} else {
				flex += ts[i].Fr
			}
		}
		fr := max(left, 0) / max(flex, 1)
		again := false
		for i := range ts {
			if ts[i].Fr > 0 && !inflexible[i] && fr*ts[i].Fr < ts[i].base {
				inflexible[i], again = true, true
			}
		}
		if !again {
			return fr
		}
	}
}

// stretchAutoTracks is §12.8.
func (z *sizer) stretchAutoTracks() {
	autos := z.open[:0]
	for i := range z.tracks {
		if t := &z.tracks[i]; t.Fr == 0 && t.Max.Unit == style.Auto && !t.collapsed {
			autos = append(autos, i)
		}
	}
	z.open = autos
	available := z.available
	if isAuto(available) {
		available = z.least // a definite minimum stands in (the same section)
	}
	if free := available - z.total(); free > 0 && len(autos) > 0 {
		for _, i := range autos {
			z.tracks[i].base += free / float64(len(autos))
		}
	}
}

// gaps is what the gutters take; collapsed tracks have none.
func (z *sizer) gaps() float64 {
	n := 0
	for i := range z.tracks {
		if !z.tracks[i].collapsed {
			n++
		}
	}
	return z.gap * float64(max(n-1, 0))
}

func (z *sizer) total() float64 {
	sum := z.gaps()
	for i := range z.tracks {
		sum += z.tracks[i].base
	}
	return sum
}

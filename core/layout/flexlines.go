package layout

import "math"

// resolveFlexibleLengths finds the used main sizes of a line's items (CSS Flexbox 1
// §9.7).
func (f *flexbox) resolveFlexibleLengths(l *flexLine) {
	inner := f.main - f.gap*float64(len(l.items)-1)
	// 1. Determine the used flex factor.
	sum := 0.0
	for i := range l.items {
		sum += l.items[i].hypothetical + f.mainMargin(&l.items[i])
	}
	grow := sum < inner
	factor := func(it *flexItem) float64 {
		if grow {
			return it.s.FlexGrow
		}
		return it.s.FlexShrink.Value()
	}
	// 2. Size inflexible items.
	for i := range l.items {
		it := &l.items[i]
		it.target = it.base
		if factor(it) == 0 || grow && it.base > it.hypothetical || !grow && it.base < it.hypothetical {
			it.target, it.frozen = it.hypothetical, true
		}
	}
	// 3. Calculate initial free space.
	initial := f.freeSpace(l, inner)
	// 4. Loop.
	for range len(l.items) + 1 {
		factors, scaled, open := 0.0, 0.0, false
		for i := range l.items {
			if it := &l.items[i]; !it.frozen {
				open = true
				factors += factor(it)
				scaled += it.s.FlexShrink.Value() * f.innerBase(it)
			}
		}
		if !open {
			return
		}
		// b. Remaining free space.
		remaining := f.freeSpace(l, inner)
		if factors < 1 {
			if part := initial * factors; math.Abs(part) < math.Abs(remaining) {
				remaining = part
			}
		}
		// c. Distribute free space proportional to the flex factors.
		for i := range l.items {
			it := &l.items[i]
			switch {
			case it.frozen:
			case remaining == 0:
				it.target = it.base
			case grow:
				it.target = it.base + remaining*it.s.FlexGrow/factors
			case scaled > 0:
				it.target = it.base + remaining*it.s.FlexShrink.Value()*f.innerBase(it)/scaled
			}
		}
		// d. Fix min/max violations, e. freeze over-flexed items.
		violation := 0.0
		for i := range l.items {
			if it := &l.items[i]; !it.frozen {
				violation += max(min(it.target, it.most), it.least) - it.target
			}
		}
		for i := range l.items {
			it := &l.items[i]
			if it.frozen {
				continue
			}
			clamped := max(min(it.target, it.most), it.least)
			it.frozen = math.Abs(violation) < 1e-9 || violation > 0 && clamped > it.target ||
				violation < 0 && clamped < it.target
			it.target = clamped
		}
	}
	// Each round freezes an item, unless a size isn't a number: then it is left at what it was.
}

// freeSpace is what frozen items' target sizes and the others' base sizes leave.
func (f *flexbox) freeSpace(l *flexLine, inner float64) float64 {
	for i := range l.items {
		it := &l.items[i]
		size := it.base
		if it.frozen {
			size = it.target
		}
		inner -= size + f.mainMargin(it)
	}
	return inner
}

// innerBase is the flex base size without padding and border: what the scaled flex
// shrink factor multiplies.
func (f *flexbox) innerBase(it *flexItem) float64 {
	in := f.c.insetOf(it.o, f.room.w)
	if f.row {
		return it.base - in.x()
	}
	return it.base - in.y()
}

package layout

import (
	"cmp"
	"math"
	"slices"

	"openplot/core/shape"
	"openplot/core/style"
)

// What is done last with a flex container.
type (
	flexAlignment struct{ *flexbox } // its lines and items aligned (§9.5 to §9.6)
)

// flexbox is the layout of one flex container (CSS Flexbox 1 §9). Sizes along its
// main and cross axes are border-box px.
type flexbox struct {
	c       *context
	s       *style.Style
	row     bool
	room    space
	main    float64 // inner main size; auto until it is known
	gap     float64 // between items
	lineGap float64
	items   []flexItem
	lines   []flexLine
}

type flexItem struct {
	o            *object
	s            *style.Style
	margin       edges
	align        style.Alignment
	base         float64 // flex base size
	hypothetical float64 // hypothetical main size
	least, most  float64 // used min and max main size
	target       float64 // used main size
	frozen       bool
	crossWidth   float64 // of a column's item
	box          *Box
	at, crossAt  float64 // of the border box, from the main-start and cross-start edges
}

type flexLine struct {
	items    []flexItem // a part of flexbox.items
	cross    float64    // size
	ascent   float64    // from the cross-start edge to the shared baseline
	position float64
}

// flex lays out the items of a flex container and gives its content height.
func (c flexing) flex(b *Box, o *object, room space, in edges) float64 {
	f := last(&c.flexes)
	*f = flexbox{c: c.context, s: c.style(o), room: room, items: f.items[:0], lines: f.lines[:0]}
	defer func() { c.flexes = append(c.flexes, f) }()
	f.row = f.s.FlexDirection == style.Row || f.s.FlexDirection == style.RowReverse
	columnGap := shape.Floor64(f.s.ColumnGap.Or(room.w, c.viewport, 0))
	rowGap := shape.Floor64(f.s.RowGap.Or(room.percent, c.viewport, 0))
	f.gap, f.lineGap = columnGap, rowGap
	f.main = room.w
	if !f.row {
		f.gap, f.lineGap = rowGap, columnGap
		f.main = room.h
	}
	f.generateItems(o)
	for i := range f.items {
		f.baseSize(&f.items[i])
	}
	f.collectLines()
	f.containerMainSize()
	for i := range f.lines {
		f.resolveFlexibleLengths(&f.lines[i])
		for j := range f.lines[i].items {
			f.hypotheticalCrossSize(&f.lines[i].items[j])
		}
		f.lineCrossSize(&f.lines[i])
	}
	cross := flexAlignment{f}.alignLines()
	for i := range f.lines {
		flexAlignment{f}.alignItems(&f.lines[i])
	}
	flexAlignment{f}.place(b, in, cross)
	if f.row {
		return cross
	}
	return f.main
}

// single reports whether it is a single-line flex container (§6).
func (f *flexbox) single() bool { return f.s.FlexWrap == style.SingleLine }

// generateItems is §4 and §5.4: in-flow children in order-modified document order.
func (f *flexbox) generateItems(o *object) {
	for _, child := range o.children {
		s := f.c.style(child)
		if s.Display == style.None || s.Position == style.Absolute {
			continue
		}
		a := selfAlignment(s.AlignSelf, f.s.AlignItems)
		if a == style.AlignAuto {
			a = style.AlignStretch // normal behaves as stretch (CSS Box Alignment 3 §6.2)
		}
		if a == style.AlignBaseline && !f.row {
			a = style.AlignStart
		}
		if f.s.FlexWrap == style.WrapReverse {
			a = flipped(a)
		}
		f.items = append(f.items, flexItem{o: child, s: s, margin: f.c.marginsOf(child, f.room.w), align: a})
	}
	slices.SortStableFunc(f.items, func(a, b flexItem) int { return cmp.Compare(a.s.Order, b.s.Order) })
}

func (f *flexbox) mainMargin(it *flexItem) float64 {
	if f.row {
		return it.margin.x()
	}
	return it.margin.y()
}

func (f *flexbox) crossMargin(it *flexItem) float64 {
	if f.row {
		return it.margin.y()
	}
	return it.margin.x()
}

// stretches reports whether the item's cross size is the line's (§9.4 step 11).
func (f *flexbox) stretches(it *flexItem) bool {
	if it.align != style.AlignStretch {
		return false
	}
	if f.row {
		return it.s.Height.Unit == style.Auto && it.s.MarginAuto&(style.Top|style.Bottom) == 0
	}
	return it.s.Width.Unit == style.Auto && it.s.MarginAuto&(style.Left|style.Right) == 0
}

// baseSize determines the flex base size and hypothetical main size (§9.2 step 3)
// and the used minimum and maximum, the automatic minimum among them (§4.5).
func (f *flexbox) baseSize(it *flexItem) {
	if f.row {
		f.rowBaseSize(it)
	} else {
		f.columnBaseSize(it)
	}
	it.hypothetical = max(min(it.base, it.most), it.least)
}

func (f *flexbox) rowBaseSize(it *flexItem) {
	c, s := f.c, it.s
	inset := c.insetOf(it.o, f.room.w).x()
	available := f.room.w - it.margin.x()
	basis := s.FlexBasis
	if basis.Unit == style.Auto {
		basis = s.Width
	}
	base, ok := c.sizeIn(it.o, basis, available, f.room.w)
	if !ok {
		base = intrinsics{c}.within(it.o, f.room.w).most
		if h, definite := f.definiteCross(it); definite && (it.o.replaced || s.AspectRatio > 0) {
			base = f.transferred(it, h, base)
		}
	}
	it.base = max(base, inset)
	it.most = math.Inf(1)
	if m, ok := c.sizeIn(it.o, s.MaxWidth, available, f.room.w); ok {
		it.most = max(m, inset)
	}
	it.least = inset
	if m, ok := c.sizeIn(it.o, s.MinWidth, available, f.room.w); ok {
		it.least = max(m, inset)
	} else if !s.Overflow.Scrolls() {
		content := intrinsics{c}.within(it.o, f.room.w).least
		if w, ok := c.specifiedWidth(it.o, available, f.room.w); ok {
			content = min(content, w)
		}
		it.least = max(min(content, it.most), inset)
	}
	it.most = max(it.most, it.least)
}

// definiteCross is the item's definite height in a row: its own, or the line's
// that it will be stretched to (§9.8).
func (f *flexbox) definiteCross(it *flexItem) (float64, bool) {
	if h, ok := it.s.Height.Resolve(f.room.percent, f.c.viewport); ok {
		return f.c.clampHeight(it.s, h, f.room.percent), true
	}
	if f.single() && f.stretches(it) && !isAuto(f.room.h) {
		return f.c.clampHeight(it.s, f.room.h-it.margin.y(), f.room.percent), true
	}
	return 0, false
}

// transferred is a width by the aspect ratio from a height.
func (f *flexbox) transferred(it *flexItem, h, otherwise float64) float64 {
	if it.s.AspectRatio > 0 {
		return h * it.s.AspectRatio
	}
	in := f.c.insetOf(it.o, f.room.w)
	if w, nh := it.o.natW, it.o.natH; w > 0 && nh > 0 {
		return max(h-in.y(), 0)*w/nh + in.x()
	}
	return otherwise
}

func (f *flexbox) columnBaseSize(it *flexItem) {
	c, s := f.c, it.s
	inset := c.insetOf(it.o, f.room.w).y()
	it.crossWidth = f.columnWidth(it)
	content := auto
	contentHeight := func() float64 {
		if isAuto(content) {
			content = f.contentBox(it).H
		}
		return content
	}
	basis := s.FlexBasis
	if basis.Unit == style.Auto {
		basis = s.Height
	}
	base, ok := basis.Resolve(f.room.percent, c.viewport)
	if !ok {
		base = contentHeight()
	}
	it.base = max(shape.Floor64(base), inset)
	it.most = math.Inf(1)
	if m, ok := s.MaxHeight.Resolve(f.room.percent, c.viewport); ok {
		it.most = max(m, inset)
	}
	it.least = inset
	if m, ok := s.MinHeight.Resolve(f.room.percent, c.viewport); ok {
		it.least = max(m, inset)
	} else if !s.Overflow.Scrolls() {
		if h, ok := s.Height.Resolve(f.room.percent, c.viewport); ok {
			it.least = max(min(h, contentHeight(), it.most), inset)
		} else {
			it.least = max(min(contentHeight(), it.most), inset)
		}
	}
	it.most = max(it.most, it.least)
}

// columnWidth is the used width of a column's item: stretched in a single-line
// container, fitted to its content otherwise.
func (f *flexbox) columnWidth(it *flexItem) float64 {
	available := f.room.w - it.margin.x()
	w, ok := f.c.specifiedWidth(it.o, available, f.room.w)
	switch {
	case ok:
	case it.o.replaced:
		w, _ = f.c.naturalWidth(it.o)
	case it.s.AspectRatio > 0 && it.s.Width.Unit == style.Auto && f.c.hasHeight(it.s, f.room.percent) && !(f.single() && f.stretches(it)):
		h, _ := it.s.Height.Resolve(f.room.percent, f.c.viewport)
		w = f.c.clampHeight(it.s, h, f.room.percent) * it.s.AspectRatio
	case f.single() && f.stretches(it):
		w = available
	default:
		w = intrinsics{f.c}.fitContent(it.o, available, f.room.w)
	}
	return f.c.clampWidth(it.o, w, f.room.w)
}

// contentBox lays a column's item out with the height of its content, as if height
// and its limits were unset.
func (f *flexbox) contentBox(it *flexItem) *Box {
	return f.c.layout(it.o, constraint{w: it.crossWidth, h: auto, cw: f.room.w, ch: auto, content: true})
}

// collectLines is §9.3 step 5.
func (f *flexbox) collectLines() {
	if f.single() || isAuto(f.main) {
		if len(f.items) > 0 {
			f.lines = append(f.lines, flexLine{items: f.items})
		}
		return
	}
	start, sum := 0, 0.0
	for i := range f.items {
		outer := f.items[i].hypothetical + f.mainMargin(&f.items[i])
		if i > start && sum+f.gap+outer > f.main+1e-6 {
			f.lines = append(f.lines, flexLine{items: f.items[start:i]})
			start, sum = i, outer
			continue
		}
		if i > start {
			sum += f.gap
		}
		sum += outer
	}
	if start < len(f.items) {
		f.lines = append(f.lines, flexLine{items: f.items[start:]})
	}
}

// containerMainSize is §9.2 step 4 for a column of indefinite height: what its
// items add up to, within the container's limits.
func (f *flexbox) containerMainSize() {
	if !isAuto(f.main) {
		return
	}
	sum := 0.0
	for i := range f.lines {
		sum = max(sum, f.outerHypothetical(&f.lines[i]))
	}
	f.main = f.room.bound(sum)
}

func (f *flexbox) outerHypothetical(l *flexLine) float64 {
	sum := f.gap * float64(len(l.items)-1)
	for i := range l.items {
		sum += l.items[i].hypothetical + f.mainMargin(&l.items[i])
	}
	return sum
}

// hypotheticalCrossSize is §9.4 step 7: the item laid out with its used main size.
func (f *flexbox) hypotheticalCrossSize(it *flexItem) {
	k := constraint{w: it.target, h: auto, cw: f.room.w, ch: f.room.percent}
	if !f.row {
		k.w, k.h, k.loose = it.crossWidth, it.target, isAuto(f.room.h)
	}
	it.box = f.c.layout(it.o, k)
}

func (f *flexbox) crossSize(it *flexItem) float64 {
	if f.row {
		return it.box.H
	}
	return it.box.W
}

// baselined reports whether an item takes part in baseline alignment.
func (f *flexbox) baselined(it *flexItem) bool {
	return it.align == style.AlignBaseline && it.s.MarginAuto&(style.Top|style.Bottom) == 0
}

// lineCrossSize is §9.4 step 8.
func (f *flexbox) lineCrossSize(l *flexLine) {
	ascent, descent := math.Inf(-1), math.Inf(-1)
	for i := range l.items {
		it := &l.items[i]
		if f.baselined(it) {
			a := it.box.baseline() + it.margin.top
			ascent, descent = max(ascent, a), max(descent, it.box.H+it.margin.y()-a)
		} else {
			l.cross = max(l.cross, f.crossSize(it)+f.crossMargin(it))
		}
	}
	if !math.IsInf(ascent, -1) {
		l.cross, l.ascent = max(l.cross, ascent+descent), ascent
	}
	if !f.single() {
		return
	}
	if f.row {
		if isAuto(f.room.h) {
			l.cross = f.room.bound(l.cross)
		} else {
			l.cross = f.room.h
		}
	} else {
		l.cross = f.room.w
	}
}

// alignLines finds the container's cross size and the places of its lines (§9.4
// step 9, §9.6), and gives the former.
func (f flexAlignment) alignLines() float64 {
	sum := f.lineGap * float64(max(len(f.lines)-1, 0))
	for i := range f.lines {
		sum += f.lines[i].cross
	}
	cross := f.room.w
	if f.row {
		cross = f.room.h
		if isAuto(cross) {
			cross = f.room.bound(sum)
		}
	}
	align := f.s.AlignContent
	if f.s.FlexWrap == style.WrapReverse {
		align = flipped(align)
	}
	free := cross - sum
	if f.single() {
		free, align = 0, style.AlignStart
	}
	if (align == style.AlignAuto || align == style.AlignStretch) && free > 0 && len(f.lines) > 0 {
		for i := range f.lines {
			f.lines[i].cross += free / float64(len(f.lines))
		}
		free = 0
	}
	at, between := distribute(align, free, len(f.lines), f.s.FlexWrap == style.WrapReverse)
	for i := range f.lines {
		f.lines[i].position = at
		at += f.lines[i].cross + f.lineGap + between
	}
	return cross
}

// alignItems finds used cross sizes and all places in a line (§9.4 step 11, §9.5,
// §9.6).
func (f flexAlignment) alignItems(l *flexLine) {
	for i := range l.items {
		f.stretch(&l.items[i], l)
	}
	f.alignMain(l)
	for i := range l.items {
		f.alignCross(&l.items[i], l)
	}
}

// stretch is §9.4 step 11.
func (f flexAlignment) stretch(it *flexItem, l *flexLine) {
	if !f.stretches(it) {
		return
	}
	size := l.cross - f.crossMargin(it)
	k := constraint{w: it.target, h: f.c.clampHeight(it.s, size, f.room.percent), cw: f.room.w, ch: f.room.percent}
	if !f.row {
		if it.o.replaced {
			return
		}
		k.w, k.h, k.loose = f.c.clampWidth(it.o, size, f.room.w), it.target, isAuto(f.room.h)
	} else {
		k.h = max(k.h, f.c.insetOf(it.o, f.room.w).y())
	}
	it.box = f.c.layout(it.o, k)
}

// alignMain is §9.5 step 12: auto margins, then justify-content.
func (f flexAlignment) alignMain(l *flexLine) {
	first, last := style.Left, style.Right
	if !f.row {
		first, last = style.Top, style.Bottom
	}
	justify := f.s.JustifyContent
	if f.reversed() {
		first, last = last, first
		justify = flipped(justify)
	}
	free := f.main - f.gap*float64(len(l.items)-1)
	autos := 0
	for i := range l.items {
		it := &l.items[i]
		free -= it.target + f.mainMargin(it)
		for _, side := range [...]style.Sides{first, last} {
			if it.s.MarginAuto&side != 0 {
				autos++
			}
		}
	}
	share := 0.0
	if autos > 0 && free > 0 {
		share, free = free/float64(autos), 0
	}
	at, between := distribute(justify, free, len(l.items), f.reversed())
	for i := range l.items {
		it := &l.items[i]
		before, after := f.mainMargins(it)
		if it.s.MarginAuto&first != 0 {
			before = share
		}
		if it.s.MarginAuto&last != 0 {
			after = share
		}
		it.at = at + before
		at += before + it.target + after + f.gap + between
	}
}

func (f flexAlignment) reversed() bool {
	return f.s.FlexDirection == style.RowReverse || f.s.FlexDirection == style.ColumnReverse
}

// mainMargins are the margins at the main-start and main-end sides.
func (f flexAlignment) mainMargins(it *flexItem) (before, after float64) {
	before, after = it.margin.left, it.margin.right
	if !f.row {
		before, after = it.margin.top, it.margin.bottom
	}
	if f.reversed() {
		before, after = after, before
	}
	return before, after
}

// alignCross is §9.6 steps 13 and 14; the place is from the line's cross-start.
func (f flexAlignment) alignCross(it *flexItem, l *flexLine) {
	before, after := it.margin.left, it.margin.right
	first, last := style.Left, style.Right
	if f.row {
		before, after = it.margin.top, it.margin.bottom
		first, last = style.Top, style.Bottom
	}
	if f.s.FlexWrap == style.WrapReverse {
		before, after = after, before
		first, last = last, first
	}
	free := l.cross - f.crossSize(it) - before - after
	switch autos := it.s.MarginAuto & (first | last); {
	case autos != 0 && free > 0:
		switch autos {
		case first | last:
			it.crossAt = free/2 + before
		case first:
			it.crossAt = free + before
		default:
			it.crossAt = before
		}
	case autos != 0:
		it.crossAt = before
	case f.baselined(it):
		it.crossAt = l.ascent - it.box.baseline()
		if f.s.FlexWrap == style.WrapReverse {
			it.crossAt = l.cross - it.crossAt - it.box.H
		}
	default:
		it.crossAt = offset(it.align, free) + before
	}
	it.crossAt += l.position
}

// place turns places along the axes into places in the box.
func (f flexAlignment) place(b *Box, in edges, cross float64) {
	b.Children = make([]Child, 0, len(f.items)+1)
	for i := range f.lines {
		for j := range f.lines[i].items {
			it := &f.lines[i].items[j]
			m, x := it.at, it.crossAt
			if f.reversed() {
				m = f.main - m - it.target
			}
			if f.s.FlexWrap == style.WrapReverse {
				x = cross - x - f.crossSize(it)
			}
			child := Child{in.left + m, in.top + x, it.box}
			if !f.row {
				child.X, child.Y = in.left+x, in.top+m
			}
			b.Children = append(b.Children, child)
		}
	}
	f.baseline(b)
}

// baseline is §8.5: of the first line's items that share one, else of the first.
func (f flexAlignment) baseline(b *Box) {
	if len(f.lines) == 0 {
		return
	}
	first := 0
	for j := range f.lines[0].items {
		if f.baselined(&f.lines[0].items[j]) {
			first = j
			break
		}
	}
	k := b.Children[first]
	b.Baseline = k.Y + k.baseline()
}

// flexIntrinsicWidths gives a flex container's intrinsic widths by its content
// (§9.9.1, in the form that browsers use: a sum in which an item that can't flex
// from its base size towards its contribution counts with its base size).
func (c flexing) flexIntrinsicWidths(o *object) (v intrinsicWidths) {
	s := c.style(o)
	row := s.FlexDirection == style.Row || s.FlexDirection == style.RowReverse
	gap := shape.Floor64(s.ColumnGap.Or(0, c.viewport, 0))
	n := 0
	for _, child := range o.children {
		k := c.style(child)
		if k.Display == style.None || k.Position == style.Absolute {
			continue
		}
		w := intrinsics(c).contribution(child)
		if !row {
			v.least, v.most = max(v.least, w.least), max(v.most, w.most)
			continue
		}
		if flexed := c.flexContribution(child, w); s.FlexWrap == style.SingleLine {
			w = flexed
		} else {
			w.most = flexed.most
		}
		if n > 0 {
			v.most += gap
			if s.FlexWrap == style.SingleLine {
				v.least += gap
			}
		}
		n++
		v.most += w.most
		if s.FlexWrap == style.SingleLine {
			v.least += w.least
		} else {
			v.least = max(v.least, w.least)
		}
	}
	v.most = max(v.most, v.least)
	return v
}

// flexContribution is a row item's part in its container's intrinsic widths.
func (c flexing) flexContribution(o *object, w intrinsicWidths) intrinsicWidths {
	s := c.style(o)
	if s.FlexBasis.Unit == style.Auto || s.FlexBasis.OfBase() {
		return w
	}
	m := c.margins(s, 0).x()
	base, ok := c.sizeIn(o, s.FlexBasis, auto, auto)
	if !ok {
		base = intrinsics(c).intrinsic(o).most
	}
	base = max(base, c.inset(s, 0).x())
	least := c.inset(s, 0).x()
	if s.MinWidth.Unit == style.Auto && !s.Overflow.Scrolls() {
		content := intrinsics(c).intrinsic(o).least
		if px, ok := s.Width.Resolve(auto, c.viewport); ok {
			content = min(content, px)
		}
		if px, ok := c.sizeIn(o, s.MaxWidth, auto, auto); ok {
			content = min(content, px)
		}
		least = max(least, content)
	}
	base = max(intrinsics(c).limitWidth(o, base), least) + m
	if s.FlexGrow == 0 {
		w.least, w.most = min(w.least, base), min(w.most, base)
	}
	if s.FlexShrink.Value() == 0 {
		w.most = max(w.most, base)
		if ok { // one that content decides doesn't count
			w.least = max(w.least, base)
		}
	}
	return w
}

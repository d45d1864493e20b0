package layout

import (
	"math"

	"openplot/core/shape"
	"openplot/core/style"
)

// gridbox is the layout of one grid container (CSS Grid 2 §12.1).
type gridbox struct {
	c     *context
	s     *style.Style
	items []gridItem
	// Numbers of tracks, implicit ones included.
	columns, rows int
	explicit      []style.Track // columns, repeated as often as they fit
	columnGap     float64
	rowGap        float64
	edges         []bool
}

// gridItem is an in-flow child of a grid container.
type gridItem struct {
	o *object
	s *style.Style
	f *facts
	area
	margin  edges
	align   style.Alignment // in the block axis
	justify style.Alignment // in the inline axis
	x, w    float64         // of the area, px
	width   float64         // of the border box
	box     *Box
}

// placement is where a grid's items stand, by zone and by the number of columns.
type placement struct {
	items         []gridItem // in order, not laid out
	columns, rows int
	zone          int
	explicit      int
	known         bool
}

// newGrid places a container's items; width is its content's, or auto.
func (c grids) newGrid(o *object, width float64) *gridbox {
	s := c.style(o)
	g := last(&c.grids)
	*g = gridbox{
		c: c.context, s: s,
		columnGap: shape.Floor64(s.ColumnGap.Or(width, c.viewport, 0)),
		explicit:  s.GridColumns, items: g.items[:0], edges: g.edges,
	}
	g.repeatToFill(width)
	p := &c.slots[o.index].placed
	if !p.known || p.zone != c.zone || p.explicit != len(g.explicit) {
		*p = c.placement(o, len(g.explicit))
	}
	g.columns, g.rows = max(p.columns, len(g.explicit)), max(p.rows, len(s.GridRows))
	g.items = append(g.items, p.items...)
	return g
}

func (c grids) placement(o *object, explicit int) placement {
	s := c.style(o)
	p := placement{zone: c.zone, explicit: explicit, known: true}
	children := c.ordered(o)
	styles := make([]*style.Style, len(children))
	for i, child := range children {
		styles[i] = c.style(child)
	}
	if s.GridFlow == style.FlowColumn || s.GridFlow == style.FlowColumnDense {
		explicit = len(s.GridRows)
	}
	var areas []area
	areas, p.columns, p.rows = placeItems(styles, s.GridFlow, explicit)
	for i, child := range children {
		it := gridItem{
			o: child, s: styles[i], f: c.facts(child), area: areas[i],
			align:   selfAlignment(styles[i].AlignSelf, s.AlignItems),
			justify: selfAlignment(styles[i].JustifySelf, s.JustifyItems),
		}
		if it.align == style.AlignBaseline { // only emitted in rows of flex items
			it.align = style.AlignStart
		}
		p.items = append(p.items, it)
	}
	return p
}

// release lets another grid use this one's memory.
func (g *gridbox) release() { g.c.grids = append(g.c.grids, g) }

// repeatToFill repeats the columns of auto-fill and auto-fit (§7.2.3.2).
func (g *gridbox) repeatToFill(width float64) {
	if g.s.GridFill == style.NoFill || len(g.explicit) == 0 {
		return
	}
	n, up := 1, 0.0
	if isAuto(width) { // a definite maximum counts as well, or a minimum to be filled
		if px, ok := g.s.MaxWidth.Resolve(auto, g.c.viewport); ok {
			width = px - g.c.inset(g.s, 0).x()
		} else if px, ok := g.s.MinWidth.Resolve(auto, g.c.viewport); ok {
			width, up = px-g.c.inset(g.s, 0).x(), 1-1e-6
		}
	}
	if !isAuto(width) {
		sum := g.columnGap * float64(len(g.explicit))
		for _, t := range g.explicit {
			px, ok := t.Max.Resolve(width, g.c.viewport)
			least, hasMin := t.Min.Resolve(width, g.c.viewport)
			if t.Fr > 0 || !ok {
				px = least
			} else if hasMin {
				px = max(px, least)
			}
			sum += max(px, 1)
		}
		n = min(max(int((width+g.columnGap+1e-6)/sum+up), 1), maxTrack/len(g.explicit))
	}
	once := g.explicit
	g.explicit = nil
	for range n {
		g.explicit = append(g.explicit, once...)
	}
}

// grid lays out a grid container and gives its content height.
func (c grids) grid(b *Box, o *object, room space, in edges) float64 {
	g := c.newGrid(o, room.w)
	defer g.release()
	s := g.s
	g.rowGap = shape.Floor64(s.RowGap.Or(room.percent, c.viewport, 0))

	// 1. The grid's columns.
	z := g.columnSizer(room.w, definite)
	defer z.release()
	z.run()
	t := &Tracks{}
	b.Tracks = t
	t.Columns = z.spans(
		s.JustifyContent,
		room.w,
		g.cuts(g.columns, func(a area) (int, int) { return a.column, a.columns }),
	)

	// 2. The grid's rows.
	for i := range g.items {
		it := &g.items[i]
		first, last := t.Columns[it.column], t.Columns[it.column+it.area.columns-1]
		it.x, it.w = first.Start, last.End()-first.Start
		g.sizeItem(it, room.h)
	}
	r := c.sizer()
	defer r.release()
	r.ofHeights = true
	r.gap, r.available, r.least, r.stretch = g.rowGap, room.h, room.minH, stretches(s.AlignContent)
	if isAuto(room.percent) && !isAuto(room.h) { // a height that isn't definite
		r.available, r.least = auto, room.h
	}
	r.newTracks(s.GridRows, s.GridAutoRows, g.rows)
	for i := range g.items {
		it := &g.items[i]
		h := it.box.H + it.margin.y()
		r.items = append(r.items, contribution{it.row, it.area.rows, g.minimumHeight(it, r, h), h, h})
	}
	r.run()
	height := room.h
	if isAuto(height) {
		height = room.bound(r.total())
	}
	if isAuto(r.available) && height != r.total() && flexible(r.tracks) { // they are sized again for the height
		r.available = height
		r.newTracks(s.GridRows, s.GridAutoRows, g.rows)
		r.run()
	}
	t.Rows = r.spans(s.AlignContent, height, g.cuts(g.rows, func(a area) (int, int) { return a.row, a.rows }))

	// 3. The items in their areas.
	b.Children = make([]Child, 0, len(o.children))
	for i := range g.items {
		it := &g.items[i]
		first, last := t.Rows[it.row], t.Rows[it.row+it.area.rows-1]
		k := g.placeItem(it, first.Start, last.End()-first.Start)
		k.X, k.Y = k.X+in.left, k.Y+in.top
		b.Children = append(b.Children, k)
	}
	g.baseline(b)
	if isAuto(room.h) {
		return r.total()
	}
	return height
}

func stretches(a style.Alignment) bool { return a == style.AlignAuto || a == style.AlignStretch }

// columnSizer prepares the sizing of columns, with the items' contributions where
// a track's size depends on content.
func (g *gridbox) columnSizer(width float64, under sizing) *sizer {
	z := grids{g.c}.sizer()
	z.gap, z.available, z.under, z.stretch = g.columnGap, width, under, stretches(g.s.JustifyContent)
	z.newTracks(g.explicit, g.s.GridAutoColumns, g.columns)
	if g.s.GridFill == style.AutoFit {
		z.collapseEmpty(g.items, len(g.explicit))
	}
	intrinsic := isAuto(width)
	for i := range z.tracks {
		intrinsic = intrinsic || z.tracks[i].intrinsicMin() || z.tracks[i].intrinsicMax()
	}
	if !intrinsic {
		return z
	}
	for i := range g.items {
		it := &g.items[i]
		w := intrinsics{g.c}.contribution(it.o)
		z.items = append(
			z.items,
			contribution{it.column, it.area.columns, g.minimumContribution(it, z, w), w.least, w.most},
		)
	}
	return z
}

// collapseEmpty makes the repeated tracks that no item stands in take no room
// (§7.2.3.2).
func (z *sizer) collapseEmpty(items []gridItem, repeated int) {
	used := make([]bool, len(z.tracks))
	for i := range items {
		for k := items[i].column; k < items[i].column+items[i].area.columns; k++ {
			used[k] = true
		}
	}
	for i := range repeated {
		if !used[i] {
			z.tracks[i] = track{Track: style.Fixed(style.Pixels(0)), fit: math.Inf(1), collapsed: true}
		}
	}
}

// minimumContribution is that of an item in the inline axis (§12.5): by its
// automatic minimum size (§6.6) where its width depends on the grid.
func (g *gridbox) minimumContribution(it *gridItem, z *sizer, w intrinsicWidths) float64 {
	s := it.s
	if s.Width.Unit != style.Auto && s.Width.Unit != style.FitContent && !s.Width.OfBase() {
		return w.least
	}
	m := g.c.margins(s, 0).x()
	inset := g.c.inset(s, 0).x()
	if px, ok := s.MinWidth.Resolve(auto, g.c.viewport); ok {
		return max(px, inset) + m
	}
	return z.automaticMinimum(it.column, it.area.columns, s, w.least, inset+m)
}

// minimumHeight is the minimum contribution in the block axis.
func (g *gridbox) minimumHeight(it *gridItem, z *sizer, h float64) float64 {
	s := it.s
	if s.Height.Unit != style.Auto && !s.Height.OfBase() {
		return h
	}
	inset, m := g.c.insetOf(it.o, it.w).y(), it.margin.y()
	if px, ok := s.MinHeight.Resolve(auto, g.c.viewport); ok {
		return max(px, inset) + m
	}
	return z.automaticMinimum(it.row, it.area.rows, s, h, inset+m)
}

// automaticMinimum is the automatic minimum size of a grid item (§6.6): by its
// content where it spans a track with an automatic minimum, and not several with a
// flexible one among them; least otherwise.
func (z *sizer) automaticMinimum(start, n int, s *style.Style, content, least float64) float64 {
	span := z.tracks[start : start+n]
	autos, fixedMax := false, z.gap*float64(n-1)
	for i := range span {
		t := &span[i]
		autos = autos || t.autoMin()
		if t.intrinsicMax() || t.Fr > 0 {
			fixedMax = math.Inf(1)
		} else {
			fixedMax += t.Max.Or(z.available, z.c.viewport, math.Inf(1))
		}
	}
	if s.Overflow.Scrolls() || !autos || n > 1 && flexible(span) {
		return least
	}
	return max(min(content, fixedMax), least)
}

// gridIntrinsicWidths sizes the columns under a min-content and a max-content
// constraint (§12.2, §5.2).
func (c grids) gridIntrinsicWidths(o *object) (v intrinsicWidths) {
	g := c.newGrid(o, auto)
	defer g.release()
	for _, under := range []sizing{minContent, maxContent} {
		z := g.columnSizer(auto, under)
		z.run()
		if v.most = z.total(); under == minContent {
			v.least = v.most
		}
		z.release()
	}
	return v
}

// fills reports whether an item takes its area's size in an axis: normal and
// stretch do, normal not for boxes with a ratio or a natural size (§6.2).
func (g *gridbox) fills(it *gridItem, a style.Alignment, autoMargins style.Sides) bool {
	if it.f.marginAuto&autoMargins != 0 {
		return false
	}
	return a == style.AlignStretch || a == style.AlignAuto && !it.o.replaced && !it.f.ratio
}

// sizeItem finds the width of an item in its area (§6.2) and lays it out with the
// height of its content.
func (g *gridbox) sizeItem(it *gridItem, h float64) {
	c := g.c
	it.margin = c.marginsOf(it.o, it.w)
	available := it.w - it.margin.x()
	w, ok := available, it.f.autoWidth && !it.o.replaced && g.fills(it, it.justify, style.Left|style.Right)
	if !ok {
		w, ok = c.specifiedWidth(it.o, available, it.w)
	}
	switch {
	case ok:
	case it.o.replaced && it.justify != style.AlignStretch:
		w, _ = c.naturalWidth(it.o)
	case it.s.AspectRatio > 0 && c.hasHeight(it.s, auto) && it.justify != style.AlignStretch:
		px, _ := it.s.Height.Resolve(auto, c.viewport)
		w = c.clampHeight(it.s, px, auto) * it.s.AspectRatio
	case g.fills(it, it.justify, style.Left|style.Right) && it.s.Width.Unit == style.Auto:
		w = available
	default:
		w = intrinsics{c}.fitContent(it.o, available, it.w)
	}
	it.width = c.clampWidth(it.o, w, it.w)
	it.box = c.layout(it.o, constraint{w: it.width, h: auto, cw: it.w, ch: auto})
}

// placeItem aligns an item in its area (§10, CSS Box Alignment 3 §6): an auto
// height stretches to the area's.
func (g *gridbox) placeItem(it *gridItem, y, height float64) Child {
	c := g.c
	if px, ok := it.s.Height.Resolve(height, c.viewport); !it.f.autoHeight && ok && it.s.Height.OfBase() {
		it.box = c.layout(
			it.o,
			constraint{w: it.width, h: c.clampHeight(it.s, shape.Floor64(px), height), cw: it.w, ch: height},
		)
	} else if it.s.Height.Unit == style.Auto && g.fills(it, it.align, style.Top|style.Bottom) && !it.o.replaced {
		h := max(c.clampHeight(it.s, height-it.margin.y(), height), c.insetOf(it.o, it.w).y())
		if h != it.box.H || it.f.inside {
			it.box = c.layout(it.o, constraint{w: it.width, h: h, cw: it.w, ch: height})
		}
	}
	k := Child{Box: it.box}
	k.X = it.x + it.margin.left + alignedIn(
		it.justify,
		it.f.marginAuto,
		style.Left,
		style.Right,
		it.w-it.box.W-it.margin.x(),
	)
	k.Y = y + it.margin.top + alignedIn(
		it.align,
		it.f.marginAuto,
		style.Top,
		style.Bottom,
		height-it.box.H-it.margin.y(),
	)
	return k
}

// alignedIn is where a box stands between two margins: auto ones take what is
// free, otherwise its alignment does.
func alignedIn(a style.Alignment, autos, first, last style.Sides, free float64) float64 {
	switch autos & (first | last) {
	case 0:
		return offset(a, free)
	case first | last:
		return max(free, 0) / 2
	case first:
		return max(free, 0)
	}
	return 0
}

// baseline is that of the first item in the first row (§10.6), in the order of the
// columns.
func (g *gridbox) baseline(b *Box) {
	best := -1
	for i := range g.items {
		it := &g.items[i]
		if best < 0 || it.row < g.items[best].row || it.row == g.items[best].row && it.column < g.items[best].column {
			best = i
		}
	}
	if best >= 0 {
		b.Baseline = b.Children[best].Y + b.Children[best].baseline()
	}
}

// cuts marks the lines of an axis at which an item begins or ends.
func (g *gridbox) cuts(n int, of func(area) (start, span int)) []bool {
	if cap(g.edges) < n+1 {
		g.edges = make([]bool, n+1)
	}
	out := g.edges[:n+1]
	clear(out)
	for i := range g.items {
		start, span := of(g.items[i].area)
		out[start], out[start+span] = true, true
	}
	return out
}

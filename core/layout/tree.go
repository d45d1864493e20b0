package layout

import (
	"sync"
	"sync/atomic"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
)

// Tree is an element tree ready to be laid out at many widths. Text is shaped
// once per zone and kept. It is safe for concurrent use.
type Tree struct {
	Root *element.Node
	// TextSize is the font size in px that the reader set, 0 being style.RootFontSize. It has to be
	// set before the tree is laid out.
	TextSize float64

	root  *object
	count int // of objects
	zones doc.Zones
	lib   *shape.Library

	kept map[*element.Node]*kept
}

// object is an element that makes a box.
type object struct {
	node     *element.Node
	index    int
	inline   bool // it holds text and inline elements
	children []*object
	facts    []facts // by zone
	// replaced tells that it is a replaced element, of a natural size in px.
	replaced   bool
	natW, natH float64
	*kept
}

// facts is what is known of an element in a zone whatever space it is given. Styles are large,
// and a sweep asks for these few things of them all the time.
type facts struct {
	display  style.Display
	absolute bool // it is positioned absolutely
	floated  bool // it is a float
	holds    bool // a child is positioned absolutely
	ratio    bool // it has an aspect ratio

	autoWidth, autoHeight bool // they are auto, and no aspect ratio stands in for them
	anyWidth, anyHeight   bool // they have no least and no most

	// viewport tells that the viewport's size plays a part in it, or in what stands inside,
	// beside the space it is given; containing that its padding or height is a percentage of its
	// containing block's size; inside that what stands inside stands otherwise when its height is
	// definite.
	viewport, containing, inside bool

	marginAuto          style.Sides // the sides whose margin is auto
	hasInset, hasMargin bool        // they are known:
	inset, margin       edges
}

// inFlow reports whether it is neither absent nor positioned absolutely.
func (f *facts) inFlow() bool { return f.display != style.None && !f.absolute }

func factsOf(s *style.Style) (f facts) {
	f = facts{
		display: s.Display, absolute: s.Position == style.Absolute, floated: s.Float != style.NoFloat, marginAuto: s.MarginAuto,
		ratio: s.AspectRatio != 0, autoWidth: s.Width.Unit == style.Auto && s.AspectRatio == 0, autoHeight: s.Height.Unit == style.Auto && s.AspectRatio == 0,
		anyHeight: s.MinHeight.Unit == style.Auto && s.MaxHeight.Unit == style.Auto,
		viewport: ofViewport(
			s,
		), containing: ofContaining(s), inside: s.Display == style.Grid || s.Display == style.Flex,
	}
	px := func(ls ...style.Length) bool {
		for _, l := range ls {
			if l.Unit != style.Px && l.Unit != style.Auto {
				return false
			}
		}
		return true
	}
	c := &context{}
	if p := &s.Padding; px(p.Top, p.Right, p.Bottom, p.Left) {
		f.hasInset, f.inset = true, c.inset(s, 0)
	}
	m := &s.Margin
	if !px(m.Top, m.Right, m.Bottom, m.Left) || f.viewport {
		return f
	}
	f.hasMargin, f.margin = true, c.margins(s, 0)
	f.anyWidth = s.MinWidth.Unit == style.Auto && s.MaxWidth.Unit == style.Auto
	return f
}

// kept is what stays with an element from one tree to the next.
type kept struct {
	mu    sync.Mutex
	flows []atomic.Pointer[flow] // by zone
	last  slot                   // as laid out last by At
}

// New prepares a tree. The nodes must not change afterwards.
func New(lib *shape.Library, zones doc.Zones, root *element.Node) *Tree {
	return build(lib, zones, root, nil)
}

// Next prepares the tree that follows after an edit. Elements that are the very
// same nodes as before keep their text and, at the width laid out last, their
// boxes.
func (t *Tree) Next(root *element.Node) *Tree { return build(t.lib, t.zones, root, t.kept) }

func build(lib *shape.Library, zones doc.Zones, root *element.Node, before map[*element.Node]*kept) *Tree {
	t := &Tree{Root: root, zones: zones, lib: lib, kept: map[*element.Node]*kept{}}
	t.root = t.object(root, before)
	return t
}

func (t *Tree) object(n *element.Node, before map[*element.Node]*kept) *object {
	o := &object{
		node:     n,
		index:    t.count,
		inline:   n.Inline(),
		replaced: n.Replaced(),
		facts:    make([]facts, len(t.zones)),
	}
	t.count++
	if o.kept = before[n]; o.kept == nil {
		o.kept = &kept{flows: make([]atomic.Pointer[flow], len(t.zones))}
	}
	t.kept[n] = o.kept
	if o.replaced {
		o.natW, o.natH = natural(n)
	}
	for z := range o.facts {
		o.facts[z] = factsOf(&n.Styles[z])
	}
	if o.inline {
		n.Walk(func(c *element.Node) {
			for z := range o.facts {
				o.facts[z].viewport = o.facts[z].viewport || c.Styles[z].FontSize.OfViewport()
			}
		})
		return o
	}
	for _, c := range n.Children {
		if c.Folded {
			continue
		}
		k := t.object(c, before)
		o.children = append(o.children, k)
		for z := range o.facts {
			f, s := &o.facts[z], &c.Styles[z]
			f.viewport = f.viewport || k.facts[z].viewport
			f.holds = f.holds || s.Position == style.Absolute && s.Display != style.None
			f.inside = f.inside || s.Position == style.Absolute || s.Height.OfBase() || s.MinHeight.OfBase() ||
				s.MaxHeight.OfBase()
		}
	}
	return o
}

// ofViewport reports whether any length of a style depends on the viewport.
func ofViewport(s *style.Style) bool {
	for _, l := range [...]style.Length{
		s.Width, s.Height, s.MinWidth, s.MinHeight, s.MaxWidth, s.MaxHeight, s.FlexBasis, s.ColumnGap, s.RowGap, s.FontSize, s.LineHeight,
		s.Margin.Top, s.Margin.Right, s.Margin.Bottom, s.Margin.Left, s.Padding.Top, s.Padding.Right, s.Padding.Bottom, s.Padding.Left,
		s.Inset.Top, s.Inset.Right, s.Inset.Bottom, s.Inset.Left,
		s.GridAutoRows.Min, s.GridAutoRows.Max, s.GridAutoColumns.Min, s.GridAutoColumns.Max,
	} {
		if l.OfViewport() {
			return true
		}
	}
	for _, ts := range [][]style.Track{s.GridColumns, s.GridRows} {
		for _, t := range ts {
			if t.Min.OfViewport() || t.Max.OfViewport() || t.Fit.OfViewport() {
				return true
			}
		}
	}
	return false
}

// ofContaining reports whether laying a box out of a given width needs its
// containing block's size.
func ofContaining(s *style.Style) bool {
	p := &s.Padding
	return p.Top.OfBase() || p.Right.OfBase() || p.Bottom.OfBase() || p.Left.OfBase() || s.Height.OfBase() ||
		s.MinHeight.OfBase() ||
		s.MaxHeight.OfBase()
}

// At lays the tree out in a viewport of a width in px.
func (t *Tree) At(width float64) *Box {
	c := t.context()
	c.keep = true
	return c.at(width)
}

// Zone is the index of the zone that a viewport width in px falls in.
func (t *Tree) Zone(width int) int { return t.zones.At(float64(width)) }

// Ways of laying out, each of a context.
type (
	grids      struct{ *context } // CSS Grid 1
	inlines    struct{ *context } // lines of text, and floats
	flexing    struct{ *context } // CSS Flexbox 1
	intrinsics struct{ *context } // sizes by contents (CSS Sizing 3)
)

// context is one thread of layouts.
type context struct {
	tree     *Tree
	zone     int
	viewport style.Viewport
	slots    []slot
	keep     bool // let elements keep their boxes for later trees

	// What layouts leave for the next ones to use again.
	sizers []*sizer
	grids  []*gridbox
	flexes []*flexbox
	lines  []shape.Line
	counts []count
}

// last takes the last of what is left to be used again, or makes one.
func last[T any](left *[]*T) *T {
	n := len(*left)
	if n == 0 {
		return new(T)
	}
	t := (*left)[n-1]
	*left = (*left)[:n-1]
	return t
}

func (t *Tree) context() *context { return &context{tree: t, slots: make([]slot, t.count)} }

func (c *context) at(width float64) *Box {
	if !(width > 0 && width <= greatestWidth) { // not a number, too
		width = doc.MinViewport
	}
	c.zone = c.tree.zones.At(width)
	c.viewport = style.Viewport{Width: width, Height: c.tree.zones[c.zone].ViewHeight(), Root: c.tree.TextSize}
	w := c.usedWidth(c.tree.root, width, auto)
	return c.layout(c.tree.root, constraint{w: w, h: auto, cw: width, ch: auto})
}

// greatestWidth is the widest viewport, in px, that is laid out.
const greatestWidth = 20_000

func (c *context) style(o *object) *style.Style { return &o.node.Styles[c.zone] }

func (c *context) facts(o *object) *facts { return &o.facts[c.zone] }

package layout

import (
	"sync"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
)

// NominalHeight is the viewport height in px that vh is measured against, since a
// page is laid out for a width.
const NominalHeight = 800

// Tree is an element tree ready to be laid out at many widths. Text is shaped
// once per zone and kept. It is safe for concurrent use.
type Tree struct {
	Root  *element.Node
	zones doc.Zones
	lib   *shape.Library

	mu    sync.Mutex
	texts map[textKey]*flow
}

type textKey struct {
	node *element.Node
	zone int
}

// New prepares a tree. The nodes must not change afterwards.
func New(lib *shape.Library, zones doc.Zones, root *element.Node) *Tree {
	return &Tree{Root: root, zones: zones, lib: lib, texts: map[textKey]*flow{}}
}

// Box is the border box of an element.
type Box struct {
	Node *element.Node
	// X and Y are from the top left corner of the parent's border box, in px.
	X, Y, W, H float64
	Children   []*Box
	Lines      []Line
	// Columns and Rows are the tracks of a grid container, in px from its content
	// edges.
	Columns, Rows []Span
}

// Line is a line box: its place within the border box of the block it stands in.
type Line struct{ X, Y, W, H float64 }

// Span is a stretch of an axis.
type Span struct{ Start, Size float64 }

// At lays the tree out in a viewport of a width in px.
func (t *Tree) At(width float64) *Box {
	c := &context{tree: t, zone: t.zones.At(width), viewport: style.Viewport{Width: width, Height: NominalHeight}}
	return c.blockLevel(t.Root, width)
}

// Walk calls f for the box and all below it with their absolute positions.
func (b *Box) Walk(f func(b *Box, x, y float64)) { b.walk(0, 0, f) }

func (b *Box) walk(x, y float64, f func(*Box, float64, float64)) {
	x, y = x+b.X, y+b.Y
	f(b, x, y)
	for _, c := range b.Children {
		c.walk(x, y, f)
	}
}

// context is one layout: a tree at a width.
type context struct {
	tree     *Tree
	zone     int
	viewport style.Viewport
}

func (c *context) style(n *element.Node) *style.Style { return &n.Styles[c.zone] }

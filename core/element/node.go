// Package element says what blocks are made of: trees of elements with typed CSS
// per zone.
//
// In come a site, a section or page and the media they show; out comes a tree of
// Nodes. It has two readers, and neither knows about blocks: emit writes it as
// HTML and CSS, layout computes its boxes. A kind of block is one file here.
// Start at Builder.
package element

import (
	"slices"

	"openplot/core/style"
)

// Node is an element, or a stretch of text when Tag is "".
type Node struct {
	Tag  string
	Text string // of a text node
	// Block and Section are the ids of what the element stands for on the page;
	// both are "" for inner elements.
	Block, Section string
	// Kind is what kind of block the element stands for, and Wraps that it is what a section's blocks
	// stand in.
	Kind  string
	Wraps bool
	// Part is what of the block's content is written here, when that isn't its words:
	// the number of an entry, from 0, with "." and the name of a field unless its words
	// are meant.
	Part string
	// Entry is which of the block's entries this shows, from 0, where no Part says it; "submit" is
	// what sends a form.
	Entry string
	Attrs []Attr
	// Raw is markup of our own that stands inside, such as the shapes of an svg; it has no
	// boxes of interest and is written as it is.
	Raw string
	// Sources are what an img may show instead of its src, the first that the browser reads
	// (HTML §4.8.1, picture).
	Sources []Source
	// Script names the script that the element needs, or is "".
	Script string
	// Folded elements are there but not shown as the page opens, such as what a closed
	// <details> holds. They make no box, and nothing is written to hide them.
	Folded bool
	// States are looks that the element has at times, beside Styles.
	States []State
	// Styles holds the computed style in each zone, by the zone's index. A text
	// node has its parent's.
	Styles   []style.Style
	Children []*Node
	// Key names the element within its section, the same for the same part of the
	// same block from one build to the next.
	Key string
}

// Source is a picture in one format.
type Source struct{ Type, Srcset, Sizes string }

// Attr is an HTML attribute.
type Attr struct{ Name, Value string }

// State is a look that an element has at times. It may be sized otherwise only when it
// doesn't stand in the flow then.
type State struct {
	Pseudo string // the selector behind the element's own, such as ":hover"
	// Change makes the element's usual style in a zone that which it has then.
	Change func(zone int, st *style.Style)
}

// Replaced reports whether the element's content is outside the tree, or laid out by
// rules of its own: its box is what its style and its attributes width and height say.
func (n *Node) Replaced() bool {
	switch n.Tag {
	case "img", "svg", "iframe", "video", "audio", "input", "select", "textarea":
		return true
	}
	return false
}

// Inline reports whether the children are text and inline elements.
func (n *Node) Inline() bool {
	if len(n.Children) == 0 {
		return false
	}
	c := n.Children[0]
	return c.Tag == "" || c.Tag == "br" || c.Styles[0].Display == style.Inline
}

func (n *Node) attr(name, value string) {
	n.Attrs = append(n.Attrs, Attr{name, value})
}

// SetSizes says how wide an <img> is drawn, as the HTML attribute has it, for whatever it chooses
// its copy from.
func (n *Node) SetSizes(sizes string) {
	for i := range n.Sources {
		n.Sources[i].Sizes = sizes
	}
	for i := range n.Attrs {
		if n.Attrs[i].Name == "sizes" {
			n.Attrs[i].Value = sizes
		}
	}
}

// has reports whether an attribute is there.
func (n *Node) has(name string) bool {
	return slices.ContainsFunc(n.Attrs, func(a Attr) bool { return a.Name == name })
}

// heads reports whether a heading stands in the element.
func (n *Node) heads() (heads bool) {
	n.Walk(func(c *Node) {
		heads = heads || len(c.Tag) == 2 && c.Tag[0] == 'h' && c.Tag[1] >= '1' && c.Tag[1] <= '6'
	})
	return heads
}

// Walk calls f for the node and everything below it.
func (n *Node) Walk(f func(*Node)) {
	f(n)
	for _, c := range n.Children {
		c.Walk(f)
	}
}

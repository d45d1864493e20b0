// Package element says what blocks are made of: trees of elements with typed CSS
// per zone.
//
// In come a site, a section or page and the media they show; out comes a tree of
// Nodes. It has two readers, and neither knows about blocks: emit writes it as
// HTML and CSS, layout computes its boxes. A kind of block is one file here.
// Start at Builder.
package element

import "openplot/core/style"

// Node is an element, or a stretch of text when Tag is "".
type Node struct {
	Tag  string
	Text string // of a text node
	// Block and Section are the ids of what the element stands for on the page;
	// both are "" for inner elements.
	Block, Section string
	Attrs          []Attr
	// Styles holds the computed style in each zone, by the zone's index. A text
	// node has its parent's.
	Styles   []style.Style
	Children []*Node
	// Key names the element within its section, the same for the same part of the
	// same block from one build to the next.
	Key string
}

// Attr is an HTML attribute.
type Attr struct{ Name, Value string }

// Replaced reports whether the element's content is outside the tree.
func (n *Node) Replaced() bool { return n.Tag == "img" }

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

// Walk calls f for the node and everything below it.
func (n *Node) Walk(f func(*Node)) {
	f(n)
	for _, c := range n.Children {
		c.Walk(f)
	}
}

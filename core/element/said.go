package element

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/style"
)

// Varies reports whether a kind of block with a content can say something else in narrower zones.
// What goes round a picture can't.
func Varies(kind doc.Kind, c doc.Content) bool {
	return slices.Contains([]doc.Kind{doc.Heading, doc.Text, doc.Quote, doc.Button}, kind) &&
		(kind != doc.Text || c.Picture == "")
}

// said adds a block's words: those of each zone that has its own in an element of a tag, which is
// there in the zones in which they are said. What isn't displayed isn't announced either.
func (b *Builder) said(n *Node, bl *doc.Block, tag string, add func(*Node, doc.Words)) {
	zs, c := b.Site.Zones, bl.Content
	of := make([]string, len(zs)) // by zone, for which the words were written that are said there
	for z := range zs {
		of[z] = zs.Widest()
		if Varies(bl.Kind, c) {
			_, of[z] = c.WordsIn(zs, z)
		}
	}
	variants := slices.Compact(slices.Clone(of))
	if len(variants) == 1 {
		add(n, c.Words)
		return
	}
	for _, zone := range variants {
		v := b.child(n, tag, func(z int, st *style.Style) {
			if tag == "span" {
				st.Display = style.Inline
			}
			if of[z] != zone {
				st.Display = style.None
			}
		})
		v.attr("data-words", zone)
		w, _ := c.WordsIn(zs, zs.Index(zone))
		add(v, w)
	}
}

package check

import (
	"openplot/core/doc"
)

// isBlock reports whether a node is a block; what lies behind a section is decoration.
func isBlock(p *Page, node string) bool {
	s, _ := p.Doc.Section(node)
	return s == nil
}

// eachShown calls f for the blocks of a section with what they show: those of a Series with what
// its items show.
func eachShown(s *doc.Section, f func(node string, b *doc.Block, c doc.Content)) {
	var walk func(blocks []*doc.Block, series *doc.Block)
	walk = func(blocks []*doc.Block, series *doc.Block) {
		for _, b := range blocks {
			if series == nil {
				f(b.ID, b, b.Content)
			} else {
				for _, it := range series.Items {
					c, own := it.Contents[b.ID]
					if !own {
						c = b.Content
					}
					f(doc.ItemID(b.ID, it.ID), b, c)
				}
			}
			in := series
			if b.Kind == doc.Series {
				in = b
			}
			walk(b.Blocks, in)
		}
	}
	walk(s.Blocks, nil)
}

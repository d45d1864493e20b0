package element

import (
	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A Series is a list in which one design is shown for each item, with the content
// that the item has: as a grid, on one line, or as a slider that is scrolled
// sideways and snaps, a part of the next item showing.
var series = Anatomy{
	Name: "Series", Hint: "one design for many items", Icon: "grid-3x2", Find: "repeat cards grid slider carousel",
	Shelf: Arranging, Span: 12, Rows: 10,
	Settings: []string{"run", "per-row", "column-gap", "row-gap"},
	start: func() *doc.Block {
		h, t := Start(doc.Heading), Start(doc.Text)
		h.ID, t.ID = "h", "t"
		h.Content.Level = 3
		design := &doc.Block{ID: "d", Kind: doc.Container, Arrangement: doc.LineUp, Blocks: []*doc.Block{h, t}}
		s := &doc.Block{Blocks: []*doc.Block{design}}
		for _, words := range [][2]string{
			{"The first", "What it is, in the words your visitors use themselves."},
			{"The second", "What they get from it, and how soon they will notice."},
			{"The third", "What to do next, and what happens after they do."},
		} {
			s.Items = append(s.Items, doc.Item{Contents: map[string]doc.Content{
				"h": {Level: 3, Words: doc.PlainWords(words[0])}, "t": {Words: doc.PlainWords(words[1])},
			}})
		}
		return s
	},
	build: as(holderBlocks.series),
}

// peek is the part of the next item that a slider shows.
const peek = 0.2

// PerRow is how many items a Series has in a row in a zone: what is set there; or as many
// of those in a wider zone as there is room for; or as many as a zone of its width usually
// has room for (common practice).
func PerRow(sh style.Sheet) int {
	v, from, ok := sh.Style["per-row"].Resolve(sh.Zones, sh.Zone)
	n := whole(v, 0)
	if ok && n > 0 && from == sh.Zones[sh.Zone].ID {
		return n
	}
	fits := 1
	switch typical := sh.Zones[sh.Zone].Typical; {
	case typical >= 960:
		fits = 3
	case typical >= 560:
		fits = 2
	}
	switch {
	case n <= 0:
		return fits
	case fits == 1:
		return max(1, n/4) // one, or two of eight and more
	case n <= 3:
		return n // none stands alone on its row
	}
	return (n + 1) / 2
}

func (b holderBlocks) series(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "ul"}
	n.attr("role", "list") // some browsers no longer say so without marks (common practice)
	slides := false
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		area(st, sh, style.Edges{}, "")
		st.ColumnGap, st.RowGap = sh.Length("column-gap", style.Pixels(24)), sh.Length("row-gap", style.Pixels(24))
		switch sh.Word("run", value.Grid) {
		case "grid":
			st.Display = style.Grid
			st.GridColumns = style.EqualColumns(PerRow(sh))
		case value.Line:
			st.Display = style.Flex
		case value.Slider:
			slides = true
			st.Display = style.Flex
			st.Overflow = style.Scroll
			st.ScrollSnapType, st.ScrollPadding = "x mandatory", st.Padding
		}
	})
	if slides { // what scrolls is reached by keyboard too (WCAG 2.2, 2.1.1)
		n.attr("tabindex", "0")
		if bl.Name != "" {
			n.attr("aria-label", bl.Name)
		} else {
			n.attr("aria-label", "Slider")
		}
	}
	outer, item := b.portion, b.item
	defer func() { b.portion, b.item = outer, item }()
	b.portion = make([]float64, len(b.Site.Zones))
	for z := range b.portion {
		b.portion[z] = partOf(outer, z) / float64(PerRow(b.sheet(bl.Style, z)))
	}
	for _, it := range bl.Items {
		li := &Node{Tag: "li"}
		li.Styles = b.styles(n, func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			st.Display = style.Grid // one cell, so that the design fills it
			st.GridColumns = style.EqualColumns(1)
			switch sh.Word("run", value.Grid) {
			case value.Line:
				st.FlexGrow, st.FlexBasis, st.MinWidth = 1, style.Pixels(0), style.Pixels(0)
			case value.Slider: // n items, their gaps and the part that peeks in make up the whole
				per, gap := float64(PerRow(sh)), n.Styles[z].ColumnGap
				share := style.Percentage(100 / (per + peek))
				gap.N *= -per / (per + peek)
				st.FlexShrink, st.FlexBasis = style.Times0, style.Sum(share, gap)
				st.ScrollSnapAlign = "start"
			}
		})
		b.item = it.ID
		for _, design := range bl.Blocks {
			if c := b.block(li, it.Shows(design)); c != nil {
				li.Children = append(li.Children, c)
			}
		}
		b.item = item
		n.Children = append(n.Children, li)
	}
	return n
}

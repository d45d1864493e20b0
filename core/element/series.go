package element

import (
	"cmp"

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
	Fields: []Field{{
		Name: "list", Label: "List", Type: Choice,
		Choices: value.Is(
			value.Unordered,
			"Unordered",
			value.Ordered,
			"Ordered, such as steps",
			value.Articles,
			"Articles, such as news",
		),
	}},
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

// runOf is how what repeats in a block is laid out in a zone.
func (b holderBlocks) runOf(bl *doc.Block, z int) string {
	return b.sheet(bl.Style, z).Word("run", value.Grid)
}

// slides reports whether what repeats is a slider in some zone.
func (b holderBlocks) slides(bl *doc.Block) bool {
	for z := range b.Site.Zones {
		if b.runOf(bl, z) == value.Slider {
			return true
		}
	}
	return false
}

// track gives the list of what repeats in a block: n, which is the block, itself, or what is scrolled in
// it where that is a slider, which stands beside its buttons. gaps are those between items.
func (b holderBlocks) track(in *Node, bl *doc.Block, n *Node, columnGap, rowGap float64) (list *Node) {
	list, n.Tag = n, "ul"
	if b.slides(bl) {
		n.Tag = "div"
		list = b.child(n, "ul", func(z int, st *style.Style) {
			if bleed := b.bleed(in, bl, &n.Styles[z], z); b.runOf(bl, z) == value.Slider && bleed > 0 {
				st.Margin.Left, st.Margin.Right = style.Pixels(-bleed), style.Pixels(-bleed)
				st.Padding.Left, st.Padding.Right = style.Pixels(bleed), style.Pixels(bleed)
			}
		})
	}
	list.attr("role", "list") // some browsers no longer say so without marks (common practice)
	for z := range list.Styles {
		st, sh := &list.Styles[z], b.sheet(bl.Style, z)
		st.ColumnGap, st.RowGap = sh.Length(
			"column-gap",
			style.Pixels(columnGap),
		), sh.Length(
			"row-gap",
			style.Pixels(rowGap),
		)
		switch b.runOf(bl, z) {
		case value.Grid:
			st.Display = style.Grid
			st.GridColumns = style.EqualColumns(PerRow(sh))
		case value.Line:
			st.Display = style.Flex
		case value.Slider:
			st.Display = style.Flex
			st.Overflow = style.Scroll
			st.ScrollSnapType, st.ScrollPadding = "x mandatory", st.Padding
		}
	}
	return list
}

// slot gives the place of an item in such a list.
func (b holderBlocks) slot(bl *doc.Block, list *Node, z int, st *style.Style) {
	switch b.runOf(bl, z) {
	case value.Line:
		st.FlexGrow, st.FlexBasis, st.MinWidth = 1, style.Pixels(0), style.Pixels(0)
	case value.Slider: // n items, their gaps and the part that peeks in make up the whole
		per, gap := float64(PerRow(b.sheet(bl.Style, z))), list.Styles[z].ColumnGap
		share := style.Percentage(100 / (per + peek))
		gap.N *= -per / (per + peek)
		st.FlexShrink, st.FlexBasis = style.Times0, style.Sum(share, gap)
		st.ScrollSnapAlign = "start"
	}
}

// stepped adds its buttons to a list that is a slider in some zone.
func (b holderBlocks) stepped(bl *doc.Block, n, list *Node) {
	if !b.slides(bl) {
		return
	}
	name := b.headed(bl)
	list.attr("tabindex", "0") // what scrolls is reached by keyboard too (WCAG 2.2, 2.1.1)
	list.attr("aria-label", cmp.Or(name, "Slider"))
	b.stepper(n, name, func(z int) bool { return b.runOf(bl, z) == value.Slider })
}

func (b holderBlocks) series(in *Node, bl *doc.Block) *Node {
	n := &Node{}
	n.Styles = b.styles(in, func(z int, st *style.Style) { area(st, b.sheet(bl.Style, z), style.Edges{}, "") })
	list := b.track(in, bl, n, 24, 24)
	as := bl.Content.Values["list"]
	if as == value.Ordered {
		list.Tag = "ol"
	}
	outer, item := b.portion, b.item
	defer func() { b.portion, b.item = outer, item }()
	b.portion = make([]float64, len(b.Site.Zones))
	for z := range b.portion {
		b.portion[z] = partOf(outer, z) / float64(PerRow(b.sheet(bl.Style, z)))
	}
	for _, it := range bl.Items {
		li := b.child(list, "li", func(z int, st *style.Style) {
			st.Display = style.Grid // one cell, so that the design fills it
			st.GridColumns = style.EqualColumns(1)
			b.slot(bl, list, z, st)
		})
		b.item = it.ID
		for _, design := range bl.Blocks {
			if c := b.block(li, it.Shows(design)); c != nil {
				if as == value.Articles && c.Tag == "div" {
					c.Tag = "article"
				}
				li.Children = append(li.Children, c)
			}
		}
		b.item = item
	}
	b.portion = outer // the buttons are of the whole
	b.stepped(bl, n, list)
	return n
}

// bleed is how far a slider goes beyond its place to either side, px: through the page's gutter
// to the window's edge, so that what is cut off there isn't cut off in the midst of nothing.
func (b holderBlocks) bleed(in *Node, bl *doc.Block, st *style.Style, z int) float64 {
	sec := b.sheet(b.in.Style, z)
	if in.Key != b.in.ID+"-g" || partOf(b.portion, z) < 1 || sec.Word("content", value.Boxed) == value.Full ||
		sec.Word("align-items", "") != "" || bl.Style["width"] != nil || st.Background != "" ||
		st.Padding.Left != style.Pixels(0) || st.Padding.Right != style.Pixels(0) {
		return 0
	}
	return b.Site.House.Gutter.Or(b.Site.Zones, z, 20)
}

// headed is what a Series without a name of its own is called: what the first heading of its section
// says, or "".
func (b holderBlocks) headed(bl *doc.Block) string {
	if bl.Name != "" {
		return bl.Name
	}
	for _, c := range b.in.Blocks {
		name := ""
		if c.ID != bl.ID {
			c.Walk(func(h *doc.Block) {
				if h.Kind == doc.Heading && name == "" {
					name = h.Content.Words.Plain()
				}
			})
		}
		if name != "" {
			return name
		}
	}
	return ""
}

// stepper adds the buttons by which a slider is gone through (WCAG 2.2, 2.5.7: not by dragging
// alone), in the zones in which it is one.
func (b holderBlocks) stepper(n *Node, name string, slides func(z int) bool) {
	row := b.child(n, "div", func(z int, st *style.Style) {
		if st.Display = style.None; slides(z) {
			st.Display = style.Flex
		}
		st.JustifyContent, st.ColumnGap, st.Padding.Top = style.AlignEnd, style.Pixels(8), style.Pixels(16)
	})
	row.attr("data-scripted", "yes")
	row.attr("data-steps", "yes")
	row.Script = "slider"
	for _, way := range []struct{ name, icon string }{{"Previous", "arrow-left"}, {"Next", "arrow-right"}} {
		step := b.child(row, "button", roundButton)
		step.attr("type", "button")
		if step.attr("aria-label", way.name); name != "" {
			step.Attrs[1].Value += ": " + name
		}
		step.States = []State{{"[aria-disabled=true]", func(_ int, st *style.Style) { st.Opacity = 0.35 }}}
		b.drawing(step, way.icon, "", func(int) style.Length { return style.Pixels(18) })
	}
}

// roundButton is the look of a button that shows nothing but an icon.
func roundButton(_ int, st *style.Style) {
	st.Display, st.JustifyContent, st.AlignItems = style.Flex, style.AlignCenter, style.AlignCenter
	st.Width, st.Height = style.Pixels(44), style.Pixels(44) // WCAG 2.2, 2.5.5
	st.Border, st.BorderColor = style.AllSides(1), st.Color
	st.BorderRadius = style.Pixels(22)
}

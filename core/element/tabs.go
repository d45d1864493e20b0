package element

import (
	"cmp"
	"strconv"

	"openplot/core/doc"
	"openplot/core/style"
)

// Tabs show one of several texts at a time (WAI-ARIA Authoring Practices, tabs). They
// need the script of that name; without one all texts are shown.
var tabs = Anatomy{
	Name: "Tabs", Hint: "several texts, one shown at a time", Icon: "segmented-nav", Find: "switch panels",
	Shelf: Listing, Span: 8, Rows: 8,
	EntryName: "Tabs", EntryWords: true,
	Entry: []Field{{Name: "title", Label: "Tab label", Type: Line}},
	start: func() *doc.Block {
		entry := func(title, words string) doc.Entry {
			return doc.Entry{Values: map[string]string{"title": title}, Words: doc.PlainWords(words)}
		}
		return &doc.Block{Content: doc.Content{Entries: []doc.Entry{
			entry("By train", "How to come by train, and where to go from there."),
			entry("By road", "How to come by road, and where to leave the car."),
			entry("On foot", "How far it is on foot, and what to put on."),
		}}}
	},
	build: as(holderBlocks.tabs),
}

func (b holderBlocks) tabs(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div", Script: "tabs"}
	n.Styles = b.styles(in, func(z int, st *style.Style) { words(st, b.sheet(bl.Style, z), "body") })
	list := b.child(n, "div", func(z int, st *style.Style) {
		st.Display, st.FlexWrap, st.ColumnGap = style.Flex, style.Wrap, style.Pixels(4)
		st.Border.Bottom, st.BorderColor = 1, b.sheet(bl.Style, z).Swatch("line", "#d9d4c8")
	})
	list.attr("role", "tablist")
	id := "tab-" + bl.ID + b.item + "-"
	for i, e := range bl.Content.Entries {
		look := func(chosen bool) func(int, *style.Style) {
			return func(z int, st *style.Style) {
				st.Border.Bottom = 3
				if st.BorderColor, st.FontWeight = "transparent", 600; chosen {
					st.BorderColor = b.sheet(bl.Style, z).Swatch("accent", "#1d5f6b")
				}
			}
		}
		tab := b.child(list, "button", func(z int, st *style.Style) {
			st.Padding = style.Edges{
				Top:    style.Pixels(10),
				Right:  style.Pixels(16),
				Bottom: style.Pixels(10),
				Left:   style.Pixels(16),
			}
			look(false)(z, st)
		})
		tab.States = []State{{`[aria-selected="true"]`, look(true)}}
		tab.attr("type", "button")
		tab.attr("role", "tab")
		tab.attr("id", id+strconv.Itoa(i+1))
		tab.attr("aria-controls", id+strconv.Itoa(i+1)+"-panel")
		tab.attr("aria-selected", strconv.FormatBool(i == 0))
		if i > 0 {
			tab.attr("tabindex", "-1")
		}
		say(tab, cmp.Or(e.Values["title"], " ")).Part = part(i, "title")
	}
	for i, e := range bl.Content.Entries {
		panel := b.child(n, "div", func(_ int, st *style.Style) { st.Padding.Top = style.Pixels(18) })
		panel.attr("role", "tabpanel")
		panel.attr("id", id+strconv.Itoa(i+1)+"-panel")
		panel.attr("aria-labelledby", id+strconv.Itoa(i+1))
		panel.attr("tabindex", "0")
		if panel.Folded = i > 0; panel.Folded {
			panel.attr("hidden", "")
		}
		panel.Part = part(i, "")
		b.paragraphs(panel, e.Words)
	}
	return n
}

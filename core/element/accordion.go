package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// An accordion is a <details> for each question: closed ones show the question alone.
// It needs no script; with one open at a time they share a name (HTML, the details
// element).
var accordion = Anatomy{
	Name: "Accordion", Hint: "questions that open to their answers", Icon: "view-stacked", Find: "questions answers faq fold details",
	Shelf: Listing, Span: 8, Rows: 8,
	Fields: []Field{
		{
			Name:    "open",
			Label:   "Open at a time",
			Type:    Choice,
			Choices: value.Is(value.Several, "Several", value.One, "One"),
		},
		{
			Name:    "first",
			Label:   "First item",
			Type:    Choice,
			Choices: value.Is(value.Closed, "Closed", value.Open, "Open"),
		},
	},
	EntryName: "Questions", EntryWords: true,
	Entry: []Field{{Name: "title", Label: "Question", Type: Line}},
	start: func() *doc.Block {
		entry := func(title, words string) doc.Entry {
			return doc.Entry{Values: map[string]string{"title": title}, Words: doc.PlainWords(words)}
		}
		return &doc.Block{Content: doc.Content{Entries: []doc.Entry{
			entry(
				"What do people ask first?",
				"The answer, in a sentence or two, as you would give it over the counter.",
			),
			entry("What do they ask next?", "The answer to that."),
			entry("And what do they wish they had asked?", "The answer that saves a telephone call."),
		}}}
	},
	build: as(holderBlocks.accordion),
}

func (b holderBlocks) accordion(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div"}
	n.Styles = b.styles(in, func(z int, st *style.Style) { words(st, b.sheet(bl.Style, z), "body") })
	for i, e := range bl.Content.Entries {
		open := i == 0 && bl.Content.Values["first"] == value.Open
		d := b.child(n, "details", func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			st.Border.Bottom, st.BorderColor = 1, sh.Swatch("line", "#d9d4c8")
			if i == 0 {
				st.Border.Top = 1
			}
		})
		if open {
			d.attr("open", "")
		}
		if bl.Content.Values["open"] == value.One {
			d.attr("name", "open-"+bl.ID+b.item)
		}
		summary := b.child(d, "summary", func(z int, st *style.Style) {
			st.Display, st.AlignItems, st.JustifyContent, st.ColumnGap = style.Flex, style.AlignCenter, style.SpaceBetween, style.Pixels(
				16,
			)
			st.Padding.Top, st.Padding.Bottom = style.Pixels(14), style.Pixels(14)
			st.FontWeight = max(st.FontWeight, 600)
		})
		say(b.child(summary, "span", inlineBlock), cmp.Or(e.Values["title"], " ")).Part = part(i, "title")
		b.drawing(summary, "chevron-down", "", func(int) style.Length { return style.Pixels(16) })
		answer := b.child(d, "div", func(z int, st *style.Style) {
			st.Padding.Bottom = style.Pixels(18)
			st.Padding.Right = style.Pixels(32)
		})
		answer.Part, answer.Folded = part(i, ""), !open
		b.paragraphs(answer, e.Words)
	}
	return n
}

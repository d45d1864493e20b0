package element

import (
	"cmp"
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/style"
)

// A timetable is an <ol> of what happens when: a time, what it is, who it is with, and
// words about it.
var timetable = Anatomy{
	Name: "Timetable", Hint: "what happens when, and who it is with", Icon: "calendar-week", Find: "schedule programme program hours sailings departures agenda",
	Shelf: Listing, Span: 8, Rows: 10,
	EntryName: "Times", EntryWords: true,
	Entry: []Field{
		{Name: "time", Label: "Time", Type: Line},
		{Name: "title", Label: "Title", Type: Line},
		{Name: "who", Label: "Who", Type: Line},
	},
	Settings: []string{"time-width"},
	start: func() *doc.Block {
		entry := func(time, title, who, words string) doc.Entry {
			return doc.Entry{
				Values: map[string]string{"time": time, "title": title, "who": who},
				Words:  doc.PlainWords(words),
			}
		}
		return &doc.Block{Content: doc.Content{Entries: []doc.Entry{
			entry("08:10", "The first of the day", "Who leads it", "What to bring, and where to meet."),
			entry("11:40", "The second", "Who leads it", "What is different about it."),
			entry("15:20", "The last", "Who leads it", "When it ends."),
		}}}
	},
	build: as(siteBlocks.timetable),
}

// clock reports whether words are a time of day as machines read it (HTML §2.3.5.4).
func clock(s string) bool {
	h, m, ok := strings.Cut(s, ":")
	part := func(of string, below int) bool {
		n, err := number.Whole(of)
		return len(of) == 2 && of[0] >= '0' && of[0] <= '9' && err == nil && n < below
	}
	return ok && part(h, 24) && part(m, 60)
}

func (b siteBlocks) timetable(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "ol"}
	n.attr("role", "list")
	n.Styles = b.styles(in, func(z int, st *style.Style) { words(st, b.sheet(bl.Style, z), "body") })
	for i, e := range bl.Content.Entries {
		li := b.child(n, "li", func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			st.Display = style.Grid
			st.GridColumns = []style.Track{
				style.Fixed(sh.Length("time-width", style.Pixels(88))),
				{Min: style.Pixels(0), Fr: 1},
			}
			st.ColumnGap = style.Pixels(16)
			st.Padding.Top, st.Padding.Bottom = style.Pixels(14), style.Pixels(14)
			st.Border.Bottom, st.BorderColor = 1, sh.Swatch("line", "#d9d4c8")
		})
		tag, at := "span", strings.TrimSpace(e.Values["time"])
		if clock(at) {
			tag = "time"
		}
		when := b.child(li, tag, func(z int, st *style.Style) {
			st.Display = style.Block
			colour := st.Color
			b.sheet(nil, z).TextStyle(st, "mono")
			st.Color = colour
		})
		if tag == "time" {
			when.attr("datetime", at)
		}
		say(when, cmp.Or(e.Values["time"], " ")).Part = part(i, "time")
		about := b.child(li, "div", nil)
		say(b.child(about, "p", func(_ int, st *style.Style) { st.FontWeight = 600 }), cmp.Or(e.Values["title"], " ")).Part = part(
			i,
			"title",
		)
		if e.Values["who"] != "" {
			say(b.child(about, "p", b.smallWords), e.Values["who"]).Part = part(i, "who")
		}
		if len(e.Words) > 0 {
			text := b.child(about, "div", func(z int, st *style.Style) { st.Margin.Top = style.Pixels(4) })
			text.Part = part(i, "")
			b.paragraphs(text, e.Words)
		}
	}
	return n
}

// smallWords sets words in the house's small text style, in the colour around them.
func (b *Builder) smallWords(zone int, st *style.Style) {
	colour := st.Color
	b.sheet(nil, zone).TextStyle(st, "small")
	st.Color = colour
}

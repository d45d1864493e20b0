package element

import (
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
)

// Audio is an <audio> of one of the site's own files, with the browser's controls and, for
// those who can't hear it, what is said in it (WCAG 2.2, 1.2.1).
var audio = Anatomy{
	Name: "Audio", Hint: "a recording of your own to listen to", Icon: "music-note-beamed", Find: "sound music podcast listen player recording",
	Shelf: Showing, Span: 6, Rows: 3,
	Fields: []Field{
		{Name: "audio", Label: "Audio file", Type: AudioID},
		{Name: "title", Label: "Title", Type: Line},
		{Name: "caption", Label: "Caption", Type: Line},
		{Name: "transcript", Label: "Transcript", Type: Lines},
	},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Values: map[string]string{"title": "A recording"}}}
	},
	build: as(mediaBlocks.audio),
}

func (b mediaBlocks) audio(in *Node, bl *doc.Block) *Node {
	v := bl.Content.Values
	m, own := b.medium(v["audio"])
	if own = own && m.Sort() == doc.AudioMedium; !own && b.DropEmpty {
		return nil
	}
	n := &Node{Tag: "figure"}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
		st.Display, st.FlexDirection, st.RowGap = style.Flex, style.Column, style.Pixels(8)
	})
	if v["title"] != "" {
		say(b.child(n, "p", func(_ int, st *style.Style) { st.FontWeight = max(st.FontWeight, 600) }), v["title"])
	}
	player := b.child(n, "audio", func(_ int, st *style.Style) {
		st.Width, st.Height = style.Percentage(100), style.Pixels(54) // as high as Chromium's controls are
	})
	if own {
		player.attr("src", m.Variants[0].URL)
	}
	player.attr("controls", "")
	player.attr("preload", "none")
	if v["title"] != "" {
		player.attr("aria-label", v["title"])
	}
	if v["transcript"] != "" {
		d := b.child(n, "details", nil)
		say(b.child(d, "summary", func(_ int, st *style.Style) { st.Underline = true }), "Transcript")
		said := b.child(d, "div", func(_ int, st *style.Style) { st.Padding.Top = style.Pixels(8) })
		said.Folded = true
		b.paragraphs(said, doc.PlainWords(strings.Split(v["transcript"], "\n")...))
	}
	if v["caption"] != "" {
		say(b.child(n, "figcaption", b.smallWords), v["caption"])
	}
	return n
}

package element

import (
	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A shape is a drawing of our own in one colour. It is decoration.
var shape = Anatomy{
	Name: "Shape", Hint: "a circle, a ring, a wave … in one colour", Icon: "circle-square", Find: "decoration circle ring wave drop dots",
	Shelf: Showing, Span: 3, Rows: 6,
	Fields: []Field{
		{
			Name: "shape", Label: "Shape", Type: Choice,
			Choices: value.Is(
				"circle", "Circle", "ring", "Ring", "half", "Half", "drop", "Drop", "pebble", "Pebble", "wave", "Wave",
				"dots", "Dots", "sun", "Sun", "arch", "Arch", "buoy", "Buoy",
			),
		},
	},
	Settings: []string{"shape-colour"},
	start:    func() *doc.Block { return &doc.Block{Style: Look("width", "160px")} },
	build:    as(mediaBlocks.shape),
}

// shapes are drawn on a plane of 100 by 100.
var shapes = map[string]string{
	"circle": `<circle cx="50" cy="50" r="50"/>`,
	"ring":   `<path d="M50 0a50 50 0 1 0 0 100a50 50 0 1 0 0-100zm0 18a32 32 0 1 1 0 64a32 32 0 1 1 0-64z"/>`,
	"half":   `<path d="M0 75a50 50 0 0 1 100 0z"/>`,
	"drop":   `<path d="M50 0c22 28 36 44 36 64a36 36 0 0 1-72 0C14 44 28 28 50 0z"/>`,
	"pebble": `<path d="M31 8c24-14 56-5 65 21s-4 55-31 65s-52-1-62-27S10 20 31 8z"/>`,
	"wave":   `<path d="M0 42c16-16 34-16 50 0s34 16 50 0v16c-16 16-34 16-50 0s-34-16-50 0z"/>`,
	"dots":   `<circle cx="10" cy="10" r="5"/><circle cx="37" cy="10" r="5"/><circle cx="63" cy="10" r="5"/><circle cx="90" cy="10" r="5"/><circle cx="10" cy="37" r="5"/><circle cx="37" cy="37" r="5"/><circle cx="63" cy="37" r="5"/><circle cx="90" cy="37" r="5"/><circle cx="10" cy="63" r="5"/><circle cx="37" cy="63" r="5"/><circle cx="63" cy="63" r="5"/><circle cx="90" cy="63" r="5"/><circle cx="10" cy="90" r="5"/><circle cx="37" cy="90" r="5"/><circle cx="63" cy="90" r="5"/><circle cx="90" cy="90" r="5"/>`,
	"sun":    `<circle cx="50" cy="50" r="26"/><path d="M47 2h6v14h-6zM47 84h6v14h-6zM2 47h14v6H2zM84 47h14v6H84zM14 18l4-4l10 10l-4 4zM72 76l4-4l10 10l-4 4zM14 82l10-10l4 4l-10 10zM72 24l10-10l4 4l-10 10z"/>`,
	"arch":   `<path d="M5 100V45a45 45 0 0 1 90 0v55H73V45a23 23 0 0 0-46 0v55z"/>`,
	"buoy":   `<path d="M42 0h16v14h7l17 48H18l17-48h7zM10 68h80c-3 20-19 32-40 32S13 88 10 68z"/>`,
}

func (b mediaBlocks) shape(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div"}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Color = sh.Colour("shape-colour", sh.Swatch("accent", "#1d5f6b"))
		st.AlignSelf, st.JustifySelf = style.AlignStart, style.AlignStart
		st.Width = style.Pixels(160)
	})
	svg := b.child(n, "svg", func(_ int, st *style.Style) {
		st.Width, st.AspectRatio = style.Percentage(100), 1
	})
	drawing, ok := shapes[bl.Content.Values["shape"]]
	if !ok {
		drawing = shapes["circle"]
	}
	svg.Raw = drawing
	svg.attr("viewBox", "0 0 100 100")
	svg.attr("width", "100")
	svg.attr("height", "100")
	svg.attr("fill", "currentColor")
	svg.attr("aria-hidden", "true")
	return n
}

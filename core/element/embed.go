package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
)

// Own HTML is shown in a frame that can't reach the page, the site or its visitors'
// data (HTML, the iframe element's sandbox attribute).
var ownHTML = Anatomy{
	Name: "HTML", Hint: "your own markup, in a frame of its own", Icon: "code-slash", Find: "embed code iframe widget",
	Shelf: Showing, Span: 6, Rows: 8,
	Fields: []Field{
		{Name: "html", Label: "HTML", Type: Markup},
		{Name: "title", Label: "Title", Type: Line, Default: "Embedded content"},
	},
	Settings: []string{"height"},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Values: map[string]string{"html": "<p>Your own markup goes here.</p>"}}}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "iframe"}
		n.attr("title", cmp.Or(bl.Content.Values["title"], "Embedded content"))
		n.attr("sandbox", "allow-scripts")
		n.attr("loading", "lazy")
		if b.Embed != nil {
			n.attr("src", b.Embed(bl.Content.Values["html"]))
		}
		n.Styles = b.styles(in, func(z int, st *style.Style) {
			st.Width, st.Height = style.Percentage(100), b.sheet(bl.Style, z).Length("height", style.Pixels(240))
			st.FlexShrink = style.Times0
		})
		return n
	},
}

// TakesMarkup reports whether a field of some kind of block takes HTML of one's own.
func TakesMarkup(name string) bool {
	for _, k := range doc.Kinds {
		if f := Of(k).Field(name); f != nil && f.Type == Markup {
			return true
		}
	}
	return false
}

package element

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/style"
)

// A logo leads to the site's first page: its picture, or the site's name in words.
var logo = Anatomy{
	Name: "Logo", Hint: "the site’s sign, leading to its first page", Icon: "bookmark", Find: "brand sign name home",
	Shelf: Showing, Span: 3, Rows: 2,
	Fields: []Field{
		{Name: "words", Label: "Text", Type: Line, Default: "the site’s name"},
		{Name: "picture", Label: "Picture", Type: PictureID},
		{Name: "link", Label: "Link", Type: Address},
		{Name: "alt", Label: "Alternative text", Type: Prose, Default: "the logo’s text"},
	},
	Settings: []string{"logo-height"},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Link: "/"}}
	},
	build: as(siteBlocks.logo),
}

func (b siteBlocks) logo(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "a"}
	if bl.Content.Link != "" {
		b.lead(n, bl.Content.Link)
	}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "h3")
		st.NoWrap = true
		st.AlignSelf, st.JustifySelf = style.AlignStart, style.AlignStart
	})
	m, ok := b.Media(bl.Content.Picture)
	if !ok {
		b.phrase(n, b.logoWords(bl))
		return n
	}
	img := b.child(n, "img", func(z int, st *style.Style) {
		st.Height = b.sheet(bl.Style, z).Length("logo-height", style.Pixels(44))
		if m.Height > 0 {
			st.AspectRatio = float64(m.Width) / float64(m.Height)
		}
		st.ObjectFit = "contain"
	})
	alt := bl.Content.Alt
	if alt == "" {
		alt = b.logoWords(bl).Plain()
	}
	b.source(img, m, alt)
	// An attribute width would be its width; the style's height and ratio say it all.
	img.Attrs = slices.DeleteFunc(img.Attrs, func(a Attr) bool { return a.Name == "width" || a.Name == "height" })
	return n
}

// logoWords are the logo's own, or else the site's name.
func (b siteBlocks) logoWords(bl *doc.Block) doc.Words {
	if bl.Content.Words.Plain() != "" {
		return bl.Content.Words
	}
	return doc.PlainWords(b.Site.Name)
}

// phrase adds words as one phrase, paragraphs on lines of their own and without links,
// as a link or a button holds them.
func (b *Builder) phrase(n *Node, w doc.Words) {
	for i, p := range w {
		if i > 0 {
			n.Children = append(n.Children, &Node{Tag: "br", Styles: n.Styles})
		}
		unlinked := make(doc.Paragraph, len(p))
		for k, r := range p {
			r.Link = ""
			unlinked[k] = r
		}
		b.runs(n, unlinked)
	}
}

package element

import (
	"cmp"
	"math"

	"golang.org/x/text/unicode/bidi"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A text is a <div> of paragraphs.
var text = Anatomy{
	Name: "Text", Hint: "paragraphs with links, bold and italic", Icon: "text-paragraph", Find: "words paragraph link",
	Shelf: Wording, Span: 6, Rows: 4,
	Fields: []Field{
		{Name: "picture", Label: "Picture", Type: PictureID},
		{Name: "alt", Label: "Alternative text", Type: Prose},
	},
	Settings: []string{"wrap-side", "wrap-width"},
	start: func() *doc.Block {
		return &doc.Block{
			Content: doc.Content{
				Words: doc.PlainWords(
					"Write a few sentences here: what this is about, whom it is for, and what they can do next.",
				),
			},
		}
	},
	build: as(wordBlocks.text),
}

func (b wordBlocks) text(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div"}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
	})
	if m, ok := b.medium(bl.Content.Picture); ok && m.Sort() == doc.PictureMedium {
		b.beside(n, bl, m)
	}
	if w := bl.Content.Words; b.DropEmpty && len(n.Children) == 0 && len(bl.Content.Instead) == 0 && len(w) == 1 &&
		w[0].As() == "" && w[0].Item() == "" { // where nobody writes, a paragraph needs nothing around it
		n.Tag = "p"
		b.lines(n, w[0])
		return n
	}
	b.said(n, bl, "div", b.paragraphs)
	return n
}

// beside adds the picture that the words of a text go round. In the narrowest zone it
// stands above them, unless it was set there.
func (b wordBlocks) beside(n *Node, bl *doc.Block, m Medium) {
	for z := range n.Styles {
		// As wide as there is room, so that the picture has something to be a part of.
		n.Styles[z].Width, n.Styles[z].MinWidth = style.Percentage(100), style.Pixels(0)
	}
	share := b.portion
	b.portion = make([]float64, len(n.Styles))
	img := b.child(n, "img", func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		side := sh.Word("wrap-side", value.Left)
		if _, from, _ := bl.Style["wrap-side"].Resolve(b.Site.Zones, z); z == len(b.Site.Zones)-1 &&
			from != b.Site.Zones[z].ID {
			side = value.Above
		}
		st.AspectRatio, st.ObjectFit, st.ObjectPos = float64(m.Width)/float64(max(m.Height, 1)), "cover", m.Focal
		st.MaxWidth = style.Percentage(100)
		width := sh.Length("wrap-width", style.Percentage(40))
		below, between := style.Pixels(12), style.Pixels(24)
		switch side {
		case value.Above:
			width = style.Percentage(100)
			st.Margin.Bottom = style.Pixels(16)
		case value.Right:
			st.Float = style.FloatRight
			st.Margin = style.Edges{Top: style.Pixels(4), Bottom: below, Left: between}
		default:
			st.Float = style.FloatLeft
			st.Margin = style.Edges{Top: style.Pixels(4), Bottom: below, Right: between}
		}
		st.Width = width
		b.portion[z] = partOf(share, z)
		if width.Unit == style.Percent {
			b.portion[z] *= width.N / 100
		}
		st.BorderRadius = sh.Length("border-radius", style.Length{})
	})
	b.source(img, m, cmp.Or(bl.Content.Alt, m.Alt))
	b.portion = share
}

// paragraphs adds a <p> a paragraph, and a list for those that follow each other as
// items of one; the space between two paragraphs is three fifths of the font size
// (common practice for text set without indents).
func (b *Builder) paragraphs(n *Node, w doc.Words) {
	for i := 0; i < len(w); {
		between := func(z int, st *style.Style) {
			if i > 0 {
				st.Margin.Top = style.Pixels(b.share(st, z, 0.6))
			}
		}
		switch as := w[i].As(); {
		case w[i].Item() != "":
			i = wordBlocks{b}.listOf(n, w, i, between)
		case as == "quote":
			q := b.child(n, "blockquote", func(z int, st *style.Style) {
				between(z, st)
				st.Padding.Left = style.Pixels(b.share(st, z, 1.2))
				st.Border.Left, st.BorderColor = 3, b.sheet(nil, z).Swatch("accent", "#1d5f6b")
			})
			for ; i < len(w) && w[i].As() == "quote" && w[i].Item() == ""; i++ {
				wordBlocks{b}.lines(b.child(q, "p", func(z int, st *style.Style) {
					if len(q.Children) > 0 {
						st.Margin.Top = style.Pixels(b.share(st, z, 0.6))
					}
				}), w[i])
			}
		case as != "":
			wordBlocks{b}.lines(b.child(n, as, func(z int, st *style.Style) {
				st.Balance = true
				b.sheet(nil, z).Type(st, wordBlocks{b}.textStyle(as, "h3"))
				if i > 0 {
					st.Margin.Top = style.Pixels(b.share(st, z, 0.8))
				}
			}), w[i])
			i++
		default:
			p := b.child(n, "p", between)
			wordBlocks{b}.lines(p, w[i])
			i++
		}
	}
}

// listOf adds the list whose first item is at i, with the lists within its items, and gives
// where the words go on behind it.
func (b wordBlocks) listOf(n *Node, w doc.Words, i int, between func(int, *style.Style)) int {
	item, depth := w[i].Item(), w[i].Depth()
	tag, marks := "ul", "disc"
	if item == value.Decimal {
		tag, marks = "ol", "decimal"
	}
	l := b.child(n, tag, func(z int, st *style.Style) {
		between(z, st)
		st.ListStyle = marks
		st.Padding.Left = style.Pixels(b.share(st, z, 1.5))
	})
	for i < len(w) && w[i].Item() == item && w[i].Depth() == depth {
		li := b.listItem(l)
		deeper := func(at int) bool { return at < len(w) && w[at].Item() != "" && w[at].Depth() > depth }
		if !deeper(i + 1) {
			b.lines(li, w[i])
			i++
			continue
		}
		b.lines(b.child(li, "p", func(int, *style.Style) {}), w[i])
		for i++; deeper(i); {
			i = b.listOf(li, w, i, func(z int, st *style.Style) { st.Margin.Top = style.Pixels(b.share(st, z, 0.35)) })
		}
	}
	return i
}

// lines adds a paragraph's words; an empty one keeps its line.
func (b wordBlocks) lines(n *Node, p doc.Paragraph) {
	b.runs(n, p)
	if len(n.Children) == 0 {
		n.Children = append(n.Children, &Node{Tag: "br", Styles: n.Styles})
	}
	if rightToLeft(p) {
		n.attr("dir", "auto")
	}
}

// rightToLeft reports whether the first letter of a paragraph is of a script that runs from
// right to left (Unicode Bidirectional Algorithm, rules P2 and P3).
func rightToLeft(p doc.Paragraph) bool {
	for _, run := range p {
		for _, r := range run.Text {
			switch props, _ := bidi.LookupRune(r); props.Class() {
			case bidi.L:
				return false
			case bidi.R, bidi.AL:
				return true
			}
		}
	}
	return false
}

// share is a part of the font size in whole px, a fluid one being taken at the
// zone's typical width.
func (b *Builder) share(st *style.Style, zone int, of float64) float64 {
	return math.Round(st.FontPx(style.Viewport{Width: float64(b.Site.Zones[zone].Typical)}) * of)
}

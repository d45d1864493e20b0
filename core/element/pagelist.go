package element

import (
	"cmp"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/style"
	"openplot/core/value"
)

// A page list links to the site's other pages, each with what it is about and the picture
// that stands for it: all of them, or those of one category.
var pageList = Anatomy{
	Name: "Page list", Hint: "the site’s pages with what they are about", Icon: "files", Find: "links contents sitemap posts news category cards slider blog",
	Shelf: Finding, Span: 12, Rows: 4,
	Fields: []Field{
		{
			Name:    "with",
			Label:   "Content",
			Type:    Choice,
			Choices: value.Is(value.Descriptions, "Names and descriptions", value.Names, "Names"),
		},
		{
			Name: "pages", Label: "Pages", Type: Choice,
			Choices: value.Is(value.All, "All of the site", value.Under, "Under this page"),
		},
		{
			Name: "order", Label: "Order", Type: Choice,
			Choices: value.Is(
				value.Pages, "As in the page list", value.Last, "The last one first", value.Title, "By name",
			),
		},
		{Name: "category", Label: "Category", Type: Line, Default: "all"},
		{Name: "count", Label: "At most", Type: Number, Min: 1, Max: 100, Default: "all"},
		{Name: "pictures", Label: "Pictures", Type: Choice, Choices: value.Is(
			value.None,
			"None",
			value.Above,
			"Above the text",
			value.Under,
			"Under the text",
			value.Hover,
			"Under the text, which hover shows",
		)},
	},
	Settings: []string{"run", "per-row", "column-gap", "row-gap", "aspect-ratio", "border-radius"},
	start:    func() *doc.Block { return &doc.Block{} },
	build:    as(siteBlocks.pageList),
}

// listed gives the pages that a list shows: none that has a password.
func (b siteBlocks) listed(c doc.Content) []PageLink {
	if len(b.Pages) == 0 {
		return []PageLink{{Slug: "somewhere", Name: "Another page", Description: "What it is about."}}
	}
	most, _ := number.Real(cmp.Or(c.Values["count"], "0"))
	var pages []PageLink
	for _, p := range b.Pages {
		if wanted := c.Values["category"]; p.Slug != b.Here && !p.Locked &&
			(c.Values["pages"] != value.Under || b.Here == "" && p.Slug != "" || strings.HasPrefix(p.Slug, b.Here+"/")) &&
			(wanted == "" || slices.ContainsFunc(p.Categories, func(has string) bool { return strings.EqualFold(has, wanted) })) {
			pages = append(pages, p)
		}
	}
	switch c.Values["order"] {
	case value.Last:
		slices.Reverse(pages)
	case value.Title:
		slices.SortStableFunc(pages, func(p, q PageLink) int {
			return cmp.Compare(strings.ToLower(p.Name), strings.ToLower(q.Name))
		})
	}
	if most >= 1 && len(pages) > int(most) {
		pages = pages[:int(most)]
	}
	return pages
}

func (b siteBlocks) pageList(in *Node, bl *doc.Block) *Node {
	pages := b.listed(bl.Content)
	if len(pages) == 0 {
		return b.nothingListed(in, bl)
	}
	n, h := &Node{}, holderBlocks(b)
	n.Styles = b.styles(in, func(z int, st *style.Style) { words(st, b.sheet(bl.Style, z), "body") })
	list := h.track(in, bl, n, 24, 16)
	outer := b.portion
	defer func() { b.portion = outer }()
	b.portion = make([]float64, len(b.Site.Zones))
	for z := range b.portion {
		b.portion[z] = partOf(outer, z) / float64(PerRow(b.sheet(bl.Style, z)))
	}
	pictures := cmp.Or(bl.Content.Values["pictures"], value.None)
	over := pictures == value.Under || pictures == value.Hover
	for _, p := range pages {
		li := b.child(list, "li", func(z int, st *style.Style) {
			st.Display = style.Block
			h.slot(bl, list, z, st)
		})
		a := b.child(li, "a", func(z int, st *style.Style) {
			if st.Display = style.Block; over {
				st.Position, st.Overflow = style.Relative, style.Hidden
				st.BorderRadius = b.sheet(bl.Style, z).Length("border-radius", style.Length{})
			}
		})
		a.attr("href", b.link("/"+p.Slug))
		pictured := pictures != value.None && b.pagePicture(a, bl, p, !over)
		name := func(_ int, st *style.Style) { st.Display, st.FontWeight, st.Underline = style.Block, 600, true }
		if !over {
			say(b.child(a, "span", func(z int, st *style.Style) {
				if name(z, st); pictured {
					st.Padding.Top = style.Pixels(10)
				}
			}), cmp.Or(p.Name, "Page"))
		} else {
			a = b.overPicture(a, pictured, pictures == value.Hover)
			say(b.child(a, "span", name), cmp.Or(p.Name, "Page"))
		}
		if p.Description == "" || bl.Content.Values["with"] == value.Names {
			continue
		}
		if over {
			say(b.child(a, "span", func(z int, st *style.Style) {
				b.smallWords(z, st)
				st.Display = style.Block
			}), p.Description)
		} else {
			say(b.child(li, "p", b.smallWords), p.Description)
		}
	}
	b.portion = outer // the buttons are of the whole
	h.stepped(bl, n, list)
	return n
}

// nothingListed says to who composes that a list has no pages yet; visitors see nothing of it.
func (b siteBlocks) nothingListed(in *Node, bl *doc.Block) *Node {
	if b.DropEmpty {
		return nil
	}
	n := &Node{Tag: "p"}
	n.Styles = b.styles(in, func(z int, st *style.Style) { words(st, b.sheet(bl.Style, z), "body") })
	text := "No page to list yet: visitors see nothing here."
	if bl.Content.Values["category"] != "" {
		text = "No page has this category yet: visitors see nothing here."
	}
	say(n, text)
	return n
}

// pagePicture adds the picture that stands for a page, and reports whether there is one. The
// name beside it says all, so that it has no words of its own.
func (b siteBlocks) pagePicture(a *Node, bl *doc.Block, p PageLink, rounded bool) bool {
	m, ok := b.medium(p.Picture)
	b.standing++ // chosen or not: what stands in for the others stays when one is chosen
	if ok = ok && m.Sort() == doc.PictureMedium; !ok {
		if m, ok = b.standIn(1.5); !ok {
			return false
		}
	}
	img := b.child(a, "img", func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Width, st.AspectRatio, st.ObjectFit, st.ObjectPos = style.Percentage(
			100,
		), cmp.Or(
			sh.Ratio("aspect-ratio"),
			1.5,
		), "cover", m.Focal
		if rounded {
			st.BorderRadius = sh.Length("border-radius", style.Length{})
		}
	})
	b.source(img, m, "")
	return true
}

// overPicture adds what lies over a page's picture and holds its words. With hover it is
// seen when it is pointed at or its link has the focus, and always where nothing can be
// pointed at.
func (b siteBlocks) overPicture(a *Node, pictured, hover bool) *Node {
	hover = hover && pictured && !b.Still
	over := b.child(a, "span", func(z int, st *style.Style) {
		sh := b.sheet(nil, z)
		st.Display, st.FlexDirection, st.JustifyContent, st.RowGap = style.Flex, style.Column, style.AlignEnd, style.Pixels(
			4,
		)
		st.Padding = style.Same(style.Pixels(16))
		st.Color, st.Background = sh.Swatch("on-deep", "#ffffff"), sh.Swatch("deep", "#123a44")
		if pictured {
			st.Background = style.Veil(st.Background, 0.86)
			st.Position, st.Inset = style.Absolute, style.Edges{
				Left:   style.Pixels(0),
				Right:  style.Pixels(0),
				Bottom: style.Pixels(0),
			}
		}
		if hover {
			st.Inset.Top, st.Opacity, st.Quick = style.Pixels(0), 0.001, true
		}
	})
	if hover {
		over.attr("data-hover", "yes")
		shown := func(_ int, st *style.Style) { st.Opacity = 1 }
		over.States = []State{{":hover", shown}}
	}
	return over
}

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
			Name:  "with",
			Label: "Content",
			Type:  Choice,
			Choices: value.Is(
				value.Descriptions,
				"Names and descriptions",
				value.Dates,
				"Names, dates and descriptions",
				value.Dated,
				"Names and dates",
				value.Names,
				"Names",
			),
		},
		{
			Name: "pages", Label: "Pages", Type: Choice,
			Choices: value.Is(
				value.All,
				"All of the site",
				value.Under,
				"Under this page",
				value.Below,
				"Under another page",
			),
		},
		{Name: "below", Label: "Under which page", Type: Address},
		{
			Name: "order", Label: "Order", Type: Choice,
			Choices: value.Is(
				value.Pages,
				"As in the page list",
				value.Last,
				"The last one first",
				value.Newest,
				"By date, newest first",
				value.Title,
				"By name",
			),
		},
		{Name: "category", Label: "Category", Type: Line, Default: "all"},
		{Name: "count", Label: "At most", Type: Number, Min: 1, Max: 100, Default: "all"},
		{Name: "pictures", Label: "Pictures", Type: Choice, Choices: value.Is(
			value.None,
			"None",
			value.Above,
			"Above the text",
			value.Beside,
			"Beside the text",
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
			b.within(c, p.Slug) &&
			(wanted == "" || slices.ContainsFunc(p.Categories, func(has string) bool { return strings.EqualFold(has, wanted) })) {
			pages = append(pages, p)
		}
	}
	switch c.Values["order"] {
	case value.Last:
		slices.Reverse(pages)
	case value.Newest:
		slices.SortStableFunc(pages, func(p, q PageLink) int { return cmp.Compare(q.Date, p.Date) })
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

// within reports whether a page is below the one that a list is of.
func (b siteBlocks) within(c doc.Content, slug string) bool {
	top := b.Here
	switch c.Values["pages"] {
	case value.Under:
	case value.Below:
		address, _, _ := strings.Cut(c.Values["below"], "#")
		top = strings.Trim(address, "/")
	default:
		return true
	}
	return top == "" && slug != "" || strings.HasPrefix(slug, top+"/")
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
	for _, p := range pages {
		b.listedPage(b.child(list, "li", func(z int, st *style.Style) {
			st.Display = style.Block
			h.slot(bl, list, z, st)
		}), bl, p)
	}
	b.portion = outer // the buttons are of the whole
	h.stepped(bl, n, list)
	return n
}

// listedPage fills the item of a page: its picture, its name, its date and what it is about, as the list
// says.
func (b siteBlocks) listedPage(li *Node, bl *doc.Block, p PageLink) {
	pictures := cmp.Or(bl.Content.Values["pictures"], value.None)
	over, beside := pictures == value.Under || pictures == value.Hover, pictures == value.Beside
	within := over || beside // the link holds all of it
	a := b.child(li, "a", func(z int, st *style.Style) {
		switch st.Display = style.Block; {
		case over:
			st.Position, st.Overflow = style.Relative, style.Hidden
			st.BorderRadius = b.sheet(bl.Style, z).Length("border-radius", style.Length{})
		case beside:
			st.Display, st.ColumnGap, st.AlignItems = style.Flex, style.Pixels(16), style.AlignStart
		}
	})
	a.attr("href", b.link("/"+p.Slug))
	at := a
	if beside {
		at = b.child(a, "span", func(_ int, st *style.Style) {
			st.Display, st.Width, st.FlexShrink = style.Block, style.Percentage(besideShare), style.Times0
		})
		whole := b.portion
		b.portion = slices.Clone(whole)
		for z := range b.portion {
			b.portion[z] *= besideShare / 100.0
		}
		defer func() { b.portion = whole }()
	}
	pictured := pictures != value.None && b.pagePicture(at, bl, p, !over)
	switch {
	case over:
		at = b.overPicture(a, pictured, pictures == value.Hover)
	case beside:
		at = b.child(a, "span", func(_ int, st *style.Style) {
			st.Display, st.FlexGrow, st.FlexBasis, st.MinWidth = style.Block, 1, style.Pixels(0), style.Pixels(0)
		})
	}
	say(b.child(at, "span", func(z int, st *style.Style) {
		st.Display, st.FontWeight, st.Underline = style.Block, 600, true
		if pictured && !within {
			st.Padding.Top = style.Pixels(10)
		}
	}), cmp.Or(p.Name, "Page"))
	if !within {
		at = li
	}
	small := func(z int, st *style.Style) {
		b.smallWords(z, st)
		st.Display = style.Block
	}
	with := bl.Content.Values["with"]
	if p.Date != "" && (with == value.Dated || with == value.Dates) {
		day := b.child(at, "time", small)
		day.attr("datetime", p.Date)
		say(day, p.DateWords)
	}
	switch {
	case p.Description == "" || with == value.Names || with == value.Dated:
	case within:
		say(b.child(at, "span", small), p.Description)
	default:
		say(b.child(at, "p", b.smallWords), p.Description)
	}
}

// besideShare is how much of an item, in per cent, its picture takes where that is beside the words.
const besideShare = 34

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

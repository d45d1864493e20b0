package element

import (
	"cmp"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A menu is a <nav> of links. Where it folds, a button opens it as a popover: reached
// by keyboard, closed by Escape, without a script (HTML, the popover attribute). A
// sub-menu is a <details>.
var menu = Anatomy{
	Name: "Menu", Hint: "the site’s pages; folds up on phones", Icon: "list", Find: "navigation nav links pages header",
	Shelf: Finding, Span: 8, Rows: 2,
	Fields: []Field{
		{
			Name:  "from",
			Label: "Source",
			Type:  Choice,
			Menus: true,
			Choices: value.Is(
				value.Pages,
				"The site’s pages",
				value.Footer,
				"The footer’s menu",
				value.Legal,
				"The legal menu",
				value.Own,
				"Its own list",
				value.Views,
				"The page’s views",
			),
		},
		{Name: "label", Label: "Name", Type: Line, Default: "what it holds"},
	},
	EntryName: "Own items",
	Entry: []Field{
		{Name: "label", Label: "Label", Type: Line, Default: "the page’s name"},
		{Name: "link", Label: "Link", Type: Address},
		{
			Name:    "under",
			Label:   "Level",
			Type:    Choice,
			Choices: value.Is(value.No, "Top level", value.Yes, "Under the one before"),
		},
	},
	Settings: []string{"menu-folds", "column-gap"},
	start:    func() *doc.Block { return &doc.Block{} },
	build:    as(siteBlocks.menu),
}

// menuLink is a link of a menu with those under it.
type menuLink struct {
	label, href  string
	here, button bool
	under        []menuLink
}

// mostLinks is how many links a menu of the site's pages has on its line.
const mostLinks = 7

func (b siteBlocks) menuLinks(bl *doc.Block) (links []menuLink) {
	if bl.Content.Values["from"] == value.Views {
		for _, v := range b.Views {
			links = append(links, menuLink{label: v.Title, href: "#" + v.Anchor})
		}
		if len(links) == 0 {
			links = []menuLink{{label: "The first view"}, {label: "The second"}}
		}
		return links
	}
	if from := cmp.Or(bl.Content.Values["from"], value.Pages); from != value.Own {
		items, byHand := doc.ByHand(b.Site.Menus[from])
		if !byHand && (from == value.Pages || from == value.Footer) {
			links = b.pageLinks(from == value.Footer)
		}
		links = b.menuItems(links, items)
		if own := from != value.Pages && from != value.Footer && from != value.Legal; own && len(links) == 0 {
			if b.DropEmpty { // visitors are shown nothing
				return nil
			}
			return []menuLink{{label: b.menuName(from)}}
		}
		if len(links) == 0 {
			links = []menuLink{{label: "Home", href: "/"}}
		}
		if len(links) > mostLinks && !byHand { // the others stand together, so that the line isn't broken
			links[mostLinks-1] = menuLink{label: "More", under: slices.Clone(links[mostLinks-1:])}
			links = links[:mostLinks]
		}
		return links
	}
	for _, e := range bl.Content.Entries {
		l := menuLink{
			label: cmp.Or(e.Values["label"], b.pageName(e.Values["link"]), "Link"),
			href:  e.Values["link"],
			here:  e.Values["link"] == "/"+b.Here,
		}
		if k := len(links) - 1; k >= 0 && e.Values["under"] == value.Yes {
			links[k].under = append(links[k].under, l)
			continue
		}
		links = append(links, l)
	}
	if len(links) == 0 {
		links = []menuLink{{label: "Home", href: "/"}}
	}
	return links
}

// pageLinks are the site's pages that are in menus, those under others under them; or those of
// the footer, side by side. What stands under a page that is in no menu isn't in one either.
func (b siteBlocks) pageLinks(footer bool) (links []menuLink) {
	at := map[string]int{} // index of a link at the top, by the page's address
	for _, p := range b.Pages {
		l := menuLink{label: p.InMenus(), href: "/" + p.Slug, here: p.Slug == b.Here}
		top, _, nested := strings.Cut(p.Slug, "/")
		switch i, shown := at[top]; {
		case footer && p.InFooter, !footer && !p.OutOfMenu && !nested:
			at[p.Slug] = len(links)
			links = append(links, l)
		case !footer && !p.OutOfMenu && shown:
			links[i].under = append(links[i].under, l)
		}
	}
	return links
}

// menuItems adds to links what a menu of the site holds beside pages that come by themselves. A page
// that isn't there for who looks at it isn't in a menu either.
func (b siteBlocks) menuItems(links []menuLink, items []doc.MenuItem) []menuLink {
	for _, i := range items {
		address, _ := doc.SplitLink(i.Link)
		if strings.HasPrefix(address, "/") && b.DropEmpty && b.broken(i.Link) {
			continue
		}
		l := menuLink{
			label: cmp.Or(
				i.Label,
				b.pageName(i.Link),
				"Link",
			), href: i.Link, here: address == "/"+b.Here, button: i.Button,
		}
		if k := len(links) - 1; i.Under && k >= 0 {
			links[k].under = append(links[k].under, l)
			continue
		}
		links = append(links, l)
	}
	return links
}

// pageName is what the page that a link leads to is called, or "".
func (b siteBlocks) pageName(link string) string {
	address, _ := doc.SplitLink(link)
	for _, p := range b.Pages {
		if "/"+p.Slug == address {
			return p.InMenus()
		}
	}
	return ""
}

// folds reports whether a menu is folded up in a zone.
func folds(sh style.Sheet) bool {
	narrowest := len(sh.Zones) - 1
	switch sheetOfWidest(sh).Word("menu-folds", value.Narrowest) {
	case value.Never:
		return false
	case value.Narrower:
		return sh.Zone > 0
	case value.Always:
		return true
	}
	return sh.Zone > 0 && sh.Zone == narrowest
}

func sheetOfWidest(sh style.Sheet) style.Sheet {
	sh.Zone = 0
	return sh
}

// menuName is what a menu is called that has no name of its own: who hears a page's landmarks
// tells them apart by that (ARIA Authoring Practices, Landmark Regions).
func (b siteBlocks) menuName(from string) string {
	if own := b.Site.Menus[from]; len(own) > 0 && own[0].Label != "" && own[0].Hand {
		return own[0].Label
	}
	switch {
	case from == value.Legal:
		return "Legal"
	case from == value.Views:
		return "On this page"
	case from == value.Footer || b.in != nil && b.in.Role == doc.RoleFooter:
		return "Footer"
	}
	return "Menu"
}

func (b siteBlocks) menu(in *Node, bl *doc.Block) *Node {
	links := b.menuLinks(bl)
	if len(links) == 0 && b.DropEmpty {
		return nil
	}
	n := &Node{Tag: "nav"}
	name := cmp.Or(bl.Content.Values["label"], b.menuName(bl.Content.Values["from"]))
	n.attr("aria-label", name)
	folded := func(z int) bool { return folds(b.sheet(bl.Style, z)) }
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
		st.AlignSelf = style.AlignCenter
	})
	id := "menu-" + bl.ID + b.item
	open := b.child(n, "button", func(z int, st *style.Style) {
		if st.Display = style.None; folded(z) {
			st.Display, st.AlignItems, st.ColumnGap = style.Flex, style.AlignCenter, style.Pixels(8)
			st.Padding = style.Same(style.Pixels(8))
			st.Width = style.Length{Unit: style.FitContent} // as a button is without one
		}
	})
	open.attr("type", "button")
	open.attr("popovertarget", id)
	b.drawing(open, "list", "", func(int) style.Length { return style.Pixels(24) })
	say(b.child(open, "span", inlineBlock), name)

	list := b.child(n, "ul", func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		if st.Display = style.Flex; folded(z) {
			st.Display = style.None
			return
		}
		st.FlexWrap, st.AlignItems = style.Wrap, style.AlignCenter
		st.ColumnGap, st.RowGap = sh.Length("column-gap", style.Pixels(24)), style.Pixels(4)
	})
	list.attr("id", id)
	list.attr("role", "list")
	list.attr("popover", "")
	list.States = []State{{":popover-open", func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Display, st.FlexDirection = style.Flex, style.Column
		st.Position, st.Inset = style.OnViewport, style.Edges{
			Top:    style.Pixels(0),
			Right:  style.Pixels(0),
			Bottom: style.Pixels(0),
		}
		st.Width, st.Height = style.Least(style.Pixels(320), style.Length{N: 86, Unit: style.Vw}), style.Percentage(100)
		st.Overflow = style.Scroll
		st.RowGap = style.Pixels(4)
		st.Padding = style.Same(style.Pixels(20))
		st.Background, st.Color = sh.Swatch("ground", "#ffffff"), sh.Swatch("words", "#000000")
		st.BoxShadow = "0 0 40px rgb(0 0 0 / 0.35)"
	}}}
	shut := b.child(b.child(list, "li", func(z int, st *style.Style) {
		if st.Display = style.None; folded(z) {
			st.Display = style.Flex
			st.JustifyContent = style.AlignEnd
		}
	}), "button", func(_ int, st *style.Style) { st.Padding = style.Same(style.Pixels(10)) })
	shut.attr("type", "button")
	shut.attr("popovertarget", id)
	shut.attr("popovertargetaction", "hide")
	shut.attr("aria-label", "Close")
	b.drawing(shut, "x-lg", "", func(int) style.Length { return style.Pixels(20) })
	for _, l := range links {
		b.menuItem(list, l, bl, folded)
	}
	return n
}

func (b siteBlocks) menuItem(list *Node, l menuLink, bl *doc.Block, folded func(int) bool) {
	li := b.child(list, "li", func(z int, st *style.Style) {
		if st.Display = style.Block; len(l.under) > 0 {
			st.Position = style.Relative
		}
	})
	pad := func(_ int, st *style.Style) {
		st.Display = style.Block
		st.Padding.Top, st.Padding.Bottom = style.Pixels(6), style.Pixels(6)
	}
	link := func(in *Node, l menuLink) {
		a := b.child(in, "a", func(z int, st *style.Style) {
			pad(z, st)
			if st.Underline = l.here; l.button {
				st.Padding = style.Edges{
					Top: style.Pixels(5), Right: style.Pixels(14), Bottom: style.Pixels(5), Left: style.Pixels(14),
				}
				st.Border, st.BorderColor, st.BorderRadius = style.AllSides(2), st.Color, style.Pixels(4)
				st.TextAlign, st.FontWeight = style.TextCenter, max(st.FontWeight, 600)
			}
		})
		if l.href != "" {
			b.lead(a, l.href)
		}
		if l.here {
			a.attr("aria-current", "page")
		}
		a.States = []State{{":hover", func(_ int, st *style.Style) { st.Underline = true }}}
		say(a, l.label)
	}
	if len(l.under) == 0 {
		link(li, l)
		return
	}
	d := b.child(li, "details", nil)
	d.attr("name", "menu-"+bl.ID+b.item+"-under")
	summary := b.child(d, "summary", func(z int, st *style.Style) {
		pad(z, st)
		st.Display, st.AlignItems, st.ColumnGap = style.Flex, style.AlignCenter, style.Pixels(6)
	})
	say(b.child(summary, "span", inlineBlock), l.label)
	b.drawing(summary, "chevron-down", "", func(int) style.Length { return style.Pixels(12) })
	ul := b.child(d, "ul", func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		if folded(z) { // on the popover's ground, not on the bar's
			st.Padding.Left, st.Color = style.Pixels(16), sh.Swatch("words", "#000000")
			return
		}
		st.Position, st.ZIndex, st.Inset.Left = style.Absolute, overAll, style.Pixels(-16)
		st.Width = style.Length{Unit: style.MaxContent}
		st.Padding = style.Edges{
			Top:    style.Pixels(8),
			Right:  style.Pixels(20),
			Bottom: style.Pixels(8),
			Left:   style.Pixels(16),
		}
		st.Background, st.Color = sh.Swatch("ground", "#ffffff"), sh.Swatch("words", "#000000")
		st.BoxShadow, st.BorderRadius = "0 6px 24px rgb(0 0 0 / 0.2)", style.Pixels(4)
	})
	ul.Folded = true
	ul.attr("role", "list")
	if l.href != "" {
		link(b.child(ul, "li", inlineBlock), menuLink{label: l.label, href: l.href, here: l.here})
	}
	for _, u := range l.under {
		link(b.child(ul, "li", inlineBlock), u)
	}
}

package element

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/core/value"
)

// Medium is a file of the library as pages use it, mostly a picture.
type Medium struct {
	ID, Name      string
	Type          string // as media types are written (RFC 6838); "" is a picture's
	Width, Height int    // of the original, px
	Alt           string
	Focal         string    // object-position unless a block says otherwise, or ""
	Variants      []Variant // from narrow to wide; never empty
	Modern        []Variant // the same in AVIF, which not every browser reads; may be empty
}

// Sort tells what the file is good for. What isn't a picture has itself as its only variant.
func (m Medium) Sort() doc.MediumSort {
	if m.Type == "" {
		return doc.PictureMedium
	}
	return doc.SortOf(m.Type)
}

// PageLink is a page of the site as others list it; the home page's slug is "", and Picture
// the id of the medium that stands for it, or "".
type PageLink struct {
	Slug, Name, Description string
	Categories              []string
	Picture                 string
	Date, DateWords         string // the day that it is of, "2026-11-29", and as the site's language has it
	// Menu is what menus call it, "" being its name; OutOfMenu leaves it out of them, InFooter
	// puts it into that of the footer.
	Menu                string
	OutOfMenu, InFooter bool
	Locked              bool // visitors need a password: nothing tells what it is about
}

// InMenus is what menus call the page.
func (p PageLink) InMenus() string { return cmp.Or(p.Menu, p.Name) }

// suits gives the narrowest of copies that is at least as wide in px, or the widest.
func suits(vs []Variant, px int) Variant {
	for _, v := range vs {
		if v.Width >= px {
			return v
		}
	}
	return vs[len(vs)-1]
}

// Thumb is the address of the copy that shows the medium small.
func (m Medium) Thumb() string { return suits(m.Variants, doc.ThumbWidth).URL }

// Variant is one resized copy of a picture.
type Variant struct {
	URL string
	// StyleURL is its address as the style sheet has to write it.
	StyleURL string
	Width    int // px
}

// What builds blocks, by what they are; each has the builder that is at work.
type (
	wordBlocks   struct{ *Builder } // words
	mediaBlocks  struct{ *Builder } // pictures, videos, sound, drawings
	siteBlocks   struct{ *Builder } // what the site says, and links
	formBlocks   struct{ *Builder } // what visitors fill in
	holderBlocks struct{ *Builder } // what holds others
	grounds      struct{ *Builder } // what is behind and around
	pageBuild    struct{ *Builder } // pages and sections as a whole
)

// as is what builds a kind of block, of one of those.
func as[T ~struct{ *Builder }](build func(T, *Node, *doc.Block) *Node) func(*Builder, *Node, *doc.Block) *Node {
	return func(b *Builder, in *Node, bl *doc.Block) *Node { return build(T{b}, in, bl) }
}

// Builder makes element trees for one site.
type Builder struct {
	Site *doc.Site
	// Media finds a picture by id.
	Media func(id string) (Medium, bool)
	// Icon gives the SVG shapes of an icon on a plane of 16 by 16; nil has none.
	Icon func(name string) (svg string, ok bool)
	// Link turns an address as entered into the one to write; nil keeps it.
	Link func(string) string
	// Pages are those of the site, and Here the slug of the one that is built.
	Pages []PageLink
	Here  string
	// Self is the page's own address in the world, or "" where it has none yet, and Title what
	// the page is called there.
	Self, Title string
	// Instant writes when a clock in a time zone (IANA) shows a local time, with the offset
	// (HTML, "2027-06-01T18:00+02:00"); nil leaves the offset out.
	Instant func(local, zone string) string
	// Form gives where a form sends to, by its block; Search is where a search field
	// does; Embed gives the address at which own HTML is found. They may be nil or "".
	Form   func(block string) string
	Search string
	Embed  func(markup string) string
	// DropEmpty leaves out what a visitor can't see, such as a picture that has
	// none yet; the canvas shows a stand-in for it.
	DropEmpty bool
	// StandIn draws a picture that stands in for one that isn't chosen yet, of a scene, in a
	// crop ("wide", "square" or "tall"), varied by n, and gives its address and its size in
	// px; nil has a plain one. Scenes are those that fit the site, best first.
	StandIn func(scene, crop string, n int) Medium
	Scenes  []string
	// Still leaves what stays on scrolling where it stands, so that it lies over nothing
	// that is worked on.
	Still bool
	// Kept has the elements of sections already built; they are used again for the very same
	// section, which never changes, unless it is divided. A nil map keeps none.
	Kept map[*doc.Section]*Node

	// Ground is the colour that the page lies on, by token; "" is the house style's. On sets it.
	Ground string

	// Neighbours gives the sections that are seen above and below one in a zone, nil where there
	// is none: what a divider passes into. On sets it.
	Neighbours func(s *doc.Section, zone int) (above, below *doc.Section)

	// Over gives the bar that lies over a section in a zone, or nil. On sets it.
	Over func(s *doc.Section, zone int) *doc.Section
	// Reach gives how far down a section reaches in a zone, px, when it is laid out; nil lets
	// those that a bar lies over begin below it at their own padding.
	Reach func(s *doc.Section, zone int) float64

	// Views are those of the page. On sets them.
	Views []doc.View

	// Watched is the section or block of which Instead is told, by zone, what holds where
	// its settings aren't set; see style.Sheet.
	Watched string
	Instead func(zone int, setting, holds string)
	// at is the section or block being built, for that.
	at string
	// standing counts the pictures, chosen or not, in the section being built, from where its
	// id says, and faces reports that they show people.
	standing int
	faces    bool
	// in is the section being built.
	in *doc.Section

	// item is the Series' item being built, or "".
	item string
	// portion is the part of the content's width that a block has, by zone; nil for all.
	portion []float64
}

// On sets what sections show of the page that they stand on.
func (b *Builder) On(p *doc.Page) {
	b.Neighbours, b.Ground, b.Views = place.Neighbours(p, b.Site.Zones), p.Ground, p.Views()
	b.Over = place.Over(p, b.Site.Zones)
}

// Page gives the body element of a page: headers, <main>, footers.
func (b *Builder) Page(p *doc.Page) *Node {
	b.On(p)
	body := &Node{Tag: "body", Key: "body", Styles: pageBuild{b}.rootStyles()}
	for z := range body.Styles {
		body.Styles[z].MinHeight = style.Length{N: 100, Unit: style.Vh}
	}
	first, last := -1, -1
	for i, s := range p.Sections {
		if s.Role == doc.RoleMain && !s.Hidden {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	apart := func(n *Node) { // margins of neighbours must not collapse (docs/layout.md)
		for z := range n.Styles {
			n.Styles[z].Display, n.Styles[z].FlexDirection = style.Flex, style.Column
		}
	}
	spaced := slices.ContainsFunc(p.Sections, func(s *doc.Section) bool {
		return s.Style["margin-top"] != nil || s.Style["margin-bottom"] != nil || s.Style["pull"] != nil
	})
	if spaced {
		apart(body)
	}
	orders := pageBuild{b}.sectionOrders(p)
	var main *Node
	views := map[string]bool{} // that have begun
	for i, s := range p.Sections {
		if s.Hidden {
			continue
		}
		if i == first {
			main = &Node{Tag: "main", Key: "main", Styles: pageBuild{b}.rootStyles()}
			for z := range main.Styles {
				main.Styles[z].Background = ""
			}
			if spaced || orders != nil {
				apart(main)
			}
			body.Children = append(body.Children, main)
		}
		n := b.Section(s)
		if main != nil && i <= last {
			if n.Tag != "section" || orders != nil { // a header or footer in the midst of main is no landmark
				c := *n
				c.Tag = "section"
				n = &c
			}
			if orders != nil {
				n.Styles = slices.Clone(n.Styles)
				for z := range n.Styles {
					n.Styles[z].Order = orders[z][i]
				}
			}
			at := main
			if s.View != nil {
				if at = (pageBuild{b}).viewOf(main, s.View, views); spaced {
					apart(at)
				}
			}
			at.Children = append(at.Children, n)
		} else {
			body.Children = append(body.Children, n)
		}
	}
	pageBuild{b}.unnamed(body)
	pageBuild{b}.warnOfTabs(body)
	return body
}

// unnamed makes sections that no heading names divisions: a section is a part of a page that an
// outline would list (HTML §4.3.3).
func (b pageBuild) unnamed(body *Node) {
	for i, n := range body.Children {
		switch {
		case n.Section == "":
			b.unnamed(n)
		case n.Tag == "section" && !n.heads():
			c := *n
			c.Tag = "div"
			body.Children[i] = &c
		}
	}
}

// sectionOrders gives, by zone and index, where the sections of a page come in zones in which they
// come in another order than in the document; nil where there is none.
func (b pageBuild) sectionOrders(p *doc.Page) [][]int {
	out, some := make([][]int, len(b.Site.Zones)), false
	for z := range out {
		seen, byHand := place.Sections(p, b.Site.Zones, z)
		some = some || byHand
		out[z] = make([]int, len(p.Sections))
		for i, s := range p.Sections {
			if byHand {
				out[z][i] = slices.Index(seen, s)
			}
		}
	}
	if !some {
		return nil
	}
	return out
}

// viewOf gives the element of a view that a section stands in: that of the section before it
// when they are of one view. The first view of a page is seen unless another is gone to; the
// others are folded where they aren't worked on.
func (b pageBuild) viewOf(main *Node, v *doc.View, begun map[string]bool) *Node {
	if k := len(main.Children) - 1; k >= 0 && main.Children[k].Key == "view-"+v.Anchor {
		return main.Children[k]
	}
	first := len(begun) == 0 || b.Views[0].Anchor == v.Anchor
	n := &Node{Tag: "div", Key: "view-" + v.Anchor, Styles: main.Styles, Folded: !first && !b.Still}
	switch {
	case begun[v.Anchor] && !first: // it goes on behind what is always seen
		n.attr("data-of", v.Anchor)
	case first:
		n.attr("data-view", "first")
	default:
		n.attr("data-view", "other")
	}
	if !begun[v.Anchor] {
		n.attr("id", v.Anchor)
		n.attr("role", "region")
		n.attr("aria-label", v.Title)
	}
	begun[v.Anchor] = true
	main.Children = append(main.Children, n)
	return n
}

func (b *Builder) sheet(s doc.Style, zone int) style.Sheet {
	sh := style.Sheet{House: &b.Site.House, Zones: b.Site.Zones, Zone: zone, Style: s}
	if b.Watched != "" && b.at == b.Watched {
		sh.Instead = func(setting, holds string) { b.Instead(zone, setting, holds) }
	}
	return sh
}

func (b pageBuild) rootStyles() []style.Style {
	return b.styles(nil, func(z int, st *style.Style) {
		sh := b.sheet(nil, z)
		sh.TextStyle(st, "body")
		st.Color = sh.Swatch("words", "#000000")
		st.Background = b.pageGround()
		legible(st, sh)
	})
}

// pageGround is the colour that the page lies on.
func (b pageBuild) pageGround() string {
	if w := b.Site.House.Swatch(b.Ground); w != nil {
		return w.Value
	}
	return b.Site.House.Ground()
}

// styles makes a style per zone that inherits from the parent's; set may be nil.
func (b *Builder) styles(parent *Node, set func(zone int, st *style.Style)) []style.Style {
	ss := make([]style.Style, len(b.Site.Zones))
	for z := range ss {
		if parent != nil {
			ss[z].Inherit(&parent.Styles[z])
		}
		if set != nil {
			set(z, &ss[z])
		}
	}
	return ss
}

// child adds an element that inherits from the parent.
func (b *Builder) child(parent *Node, tag string, set func(zone int, st *style.Style)) *Node {
	c := &Node{Tag: tag}
	c.Styles = b.styles(parent, set)
	parent.Children = append(parent.Children, c)
	return c
}

// say adds plain words to an element.
func say(n *Node, words string) *Node {
	n.Children = append(n.Children, &Node{Text: words, Styles: n.Styles})
	return n
}

// Section gives the element of a section: its surface, and the grid in it.
func (b *Builder) Section(s *doc.Section) *Node {
	if n := b.Kept[s]; n != nil {
		return n
	}
	bars := pageBuild{b}.bars(s)
	n := pageBuild{b}.section(s, bars)
	if b.Kept != nil && !s.Divided() && bars == nil && s.Style["pull"] == nil {
		b.Kept[s] = n
	}
	return n
}

// bars gives how far down the bar reaches that lies over a section, px by zone; nil where none
// does.
func (b pageBuild) bars(s *doc.Section) (down []float64) {
	if b.Over == nil || b.Reach == nil {
		return nil
	}
	for z := range b.Site.Zones {
		if bar := b.Over(s, z); bar != nil {
			if down == nil {
				down = make([]float64, len(b.Site.Zones))
			}
			down[z] = b.Reach(bar, z)
			if below, ok := b.sheet(bar.Style, z).Length("padding-bottom", style.Pixels(0)).
				Resolve(0, style.Viewport{Width: float64(b.Site.Zones[z].Typical)}); ok {
				down[z] += below // which it has not, taking no room
			}
		}
	}
	return down
}

func (b pageBuild) section(s *doc.Section, bars []float64) *Node {
	b.at, b.in = s.ID, s
	b.faces = strings.HasPrefix(s.Made, "people") || strings.HasPrefix(s.Made, "testimonial")
	b.standing = startOf(s)
	root := &Node{Styles: b.rootStyles()}
	tag := "section"
	if s.Role != doc.RoleMain {
		tag = string(s.Role)
	}
	n := &Node{Tag: tag, Section: s.ID, Key: s.ID}
	if s.Anchor != "" {
		n.attr("id", s.Anchor)
	}
	n.Styles = b.styles(root, func(z int, st *style.Style) {
		grounds(b).surface(st, s, z)
		if bars != nil && bars[z] > 0 { // words begin below the bar
			st.Padding.Top = atLeast(st.Padding.Top, bars[z])
		}
	})
	grounds(b).behind(n, s)
	in := &Node{Tag: "div", Key: s.ID + "-g", Wraps: true}
	in.Styles = b.styles(n, func(z int, st *style.Style) {
		sh := b.sheet(s.Style, z)
		if len(n.Children) > 0 {
			st.Position, st.ZIndex = style.Relative, 1
		}
		if n.Styles[z].Display == style.Flex {
			st.Width = style.Percentage(100)
		}
		if sh.Word("content", value.Boxed) != value.Full {
			gutter := b.Site.House.Gutter.Or(b.Site.Zones, z, 20)
			st.Padding.Left, st.Padding.Right = style.Pixels(gutter), style.Pixels(gutter)
			if st.MaxWidth = sh.Length("content", style.Pixels(b.Site.House.ContentWidth)); st.MaxWidth.Unit != style.Percent {
				st.MaxWidth = widened(st.MaxWidth, 2*gutter)
			}
			st.MarginAuto = style.Left | style.Right
		}
	})
	into := n
	if s.Fold != nil {
		into = holderBlocks(b).fold(n, in, s.Fold)
	}
	into.Children = append(into.Children, in)
	holderBlocks(b).hold(in, s.Holder())
	grounds(b).edge(n, s, "top")
	grounds(b).edge(n, s, "bottom")
	key(n, s.ID)
	in.Key = s.ID + "-g"
	return n
}

// medium finds a picture or a video; "" is none.
func (b *Builder) medium(id string) (Medium, bool) {
	if id == "" || b.Media == nil {
		return Medium{}, false
	}
	return b.Media(id)
}

func minHeight(sh style.Sheet) style.Length {
	if l := sh.Length("min-height", style.Length{}); l.N > 0 {
		return l
	}
	return style.Length{}
}

// block gives the element of a block as the child of what it stands in, or nil when
// nothing is to be shown.
func (b *Builder) block(in *Node, bl *doc.Block) *Node {
	a := Of(bl.Kind)
	if a == nil {
		return nil
	}
	outer := b.at
	b.at = bl.ID
	defer func() { b.at = outer }()
	n := a.build(b, in, bl)
	if n == nil {
		return nil
	}
	n.Block, n.Kind = bl.ID, string(bl.Kind)
	if b.item != "" {
		n.Block = doc.ItemID(bl.ID, b.item)
	}
	for z := range n.Styles {
		sh := b.sheet(bl.Style, z)
		box(&n.Styles[z], sh)
		if !b.Still {
			effects(&n.Styles[z], sh)
		}
		if a.finish != nil {
			a.finish(&n.Styles[z], sh)
		}
	}
	if a.pressed && !n.has("aria-disabled") {
		n.States = b.pressing()
	}
	grounds{b}.states(n, bl)
	key(n, n.Block)
	return n
}

// words sets what every worded block has: its type, padding and fill.
func words(st *style.Style, sh style.Sheet, textStyle string) {
	sh.Type(st, textStyle)
	area(st, sh, style.Edges{}, "")
}

// area sets padding and fill, these being what they are unless set.
func area(st *style.Style, sh style.Sheet, padding style.Edges, fill string) {
	of := func(side string, usual style.Length) style.Length {
		if usual.Unit == style.Auto {
			usual = style.Pixels(0)
		}
		return sh.Length("padding-"+side, usual)
	}
	st.Padding = style.Edges{
		Top:    of("top", padding.Top),
		Right:  of("right", padding.Right),
		Bottom: of("bottom", padding.Bottom),
		Left:   of("left", padding.Left),
	}
	st.Background = sh.Colour("background", fill)
	if sh.Word("background", "") == value.None {
		st.Background = ""
	}
	legible(st, sh)
}

// legible gives words that can't be read on their element's own ground the colour of the
// palette that can be, or is read best there, unless they were given one (WCAG 2.2, 1.4.3).
func legible(st *style.Style, sh style.Sheet) {
	if st.Background == "" || sh.Word("color", "") != "" && sh.Word("color", "") != value.Default ||
		readable(st.Color, style.Over(st.Background, st.Behind)) {
		return
	}
	ground, err := colour.ParseHex(style.Over(st.Background, st.Behind))
	if err != nil {
		return
	}
	best := 0.0
	for _, token := range []string{"on-deep", "words", "ground"} {
		c, err := colour.ParseHex(sh.Swatch(token, ""))
		if err != nil {
			continue
		}
		if r := colour.Contrast(c, ground); r > best {
			best, st.Color = r, c.String()
		}
		if best >= colour.AA {
			return
		}
	}
}

// runs adds a paragraph's words to an element.
func (b *Builder) runs(n *Node, p doc.Paragraph) {
	for _, r := range p {
		r.Bound() // wherever the page comes from
		at := n
		wrap := func(tag string, set func(*style.Style)) *Node {
			c := &Node{Tag: tag}
			parent := at
			c.Styles = b.styles(parent, func(_ int, st *style.Style) {
				st.Display = style.Inline
				set(st)
			})
			at.Children = append(at.Children, c)
			at = c
			return c
		}
		// What is raised, or in another family, doesn't make its line higher.
		if r.Super {
			wrap("sup", func(st *style.Style) {
				st.LineHeight = style.Pixels(0)
				st.FontSize = scaled(st.FontSize, 0.75)
				st.Position, st.Inset.Top = style.Relative, style.Pixels(math.Round(st.FontPx(style.Viewport{})*-0.45))
			})
		}
		if r.Code {
			wrap("code", func(st *style.Style) {
				st.LineHeight = style.Pixels(0)
				st.FontFamily, st.FontSize = b.Site.House.Fonts.Mono, scaled(st.FontSize, 0.92)
			})
		}
		if r.Link != "" {
			a := wrap("a", b.linked(b.Site.House.Links.Colour))
			b.lead(a, r.Link)
			if !b.DropEmpty && b.broken(r.Link) {
				a.attr("data-broken", "yes") // on the canvas
			}
			if hover := b.Site.House.Links.Hover; hover != b.Site.House.Links.Colour {
				set := b.linked(hover)
				a.States = []State{{":hover", func(_ int, st *style.Style) { set(st) }}}
			}
		}
		if r.Bold {
			wrap("strong", func(st *style.Style) { st.FontWeight = max(st.FontWeight, 700) })
		}
		if r.Italic {
			wrap("em", func(st *style.Style) { st.FontItalic = true })
		}
		if r.Underline {
			wrap("u", func(st *style.Style) { st.Underline = true })
		}
		if r.Strike {
			wrap("s", func(st *style.Style) { st.Strike = true })
		}
		if r.Small {
			wrap("small", func(st *style.Style) { st.FontSize = scaled(st.FontSize, 0.85) })
		}
		if r.Size != 0 {
			// What is larger than the words around has their line height made for its own size.
			wrap("span", func(st *style.Style) { st.FontSize = scaled(st.FontSize, float64(r.Size)/100) }).
				attr("data-size", strconv.Itoa(r.Size))
		}
		if r.Tracking != 0 {
			wrap("span", func(st *style.Style) { st.LetterSpacing += float64(r.Tracking) / 100 }).
				attr("data-tracking", strconv.Itoa(r.Tracking))
		}
		if r.Language != "" {
			wrap("span", func(*style.Style) {}).attr("lang", r.Language)
		}
		if w := b.Site.House.Swatch(r.Colour); w != nil {
			wrap("span", func(st *style.Style) { st.Color = w.Value }).attr("data-colour", r.Colour)
		} else if c, err := colour.ParseHex(r.Colour); err == nil {
			wrap("span", func(st *style.Style) { st.Color = c.String() }).attr("data-colour", r.Colour)
		}
		for i, t := range strings.Split(r.Text, "\n") {
			if i > 0 {
				at.Children = append(at.Children, &Node{Tag: "br", Styles: at.Styles})
			}
			if t != "" {
				at.Children = append(at.Children, &Node{Text: t, Styles: at.Styles})
			}
		}
	}
}

// linked gives what draws a link in running words, in a colour of the palette where that
// can be read.
func (b *Builder) linked(token string) func(st *style.Style) {
	return func(st *style.Style) {
		look := &b.Site.House.Links
		st.Underline, st.UnderlineLine, st.UnderlineDrop = true, look.Line, look.Drop
		w := b.Site.House.Swatch(token)
		if w == nil || st.Pictured || !b.plainColour(st.Color) {
			return
		}
		ground := style.Over(st.Background, st.Behind)
		words, err1 := colour.ParseHex(w.Value)
		behind, err2 := colour.ParseHex(ground)
		if err1 == nil && err2 == nil && colour.Contrast(words, behind) >= colour.AA {
			st.Color = w.Value
		}
	}
}

// plainColour reports whether words have a colour that nobody chose for them.
func (b *Builder) plainColour(c string) bool {
	for _, token := range []string{"words", "quiet-words", b.Site.House.Links.Colour} {
		if w := b.Site.House.Swatch(token); w != nil && w.Value == c {
			return true
		}
	}
	return false
}

// atLeast is a length or as many px, whichever is more.
func atLeast(l style.Length, px float64) style.Length {
	if l.Unit == style.Px {
		return style.Pixels(max(l.N, px))
	}
	return style.Greatest(l, style.Pixels(px))
}

// widened is a length and as many px more.
func widened(l style.Length, px float64) style.Length {
	switch l.Unit {
	case style.Px:
		return style.Pixels(l.N + px)
	case style.Math:
		if l.Fn.Name == style.Calc {
			return style.Sum(append(slices.Clone(l.Fn.Args), style.Pixels(px))...)
		}
	}
	return style.Sum(l, style.Pixels(px))
}

// scaled is a type size made larger or smaller, in whole 1/64 px where it is fixed.
func scaled(l style.Length, by float64) style.Length {
	l = l.Scaled(by)
	if l.Unit == style.Px {
		l.N = math.Round(l.N*64) / 64
	}
	return l
}

func (b *Builder) link(href string) string {
	if b.Link == nil {
		return href
	}
	return b.Link(href)
}

// newTabID is the id of the words that say that a link opens in a new tab.
const newTabID = "new-tab"

// lead makes an element lead somewhere. A file that isn't there any more leads nowhere.
func (b *Builder) lead(a *Node, link string) {
	address, inNewTab := doc.SplitLink(link)
	if id := doc.LinkedFile(link); id != "" {
		m, ok := b.medium(id)
		if !ok {
			return
		}
		if address = m.Variants[0].URL; !b.DropEmpty {
			address = doc.FilePrefix + id // on the canvas, to be read again
		}
		a.attr("href", address)
		if m.Type != "application/pdf" && m.Sort() == doc.FileMedium { // browsers show a PDF, and save the others
			a.attr("download", m.Name)
		}
	} else {
		a.attr("href", b.link(address))
	}
	if inNewTab {
		a.attr("target", "_blank")
		a.attr("rel", "noopener")
		a.attr("aria-describedby", newTabID) // WCAG 2.2, technique G201
	}
}

// broken reports whether a link leads to a page or a file of the site that isn't there.
func (b *Builder) broken(link string) bool {
	if id := doc.LinkedFile(link); id != "" {
		_, ok := b.medium(id)
		return !ok
	}
	address, _ := doc.SplitLink(link)
	path, _, _ := strings.Cut(address, "#")
	slug, ok := strings.CutPrefix(path, "/")
	return ok && len(b.Pages) > 0 &&
		!slices.ContainsFunc(b.Pages, func(p PageLink) bool { return p.Slug == strings.TrimSuffix(slug, "/") })
}

// warnOfTabs ends a page with the words that its links to new tabs are described by.
func (b pageBuild) warnOfTabs(body *Node) {
	leads := false
	body.Walk(func(n *Node) {
		for _, a := range n.Attrs {
			leads = leads || a.Name == "aria-describedby" && a.Value == newTabID
		}
	})
	if !leads {
		return
	}
	says := b.child(body, "p", nil)
	says.attr("id", newTabID)
	says.attr("hidden", "")
	says.Folded, says.Key = true, newTabID
	say(says, "opens in a new tab")
}

// key names an element and those below it.
func key(n *Node, id string) {
	n.Key = id
	i := 0
	for _, c := range n.Children {
		if c.Tag != "" && c.Tag != "br" && c.Block == "" {
			i++
			key(c, id+"-"+strconv.Itoa(i))
		}
	}
}

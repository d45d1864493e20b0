package element

import (
	"math"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/style"
)

// Medium is a picture as pages use it.
type Medium struct {
	ID            string
	Width, Height int // of the original, px
	Alt           string
	Variants      []Variant // from narrow to wide; never empty
}

// Variant is one resized copy of a picture.
type Variant struct {
	URL string
	// StyleURL is its address as the style sheet has to write it.
	StyleURL string
	Width    int // px
}

// Builder makes element trees for one site.
type Builder struct {
	Site *doc.Site
	// Media finds a picture by id.
	Media func(id string) (Medium, bool)
	// Link turns an address as entered into the one to write; nil keeps it.
	Link func(string) string
	// DropEmpty leaves out what a visitor can't see, such as a picture that has
	// none yet; the canvas shows a stand-in for it.
	DropEmpty bool
	// Kept has the elements of sections already built; they are used again for the
	// very same section, which never changes. A nil map keeps none.
	Kept map[*doc.Section]*Node
}

// Page gives the body element of a page: headers, <main>, footers.
func (b *Builder) Page(p *doc.Page) *Node {
	body := &Node{Tag: "body", Key: "body", Styles: b.rootStyles()}
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
	var main *Node
	for i, s := range p.Sections {
		if s.Hidden {
			continue
		}
		if i == first {
			main = &Node{Tag: "main", Key: "main", Styles: b.rootStyles()}
			for z := range main.Styles {
				main.Styles[z].Background = ""
			}
			body.Children = append(body.Children, main)
		}
		n := b.Section(s)
		if main != nil && i <= last {
			if n.Tag != "section" { // a header or footer in the midst of main is no landmark
				c := *n
				c.Tag = "section"
				n = &c
			}
			main.Children = append(main.Children, n)
		} else {
			body.Children = append(body.Children, n)
		}
	}
	return body
}

func (b *Builder) sheet(s doc.Style, zone int) style.Sheet {
	return style.Sheet{House: &b.Site.House, Zones: b.Site.Zones, Zone: zone, Style: s}
}

func (b *Builder) rootStyles() []style.Style {
	return b.styles(nil, func(z int, st *style.Style) {
		sh := b.sheet(nil, z)
		sh.TextStyle(st, "body")
		st.Color = sh.Swatch("words", "#000000")
		st.Background = sh.Swatch("ground", "#ffffff")
	})
}

// styles makes a style per zone that inherits from the parent's.
func (b *Builder) styles(parent *Node, set func(zone int, st *style.Style)) []style.Style {
	ss := make([]style.Style, len(b.Site.Zones))
	for z := range ss {
		if parent != nil {
			ss[z].Inherit(&parent.Styles[z])
		}
		set(z, &ss[z])
	}
	return ss
}

// Section gives the element of a section: its surface, and the grid in it.
func (b *Builder) Section(s *doc.Section) *Node {
	if n := b.Kept[s]; n != nil {
		return n
	}
	n := b.section(s)
	if b.Kept != nil {
		b.Kept[s] = n
	}
	return n
}

func (b *Builder) section(s *doc.Section) *Node {
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
		sh := b.sheet(s.Style, z)
		st.Background = sh.Colour("background", "")
		st.Color = sh.Colour("color", st.Color)
		st.Padding.Top = sh.Length("padding-top", style.Pixels(0))
		st.Padding.Bottom = sh.Length("padding-bottom", style.Pixels(0))
		st.MinHeight = minHeight(sh)
		st.BackgroundURL = b.backdrop(s.Picture, z)
	})
	grid := &Node{Tag: "div", Key: s.ID + "-g"}
	grid.Styles = b.styles(n, func(z int, st *style.Style) {
		sh := b.sheet(s.Style, z)
		gutter := b.Site.House.Gutter.Or(b.Site.Zones, z, 20)
		st.Display = style.Grid
		st.GridColumns = style.EqualColumns(s.Columns(b.Site.Zones, z))
		st.GridAutoRows = style.Track{Min: sh.Length("row-height", style.Pixels(24))}
		st.ColumnGap = sh.Length("column-gap", style.Pixels(24))
		st.RowGap = sh.Length("row-gap", style.Pixels(8))
		if sh.Word("content", "boxed") == "boxed" {
			st.Padding.Left, st.Padding.Right = style.Pixels(gutter), style.Pixels(gutter)
			st.MaxWidth = style.Pixels(b.Site.House.ContentWidth + 2*gutter)
			st.MarginAuto = style.Left | style.Right
		}
	})
	n.Children = []*Node{grid}
	places := place.Resolve(s, b.Site.Zones)
	for _, i := range place.Order(s, b.Site.Zones) {
		if c := b.block(grid, s.Blocks[i], places, i); c != nil {
			grid.Children = append(grid.Children, c)
		}
	}
	return n
}

func minHeight(sh style.Sheet) style.Length {
	if l := sh.Length("min-height", style.Length{}); l.N > 0 {
		return l
	}
	return style.Length{}
}

// backdrop is the address of the variant that suits a zone's full width.
func (b *Builder) backdrop(id string, zone int) string {
	m, ok := b.Media(id)
	if id == "" || !ok {
		return ""
	}
	want := 1920
	if zone > 0 {
		want = b.Site.Zones.Max(zone)
	}
	for _, v := range m.Variants {
		if v.Width >= want {
			return v.StyleURL
		}
	}
	return m.Variants[len(m.Variants)-1].StyleURL
}

// block gives the element of a block as an item of the grid, or nil when nothing
// is to be shown.
func (b *Builder) block(grid *Node, bl *doc.Block, places [][]place.Placed, index int) *Node {
	if b.DropEmpty && everywhereHidden(places, index) {
		return nil
	}
	var n *Node
	switch bl.Kind {
	case doc.Heading:
		n = b.heading(grid, bl)
	case doc.Text:
		n = b.text(grid, bl)
	case doc.Picture:
		n = b.picture(grid, bl)
	case doc.Button:
		n = b.button(grid, bl)
	case doc.List:
		n = b.list(grid, bl)
	case doc.Quote:
		n = b.quote(grid, bl)
	case doc.Divider:
		n = b.divider(grid, bl)
	}
	if n == nil {
		return nil
	}
	n.Block = bl.ID
	for z := range n.Styles {
		sh := b.sheet(bl.Style, z)
		b.item(&n.Styles[z], sh, places[z][index])
		switch bl.Kind {
		case doc.Quote:
			line(&n.Styles[z], sh)
		case doc.Divider:
			rule(&n.Styles[z], sh)
		}
	}
	key(n, bl.ID)
	return n
}

func everywhereHidden(places [][]place.Placed, index int) bool {
	for _, zone := range places {
		if !zone[index].Hidden {
			return false
		}
	}
	return true
}

// item sets what every block has as an item of the grid: its area, its size and
// its place in it, its edge.
func (b *Builder) item(st *style.Style, sh style.Sheet, p place.Placed) {
	if p.Hidden {
		st.Display = style.None
	}
	st.ColumnStart, st.ColumnSpan, st.RowStart, st.RowSpan = p.Column, p.Span, p.Row, p.Rows
	// Never auto: a positioned picture would lie over everything that isn't.
	st.ZIndex = p.Layer + 1
	st.Width = sh.Length("width", st.Width)
	if st.Width.Unit != style.Auto && st.Width.Unit != style.Percent {
		st.MaxWidth = style.Percentage(100)
	}
	st.MinHeight = minHeight(sh)
	switch sh.Word("align-self", "") {
	case "fill":
		st.AlignSelf = style.AlignAuto
	case "top":
		st.AlignSelf = style.AlignStart
	case "middle":
		st.AlignSelf = style.AlignCenter
	case "bottom":
		st.AlignSelf = style.AlignEnd
	}
	switch sh.Word("justify-self", "") {
	case "fill":
		st.JustifySelf = style.AlignAuto
	case "left":
		st.JustifySelf = style.AlignStart
	case "middle":
		st.JustifySelf = style.AlignCenter
	case "right":
		st.JustifySelf = style.AlignEnd
	}
	if w := sh.Length("border-width", style.Length{}); w.N > 0 {
		st.Border = style.AllSides(max(1, math.Floor(w.N)))
		st.BorderColor = sh.Colour("border-color", sh.Swatch("line", "#cccccc"))
	}
	st.BorderRadius = sh.Length("border-radius", st.BorderRadius)
	st.BoxShadow = sh.Shadow("box-shadow")
	st.Opacity = max(sh.Share("opacity", 0), 0)
	if v := sh.Word("opacity", ""); v == "0%" {
		st.Opacity = 0.0001
	}
}

// words sets what every worded block has: its type, padding and colours.
func words(st *style.Style, sh style.Sheet, textStyle string) {
	sh.Type(st, textStyle)
	zero := style.Pixels(0)
	st.Padding = style.Edges{
		Top:    sh.Length("padding-top", zero),
		Right:  sh.Length("padding-right", zero),
		Bottom: sh.Length("padding-bottom", zero),
		Left:   sh.Length("padding-left", zero),
	}
	st.Background = sh.Colour("background", "")
}

// runs adds a paragraph's words to an element.
func (b *Builder) runs(n *Node, p doc.Paragraph) {
	for _, r := range p {
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
		if r.Link != "" {
			a := wrap("a", func(st *style.Style) { st.Underline = true })
			a.attr("href", b.link(r.Link))
		}
		if r.Bold {
			wrap("strong", func(st *style.Style) { st.FontWeight = max(st.FontWeight, 700) })
		}
		if r.Italic {
			wrap("em", func(st *style.Style) { st.FontItalic = true })
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

func (b *Builder) link(href string) string {
	if b.Link == nil {
		return href
	}
	return b.Link(href)
}

// key names an element and those below it.
func key(n *Node, id string) {
	n.Key = id
	i := 0
	for _, c := range n.Children {
		if c.Tag != "" && c.Tag != "br" {
			i++
			key(c, id+"-"+strconv.Itoa(i))
		}
	}
}

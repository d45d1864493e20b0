package main

import (
	"fmt"
	"math/rand/v2"
	"os"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
	"openplot/demo"
	"openplot/icons"
)

// demoCases are the demo's pages.
func demoCases() []testCase {
	s := demo.Site()
	ids := map[string]string{}
	for _, name := range demo.PictureNames() {
		ids[name] = name
	}
	var cs []testCase
	for _, p := range demo.Pages(ids) {
		c := pageCase("demo "+p.Page.Name, s, p.Page)
		c.kind = "demo"
		cs = append(cs, c)
	}
	return cs
}

// kindCases are a page for each kind of block, as the Shelf adds it, and one for
// each ready-made section.
func kindCases(s *doc.Site) ([]testCase, error) {
	pages, err := demo.Specimens(s, specimenIDs())
	if err != nil {
		return nil, err
	}
	var cs []testCase
	for _, p := range pages {
		b := element.Builder{Site: s, Media: specimenMedium("/"), Icon: icons.Drawing, Pages: demo.SpecimenPages}
		cs = append(cs, testCase{name: p.Name, kind: "kinds", zones: s.Zones, root: b.Page(p), site: s, page: p})
	}
	if families[0] == "Uploaded" {
		cs = append(cs, uploadedCase(s))
	}
	return cs, nil
}

// uploadedCase is words in an uploaded font, in many sizes.
func uploadedCase(s *doc.Site) testCase {
	g := &treeGenerator{
		words: generator{r: rand.New(rand.NewPCG(1, 2)), site: s},
		r:     rand.New(rand.NewPCG(3, 4)),
		zones: len(s.Zones),
	}
	root := generateTree(g.r, s)
	root.Children = nil
	for i := range 40 {
		root.Children = append(root.Children, g.text(root, "p", func(st *style.Style) {
			st.FontFamily, st.FontWeight, st.FontItalic, st.FontSize = "Uploaded", 400, false, style.Pixels(
				11+float64(i)*0.7,
			)
			st.Balance = false
		}))
	}
	return testCase{name: "uploaded font", kind: "kinds", zones: s.Zones, root: root}
}

// generateTree makes a random element tree of everything that package style can
// emit: the formatting contexts nested in each other, with values of their own in
// some zones.
func generateTree(r *rand.Rand, s *doc.Site) *element.Node {
	g := &treeGenerator{words: generator{r: r, site: s}, r: r, zones: len(s.Zones)}
	body := &element.Node{Tag: "body", Key: "body", Styles: make([]style.Style, g.zones)}
	for z := range body.Styles {
		st := &body.Styles[z]
		st.FontFamily, st.FontWeight, st.FontSize = "Hanken Grotesk", 400, style.Pixels(16)
		st.LineHeight, st.Color = style.Length{N: 1.5, Unit: style.Times}, "#000000"
	}
	for range 1 + r.IntN(3) {
		body.Children = append(body.Children, g.container(body, 1+r.IntN(3)))
	}
	return body
}

type treeGenerator struct {
	words generator
	r     *rand.Rand
	zones int
	n     int
}

func (g *treeGenerator) maybe(oneIn int) bool { return g.r.IntN(oneIn) == 0 }

func pick[T any](g *treeGenerator, of ...T) T { return of[g.r.IntN(len(of))] }

// node makes an element whose style inherits; set fills in the widest zone, which
// the others follow until vary changes something there.
func (g *treeGenerator) node(parent *element.Node, tag string, set func(*style.Style)) *element.Node {
	g.n++
	n := &element.Node{Tag: tag, Key: fmt.Sprint("n", g.n), Styles: make([]style.Style, g.zones)}
	if g.maybe(4) { // values of its own in each zone
		for z := range n.Styles {
			n.Styles[z].Inherit(&parent.Styles[z])
			set(&n.Styles[z])
		}
		return n
	}
	var st style.Style
	for z := range n.Styles {
		st = style.Style{}
		st.Inherit(&parent.Styles[z])
		n.Styles[z] = st
	}
	var only style.Style
	only.Inherit(&parent.Styles[0])
	before := only
	set(&only)
	for z := range n.Styles {
		k := only
		p := &parent.Styles[z]
		// What set left alone is inherited.
		if k.FontSize == before.FontSize {
			k.FontSize = p.FontSize
		}
		if k.FontFamily == before.FontFamily {
			k.FontFamily = p.FontFamily
		}
		if k.FontWeight == before.FontWeight {
			k.FontWeight = p.FontWeight
		}
		if k.LineHeight == before.LineHeight {
			k.LineHeight = p.LineHeight
		}
		if k.LetterSpacing == before.LetterSpacing {
			k.LetterSpacing = p.LetterSpacing
		}
		n.Styles[z] = k
	}
	return n
}

func (g *treeGenerator) px(from, to int) style.Length {
	v := float64(from + g.r.IntN(to-from+1))
	if g.maybe(5) {
		v += float64(g.r.IntN(100)) / 100
	}
	return style.Pixels(v)
}

// length is a length of about from to to px in some unit.
func (g *treeGenerator) length(from, to int) style.Length {
	l := g.px(from, to)
	switch g.r.IntN(8) {
	case 0:
		return style.Length{N: l.N / 16, Unit: style.Rem}
	case 1:
		return style.Length{N: l.N / 12, Unit: style.Vw}
	case 2:
		return style.Between(
			style.Pixels(l.N/2),
			style.Sum(style.Length{N: 0.5, Unit: style.Rem}, style.Length{N: l.N / 15, Unit: style.Vw}),
			l,
		)
	case 3:
		return style.Least(l, style.Length{N: l.N / 8, Unit: style.Vw})
	}
	return l
}

// box sets what any box can have.
func (g *treeGenerator) box(st *style.Style) {
	if g.maybe(3) {
		st.Padding = style.Edges{
			Top:    g.length(0, 30),
			Right:  g.length(0, 30),
			Bottom: g.length(0, 30),
			Left:   g.length(0, 30),
		}
		if g.maybe(6) {
			st.Padding.Top = style.Percentage(3)
		}
	}
	if g.maybe(5) {
		st.Border = style.Widths{
			Top:    float64(g.r.IntN(3)),
			Right:  float64(g.r.IntN(3)),
			Bottom: float64(g.r.IntN(5)),
			Left:   float64(g.r.IntN(2)),
		}
	}
	switch g.r.IntN(14) {
	case 0:
		st.Width = g.length(40, 500)
	case 1:
		st.Width = style.Percentage(float64(10 + g.r.IntN(100)))
	case 2:
		st.Width = style.Length{Unit: pick(g, style.MinContent, style.MaxContent, style.FitContent)}
	case 3:
		st.Width = style.Sum(style.Percentage(100), g.px(-90, -5))
	}
	switch g.r.IntN(12) {
	case 0:
		st.MaxWidth = g.length(50, 600)
	case 1:
		st.MaxWidth = style.Percentage(float64(30 + g.r.IntN(70)))
	case 2:
		st.MinWidth = g.length(20, 200)
	case 3:
		st.MinWidth = style.Pixels(0)
	}
	switch g.r.IntN(16) {
	case 0:
		st.MinHeight = g.length(20, 300)
	case 1:
		st.Height = g.length(20, 300)
	case 2:
		st.MaxHeight = g.length(40, 300)
	case 3:
		st.MinHeight = style.Length{N: float64(g.r.IntN(40)), Unit: style.Vh}
	}
	if g.maybe(14) {
		st.Overflow = pick(g, style.Hidden, style.Scroll)
	}
}

// item sets what a box has as a child of a container.
func (g *treeGenerator) item(st *style.Style, in *element.Node) {
	parent, first, columns := in.Styles[0].Display, len(in.Children) == 0, len(in.Styles[0].GridColumns)
	for z := range in.Styles {
		columns = min(columns, len(in.Styles[z].GridColumns))
	}
	switch parent {
	case style.Flex:
		if g.maybe(3) {
			st.FlexGrow = pick(g, 1, 1, 2, 0.5)
		}
		if g.maybe(4) {
			st.FlexShrink = style.Factor{N: pick(g, 0.0, 2, 0.5), Set: true}
		}
		switch g.r.IntN(8) {
		case 0:
			st.FlexBasis = style.Pixels(0)
		case 1:
			st.FlexBasis = g.length(30, 300)
		case 2:
			st.FlexBasis = style.Percentage(float64(10 + g.r.IntN(60)))
		case 3:
			st.FlexBasis = style.Length{Unit: style.Content}
		}
		if g.maybe(6) {
			st.Order = g.r.IntN(3) - 1
		}
		if g.maybe(4) {
			st.AlignSelf = pick(g, style.AlignStart, style.AlignCenter, style.AlignEnd, style.AlignStretch)
		}
	case style.Grid:
		// Columns are never beyond those that the container names.
		if n := columns; n > 0 && g.maybe(2) {
			st.ColumnStart = 1 + g.r.IntN(n)
			st.ColumnSpan = 1 + g.r.IntN(min(3, n-st.ColumnStart+1))
		} else if n > 0 && g.maybe(3) {
			st.ColumnSpan = 1 + g.r.IntN(min(3, n))
		}
		if g.maybe(3) {
			st.RowStart, st.RowSpan = 1+g.r.IntN(4), 1+g.r.IntN(3)
		} else if g.maybe(5) {
			st.RowSpan = 2
		}
		if g.maybe(4) {
			st.AlignSelf = pick(g, style.AlignStart, style.AlignCenter, style.AlignEnd, style.AlignStretch)
		}
		if g.maybe(4) {
			st.JustifySelf = pick(g, style.AlignStart, style.AlignCenter, style.AlignEnd, style.AlignStretch)
		}
		if g.maybe(9) {
			st.Order = g.r.IntN(3) - 1
		}
	}
	if parent == style.Block {
		if !first && g.maybe(2) {
			st.Margin.Top = g.length(0, 40)
		}
		if g.maybe(6) {
			st.Margin.Left, st.Margin.Right = g.length(0, 30), g.length(0, 30)
		}
		if g.maybe(8) {
			st.MarginAuto = pick(g, style.Left, style.Left|style.Right)
		}
		return
	}
	if g.maybe(5) {
		st.Margin = style.Edges{
			Top:    g.length(0, 20),
			Right:  g.length(0, 20),
			Bottom: g.length(0, 20),
			Left:   g.length(0, 20),
		}
	}
	if g.maybe(10) {
		st.MarginAuto = pick(g, style.Left, style.Right, style.Top, style.Left|style.Right, style.Top|style.Bottom)
	}
}

func (g *treeGenerator) track() style.Track {
	switch g.r.IntN(9) {
	case 0:
		return style.Fixed(g.length(30, 260))
	case 1, 2:
		return style.Track{Fr: pick(g, 1.0, 1, 2, 0.5)}
	case 3:
		return style.Track{}
	case 4:
		k := style.Length{Unit: pick(g, style.MinContent, style.MaxContent)}
		return style.Fixed(k)
	case 5:
		return style.Track{Min: g.px(0, 150), Fr: 1}
	case 6:
		return style.Track{Min: style.Length{Unit: pick(g, style.Auto, style.MinContent)}, Max: g.px(60, 300)}
	case 7:
		return style.Track{Fit: g.px(60, 300)}
	}
	return style.Fixed(style.Percentage(float64(10 + g.r.IntN(40))))
}

func (g *treeGenerator) container(parent *element.Node, depth int) *element.Node {
	display := pick(g, style.Flex, style.Flex, style.Grid, style.Grid, style.Block)
	n := g.node(parent, "div", func(st *style.Style) {
		st.Display = display
		g.box(st)
		g.item(st, parent)
		switch display {
		case style.Flex:
			st.FlexDirection = pick(
				g,
				style.Row,
				style.Row,
				style.Row,
				style.Column,
				style.Column,
				style.RowReverse,
				style.ColumnReverse,
			)
			if st.FlexDirection == style.Row ||
				st.FlexDirection == style.RowReverse { // columns that wrap aren't emitted
				st.FlexWrap = pick(g, style.SingleLine, style.Wrap)
			}
		case style.Grid:
			for range g.r.IntN(5) {
				st.GridColumns = append(st.GridColumns, g.track())
			}
			if g.maybe(6) {
				st.GridColumns = []style.Track{{Min: g.px(60, 200), Fr: 1}}
				st.GridFill = pick(g, style.AutoFill, style.AutoFit)
				st.Width, st.MaxWidth = style.Length{}, style.Length{} // they fill what they stand in
			}
			if g.maybe(4) {
				for range 1 + g.r.IntN(3) {
					st.GridRows = append(
						st.GridRows,
						pick(
							g,
							style.Fixed(g.px(20, 120)),
							style.Track{},
							style.Track{Fr: 1},
							style.Track{Min: g.px(10, 60)},
						),
					)
				}
			}
			if g.maybe(3) {
				st.GridAutoRows = pick(g, style.Fixed(g.px(20, 90)), style.Track{Min: g.px(10, 60)}, style.Track{Fr: 1})
			}
			if g.maybe(8) {
				st.GridAutoColumns = g.track()
			}
			if g.maybe(5) {
				st.GridFlow = pick(g, style.FlowColumn, style.FlowRowDense, style.FlowColumnDense)
			}
			if g.maybe(5) {
				st.JustifyItems = pick(g, style.AlignStart, style.AlignCenter, style.AlignEnd, style.AlignStretch)
			}
		}
		if display != style.Block {
			if g.maybe(2) {
				st.ColumnGap, st.RowGap = g.length(0, 30), g.length(0, 30)
			}
			if g.maybe(3) {
				st.JustifyContent = pick(
					g, style.AlignStart, style.AlignCenter, style.AlignEnd, style.SpaceBetween, style.SpaceAround,
					style.SpaceEvenly,
				)
			}
			if g.maybe(4) {
				st.AlignContent = pick(
					g, style.AlignStart, style.AlignCenter, style.AlignEnd, style.AlignStretch, style.SpaceBetween,
					style.SpaceAround, style.SpaceEvenly,
				)
			}
			if g.maybe(3) {
				st.AlignItems = pick(g, style.AlignStart, style.AlignCenter, style.AlignEnd, style.AlignStretch)
				if display == style.Flex && st.FlexDirection < style.Column && st.FlexWrap != style.WrapReverse &&
					g.maybe(3) { // baselines only in rows
					st.AlignItems = style.AlignBaseline
				}
			}
		}
		if g.maybe(8) {
			st.Position = pick(g, style.Relative, style.Sticky)
		}
	})
	for range 1 + g.r.IntN(5) {
		if depth > 0 && g.maybe(2) {
			n.Children = append(n.Children, g.container(n, depth-1))
		} else {
			n.Children = append(n.Children, g.leaf(n))
		}
	}
	if n.Styles[0].Position == style.Relative && n.Styles[1].Position == style.Relative &&
		n.Styles[2].Position == style.Relative {
		n.Children = append(n.Children, g.absolute(n))
	}
	return n
}

func (g *treeGenerator) leaf(parent *element.Node) *element.Node {
	switch g.r.IntN(8) {
	case 0:
		return g.image(parent, func(st *style.Style) { g.item(st, parent) })
	case 1:
		return g.list(parent)
	}
	return g.text(parent, "p", func(st *style.Style) {
		g.box(st)
		g.item(st, parent)
	})
}

func (g *treeGenerator) image(parent *element.Node, set func(*style.Style)) *element.Node {
	n := g.node(parent, "img", func(st *style.Style) {
		st.Width = pick(g, style.Percentage(100), style.Percentage(50), g.px(20, 300))
		switch g.r.IntN(4) {
		case 0:
			st.AspectRatio = pick(g, 1.0, 1.5, 0.75, 16.0/9)
		case 1:
			st.Height = g.px(20, 200)
		case 2:
			st.MaxWidth = style.Percentage(100)
		}
		set(st)
		if parent.Styles[0].Display == style.Grid &&
			(st.AlignSelf == style.AlignAuto || st.AlignSelf == style.AlignStretch) {
			st.AlignSelf = style.AlignStart // pictures are never stretched in a grid
		}
	})
	n.Attrs = []element.Attr{
		{Name: "src", Value: "/picture.svg"},
		{Name: "width", Value: "1440"},
		{Name: "height", Value: "1080"},
		{Name: "alt", Value: ""},
	}
	return n
}

func (g *treeGenerator) list(parent *element.Node) *element.Node {
	n := g.node(parent, "ul", func(st *style.Style) {
		st.ListStyle = pick(g, "disc", "decimal", "square")
		st.Padding.Left = g.px(15, 30)
		g.item(st, parent)
	})
	for range 1 + g.r.IntN(4) {
		first := len(n.Children) == 0
		n.Children = append(n.Children, g.text(n, "li", func(st *style.Style) {
			st.Display = style.ListItem
			if !first {
				st.Margin.Top = g.px(0, 10)
			}
		}))
	}
	return n
}

var families = func() []string {
	var out []string
	if _, err := os.Stat(uploaded); err == nil {
		out = append(out, "Uploaded")
	}
	for _, f := range style.Families {
		out = append(out, f.Name)
	}
	return out
}()

func (g *treeGenerator) text(parent *element.Node, tag string, set func(*style.Style)) *element.Node {
	n := g.node(parent, tag, func(st *style.Style) {
		if g.maybe(2) {
			st.FontFamily = pick(g, families...)
			st.FontWeight = 300 + 100*g.r.IntN(6)
		}
		if g.maybe(3) {
			st.FontSize = pick(
				g, g.px(10, 48), g.px(10, 20),
				style.Between(
					style.Pixels(16),
					style.Sum(style.Length{N: 1, Unit: style.Rem}, style.Length{N: 1.3, Unit: style.Vw}),
					style.Pixels(40),
				),
			)
		}
		switch g.r.IntN(6) {
		case 0:
			st.LineHeight = style.Length{N: 1 + float64(g.r.IntN(12))/10, Unit: style.Times}
		case 1:
			st.LineHeight = g.px(16, 50)
		case 2:
			st.LineHeight = style.Length{}
		}
		if g.maybe(5) {
			st.LetterSpacing = float64(g.r.IntN(20)-6) / 100
		}
		if g.maybe(6) {
			st.TextTransform = pick(g, style.Uppercase, style.Lowercase)
		}
		if g.maybe(4) {
			st.TextAlign = pick(g, style.TextCenter, style.TextEnd)
		}
		if g.maybe(12) {
			st.NoWrap = true
		}
		if g.maybe(8) {
			st.Balance = true
		}
		if g.maybe(5) {
			st.OverflowWrap, st.Tabular = pick(g, style.BreakWord, style.Anywhere), true
		}
		set(st)
	})
	for _, p := range g.words.words(1) {
		g.runs(n, p)
	}
	return n
}

func (g *treeGenerator) runs(n *element.Node, p doc.Paragraph) {
	for _, r := range p {
		at := n
		wrap := func(tag string, set func(*style.Style)) {
			c := &element.Node{Tag: tag, Styles: make([]style.Style, g.zones)}
			for z := range c.Styles {
				c.Styles[z].Inherit(&at.Styles[z])
				c.Styles[z].Display = style.Inline
				set(&c.Styles[z])
			}
			at.Children = append(at.Children, c)
			at = c
		}
		if r.Link != "" {
			wrap("a", func(st *style.Style) { st.Underline = true })
		}
		if r.Bold {
			wrap("strong", func(st *style.Style) { st.FontWeight = max(st.FontWeight, 700) })
		}
		if r.Italic {
			wrap("em", func(st *style.Style) { st.FontItalic = true })
		}
		if g.maybe(8) {
			size := g.px(10, 40)
			wrap("span", func(st *style.Style) { st.FontSize = size })
		}
		for i, t := range strings.Split(r.Text, "\n") {
			if i > 0 {
				at.Children = append(at.Children, &element.Node{Tag: "br", Styles: at.Styles})
			}
			if t != "" {
				at.Children = append(at.Children, &element.Node{Text: t, Styles: at.Styles})
			}
		}
	}
}

// absolute is a positioned layer in its parent.
func (g *treeGenerator) absolute(parent *element.Node) *element.Node {
	set := func(st *style.Style) {
		st.Position = style.Absolute
		zero := style.Pixels(0)
		switch g.r.IntN(4) {
		case 0:
			st.Inset = style.Same(zero)
		case 1:
			st.Inset = style.Edges{Top: g.px(0, 20), Left: style.Percentage(10)}
		case 2:
			st.Inset = style.Edges{Bottom: g.px(0, 20), Right: g.px(0, 20)}
		default:
			st.Inset = style.Edges{Top: g.px(0, 20), Left: g.px(0, 9), Right: g.px(0, 9)}
		}
	}
	if g.maybe(2) {
		return g.image(parent, func(st *style.Style) {
			st.Width = style.Percentage(100)
			st.Height = style.Percentage(100)
			set(st)
		})
	}
	return g.text(parent, "p", set)
}

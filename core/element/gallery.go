package element

import (
	"cmp"
	"math"
	"slices"
	"strconv"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A gallery is a list of pictures, each of which opens large: in a grid of one shape,
// in rows of equal height that fill the width, or in columns. The large picture is a
// popover, so that no script is needed.
var gallery = Anatomy{
	Name: "Gallery", Hint: "many pictures, each of which opens large", Icon: "images", Find: "photos pictures album grid",
	Shelf: Showing, Span: 12, Rows: 8,
	Fields: []Field{
		{
			Name:    "opens",
			Label:   "On click",
			Type:    Choice,
			Choices: value.Is(value.Large, "Opens large", value.None, "Nothing"),
		},
	},
	EntryName: "Pictures",
	Entry: []Field{
		{Name: "picture", Label: "Picture", Type: PictureID},
		{Name: "caption", Label: "Caption", Type: Line, Default: "none"},
		{Name: "alt", Label: "Alternative text", Type: Prose},
	},
	Settings: []string{
		"gallery-as",
		"per-row",
		"aspect-ratio",
		"gallery-height",
		"column-gap",
		"row-gap",
		"border-radius",
	},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Entries: make([]doc.Entry, 6)}}
	},
	build: as(mediaBlocks.gallery),
}

// shot is a picture of a gallery.
type shot struct {
	entry  doc.Entry
	medium Medium
	index  int
}

func (s shot) ratio() float64 {
	if s.medium.Height == 0 {
		return 1.5
	}
	return float64(s.medium.Width) / float64(s.medium.Height)
}

func (b mediaBlocks) shots(bl *doc.Block) (out []shot) {
	for i, e := range bl.Content.Entries {
		m, ok := b.Media(e.Values["picture"])
		b.standing++ // chosen or not: what stands in for the others stays when one is chosen
		if !ok {
			var stands bool
			if m, stands = b.standIn([]float64{1.5, 1, 0.8}[i%3]); !stands {
				continue
			}
		}
		out = append(out, shot{e, m, i})
	}
	return out
}

func (b mediaBlocks) gallery(in *Node, bl *doc.Block) *Node {
	shots := b.shots(bl)
	if len(shots) == 0 && b.DropEmpty {
		return nil
	}
	n := &Node{Tag: "ul"}
	n.attr("role", "list")
	sheet := func(z int) style.Sheet { return b.sheet(bl.Style, z) }
	as := sheet(0).Word("gallery-as", value.Grid)
	// What stands in which column is the same everywhere, so that there are as many
	// columns as on the widest screens, or one.
	columns := func(z int) int {
		if n := PerRow(sheet(z)); as != value.Columns || n == 1 {
			return n
		}
		return len(columnsOf(shots, PerRow(sheet(0))))
	}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := sheet(z)
		area(st, sh, style.Edges{}, "")
		st.ColumnGap, st.RowGap = sh.Length("column-gap", style.Pixels(12)), sh.Length("row-gap", style.Pixels(12))
		switch as {
		case value.Rows:
			st.Display, st.FlexWrap = style.Flex, style.Wrap
		default:
			st.Display, st.GridColumns = style.Grid, style.EqualColumns(columns(z))
			st.AlignItems = style.AlignStart
		}
	})
	outer := b.portion
	defer func() { b.portion = outer }()
	b.portion = make([]float64, len(b.Site.Zones))
	for z := range b.portion {
		b.portion[z] = partOf(outer, z) / float64(columns(z))
	}
	switch as {
	case value.Rows:
		basis, last := make([][]style.Length, len(b.Site.Zones)), make([]int, len(b.Site.Zones))
		for z := range basis {
			basis[z], last[z] = b.equalHeights(shots, sheet(z), n.Styles[z].ColumnGap, partOf(outer, z), z)
		}
		for i, s := range shots {
			li := b.child(n, "li", func(z int, st *style.Style) {
				st.Display, st.FlexBasis, st.MinWidth = style.Block, basis[z][i], style.Pixels(0)
				if i < last[z] {
					st.FlexGrow = s.ratio()
				}
			})
			b.shot(li, bl, shots, i, func(int, style.Sheet) float64 { return s.ratio() })
		}
	case value.Columns:
		for _, column := range columnsOf(shots, PerRow(sheet(0))) {
			li := b.child(n, "li", inlineBlock)
			inner := b.child(li, "ul", func(z int, st *style.Style) {
				st.Display, st.FlexDirection, st.RowGap = style.Flex, style.Column, n.Styles[z].RowGap
			})
			inner.attr("role", "list")
			for i, s := range column {
				b.shot(
					b.child(inner, "li", inlineBlock),
					bl,
					column,
					i,
					func(int, style.Sheet) float64 { return s.ratio() },
				)
			}
		}
	default:
		for i, s := range shots {
			b.shot(b.child(n, "li", inlineBlock), bl, shots, i, func(_ int, sh style.Sheet) float64 {
				if r := sh.Ratio("aspect-ratio"); r > 0 {
					return r
				}
				if sh.Word("aspect-ratio", "") == value.Auto {
					return s.ratio()
				}
				return 1.5
			})
		}
	}
	return n
}

// equalHeights gives each picture's flex basis so that rows fill the width at one
// height: pictures are put into rows as they come, each row's height nearest to the one
// wanted; a picture's part of its row is its ratio's part of the row's ratios. Half a
// pixel less than that makes a row wrap where it is meant to; growing by the ratio
// gives it back. What doesn't fill the last row doesn't grow: last is where that begins.
func (b mediaBlocks) equalHeights(
	shots []shot,
	sh style.Sheet,
	gap style.Length,
	portion float64,
	z int,
) (out []style.Length, last int) {
	zone := b.Site.Zones[z]
	width := typicalContent(b.Site, z) * portion
	want := sh.Length("gallery-height", style.Pixels(220)).Or(0, style.Viewport{Width: float64(zone.Typical)}, 220)
	space := gap.Or(width, style.Viewport{Width: float64(zone.Typical)}, 12)
	ratios := make([]float64, len(shots))
	for i, s := range shots {
		ratios[i] = s.ratio()
	}
	out, last = make([]style.Length, len(shots)), len(shots)
	for _, row := range EqualHeightRows(ratios, width, space, want) {
		sum := 0.0
		for i := row.From; i < row.To; i++ {
			sum += ratios[i]
		}
		if row.Last { // what doesn't fill the last row is left free
			sum = max(sum, (width-space*float64(row.To-row.From-1))/want)
			last = row.From
		}
		gaps := space * float64(row.To-row.From-1)
		for i := row.From; i < row.To; i++ {
			part := ratios[i] / sum
			out[i] = style.Sum(style.Percentage(100*part), style.Pixels(-gaps*part-0.5))
		}
	}
	return out, last
}

// typicalContent is how wide a section's content is at a zone's typical width, px.
func typicalContent(s *doc.Site, z int) float64 {
	house := &s.House
	return min(house.ContentWidth, float64(s.Zones[z].Typical)-2*house.Gutter.Or(s.Zones, z, 20))
}

// Row is a row of pictures, from one index up to another.
type Row struct {
	From, To int
	Height   float64
	Last     bool // not full
}

// EqualHeightRows puts pictures of the given ratios (width over height), in their
// order, into rows of a width with gaps between, all in px. A row's height is what its
// pictures have when they fill it: (width − gaps) / sum of ratios. A row ends where its
// height is nearest to the one wanted.
func EqualHeightRows(ratios []float64, width, gap, want float64) (rows []Row) {
	height := func(from, to int) float64 {
		sum := 0.0
		for _, r := range ratios[from:to] {
			sum += r
		}
		return (width - gap*float64(to-from-1)) / sum
	}
	for from := 0; from < len(ratios); {
		to := from + 1
		for to < len(ratios) && math.Abs(height(from, to+1)-want) < math.Abs(height(from, to)-want) {
			to++
		}
		rows = append(rows, Row{from, to, height(from, to), false})
		from = to
	}
	if k := len(rows) - 1; k >= 0 && rows[k].Height > want*1.25 {
		rows[k].Last = true
	}
	return rows
}

// columnsOf puts pictures into columns that end as near to one another as the longest-first
// rule brings them (Graham 1969: at most a third longer than need be): the highest goes
// first, each to where the least height is so far. Within a column, and from column to
// column, they stand in their order.
func columnsOf(shots []shot, n int) [][]shot {
	highest := slices.Clone(shots)
	slices.SortStableFunc(highest, func(a, b shot) int { return cmp.Compare(a.ratio(), b.ratio()) })
	columns, heights := make([][]shot, n), make([]float64, n)
	for _, s := range highest {
		least := 0
		for c := range heights {
			if heights[c] < heights[least]-1e-9 {
				least = c
			}
		}
		columns[least] = append(columns[least], s)
		heights[least] += 1 / s.ratio()
	}
	inOrder := func(a, b shot) int { return cmp.Compare(a.index, b.index) }
	columns = slices.DeleteFunc(columns, func(c []shot) bool { return len(c) == 0 })
	for _, c := range columns {
		slices.SortFunc(c, inOrder)
	}
	slices.SortFunc(columns, func(a, b []shot) int { return inOrder(a[0], b[0]) })
	return columns
}

// shot adds a picture of a gallery, and what it opens; beside are those before and behind it.
func (b mediaBlocks) shot(li *Node, bl *doc.Block, shots []shot, i int, ratio func(int, style.Sheet) float64) {
	s := shots[i]
	alt, caption := cmp.Or(s.entry.Values["alt"], s.medium.Alt), s.entry.Values["caption"]
	large := bl.Content.Values["opens"] != value.None
	li.Entry = strconv.Itoa(s.index)
	at := li
	if caption != "" {
		at = b.child(li, "figure", nil)
	}
	in := at
	name := cmp.Or(alt, caption, "picture "+strconv.Itoa(s.index+1))
	if large {
		in = b.child(at, "button", func(_ int, st *style.Style) { st.Width = style.Percentage(100) })
		opens(in, b.largeID(bl, s), name)
	}
	img := b.child(in, "img", func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Width, st.AspectRatio, st.ObjectFit = style.Percentage(100), ratio(z, sh), "cover"
		st.BorderRadius, st.ObjectPos = sh.Length("border-radius", style.Length{}), s.medium.Focal
	})
	b.source(img, s.medium, alt)
	if caption != "" {
		words := say(b.child(at, "figcaption", func(z int, st *style.Style) {
			b.smallWords(z, st)
			st.Padding.Top = style.Pixels(6)
		}), caption)
		words.Part = part(s.index, "caption")
	}
	if !large {
		return
	}
	over := b.large(li, b.largeID(bl, s), s.medium, name, alt, caption)
	if i > 0 {
		b.turn(over, "Previous picture", "back", "arrow-left", b.largeID(bl, shots[i-1]))
	}
	if i+1 < len(shots) {
		b.turn(over, "Next picture", "on", "arrow-right", b.largeID(bl, shots[i+1]))
	}
}

// largeID is the id of what shows a picture of a gallery large.
func (b mediaBlocks) largeID(bl *doc.Block, s shot) string {
	return "large-" + bl.ID + b.item + "-" + strconv.Itoa(s.index+1)
}

// turn adds a button that leads from one large picture to another.
func (b mediaBlocks) turn(over *Node, says, way, icon, to string) {
	over.Script = "gallery"
	n := b.child(over, "button", func(z int, st *style.Style) {
		roundButton(z, st)
		st.Position, st.Background = style.Absolute, "rgb(0 0 0 / 0.6)"
		st.Inset.Bottom = style.Pixels(16)
		if way == "back" {
			st.Inset.Left = style.Pixels(16)
		} else {
			st.Inset.Right = style.Pixels(16)
		}
	})
	n.attr("type", "button")
	n.attr("aria-label", says)
	n.attr("data-scripted", "yes")
	n.attr("data-shows", to)
	n.attr("data-way", way)
	b.drawing(n, icon, "", func(int) style.Length { return style.Pixels(18) })
}

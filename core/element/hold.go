package element

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/core/value"
)

// hold makes an element the box that a holder's blocks stand in, and adds them.
func (b holderBlocks) hold(n *Node, h doc.Holder) {
	zones := b.Site.Zones
	places := place.Resolve(h, zones)
	orders := inOrder(h, zones)
	spans := make([][]int, len(zones))
	for z := range zones {
		tracks := 0
		if h.Arrangement == doc.Columns {
			tracks, spans[z] = columnSpans(h, zones, z, places[z])
		}
		arrange(&n.Styles[z], b.sheet(h.Style, z), h, tracks)
	}
	outer := b.portion
	defer func() { b.portion = outer }()
	built := make([]*Node, len(h.Blocks))
	for _, i := range place.Order(h, zones) {
		if b.DropEmpty && everywhereHidden(places, i) {
			continue
		}
		b.portion = make([]float64, len(zones))
		for z := range zones {
			b.portion[z] = partOf(outer, z) * b.part(h, z, places[z], spans[z], i)
		}
		on := n
		if h.Arrangement == doc.Placed {
			on = groundOf(n, places, built, i)
		}
		c := b.block(on, h.Blocks[i])
		if c == nil {
			continue
		}
		built[i] = c
		for z := range c.Styles {
			stand(&c.Styles[z], &n.Styles[z], b.sheet(h.Blocks[i].Style, z), h, places[z][i])
			b.overhang(&c.Styles[z], h, h.Blocks[i], z)
			if row := &n.Styles[z]; row.Display == style.Flex && row.FlexDirection == style.Row &&
				row.FlexWrap == style.SingleLine &&
				h.Blocks[i].Kind == doc.Button {
				c.Styles[z].FlexShrink = style.Factor{N: 0.05, Set: true} // what stands beside it gives way first
			}
			if h.Arrangement == doc.Columns {
				c.Styles[z].ColumnSpan = spans[z][i]
				if b.sheet(h.Style, z).Word("below", "") == value.Last {
					c.Styles[z].Order = len(h.Blocks) - 1 - i
				}
			}
			if orders[z] != nil {
				c.Styles[z].Order = orders[z][i]
			}
		}
		n.Children = append(n.Children, c)
	}
}

// groundOf gives what the colours of block i go by: its holder or, in zones where blocks that are built already lie
// below it, the holder with their ground. Where what lies below isn't one colour, that is as on a picture.
func groundOf(n *Node, places [][]place.Placed, built []*Node, i int) *Node {
	var on *Node
	for z := range places {
		p := places[z][i]
		for j, c := range built {
			q := places[z][j]
			if c == nil || q.Hidden || p.Hidden || q.Layer > p.Layer || !meet(p.Place, q.Place) {
				continue
			}
			st := &c.Styles[z]
			if st.Background == "" && !grounded(c, z) {
				continue
			}
			if on == nil {
				on = &Node{Tag: n.Tag, Styles: slices.Clone(n.Styles)}
			}
			to := &on.Styles[z]
			plain := st.BackgroundURL == "" && st.BackgroundTop == "" && st.Background != "" &&
				!slices.ContainsFunc(c.Children, func(c *Node) bool { return grounded(c, z) })
			if plain && fills(st, &n.Styles[z]) && covers(q.Place, p.Place) {
				to.Behind, to.Background = style.Over(to.Background, to.Behind), st.Background
				to.BackgroundURL, to.BackgroundTop, to.Pictured = "", "", false
			} else {
				to.Background, to.Pictured = "", true
			}
		}
	}
	if on == nil {
		return n
	}
	return on
}

// meet reports whether two places share a cell, covers whether all cells of b are a's.
func meet(a, b doc.Place) bool {
	return a.Column < b.Column+b.Span && b.Column < a.Column+a.Span && a.Row < b.Row+b.Rows && b.Row < a.Row+a.Rows
}
func covers(a, b doc.Place) bool {
	return a.Column <= b.Column && a.Column+a.Span >= b.Column+b.Span && a.Row <= b.Row && a.Row+a.Rows >= b.Row+b.Rows
}

// fills reports whether a block is as large as its cells.
func fills(st, in *style.Style) bool {
	up := st.AlignSelf == style.AlignStretch || st.AlignSelf == style.AlignAuto &&
		(in.AlignItems == style.AlignAuto || in.AlignItems == style.AlignStretch)
	return up && (st.JustifySelf == style.AlignAuto || st.JustifySelf == style.AlignStretch)
}

// grounded reports whether an element shows something that words can lie on: a picture, or a ground.
func grounded(n *Node, z int) bool {
	if n.Text != "" || n.Styles[z].Display == style.None {
		return false
	}
	st := &n.Styles[z]
	if st.Background != "" || st.BackgroundURL != "" || st.BackgroundTop != "" || n.Raw != "" || n.Replaced() {
		return true
	}
	return slices.ContainsFunc(n.Children, func(c *Node) bool { return grounded(c, z) })
}

// inOrder gives, by zone, where each block of Columns or of a Line-up comes by hand; nil for a zone
// in which they come as they do in the document.
func inOrder(h doc.Holder, zones doc.Zones) [][]int {
	out := make([][]int, len(zones))
	for z := range zones {
		if seq, byHand := place.Sequence(h, zones, z); byHand && h.Arrangement != doc.Placed {
			out[z] = make([]int, len(seq))
			for to, i := range seq {
				out[z][i] = to + 1
			}
		}
	}
	return out
}

func partOf(share []float64, zone int) float64 {
	if share == nil {
		return 1
	}
	return share[zone]
}

// part is the part of a holder's width that a block takes in a zone.
func (b holderBlocks) part(h doc.Holder, zone int, ps []place.Placed, spans []int, i int) float64 {
	switch {
	case h.Arrangement == doc.Placed:
		return min(float64(ps[i].Span)/float64(h.Columns(b.Site.Zones, zone)), 1)
	case h.Arrangement == doc.Columns:
		tracks, _ := columnSpans(h, b.Site.Zones, zone, ps)
		return min(float64(spans[i])/float64(tracks), 1)
	case b.sheet(h.Style, zone).Word("direction", "") == value.Row:
		return 1 / float64(max(len(h.Blocks), 1))
	}
	return 1
}

// columnSpans gives the tracks of columns, and a span each block that is shown; for
// the others it is 1.
func columnSpans(h doc.Holder, zones doc.Zones, zone int, ps []place.Placed) (tracks int, spans []int) {
	shown := 0
	for _, p := range ps {
		if !p.Hidden {
			shown++
		}
	}
	tracks, some := place.ColumnSpans(place.Shares(h, zones, zone), shown)
	spans = make([]int, len(ps))
	for i, p := range ps {
		if spans[i] = 1; !p.Hidden {
			spans[i], some = some[0], some[1:]
		}
	}
	return tracks, spans
}

func everywhereHidden(places [][]place.Placed, index int) bool {
	for _, zone := range places {
		if !zone[index].Hidden {
			return false
		}
	}
	return true
}

var spreads = map[string]style.Alignment{
	value.Start: style.AlignStart, value.Center: style.AlignCenter, value.End: style.AlignEnd,
	value.SpaceBetween: style.SpaceBetween, value.SpaceAround: style.SpaceAround, value.SpaceEvenly: style.SpaceEvenly,
}

var aligns = map[string]style.Alignment{
	value.Stretch: style.AlignStretch, value.Start: style.AlignStart, value.Center: style.AlignCenter, value.End: style.AlignEnd,
}

// selfs are the values of align-self and justify-self: a stretched one is as the box is
// by itself.
var selfs = map[string]style.Alignment{
	value.Stretch: style.AlignAuto, value.Start: style.AlignStart, value.Center: style.AlignCenter, value.End: style.AlignEnd,
}

// MostGaps is how much of their width, in per cent, the gaps between columns take at most.
const MostGaps = 80

// arrange sets how an element's children stand.
func arrange(st *style.Style, sh style.Sheet, h doc.Holder, tracks int) {
	gaps := func(down float64) {
		st.ColumnGap = sh.Length("column-gap", style.Pixels(sh.House.ColumnGap.Or(sh.Zones, sh.Zone, doc.StandardGap)))
		st.RowGap = sh.Length("row-gap", style.Pixels(down))
	}
	switch h.Arrangement {
	case doc.Placed:
		st.Display = style.Grid
		st.GridColumns = style.EqualColumns(h.Columns(sh.Zones, sh.Zone))
		st.GridAutoRows = style.Track{Min: sh.Length("row-height", style.Pixels(24))}
		gaps(8)
	case doc.Columns:
		st.Display = style.Grid
		st.GridColumns = style.EqualColumns(tracks)
		gaps(24)
		if tracks > 4 { // as many gaps as there are may be wider than a narrow screen
			st.ColumnGap = style.Least(st.ColumnGap, style.Percentage(MostGaps/float64(tracks-1)))
		}
		st.AlignItems = aligns[sh.Word("align-items", "")]
	case doc.LineUp:
		st.Display = style.Flex
		st.FlexDirection = style.Column
		if sh.Word("direction", "") == value.Row {
			st.FlexDirection = style.Row
			if sh.Word("wrap", value.Wrap) == value.Wrap {
				st.FlexWrap = style.Wrap
			}
		}
		gaps(16)
		st.JustifyContent = spreads[sh.Word("spread", "")]
		st.AlignItems = aligns[sh.Word("align-items", "")]
	}
}

// stand sets how a block stands in its holder: its cells and its place in them, or
// its share of a line.
func stand(st, in *style.Style, sh style.Sheet, h doc.Holder, p place.Placed) {
	if p.Hidden {
		st.Display = style.None
	}
	margins(st, sh, h.Arrangement)
	up, side := sh.Word("align-self", ""), sh.Word("justify-self", "")
	switch {
	case h.Arrangement == doc.LineUp:
		st.JustifySelf = style.AlignAuto
		word := side
		if in.FlexDirection == style.Row {
			word = up
		}
		if a, ok := selfs[word]; ok {
			if st.AlignSelf = a; word == value.Stretch {
				st.AlignSelf = style.AlignStretch
			}
		} else if in.AlignItems != style.AlignAuto {
			st.AlignSelf = style.AlignAuto
		}
		if sh.Word("grow", value.No) == value.Yes || growing(h, sh) {
			st.FlexGrow = 1
		}
		return
	case h.Arrangement == doc.Placed:
		st.ColumnStart, st.ColumnSpan, st.RowStart, st.RowSpan = p.Column, p.Span, p.Row, p.Rows
		// Never auto: a positioned picture would lie over everything that isn't.
		st.ZIndex = p.Layer + 1
	}
	if a, ok := selfs[up]; ok {
		st.AlignSelf = a
	} else if in.AlignItems != style.AlignAuto {
		st.AlignSelf = style.AlignAuto
	}
	if a, ok := selfs[side]; ok {
		st.JustifySelf = a
	}
}

// growing reports whether all blocks of a Line-up take part of the room left over.
func growing(h doc.Holder, sh style.Sheet) bool {
	sh.Style = h.Style
	return sh.Word("grow-items", value.No) == value.Yes
}

// overhang lets a block hang out below what it stands in, which doesn't grow for it: by a
// margin that takes as much away as it hangs out, and as much as the section's padding keeps
// it from its end.
func (b holderBlocks) overhang(st *style.Style, h doc.Holder, bl *doc.Block, z int) {
	by := b.sheet(bl.Style, z).Length("overhang", style.Length{})
	if st.Display == style.None || by.N <= 0 && by.Unit != style.Math {
		return
	}
	out := by.Scaled(-1)
	if h.ID == b.at {
		if below := b.sheet(b.in.Style, z).Length("padding-bottom", style.Length{}); (below.N > 0 || below.Unit == style.Math) &&
			below.Unit != style.Percent {
			out = style.Sum(out, below.Scaled(-1))
			if by.Unit == style.Px && below.Unit == style.Px {
				out = style.Pixels(-by.N - below.N)
			}
		}
	}
	st.Margin.Bottom = out
	if h.Arrangement == doc.Placed && st.AlignSelf != style.AlignAuto && st.AlignSelf != style.AlignStretch {
		st.AlignSelf = style.AlignEnd // so that its end is where it hangs out
	}
}

// hangsOver reports whether a block of a section hangs out over the next one in a zone.
func (b *Builder) hangsOver(s *doc.Section, z int) bool {
	for _, bl := range s.Blocks {
		if by := b.sheet(bl.Style, z).Length("overhang", style.Length{}); by.N > 0 || by.Unit == style.Math {
			return true
		}
	}
	return false
}

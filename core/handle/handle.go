// Package handle finds what of a section or block can be changed by dragging, beside the cells
// that it stands in: padding, gaps, the boundaries of columns, the height of a divider and so
// on, with the steps of the house style that it can land on.
//
// In come a node's boxes at a width, as package layout has them, out go Handles with their
// places in px from the node's top left corner. It has no state.
package handle

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/core/value"
)

// Handle is an edge that can be dragged to set something of a node.
type Handle struct {
	Setting string `json:"setting"`
	Label   string `json:"label"`
	Both    string `json:"both,omitempty"` // the setting of the opposite side
	// X, Y, W and H are the edge, in px from the node's top left corner: a line, or the gap
	// that it stands for. At is how far along it is taken hold of, from 0 to 1.
	X  float64 `json:"x"`
	Y  float64 `json:"y"`
	W  float64 `json:"w"`
	H  float64 `json:"h"`
	At float64 `json:"at"`
	// Across tells that it is dragged sideways; Sign how the value changes on the way right or
	// down, 1 or -1.
	Across bool    `json:"across,omitempty"`
	Sign   float64 `json:"sign"`
	Px     float64 `json:"px"` // now
	Min    float64 `json:"min"`
	Max    float64 `json:"max"`
	// Before and After make the setting's value of px.
	Before string `json:"before,omitempty"`
	After  string `json:"after"`
	Steps  []Step `json:"steps,omitempty"`
	Only   bool   `json:"only,omitempty"` // there is nothing between the steps
}

// Step is a value that a handle lands on.
type Step struct {
	Name  string  `json:"name"`
	Value string  `json:"value"`
	Px    float64 `json:"px"`
}

// View is where handles are looked for: at a width in px, which falls in a zone.
type View struct {
	House *doc.House
	Zones doc.Zones
	Zone  int
	Width float64
}

// small is the size in px of a box below which there is no room for handles in it.
const small = 40

// Section gives the handles of a section from its boxes; first tells that nothing is above it
// on the page.
func (v View) Section(s *doc.Section, box *layout.Box, first bool) (out []Handle) {
	if box.W < small || box.H < small {
		return nil
	}
	st := &box.Node.Styles[v.Zone]
	out = v.padding(s.Style, style.OnSection, box, st)
	if !first {
		up := v.handle(s.Style, style.OnSection, "pull", -1)
		out = append(out, up.line(0, 0, box.W, 0, 0.25, up.Px))
	}
	foot := v.handle(s.Style, style.OnSection, "min-height", 1)
	out = append(out, foot.line(0, box.H, box.W, 0, 0.25, box.H))
	for _, side := range []string{"top", "bottom"} {
		if v.sheet(s.Style).Word("edge-"+side, value.None) == value.None {
			continue
		}
		h := v.handle(s.Style, style.OnSection, "edge-"+side+"-height", 1)
		px := v.px(
			v.sheet(s.Style).
				Length("edge-"+side+"-height", style.Between(style.Pixels(28), style.Length{N: 6, Unit: style.Vw}, style.Pixels(90))),
			box.W,
		)
		y := px
		if side == "bottom" {
			h.Sign, y = -1, box.H-px
		}
		out = append(out, h.line(0, y, box.W, 0, 0.75, px))
	}
	return append(out, v.between(s.Holder(), style.OnSection, s.ID, box)...)
}

// Block gives the handles of a block from its section's boxes. id is the block's, or of an item
// of a Series; series tells that it is what such an item shows.
func (v View) Block(s *doc.Section, b *doc.Block, id string, root *layout.Box, series bool) (out []Handle) {
	var box *layout.Box
	var bottom float64 // from the section's end
	root.Walk(func(at *layout.Box, _, y float64) {
		if at.Node.Block == id && box == nil {
			box, bottom = at, root.H-y-at.H
		}
	})
	if box == nil {
		return nil
	}
	h := s.HolderOf(b.ID)
	st := &box.Node.Styles[v.Zone]
	if b.Kind.Is(doc.Filled) {
		out = v.padding(b.Style, b.Kind, box, st)
	}
	if h.Arrangement == doc.LineUp && !series {
		w := v.handle(b.Style, b.Kind, "width", 1)
		w.Across = true
		room := v.inner(h, s, root)
		for _, n := range []float64{25, 100.0 / 3, 50, 200.0 / 3, 75, 100} {
			w.Steps = append(w.Steps, Step{style.Number(math.Round(n)) + " %", style.Number(n) + "%", room * n / 100})
		}
		out = append(out, w.line(box.W, 0, 0, box.H, 0.5, box.W))
	}
	if style.Find("aspect-ratio", b.Kind) != nil && (h.Arrangement != doc.Placed || series) &&
		(b.Kind == doc.Picture || b.Kind == doc.Video) {
		out = append(out, v.ratio(b, box)...)
	}
	if b.Kind == doc.Space ||
		b.Kind.Is(doc.Holding) && b.Kind != doc.Series && (h.Arrangement != doc.Placed || series) {
		name := "min-height"
		if b.Kind == doc.Space {
			name = "height"
		}
		if style.Find(name, b.Kind) != nil {
			out = append(out, v.handle(b.Style, b.Kind, name, 1).line(0, box.H, box.W, 0, 0.12, box.H))
		}
	}
	if h.ID == s.ID && !series {
		below := v.px(v.sheet(s.Style).Length("padding-bottom", style.Length{}), root.W)
		over := v.handle(b.Style, b.Kind, "overhang", 1)
		if over.Px > 0 || bottom < below+1 {
			out = append(out, over.line(0, box.H, box.W, 0, 0.75, over.Px))
		}
	}
	if b.Kind.Is(doc.Holding) {
		out = append(out, v.between(b.Holder(), b.Kind, id, box)...)
	}
	return out
}

func (v View) sheet(s doc.Style) style.Sheet {
	return style.Sheet{House: v.House, Zones: v.Zones, Zone: v.Zone, Style: s}
}

func (v View) px(l style.Length, base float64) float64 {
	return l.Or(base, style.Viewport{Width: v.Width, Height: v.Zones[v.Zone].ViewHeight()}, 0)
}

// handle begins a handle of a setting, with the house style's steps for it.
func (v View) handle(values doc.Style, kind doc.Kind, name string, sign float64) Handle {
	s := style.Find(name, kind)
	h := Handle{Setting: name, Label: s.Label, Sign: sign, Min: max(s.Min, 0), Max: s.Max, After: "px"}
	h.Px = v.px(v.sheet(values).Length(name, style.Length{}), v.Width)
	if s.Steps != nil {
		for _, st := range s.Steps(v.House) {
			h.Steps = append(
				h.Steps,
				Step{
					st.Name,
					"$" + st.Token,
					v.px(
						v.sheet(doc.Style{"of": {v.Zones.Widest(): "$" + st.Token}}).Length("of", style.Length{}),
						v.Width,
					),
				},
			)
		}
	}
	return h
}

func (h Handle) line(x, y, w, height, at, px float64) Handle {
	h.X, h.Y, h.W, h.H, h.At, h.Px = x, y, w, height, at, px
	return h
}

// padding are the inner edges of a box.
func (v View) padding(values doc.Style, kind doc.Kind, box *layout.Box, st *style.Style) (out []Handle) {
	if style.Find("padding-top", kind) == nil || box.W < small || box.H < small {
		return nil
	}
	p := [4]float64{
		v.px(st.Padding.Top, box.W),
		v.px(st.Padding.Right, box.W),
		v.px(st.Padding.Bottom, box.W),
		v.px(st.Padding.Left, box.W),
	}
	for i, side := range []string{"top", "right", "bottom", "left"} {
		if kind == style.OnSection && i%2 == 1 && values["padding-"+side] == nil {
			continue // the gutter is at the sides
		}
		if kind == doc.List && side == "left" { // there the marks are
			continue
		}
		opposite := []string{"bottom", "left", "top", "right"}[i]
		h := v.handle(values, kind, "padding-"+side, []float64{1, -1, -1, 1}[i])
		h.Both, h.Across = "padding-"+opposite, i%2 == 1
		b := st.Border
		switch side {
		case "top":
			h = h.line(0, b.Top+p[i], box.W, 0, 0.5, p[i])
		case "bottom":
			h = h.line(0, box.H-b.Bottom-p[i], box.W, 0, 0.5, p[i])
		case "left":
			h = h.line(b.Left+p[i], 0, 0, box.H, 0.5, p[i])
		case "right":
			h = h.line(box.W-b.Right-p[i], 0, 0, box.H, 0.5, p[i])
		}
		if kind != style.OnSection {
			h.At = 0.3 // in the middle the cells are dragged
		}
		out = append(out, h)
	}
	return out
}

// ratios are those that a picture's ratio lands on (common practice).
var ratios = [][2]float64{{1, 1}, {5, 4}, {4, 3}, {3, 2}, {16, 9}, {2, 1}, {21, 9}, {4, 5}, {3, 4}, {2, 3}, {9, 16}}

// ratio is the lower edge of a picture.
func (v View) ratio(b *doc.Block, box *layout.Box) []Handle {
	img, x, y := box, 0.0, 0.0
	box.Walk(func(at *layout.Box, ax, ay float64) {
		if img == box && (at.Node.Tag == "img" || at.Node.Tag == "video") {
			img, x, y = at, ax, ay
		}
	})
	if img.W < 1 {
		return nil
	}
	h := v.handle(b.Style, b.Kind, "aspect-ratio", 1)
	h.Min, h.Max = img.W/20, img.W*5
	h.Before, h.After = style.Number(math.Round(img.W))+":", ""
	for _, r := range ratios {
		name := style.Number(r[0]) + ":" + style.Number(r[1])
		h.Steps = append(h.Steps, Step{name, name, img.W * r[1] / r[0]})
	}
	return []Handle{h.line(x, y+img.H, img.W, 0, 1, img.H)}
}

// inner is the width of the room in what a block stands in.
func (v View) inner(h doc.Holder, s *doc.Section, root *layout.Box) float64 {
	at := contents(root)
	root.Walk(func(b *layout.Box, _, _ float64) {
		if id, _ := doc.SplitItem(b.Node.Block); id == h.ID {
			at = b
		}
	})
	st := &at.Node.Styles[v.Zone]
	return at.W - v.px(st.Padding.Left, at.W) - v.px(st.Padding.Right, at.W) - st.Border.Left - st.Border.Right
}

// contents is the box of a section in which its blocks stand, whatever is around it.
func contents(root *layout.Box) *layout.Box {
	found := root
	root.Walk(func(b *layout.Box, _, _ float64) {
		if b.Node.Key == root.Node.Section+"-g" {
			found = b
		}
	})
	return found
}

// rect is a box among others in a holder.
type rect struct{ x, y, w, h float64 }

// between are the gaps of a holder that isn't a grid, and the boundaries of its columns.
func (v View) between(h doc.Holder, kind doc.Kind, id string, box *layout.Box) (out []Handle) {
	if h.Arrangement == doc.Placed && kind != doc.Series {
		return nil
	}
	in, ox, oy := box, 0.0, 0.0
	if kind == style.OnSection {
		in = contents(box)
		box.Walk(func(b *layout.Box, x, y float64) {
			if b == in {
				ox, oy = x, y
			}
		})
	}
	if kind == doc.Series && in.Node.Tag == "div" { // a slider's items stand in a list beside its buttons
		list := in.Children[0]
		in, ox, oy = list.Box, list.X, list.Y
	}
	var rs []rect
	for _, c := range in.Children {
		if c.Node.Styles[v.Zone].Display != style.None && c.Node.Styles[v.Zone].Position != style.Absolute {
			rs = append(rs, rect{ox + c.X, oy + c.Y, c.W, c.H})
		}
	}
	st := &in.Node.Styles[v.Zone]
	_, item := doc.SplitItem(id)
	gap := func(name string, now style.Length) *Handle {
		if style.Find(name, kind) == nil || item != "" && kind == doc.Series {
			return nil
		}
		g := v.handle(h.Style, kind, name, 1)
		g.Px, g.Across = v.px(now, in.W), name == "column-gap"
		if g.Across && h.Arrangement == doc.Columns && in.Tracks != nil && len(in.Tracks.Columns) > 4 {
			tracks := len(in.Tracks.Columns)
			inside := in.W - v.px(
				st.Padding.Left,
				in.W,
			) - v.px(
				st.Padding.Right,
				in.W,
			) - st.Border.Left - st.Border.Right
			g.Max = min(g.Max, math.Floor(inside*element.MostGaps/100/float64(tracks-1)))
		}
		g.Steps = slices.DeleteFunc(g.Steps, func(s Step) bool { return s.Px > g.Max })
		return &g
	}
	beside, below := gap("column-gap", st.ColumnGap), gap("row-gap", st.RowGap)
	for i := 1; i < len(rs); i++ {
		was, r := rs[i-1], rs[i]
		switch {
		case r.x >= was.x+was.w-0.5 && r.y < was.y+was.h && beside != nil:
			out = append(
				out,
				beside.line(was.x+was.w, min(was.y, r.y), r.x-was.x-was.w, max(was.h, r.h), 0.25, beside.Px),
			)
		case r.y >= was.y+was.h-0.5 && below != nil:
			x, w := min(was.x, r.x), max(was.w, r.w)
			y := was.y + was.h
			for _, o := range rs[:i] { // a row is as high as the highest in it
				if o.y+o.h <= r.y+0.5 {
					y = max(y, o.y+o.h)
				}
			}
			out = append(out, below.line(x, y, w, r.y-y, 0.25, below.Px))
		}
	}
	if h.Arrangement == doc.Columns && kind != doc.Series {
		out = append(out, v.boundaries(h, kind, in, rs, ox)...)
	}
	return out
}

// boundaries are those between the columns of the first row, in twelfths.
func (v View) boundaries(h doc.Holder, kind doc.Kind, in *layout.Box, rs []rect, ox float64) (out []Handle) {
	shares := place.Shares(h, v.Zones, v.Zone)
	row, rest := place.FirstRow(shares, len(rs))
	if len(row) < 2 || len(row) > len(rs) {
		return nil
	}
	st := &in.Node.Styles[v.Zone]
	left := ox + v.px(st.Padding.Left, in.W) + st.Border.Left
	gap := v.px(st.ColumnGap, in.W)
	width := in.W - v.px(st.Padding.Left, in.W) - v.px(st.Padding.Right, in.W) - st.Border.Left - st.Border.Right
	edge := func(twelfths int) float64 { return float64(twelfths)*(width+gap)/place.Twelfths - gap/2 }
	from := 0
	for i := 0; i+1 < len(row); i++ {
		both := row[i] + row[i+1]
		b := v.handle(h.Style, kind, "shares", 1)
		b.Across, b.Only, b.After = true, true, ""
		b.Min, b.Max = 0, width
		for k := 1; k < both; k++ {
			next := append([]int{}, row...)
			next[i], next[i+1] = k, both-k
			b.Steps = append(b.Steps, Step{
				strings.Trim(strings.Join(strings.Fields(fmt.Sprint(next)), " : "), "[]"),
				strings.Trim(fmt.Sprint(append(next, rest...)), "[]"), edge(from + k),
			})
		}
		was, r := rs[i], rs[i+1]
		at := edge(from + row[i])
		out = append(out, b.line(left+at, min(was.y, r.y), 0, max(was.h, r.h), 0.6, at))
		from += row[i]
	}
	return out
}

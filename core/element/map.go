package element

import (
	"cmp"
	"math"

	"openplot/core/chart"
	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/style"
	"openplot/core/value"
)

// A map is a <figure> of the shipped chart around a place, with a mark on it.
var chartMap = Anatomy{
	Name: "Map", Hint: "a place on the shipped sea chart", Icon: "map", Find: "place location chart position",
	Shelf: Showing, Span: 6, Rows: 10,
	Fields: []Field{
		{Name: "latitude", Label: "Latitude", Type: Number, Min: -85, Max: 85},
		{Name: "longitude", Label: "Longitude", Type: Number, Min: -180, Max: 180},
		{Name: "zoom", Label: "Zoom", Type: Number, Min: chart.MinZoom, Max: chart.MaxZoom},
		{Name: "label", Label: "Location name", Type: Line},
		{Name: "mark", Label: "Marker", Type: Choice, Choices: value.Is(value.Shown, "Shown", value.Hidden, "Hidden")},
	},
	Settings: []string{"aspect-ratio", "border-radius"},
	start: func() *doc.Block {
		return &doc.Block{
			Content: doc.Content{
				Values: map[string]string{
					"latitude":  "57.99",
					"longitude": "-11.325",
					"zoom":      "11",
					"label":     "Where to find us",
				},
			},
		}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "figure"}
		n.Styles = b.styles(in, func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			sh.Aligned(st)
			area(st, sh, style.Edges{}, "")
		})
		v := bl.Content.Values
		number := func(name string, fallback float64) float64 {
			if f, err := number.Real(v[name]); err == nil {
				return f
			}
			return fallback
		}
		lat, lon, zoom := number(
			"latitude",
			chart.Centre.Lat,
		), number(
			"longitude",
			chart.Centre.Lon,
		), number(
			"zoom",
			10,
		)
		frame := func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			st.Width, st.AspectRatio = style.Percentage(100), 1.6
			if r := sh.Ratio("aspect-ratio"); r > 0 {
				st.AspectRatio = r
			}
			st.BorderRadius = sh.Length("border-radius", style.Length{})
		}
		where := style.Number(lat) + "° north, " + style.Number(lon) + "° east"
		if !chart.Covers(lat, lon) { // an empty sea would mislead: the place is said
			pad := style.Pixels(24)
			said := b.child(n, "div", func(z int, st *style.Style) {
				frame(z, st)
				st.Display, st.FlexDirection, st.RowGap = style.Flex, style.Column, style.Pixels(6)
				st.JustifyContent, st.AlignItems, st.TextAlign = style.AlignCenter, style.AlignCenter, style.TextCenter
				st.Padding = style.Edges{Top: pad, Right: pad, Bottom: pad, Left: pad}
				st.Background = b.sheet(nil, z).Swatch("quiet-ground", "#f6f1e8")
				legible(st, style.Sheet{House: &b.Site.House, Zones: b.Site.Zones, Zone: z})
			})
			if v["label"] != "" {
				name := say(b.child(said, "p", func(_ int, st *style.Style) { st.FontWeight = 600 }), v["label"])
				name.Part = ".label"
			}
			say(b.child(said, "p", b.smallWords), where)
			return n
		}
		mediaBlocks{b}.chart(b.child(n, "div", func(z int, st *style.Style) {
			frame(z, st)
			st.Position, st.Overflow = style.Relative, style.Hidden
		}), lat, lon, zoom, cmp.Or(v["label"], "a place")+", "+where, v["mark"] != value.Hidden)
		if v["label"] != "" {
			c := b.child(n, "figcaption", func(z int, st *style.Style) {
				b.smallWords(z, st)
				st.Padding.Top = style.Pixels(8)
			})
			c.Part = ".label"
			say(c, v["label"])
		}
		return n
	},
}

// chartSide is the side in px of the square plane that charts are drawn on.
const chartSide = 960

// chart draws the chart around a place into a box that it covers. Names and the mark are no part of
// the drawing, so that they are of one size however large it is.
func (b mediaBlocks) chart(in *Node, lat, lon, zoom float64, says string, marked bool) {
	sh := b.sheet(nil, 0)
	colours := chart.Colours{
		Water:   "#cfe0e3",
		Shallow: "#dfebea",
		Land:    sh.Swatch("quiet-ground", "#f6f1e8"),
		Line:    "#a9b7ae",
		Words:   "#2a4046",
	}
	if !readable(colours.Words, colours.Land) { // names lie on it
		colours.Land = "#f6f1e8"
	}
	for z := range in.Styles {
		in.Styles[z].Background = colours.Water
	}
	svg := b.child(in, "svg", func(_ int, st *style.Style) {
		st.Position, st.Inset = style.Absolute, style.Same(style.Pixels(0))
		st.Width, st.Height = style.Percentage(100), style.Percentage(100)
	})
	svg.Raw = chart.Draw(lat, lon, zoom, chartSide, chartSide, colours)
	svg.attr("viewBox", "0 0 960 960")
	svg.attr("preserveAspectRatio", "xMidYMid slice")
	svg.attr("width", "960")
	svg.attr("height", "960")
	svg.attr("role", "img")
	svg.attr("aria-label", "Map: "+says)
	// lies lets something lie with its point on the plane in the middle of its width.
	lies := func(st *style.Style, x, y, width, up float64) {
		// The plane covers the box: it is as large as the box's longer side, and cut evenly on the other.
		across, down := min(1, st.AspectRatio), max(1, st.AspectRatio)
		at := func(of, scale, less float64) style.Length {
			return style.Sum(style.Percentage(50+100*(of/chartSide-0.5)*scale), style.Pixels(-less))
		}
		st.Position, st.Width = style.Absolute, style.Pixels(width)
		st.Inset.Left, st.Inset.Top = at(x, 1/across, width/2), at(y, down, up)
		st.AspectRatio = 0
	}
	for _, l := range chart.Labels(lat, lon, zoom, chartSide, chartSide) {
		name := say(b.child(in, "span", func(z int, st *style.Style) {
			b.smallWords(z, st)
			st.AspectRatio = in.Styles[z].AspectRatio
			up := 10.0
			if marked && math.Hypot(l.X-chartSide/2, l.Y-chartSide/2) < 60 { // below the mark
				up = -4
			}
			lies(st, l.X, l.Y, 120, up)
			st.Display, st.TextAlign, st.NoWrap, st.Color = style.Block, style.TextCenter, true, colours.Words
		}), l.Name)
		name.attr("aria-hidden", "true")
	}
	if !marked {
		return
	}
	mark := b.child(in, "span", func(z int, st *style.Style) {
		st.AspectRatio = in.Styles[z].AspectRatio
		lies(st, chartSide/2, chartSide/2, 32, 32)
		st.Display, st.Color = style.Block, sh.Swatch("second-accent", "#aa4d26")
	})
	b.drawing(mark, "geo-alt-fill", "", func(int) style.Length { return style.Pixels(32) })
}

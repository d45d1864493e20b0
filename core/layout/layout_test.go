package layout

import (
	"math"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
)

// The worked examples of CSS Flexbox Level 1 and CSS Grid Level 2, with boxes of
// given sizes where the specifications have words, since no font is loaded here.
// Section numbers are those of the specifications; their texts are quoted from
// memory.

var zones = doc.Zones{{ID: "all"}}

// box makes an element; set fills in its style.
func box(set func(*style.Style), children ...*element.Node) *element.Node {
	n := &element.Node{Tag: "div", Styles: make([]style.Style, 1), Children: children}
	set(&n.Styles[0])
	return n
}

// sized is a box whose content is w by h.
func sized(w, h float64, set ...func(*style.Style)) *element.Node {
	content := box(func(s *style.Style) { s.Width, s.Height = style.Pixels(w), style.Pixels(h) })
	return box(func(s *style.Style) {
		for _, f := range set {
			f(s)
		}
	}, content)
}

func flex(grow, shrink float64, basis style.Length) func(*style.Style) {
	return func(s *style.Style) {
		s.FlexGrow, s.FlexShrink, s.FlexBasis = grow, style.Factor{N: shrink, Set: true}, basis
	}
}

type place struct{ x, y, w, h float64 }

// check lays a container out in a viewport and compares its children's boxes.
func check(t *testing.T, name string, width float64, container *element.Node, want ...place) {
	t.Helper()
	b := New(shape.NewLibrary(), zones, box(func(*style.Style) {}, container)).At(width).Children[0]
	if len(b.Children) != len(want) {
		t.Fatalf("%s: %d boxes, want %d", name, len(b.Children), len(want))
	}
	for i, c := range b.Children {
		w := want[i]
		for _, d := range [][2]float64{{c.X, w.x}, {c.Y, w.y}, {c.W, w.w}, {c.H, w.h}} {
			if math.Abs(d[0]-d[1]) > 1.0/32 {
				t.Errorf("%s: box %d is %.2f, %.2f, %.2f × %.2f, want %v", name, i+1, c.X, c.Y, c.W, c.H, w)
				break
			}
		}
	}
}

var px = style.Pixels

func row(set func(*style.Style), children ...*element.Node) *element.Node {
	return box(func(s *style.Style) { s.Display = style.Flex; set(s) }, children...)
}

func TestFlexboxExamples(t *testing.T) {
	none := func(*style.Style) {}
	button := func(grow float64) *element.Node {
		return box(func(s *style.Style) { s.Width, s.Height, s.FlexGrow = px(80), px(20), grow })
	}
	// §6, multi-line: four items of 80 px in 300 px take two lines.
	wrap := func(s *style.Style) { s.Width, s.FlexWrap = px(300), style.Wrap }
	check(t, "§6 four buttons", 1000, row(wrap, button(0), button(0), button(0), button(0)),
		place{0, 0, 80, 20}, place{80, 0, 80, 20}, place{160, 0, 80, 20}, place{0, 20, 80, 20})
	// The same with flex: auto: each line is filled by itself.
	check(t, "§6 with flex: auto", 1000, row(wrap, button(1), button(1), button(1), button(1)),
		place{0, 0, 100, 20}, place{100, 0, 100, 20}, place{200, 0, 100, 20}, place{0, 20, 300, 20})
	// §7.2, basic values of flex, on items whose content is 100 px in 600 px.
	item := func(f func(*style.Style)) *element.Node { return sized(100, 10, f) }
	check(
		t, "§7.1.1 flex: initial", 600,
		row(none, item(flex(0, 1, style.Length{})), item(flex(0, 1, style.Length{}))),
		place{0, 0, 100, 10}, place{100, 0, 100, 10},
	)
	check(
		t, "§7.1.1 flex: auto", 600,
		row(none, item(flex(1, 1, style.Length{})), item(flex(1, 1, style.Length{}))),
		place{0, 0, 300, 10}, place{300, 0, 300, 10},
	)
	check(
		t, "§7.1.1 flex: none overflows", 150,
		row(none, item(flex(0, 0, style.Length{})), item(flex(0, 0, style.Length{}))),
		place{0, 0, 100, 10}, place{100, 0, 100, 10},
	)
	// §7.2.1, the figure: with a basis of 0 all space is shared 1:1:2, with auto only
	// what the contents leave is.
	figure := func(basis style.Length) []*element.Node {
		return []*element.Node{
			sized(60, 10, flex(1, 1, basis)),
			sized(120, 10, flex(1, 1, basis)),
			sized(40, 10, flex(2, 1, basis)),
		}
	}
	check(
		t,
		"§7.2.1 absolute flex",
		480,
		row(none, figure(px(0))...),
		place{0, 0, 120, 10},
		place{120, 0, 120, 10},
		place{240, 0, 240, 10},
	)
	check(
		t,
		"§7.2.1 relative flex",
		480,
		row(none, figure(style.Length{})...),
		place{0, 0, 125, 10},
		place{125, 0, 185, 10},
		place{310, 0, 170, 10},
	)
	// §7.2.3: shrinking is in proportion to the inner base size.
	small := func(w float64) *element.Node {
		return box(func(s *style.Style) { s.Width, s.Height, s.MinWidth = px(w), px(10), px(0) })
	}
	check(
		t,
		"§7.2.3 scaled flex shrink",
		300,
		row(none, small(200), small(400)),
		place{0, 0, 100, 10},
		place{100, 0, 200, 10},
	)
	// §9.7.4.b: factors that sum to less than 1 take only that share.
	check(
		t, "§9.7 sum below 1", 500,
		row(none, sized(100, 10, flex(0.25, 1, px(100))), sized(100, 10, flex(0.25, 1, px(100)))),
		place{0, 0, 175, 10}, place{175, 0, 175, 10},
	)
	// §4.5: the automatic minimum keeps an item from shrinking below its content.
	check(
		t,
		"§4.5 automatic minimum",
		150,
		row(none, sized(100, 10), sized(100, 10, func(s *style.Style) { s.MinWidth = px(0) })),
		place{
			0, 0, 100, 10,
		},
		place{
			100, 0, 50, 10,
		},
	)
	// §8.1: auto margins take the free space before justify-content.
	check(t, "§8.1 a button set apart", 400, row(func(s *style.Style) { s.JustifyContent = style.AlignCenter },
		sized(60, 10), sized(60, 10), sized(60, 10, func(s *style.Style) { s.MarginAuto = style.Left })),
		place{0, 0, 60, 10}, place{60, 0, 60, 10}, place{340, 0, 60, 10})
	// §8.2, the figure of justify-content.
	three := func() []*element.Node { return []*element.Node{sized(40, 10), sized(40, 10), sized(40, 10)} }
	for _, tt := range []struct {
		a       style.Alignment
		x, y, z float64
	}{
		{style.AlignStart, 0, 40, 80}, {style.AlignEnd, 120, 160, 200}, {style.AlignCenter, 60, 100, 140},
		{style.SpaceBetween, 0, 100, 200}, {style.SpaceAround, 20, 100, 180}, {style.SpaceEvenly, 30, 100, 170},
	} {
		check(t, "§8.2 justify-content", 240, row(func(s *style.Style) { s.JustifyContent = tt.a }, three()...), place{
			tt.x, 0, 40, 10,
		}, place{tt.y, 0, 40, 10}, place{tt.z, 0, 40, 10})
	}
	// §8.3: stretched by default; a definite height stays.
	check(
		t,
		"§8.3 stretch",
		200,
		row(none, sized(50, 60), sized(50, 20), sized(50, 20, func(s *style.Style) { s.AlignSelf = style.AlignEnd })),
		place{0, 0, 50, 60},
		place{50, 0, 50, 60},
		place{100, 40, 50, 20},
	)
	// §5.1 and §5.4: reversed axes and order.
	check(
		t,
		"§5.1 row-reverse",
		200,
		row(func(s *style.Style) { s.FlexDirection = style.RowReverse }, sized(50, 10), sized(30, 10)),
		place{
			150, 0, 50, 10,
		},
		place{120, 0, 30, 10},
	)
	check(
		t,
		"§5.4 order",
		200,
		row(none, sized(50, 10), sized(30, 10, func(s *style.Style) { s.Order = -1 })),
		place{0, 0, 30, 10},
		place{
			30, 0, 50, 10,
		},
	)
	// §5.2: wrap-reverse stacks lines from the bottom.
	check(
		t,
		"§5.2 wrap-reverse",
		100,
		row(func(s *style.Style) { s.FlexWrap = style.WrapReverse }, sized(60, 10), sized(60, 20)),
		place{
			0, 20, 60, 10,
		},
		place{0, 0, 60, 20},
	)
	// §8.4: align-content of lines in a definite cross size.
	check(t, "§8.4 align-content", 100, row(func(s *style.Style) {
		s.FlexWrap, s.Height, s.AlignContent = style.Wrap, px(100), style.SpaceBetween
	}, sized(60, 10), sized(60, 10)), place{0, 0, 60, 10}, place{0, 90, 60, 10})
	// §9.3 with gaps (CSS Box Alignment 3 §8): a gap can make an item wrap.
	check(
		t,
		"gaps",
		100,
		row(func(s *style.Style) { s.FlexWrap, s.ColumnGap, s.RowGap = style.Wrap, px(1), px(5) }, sized(
			50, 10,
		), sized(50, 10)),
		place{
			0, 0, 50, 10,
		},
		place{
			0, 15, 50, 10,
		},
	)
	// Baselines (§8.3): made up from the bottom edges where there is no text.
	check(
		t,
		"§8.3 baseline",
		200,
		row(func(s *style.Style) { s.AlignItems = style.AlignBaseline }, sized(50, 60), sized(50, 20)),
		place{
			0, 0, 50, 60,
		},
		place{
			50, 40, 50, 20,
		},
	)
	// A column shares a definite height.
	check(t, "column", 100, row(func(s *style.Style) { s.FlexDirection, s.Height = style.Column, px(100) }, sized(
		50, 20,
		flex(1, 1, style.Length{}),
	), sized(50, 20)), place{0, 0, 100, 80}, place{0, 80, 100, 20})
}

func grid(set func(*style.Style), children ...*element.Node) *element.Node {
	return box(func(s *style.Style) { s.Display = style.Grid; set(s) }, children...)
}

func columns(ts ...style.Track) func(*style.Style) {
	return func(s *style.Style) { s.GridColumns = ts }
}

func fr(n float64) style.Track { return style.Track{Fr: n} }

func at(column, span, row, rows int) func(*style.Style) {
	return func(s *style.Style) { s.ColumnStart, s.ColumnSpan, s.RowStart, s.RowSpan = column, span, row, rows }
}

func TestGridExamples(t *testing.T) {
	minContent, maxContent := style.Length{Unit: style.MinContent}, style.Length{Unit: style.MaxContent}
	cell := func(w float64) *element.Node { return sized(w, 10) }
	// §7.2: grid-template-columns: 100px 1fr max-content minmax(min-content, 1fr).
	check(t, "§7.2 a track list", 500, grid(
		columns(style.Fixed(px(100)), fr(1), style.Fixed(maxContent), style.Track{Min: minContent, Fr: 1}),
		cell(10), cell(20), cell(80), cell(30),
	),
		place{0, 0, 100, 10}, place{100, 0, 160, 10}, place{260, 0, 80, 10}, place{340, 0, 160, 10})
	// §7.2.4: fr shares what is left.
	check(
		t, "§7.2.4 1fr 1fr 2fr", 400,
		grid(columns(fr(1), fr(1), fr(2)), cell(1), cell(1), cell(1)),
		place{0, 0, 100, 10}, place{100, 0, 100, 10}, place{200, 0, 200, 10},
	)
	// §12.7.1: a flex factor sum below 1 doesn't fill the space.
	check(
		t,
		"§12.7.1 half of it",
		400,
		grid(columns(fr(0.25), fr(0.25)), cell(1), cell(1)),
		place{0, 0, 100, 10},
		place{100, 0, 100, 10},
	)
	// §12.7.1: a track whose base is more than its share is inflexible.
	check(
		t,
		"§12.7.1 restart",
		300,
		grid(columns(fr(1), fr(1)), cell(200), cell(10)),
		place{0, 0, 200, 10},
		place{200, 0, 100, 10},
	)
	// §7.2.3.2: auto-fill, the example of repeat(auto-fill, minmax(200px, 1fr)).
	fill := func(f style.GridFill) func(*style.Style) {
		return func(s *style.Style) {
			s.GridColumns, s.GridFill, s.ColumnGap = []style.Track{{Min: px(200), Fr: 1}}, f, px(20)
		}
	}
	check(
		t,
		"§7.2.3.2 auto-fill",
		900,
		grid(fill(style.AutoFill), cell(1), cell(1)),
		place{0, 0, 210, 10},
		place{230, 0, 210, 10},
	)
	check(
		t,
		"§7.2.3.2 auto-fit",
		900,
		grid(fill(style.AutoFit), cell(1), cell(1)),
		place{0, 0, 440, 10},
		place{460, 0, 440, 10},
	)
	// §7.2.2: fit-content() holds the growth limit.
	check(
		t, "§7.2.2 fit-content", 500,
		grid(columns(style.Track{Fit: px(100)}, fr(1)), cell(60), cell(1)),
		place{0, 0, 60, 10}, place{60, 0, 440, 10},
	)
	// §8.5: auto-placement steps over what is placed; dense goes back.
	two := columns(style.Fixed(px(50)), style.Fixed(px(50)), style.Fixed(px(50)))
	check(
		t,
		"§8.5 sparse",
		500,
		grid(two, sized(1, 10, at(1, 2, 1, 1)), sized(1, 10, func(s *style.Style) { s.ColumnSpan = 2 }), sized(1, 10)),
		place{0, 0, 100, 10},
		place{0, 10, 100, 10},
		place{100, 10, 50, 10},
	)
	check(t, "§8.5 dense", 500, grid(func(s *style.Style) { two(s); s.GridFlow = style.FlowRowDense }, sized(
		1, 10, at(1, 2, 1, 1),
	), sized(1, 10, func(s *style.Style) { s.ColumnSpan = 2 }), sized(1, 10)),
		place{0, 0, 100, 10}, place{0, 10, 100, 10}, place{100, 0, 50, 10})
	check(t, "§8.5 by columns", 500, grid(func(s *style.Style) {
		s.GridFlow, s.GridRows, s.GridAutoColumns = style.FlowColumn, []style.Track{
			style.Fixed(px(10)),
			style.Fixed(px(10)),
		}, style.Fixed(
			px(40),
		)
	}, cell(1), cell(1), cell(1)), place{0, 0, 40, 10}, place{0, 10, 40, 10}, place{40, 0, 40, 10})
	// §12.5: a spanning item grows the tracks it crosses equally.
	check(t, "§12.5 spanning", 500, grid(func(s *style.Style) {
		s.GridColumns = []style.Track{{}, {}}
		s.JustifyContent = style.AlignStart
	}, sized(200, 10, at(1, 2, 1, 1)), sized(50, 10, at(1, 1, 2, 1)), sized(20, 10, at(2, 1, 2, 1))),
		place{0, 0, 200, 10}, place{0, 10, 115, 10}, place{115, 10, 85, 10})
	// §12.8: auto tracks stretch.
	check(
		t,
		"§12.8 stretch",
		300,
		grid(columns(style.Track{}, style.Track{}), cell(100), cell(50)),
		place{0, 0, 175, 10},
		place{175, 0, 125, 10},
	)
	// §6.6: the automatic minimum of an item in a fixed track is limited by it.
	check(
		t, "§6.6 minmax(0, 1fr)", 200,
		grid(columns(style.Track{Min: px(0), Fr: 1}, style.Track{Min: px(0), Fr: 1}), cell(180), cell(1)),
		place{0, 0, 100, 10}, place{100, 0, 100, 10},
	)
	// §10 and §11: alignment, overlap.
	check(t, "§10 alignment", 100, grid(func(s *style.Style) {
		s.GridColumns, s.GridRows = []style.Track{style.Fixed(px(100))}, []style.Track{style.Fixed(px(50))}
	}, sized(40, 10, at(1, 1, 1, 1), func(s *style.Style) { s.JustifySelf, s.AlignSelf = style.AlignEnd, style.AlignCenter }), sized(
		20, 10, at(1, 1, 1, 1),
	)),
		place{60, 20, 40, 10}, place{0, 0, 100, 50})
	check(t, "§11.5 justify-content", 300, grid(func(s *style.Style) {
		s.GridColumns, s.JustifyContent = []style.Track{style.Fixed(px(50)), style.Fixed(px(50))}, style.SpaceBetween
	}, cell(1), cell(1)), place{0, 0, 50, 10}, place{250, 0, 50, 10})
	// Percentages of a definite width; of an indefinite height they are auto (§7.2.1).
	check(t, "§7.2.1 percentages", 400, grid(func(s *style.Style) {
		s.GridColumns, s.GridRows = []style.Track{
			style.Fixed(style.Percentage(25)),
			fr(1),
		}, []style.Track{
			style.Fixed(style.Percentage(50)),
		}
	}, cell(1), cell(1)), place{0, 0, 100, 10}, place{100, 0, 300, 10})
}

func TestBlocksAndPositions(t *testing.T) {
	// CSS 2.2 §10.3.3: over-constrained, centred, and limited.
	check(t, "§10.3.3 auto margins", 500, box(func(*style.Style) {}, sized(1, 10, func(s *style.Style) {
		s.MaxWidth, s.MarginAuto = px(300), style.Left|style.Right
	})), place{100, 0, 300, 10})
	check(
		t,
		"§10.4 minimum wins",
		500,
		box(func(*style.Style) {}, sized(1, 10, func(s *style.Style) { s.MaxWidth, s.MinWidth = px(100), px(200) })),
		place{
			0, 0, 200, 10,
		},
	)
	// CSS Values 4 §10: clamp() and calc() against the viewport.
	check(t, "clamp()", 1000, box(func(*style.Style) {}, sized(1, 10, func(s *style.Style) {
		s.Width = style.Between(px(200), style.Sum(style.Percentage(50), px(-20)), px(400))
	})), place{0, 0, 400, 10})
	// CSS Sizing 4 §5: a ratio gives the height, and content may exceed it.
	check(
		t,
		"aspect-ratio",
		300,
		box(
			func(*style.Style) {},
			sized(1, 10, func(s *style.Style) { s.AspectRatio = 1.5 }),
			sized(1, 400, func(s *style.Style) { s.AspectRatio = 1.5 }),
		),
		place{0, 0, 300, 200},
		place{0, 200, 300, 400},
	)
	// CSS Positioned Layout 3 §4: inset against the padding box.
	check(t, "inset", 300, box(func(s *style.Style) {
		s.Position, s.Height, s.Border, s.Padding = style.Relative, px(100), style.AllSides(5), style.Same(px(10))
	}, sized(1, 10, func(s *style.Style) { s.Position, s.Inset = style.Absolute, style.Same(px(0)) }), sized(20, 10, func(s *style.Style) {
		s.Position, s.Inset = style.Absolute, style.Edges{Right: px(7), Bottom: px(3)}
	})), place{5, 5, 290, 90}, place{268, 82, 20, 10})
}

// What overflows a scroll container (CSS Overflow 3 §2.2).
func TestOverflow(t *testing.T) {
	b := New(
		shape.NewLibrary(),
		zones,
		box(
			func(s *style.Style) { s.Overflow, s.Width, s.Height = style.Scroll, px(100), px(50) },
			sized(300, 80, func(s *style.Style) { s.Width = px(300) }),
		),
	).At(500)
	if w, h := b.Overflow(0); b.W != 100 || b.H != 50 || w != 300 || h != 80 {
		t.Errorf("%v × %v holds %v × %v, want 100 × 50 and 300 × 80", b.W, b.H, w, h)
	}
}

// Fifty levels of boxes that each measure and stretch what is in them: bounded
// time, since every constraint is laid out once.
func TestDeepNesting(t *testing.T) {
	n := sized(40, 10)
	for i := range 50 {
		display := []style.Display{style.Flex, style.Grid, style.Block}[i%3]
		n = box(func(s *style.Style) {
			s.Display, s.Padding = display, style.Same(px(1))
			s.GridColumns = []style.Track{{}, fr(1)}
			s.FlexDirection = style.FlexDirection(i % 4)
		}, n, sized(10, 10))
	}
	for _, w := range []float64{0, 1, 320, 1e7} {
		New(shape.NewLibrary(), zones, n).At(w).Walk(func(b *Box, x, y float64) {
			if v := x + y + b.W + b.H; math.IsNaN(v) || math.IsInf(v, 0) {
				t.Fatalf("at %v px a box is %v, %v, %v × %v", w, x, y, b.W, b.H)
			}
		})
	}
}

// A picture of no size, and one whose attributes are nonsense, take no room.
func TestPicturesWithoutASize(t *testing.T) {
	for _, v := range []string{"0", "-3", "NaN", "1e400", "wide"} {
		img := &element.Node{
			Tag:    "img",
			Styles: make([]style.Style, 1),
			Attrs:  []element.Attr{{Name: "width", Value: v}, {Name: "height", Value: v}},
		}
		img.Styles[0].Width = style.Percentage(50)
		b := New(shape.NewLibrary(), zones, box(func(*style.Style) {}, img)).At(300).Children[0]
		if b.W != 150 || b.H != 0 {
			t.Errorf("%q: %v × %v, want 150 × 0", v, b.W, b.H)
		}
	}
}

// A frame is 300 × 150 px by itself whatever it shows, without a ratio between the two
// (CSS Images 3 §4.2); a percentage of its parent's width counts as that where the parent
// asks for its content's.
func TestFramesHaveTheDefaultSize(t *testing.T) {
	for _, c := range []struct {
		name string
		st   style.Style
		w, h float64
	}{
		{"by itself", style.Style{}, 300, 150},
		{"with a height", style.Style{Height: px(240)}, 300, 240},
		{"with a width", style.Style{Width: px(500)}, 500, 150},
		{"all the width", style.Style{Width: style.Percentage(100), Height: px(240)}, 300, 240},
	} {
		frame := &element.Node{Tag: "iframe", Styles: []style.Style{c.st}}
		check(
			t,
			c.name,
			1000,
			box(func(s *style.Style) { s.Width = style.Length{Unit: style.MaxContent} }, frame),
			place{0, 0, c.w, c.h},
		)
	}
}

package layout_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/demo"
	"openplot/fonts"
)

// The layout core with real fonts; it can't load any itself. Chromium judges it in
// e2e/oracle.mjs; here stands what has to hold at every width.

func builder(s *doc.Site) *element.Builder {
	return &element.Builder{Site: s, Media: func(id string) (element.Medium, bool) {
		return element.Medium{
			ID:       id,
			Width:    1440,
			Height:   1080,
			Variants: []element.Variant{{URL: "p", StyleURL: "p", Width: 1440}},
		}, id != ""
	}}
}

func tree(t testing.TB, s *doc.Site, p *doc.Page) *layout.Tree {
	t.Helper()
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	return layout.New(lib, s.Zones, builder(s).Page(p))
}

func home() *doc.Page {
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	return demo.Home(ids)
}

func TestBoxesAreFiniteAndWithinThePage(t *testing.T) {
	s := demo.Site()
	tr := tree(t, s, home())
	for _, w := range []float64{0, 1, 17.3, 320, 640, 1024, 1920, 1e7} {
		n := 0
		tr.At(w).Walk(func(b *layout.Box, x, y float64) {
			n++
			for _, v := range []float64{x, y, b.W, b.H} {
				if math.IsNaN(v) || math.IsInf(v, 0) || v < -1e6 {
					t.Fatalf("at %v px %s %s is at %v, %v and %v × %v", w, b.Node.Tag, b.Node.Key, x, y, b.W, b.H)
				}
			}
			if w >= 320 && x+b.W > w+0.02 {
				t.Errorf("at %v px %s %s reaches to %v", w, b.Node.Tag, b.Node.Key, x+b.W)
			}
		})
		if n < 30 {
			t.Errorf("only %d boxes at %v px", n, w)
		}
	}
}

func TestSectionsStandBelowEachOther(t *testing.T) {
	s := demo.Site()
	for w := 320.0; w <= 1920; w += 64 {
		bottom := 0.0
		tree(t, s, home()).At(w).Walk(func(b *layout.Box, _, y float64) {
			if b.Node.Section == "" {
				return
			}
			if math.Abs(y-bottom) > 0.02 {
				t.Errorf("at %v px a section begins at %v, the one before ends at %v", w, y, bottom)
			}
			bottom = y + b.H
		})
	}
}

// Laying out again gives the same, whatever was laid out in between.
func TestLayoutDependsOnTheWidthAlone(t *testing.T) {
	s := demo.Site()
	tr := tree(t, s, home())
	text := func(b *layout.Box) (out string) {
		b.Walk(func(b *layout.Box, x, y float64) {
			out += fmt.Sprintf("%s %.4f %.4f %.4f %.4f\n", b.Node.Key, x, y, b.W, b.H)
		})
		return out
	}
	first := text(tr.At(777))
	tr.At(320)
	tr.At(1500)
	if text(tr.At(777)) != first {
		t.Error("the second layout at 777 px differs from the first")
	}
}

func zoned(p doc.Place) doc.Zoned[doc.Place] { return doc.Zoned[doc.Place]{"desktop": p} }

func gridPage(style doc.Style, blocks ...*doc.Block) *doc.Page {
	return &doc.Page{Sections: []*doc.Section{{ID: "s", Style: style, Blocks: blocks}}}
}

func place(b *layout.Box, key string) (at float64) {
	b.Walk(func(b *layout.Box, x, _ float64) {
		if b.Node.Key == key {
			at = x
		}
	})
	return at
}

func find(b *layout.Box, key string) (found *layout.Box) {
	b.Walk(func(b *layout.Box, _, _ float64) {
		if b.Node.Key == key {
			found = b
		}
	})
	return found
}

// CSS Grid 2 §12.4–12.6 for rows of minmax(24px, auto): a row that nothing fills
// is 24 px high; content makes the row it stands in grow; an item over several
// rows grows them by equal shares, those first that hold nothing themselves.
func TestGridRows(t *testing.T) {
	s := demo.Site()
	text := func(id string, lines int, p doc.Place) *doc.Block {
		words := make([]string, lines)
		for i := range words {
			words[i] = "x"
		}
		run := doc.Run{Text: "x"}
		for range lines - 1 {
			run.Text += "\nx"
		}
		return &doc.Block{
			ID: id, Kind: doc.Text, Place: zoned(p),
			Style:   doc.Style{"text-style": {"desktop": "$small"}},
			Content: doc.Content{Words: doc.Words{{run}}},
		}
	}
	const line = 21.0 // small is 14 px × 1.5
	tests := []struct {
		name   string
		blocks []*doc.Block
		rows   []float64
	}{
		{"one short line", []*doc.Block{text("a", 1, doc.Place{Column: 1, Span: 2, Row: 1, Rows: 1})}, []float64{24}},
		{
			"three lines in a row",
			[]*doc.Block{text("a", 3, doc.Place{Column: 1, Span: 2, Row: 1, Rows: 1})},
			[]float64{3 * line},
		},
		{
			"empty rows above",
			[]*doc.Block{text("a", 1, doc.Place{Column: 1, Span: 2, Row: 3, Rows: 1})},
			[]float64{24, 24, 24},
		},
		{
			"over two rows, with room",
			[]*doc.Block{text("a", 2, doc.Place{Column: 1, Span: 2, Row: 1, Rows: 2})},
			[]float64{24, 24},
		},
		{
			"over two rows, equal shares",
			[]*doc.Block{text("a", 8, doc.Place{Column: 1, Span: 2, Row: 1, Rows: 2})},
			[]float64{(8*line - 8) / 2, (8*line - 8) / 2},
		},
		{
			"the empty row takes it all",
			[]*doc.Block{
				text("a", 8, doc.Place{Column: 1, Span: 2, Row: 1, Rows: 2}),
				text("b", 3, doc.Place{Column: 3, Span: 2, Row: 1, Rows: 1}),
			},
			[]float64{3 * line, 8*line - 8 - 3*line},
		},
	}
	for _, tt := range tests {
		grid := find(tree(t, s, gridPage(nil, tt.blocks...)).At(1280), "s-g")
		if len(grid.Tracks.Rows) != len(tt.rows) {
			t.Errorf("%s: %d rows, want %d", tt.name, len(grid.Tracks.Rows), len(tt.rows))
			continue
		}
		for i, r := range grid.Tracks.Rows {
			if math.Abs(r.Size-tt.rows[i]) > 0.02 {
				t.Errorf("%s: row %d is %v px, want %v", tt.name, i+1, r.Size, tt.rows[i])
			}
		}
	}
}

// CSS Grid 2 §12.7.1: equal fr tracks share what the gaps leave.
func TestGridColumns(t *testing.T) {
	s := demo.Site()
	b := &doc.Block{
		ID: "a", Kind: doc.Text,
		Place:   zoned(doc.Place{Column: 4, Span: 3, Row: 1, Rows: 1}),
		Content: doc.Content{Words: doc.PlainWords("x")},
	}
	page := tree(t, s, gridPage(nil, b)).At(1280)
	box := find(page, "a")
	column := (1080.0 - 11*24) / 12
	if x, want := place(page, "a"), 100+3*(column+24); math.Abs(x-want) > 0.05 { // the content is boxed in 1080 px
		t.Errorf("x is %v, want %v", x, want)
	}
	if want := 3*column + 2*24; math.Abs(box.W-want) > 0.05 {
		t.Errorf("width is %v, want %v", box.W, want)
	}
}

func TestPictures(t *testing.T) {
	s := demo.Site()
	pic := func(shape string) *doc.Block {
		return &doc.Block{
			ID: "a", Kind: doc.Picture,
			Place:   zoned(doc.Place{Column: 1, Span: 12, Row: 1, Rows: 4}),
			Style:   doc.Style{"aspect-ratio": {"desktop": shape}},
			Content: doc.Content{Picture: "m"},
		}
	}
	for shape, want := range map[string]float64{"own": 1080 * 0.75, "2:1": 540, "rows": 4*24 + 3*8} {
		box := find(tree(t, s, gridPage(nil, pic(shape))).At(1280), "a-1")
		if box.W != 1080 || math.Abs(box.H-want) > 0.02 {
			t.Errorf("%s: %v × %v, want 1080 × %v", shape, box.W, box.H, want)
		}
	}
}

func FuzzLayout(f *testing.F) {
	f.Add("Words", 5, 3, 375.0)
	f.Add("سلام e\u0301 👩‍👩‍👧\n\n", 1<<30, -4, 1.0)
	s := demo.Site()
	f.Fuzz(func(t *testing.T, words string, span, rows int, w float64) {
		if len(words) > 2000 || math.IsNaN(w) || math.IsInf(w, 0) {
			return
		}
		b := &doc.Block{
			ID: "a", Kind: doc.Text,
			Place:   zoned(doc.Place{Column: 2, Span: span, Row: 1, Rows: rows}),
			Content: doc.Content{Words: doc.PlainWords(words)},
		}
		tree(t, s, gridPage(nil, b)).At(w).Walk(func(b *layout.Box, x, y float64) {
			if math.IsNaN(x + y + b.W + b.H) {
				t.Fatalf("%s is at %v, %v and %v × %v", b.Node.Key, x, y, b.W, b.H)
			}
		})
	})
}

func BenchmarkHomeAtOneWidth(b *testing.B) {
	tr := tree(b, demo.Site(), home())
	for b.Loop() {
		tr.At(1280)
	}
}

func BenchmarkHomeSweep(b *testing.B) {
	s := demo.Site()
	p := home()
	for b.Loop() {
		tr := tree(b, s, p)
		for w := 320.0; w <= 1920; w++ {
			tr.At(w)
		}
	}
}

// A bar that lies over the first section takes no room: that section begins at the top.
func TestSeeThroughBarTakesNoRoom(t *testing.T) {
	s := demo.Site()
	for _, top := range []string{"$snug", "5vw", "0px"} {
		p := &doc.Page{Sections: []*doc.Section{
			{
				ID: "bar", Role: doc.RoleHeader, Arrangement: doc.LineUp,
				Style: doc.Style{
					"over":           {"desktop": "yes"},
					"padding-top":    {"desktop": top},
					"padding-bottom": {"desktop": "20px"},
				},
				Blocks: []*doc.Block{{ID: "b1", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("A bar")}}},
			},
			{
				ID: "first", Arrangement: doc.LineUp,
				Blocks: []*doc.Block{
					{ID: "b2", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("The first section")}},
				},
			},
		}}
		tr := tree(t, s, p)
		for _, w := range []float64{320, 800, 1280} {
			tr.At(w).Walk(func(b *layout.Box, _, y float64) {
				if b.Node.Section == "first" && y != 0 {
					t.Errorf("with %s above its words at %v px the section begins at %v", top, w, y)
				}
			})
		}
	}
}

// What a bar lies over begins below the bar at every width, however little padding it has and
// however many lines the bar takes.
func TestWordsBeginBelowTheBarOverThem(t *testing.T) {
	s := demo.Site()
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct{ bar, padding, first string }{
		{"A bar", "20px", "0px"},
		{"A bar", "20px", "12px"},
		{"A bar", "3vw", "2vw"},
		{strings.Repeat("A bar of many words ", 12), "8px", "$snug"},
		{"A bar", "20px", "200px"}, // has room as it is
	} {
		said := func(id, words string) []*doc.Block {
			return []*doc.Block{{ID: id, Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords(words)}}}
		}
		p := &doc.Page{Sections: []*doc.Section{
			{
				ID: "bar", Role: doc.RoleHeader, Arrangement: doc.LineUp, Blocks: said("b1", c.bar),
				Style: doc.Style{
					"over": {
						"desktop": "yes",
					}, "padding-top": {"desktop": c.padding}, "padding-bottom": {"desktop": c.padding},
				},
			},
			{
				ID: "first", Arrangement: doc.LineUp, Blocks: said("b2", "The first section"),
				Style: doc.Style{"padding-top": {"desktop": c.first}},
			},
		}}
		b := &element.Builder{Site: s}
		b.Reach = func(sec *doc.Section, zone int) float64 {
			return layout.New(lib, s.Zones, (&element.Builder{Site: s}).Section(sec)).Reach(zone)
		}
		tr := layout.New(lib, s.Zones, b.Page(p))
		for w := 320.0; w <= 1920; w += 13 {
			var down, words float64
			tr.At(w).Walk(func(b *layout.Box, _, y float64) {
				switch b.Node.Block {
				case "b1":
					down = y + b.H
				case "b2":
					words = y
				}
			})
			if words < down {
				t.Errorf("under %v, at %v px words begin %v px down and the bar ends at %v", c, w, words, down)
			}
			if c.first == "200px" && words != 200 {
				t.Errorf("at %v px words that had room begin %v px down", w, words)
			}
		}
	}
}

// Fields side by side are level, however many lines their labels take.
func TestFieldsSideBySideAreLevel(t *testing.T) {
	s := demo.Site()
	form := &doc.Block{ID: "f", Kind: doc.Form, Content: doc.Content{Entries: []doc.Entry{
		{Values: map[string]string{"label": "Name", "width": "half"}},
		{Values: map[string]string{"label": strings.Repeat("A long question ", 12), "width": "half"}},
		{Values: map[string]string{"label": "Of these", "type": "select", "width": "half"}},
		{
			Values: map[string]string{
				"label": "A hint stands here",
				"hint":  strings.Repeat("and says more ", 20),
				"width": "half",
			},
		},
	}}}
	tr := tree(
		t,
		s,
		&doc.Page{Sections: []*doc.Section{{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{form}}}},
	)
	var tops []float64
	tr.At(1280).Walk(func(b *layout.Box, _, y float64) {
		if slices.Contains([]string{"input", "select"}, b.Node.Tag) {
			tops = append(tops, y)
		}
	})
	if len(tops) != 4 || tops[0] != tops[1] || tops[2] != tops[3] || tops[0] == tops[2] {
		t.Errorf("fields begin at %v", tops)
	}
}

// A table that scrolls shades the side on which there is more, on grounds of one colour.
func TestTablesShadeWhereThereIsMore(t *testing.T) {
	s := demo.Site()
	find := func(look doc.Style) (top string) {
		sec := &doc.Section{
			ID: "s", Arrangement: doc.LineUp, Style: look,
			Blocks: []*doc.Block{
				{ID: "b", Kind: doc.Table, Content: doc.Content{Values: map[string]string{"cells": "a\tb"}}},
			},
		}
		var walk func(n *element.Node)
		walk = func(n *element.Node) {
			if n.Block == "b" {
				top = n.Styles[len(n.Styles)-1].BackgroundTop
			}
			for _, c := range n.Children {
				walk(c)
			}
		}
		walk(builder(s).Page(&doc.Page{Sections: []*doc.Section{sec}}))
		return top
	}
	for _, c := range []struct {
		name   string
		look   doc.Style
		ground string
	}{
		{"on the page", nil, "rgba(255, 255, 255, 1)"},
		{"on a colour", doc.Style{"background": {"desktop": "#123a44"}, "color": {"desktop": "#ffffff"}}, "rgba(18, 58, 68, 1)"},
		{"on a gradient", doc.Style{"background": {"desktop": "#123a44"}, "gradient": {"desktop": "linear 90deg $deep 0%, $accent 100%"}}, ""},
	} {
		if got := find(c.look); (got == "") != (c.ground == "") || !strings.Contains(
			got, c.ground,
		) || strings.Count(got, "local") != strings.Count(got, "scroll") {
			t.Errorf("%s: %q", c.name, got)
		}
	}
}

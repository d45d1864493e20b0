package fonts_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/core/style"
	"openplot/demo"
	"openplot/fonts"
	"openplot/store"
)

// seen is a line of words where it is seen.
type seen struct {
	block      string
	x, y, w, h float64
}

// look walks what is seen at a width and calls wrong with what no designer would take:
// something beside the page, or words wider than where they stand. It gives all lines.
func look(b *layout.Box, x, y, width float64, zone int, block string, wrong func(string, ...any)) (lines []seen) {
	st := b.Node.Styles[zone]
	if st.Display == style.None {
		return nil
	}
	if b.Node.Block != "" {
		block = b.Node.Block
	}
	if x < -0.5 || x+b.W > width+0.5 {
		wrong("%s %s reaches from %.1f to %.1f", b.Node.Tag, b.Node.Key, x, x+b.W)
	}
	for _, l := range b.Lines {
		if l.X < -0.5 || l.X+l.W > b.W+0.5 {
			wrong("words in %s %s reach from %.1f to %.1f of %.1f", b.Node.Tag, b.Node.Key, l.X, l.X+l.W, b.W)
		}
		lines = append(lines, seen{block, x + l.X, y + l.Y, l.W, l.H})
	}
	for _, c := range b.Children {
		in, visible := width, wrong
		if st.Overflow != style.Visible { // what is beside it is scrolled to, or cut off
			in, visible = 1e9, func(string, ...any) {}
		}
		lines = append(lines, look(c.Box, x+c.X, y+c.Y, in, zone, block, visible)...)
	}
	return lines
}

// said is how a block's words begin.
func said(p *doc.Page, id string) string {
	id, _ = doc.SplitItem(id)
	if _, b := p.Block(id); b != nil {
		words := []rune(b.Content.Words.Plain())
		return string(words[:min(30, len(words))])
	}
	return id
}

// shipped gives a page of each kind of block and of each ready-made section, and the
// ready-made pages.
func shipped(t *testing.T, s *doc.Site) []*doc.Page {
	t.Helper()
	pictures := []string{"p1", "p2", "p3"}
	pages, err := demo.Specimens(s, pictures)
	if err != nil {
		t.Fatal(err)
	}
	for _, r := range edit.ReadyPages {
		p, err := edit.NewPage(r.ID, "Ready "+r.ID, "ready", store.NewID)
		if err != nil {
			t.Fatal(err)
		}
		for i, sec := range p.Sections {
			p.Sections[i] = demo.Illustrated(sec, pictures)
		}
		pages = append(pages, p)
	}
	return pages
}

// fits fails where a page doesn't fit a width, which is said once.
func fits(t *testing.T, lib *shape.Library, s *doc.Site, p *doc.Page, step float64) {
	t.Helper()
	tr := layout.New(lib, s.Zones, builder(s).Page(p))
	for w := 320.0; w <= 1920 && !t.Failed(); w += step {
		wrong := func(format string, args ...any) { t.Errorf("at %v px "+format, append([]any{w}, args...)...) }
		lines := look(tr.At(w), 0, 0, w, s.Zones.At(w), "", wrong)
		for i, a := range lines {
			for _, b := range lines[:i] {
				if a.block != b.block && a.x < b.x+b.w-1 && b.x < a.x+a.w-1 && a.y < b.y+b.h-1 && b.y < a.y+a.h-1 {
					wrong("“%s” lies over “%s”", said(p, a.block), said(p, b.block))
				}
			}
		}
	}
}

// Every kind of block, every ready-made section and page and every page of the demo fits
// every width: nothing stands beside the page, no word is too long for its place, and no
// words lie over others. So it is in every house style that ships.
func TestAllThatShipsFitsEveryWidth(t *testing.T) {
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	s := demo.Site()
	for _, p := range demo.Pages(ids) {
		t.Run(p.Page.Name, func(t *testing.T) { fits(t, lib, s, p.Page, 4) })
	}
	for i := range edit.ReadyHouses {
		s := demo.Site()
		s.House = edit.ReadyHouses[i].House()
		for _, p := range shipped(t, s) {
			t.Run(edit.ReadyHouses[i].Name+", "+p.Name, func(t *testing.T) { fits(t, lib, s, p, 16) })
		}
	}
}

// Words of what ships can be read in every house style that ships, wherever they stand on
// one colour: WCAG 2.2, 1.4.3, with the least of large words from 24 px, or bold from
// 18.66 px.
func TestAllThatShipsCanBeRead(t *testing.T) {
	for i := range edit.ReadyHouses {
		s := demo.Site()
		s.House = edit.ReadyHouses[i].House()
		for _, p := range shipped(t, s) {
			read(t, edit.ReadyHouses[i].Name+", "+p.Name, builder(s).Page(p), 1)
		}
	}
}

// read looks at the words of a node and those below it, seen through what is half
// see-through.
func read(t *testing.T, where string, n *element.Node, opacity float64) {
	t.Helper()
	if n.Raw != "" {
		return
	}
	st := n.Styles[0]
	if st.Opacity > 0 {
		opacity *= st.Opacity
	}
	ground := st.Background
	if ground == "" {
		ground = st.Behind
	}
	words, err1 := colour.ParseHex(st.Color)
	behind, err2 := colour.ParseHex(ground)
	if n.Text != "" && err1 == nil && err2 == nil && !st.Pictured {
		mixed := func(a, b uint8) uint8 { return uint8(math.Round(float64(a)*opacity + float64(b)*(1-opacity))) }
		seen := colour.Colour{R: mixed(words.R, behind.R), G: mixed(words.G, behind.G), B: mixed(words.B, behind.B), A: 255}
		least := colour.AA
		if size := st.FontSize.Or(16, style.Viewport{Width: 1280}, 16); size >= 24 || size >= 18.66 && st.FontWeight >= 700 {
			least = 3
		}
		if r := colour.Contrast(seen, behind); r < least {
			t.Errorf("%s: “%.30s” is %.2f to 1 on %s", where, n.Text, r, ground)
		}
	}
	for _, c := range n.Children {
		read(t, where, c, opacity)
	}
}

// A bar that lies over the first section takes no room: that section begins at the top.
func TestSeeThroughBarTakesNoRoom(t *testing.T) {
	s := demo.Site()
	for _, top := range []string{"$snug", "5vw", "0px"} {
		p := &doc.Page{Sections: []*doc.Section{
			{ID: "bar", Role: doc.RoleHeader, Arrangement: doc.LineUp, Style: doc.Style{"over": {"desktop": "yes"}, "padding-top": {"desktop": top}, "padding-bottom": {"desktop": "20px"}}, Blocks: []*doc.Block{{ID: "b1", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("A bar")}}}},
			{ID: "first", Arrangement: doc.LineUp, Blocks: []*doc.Block{{ID: "b2", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("The first section")}}}},
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

// Fields side by side are level, however many lines their labels take.
func TestFieldsSideBySideAreLevel(t *testing.T) {
	s := demo.Site()
	form := &doc.Block{ID: "f", Kind: doc.Form, Content: doc.Content{Entries: []doc.Entry{
		{Values: map[string]string{"label": "Name", "width": "half"}},
		{Values: map[string]string{"label": strings.Repeat("A long question ", 12), "width": "half"}},
		{Values: map[string]string{"label": "Of these", "type": "select", "width": "half"}},
		{Values: map[string]string{"label": "A hint stands here", "hint": strings.Repeat("and says more ", 20), "width": "half"}},
	}}}
	tr := tree(t, s, &doc.Page{Sections: []*doc.Section{{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{form}}}})
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
		sec := &doc.Section{ID: "s", Arrangement: doc.LineUp, Style: look, Blocks: []*doc.Block{{ID: "b", Kind: doc.Table, Content: doc.Content{Values: map[string]string{"cells": "a\tb"}}}}}
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
		if got := find(c.look); (got == "") != (c.ground == "") || !strings.Contains(got, c.ground) || strings.Count(got, "local") != strings.Count(got, "scroll") {
			t.Errorf("%s: %q", c.name, got)
		}
	}
}

package fonts_test

import (
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/style"
	"openplot/demo"
	"openplot/fonts"
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

// Every kind of block, every ready-made section and every page of the demo fits every
// width: nothing stands beside the page, no word is too long for its place, and no words
// lie over others.
func TestAllThatShipsFitsEveryWidth(t *testing.T) {
	s := demo.Site()
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	pages, err := demo.Specimens(s, []string{"p1", "p2", "p3"})
	if err != nil {
		t.Fatal(err)
	}
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	for _, p := range demo.Pages(ids) {
		pages = append(pages, p.Page)
	}
	for _, p := range pages {
		t.Run(p.Name, func(t *testing.T) {
			tr := layout.New(lib, s.Zones, builder(s).Page(p))
			for w := 320.0; w <= 1920; w += 4 {
				wrong := func(format string, args ...any) { t.Errorf("at %v px "+format, append([]any{w}, args...)...) }
				zone := s.Zones.At(w)
				lines := look(tr.At(w), 0, 0, w, zone, "", wrong)
				for i, a := range lines {
					for _, b := range lines[:i] {
						if a.block != b.block && a.x < b.x+b.w-1 && b.x < a.x+a.w-1 && a.y < b.y+b.h-1 && b.y < a.y+a.h-1 {
							wrong("“%s” lies over “%s”", said(p, a.block), said(p, b.block))
						}
					}
				}
				if t.Failed() {
					return
				}
			}
		})
	}
}

// A bar that lies over the first section takes no room: that section begins at the top.
func TestSeeThroughBarTakesNoRoom(t *testing.T) {
	s := demo.Site()
	for _, top := range []string{"$snug", "5vw", "0px"} {
		p := &doc.Page{Sections: []*doc.Section{
			{ID: "bar", Role: doc.RoleHeader, Arrangement: doc.LineUp, Style: doc.Style{"over": {"desktop": "over the first section"}, "padding-top": {"desktop": top}, "padding-bottom": {"desktop": "20px"}}, Blocks: []*doc.Block{{ID: "b1", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("A bar")}}}},
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
		{Values: map[string]string{"label": "Of these", "type": "one of a list", "width": "half"}},
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

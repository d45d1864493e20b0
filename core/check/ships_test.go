package check_test

import (
	"testing"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/demo"
	"openplot/fonts"
	"openplot/store"
)

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
		p, err := edit.NewPage(r.ID, "Ready "+r.ID, nil, store.NewID, nil)
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

// fits fails where a page doesn't fit a width.
func fits(t *testing.T, lib *shape.Library, s *doc.Site, p *doc.Page, step int) {
	t.Helper()
	for _, f := range check.Sweep(layout.New(lib, s.Zones, builder(s).Page(p)), s.Zones, 320, 1920, step) {
		t.Errorf("from %d to %d px: %s by %.1f px, in “%s” %s", f.From, f.To, f.Rule, f.By, said(p, f.Node), said(p, f.Other))
	}
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

func builder(s *doc.Site) *element.Builder {
	return &element.Builder{Site: s, Media: func(id string) (element.Medium, bool) {
		return element.Medium{ID: id, Width: 1440, Height: 1080, Variants: []element.Variant{{URL: "p", StyleURL: "p", Width: 1440}}}, id != ""
	}}
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
			for _, f := range check.Contrasts(builder(s).Page(p), 0, 1280) {
				t.Errorf("%s, %s: “%s” is %.2f to 1", edit.ReadyHouses[i].Name, p.Name, f.Words, f.By)
			}
		}
	}
}

package check_test

import (
	"testing"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/core/shape"
	"openplot/demo"
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
	for _, r := range ready.Pages {
		p, err := ready.NewPage(r.ID, "Ready "+r.ID, nil, store.NewID, nil)
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

// said is how a block's words begin.
func said(p *doc.Page, id string) string {
	id, _ = doc.SplitItem(id)
	if _, b := p.Block(id); b != nil {
		words := []rune(b.Content.Words.Plain())
		return string(words[:min(30, len(words))])
	}
	return id
}

// sound fails where something is broken on a page: the links of those that are shipped lead to
// other sites' pages.
func sound(t *testing.T, lib *shape.Library, s *doc.Site, p *doc.Page, at ...int) {
	t.Helper()
	page := prepared(t, lib, s, p, at...)
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	page.Others = nil
	for _, o := range demo.Pages(ids) {
		page.Others = append(
			page.Others,
			check.Other{Address: o.Slug, Name: o.Page.Name, Title: o.Page.Title, Anchors: check.Anchors(o.Page)},
		)
	}
	name := func(id string) string { return "“" + said(p, id) + "”" }
	for _, f := range check.All(page) {
		if f.Severity == check.Broken && (f.ID != "dead-link" || p.ID != "" && p.Name == "Home") {
			t.Errorf("%v: %s. %s", f.Ranges, f.Title(name), f.Say(name))
		}
	}
}

// Nothing of the demo, of any kind of block, of any ready-made section or page is broken at any
// width. So it is in every house style that ships, at widths from all zones.
func TestNothingThatShipsIsBroken(t *testing.T) {
	lib := library(t)
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	s := demo.Site()
	for _, p := range demo.Pages(ids) {
		t.Run(p.Page.Name, func(t *testing.T) { sound(t, lib, s, p.Page) })
	}
	for i := range ready.Houses {
		s := demo.Site()
		s.House = ready.Houses[i].House()
		var at []int // all of the first, some of the others
		for w := check.Widths.From; w <= check.Widths.To && i > 0; w += 32 {
			at = append(at, w)
		}
		for _, p := range shipped(t, s) {
			t.Run(ready.Houses[i].Name+", "+p.Name, func(t *testing.T) { sound(t, lib, s, p, at...) })
		}
	}
}

func benchmark(b *testing.B, blocks int) {
	lib, s := library(b), demo.Site()
	p := demo.Sample(blocks)
	check.All(prepared(b, lib, s, p)) // words are shaped once
	b.ReportAllocs()
	for b.Loop() {
		check.All(prepared(b, lib, s, p))
	}
}

func BenchmarkAllRules80(b *testing.B)   { benchmark(b, 80) }
func BenchmarkAllRules320(b *testing.B)  { benchmark(b, 320) }
func BenchmarkAllRules1280(b *testing.B) { benchmark(b, 1280) }

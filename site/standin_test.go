package site

import (
	"fmt"
	"math"
	"os"
	"path/filepath"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/ready"
	"openplot/fonts"
	"openplot/stock"
	"openplot/store"
)

// What the canvas shows of a ready-made section is what is tried and published, before a word or a
// picture of one's own is in it: the same boxes to the px, in three zones, for a site without a kind
// of business and one with.
func TestReadyMadeSectionsArePublishedAsTheyAre(t *testing.T) {
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	boxes := func(site *doc.Site, body *element.Node, width float64) map[string]string {
		out := map[string]string{}
		layout.New(lib, site.Zones, body).At(width).Walk(func(b *layout.Box, x, y float64) {
			if b.Node.Block != "" && out[b.Node.Block] == "" {
				px := func(v float64) float64 { return math.Round(v*10) / 10 }
				out[b.Node.Block] = fmt.Sprint(px(x), px(y), px(b.W), px(b.H))
			}
		})
		return out
	}
	for _, business := range []string{"", ready.Businesses[0].ID} {
		site := &doc.Site{
			ID:       "w",
			Slug:     "skerry",
			Name:     "Skerry",
			House:    doc.StandardHouse(),
			Zones:    doc.StandardZones(),
			Business: business,
		}
		src := Source{Site: site}
		for i := range ready.Presets {
			preset := &ready.Presets[i]
			sec := preset.Look(ready.FindBusiness(business))
			sec.ID = "s"
			n := 0
			sec.Walk(func(b *doc.Block) { n++; b.ID = fmt.Sprintf("b%d", n) })
			page := &doc.Page{ID: "p", Title: "Fares", Sections: []*doc.Section{sec}}
			canvas := src.Builder("fares", Addresses{Scenes: ScenesPath, StyleScenes: ScenesPath}).Page(page)
			published := src.Render("fares", page, Addresses{Scenes: "assets/scenes/", StyleScenes: "scenes/"}).Body
			for _, width := range []float64{1280, 800, 375} {
				was, is := boxes(site, canvas, width), boxes(site, published, width)
				for id, box := range was {
					if is[id] != box {
						_, b := page.Block(id)
						t.Errorf(
							"%s for %q at %.0f: the %s is at %s on the canvas, %q when published",
							preset.ID,
							business,
							width,
							b.Kind,
							box,
							is[id],
						)
						break
					}
				}
			}
		}
	}
}

// A published page brings along the drawings that stand in.
func TestStandInsArePublished(t *testing.T) {
	dir := t.TempDir()
	s := &doc.Site{ID: "w", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()}
	page := &doc.Page{
		ID:    "p",
		Title: "Crew",
		Sections: []*doc.Section{{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{
			{ID: "b1", Kind: doc.Picture}, {ID: "b2", Kind: doc.Picture},
		}}},
	}
	src := Source{Site: s}
	r := src.Render("crew", page, Addresses{Scenes: "assets/scenes/"})
	if len(r.Scenes) != 2 || r.Scenes[0] == r.Scenes[1] {
		t.Fatalf("%v", r.Scenes)
	}
	p := &Publisher{Dir: dir, MediaDir: t.TempDir()}
	if _, err := p.Prepare(t.Context(), src, "crew", page); err != nil {
		t.Fatal(err)
	}
	for _, name := range r.Scenes {
		want, _ := stock.SceneNamed(name)
		b, err := os.ReadFile(filepath.Join(dir, "w", assetFolder, "scenes", name))
		if err != nil || string(b) != want {
			t.Errorf("%s: %v", name, err)
		}
	}
	// Choosing the first one's picture leaves the other's drawing.
	other := page.Clone()
	other.Sections[0].Blocks[0].Content.Picture = "m1"
	with := src
	with.Media = []*store.Medium{
		{
			ID:       "m1",
			Width:    900,
			Height:   600,
			Type:     "image/webp",
			Variants: []store.MediumCopy{{File: "m1-900.webp", Width: 900}},
		},
	}
	if again := with.Render("crew", other, Addresses{Scenes: "assets/scenes/"}); len(again.Scenes) != 1 ||
		again.Scenes[0] != r.Scenes[1] {
		t.Errorf("%v, was %v", again.Scenes, r.Scenes)
	}
}

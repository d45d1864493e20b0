package site

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/fonts"
	"openplot/store"
)

// A page's fonts have the letters of all that its site publishes, and what is noted of it are its
// own alone: a letter that is taken off the last page that has it isn't kept for ever.
func TestFontsHaveTheLettersOfTheSite(t *testing.T) {
	site := &doc.Site{ID: "w", Slug: "skerry", Name: "Skerry", Zones: doc.StandardZones(), House: doc.StandardHouse()}
	page := func(words string, more ...*doc.Block) *doc.Page {
		return &doc.Page{
			ID:    "p",
			Title: "P",
			Sections: []*doc.Section{{ID: "s", Arrangement: doc.LineUp, Blocks: append([]*doc.Block{
				{ID: "b", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords(words)}},
			}, more...)}},
		}
	}
	publish := func(src Source, p *doc.Page) (Rendered, string) {
		dir := t.TempDir()
		r := src.Render("p", p, Addresses{Fonts: "f/", StyleFonts: "f/", Cut: &cutter{ctx: t.Context(), dir: dir}})
		face := fonts.Faces[0]
		_, css, _ := strings.Cut(r.CSS, `font-family:"`+face.Family+`"`)
		css, _, _ = strings.Cut(css, "}")
		return r, css
	}
	alone, base := publish(Source{Site: site}, page("Boats"))
	if alone.Letters != "" || strings.Contains(base, "U+00E5") {
		t.Errorf("%q is noted of plain words, which are set in %s", alone.Letters, base)
	}
	with, wide := publish(Source{Site: site, Letters: "Åå"}, page("Boats"))
	if with.Letters != "" || !strings.Contains(wide, "U+00E5") {
		t.Errorf("%q is noted, and beside a page with an å words are set in %s", with.Letters, wide)
	}
	if own, same := publish(Source{Site: site}, page("Båt")); own.Letters != "Åå" || same != wide {
		t.Errorf(
			"%q is noted of a page with an å, and its font is another one than of those beside it:\n%s\n%s",
			own.Letters,
			same,
			wide,
		)
	}
	// Nothing of a page with a password is told on another, not even its letters.
	p := &Publisher{Dir: t.TempDir()}
	for lock, want := range map[string]string{"": "Åå", "a password": ""} {
		src := Source{
			Site:  site,
			Pages: []*store.PageInfo{{ID: "secret", Name: "Båt", Lock: lock}, {ID: "p", Name: "P"}},
		}
		order := Order{Pages: []*store.Page{{PageInfo: store.PageInfo{ID: "secret"}, Doc: page("Båt")}}}
		order.Pages[0].Doc.ID = "secret"
		if got, err := p.letters(src, order); err != nil || got != want {
			t.Errorf("with the password %q letters are %q, %v", lock, got, err)
		}
	}
	// What visitors may type is there when they do, in a file that the page's own words don't load.
	form, _ := publish(
		Source{Site: site},
		page("Boats", &doc.Block{ID: "f", Kind: doc.Form, Content: doc.Content{Entries: []doc.Entry{
			{Values: map[string]string{"label": "Name"}},
		}}}),
	)
	if n := strings.Count(form.CSS, `@font-face{font-family:"`+site.House.Fonts.Body+`"`); n != 2 {
		t.Errorf("a page with a form has %d files of its words' font", n)
	}
}

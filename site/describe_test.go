package site

import (
	"encoding/json"
	"regexp"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/store"
)

func skerry() *doc.Site {
	return &doc.Site{
		ID: "w", Slug: "skerry", Name: "Skerry Line", Language: "en",
		Zones: doc.StandardZones(), House: doc.StandardHouse(),
	}
}

// described renders a page as it is published, with the head's parts by what they are called.
func described(t *testing.T, src Source, slug string, p *doc.Page) (r Rendered, said map[string]string) {
	t.Helper()
	r = src.Render(slug, p, Addresses{
		Media: "m/", StyleMedia: "m/", Self: "https://skerry.example/" + slug + "/", Origin: "https://skerry.example",
	})
	said = map[string]string{}
	for _, m := range regexp.MustCompile(`<meta (?:name|property)="([^"]+)" content="([^"]*)">`).FindAllStringSubmatch(r.HTML, -1) {
		said[m[1]] = m[2]
	}
	_, title, _ := strings.Cut(r.HTML, "<title>")
	said["title"], _, _ = strings.Cut(title, "</title>")
	return r, said
}

// A link to a page is shown with the page's own picture, or the site's, or the first that is on it,
// and with its size (ogp.me); the picture is published also where the page itself doesn't show it.
func TestLinksAreShownWithAPicture(t *testing.T) {
	site := skerry()
	media := func(id string) *store.Medium {
		return &store.Medium{
			ID:     id,
			Type:   "image/png",
			Width:  1600,
			Height: 800,
			Alt:    "Of " + id,
			Variants: []store.MediumCopy{
				{
					File:  id + "-480.webp",
					Width: 480,
				}, {File: id + "-1440.webp", Width: 1440}, {File: id + "-1440.avif", Width: 1440},
			},
		}
	}
	page := &doc.Page{
		ID:    "p",
		Name:  "Fares",
		Title: "What it costs",
		Sections: []*doc.Section{{ID: "s", Blocks: []*doc.Block{
			{ID: "b", Kind: doc.Picture, Content: doc.Content{Picture: "m1"}},
		}}},
	}
	src := Source{Site: site, Media: []*store.Medium{media("m1"), media("m2"), media("m3")}}
	for _, c := range []struct{ own, site, want string }{{"", "", "m1"}, {"", "m2", "m2"}, {"m3", "m2", "m3"}} {
		page.Picture, site.SharePicture = c.own, c.site
		r, said := described(t, src, "fares", page)
		if said["og:image"] != "https://skerry.example/assets/media/"+c.want+"-1440.webp" ||
			said["og:image:width"] != "1440" ||
			said["og:image:height"] != "720" ||
			said["twitter:card"] != "summary_large_image" {
			t.Errorf("%+v: %v", c, said)
		}
		if !strings.Contains(strings.Join(r.Media, " "), c.want+"-1440.webp") {
			t.Errorf("%+v: only %v are published", c, r.Media)
		}
	}
}

// What is published says where it is from: titles end with the site's name where that is short, and
// what isn't there is at no address.
func TestPagesSayWhereTheyAreFrom(t *testing.T) {
	site := skerry()
	site.Facts.Address = "1 North Steps\nSkerry Harbour"
	src := Source{Site: site}
	for title, want := range map[string]string{
		"What it costs": "What it costs – Skerry Line", "Skerry Line, all boats": "Skerry Line, all boats",
		strings.Repeat("long ", 11): strings.Repeat("long ", 11),
	} {
		if _, said := described(t, src, "fares", &doc.Page{ID: "p", Title: title}); said["title"] != want ||
			said["og:title"] != title {
			t.Errorf("%q is called %q, %q where it is shared", title, said["title"], said["og:title"])
		}
	}
	r, said := described(t, src, missingPage, &doc.Page{ID: "p", Title: "This page isn’t here"})
	if strings.Contains(r.HTML, "canonical") || said["og:url"] != "" || said["robots"] != "noindex" {
		t.Errorf("what isn't there says %v", said)
	}
	for language, want := range map[string]string{"en": "en_US", "en-GB": "en_GB", "de": "de_DE", "nb": "nb_NO", "x!": ""} {
		if got := locale(language); got != want {
			t.Errorf("%s is %q, want %q", language, got, want)
		}
	}
	var data struct {
		Graph []map[string]any `json:"@graph"`
	}
	if err := json.Unmarshal([]byte(src.data("", &doc.Page{}, Addresses{})), &data); err != nil {
		t.Fatal(err)
	}
	if at, _ := data.Graph[0]["address"].(map[string]any); at["@type"] != "PostalAddress" ||
		at["streetAddress"] != "1 North Steps, Skerry Harbour" { // https://schema.org/PostalAddress
		t.Errorf("the address is %v", data.Graph[0]["address"])
	}
}

package demo

import (
	"encoding/json"
	"math"
	"reflect"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
	"openplot/icons"
)

func pages(t *testing.T) []Page {
	t.Helper()
	ids := map[string]string{}
	for _, n := range PictureNames() {
		ids[n] = n
	}
	return Pages(ids)
}

// contents calls f for every content on a page, those of a Series' items included.
func contents(p *doc.Page, f func(b *doc.Block, c doc.Content)) {
	for _, s := range p.Sections {
		s.Walk(func(b *doc.Block) {
			f(b, b.Content)
			for _, it := range b.Items {
				b.Walk(func(in *doc.Block) {
					if c, ok := it.Contents[in.ID]; ok {
						f(in, c)
					}
				})
			}
		})
	}
}

// No link of the demo leads nowhere: it goes to a page of it, to an anchor there, or out.
func TestLinksLeadSomewhere(t *testing.T) {
	anchors := map[string][]string{}
	for _, p := range pages(t) {
		list := []string{""}
		for _, s := range p.Page.Sections {
			if s.Anchor != "" {
				list = append(list, s.Anchor)
			}
		}
		contents(p.Page, func(b *doc.Block, c doc.Content) {
			if b.Kind == doc.Anchor {
				list = append(list, c.Values["name"])
			}
		})
		anchors["/"+p.Slug] = list
	}
	for _, p := range pages(t) {
		n := 0
		lead := func(href string) {
			if href == "" {
				return
			}
			n++
			at, anchor, _ := strings.Cut(href, "#")
			if at == "" {
				at = "/" + p.Slug
			}
			if strings.HasPrefix(at, "https://") || strings.HasPrefix(at, "mailto:") || strings.HasPrefix(at, "tel:") {
				return
			}
			if list, ok := anchors[at]; !ok || !slices.Contains(list, anchor) {
				t.Errorf("%s links to %s", p.Page.Name, href)
			}
		}
		contents(p.Page, func(_ *doc.Block, c doc.Content) {
			lead(c.Link)
			for _, para := range c.Words {
				for _, run := range para {
					lead(run.Link)
				}
			}
			for _, e := range c.Entries {
				lead(e.Values["link"])
			}
		})
		if n < 5 {
			t.Errorf("%s has %d links", p.Page.Name, n)
		}
	}
}

// The pages are those that the product names, each with one first heading, a title and a
// description; no stand-in words and no empty pictures are left, and no id is there twice.
func TestPagesAreWhole(t *testing.T) {
	want := []string{"Home", "Sailings", "Fares", "Islands", "Crew", "Notices", "Ask for a berth", "Winter weekend"}
	titles := map[string]bool{}
	for i, p := range pages(t) {
		if p.Page.Name != want[i] {
			t.Errorf("page %d is %s, want %s", i, p.Page.Name, want[i])
		}
		if n := len([]rune(p.Page.Description)); n < 40 || n > 160 || titles[p.Page.Title] {
			t.Errorf("%s: title %q, a description of %d characters", p.Page.Name, p.Page.Title, n)
		}
		titles[p.Page.Title] = true
		ids, firsts := map[string]bool{}, 0
		for _, s := range p.Page.Sections {
			s.Walk(func(b *doc.Block) {
				if ids[b.ID] || b.ID == "" {
					t.Errorf("%s: the id %q twice", p.Page.Name, b.ID)
				}
				ids[b.ID] = true
				if b.Kind == doc.Heading && b.Content.Level == 1 {
					firsts++
				}
				if b.Kind == doc.Picture && b.Content.Picture == "" && len(b.Items) == 0 && !inSeries(s, b) {
					t.Errorf("%s: a picture is empty", p.Page.Name)
				}
			})
		}
		if firsts != 1 {
			t.Errorf("%s has %d first headings", p.Page.Name, firsts)
		}
		for _, stand := range []string{"Say in", "A sentence", "What it is called", "First name", "Lorem"} {
			if strings.Contains(p.Page.Plain(), stand) {
				t.Errorf("%s still says %q", p.Page.Name, stand)
			}
		}
	}
}

// inSeries reports whether a block is of a Series' design, whose items have pictures of
// their own.
func inSeries(s *doc.Section, b *doc.Block) bool {
	found := false
	s.Walk(func(series *doc.Block) {
		if len(series.Items) > 0 {
			series.Walk(func(in *doc.Block) { found = found || in.ID == b.ID })
		}
	})
	return found
}

// Every setting of the demo is one that there is, with a value that it takes; tokens are
// the house style's, icons ship, and a page comes back from JSON as it was.
func TestPagesUseWhatThereIs(t *testing.T) {
	s := Site()
	for _, p := range pages(t) {
		look := func(kind doc.Kind, values doc.Style) {
			for name, zoned := range values {
				setting := style.Find(name, kind)
				if setting == nil {
					t.Errorf("%s: %s has no setting %s", p.Page.Name, kind, name)
					continue
				}
				for zone, v := range zoned {
					if s.Zones.Index(zone) < 0 {
						t.Errorf("%s: no zone %s", p.Page.Name, zone)
					}
					if got, problem := setting.Read(&s.House, v); problem != nil || got != v {
						t.Errorf("%s: %s %s of %s can't be %q: %v, %q", p.Page.Name, kind, name, zone, v, problem, got)
					}
				}
			}
		}
		for _, sec := range p.Page.Sections {
			look(style.OnSection, sec.Style)
			sec.Walk(func(b *doc.Block) { look(b.Kind, b.Style) })
		}
		contents(p.Page, func(b *doc.Block, c doc.Content) {
			if f := element.Of(b.Kind).Field("icon"); f != nil && c.Values["icon"] != "" {
				if _, ok := icons.Drawing(c.Values["icon"]); !ok {
					t.Errorf("%s: no icon %s", p.Page.Name, c.Values["icon"])
				}
			}
		})
		b, err := json.Marshal(p.Page)
		if err != nil {
			t.Fatal(err)
		}
		var back doc.Page
		if err := json.Unmarshal(b, &back); err != nil {
			t.Fatal(err)
		}
		again, err := json.Marshal(&back)
		if err != nil || string(again) != string(b) {
			t.Errorf("%s comes back otherwise: %v", p.Page.Name, err)
		}
	}
}

// Pictures are drawn the same each time, opaque, and each different from the others.
func TestPicturesAreDrawnAlike(t *testing.T) {
	seen := map[string]string{}
	for _, p := range pictures[:4] {
		a, b := p.draw(), p.draw()
		if !reflect.DeepEqual(a, b) {
			t.Errorf("%s is drawn otherwise the second time", p.name)
		}
		if other := seen[string(a)]; other != "" {
			t.Errorf("%s is %s", p.name, other)
		}
		seen[string(a)] = p.name
	}
	for _, p := range pictures {
		if n := len([]rune(p.alt)); n < 15 || n > 200 {
			t.Errorf("%s is described in %d characters", p.name, n)
		}
	}
}

// A sample page has as many blocks as asked for, all within the page.
func TestSamples(t *testing.T) {
	for _, n := range []int{1, 60, 500} {
		got, p := 0, Sample(n)
		for _, s := range p.Sections {
			s.Walk(func(b *doc.Block) {
				got++
				for zone, at := range b.Place {
					if at.Column < 1 || at.Column+at.Span-1 > 12 || at.Row < 1 {
						t.Errorf("%s stands at %+v in %s", b.ID, at, zone)
					}
				}
			})
		}
		if math.Abs(float64(got-n)) > 0.2*float64(n)+3 {
			t.Errorf("%d blocks, asked for %d", got, n)
		}
	}
}

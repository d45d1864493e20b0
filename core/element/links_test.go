package element

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A link takes the house style's colour where that can be read (WCAG 2.2, 1.4.3), and
// that of the words around elsewhere.
func TestLinksCanBeRead(t *testing.T) {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	accent, words, onDeep := site.House.Swatch(
		"accent",
	).Value, site.House.Swatch(
		"words",
	).Value, site.House.Swatch(
		"on-deep",
	).Value
	for _, c := range []struct {
		name           string
		look           doc.Style
		colour, hovers string
	}{
		{"on the ground", nil, accent, words},
		{"on a dark fill", Look("background", "$deep"), onDeep, onDeep},
		{"in chosen words", Look("color", "#aa0000"), "#aa0000", "#aa0000"},
		{"in quiet words", Look("color", "$quiet-words"), accent, words},
		{"on a gradient", Look("gradient", "linear 90deg $ground 0%, $quiet-ground 100%"), words, words},
		{"over the next section", Look("over", "yes"), words, words},
	} {
		b := &Builder{Site: site}
		sec := &doc.Section{
			ID: "s", Arrangement: doc.LineUp, Style: c.look,
			Blocks: []*doc.Block{
				{ID: "b", Kind: doc.Text, Content: doc.Content{Words: doc.Words{{{Text: "there", Link: "/fares"}}}}},
			},
		}
		found := false
		b.Section(sec).Walk(func(n *Node) {
			if n.Tag != "a" {
				return
			}
			found = true
			if got := n.Styles[0].Color; got != c.colour {
				t.Errorf("%s: %s, want %s", c.name, got, c.colour)
			}
			then := n.Styles[0]
			for _, st := range n.States {
				st.Change(0, &then)
			}
			if then.Color != c.hovers || !then.Underline {
				t.Errorf("%s under the pointer: %s, want %s", c.name, then.Color, c.hovers)
			}
		})
		if !found {
			t.Errorf("%s: no link", c.name)
		}
	}
}

func TestHouseGivesGroundAndGaps(t *testing.T) {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	site.House.PageGround, site.House.ColumnGap = "quiet-ground", doc.Zoned[float64]{"desktop": 30, "phone": 10}
	page := (&Builder{Site: site}).Page(&doc.Page{Sections: []*doc.Section{{ID: "s", Arrangement: doc.Columns}}})
	if got := page.Styles[0].Background; got != site.House.Swatch("quiet-ground").Value {
		t.Errorf("the page lies on %s", got)
	}
	page.Walk(func(n *Node) {
		if n.Key == "s-g" && (n.Styles[0].ColumnGap != style.Pixels(30) || n.Styles[2].ColumnGap != style.Pixels(10)) {
			t.Errorf("gaps %v, %v", n.Styles[0].ColumnGap, n.Styles[2].ColumnGap)
		}
	})
}

// Links to new tabs say so (WCAG 2.2, technique G201) and give nothing to the page that they
// open; files are found by their id, and those that aren't there lead nowhere.
func TestWhereLinksLead(t *testing.T) {
	b := builder()
	b.DropEmpty = true
	b.Media = func(id string) (Medium, bool) {
		types := map[string]string{"pdf": "application/pdf", "zip": "application/zip", "mp3": "audio/mpeg"}
		return Medium{
			ID:       id,
			Name:     "the " + id,
			Type:     types[id],
			Variants: []Variant{{URL: "media/f-0." + id}},
		}, types[id] != ""
	}
	for link, want := range map[string]map[string]string{
		"/fares":                       {"href": "/fares"},
		"/fares _blank":                {"href": "/fares", "target": "_blank", "rel": "noopener", "aria-describedby": "new-tab"},
		"https://skerry.example":       {"href": "https://skerry.example"},
		"file:pdf":                     {"href": "media/f-0.pdf"},
		"file:pdf _blank":              {"href": "media/f-0.pdf", "target": "_blank", "aria-describedby": "new-tab"},
		"file:zip":                     {"href": "media/f-0.zip", "download": "the zip"},
		"file:mp3":                     {"href": "media/f-0.mp3"},
		"file:gone":                    {"href": ""},
		"mailto:office@skerry.example": {"href": "mailto:office@skerry.example"},
	} {
		for _, kind := range []*doc.Block{
			{ID: "b", Kind: doc.Button, Content: doc.Content{Words: doc.PlainWords("There"), Link: link}},
			{ID: "b", Kind: doc.Text, Content: doc.Content{Words: doc.Words{{{Text: "there", Link: link}}}}},
			{ID: "b", Kind: doc.Menu, Content: doc.Content{Values: map[string]string{"from": "own"}, Entries: []doc.Entry{{Values: map[string]string{"label": "There", "link": link}}}}},
		} {
			body := b.Page(&doc.Page{Sections: []*doc.Section{section(kind)}})
			a := body.find("a")
			for _, name := range []string{"href", "target", "rel", "aria-describedby", "download"} {
				if name != "rel" && a.value(name) != want[name] {
					t.Errorf("%s in a %s: %s is %q, want %q", link, kind.Kind, name, a.value(name), want[name])
				}
			}
			if last := body.Children[len(body.Children)-1]; (last.value("id") == "new-tab") != (want["target"] != "") {
				t.Errorf("%s in a %s: the words about new tabs", link, kind.Kind)
			}
		}
	}
	b.DropEmpty = false
	n := b.Section(
		section(
			&doc.Block{
				ID:      "b",
				Kind:    doc.Text,
				Content: doc.Content{Words: doc.Words{{{Text: "there", Link: "file:pdf"}}}},
			},
		),
	)
	if got := n.find("a").value("href"); got != "file:pdf" {
		t.Errorf("on the canvas a file's link is %s", got)
	}
}

// Words that lead to a page or a file which isn't there any more are marked where they are
// written, and not for visitors.
func TestBrokenLinksAreMarked(t *testing.T) {
	b := builder()
	b.Pages = []PageLink{{Name: "Home"}, {Slug: "fares", Name: "Fares"}}
	for link, broken := range map[string]bool{
		"/": false, "/fares": false, "/fares#prices _blank": false, "/gone": true, "/gone _blank": true, "file:gone": true, "#top": false, "https://skerry.example/gone": false,
	} {
		of := func() *Node {
			return b.Section(section(&doc.Block{ID: "b", Kind: doc.Text, Content: doc.Content{Words: doc.Words{{{Text: "there", Link: link}}}}})).
				find("a")
		}
		b.DropEmpty = false
		if got := of().value("data-broken") != ""; got != broken {
			t.Errorf("%s is marked: %v", link, got)
		}
		if b.DropEmpty = true; of().value("data-broken") != "" {
			t.Errorf("%s is marked for visitors", link)
		}
	}
}

// Menus are the site's pages, those under others under them, and behind them what the site says.
func TestMenusOfTheSite(t *testing.T) {
	b := &Builder{Site: &doc.Site{Menus: map[string][]doc.MenuItem{
		value.Pages: {
			{Label: "More"},
			{Label: "Shop", Link: "https://shop.example/", Under: true},
		}, value.Legal: {{Label: "Imprint", Link: "/imprint"}},
		"u1": {{Hand: true, Label: "Harbour"}, {Label: "Tides", Link: "/tides"}},
		"u2": {{Hand: true, Label: "Nothing yet"}},
	}}, Pages: []PageLink{
		{
			Name: "Home",
		}, {Slug: "islands", Name: "Islands", Menu: "The islands"}, {Slug: "islands/skarva", Name: "Skarva", InFooter: true}, {Slug: "hidden", Name: "Hidden", OutOfMenu: true},
		{Slug: "hidden/below", Name: "Below it"},
	}}
	for from, want := range map[string]string{
		"": "Home, The islands (Skarva), More (Shop)", value.Footer: "Skarva", value.Legal: "Imprint", value.Pages: "Home, The islands (Skarva), More (Shop)",
		"u1": "Tides", "u2": "Nothing yet", "deleted": "Menu",
	} {
		var got []string
		for _, l := range (siteBlocks{b}).menuLinks(&doc.Block{Content: doc.Content{Values: map[string]string{"from": from}}}) {
			text := l.label
			for _, u := range l.under {
				text += " (" + u.label + ")"
			}
			got = append(got, text)
		}
		if strings.Join(got, ", ") != want {
			t.Errorf("%q: %s, want %s", from, strings.Join(got, ", "), want)
		}
	}
}

package element

import (
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

// find-all below a node, by tag.
func (n *Node) all(tag string) (out []*Node) {
	n.Walk(func(m *Node) {
		if m.Tag == tag {
			out = append(out, m)
		}
	})
	return out
}

// A section that visitors unfold is a <details> (HTML) whose content is folded until it is
// opened, and open where it is worked on.
func TestSectionsThatFold(t *testing.T) {
	for _, c := range []struct {
		open, still  bool
		folded, attr bool
	}{{false, false, true, false}, {true, false, false, true}, {false, true, false, true}} {
		b := builder()
		b.Still = c.still
		sec := section(&doc.Block{Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("within")}})
		sec.Fold = &doc.Fold{Title: "What to bring", Open: c.open}
		n := b.Section(sec)
		details := n.find("details")
		if details == nil || details.Children[0].Tag != "summary" {
			t.Fatal("no details with a summary first")
		}
		if in := details.Children[1]; in.Folded != c.folded || in.Key != sec.ID+"-g" {
			t.Errorf("%+v: the content is folded: %v", c, in.Folded)
		}
		open := false
		for _, a := range details.Attrs {
			open = open || a.Name == "open"
		}
		if open != c.attr {
			t.Errorf("%+v: open is %v", c, open)
		}
		if got := details.Children[0].Children[0].Children[0].Text; got != "What to bring" {
			t.Errorf("the title is %q", got)
		}
	}
}

// Views are elements of their own with an id and a name; the first is seen to begin with,
// one that goes on behind what is always seen belongs to it.
func TestViews(t *testing.T) {
	summer, winter := &doc.View{
		Title:  "In summer",
		Anchor: "in-summer",
	}, &doc.View{
		Title:  "In winter",
		Anchor: "in-winter",
	}
	p := &doc.Page{}
	for i, v := range []*doc.View{summer, summer, nil, winter, nil, winter} {
		p.Sections = append(p.Sections, &doc.Section{ID: string(rune('a' + i)), View: v, Arrangement: doc.Columns})
	}
	menu := &doc.Section{
		ID:          "m",
		Role:        doc.RoleHeader,
		Arrangement: doc.LineUp,
		Blocks: []*doc.Block{
			{ID: "b", Kind: doc.Menu, Content: doc.Content{Values: map[string]string{"from": "views"}}},
		},
	}
	p.Sections = append([]*doc.Section{menu}, p.Sections...)
	b := builder()
	body := b.Page(p)
	main := body.find("main")
	var got []string
	for _, c := range main.Children {
		got = append(got, c.Tag+" "+c.value("data-view")+c.value("data-of")+" "+c.value("id"))
		if c.Folded != (c.value("data-view") == "other" || c.value("data-of") != "") {
			t.Errorf("%s: folded is %v", got[len(got)-1], c.Folded)
		}
	}
	want := []string{"div first in-summer", "div  ", "div other in-winter", "div  ", "div in-winter "}
	if len(got) != len(want) {
		t.Fatalf("%q, want %q", got, want)
	}
	for i := range got {
		if got[i] != want[i] {
			t.Errorf("%q, want %q", got[i], want[i])
		}
	}
	if n := len(main.Children[0].Children); n != 2 || main.Children[0].value("aria-label") != "In summer" {
		t.Errorf("%d sections in the first view", n)
	}
	links := body.find("nav").all("a")
	if len(links) != 2 || links[0].value("href") != "#in-summer" || links[1].value("href") != "#in-winter" {
		t.Errorf("the menu leads to %d views", len(links))
	}
}

// A page list chooses by category, stops at its number, and leaves out the page it is on.
func TestPageLists(t *testing.T) {
	b := builder()
	b.Here = "skarva"
	b.DropEmpty = true
	b.Pages = []PageLink{
		{
			Name: "Home",
		}, {Slug: "skarva", Name: "Skarva", Categories: []string{"Islands"}}, {Slug: "langey", Name: "Langey", Categories: []string{"islands", "New"}, Picture: "m"},
		{
			Slug:        "holm",
			Name:        "Inner Holm",
			Date:        "2026-11-29",
			DateWords:   "29 November 2026",
			Categories:  []string{"Islands"},
			Description: "The near one.",
		},
	}
	b.Media = func(id string) (Medium, bool) {
		return Medium{ID: id, Width: 900, Height: 600, Variants: []Variant{{URL: id + ".webp", Width: 900}}}, id == "m"
	}
	for _, c := range []struct {
		values map[string]string
		links  []string
	}{
		{nil, []string{"/", "/langey", "/holm"}},
		{map[string]string{"category": "Islands"}, []string{"/langey", "/holm"}},
		{map[string]string{"category": "new"}, []string{"/langey"}},
		{map[string]string{"category": "Nothing"}, nil},
		{map[string]string{"count": "2"}, []string{"/", "/langey"}},
		{map[string]string{"order": "last"}, []string{"/holm", "/langey", "/"}},
		{map[string]string{"order": "title", "count": "2"}, []string{"/", "/holm"}},
		{map[string]string{"pages": "under"}, []string{"/skarva/walks"}},
		{map[string]string{"pages": "below", "below": "/skarva"}, []string{"/skarva/walks"}},
		{map[string]string{"pages": "below", "below": "/skarva#top", "count": "1"}, []string{"/skarva/walks"}},
		{map[string]string{"pages": "below", "below": "/nowhere"}, nil},
		{map[string]string{"pages": "below", "below": "/"}, []string{"/langey", "/holm", "/skarva/walks", "/skarva-north"}},
		{map[string]string{"order": "newest", "count": "2"}, []string{"/holm", "/"}},
	} {
		b.Pages = b.Pages[:4]
		if c.values["pages"] != "" {
			b.Pages = append(
				b.Pages,
				PageLink{Slug: "skarva/walks", Name: "Walks"},
				PageLink{Slug: "skarva-north", Name: "North"},
			)
		}
		n := b.Section(section(&doc.Block{ID: "b", Kind: doc.PageList, Content: doc.Content{Values: c.values}}))
		var got []string
		for _, a := range n.all("a") {
			got = append(got, a.value("href"))
		}
		if len(got) != len(c.links) {
			t.Errorf("%v: %q, want %q", c.values, got, c.links)
			continue
		}
		for i := range got {
			if got[i] != c.links[i] {
				t.Errorf("%v: %q, want %q", c.values, got, c.links)
			}
		}
	}
	n := b.Section(
		section(
			&doc.Block{
				ID:      "b",
				Kind:    doc.PageList,
				Content: doc.Content{Values: map[string]string{"pictures": "hover"}},
			},
		),
	)
	if imgs := n.all("img"); len(imgs) != 1 || imgs[0].value("src") != "m.webp" {
		t.Errorf("%d pictures", len(imgs))
	}
	// Beside its picture all that is said of a page is within the link, dates among it.
	n = b.Section(section(&doc.Block{
		ID: "b", Kind: doc.PageList, Content: doc.Content{Values: map[string]string{"pictures": "beside", "with": "dates", "order": "newest"}},
	}))
	a := n.all("a")[0]
	if when := a.find("time"); a.Styles[0].Display != style.Flex || when == nil ||
		when.value("datetime") != "2026-11-29" ||
		when.Children[0].Text != "29 November 2026" ||
		len(n.all("time")) != 1 {
		t.Errorf("beside its picture: %+v", a)
	}
	n = b.Section(
		section(
			&doc.Block{
				ID:      "b",
				Kind:    doc.PageList,
				Content: doc.Content{Values: map[string]string{"pictures": "hover"}},
			},
		),
	)
	hidden := 0
	n.Walk(func(m *Node) {
		if m.value("data-hover") != "" {
			hidden++
			then := m.Styles[0]
			m.States[0].Change(0, &then)
			if m.Styles[0].Opacity >= 0.01 || then.Opacity != 1 || m.Styles[0].Position != style.Absolute {
				t.Errorf("what hover shows: opacity %v, then %v", m.Styles[0].Opacity, then.Opacity)
			}
		}
	})
	if hidden != 1 { // without a picture there is nothing to lie over
		t.Errorf("%d texts wait for the pointer", hidden)
	}
}

// A countdown says the date without its script; the instant is told to it with the offset.
func TestCountdown(t *testing.T) {
	b := builder()
	b.Instant = func(local, zone string) string { return local + " in " + zone }
	of := func(until string) *Node {
		return b.Section(
			section(
				&doc.Block{
					ID:      "b",
					Kind:    doc.Countdown,
					Content: doc.Content{Values: map[string]string{"until": until, "zone": "Europe/Berlin"}},
				},
			),
		)
	}
	n := of("2028-02-29T18:05")
	when := n.find("time")
	if when.value("datetime") != "2028-02-29T18:05 in Europe/Berlin" ||
		when.Children[0].Text != "29 February 2028, 18:05" {
		t.Errorf("%q %q", when.value("datetime"), when.Children[0].Text)
	}
	b.Site.Language = "de"
	if got := of("2028-02-29T18:05").find("time").Children[0].Text; got != "2028-02-29 18:05" {
		t.Errorf("in German %q", got)
	}
	if b.DropEmpty = true; of("") != nil && of("").find("time") != nil {
		t.Error("a countdown to nothing is published")
	}
}

// A recording has the browser's controls, and is left out while there is none.
func TestAudio(t *testing.T) {
	b := builder()
	b.Media = func(id string) (Medium, bool) {
		return Medium{
			ID:       id,
			Type:     map[string]string{"a": "audio/mpeg", "v": "video/webm"}[id],
			Variants: []Variant{{URL: id}},
		}, id != ""
	}
	b.DropEmpty = true
	of := func(id string) *Node {
		return b.Section(section(&doc.Block{ID: "b", Kind: doc.Audio, Content: doc.Content{Values: map[string]string{"audio": id, "title": "The bell", "transcript": "One.\nTwo."}}})).
			find("audio")
	}
	if n := of("a"); n == nil || n.value("src") != "a" || n.value("aria-label") != "The bell" {
		t.Error("the recording isn't there")
	}
	if of("v") != nil || of("") != nil {
		t.Error("what is no recording is played")
	}
}

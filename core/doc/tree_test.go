package doc

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"
)

// leafy is a section with a container of a container, and a Series of two items, the second
// of which says something of its own.
func leafy() *Section {
	text := func(id, words string) *Block {
		return &Block{ID: id, Kind: Text, Content: Content{Words: PlainWords(words)}}
	}
	return &Section{ID: "s", Blocks: []*Block{
		text("above", "Above"),
		{
			ID: "outer", Kind: Container,
			Blocks: []*Block{
				text("in", "In it"),
				{ID: "inner", Kind: Container, Blocks: []*Block{text("deep", "Deep in it")}},
			},
		},
		{ID: "series", Kind: Series, Blocks: []*Block{
			{ID: "design", Kind: Container, Blocks: []*Block{text("name", "A name"), text("what", "What it is")}},
		}, Items: []Item{
			{ID: "i1"}, {ID: "i2", Contents: map[string]Content{"name": {Words: PlainWords("Langey")}}},
		}},
		{
			ID:      "table",
			Kind:    Table,
			Content: Content{Values: map[string]string{"cells": "Inner Holm\t4.20", "head": "none"}},
		},
		{
			ID: "questions", Kind: Accordion,
			Content: Content{
				Entries: []Entry{
					{Words: PlainWords("And the answer"), Values: map[string]string{"title": "A question"}},
				},
			},
		},
		{ID: "picture", Kind: Picture, Content: Content{Picture: "m1", Alt: "Boats at the steps"}},
	}}
}

// Containers come before what they hold, and a path leads to each block.
func TestWalkAndPath(t *testing.T) {
	s := leafy()
	var order []string
	s.Walk(func(b *Block) { order = append(order, b.ID) })
	if want := "above outer in inner deep series design name what table questions picture"; strings.Join(
		order,
		" ",
	) != want {
		t.Errorf("%s, want %s", strings.Join(order, " "), want)
	}
	for id, want := range map[string]string{"above": "above", "deep": "outer inner deep", "what": "series design what", "none": ""} {
		var got []string
		for _, b := range s.Path(id) {
			got = append(got, b.ID)
		}
		if strings.Join(got, " ") != want {
			t.Errorf("to %s: %v, want %s", id, got, want)
		}
	}
	for id, want := range map[string]string{"above": "s", "deep": "inner", "inner": "outer", "name": "design"} {
		if h := s.HolderOf(id); h.ID != want || h.Index(id) < 0 {
			t.Errorf("%s stands in %s, want %s", id, h.ID, want)
		}
	}
	if d := s.Blocks[1].Depth(); d != 3 {
		t.Errorf("the container is %d deep", d)
	}
	p := &Page{Sections: []*Section{{ID: "first"}, s}}
	if sec, b := p.Block("deep"); sec != s || b == nil || b.ID != "deep" {
		t.Errorf("%v, %v", sec, b)
	}
	if sec, b := p.Block("none"); sec != nil || b != nil {
		t.Errorf("%v, %v", sec, b)
	}
}

// Plain has what a visitor can read, each item of a Series with its own words, and none of
// the design's that no item says.
func TestPlainIsWhatCanBeRead(t *testing.T) {
	p := &Page{Title: "Boats", Description: "All of them", Sections: []*Section{leafy()}}
	lines := strings.FieldsFunc(p.Plain(), func(r rune) bool { return r == '\n' || r == '\t' })
	for _, want := range []string{
		"Boats", "All of them", "Above", "Deep in it", "A name", "Langey", "Inner Holm", "A question", "And the answer",
		"Boats at the steps",
	} {
		if !slices.Contains(lines, want) {
			t.Errorf("%q isn't in %q", want, lines)
		}
	}
	if slices.Contains(lines, "none") {
		t.Error("a setting is said")
	}
	for words, want := range map[string]int{"A name": 1, "What it is": 2, "Langey": 1} {
		n := 0
		for _, l := range lines {
			if l == words {
				n++
			}
		}
		if n != want {
			t.Errorf("%q is said %d times, want %d", words, n, want)
		}
	}
	series := p.Sections[0].Blocks[2]
	series.Items[0].Contents = map[string]Content{"name": {Words: PlainWords("Skarva")}}
	if strings.Contains(p.Plain(), "A name") {
		t.Error("what every item says otherwise is said")
	}
}

// A medium is shown wherever it is named.
func TestShows(t *testing.T) {
	for name, sec := range map[string]*Section{
		"behind the section": {Picture: "m"},
		"as its video":       {Video: "m"},
		"in a block":         {Blocks: []*Block{{Content: Content{Picture: "m"}}}},
		"deep in a block":    {Blocks: []*Block{{Blocks: []*Block{{Blocks: []*Block{{Content: Content{Picture: "m"}}}}}}}},
		"as a value":         {Blocks: []*Block{{Content: Content{Values: map[string]string{"poster": "m"}}}}},
		"in an entry":        {Blocks: []*Block{{Content: Content{Entries: []Entry{{}, {Values: map[string]string{"picture": "m"}}}}}}},
		"in an item": {
			Blocks: []*Block{{Blocks: []*Block{{ID: "d"}}, Items: []Item{{}, {Contents: map[string]Content{"d": {Picture: "m"}}}}}},
		},
	} {
		p := &Page{Sections: []*Section{{}, sec}}
		if !p.Shows("m") {
			t.Errorf("%s it isn't seen", name)
		}
		if p.Shows("another") {
			t.Errorf("%s another is seen", name)
		}
	}
}

// A copy made anew has ids of its own all through, says the same, and leaves what it was
// made from alone.
func TestAnew(t *testing.T) {
	s := leafy()
	before, err := json.Marshal(s)
	if err != nil {
		t.Fatal(err)
	}
	n := 0
	newID := func(prefix string) string { n++; return fmt.Sprint(prefix, n) }
	copied := &Section{ID: "copy"}
	for _, b := range s.Blocks {
		copied.Blocks = append(copied.Blocks, b.Anew(newID))
	}
	ids := map[string]bool{}
	count := func(s *Section) {
		s.Walk(func(b *Block) {
			if ids[b.ID] {
				t.Errorf("%s is there twice", b.ID)
			}
			ids[b.ID] = true
			for _, it := range b.Items {
				if ids[it.ID] {
					t.Errorf("the item %s is there twice", it.ID)
				}
				ids[it.ID] = true
				for id := range it.Contents {
					if s.Path(id) == nil {
						t.Errorf("an item says something for %s, which isn't there", id)
					}
				}
			}
		})
	}
	count(s)
	count(copied)
	a, b := &Page{Sections: []*Section{s}}, &Page{Sections: []*Section{copied}}
	if a.Plain() != b.Plain() {
		t.Errorf("the copy says %q", b.Plain())
	}
	copied.Walk(func(b *Block) {
		b.Style, b.Name = Style{"color": {"desktop": "$accent"}}, "changed"
		for i := range b.Items {
			b.Items[i] = Item{}
		}
	})
	if after, err := json.Marshal(s); err != nil || string(after) != string(before) {
		t.Errorf("the first one changed: %s", after)
	}
}

// Clones may be changed without what they were made from changing.
func TestClonesAreApart(t *testing.T) {
	s := leafy()
	s.Style = Style{"color": {"desktop": "$accent"}}
	s.Blocks[0].Style = Style{"color": {"desktop": "$accent"}}
	p := &Page{Name: "Boats", Sections: []*Section{s}}
	before, _ := json.Marshal(p)
	q := p.Clone()
	q.Name, q.Sections[0] = "Ships", s.Clone()
	q.Sections[0].Name = "Changed"
	q.Sections[0].Style["color"] = Zoned[string]{"desktop": "#123456"}
	q.Sections[0].Blocks[0] = s.Blocks[0].Clone()
	q.Sections[0].Blocks[0].Style["opacity"] = Zoned[string]{"desktop": "50%"}
	q.Sections[0].Blocks = append(q.Sections[0].Blocks[:1], q.Sections[0].Blocks[2:]...)
	q.Sections = append(q.Sections, &Section{ID: "more"})
	if after, _ := json.Marshal(p); string(after) != string(before) {
		t.Errorf("changed: %s", after)
	}
	if h := s.Head(); h.Blocks != nil || h.ID != s.ID || len(s.Blocks) == 0 {
		t.Error("a head has blocks, or the section has none any more")
	}
}

// What a house style loses is what pages could refer to: colours, steps of every kind,
// shadows, sizes of buttons and text styles, each in its own list.
func TestGone(t *testing.T) {
	for name, lose := range map[string]func(h *House){
		"Deep": func(h *House) {
			h.Palette = slices.DeleteFunc(h.Palette, func(w Swatch) bool { return w.Token == "deep" })
		},
		"Vast":     func(h *House) { h.Space = h.Space[:len(h.Space)-1] },
		"Pill":     func(h *House) { h.Corners = h.Corners[:len(h.Corners)-1] },
		"Bold":     func(h *House) { h.Lines = h.Lines[:len(h.Lines)-1] },
		"Card":     func(h *House) { h.Shadows = h.Shadows[:1] }, // the corners have one of that name too
		"Large":    func(h *House) { h.Buttons.Sizes = h.Buttons.Sizes[:2] },
		"h6":       func(h *House) { delete(h.Text, "h6") },
		"nothing":  func(h *House) { h.ContentWidth, h.Fonts.Body = 900, "Lora"; h.Palette[0].Value = "#fefefe" },
		"nothing ": func(h *House) { h.Lines = nil }, // then there are the standard ones
	} {
		was, next := StandardHouse(), StandardHouse()
		lose(&next)
		var got []string
		for _, g := range was.Gone(&next) {
			got = append(got, g.Name)
		}
		if want := strings.TrimSpace(name); want == "nothing" && len(got) > 0 ||
			want != "nothing" && !slices.Equal(got, []string{want}) {
			t.Errorf("%v are gone, want %s", got, want)
		}
		if more := next.Gone(&was); len(more) > 0 {
			t.Errorf("what is added is gone: %v", more)
		}
	}
}

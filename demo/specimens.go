package demo

import (
	"fmt"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/icons"
)

// Specimens gives a page for each kind of block, as the Shelf adds it, and one for
// each ready-made section, for the checks that look at all of them. Pictures that a
// block begins without are filled in from the ids given, one after another.
func Specimens(s *doc.Site, pictures []string) ([]*doc.Page, error) {
	n := 0
	env := edit.Env{Site: s, HasPicture: func(string) bool { return true }, NewID: func(prefix string) string {
		n++
		return fmt.Sprint(prefix, n)
	}, HasIcon: func(name string) bool {
		_, ok := icons.Drawing(name)
		return ok
	}}
	var pages []*doc.Page
	add := func(name string, commands ...edit.Command) error {
		p := &doc.Page{ID: "p", Name: name, Title: name}
		for _, c := range commands {
			if c.Op == "block.add" {
				c.Node = p.Sections[0].ID
			}
			r, err := edit.Apply(p, c, env)
			if err != nil {
				return fmt.Errorf("making the page of %s: %w", name, err)
			}
			p = r.Page
		}
		for i, sec := range p.Sections {
			p.Sections[i] = Illustrated(sec, pictures)
		}
		pages = append(pages, p)
		return nil
	}
	for _, k := range doc.Kinds {
		if err := add("kind "+string(k), edit.Command{Op: "section.add", Preset: "empty"}, edit.Command{Op: "block.add", Kind: k, Zone: "desktop"}); err != nil {
			return nil, err
		}
	}
	for _, p := range edit.Presets {
		commands := []edit.Command{{Op: "section.add", Preset: p.ID}}
		if p.ID == "bar-over" { // it is seen on a picture only
			commands = append([]edit.Command{{Op: "section.add", Preset: "welcome-picture"}}, commands...)
		}
		if err := add("section "+p.ID, commands...); err != nil {
			return nil, err
		}
	}
	return pages, nil
}

// Illustrated gives a section in which what begins without pictures has some, in turn.
func Illustrated(sec *doc.Section, pictures []string) *doc.Section {
	next := 0
	pick := func() string {
		next++
		return pictures[(next-1)%len(pictures)]
	}
	content := func(kind doc.Kind, c doc.Content) doc.Content {
		if f := element.Of(kind).Field("picture"); f != nil && c.Picture == "" && kind != doc.Logo {
			c.Picture = pick()
		}
		if f := element.Of(kind).EntryField("picture"); f != nil {
			entries := make([]doc.Entry, len(c.Entries))
			for i, e := range c.Entries {
				if entries[i] = e; e.Values["picture"] == "" {
					entries[i].Values = element.WithValue(e.Values, "picture", pick())
				}
			}
			c.Entries = entries
		}
		return c
	}
	var fill func(b *doc.Block) *doc.Block
	fill = func(b *doc.Block) *doc.Block {
		b = b.Clone()
		b.Content = content(b.Kind, b.Content)
		for i, in := range b.Blocks {
			b.Blocks[i] = fill(in)
		}
		items := make([]doc.Item, len(b.Items))
		for i, it := range b.Items {
			items[i] = doc.Item{ID: it.ID, Contents: map[string]doc.Content{}}
			b.Walk(func(in *doc.Block) {
				if c, ok := it.Contents[in.ID]; ok {
					items[i].Contents[in.ID] = content(in.Kind, c)
				} else if in.Kind == doc.Picture {
					items[i].Contents[in.ID] = doc.Content{Picture: pick()}
				}
			})
		}
		if len(items) > 0 {
			b.Items = items
		}
		return b
	}
	sec = sec.Clone()
	if sec.Picture == "" && (sec.Style["filter"] != nil || sec.Style["filter-gradient"] != nil) {
		sec.Picture = pick()
	}
	for i, b := range sec.Blocks {
		sec.Blocks[i] = fill(b)
	}
	return sec
}

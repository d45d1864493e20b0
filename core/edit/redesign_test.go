package edit

import (
	"fmt"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/ready"
)

// Through all designs of a purpose and back, nothing that somebody wrote, linked or
// chose gets lost.
func TestChangingTheLayoutCarriesEverything(t *testing.T) {
	e := env()
	for _, from := range ready.Presets {
		for _, to := range ready.Presets {
			if from.Purpose != to.Purpose && to.ID != "features" {
				continue
			}
			s := from.Make(e.NewID, nil)
			n := 0
			var said []string
			mark := func(c doc.Content) doc.Content {
				n++
				word := "word" + strings.Repeat("x", n) + "."
				said = append(said, word)
				c.Words = doc.PlainWords(word)
				return c
			}
			s.Walk(func(b *doc.Block) {
				for i, it := range b.Items {
					contents := map[string]doc.Content{}
					b.Blocks[0].Walk(func(in *doc.Block) {
						if in.Kind.Is(doc.Worded) {
							contents[in.ID] = mark(in.Content)
						}
					})
					it.Contents = contents
					b.Items[i] = it
				}
			})
			inSeries := map[*doc.Block]bool{}
			s.Walk(func(b *doc.Block) {
				if b.Kind == doc.Series {
					b.Walk(func(in *doc.Block) { inSeries[in] = in != b })
				}
			})
			s.Walk(func(b *doc.Block) {
				if b.Kind.Is(doc.Worded) && !inSeries[b] {
					b.Content = mark(b.Content)
				}
			})
			p := &doc.Page{ID: "p", Name: "P", Title: "P", Sections: []*doc.Section{s}}
			r, err := Apply(p, Command{Op: "section.redesign", Node: s.ID, Preset: to.ID}, e)
			if err != nil {
				t.Fatalf("%s to %s: %v", from.ID, to.ID, err)
			}
			text := r.Page.Plain()
			for _, word := range said {
				if !strings.Contains(text, word) {
					t.Errorf("%s to %s loses %q", from.ID, to.ID, word)
				}
			}
			back, _, err := Run(r.Page, r.Inverse)
			if err != nil || encoded(t, back) != encoded(t, p) {
				t.Errorf("%s to %s: undo gives another page (%v)", from.ID, to.ID, err)
			}
		}
	}
}

// Words go where words of their role stand, not merely to the next place for words; stand-in
// words aren't carried, and don't stay behind where nothing corresponds to them.
func TestChangingTheLayoutMatchesRoles(t *testing.T) {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	n := 0
	env := Env{Site: site, NewID: func(prefix string) string { n++; return fmt.Sprint(prefix, n) }}
	p := &doc.Page{}
	apply := func(c Command) *Result {
		t.Helper()
		r, err := Apply(p, c, env)
		if err != nil {
			t.Fatal(err)
		}
		p = r.Page
		return r
	}
	said := func() string {
		var out []string
		p.Sections[0].Walk(func(b *doc.Block) {
			if w := b.Content.Words.Plain(); w != "" {
				out = append(out, role(b)+": "+w)
			}
		})
		return strings.Join(out, "\n")
	}
	sec := apply(Command{Op: "section.add", Preset: "welcome-picture"}).Select
	p.Sections[0].Walk(func(b *doc.Block) {
		switch role(b) {
		case "heading 1":
			apply(Command{Op: "block.write", Node: b.ID, Value: "The title"})
		case "lead":
			apply(Command{Op: "block.write", Node: b.ID, Value: "The lead"})
		}
	})
	apply(Command{Op: "section.redesign", Node: sec, Value: "welcome-beside"})
	want := "heading 1: The title\nlead: The lead\nbutton: Begin here\nbutton: Ask first"
	if got := said(); got != want {
		t.Errorf("beside a picture it says\n%s\nwant\n%s", got, want)
	}
	apply(Command{Op: "section.redesign", Node: sec, Value: "welcome-card"})
	if got, want := said(), "heading 1: The title\nlead: The lead\nbutton: Begin here"; got != want {
		t.Errorf("on a card it says\n%s\nwant\n%s", got, want)
	}
}

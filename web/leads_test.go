package web

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/store"
)

// Publishing says of a page that it leads to another that visitors don't have, whatever the link is, and
// of none that they have, that isn't there, or that is itself.
func TestPublishingSaysWhatPagesLeadTo(t *testing.T) {
	p := begin(t)
	words := func(links ...string) *doc.Section {
		var para doc.Paragraph
		for _, l := range links {
			para = append(para, doc.Run{Text: "there ", Link: l})
		}
		return &doc.Section{ID: store.NewID("s"), Arrangement: doc.LineUp, Blocks: []*doc.Block{
			{ID: store.NewID("b"), Kind: doc.Text, Content: doc.Content{Words: doc.Words{para}}},
			{
				ID:      store.NewID("b"),
				Kind:    doc.Button,
				Content: doc.Content{Words: doc.PlainWords("Go"), Link: "/crew _blank"},
			},
		}}
	}
	for name, sections := range map[string][]*doc.Section{
		"Fares": {words("/crew#ann", "/fares", "/nowhere", "/?x=1", "https://example.org/crew")}, "Crew": nil,
	} {
		p.put(
			&doc.Page{ID: "p" + name, Name: name, Title: name, Sections: sections},
			tree.Page{ID: "p" + name, Name: name},
		)
	}
	d := p.as("designer@example.org")
	said := func() (out []string) {
		_, screen, _ := d.get("/sites/skerry/publish")
		for _, part := range strings.Split(screen, `class="publish-leads" data-needs="`)[1:] {
			id, _, _ := strings.Cut(part, `"`)
			out = append(out, id)
		}
		return out
	}
	if got := strings.Join(said(), " "); got != "pCrew p1" {
		t.Errorf("Fares leads to %s that visitors don't have", got)
	}
	if status, _, _ := d.post("/sites/skerry/publish", map[string][]string{"id": {"pCrew", "p1"}}); status >= 400 {
		t.Fatal(status)
	}
	if got := said(); got != nil {
		t.Errorf("and when they have them, to %s", got)
	}
}

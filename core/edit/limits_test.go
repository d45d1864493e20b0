package edit

import (
	"errors"
	"strings"
	"testing"

	"openplot/core/doc"
)

// A page that is too long says so as words are entered, pasted or repeated, and one that is too
// long already gets shorter.
func TestLongPages(t *testing.T) {
	env := Env{
		Site:  &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()},
		NewID: func(p string) string { return p + "x" },
	}
	block := func(id string, runes int) *doc.Block {
		return &doc.Block{
			ID:      id,
			Kind:    doc.Text,
			Content: doc.Content{Words: doc.Words{{{Text: strings.Repeat("ä", runes)}}}},
		}
	}
	page := func(blocks ...*doc.Block) *doc.Page {
		return &doc.Page{
			ID:       "p",
			Name:     "P",
			Title:    "P",
			Sections: []*doc.Section{{ID: "s", Name: "S", Arrangement: doc.LineUp, Blocks: blocks}},
		}
	}
	full := page(block("a", 60_000), block("b", 60_000), block("c", 60_000), block("d", 19_990))
	over := page(block("a", 60_000), block("b", 60_000), block("c", 60_000), block("d", 60_000))
	series := page(
		&doc.Block{
			ID:     "r",
			Kind:   doc.Series,
			Items:  make([]doc.Item, 150),
			Blocks: []*doc.Block{{ID: "g", Kind: doc.Container, Blocks: []*doc.Block{block("a", 10)}}},
		},
	)
	for i := range series.Sections[0].Blocks[0].Items {
		series.Sections[0].Blocks[0].Items[i].ID = "i" + strings.Repeat("i", i)
	}
	for name, tt := range map[string]struct {
		page    *doc.Page
		command Command
		problem string
	}{
		"as much as there can be": {full, Command{Op: "block.write", Node: "d", Value: strings.Repeat("ä", 20_000)}, ""},
		"one more":                {full, Command{Op: "block.write", Node: "d", Value: strings.Repeat("ä", 20_001)}, "200001 characters"},
		"a copy":                  {full, Command{Op: "duplicate", Node: "a", Zone: "desktop"}, "characters"},
		"shorter":                 {over, Command{Op: "block.write", Node: "d", Value: "ä"}, ""},
		"a little shorter":        {over, Command{Op: "block.write", Node: "d", Value: strings.Repeat("ä", 59_000)}, ""},
		"longer still":            {page(append(over.Sections[0].Blocks, block("e", 1))...), Command{Op: "block.write", Node: "e", Value: "ää"}, "characters"},
		"deleted":                 {over, Command{Op: "delete", Node: "a"}, ""},
		"a design for each item":  {series, Command{Op: "block.write", Node: "a", Value: strings.Repeat("ä", 2000)}, "characters"},
	} {
		_, err := Apply(tt.page, tt.command, env)
		var p *doc.Problem
		if (tt.problem == "") != (err == nil) ||
			err != nil && (!errors.As(err, &p) || !strings.Contains(p.Message, tt.problem)) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

package edit

import (
	"testing"

	"openplot/core/doc"
)

// A picture goes to the first entry that has none, or to a new one; undo takes it back.
func TestFillEntry(t *testing.T) {
	e := env()
	p := page(e)
	res, err := Apply(p, Command{Op: "many", Parts: []Command{
		{Op: "section.add", Preset: "empty"}, {Op: "block.add", Node: "@1", Kind: doc.Gallery, Zone: "desktop"},
	}}, e)
	if err != nil {
		t.Fatal(err)
	}
	_, b := res.Page.Block(res.Select)
	n := len(b.Content.Entries)
	for i := range n + 1 {
		next, err := Apply(res.Page, Command{Op: "entry.fill", Node: b.ID, Setting: "picture", Value: "m1"}, e)
		if err != nil {
			t.Fatal(err)
		}
		res.Page = next.Page
		_, b = res.Page.Block(b.ID)
		if i >= len(b.Content.Entries) || b.Content.Entries[i].Values["picture"] != "m1" {
			t.Fatalf("picture %d isn't in entry %d of %d", i, i, len(b.Content.Entries))
		}
	}
	if len(b.Content.Entries) != n+1 {
		t.Errorf("there are %d entries, want %d", len(b.Content.Entries), n+1)
	}
	if _, err := Apply(res.Page, Command{Op: "entry.fill", Node: b.ID, Setting: "price", Value: "1"}, e); err == nil {
		t.Error("a setting that entries don't have is filled")
	}
	if _, err := Apply(res.Page, Command{Op: "entry.fill", Node: b.ID, Setting: "picture", Value: "nope"}, e); err == nil {
		t.Error("a picture that isn't there is taken")
	}
}

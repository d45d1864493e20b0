package edit

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit/edittest"
	"openplot/core/ready"
)

// blockIDs gives the ids of all blocks but the stacks that an arrangement made.
func blockIDs(s *doc.Section) []string {
	var ids []string
	s.Walk(func(b *doc.Block) {
		if b.Kind != doc.Container {
			ids = append(ids, b.ID)
		}
	})
	slices.Sort(ids)
	return ids
}

// A section goes through all arrangements and back without losing a block, and undo
// brings back the page as it was.
func TestArrangingLosesNoBlock(t *testing.T) {
	names := []string{"opening", "three", "over"}
	for i := range names {
		for _, to := range [][]string{{"columns", "placed"}, {"line-up", "columns", "placed"}, {"columns", "line-up", "placed"}} {
			e := env()
			s := edittest.Sections(e.NewID)[i]
			p := &doc.Page{ID: "p", Name: "P", Title: "P", Sections: []*doc.Section{s}}
			want := blockIDs(s)
			for _, value := range to {
				r, err := Apply(p, Command{Op: "arrange", Node: s.ID, Value: value}, e)
				if err != nil {
					t.Fatalf("%s to %s: %v", names[i], value, err)
				}
				if got := blockIDs(r.Page.Sections[0]); !slices.Equal(got, want) {
					t.Errorf("%s to %s holds %v, want %v", names[i], value, got, want)
				}
				back, _, err := Run(r.Page, r.Inverse)
				if err != nil || encoded(t, back) != encoded(t, p) {
					t.Errorf("%s: undoing %s gives another page (%v)", names[i], value, err)
				}
				p = r.Page
			}
		}
	}
}

func TestSeriesItemsSayTheirOwn(t *testing.T) {
	e := env()
	p := &doc.Page{ID: "p", Name: "P", Title: "P", Sections: []*doc.Section{ready.Presets[0].Make(e.NewID, nil)}}
	do := func(c Command) {
		t.Helper()
		c.Zone = "desktop"
		r, err := Apply(p, c, e)
		if err != nil {
			t.Fatalf("%s: %v", c.Op, err)
		}
		p = r.Page
	}
	do(Command{Op: "block.add", Node: p.Sections[0].ID, Kind: doc.Series})
	series := func() *doc.Block {
		bs := p.Sections[0].Blocks
		return bs[len(bs)-1]
	}
	heading := series().Blocks[0].Blocks[0].ID
	second := doc.ItemID(heading, series().Items[1].ID)
	do(Command{Op: "block.write", Node: second, Value: "<p>Changed</p>"})
	do(Command{Op: "set", Node: second, Setting: "text-align", Value: "center"})
	var said []string
	for _, it := range series().Items {
		b := it.Shows(series().Blocks[0]).Blocks[0]
		said = append(said, b.Content.Words.Plain())
		if b.Style["text-align"]["desktop"] != "center" {
			t.Error("the look isn't every item's")
		}
	}
	if fmt.Sprint(said) != "[The first Changed The third]" {
		t.Errorf("the items say %v", said)
	}
	// Taken out by the hand in the second item, it says what it said there, and that the others' are gone.
	r, err := Apply(p, Command{Op: "block.move", Node: second, Into: p.Sections[0].ID, Zone: "desktop"}, e)
	if err != nil {
		t.Fatal(err)
	}
	if _, b := r.Page.Block(heading); b.Content.Words.Plain() != "Changed" || !strings.Contains(r.Note, "other 2") {
		t.Errorf("taken out it says %q; %q", b.Content.Words.Plain(), r.Note)
	}
	if back, _, err := Run(r.Page, r.Inverse); err != nil || encoded(t, back) != encoded(t, p) {
		t.Errorf("and isn't put back: %v", err)
	}
	do(Command{Op: "item.add", Node: second})
	do(Command{Op: "item.shift", Node: second, DY: -1})
	if len(series().Items) != 4 || doc.ItemID(heading, series().Items[0].ID) != second {
		t.Errorf("%d items, the changed one isn't first", len(series().Items))
	}
	do(Command{Op: "delete", Node: doc.ItemID(series().Blocks[0].ID, series().Items[0].ID)})
	if len(series().Items) != 3 {
		t.Errorf("deleting an item leaves %d", len(series().Items))
	}
	if _, err := Apply(p, Command{Op: "block.write", Node: second, Value: "x"}, e); err == nil {
		t.Error("an item that is gone is written in")
	}
}

func TestMovingBetweenHolders(t *testing.T) {
	e := env()
	p := &doc.Page{ID: "p", Name: "P", Title: "P", Sections: []*doc.Section{{ID: "s", Name: "S"}}}
	do := func(c Command) error {
		c.Zone = "desktop"
		r, err := Apply(p, c, e)
		if err == nil {
			p = r.Page
		}
		return err
	}
	for _, k := range []doc.Kind{doc.Text, doc.Container} {
		if err := do(Command{Op: "block.add", Node: "s", Kind: k}); err != nil {
			t.Fatal(err)
		}
	}
	text, box := p.Sections[0].Blocks[0].ID, p.Sections[0].Blocks[1].ID
	if err := do(Command{Op: "block.move", Node: text, Into: box, After: "first"}); err != nil {
		t.Fatal(err)
	}
	if in := p.Sections[0].Blocks[0]; in.ID != box || in.Blocks[0].ID != text || len(in.Blocks) != 3 {
		t.Errorf("the text isn't the first in the container: %+v", in)
	}
	if err := do(Command{Op: "block.move", Node: box, Into: box}); err == nil {
		t.Error("a container stands in itself")
	}
	if err := do(Command{Op: "block.resize", Node: text, DX: 1}); err == nil {
		t.Error("a block of a line-up has cells")
	}
	// As deep as can be, and not deeper.
	node := box
	var err error
	for range doc.MaxDepth {
		if err = do(Command{Op: "block.add", Node: node, Kind: doc.Container}); err != nil {
			break
		}
		_, b := p.Block(node)
		node = b.Blocks[len(b.Blocks)-1].ID
	}
	if err == nil {
		t.Errorf("containers stand in more than %d others", doc.MaxDepth)
	}
}

package model

import (
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

// TestDid says commands as people would, by the names of what they were about.
func TestDid(t *testing.T) {
	p := &doc.Page{Sections: []*doc.Section{{ID: "s", Name: "Welcome", Arrangement: doc.LineUp, Blocks: []*doc.Block{
		{ID: "a", Kind: doc.Divider, Name: "Line"}, {ID: "b", Kind: doc.Heading, Name: "Title"},
	}}}}
	for _, one := range []struct {
		command edit.Command
		want    string
	}{
		{edit.Command{Op: "delete", Node: "a"}, "Delete: Line."},
		{edit.Command{Op: "block.add", Node: "s", Kind: doc.Card}, "Add card."},
		{edit.Command{Op: "blocks.group", Node: "a", With: []string{"b"}}, "Group: Line; Title."},
		{edit.Command{Op: "set", Node: "s", Setting: "padding-top", Value: "1px"}, "Padding top: Welcome."},
		{edit.Command{Op: "delete", Node: "gone"}, "Delete."},
		{edit.Command{Op: edit.Many, Parts: []edit.Command{{Op: "delete", Node: "a"}, {Op: "delete", Node: "b"}}}, "Delete."},
	} {
		if got := Did(p, one.command); got != one.want {
			t.Errorf("%s: %q, want %q", one.command.Op, got, one.want)
		}
	}
	if got := cells("row", 3, 1) + ", " + cells("column", 2, 4); got != "row 3, columns 2 to 5" {
		t.Error(got)
	}
}

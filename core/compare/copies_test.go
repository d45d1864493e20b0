package compare

import (
	"slices"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit/edittest"
)

// A copy with ids of its own is told as alike, with what was changed of it and no more; another section
// isn't one.
func TestCopies(t *testing.T) {
	n := 0
	newID := func(prefix string) string {
		n++
		return prefix + string(rune('a'+n/26%26)) + string(rune('a'+n%26)) + "x"
	}
	first, second := edittest.Sections(newID), edittest.Sections(newID)
	for i, s := range first {
		if changes, alike := Copies(s, second[i]); !alike || len(changes) > 0 {
			t.Errorf("%s: %v %v", s.Name, alike, changes)
		}
	}
	s, other := first[0], second[0].Clone()
	var words *doc.Block
	other.Walk(func(b *doc.Block) {
		if words == nil && len(b.Content.Words) > 0 {
			words = b
		}
	})
	if words == nil {
		t.Fatal("no block has words")
	}
	words.Content.Words = doc.PlainWords("Today")
	changes, alike := Copies(s, other)
	if !alike || len(changes) != 1 || changes[0].Kind != Words || changes[0].Node != words.ID {
		t.Errorf("%v %+v", alike, changes)
	}
	other.Blocks = slices.Delete(other.Blocks, 0, 1)
	if _, alike := Copies(s, other); alike {
		t.Error("without a block it is a copy")
	}
}

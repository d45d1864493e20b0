package edit

import (
	"strings"
	"testing"

	"openplot/core/doc"
)

// Every operation is said in words, for what undoes it.
func TestSaid(t *testing.T) {
	for op := range operations {
		if got := Said(Command{Op: op}); got == "" || inWords[op] == "" || strings.Contains(got, "%") {
			t.Errorf("%s is said as %q", op, got)
		}
	}
	for want, c := range map[string]Command{
		"add heading":         {Op: "block.add", Kind: doc.Heading},
		"font size":           {Op: "set", Setting: "font-size"},
		"reset shadow":        {Op: "follow", Setting: "box-shadow"},
		"delete":              {Op: Many, Parts: []Command{{Op: "delete"}, {Op: "delete"}}},
		"duplicate, and more": {Op: Many, Parts: []Command{{Op: "duplicate"}, {Op: "block.move"}}},
		"edit":                {Op: "what a later version does"},
	} {
		if got := Said(c); got != want {
			t.Errorf("%+v is said as %q, want %q", c, got, want)
		}
	}
}

package edit

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
)

// A table that is pasted is taken within its limits, or refused.
func FuzzCells(f *testing.F) {
	f.Add("a\tb\nc\td")
	f.Add(strings.Repeat("\t", 500) + "\n\n\r\n")
	var field *element.Field
	for _, k := range doc.Kinds {
		for i := range element.Of(k).Fields {
			if x := &element.Of(k).Fields[i]; x.Type == element.Cells {
				field = x
			}
		}
	}
	f.Fuzz(func(t *testing.T, pasted string) {
		kept, err := readCells(field, pasted)
		if err != nil {
			return
		}
		if n := strings.Count(kept, "\t") + strings.Count(kept, "\n"); n > doc.MaxCells {
			t.Errorf("%d cells", n)
		}
		again, err := readCells(field, kept)
		if err != nil || again != kept {
			t.Errorf("%q becomes %q, %v", kept, again, err)
		}
	})
}

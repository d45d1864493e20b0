package edit

import (
	"net/url"
	"strings"
	"testing"
	"unicode/utf8"

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

// An address that is taken leads where it says, and runs nothing.
func FuzzCheckLink(f *testing.F) {
	for _, s := range []string{"/fares#a", "https://example.org", "java\tscript:alert(1)", " JAVASCRIPT:x", "//example.org", "mailto:a@b", "data:text/html,x", "\x00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, address string) {
		kept, err := CheckLink(address)
		if err != nil || kept == "" {
			return
		}
		u, err := url.Parse(kept)
		if err != nil || !utf8.ValidString(kept) || strings.ContainsAny(kept, "\x00\n\r\t") {
			t.Errorf("%q: %v", kept, err)
			return
		}
		switch u.Scheme {
		case "", "http", "https", "mailto", "tel":
		default:
			t.Errorf("%q has the scheme %s", kept, u.Scheme)
		}
		if u.Scheme == "" && u.Host != "" {
			t.Errorf("%q leads to another host", kept)
		}
	})
}

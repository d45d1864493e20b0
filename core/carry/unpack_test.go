package carry

import (
	"encoding/json"
	"errors"
	"runtime"
	"strings"
	"testing"

	"openplot/core/doc"
)

// Small files that would become gigabytes are refused before anything is built.
func TestUnpackBounds(t *testing.T) {
	many := func(open, one, end string, n int) string {
		return open + strings.TrimSuffix(strings.Repeat(one+",", n), ",") + end
	}
	for name, text := range map[string]string{
		"sections":            many(`{"sections":[`, `{}`, `]}`, 5_000_000),
		"sections in capital": many(`{"SECTIONS":[`, `{}`, `]}`, 5_000_000),
		"an escaped name":     many("{\"\\u0073ections\":[", `{}`, `]}`, 5_000_000),
		"a folded name":       many(`{"ſections":[`, `{}`, `]}`, 5_000_000), // U+017F, which encoding/json takes for an s
		"one after another":   many(`{`, `"sections":[{}]`, `}`, 1_000_000),
		"nulls":               many(`{"sections":[`, `null`, `]}`, 3_000_000),
		"blocks":              many(`{"sections":[{"blocks":[`, `{}`, `]}]}`, 5_000_000),
		"blocks everywhere":   many(`{"sections":[{"blocks":[`, `{"blocks":[{}]}`, `]}]}`, 700_000),
		"items":               many(`{"sections":[{"blocks":[{"items":[`, `{}`, `]}]}]}`, 5_000_000),
		"deep":                strings.Repeat(`{"blocks":[`, 9000) + strings.Repeat(`]}`, 9000),
		"words":               many(`{"sections":[{"blocks":[{"content":{"words":[[`, `{}`, `]]}}]}]}`, 5_000_000),
		"a map":               many(`{"sections":[{"style":{`, `"a":{"b":"c"}`, `}}]}`, 1_200_000),
	} {
		b := []byte(text)
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		var p doc.Page
		err := Unpack(b, &p, maxValues, "File")
		runtime.ReadMemStats(&after)
		var problem *doc.Problem
		if !errors.As(err, &problem) {
			t.Errorf("%s: %v", name, err)
		}
		if took := (after.TotalAlloc - before.TotalAlloc) >> 20; took > 64 {
			t.Errorf("%s: %d MB for %d MB", name, took, len(b)>>20)
		}
	}
}

// The largest page there can be is read.
func TestUnpackLargePages(t *testing.T) {
	p := &doc.Page{ID: "p", Name: "Large", Title: "Large"}
	for i := range doc.MaxSections {
		s := &doc.Section{ID: "s", Name: "Section", Style: doc.Style{"padding": {"desktop": "10px", "phone": "5px"}}}
		for range doc.MaxBlocks / doc.MaxSections {
			b := &doc.Block{
				ID:    "b",
				Kind:  doc.Text,
				Place: doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 4, Row: i + 1, Rows: 2, Layer: 1}},
				Style: doc.Style{},
			}
			for _, name := range []string{"color", "font-size", "padding", "margin", "width", "border-radius", "background", "opacity", "shadow", "gap"} {
				b.Style[name] = doc.Zoned[string]{"desktop": "1px", "tablet": "2px", "phone": "3px"}
			}
			b.Content.Words = doc.Words{{{Text: "One"}, {Text: "two", Bold: true}}, {{Text: "three", Link: "/x"}}}
			s.Blocks = append(s.Blocks, b)
		}
		p.Sections = append(p.Sections, s)
	}
	b, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	var got doc.Page
	if err := Unpack(b, &got, maxValues, "File"); err != nil || len(got.Sections) != doc.MaxSections {
		t.Errorf("%d sections, %v", len(got.Sections), err)
	}
	for _, text := range []string{`{`, `[}`, `"x`, `{"a":1}{`, `{"a" 1}`, ``, `nul`} {
		var problem *doc.Problem
		if err := Unpack([]byte(text), &got, maxValues, "File"); err == nil || errors.As(err, &problem) {
			t.Errorf("%q: %v", text, err)
		}
	}
}

package check_test

import (
	"testing"

	"openplot/core/check"
	"openplot/demo"
)

// The sections of the demo's home page, each by itself: what an edit sweeps again.
func BenchmarkHomeBySection(b *testing.B) {
	lib, s := library(b), demo.Site()
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	page := prepared(b, lib, s, demo.Home(ids))
	for _, part := range page.Parts {
		if _, err := check.Section(b.Context(), part); err != nil { // words are shaped once
			b.Fatal(err)
		}
		b.Run(part.Section.Name, func(b *testing.B) {
			for b.Loop() {
				if _, err := check.Section(b.Context(), part); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

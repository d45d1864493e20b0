package main

import (
	"math"
	"math/rand/v2"
	"testing"

	"openplot/core/layout"
	"openplot/demo"
	"openplot/fonts"
)

// FuzzTree lays out random trees at random widths: finite numbers, and the same
// again after other widths.
func FuzzTree(f *testing.F) {
	for seed := range uint64(40) {
		f.Add(seed, 320+40.0*float64(seed))
	}
	f.Add(uint64(99), 1.0)
	f.Add(uint64(100), 1e7)
	lib, err := fonts.Library()
	if err != nil {
		f.Fatal(err)
	}
	s := demo.Site()
	f.Fuzz(func(t *testing.T, seed uint64, width float64) {
		if math.IsNaN(width) || math.Abs(width) > 1e9 {
			return
		}
		tree := layout.New(lib, s.Zones, generateTree(rand.New(rand.NewPCG(seed, 1)), s))
		sum := func() (v float64) {
			tree.At(width).Walk(func(b *layout.Box, x, y float64) {
				for _, n := range []float64{x, y, b.W, b.H} {
					if math.IsNaN(n) || math.IsInf(n, 0) {
						t.Fatalf("at %v px %s is at %v, %v and %v × %v", width, b.Node.Key, x, y, b.W, b.H)
					}
				}
				v += x + y + b.W + b.H
			})
			return v
		}
		first := sum()
		tree.At(width / 2)
		tree.At(777)
		if again := sum(); again != first {
			t.Errorf("at %v px the boxes add up to %v, then to %v", width, first, again)
		}
	})
}

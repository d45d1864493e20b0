package layout_test

import (
	"fmt"
	"math"
	"runtime"
	"sync/atomic"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/demo"
	"openplot/fonts"
)

// fresh is a library that has shaped nothing yet.
func fresh(t testing.TB) *shape.Library {
	t.Helper()
	lib, err := fonts.Load()
	if err != nil {
		t.Fatal(err)
	}
	return lib
}

// What Sweep keeps is what At gives.
func TestSweepIsAtAtEveryWidth(t *testing.T) {
	s := demo.Site()
	tr := tree(t, s, home())
	swept := tr.Sweep(320, 1920)
	index := map[*element.Node]int{}
	for i, n := range swept.Nodes {
		index[n] = i
	}
	for width := 320; width <= 1920; width += 37 {
		seen := 0
		layout.New(fresh(t), s.Zones, tr.Root).At(float64(width)).Walk(func(b *layout.Box, x, y float64) {
			i := index[b.Node]
			seen++
			gx, gy, gw, gh, ok := swept.Rect(i, width)
			if !ok || math.Abs(gx-x) > 0.01 || math.Abs(gy-y) > 0.01 || math.Abs(gw-b.W) > 0.01 ||
				math.Abs(gh-b.H) > 0.01 ||
				swept.Lines(
					i, width,
				) != len(b.Lines) {
				t.Fatalf(
					"at %d px %s is %v, %v, %v × %v, swept as %v, %v, %v × %v",
					width,
					b.Node.Key,
					x,
					y,
					b.W,
					b.H,
					gx,
					gy,
					gw,
					gh,
				)
			}
		})
		have := 0
		for i := range swept.Nodes {
			if _, _, _, _, ok := swept.Rect(i, width); ok {
				have++
			}
		}
		if have != seen {
			t.Errorf("at %d px %d boxes were swept, %d are there", width, have, seen)
		}
	}
}

// After an edit, what is used again gives the same as laying out all of it.
func TestNextTreeGivesTheSame(t *testing.T) {
	s := demo.Site()
	b := builder(s)
	b.Kept = map[*doc.Section]*element.Node{}
	p := demo.Sample(80)
	tr := layout.New(fresh(t), s.Zones, b.Page(p))
	tr.At(1280)
	for i := range 30 {
		p = edited(p, i)
		tr = tr.Next(b.Page(p))
		want := layout.New(fresh(t), s.Zones, builder(s).Page(p))
		for _, w := range []float64{1280, 375, 1281} {
			if got, want := boxes(tr.At(w)), boxes(want.At(w)); got != want {
				t.Fatalf("edit %d at %v px gives other boxes", i, w)
			}
		}
	}
}

func boxes(b *layout.Box) (out string) {
	b.Walk(func(b *layout.Box, x, y float64) {
		out += fmt.Sprintf("%s %.4f %.4f %.4f %.4f\n", b.Node.Key, x, y, b.W, b.H)
	})
	return out
}

// edited changes the words of one block.
func edited(p *doc.Page, i int) *doc.Page {
	next := p.Clone()
	k := i % len(next.Sections)
	s := next.Sections[k].Clone()
	for j, b := range s.Blocks {
		if b.Kind == doc.Text {
			c := b.Clone()
			c.Content.Words = doc.PlainWords(
				fmt.Sprintf("The boat of edit %d sails a little later than the one before it.", i),
			)
			s.Blocks[j] = c
			break
		}
	}
	next.Sections[k] = s
	return next
}

// Text is shaped within the time measured; fonts are loaded before.
func BenchmarkSweep(b *testing.B) {
	s := demo.Site()
	for _, n := range []int{20, 80, 320, 1280} {
		b.Run(fmt.Sprintf("%d blocks", n), func(b *testing.B) {
			root := builder(s).Page(demo.Sample(n))
			var peak uint64
			for b.Loop() {
				b.StopTimer()
				lib := fresh(b)
				runtime.GC()
				b.StartTimer()
				swept := layout.New(lib, s.Zones, root).Sweep(320, 1920)
				b.StopTimer()
				var m runtime.MemStats
				runtime.ReadMemStats(&m)
				peak = max(peak, m.HeapSys-m.HeapReleased)
				runtime.KeepAlive(swept)
				b.StartTimer()
			}
			b.ReportMetric(float64(peak)/(1<<20), "MB-heap")
		})
	}
}

// One layout at one width after a change of one block of 80.
func BenchmarkAfterAnEdit(b *testing.B) {
	s := demo.Site()
	lib := fresh(b)
	bu := builder(s)
	bu.Kept = map[*doc.Section]*element.Node{}
	p := demo.Sample(80)
	tr := layout.New(lib, s.Zones, bu.Page(p))
	tr.At(1280)
	for i := 0; b.Loop(); i++ {
		b.StopTimer()
		p = edited(p, i)
		root := bu.Page(p)
		b.StartTimer()
		tr = tr.Next(root)
		tr.At(1280)
	}
}

// What is not wanted any more ends at once, on all processors.
func TestEachEndsWhenItIsTold(t *testing.T) {
	s := demo.Site()
	tr := layout.New(fresh(t), s.Zones, builder(s).Page(demo.Sample(20)))
	var seen atomic.Int64
	tr.Each(320, 1920, func(int, *layout.Box) bool {
		seen.Add(1)
		return false
	})
	if n := seen.Load(); n < 1 || n > int64(runtime.GOMAXPROCS(0)) {
		t.Errorf("%d widths were laid out after none was wanted", n)
	}
}

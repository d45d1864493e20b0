package check_test

import (
	"strings"
	"testing"

	"openplot/core/layout"
	"openplot/core/ready"
	"openplot/core/style"
	"openplot/demo"
)

// What sections that ship are held to: characters a line of running text has at most (45 to 75 are common practice,
// WCAG 2.2's 1.4.8 asks for at most 80), and from which size in px on no heading ends with a short word alone.
const (
	longestLine = 75
	largeType   = 28
)

// Ready-made sections and pages are well set at a phone's, a tablet's, a laptop's and a large window's width, in house
// styles of three kinds: the widest letters, a dark one, and one in a serif.
func TestReadySectionsAreWellSet(t *testing.T) {
	lib := library(t)
	lines := 0
	for _, id := range []string{"ready:harbour-light", "ready:night-watch", "ready:printshop"} {
		s := demo.Site()
		s.House = ready.FindHouse(id).House()
		for _, p := range shipped(t, s) {
			if strings.HasPrefix(p.Name, "kind ") { // blocks in settings that nobody has to choose
				continue
			}
			for _, part := range prepared(t, lib, s, p).Parts {
				tree := part.Tree()
				for _, w := range []int{375, 800, 1280, 1920} {
					view := style.Viewport{Width: float64(w)}
					tree.At(float64(w)).Walk(func(b *layout.Box, _, _ float64) {
						of := func(f string, args ...any) {
							t.Helper()
							t.Errorf(
								"%s, %s, %s at %d: "+f,
								append([]any{id, p.Name, part.Section.Name, w}, args...)...)
						}
						k := len(b.Lines)
						for i, l := range b.Lines {
							if lines++; i < k-1 && l.Runes > longestLine {
								of("a line of %d characters", l.Runes)
							}
						}
						st := &b.Node.Styles[tree.Zone(w)]
						if k > 1 && b.Lines[k-1].Alone && b.Lines[k-1].W < b.Lines[0].W/2 &&
							st.FontPx(view) > largeType {
							of("%q ends with a word alone", b.Node.Children[0].Text)
						}
					})
				}
			}
		}
	}
	if lines < 5_000 {
		t.Errorf("only %d lines were looked at", lines)
	}
}

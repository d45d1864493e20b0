// Package check finds what no designer would take on a page: from its boxes at every
// width, and from its elements.
//
// In comes a layout.Tree or a tree of elements, out go Findings, each with the widths it
// holds for. One file holds one rule. Start at Sweep.
package check

import (
	"cmp"
	"slices"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/style"
)

// Rule is what a finding offends against.
type Rule string

// The rules.
const (
	BesidePage Rule = "beside-page" // a box reaches past the page's edge, so that it scrolls sideways (WCAG 2.2, 1.4.10)
	LongWord   Rule = "long-word"   // words are wider than where they stand
	WordsOver  Rule = "words-over"  // words of two blocks lie over one another
	Contrast   Rule = "contrast"    // words can't be read on their ground (WCAG 2.2, 1.4.3)
)

// Finding is one thing that is wrong.
type Finding struct {
	Rule Rule
	// Node is the section or block that it is about, and Other a second one or "".
	Node, Other string
	// From and To are the widths in px that it holds for, 0 for all.
	From, To int
	// By says how much: px too wide, or a contrast ratio; the worst of the widths.
	By float64
	// Words are those that it is about, or "".
	Words string
}

// key tells findings apart but for their widths and how much.
type key struct {
	rule        Rule
	node, other string
}

func (f *Finding) key() key { return key{f.Rule, f.Node, f.Other} }

// At gives what is wrong with the boxes of a page at a width in px.
func At(page *layout.Box, width float64, zone int) []Finding {
	s := &sight{width: width, zone: zone}
	s.walk(page, 0, 0, width, "")
	s.overlaps()
	return s.findings
}

// Sweep gives what is wrong at the widths from one to another, in px, each finding once
// for every range of widths that it holds for. Of widths in between steps nothing is known.
func Sweep(t *layout.Tree, zones doc.Zones, from, to, step int) []Finding {
	var out []Finding
	open := map[key]int{} // findings of the last width, by their index in out
	for w := from; w <= to; w += step {
		still := map[key]int{}
		for _, f := range At(t.At(float64(w)), float64(w), zones.At(float64(w))) {
			i, ok := open[f.key()]
			if j, twice := still[f.key()]; twice {
				i, ok = j, true
			}
			if !ok {
				i = len(out)
				f.From = w
				out = append(out, f)
			}
			out[i].To, out[i].By = w, max(out[i].By, f.By)
			still[f.key()] = i
		}
		open = still
	}
	slices.SortStableFunc(out, func(a, b Finding) int { return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.Node, b.Node)) })
	return out
}

// line is a line of words where it is seen.
type line struct {
	block      string
	x, y, w, h float64
}

// sight is what is seen of a page at a width.
type sight struct {
	width    float64
	zone     int
	lines    []line
	findings []Finding
}

// slack is how far, in px, something may be off without being seen.
const slack = 0.5

// walk looks at a box at a place and all in it. width is that of what it may not reach
// past; node is the section or block that it is part of.
func (s *sight) walk(b *layout.Box, x, y, width float64, node string) {
	st := &b.Node.Styles[s.zone]
	if st.Display == style.None {
		return
	}
	node = cmp.Or(b.Node.Block, b.Node.Section, node)
	s.besidePage(b, x, width, node)
	s.longWords(b, width, node)
	for _, l := range b.Lines {
		s.lines = append(s.lines, line{node, x + l.X, y + l.Y, l.W, l.H})
	}
	if st.Overflow != style.Visible || st.Rotate != 0 { // what is beside it is scrolled to or cut off; what is in it is turned with it
		width = unbounded
	}
	for _, c := range b.Children {
		s.walk(c.Box, x+c.X, y+c.Y, width, node)
	}
}

// unbounded is the width of what can be scrolled.
const unbounded = 1e9

// words gives what a node says, for findings about elements.
func words(n *element.Node) string {
	r := []rune(n.Text)
	return string(r[:min(len(r), 40)])
}

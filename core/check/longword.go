package check

import (
	"fmt"
	"strconv"

	"openplot/core/edit"
	"openplot/core/style"
)

// A line is wider than the box it stands in only where a word has no place to be broken at.
var longWord = Rule{
	repair: mendLongWord,
	ID:     "long-word", Name: "A word is too long for its place", Family: Layout, Severity: Doubtful,
	What:  "a line is wider than its box",
	Why:   "It runs over what is beside it, or out of its box.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("a word %.0f px too long", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("A word of %s is %.0f px too long", name(f.Node), f.By)
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("“%s” has no place to be broken at, at %d px.", f.Words, f.Worst)
	},
	at: func(s *sight) {
		for i := range s.lines {
			l := &s.lines[i]
			b := &s.boxes[l.box]
			if b.free {
				continue
			}
			if by := max(b.x-l.x, l.x+l.w-b.x-b.W); by > slack {
				s.noteWords(b.node(), "", "", by, 0, start(b.text))
			}
		}
	},
}

func mendLongWord(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("font-size", b.Kind) == nil {
		return nil
	}
	// As much smaller as the line is too long for its place.
	var size, room float64
	p.seen(f, func(s *sight, in *box) {
		for _, l := range in.Lines {
			if l.W > in.W && (room == 0 || in.W/l.W < room) {
				size, room = in.st.FontPx(s.view), in.W/l.W
			}
		}
	})
	if size == 0 || size*room < leastSize {
		return nil
	}
	v := strconv.Itoa(int(size*room)) + "px"
	return &Repair{
		v + " in " + p.where(f),
		edit.Command{Op: "set", Node: b.ID, Zone: p.at(f), Setting: "font-size", Value: v},
	}
}

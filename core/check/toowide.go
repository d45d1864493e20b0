package check

import (
	"fmt"

	"openplot/core/style"
)

// A box with a ground or a border shows where it ends, so that what reaches past it is seen to.
var tooWide = Rule{
	ID: "too-wide", Name: "Wider than what it stands in", Family: Layout, Severity: Doubtful,
	What: "a block is wider than the filled or bordered one it stands in, and not by a negative margin",
	Why:  "What has an edge of its own seems to burst.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%.0f px wider than %s", f.By, name(f.Other))
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s is %.0f px wider than %s", name(f.Node), f.By, name(f.Other))
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if !b.top || b.block == "" || b.free || b.clip >= 0 || b.st.Position == style.Absolute ||
				b.st.TranslateX != 0 ||
				b.st.Rotate != 0 {
				continue
			}
			if m := b.st.Margin; m.Left.N < 0 || m.Right.N < 0 { // it is meant to
				continue
			}
			for up := b.up; up >= 0; up = s.boxes[up].up {
				o := &s.boxes[up]
				if !o.top || o.block == "" || o.st.Background == "" && o.st.Border.Left == 0 && o.st.Border.Right == 0 {
					continue
				}
				if by := max(o.x-b.x, b.x+b.W-o.x-o.W); by > 1 {
					s.note(b.block, o.block, by)
				}
				break
			}
		}
	},
}

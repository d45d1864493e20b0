package check

import (
	"fmt"
	"math"
	"slices"
)

// By how much edges or gaps are taken to miss each other, px: common practice, not a standard.
const (
	leastMiss = 1.0
	mostMiss  = 4.0
)

var nearMiss = Rule{
	ID: "near-miss", Name: "Edges or gaps nearly meet", Family: Layout, Severity: Hint, least: 100,
	What: "edges or gaps differ by 1 to 4 px, over 100 px of width at least",
	Why:  "A few px look like a mistake; either they are the same, or clearly not.",
	title: func(f *Finding, name func(string) string) string {
		if f.Part == "gap" {
			return fmt.Sprintf("Gaps differ by %.0f px at %s", f.By, name(f.Node))
		}
		return fmt.Sprintf(
			"%s edges are %.0f px apart",
			map[string]string{"left": "Left", "right": "Right", "top": "Upper"}[f.Part],
			f.By,
		)
	},
	say: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s and %s, at %d px.", name(f.Node), name(f.Other), f.Worst)
	},
	at: func(s *sight) {
		var mine []*box
		for i := range s.boxes {
			if b := &s.boxes[i]; s.stands(b) && b.st.Rotate == 0 {
				mine = append(mine, b)
			}
		}
		for i, a := range mine {
			for _, b := range mine[:i] {
				if a.above != b.above || a.block == b.block {
					continue
				}
				if math.Abs((a.x+a.W/2)-(b.x+b.W/2)) < 1 || math.Abs((a.y+a.H/2)-(b.y+b.H/2)) < 1 {
					continue // one is in the middle of the other
				}
				beside := a.y < b.y+b.H && b.y < a.y+a.H
				if left := math.Abs(a.x - b.x); !beside && missed(left) && math.Abs(a.x+a.W-b.x-b.W) > slack {
					s.noteWords(a.block, b.block, "left", left, 0, "")
				} else if right := math.Abs(a.x + a.W - b.x - b.W); !beside && missed(right) && left > slack && a.st.MaxWidth == b.st.MaxWidth {
					s.noteWords(a.block, b.block, "right", right, 0, "")
				}
				if top := math.Abs(a.y - b.y); beside && missed(top) && math.Abs(a.y+a.H-b.y-b.H) > slack {
					s.noteWords(a.block, b.block, "top", top, 0, "")
				}
			}
		}
		s.gaps(mine)
	},
}

func missed(by float64) bool { return by >= leastMiss && by <= mostMiss }

// gaps looks at those between blocks that stand below each other, left edge below left edge.
func (s *sight) gaps(mine []*box) {
	if len(mine) < 3 {
		return
	}
	stack := slices.Clone(mine)
	slices.SortStableFunc(stack, func(a, b *box) int {
		switch {
		case a.above != b.above:
			if a.above < b.above {
				return -1
			}
			return 1
		case math.Abs(a.x-b.x) > slack:
			if a.x < b.x {
				return -1
			}
			return 1
		case a.y < b.y:
			return -1
		case a.y > b.y:
			return 1
		}
		return 0
	})
	last := math.NaN()
	for i := 1; i < len(stack); i++ {
		a, b := stack[i-1], stack[i]
		gap := b.y - a.y - a.H
		if a.above != b.above || math.Abs(a.x-b.x) > slack || gap < 0 {
			last = math.NaN()
			continue
		}
		if by := math.Abs(gap - last); missed(by) {
			s.noteWords(b.block, a.block, "gap", by, 0, "")
		}
		last = gap
	}
}

package place

import "math"

// Gap is where something would go among blocks that stand in order: before the one with that
// index, or behind the last. Line is what is drawn there, in px; its width or its height is 0.
type Gap struct {
	Index int
	Line  Rect
}

// Insert finds the gap that is nearest to a point among the boxes of blocks that follow one
// another in lines, across or down, in an area; all are in px of one origin. The order is the
// document's. across says how a single block stands.
func Insert(boxes []Rect, across bool, area Rect, x, y float64) Gap {
	if len(boxes) == 0 {
		return Gap{0, Rect{area.X, area.Y, area.W, 0}}
	}
	lines := linesOf(boxes)
	near, best := lines[0], math.Inf(1)
	for _, l := range lines {
		if d := beyond(y, l.box.Y, l.box.Y+l.box.H); d < best {
			near, best = l, d
		}
	}
	if near.n == 1 && !(across && len(boxes) == 1) {
		return between(boxes, near.from, y, area)
	}
	at := near.from + near.n
	for i := near.from; i < near.from+near.n; i++ {
		if x < boxes[i].X+boxes[i].W/2 {
			at = i
			break
		}
	}
	g := Gap{Index: at, Line: Rect{Y: near.box.Y, H: near.box.H}}
	switch {
	case at == near.from:
		g.Line.X = max(boxes[at].X-edgeGap, area.X)
	case at == near.from+near.n:
		g.Line.X = min(boxes[at-1].X+boxes[at-1].W+edgeGap, area.X+area.W)
	default:
		g.Line.X = (boxes[at-1].X + boxes[at-1].W + boxes[at].X) / 2
	}
	return g
}

// edgeGap is how far outside the first and the last of a line its gaps are drawn, in px.
const edgeGap = 4

// between is the gap above or below a box that is alone in its line.
func between(boxes []Rect, i int, y float64, area Rect) Gap {
	b := boxes[i]
	g := Gap{Index: i, Line: Rect{X: b.X, W: b.W}}
	if y >= b.Y+b.H/2 {
		g.Index = i + 1
	}
	switch {
	case g.Index == 0:
		g.Line.Y = max(b.Y-edgeGap, area.Y)
	case g.Index == len(boxes):
		last := boxes[len(boxes)-1]
		g.Line.Y = last.Y + last.H + edgeGap
	default:
		g.Line.Y = (boxes[g.Index-1].Y + boxes[g.Index-1].H + boxes[g.Index].Y) / 2
	}
	return g
}

// line is a run of boxes beside one another.
type line struct {
	from, n int
	box     Rect
}

// linesOf parts boxes into lines: a box stands beside the one before it where they share
// more than half of the lower one's height.
func linesOf(boxes []Rect) (lines []line) {
	for i, b := range boxes {
		if k := len(lines) - 1; k >= 0 {
			was := boxes[i-1]
			shared := min(was.Y+was.H, b.Y+b.H) - max(was.Y, b.Y)
			if shared > min(was.H, b.H)/2 && b.X != was.X {
				l := &lines[k]
				bottom := max(l.box.Y+l.box.H, b.Y+b.H)
				l.box.Y = min(l.box.Y, b.Y)
				l.box.H = bottom - l.box.Y
				l.n++
				continue
			}
		}
		lines = append(lines, line{i, 1, b})
	}
	return lines
}

// beyond is how far a number is outside a range.
func beyond(v, from, to float64) float64 { return max(from-v, v-to, 0) }

//go:build js && wasm

// Command gestures is the part of core that answers in the browser while a pointer
// moves: where a block would snap, which guides to show, and what a colour is like.
//
// It sets globalThis.openplotGestures with functions that take and fill typed
// arrays, since crossing with JSON would take longer than a frame's share.
package main

import (
	"encoding/binary"
	"math"
	"syscall/js"

	"openplot/core/doc"
	"openplot/core/place"
)

// gesture is what begin left for the moves.
type gesture struct {
	grid   place.Metrics
	at     doc.Place
	others []place.Rect
	area   place.Rect
}

var (
	now gesture
	// out is where answers are written: column, span, row, rows, x, y, width, height, the
	// number of guides and of gaps, then 4 numbers a guide (1 for vertical, its position, its
	// two ends) and 5 a gap (1 for across, where it is drawn, its two ends, 1 for equal to
	// another), all float64 in little-endian order.
	out = make([]byte, 8*outNumbers)
)

const outNumbers = 256

func main() {
	js.Global().Set("openplotGestures", js.ValueOf(map[string]any{
		"begin": js.FuncOf(begin),
		"move":  js.FuncOf(move),
		"pull":  js.FuncOf(pull),
		"at":    js.FuncOf(at),
		"gap":   js.FuncOf(gap),
		"snap":  js.FuncOf(snap),

		"plane":    js.FuncOf(plane),
		"colour":   js.FuncOf(readColour),
		"lch":      js.FuncOf(lch),
		"chroma":   js.FuncOf(chroma),
		"scale":    js.FuncOf(scale),
		"contrast": js.FuncOf(contrast),
		"convert":  js.FuncOf(convert),
	}))
	js.Global().Call("dispatchEvent", js.Global().Get("Event").New("openplot:gestures"))
	select {}
}

// begin(grid, place, others, area) starts a gesture. grid is a Uint8Array over float64s:
// the number of columns, their widths, the number of rows, their heights, column gap, row gap,
// height of further rows. place is 4 numbers, others 4 a box, in px from the grid's content
// edges as area is.
func begin(_ js.Value, args []js.Value) any {
	g := floats(args[0])
	next := func() float64 {
		if len(g) == 0 {
			return 0
		}
		v := g[0]
		g = g[1:]
		return v
	}
	list := func() []float64 {
		l := make([]float64, min(max(int(next()), 0), len(g)))
		copy(l, g)
		g = g[len(l):]
		return l
	}
	now = gesture{grid: place.Metrics{Columns: list(), Rows: list(), ColumnGap: next(), RowGap: next(), RowHeight: next()}}
	for i, p := range places(floats(args[1])) {
		if i == 0 {
			now.at = p
		}
	}
	now.others, now.area = rects(floats(args[2])), place.Rect{}
	for _, r := range rects(floats(args[3])) {
		now.area = r
	}
	return nil
}

func places(f []float64) []doc.Place {
	var ps []doc.Place
	for ; len(f) >= 4; f = f[4:] {
		ps = append(ps, doc.Place{Column: int(f[0]), Span: int(f[1]), Row: int(f[2]), Rows: int(f[3])})
	}
	return ps
}

// move(into, x, y) answers where the block lands with its corner dragged to x, y.
func move(_ js.Value, args []js.Value) any {
	return answer(args[0], now.grid.Move(now.at, args[1].Float(), args[2].Float()))
}

// pull(into, edges, x, y, w, h) answers for edges pulled to a rectangle.
func pull(_ js.Value, args []js.Value) any {
	r := place.Rect{X: args[2].Float(), Y: args[3].Float(), W: args[4].Float(), H: args[5].Float()}
	return answer(args[0], now.grid.Pull(now.at, place.Edge(args[1].Int()), r))
}

// at(into, x, y, twelfths, rows) answers for a new block of that size dropped at a
// point.
func at(_ js.Value, args []js.Value) any {
	span := place.Span(args[3].Int(), len(now.grid.Columns))
	return answer(args[0], now.grid.At(args[1].Float(), args[2].Float(), span, args[4].Int()))
}

// gap(into, boxes, across, area, x, y) answers where something goes among blocks in order:
// its index, then the line's x, y, width and height. boxes are 4 numbers a block, area 4.
func gap(_ js.Value, args []js.Value) any {
	var area place.Rect
	if rs := rects(floats(args[3])); len(rs) > 0 {
		area = rs[0]
	}
	g := place.Insert(rects(floats(args[1])), args[2].Bool(), area, args[4].Float(), args[5].Float())
	js.CopyBytesToJS(args[0], out[:8*put(float64(g.Index), g.Line.X, g.Line.Y, g.Line.W, g.Line.H)])
	return nil
}

// snap(into, px, steps, near, only) answers what a measure becomes, and the step's index or -1.
func snap(_ js.Value, args []js.Value) any {
	px, at := place.Snap(args[1].Float(), floats(args[2]), args[3].Float(), args[4].Bool())
	js.CopyBytesToJS(args[0], out[:8*put(px, float64(at))])
	return nil
}

func rects(f []float64) (rs []place.Rect) {
	for ; len(f) >= 4; f = f[4:] {
		rs = append(rs, place.Rect{X: f[0], Y: f[1], W: f[2], H: f[3]})
	}
	return rs
}

// put writes numbers at the beginning of out, and says how many there are.
func put(vs ...float64) int {
	for i, v := range vs {
		binary.LittleEndian.PutUint64(out[8*i:], math.Float64bits(v))
	}
	return len(vs)
}

func answer(into js.Value, p doc.Place) any {
	r := now.grid.Rect(p)
	guides, gaps := place.Guides(r, now.others, now.area), place.Gaps(r, now.others, now.area)
	guides = guides[:min(len(guides), 24)]
	numbers := []float64{float64(p.Column), float64(p.Span), float64(p.Row), float64(p.Rows), r.X, r.Y, r.W, r.H, float64(len(guides)), float64(len(gaps))}
	flag := func(b bool) float64 {
		if b {
			return 1
		}
		return 0
	}
	for _, g := range guides {
		numbers = append(numbers, flag(g.Vertical), g.At, g.From, g.To)
	}
	for _, g := range gaps {
		numbers = append(numbers, flag(g.Across), g.At, g.From, g.To, flag(g.Equal))
	}
	js.CopyBytesToJS(into, out[:8*put(numbers...)])
	return nil
}

// floats reads a Uint8Array of float64s.
func floats(v js.Value) []float64 {
	b := make([]byte, v.Get("length").Int())
	js.CopyBytesToGo(b, v)
	f := make([]float64, len(b)/8)
	for i := range f {
		f[i] = math.Float64frombits(binary.LittleEndian.Uint64(b[8*i:]))
	}
	return f
}

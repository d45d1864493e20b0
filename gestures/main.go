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

var (
	now gesture
	// out is where answers are written, as float64 in little-endian order.
	out = make([]byte, 8*outNumbers)
)

// outNumbers is how many numbers an answer has at most.
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
	now = begun(floats(args[0]), floats(args[1]), floats(args[2]), floats(args[3]))
	return nil
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
	return fill(args[0], inserted(floats(args[1]), args[2].Bool(), floats(args[3]), args[4].Float(), args[5].Float()))
}

// snap(into, px, steps, near, only) answers what a measure becomes, and the step's index or -1.
func snap(_ js.Value, args []js.Value) any {
	px, at := place.Snap(args[1].Float(), floats(args[2]), args[3].Float(), args[4].Bool())
	return fill(args[0], []float64{px, float64(at)})
}

// put writes numbers at the beginning of out, and says how many there are.
func put(vs ...float64) int {
	for i, v := range vs {
		binary.LittleEndian.PutUint64(out[8*i:], math.Float64bits(v))
	}
	return len(vs)
}

func answer(into js.Value, p doc.Place) any { return fill(into, now.numbers(p)) }

func fill(into js.Value, numbers []float64) any {
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

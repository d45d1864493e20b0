//go:build !(js && wasm)

package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"math"
	"math/rand/v2"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/place"
)

// call is what the Bench asks the WebAssembly.
type call struct {
	Op   string `json:"op"`
	Args []any  `json:"args"`
}

// gestures makes calls of n gestures, each with where it begins, and what Go answers to them.
func gestures(n int) (calls []call, answers [][]float64) {
	r := rand.New(rand.NewPCG(12, 12))
	flat := func(n int, f func() [4]float64) (out []float64) {
		for range n {
			b := f()
			out = append(out, b[:]...)
		}
		return out
	}
	box := func() [4]float64 {
		return [4]float64{
			float64(r.IntN(1080)),
			float64(r.IntN(900)),
			float64(20 + r.IntN(500)),
			float64(10 + r.IntN(300)),
		}
	}
	area := []float64{0, 0, 1080, 700}
	for range n {
		columns := 1 + r.IntN(16)
		width := r.Float64() * 120
		grid := []float64{float64(columns)}
		for range columns {
			grid = append(grid, width)
		}
		rows := r.IntN(20)
		grid = append(grid, float64(rows))
		for range rows {
			grid = append(grid, 24+r.Float64()*80)
		}
		grid = append(grid, r.Float64()*40, r.Float64()*20, 24)
		own := []float64{float64(1 + r.IntN(columns)), 1, float64(1 + r.IntN(10)), float64(1 + r.IntN(5))}
		others := flat(r.IntN(30), box)
		g := begun(grid, own, others, area)
		calls = append(calls, call{"begin", []any{grid, own, others, area}})
		x, y := r.Float64()*1200-60, r.Float64()*1200-60
		b := box()
		ask := func(op string, want []float64, args ...any) {
			calls, answers = append(calls, call{op, args}), append(answers, want)
		}
		switch r.IntN(5) {
		case 0:
			ask("move", g.numbers(g.grid.Move(g.at, x, y)), x, y)
		case 1:
			edges := 1 + r.IntN(15)
			ask(
				"pull",
				g.numbers(g.grid.Pull(g.at, place.Edge(edges), place.Rect{X: b[0], Y: b[1], W: b[2], H: b[3]})),
				edges,
				b[0],
				b[1],
				b[2],
				b[3],
			)
		case 2:
			span, rows := 1+r.IntN(12), 1+r.IntN(6)
			ask("at", g.numbers(g.grid.At(x, y, place.Span(span, columns), rows)), x, y, span, rows)
		case 3:
			boxes, across := flat(r.IntN(12), box), r.IntN(2) == 0
			ask("gap", inserted(boxes, across, area, x, y), boxes, across, area, x, y)
		case 4:
			var steps []float64
			for range r.IntN(8) {
				steps = append(steps, math.Round(r.Float64()*200))
			}
			only := r.IntN(4) == 0
			px, at := place.Snap(x, steps, 5, only)
			ask("snap", []float64{px, float64(at)}, x, append([]float64{}, steps...), 5, only)
		}
	}
	return calls, answers
}

// What the browser is answered during gestures, through typed arrays, is what the server makes
// of them: ten thousand of them are replayed both ways.
func TestGesturesAreTheSameInTheBrowser(t *testing.T) {
	node, err := exec.LookPath("node")
	if err != nil {
		t.Skip("node isn't installed; the browser tests need it")
	}
	wasm := filepath.Join(t.TempDir(), "gestures.wasm")
	build := exec.Command("go", "build", "-o", wasm, ".")
	build.Env = append(build.Environ(), "GOOS=js", "GOARCH=wasm")
	if out, err := build.CombinedOutput(); err != nil {
		t.Fatalf("building: %v: %s", err, out)
	}
	calls, want := gestures(10_000)
	var in bytes.Buffer
	enc := json.NewEncoder(&in)
	for _, c := range calls {
		for i, a := range c.Args {
			if f, ok := a.([]float64); ok && f == nil {
				c.Args[i] = []float64{} // as JavaScript has it
			}
		}
		if err := enc.Encode(c); err != nil {
			t.Fatal(err)
		}
	}
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		t.Fatal(err)
	}
	replay := exec.Command(
		node,
		"replay.mjs",
		filepath.Join(strings.TrimSpace(string(root)), "lib", "wasm", "wasm_exec.js"),
		wasm,
	)
	var stderr bytes.Buffer
	replay.Stdin, replay.Stderr = &in, &stderr
	out, err := replay.Output()
	if err != nil {
		t.Fatalf("replaying on %s: %v: %s", runtime.Version(), err, stderr.String())
	}
	lines := bufio.NewScanner(bytes.NewReader(out))
	lines.Buffer(nil, 1<<20)
	for i := range want {
		if !lines.Scan() {
			t.Fatalf("%d answers came of %d", i, len(want))
		}
		var got []float64
		if err := json.Unmarshal(lines.Bytes(), &got); err != nil {
			t.Fatal(err)
		}
		for k, v := range want[i] {
			if math.Abs(got[k]-v) > 1e-9*max(1, math.Abs(v)) {
				t.Fatalf("gesture %d, number %d: the browser is answered %v, Go makes it %v", i, k, got[k], v)
			}
		}
	}
}

func TestPlaces(t *testing.T) {
	g := begun([]float64{2, 100, 100, 1, 24, 20, 8, 24}, []float64{2, 1, 1, 1}, nil, nil)
	if g.at != (doc.Place{Column: 2, Span: 1, Row: 1, Rows: 1}) || g.grid.ColumnGap != 20 || g.grid.RowHeight != 24 {
		t.Errorf("begun with %+v", g)
	}
}

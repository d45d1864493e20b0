package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/core/style"
)

// flexTree is a tree of boxes without text, as e2e/yoga.mjs reads it: what Yoga and
// CSS have the same rules for. Every box has a minimum of 0, since Yoga has no
// automatic ones, and no other limit, since Yoga freezes items in two passes only
// where CSS goes on (CSS Flexbox 1 §9.7 step 4). Shrink factors are all 1 and there is
// no padding, since Yoga's shrink in proportion to border boxes.
type flexTree struct {
	Direction  string      `json:"direction,omitempty"`
	Wrap       bool        `json:"wrap,omitempty"`
	Justify    string      `json:"justify,omitempty"`
	AlignItems string      `json:"alignItems,omitempty"`
	AlignSelf  string      `json:"alignSelf,omitempty"`
	Width      *float64    `json:"width,omitempty"`
	Height     *float64    `json:"height,omitempty"`
	MinWidth   *float64    `json:"minWidth,omitempty"`
	MinHeight  *float64    `json:"minHeight,omitempty"`
	Grow       *float64    `json:"grow,omitempty"`
	Basis      *float64    `json:"basis,omitempty"`
	Gap        float64     `json:"gap,omitempty"`
	Margin     []float64   `json:"margin,omitempty"`
	Children   []*flexTree `json:"children,omitempty"`
}

func randomFlex(r *rand.Rand, depth int, inWrap bool) *flexTree {
	px := func(from, to int) *float64 { v := float64(from + r.IntN(to-from+1)); return &v }
	zero := 0.0
	t := &flexTree{MinWidth: &zero, MinHeight: &zero}
	if r.IntN(3) == 0 && !inWrap { // Yoga loses margins in wrapped lines
		t.Margin = []float64{*px(0, 12), *px(0, 12), *px(0, 12), *px(0, 12)}
	}
	if r.IntN(3) > 0 {
		t.Grow = px(0, 2)
	}
	if r.IntN(3) == 0 {
		t.Basis = px(0, 200)
	}
	if r.IntN(5) == 0 {
		t.AlignSelf = []string{"start", "center", "end", "stretch"}[r.IntN(4)]
	}
	if depth == 0 {
		t.Width, t.Height = px(10, 180), px(10, 120)
		return t
	}
	t.Width, t.Height = px(150, 600), px(100, 400)
	t.Direction = []string{"row", "row-reverse", "column", "column-reverse"}[r.IntN(4)]
	t.Wrap = r.IntN(3) == 0
	t.Justify = []string{"", "start", "center", "end", "space-between"}[r.IntN(5)]
	t.AlignItems = []string{"", "start", "center", "end", "stretch"}[r.IntN(5)]
	t.Gap = float64(r.IntN(3) * 7)
	for range 1 + r.IntN(5) {
		t.Children = append(t.Children, randomFlex(r, r.IntN(depth), t.Wrap))
	}
	return t
}

var (
	byDirection = map[string]style.FlexDirection{
		"": style.Row, "row": style.Row, "row-reverse": style.RowReverse, "column": style.Column,
		"column-reverse": style.ColumnReverse,
	}
	// Yoga's start and end are flex-start and flex-end, which differ from start and
	// end along a reversed axis.
	byAlign = map[string]style.Alignment{
		"": style.AlignAuto, "start": style.AlignStart, "center": style.AlignCenter, "end": style.AlignEnd,
		"stretch": style.AlignStretch, "space-between": style.SpaceBetween,
	}
)

func (t *flexTree) node() *element.Node {
	var s style.Style
	s.FontFamily, s.FontSize = "none", style.Pixels(16)
	s.Display, s.FlexDirection = style.Flex, byDirection[t.Direction]
	if t.Wrap {
		s.FlexWrap = style.Wrap
	}
	s.JustifyContent, s.AlignItems, s.AlignSelf = byAlign[t.Justify], byAlign[t.AlignItems], byAlign[t.AlignSelf]
	if s.FlexDirection == style.RowReverse || s.FlexDirection == style.ColumnReverse {
		switch s.JustifyContent {
		case style.AlignStart:
			s.JustifyContent = style.AlignEnd
		case style.AlignEnd:
			s.JustifyContent = style.AlignStart
		}
	}
	set := func(to *style.Length, v *float64) {
		if v != nil {
			*to = style.Pixels(*v)
		}
	}
	set(&s.Width, t.Width)
	set(&s.Height, t.Height)
	set(&s.MinWidth, t.MinWidth)
	set(&s.MinHeight, t.MinHeight)
	set(&s.FlexBasis, t.Basis)
	if t.Grow != nil {
		s.FlexGrow = *t.Grow
	}
	s.ColumnGap, s.RowGap = style.Pixels(t.Gap), style.Pixels(t.Gap)
	if m := t.Margin; m != nil {
		s.Margin = style.Edges{
			Top:    style.Pixels(m[0]),
			Right:  style.Pixels(m[1]),
			Bottom: style.Pixels(m[2]),
			Left:   style.Pixels(m[3]),
		}
	}
	n := &element.Node{Tag: "div", Styles: []style.Style{s}}
	for _, c := range t.Children {
		n.Children = append(n.Children, c.node())
	}
	return n
}

// againstYoga holds the flexbox part of package layout against Yoga.
func againstYoga(trees int, seed uint64) (bool, error) {
	cmd := exec.Command("node", "e2e/yoga.mjs")
	cmd.Stderr = os.Stderr
	in, err := cmd.StdinPipe()
	if err != nil {
		return false, fmt.Errorf("starting Yoga: %w", err)
	}
	out, err := cmd.StdoutPipe()
	if err != nil {
		return false, fmt.Errorf("starting Yoga: %w", err)
	}
	if err := cmd.Start(); err != nil {
		return false, fmt.Errorf("starting Yoga: %w", err)
	}
	defer func() { _ = in.Close(); _ = cmd.Wait() }()
	answers := bufio.NewReader(out)
	zones := doc.Zones{{ID: "all"}}
	boxes, near, worst, shown := 0, 0, 0.0, 0
	for i := range trees {
		t := randomFlex(rand.New(rand.NewPCG(seed, uint64(i))), 3, false)
		t.Margin = nil
		if err := json.NewEncoder(in).Encode(t); err != nil {
			return false, fmt.Errorf("asking Yoga: %w", err)
		}
		line, err := answers.ReadBytes('\n')
		if err != nil {
			return false, fmt.Errorf("reading Yoga's answer: %w", err)
		}
		var theirs [][4]float64
		if err := json.Unmarshal(line, &theirs); err != nil {
			return false, fmt.Errorf("reading Yoga's answer: %w", err)
		}
		var ours [][4]float64
		var walk func(b *layout.Box, x, y float64)
		walk = func(b *layout.Box, x, y float64) {
			ours = append(ours, [4]float64{x, y, b.W, b.H})
			for _, c := range b.Children {
				walk(c.Box, c.X, c.Y)
			}
		}
		walk(layout.New(shape.NewLibrary(), zones, t.node()).At(1000), 0, 0)
		bad := false
		for k := 1; k < min(len(ours), len(theirs)); k++ { // the root stands in a block here
			boxes++
			off := 0.0
			for d := range 4 {
				off = max(off, math.Abs(ours[k][d]-theirs[k][d]))
			}
			if off <= 1 {
				near++
			} else {
				bad = true
			}
			worst = max(worst, off)
		}
		if bad && shown < 2 {
			shown++
			text, _ := json.Marshal(t)
			fmt.Printf("yoga-%d: %s\n  core %.1f\n  yoga %.1f\n", i, text, ours, theirs)
		}
	}
	fmt.Printf(
		"oracle: yoga  %d flex trees, %d boxes: %.3f %% within 1 px, worst %.2f px\n", trees, boxes,
		100*float64(near)/float64(max(boxes, 1)),
		worst,
	)
	return boxes > 0 && float64(near) >= 0.999*float64(boxes), nil
}

package check

import (
	"cmp"
	"math"

	"openplot/core/colour"
	"openplot/core/element"
	"openplot/core/style"
)

// Sizes in px from which words count as large, and the ratio that those need (WCAG 2.2,
// 1.4.3: 18 point, or 14 point and bold).
const (
	largeWords = 24.0
	largeBold  = 18.66
	largeRatio = 3.0
)

// unseen is the opacity below which nothing is seen.
const unseen = 0.01

// Contrasts gives the words of a tree that can't be read on their ground in a zone, as far
// as that is one colour: on pictures and gradients nothing is known.
func Contrasts(tree *element.Node, zone int, width float64) []Finding {
	return contrasts(tree, zone, style.Viewport{Width: width}, "", 1)
}

func contrasts(n *element.Node, zone int, view style.Viewport, node string, opacity float64) (out []Finding) {
	if n.Raw != "" {
		return nil
	}
	node = cmp.Or(n.Block, n.Section, node)
	st := &n.Styles[zone]
	if st.Opacity > 0 && st.Opacity < unseen && len(n.States) > 0 { // it is read when pointing shows it
		then := *st
		n.States[0].Change(zone, &then)
		st = &then
	}
	if st.Opacity > 0 {
		opacity *= st.Opacity
	}
	ground := style.Over(st.Background, st.Behind)
	said, err1 := colour.ParseHex(st.Color)
	behind, err2 := colour.ParseHex(ground)
	if n.Text != "" && err1 == nil && err2 == nil && !st.Pictured {
		least := colour.AA
		if size := st.FontPx(view); size >= largeWords || size >= largeBold && st.FontWeight >= 700 {
			least = largeRatio
		}
		said.A = uint8(math.Round(float64(said.A) * opacity))
		if r := colour.Contrast(said.Over(behind), behind); r < least {
			out = append(out, Finding{Rule: Contrast, Node: node, By: r, Words: words(n)})
		}
	}
	for _, c := range n.Children {
		out = append(out, contrasts(c, zone, view, node, opacity)...)
	}
	return out
}

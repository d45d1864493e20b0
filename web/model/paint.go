package model

import (
	"fmt"
	"hash/fnv"
	"html"
	"math"
	"slices"
	"strconv"
	"strings"

	"openplot/core/number"
	"openplot/core/style"
)

// layers draws the gradients of a CSS background over a box, the first of them on top;
// what isn't a gradient that emit writes is left out.
func (d drawing) layers(b *strings.Builder, css string, x, y, w, h, radius float64) {
	all := style.Parts(css)
	slices.Reverse(all)
	for _, layer := range all {
		kind, rest, ok := strings.Cut(strings.TrimSpace(layer), "-gradient(")
		if !ok || !strings.HasSuffix(rest, ")") || kind != "linear" && kind != "radial" {
			continue
		}
		parts := style.Parts(strings.TrimSuffix(rest, ")"))
		angle := 180.0
		if a, ok := strings.CutSuffix(strings.TrimSpace(parts[0]), "deg"); ok {
			angle, _ = number.Real(a)
			parts = parts[1:]
		}
		var stops strings.Builder
		for i, p := range parts {
			c, at, ok := cutStop(strings.TrimSpace(p))
			if !ok && len(parts) > 1 {
				at = 100 * float64(i) / float64(len(parts)-1)
			}
			fmt.Fprintf(&stops, `<stop offset="%s%%" stop-color="%s"/>`, style.Number(at), html.EscapeString(c))
		}
		// The gradient line of CSS Images 3 §3.1.1.
		sin, cos := math.Sincos(angle * math.Pi / 180)
		half := (math.Abs(w*sin) + math.Abs(h*cos)) / 2
		cx, cy := x+w/2, y+h/2
		line := fmt.Sprintf(
			`x1="%.0f" y1="%.0f" x2="%.0f" y2="%.0f"`,
			cx-sin*half,
			cy+cos*half,
			cx+sin*half,
			cy-cos*half,
		)
		if kind == "radial" {
			line = fmt.Sprintf(`cx="%.0f" cy="%.0f" r="%.0f"`, cx, cy, math.Hypot(w, h)/2)
		}
		sum := fnv.New64a()
		fmt.Fprint(sum, kind, line, stops.String()) // alike ones may share a name
		id := "g" + strconv.FormatUint(sum.Sum64(), 36)
		fmt.Fprintf(
			b,
			`<%sGradient id="%s" gradientUnits="userSpaceOnUse" %s>%s</%sGradient>`,
			kind,
			id,
			line,
			stops.String(),
			kind,
		)
		fmt.Fprintf(
			b,
			`<rect x="%.0f" y="%.0f" width="%.0f" height="%.0f" rx="%.0f" fill="url(#%s)"/>`,
			x,
			y,
			w,
			h,
			radius,
			id,
		)
	}
}

// cutStop parts a colour stop into its colour and its place in per cent.
func cutStop(p string) (colour string, at float64, ok bool) {
	i := strings.LastIndexByte(p, ' ')
	if i < 0 || !strings.HasSuffix(p, "%") {
		return p, 0, false
	}
	at, err := number.Real(strings.TrimSuffix(p[i+1:], "%"))
	return p[:i], at, err == nil
}

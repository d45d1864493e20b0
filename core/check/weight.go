package check

import (
	"strings"

	"openplot/core/element"
	"openplot/core/number"
	"openplot/core/style"
)

// Bytes are what a visitor's browser loads for a page, by what it is.
type Bytes struct{ HTML, CSS, Fonts, Pictures, Scripts int }

// Sum is all of them.
func (b Bytes) Sum() int { return b.HTML + b.CSS + b.Fonts + b.Pictures + b.Scripts }

// vector reports whether a picture has no pixels.
func vector(address string) bool {
	return strings.HasSuffix(address, ".svg") || strings.HasPrefix(address, "data:image/svg")
}

// How much wider a file may be than what is shown of it, and from how many px on that counts;
// common practice: screens have up to three pixels a px.
const (
	mostWaste  = 3.0
	leastWaste = 800
)

// Loads gives the file that a browser takes of those of a picture in a viewport of a width in px, on
// a screen with one pixel a px (HTML §4.8.4.3), and how wide that is: the first that is as wide as
// sizes says, or the widest. Of several formats it is the first.
func Loads(n *element.Node, width float64) (address string, px float64) {
	srcset, sizes := attr(n, "srcset"), attr(n, "sizes")
	if len(n.Sources) > 0 {
		srcset, sizes = n.Sources[0].Srcset, n.Sources[0].Sizes
	}
	address = attr(n, "src")
	px, _ = number.Real(attr(n, "width"))
	needs, first := sizesAt(sizes, width), true
	for _, c := range strings.Split(srcset, ",") {
		f := strings.Fields(c)
		if len(f) != 2 {
			continue
		}
		w, err := number.Real(strings.TrimSuffix(f[1], "w"))
		if err != nil {
			continue
		}
		if first || px < needs && w > px || w >= needs && w < px {
			address, px, first = f[0], w, false
		}
	}
	return address, px
}

// sizesAt gives the width in px that a sizes attribute, as packages element and layout write it,
// says at a viewport's width.
func sizesAt(sizes string, width float64) float64 {
	length := func(v string) float64 {
		l, err := style.EvaluateLength(v)
		if err != nil {
			return width
		}
		return l.Or(0, style.Viewport{Width: width}, width)
	}
	for _, part := range layers(sizes) {
		if rest, is := strings.CutPrefix(part, "(max-width: "); is {
			most, then, _ := strings.Cut(rest, "px) ")
			if n, err := number.Real(most); err == nil && width > n {
				continue
			}
			part = then
		}
		if inner, is := strings.CutPrefix(part, "min("); is {
			a, b, _ := strings.Cut(strings.TrimSuffix(inner, ")"), ",")
			return min(length(strings.TrimSpace(a)), length(strings.TrimSpace(b)))
		}
		return length(part)
	}
	return width
}

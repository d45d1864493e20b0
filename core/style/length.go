package style

import (
	"math"
	"slices"
	"strconv"
)

// Unit is the unit of a Length, or the keyword that stands in its place. The zero
// Unit is the keyword auto, so that the zero Length is auto.
type Unit uint8

// The units (CSS Values 4 §6), and after them the sizing keywords (CSS Sizing 3
// §3.2, CSS Flexbox 1 §7.2.1), a plain number, and a math function.
const (
	Auto Unit = iota
	Px
	Rem // of the root's font size: RootFontSize unless the reader set another
	Percent
	Vw
	Vh
	MinContent
	MaxContent
	FitContent
	Content
	Times // a number without a unit, such as a line height of 1.5
	Math  // Fn says which
)

var unitNames = [...]string{
	"auto",
	"px",
	"rem",
	"%",
	"vw",
	"vh",
	"min-content",
	"max-content",
	"fit-content",
	"content",
	"",
}

// RootFontSize is the size of 1 rem in px.
const RootFontSize = 16

// Length is a CSS length, percentage, keyword or math function.
type Length struct {
	N    float64
	Unit Unit
	Fn   *Function
}

// Pixels makes a Length in px.
func Pixels(n float64) Length { return Length{N: n, Unit: Px} }

// Percentage makes a Length in per cent.
func Percentage(n float64) Length { return Length{N: n, Unit: Percent} }

// Keyword reports whether the length is auto or a sizing keyword, to be found by
// laying out.
func (l Length) Keyword() bool { return l.Unit == Auto || l.Unit >= MinContent && l.Unit <= Content }

// String gives the CSS text.
func (l Length) String() string {
	switch {
	case l.Keyword():
		return unitNames[l.Unit]
	case l.Unit == Math:
		return l.Fn.String()
	case l.N == 0:
		return "0"
	}
	return l.said()
}

// said is a number with its unit. Rem have 6 decimal places, so that px come back as they were.
func (l Length) said() string {
	if l.Unit == Rem {
		return strconv.FormatFloat(math.Round(l.N*1e6)/1e6+0, 'f', -1, 64) + unitNames[Rem]
	}
	return Number(l.N) + unitNames[l.Unit]
}

// Number gives the shortest CSS text of a number, to 4 decimal places.
func Number(n float64) string {
	return strconv.FormatFloat(math.Round(n*1e4)/1e4+0, 'f', -1, 64)
}

// Viewport is what relative units are measured against, in px. Root is the font size that the
// reader set, 0 being RootFontSize.
type Viewport struct{ Width, Height, Root float64 }

// rem is the size of the unit in px.
func (v Viewport) rem() float64 {
	if v.Root > 0 {
		return v.Root
	}
	return RootFontSize
}

// Resolve gives the length in px. Percentages are of base; ok is false for
// keywords, and for a percentage of an indefinite base (NaN).
func (l Length) Resolve(base float64, v Viewport) (px float64, ok bool) {
	switch l.Unit {
	case Px:
		return l.N, true
	case Rem:
		return l.N * v.rem(), true
	case Percent:
		px = l.N / 100 * base
		return px, !math.IsNaN(px)
	case Vw:
		return l.N / 100 * v.Width, true
	case Vh:
		return l.N / 100 * v.Height, true
	case Math:
		return l.Fn.resolve(base, v)
	}
	return 0, false
}

// Or is Resolve with a fallback.
func (l Length) Or(base float64, v Viewport, fallback float64) float64 {
	if px, ok := l.Resolve(base, v); ok {
		return px
	}
	return fallback
}

// InRem is the length with its px in rem, so that it follows the text size that readers set (WCAG
// 2.2, 1.4.4).
func (l Length) InRem() Length {
	switch l.Unit {
	case Px:
		return Length{N: l.N / RootFontSize, Unit: Rem}
	case Math:
		args := make([]Length, len(l.Fn.Args))
		for i, a := range l.Fn.Args {
			args[i] = a.InRem()
		}
		l.Fn = &Function{l.Fn.Name, args}
	}
	return l
}

// Scaled is the length times a factor. With one below 0 the least becomes the greatest.
func (l Length) Scaled(by float64) Length {
	l.N *= by
	if l.Unit == Math {
		args := make([]Length, len(l.Fn.Args))
		for i, a := range l.Fn.Args {
			args[i] = a.Scaled(by)
		}
		name := l.Fn.Name
		if by < 0 {
			switch name {
			case Min:
				name = Max
			case Max:
				name = Min
			case Clamp:
				slices.Reverse(args)
			}
		}
		l.Fn = &Function{name, args}
	}
	return l
}

// OfViewport reports whether the length depends on the viewport's size.
func (l Length) OfViewport() bool {
	return l.Unit == Vw || l.Unit == Vh || l.Unit == Math && l.Fn.any(Length.OfViewport)
}

// OfBase reports whether the length depends on what percentages are of.
func (l Length) OfBase() bool {
	return l.Unit == Percent || l.Unit == Math && l.Fn.any(Length.OfBase)
}

// Is reports whether the length, or a part of it, is in a unit.
func (l Length) Is(u Unit) bool {
	return l.Unit == u || l.Unit == Math && l.Fn.any(func(a Length) bool { return a.Is(u) })
}

// With gives the length with px in place of a unit, one of which is so many px.
func (l Length) With(u Unit, px float64) Length {
	switch l.Unit {
	case u:
		return Pixels(l.N * px)
	case Math:
		args := make([]Length, len(l.Fn.Args))
		for i, a := range l.Fn.Args {
			args[i] = a.With(u, px)
		}
		l.Fn = &Function{l.Fn.Name, args}
	}
	return l
}

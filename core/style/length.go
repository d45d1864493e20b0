package style

import (
	"math"
	"strconv"
)

// Unit is the unit of a Length. The zero Unit is the keyword auto, so that the
// zero Length is auto.
type Unit uint8

// The units (CSS Values 4 §6).
const (
	Auto Unit = iota
	Px
	Rem // of the root's font size, which is always 16 px
	Percent
	Vw
	Vh
)

var unitNames = [...]string{"auto", "px", "rem", "%", "vw", "vh"}

// RootFontSize is the size of 1 rem in px.
const RootFontSize = 16

// Length is a CSS length, percentage or auto.
type Length struct {
	N    float64
	Unit Unit
}

// Pixels makes a Length in px.
func Pixels(n float64) Length { return Length{n, Px} }

// String gives the CSS text.
func (l Length) String() string {
	if l.Unit == Auto {
		return "auto"
	}
	if l.N == 0 {
		return "0"
	}
	return Number(l.N) + unitNames[l.Unit]
}

// Number gives the shortest CSS text of a number, to 4 decimal places.
func Number(n float64) string {
	return strconv.FormatFloat(math.Round(n*1e4)/1e4+0, 'f', -1, 64)
}

// Viewport is what relative units are measured against, in px.
type Viewport struct{ Width, Height float64 }

// Resolve gives the length in px. Percentages are of base; ok is false for auto,
// and for a percentage of an indefinite base (NaN).
func (l Length) Resolve(base float64, v Viewport) (px float64, ok bool) {
	switch l.Unit {
	case Px:
		return l.N, true
	case Rem:
		return l.N * RootFontSize, true
	case Percent:
		px = l.N / 100 * base
		return px, !math.IsNaN(px)
	case Vw:
		return l.N / 100 * v.Width, true
	case Vh:
		return l.N / 100 * v.Height, true
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

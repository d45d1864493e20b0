package style

import (
	"math"
	"slices"
	"strings"
)

// Function is a math function of lengths (CSS Values 4 §10). Its arguments have
// units or are functions themselves.
type Function struct {
	Name FunctionName
	Args []Length
}

// FunctionName says which function it is.
type FunctionName uint8

// The functions. Calc is the sum of its arguments; Clamp has three: the least, the
// wanted and the greatest.
const (
	Calc FunctionName = iota
	Min
	Max
	Clamp
)

var functionNames = [...]string{"calc", "min", "max", "clamp"}

// Sum makes calc() of lengths added up.
func Sum(args ...Length) Length { return Length{Unit: Math, Fn: &Function{Calc, args}} }

// Least makes min().
func Least(args ...Length) Length { return Length{Unit: Math, Fn: &Function{Min, args}} }

// Greatest makes max().
func Greatest(args ...Length) Length { return Length{Unit: Math, Fn: &Function{Max, args}} }

// Between makes clamp().
func Between(least, wanted, greatest Length) Length {
	return Length{Unit: Math, Fn: &Function{Clamp, []Length{least, wanted, greatest}}}
}

// Fluid is a length that grows evenly from one at a viewport width to another at a
// wider one, all in px, and stays the same beyond both. The part that the viewport
// has no share in is in rem, so that it follows the reader's text size (WCAG 2.2,
// 1.4.4).
func Fluid(narrow, wide, from, to float64) Length {
	if to <= from || narrow == wide {
		return Pixels(wide)
	}
	// Both are numbers that CSS text says in full, and at the wider end the sum is the
	// length there or beyond it, never a hair short.
	slope := math.Round((wide-narrow)/(to-from)*1e6) / 1e4
	base, beyond := (wide-slope/100*to)/RootFontSize*1e4, math.Ceil
	if slope < 0 {
		beyond = math.Floor
	}
	return Between(Pixels(min(narrow, wide)), Sum(
		Length{N: beyond(math.Round(base*1e6)/1e6) / 1e4, Unit: Rem},
		Length{N: slope, Unit: Vw},
	), Pixels(max(narrow, wide)))
}

// String gives the CSS text. Numbers keep their unit, 0 too, since a sum of a
// length and a plain number is invalid.
func (f *Function) String() string {
	var b strings.Builder
	b.WriteString(functionNames[f.Name])
	b.WriteByte('(')
	for i, a := range f.Args {
		switch {
		case i == 0:
		case f.Name != Calc:
			b.WriteString(", ")
		case a.Unit != Math && a.N < 0:
			b.WriteString(" - ")
			a.N = -a.N
		default:
			b.WriteString(" + ")
		}
		if a.Unit == Math {
			b.WriteString(a.Fn.String())
		} else {
			b.WriteString(a.said())
		}
	}
	b.WriteByte(')')
	return b.String()
}

func (f *Function) resolve(base float64, v Viewport) (float64, bool) {
	var px [4]float64
	of := px[:0]
	for _, a := range f.Args {
		n, ok := a.Resolve(base, v)
		if !ok {
			return 0, false
		}
		of = append(of, n)
	}
	if len(of) == 0 {
		return 0, true
	}
	switch f.Name {
	case Min:
		return slices.Min(of), true
	case Max:
		return slices.Max(of), true
	case Clamp: // max(least, min(wanted, greatest)), the least winning (§10.3)
		return max(of[0], min(of[1], of[2])), true
	}
	sum := 0.0
	for _, n := range of {
		sum += n
	}
	return sum, true
}

func (f *Function) any(is func(Length) bool) bool { return slices.ContainsFunc(f.Args, is) }

package style

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/value"
)

// Sheet reads the settings of one block or section in one zone. Values in it
// were checked on entry; what a later house style no longer has reads as unset.
type Sheet struct {
	House *doc.House
	Zones doc.Zones
	Zone  int
	Style doc.Style
	// Instead, unless nil, is told what holds where a setting isn't set: a length or a
	// colour as CSS has it, or the name of a text style.
	Instead func(setting, holds string)
}

func (s Sheet) instead(name, holds string) {
	if s.Instead != nil && holds != "" && s.value(name) == "" {
		s.Instead(name, holds)
	}
}

func (s Sheet) value(name string) string {
	v, _, _ := s.Style[name].Resolve(s.Zones, s.Zone)
	return v
}

// Word gives a keyword setting, or its first word.
func (s Sheet) Word(name, fallback string) string {
	if v := s.value(name); v != "" {
		return v
	}
	return fallback
}

// Length gives a length setting, or the fallback when it is unset or a keyword.
func (s Sheet) Length(name string, fallback Length) Length {
	if fallback.Unit != Auto {
		s.instead(name, fallback.String())
	}
	v := s.value(name)
	if token, ok := strings.CutPrefix(v, "$"); ok {
		for _, steps := range [][]doc.Step{s.House.Space, s.House.Corners, s.House.LineSteps()} {
			if st, ok := doc.FindStep(steps, token); ok {
				return s.step(st)
			}
		}
		return fallback
	}
	return ParseLength(v, fallback)
}

// step is a named length: one that shrinks does so between the typical widths of the
// narrowest and the widest zone.
func (s Sheet) step(st doc.Step) Length {
	last := len(s.Zones) - 1
	if st.Narrow == 0 || last <= 0 {
		return Pixels(st.Px)
	}
	return Fluid(st.Narrow, st.Px, float64(s.Zones[last].Typical), float64(s.Zones[0].Typical))
}

// ParseLength reads a canonical length, as Length.String writes it.
func ParseLength(v string, fallback Length) Length {
	for _, name := range []FunctionName{Min, Max, Clamp} {
		in, ok := strings.CutPrefix(v, functionNames[name]+"(")
		if !ok || !strings.HasSuffix(in, ")") {
			continue
		}
		f := &Function{Name: name}
		for _, arg := range strings.Split(strings.TrimSuffix(in, ")"), ", ") { // what Fluid makes has no commas further in
			l := ParseLength(arg, Length{})
			if l.Unit == Auto {
				return fallback
			}
			f.Args = append(f.Args, l)
		}
		if name == Clamp && len(f.Args) != 3 {
			return fallback
		}
		return Length{Unit: Math, Fn: f}
	}
	if strings.HasPrefix(v, "calc(") {
		if l, err := EvaluateLength(v); err == nil {
			return l
		}
		return fallback
	}
	for u := Px; u <= Vh; u++ {
		if t, ok := strings.CutSuffix(v, unitNames[u]); ok {
			if n, err := number.Real(t); err == nil {
				return Length{N: n, Unit: u}
			}
		}
	}
	return fallback
}

// Colour gives a colour setting as CSS text, or the fallback.
func (s Sheet) Colour(name, fallback string) string {
	s.instead(name, fallback)
	return s.colour(s.value(name), fallback)
}

// colour gives a canonical colour as CSS text, or the fallback.
func (s Sheet) colour(v, fallback string) string {
	if strings.HasPrefix(v, "#") {
		return v
	}
	if token, ok := strings.CutPrefix(v, "$"); ok {
		token, alpha, seen := strings.Cut(token, "/")
		w := s.House.Swatch(token)
		if w == nil {
			return fallback
		}
		if n, err := number.Real(strings.TrimSuffix(alpha, "%")); seen && err == nil {
			return Veil(w.Value, n/100)
		}
		return w.Value
	}
	return fallback
}

// Swatch gives a palette colour as CSS text, or the fallback.
func (s Sheet) Swatch(token, fallback string) string {
	if w := s.House.Swatch(token); w != nil {
		return w.Value
	}
	return fallback
}

// Ratio gives an aspect ratio as width over height, or 0.
func (s Sheet) Ratio(name string) float64 {
	w, h, ok := strings.Cut(s.value(name), ":")
	if !ok {
		return 0
	}
	a, _ := number.Real(w)
	b, _ := number.Real(h)
	if a <= 0 || b <= 0 {
		return 0
	}
	return a / b
}

// Share gives a percentage as 0 to 1, or the fallback.
func (s Sheet) Share(name string, fallback float64) float64 {
	n, err := number.Real(strings.TrimSuffix(s.value(name), "%"))
	if err != nil {
		return fallback
	}
	return n / 100
}

// Shadow gives a shadow as CSS text, or "".
func (s Sheet) Shadow(name string) string {
	if sh, ok := s.shadow(name); ok {
		return s.ShadowOf(sh)
	}
	return ""
}

// LetterShadow gives a shadow of letters as CSS text, or "": theirs can be neither within nor
// spread (CSS Text Decoration 3, §4).
func (s Sheet) LetterShadow(name string) string {
	sh, ok := s.shadow(name)
	if !ok {
		return ""
	}
	sh.Colour = s.colour(sh.Colour, sh.Colour)
	return fmt.Sprintf("%spx %spx %spx %s", Number(sh.X), Number(sh.Y), Number(sh.Blur), shadeOf(sh))
}

// shadow gives a shadow that is set, one of the house style's or its own.
func (s Sheet) shadow(name string) (doc.Shadow, bool) {
	v := s.value(name)
	if token, ok := strings.CutPrefix(v, "$"); ok {
		for _, sh := range s.House.Shadows {
			if token == sh.Token {
				return sh, true
			}
		}
		return doc.Shadow{}, false
	}
	sh, wrong := ReadShadow(name, s.House, v)
	return sh, wrong == nil
}

// ShadowOf gives a shadow of the house style as CSS text.
func (s Sheet) ShadowOf(sh doc.Shadow) string {
	if sh.Colour != "" {
		sh.Colour = s.colour(sh.Colour, "#00000024")
	}
	return ShadowText(sh)
}

// Angle gives an angle setting in degrees, or 0.
func (s Sheet) Angle(name string) float64 { return s.number(name, "deg", 0) }

// Seconds gives a time in seconds, or the fallback.
func (s Sheet) Seconds(name string, fallback float64) float64 { return s.number(name, "s", fallback) }

// Number gives a number of a setting whatever its unit is, or 0.
func (s Sheet) Number(name string) float64 {
	return s.number(name, strings.TrimLeft(s.value(name), "-.0123456789"), 0)
}

// number gives a number with a unit, or the fallback.
func (s Sheet) number(name, unit string, fallback float64) float64 {
	if n, err := number.Real(strings.TrimSuffix(s.value(name), unit)); err == nil {
		return n
	}
	return fallback
}

// TextStyle sets the inherited type properties of a named text style.
func (s Sheet) TextStyle(to *Style, name string) {
	t, ok := s.House.Text[name]
	if !ok {
		t = s.House.Text["body"]
	}
	to.TextName = name
	switch t.Family {
	case "heading":
		to.FontFamily = s.House.Fonts.Heading
	case "mono":
		to.FontFamily = s.House.Fonts.Mono
	default:
		to.FontFamily = s.House.Fonts.Body
	}
	to.FontGeneric = ""
	if own := s.House.OwnFamily(to.FontFamily); own != nil {
		to.FontGeneric = own.Generic
	}
	to.FontWeight = t.Weight
	to.FontSize = Pixels(t.Size.Or(s.Zones, s.Zone, RootFontSize))
	if last := len(s.Zones) - 1; t.Fluid && last > 0 {
		to.FontSize = Fluid(
			t.Size.Or(s.Zones, last, RootFontSize),
			t.Size.Or(s.Zones, 0, RootFontSize),
			float64(s.Zones[last].Typical),
			float64(s.Zones[0].Typical),
		)
	}
	to.TextTransform = map[string]TextTransform{"upper": Uppercase, "lower": Lowercase}[t.Case]
	to.LineHeight = Length{N: t.LineHeight, Unit: Times}
	to.LetterSpacing = t.LetterSpacing
}

// Type applies the text-style, font-size, text-align and colour settings, the
// text style being fallback unless set.
func (s Sheet) Type(to *Style, fallback string) {
	name, ok := strings.CutPrefix(s.value("text-style"), "$")
	if !ok {
		name = fallback
	}
	s.instead("text-style", name)
	s.TextStyle(to, name)
	s.instead("font-size", to.FontSize.String())
	if l := s.Length("font-size", Length{}); l.Unit != Auto {
		to.FontSize = l
		if px, ok := l.Resolve(0, Viewport{}); ok && !l.OfViewport() {
			to.FontSize = Pixels(math.Round(px*64) / 64) // whole 1/64 px, the unit in which browsers size glyphs
		}
	}
	s.typeface(to)
	s.Aligned(to)
}

// typeface sets what differs from the text style: the face, and how it is set.
func (s Sheet) typeface(to *Style) {
	s.instead("font", to.FontFamily)
	if f := s.value("font"); f != "" && HasFamily(s.House, f) {
		to.FontFamily, to.FontGeneric = f, ""
		if own := s.House.OwnFamily(f); own != nil {
			to.FontGeneric = own.Generic
		}
	}
	s.instead("font-weight", strconv.Itoa(to.FontWeight))
	to.FontWeight = int(s.number("font-weight", "", float64(to.FontWeight)))
	s.instead("line-height", Number(to.LineHeight.N))
	if n := s.number("line-height", "", 0); n > 0 {
		to.LineHeight = Length{N: n, Unit: Times}
	}
	s.instead(LetterSpacing, Number(to.LetterSpacing)+"em")
	to.LetterSpacing = s.number(LetterSpacing, "em", to.LetterSpacing)
	s.instead(
		"text-transform",
		map[TextTransform]string{Uppercase: value.Uppercase, Lowercase: value.Lowercase}[to.TextTransform],
	)
	to.TextShadow = s.LetterShadow("text-shadow")
	switch s.value("text-transform") {
	case value.Uppercase:
		to.TextTransform = Uppercase
	case value.Lowercase:
		to.TextTransform = Lowercase
	case value.None:
		to.TextTransform = AsWritten
	}
	switch s.value("text-wrap") {
	case value.Balance:
		to.Balance = true
	case value.Auto:
		to.Balance = false
	}
}

// Aligned sets the alignment and the colour of words.
func (s Sheet) Aligned(to *Style) {
	switch s.value("text-align") {
	case value.Center:
		to.TextAlign = TextCenter
	case value.End:
		to.TextAlign = TextEnd
	case value.Start:
		to.TextAlign = TextStart
	}
	to.Color = s.Colour("color", to.Color)
}

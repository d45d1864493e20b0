package style

import (
	"slices"
	"strconv"
)

// Property is one CSS property that emit may write.
type Property struct {
	Name      string
	Inherited bool
	// Layout is true when the property can move or size a box, so that package
	// layout has to model it; the others only paint.
	Layout bool
	// Text gives the CSS value. It is "" for the initial value where that need
	// never be written because Initial is "" too.
	Text func(*Style) string
	// Initial is the value an element has when nothing is written, under emit's
	// reset. Inherited properties have none.
	Initial string
}

// Properties is every property that can be emitted, in the order they are written.
var Properties = []Property{
	{"display", false, true, func(s *Style) string { return displayNames[s.Display] }, "block"},
	{"position", false, true, func(s *Style) string { return positionNames[s.Position] }, "static"},
	{"inset", false, true, func(s *Style) string { return choose(s.Position == Absolute, "0", "auto") }, "auto"},
	{"width", false, true, func(s *Style) string { return s.Width.String() }, "auto"},
	{"height", false, true, func(s *Style) string { return s.Height.String() }, "auto"},
	{"min-width", false, true, func(s *Style) string { return s.MinWidth.String() }, "auto"},
	{"min-height", false, true, func(s *Style) string { return s.MinHeight.String() }, "auto"},
	{"max-width", false, true, func(s *Style) string { return orNone(s.MaxWidth) }, "none"},
	{"max-height", false, true, func(s *Style) string { return orNone(s.MaxHeight) }, "none"},
	{"margin", false, true, func(s *Style) string {
		if s.CenterX {
			return s.Margin.Top.orZero() + " auto " + s.Margin.Bottom.orZero()
		}
		return s.Margin.text()
	}, "0"},
	{"padding", false, true, func(s *Style) string { return s.Padding.text() }, "0"},
	{"border", false, true, func(s *Style) string {
		if s.BorderWidth == 0 {
			return "0"
		}
		return Number(s.BorderWidth) + "px solid " + s.BorderColor
	}, "0"},
	{"aspect-ratio", false, true, func(s *Style) string {
		if s.AspectRatio == 0 {
			return "auto"
		}
		return Number(s.AspectRatio)
	}, "auto"},
	{"grid-template-columns", false, true, func(s *Style) string { return tracksText(s.GridColumns) }, "none"},
	{"grid-auto-rows", false, true, func(s *Style) string { return s.GridRows.text() }, "auto"},
	{"column-gap", false, true, func(s *Style) string { return gapText(s.ColumnGap) }, "normal"},
	{"row-gap", false, true, func(s *Style) string { return gapText(s.RowGap) }, "normal"},
	{"grid-column", false, true, func(s *Style) string { return lineText(s.ColumnStart, s.ColumnSpan) }, "auto"},
	{"grid-row", false, true, func(s *Style) string { return lineText(s.RowStart, s.RowSpan) }, "auto"},
	{"align-self", false, true, func(s *Style) string { return alignNames[s.AlignSelf] }, "auto"},
	{"justify-self", false, true, func(s *Style) string { return alignNames[s.JustifySelf] }, "auto"},
	{"z-index", false, false, func(s *Style) string { return choose(s.ZIndex == 0, "auto", strconv.Itoa(s.ZIndex)) }, "auto"},
	{"font-family", true, true, func(s *Style) string { return FontStack(s.FontFamily) }, ""},
	{"font-weight", true, true, func(s *Style) string { return strconv.Itoa(s.FontWeight) }, ""},
	{"font-style", true, true, func(s *Style) string { return choose(s.FontItalic, "italic", "normal") }, ""},
	{"font-size", true, true, func(s *Style) string { return Number(s.FontSize) + "px" }, ""},
	{"line-height", true, true, func(s *Style) string { return Number(s.LineHeight) }, ""},
	{"letter-spacing", true, true, func(s *Style) string { return choose(s.LetterSpacing == 0, "normal", Number(s.LetterSpacing)+"px") }, ""},
	{"text-align", true, true, func(s *Style) string { return textAlignNames[s.TextAlign] }, ""},
	{"color", true, false, func(s *Style) string { return s.Color }, ""},
	{"background", false, false, func(s *Style) string {
		if s.BackgroundURL != "" {
			return s.Background + " url(" + strconv.Quote(s.BackgroundURL) + ") center/cover"
		}
		return choose(s.Background == "", "none", s.Background)
	}, "none"},
	{"border-radius", false, false, func(s *Style) string { return choose(s.BorderRadius.Unit == Auto, "0", s.BorderRadius.String()) }, "0"},
	{"box-shadow", false, false, func(s *Style) string { return choose(s.BoxShadow == "", "none", s.BoxShadow) }, "none"},
	{"opacity", false, false, func(s *Style) string { return choose(s.Opacity == 0, "1", Number(s.Opacity)) }, "1"},
	{"object-fit", false, false, func(s *Style) string { return choose(s.ObjectFit == "", "fill", s.ObjectFit) }, "fill"},
	{"object-position", false, false, func(s *Style) string { return choose(s.ObjectPos == "", "50% 50%", s.ObjectPos) }, "50% 50%"},
	{"text-decoration", false, false, func(s *Style) string { return choose(s.Underline, "underline", "none") }, "none"},
}

var (
	displayNames   = [...]string{"block", "inline", "grid", "none"}
	positionNames  = [...]string{"static", "relative", "absolute"}
	alignNames     = [...]string{"auto", "start", "center", "end"}
	textAlignNames = [...]string{"start", "center", "end"}
)

func choose(c bool, yes, no string) string {
	if c {
		return yes
	}
	return no
}

func orNone(l Length) string { return choose(l.Unit == Auto, "none", l.String()) }

func (l Length) orZero() string { return choose(l.Unit == Auto, "0", l.String()) }

func gapText(l Length) string { return choose(l.Unit == Auto, "normal", l.String()) }

func (e Edges) text() string {
	t, r, b, l := e.Top.orZero(), e.Right.orZero(), e.Bottom.orZero(), e.Left.orZero()
	switch {
	case t == r && t == b && t == l:
		return t
	case t == b && r == l:
		return t + " " + r
	case r == l:
		return t + " " + r + " " + b
	}
	return t + " " + r + " " + b + " " + l
}

func lineText(start, span int) string {
	if start == 0 {
		return "auto"
	}
	if span == 1 {
		return strconv.Itoa(start)
	}
	return strconv.Itoa(start) + " / span " + strconv.Itoa(span)
}

func (t Track) text() string {
	largest := t.Max.String()
	if t.Fr > 0 {
		largest = Number(t.Fr) + "fr"
	}
	if t.Min.String() == largest {
		return largest
	}
	return "minmax(" + t.Min.String() + ", " + largest + ")"
}

func tracksText(ts []Track) string {
	if len(ts) == 0 {
		return "none"
	}
	if len(slices.Compact(slices.Clone(ts))) == 1 && len(ts) > 1 {
		return "repeat(" + strconv.Itoa(len(ts)) + ", " + ts[0].text() + ")"
	}
	s := ts[0].text()
	for _, t := range ts[1:] {
		s += " " + t.text()
	}
	return s
}

package style

import (
	"cmp"
	"slices"
	"strconv"
	"strings"
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
	{"float", false, true, func(s *Style) string { return [...]string{"none", "left", "right"}[s.Float] }, "none"},
	{"position", false, true, func(s *Style) string { return positionNames[s.Position] }, "static"},
	{"inset", false, true, insetText, "auto"},
	{"overflow", false, true, func(s *Style) string { return overflowNames[s.Overflow] }, "visible"},
	{"width", false, true, func(s *Style) string { return s.Width.String() }, "auto"},
	{"height", false, true, func(s *Style) string { return small(s.Height.String()) }, "auto"},
	{"min-width", false, true, func(s *Style) string { return s.MinWidth.String() }, "auto"},
	{"min-height", false, true, func(s *Style) string { return small(s.MinHeight.String()) }, "auto"},
	{"max-width", false, true, func(s *Style) string { return orNone(s.MaxWidth) }, "none"},
	{"max-height", false, true, func(s *Style) string { return small(orNone(s.MaxHeight)) }, "none"},
	{"margin", false, true, func(s *Style) string { return s.Margin.text(s.MarginAuto) }, "0"},
	{"padding", false, true, func(s *Style) string { return s.Padding.text(0) }, "0"},
	{"border-width", false, true, func(s *Style) string {
		return Edges{
			Pixels(s.Border.Top),
			Pixels(s.Border.Right),
			Pixels(s.Border.Bottom),
			Pixels(s.Border.Left),
		}.text(
			0,
		)
	}, "0"},
	{"aspect-ratio", false, true, func(s *Style) string {
		if s.AspectRatio == 0 {
			return "auto"
		}
		return Number(s.AspectRatio)
	}, "auto"},
	{"flex-direction", false, true, func(s *Style) string { return directionNames[s.FlexDirection] }, "row"},
	{"flex-wrap", false, true, func(s *Style) string { return wrapNames[s.FlexWrap] }, "nowrap"},
	{"flex", false, true, flexText, "0 1 auto"},
	{"order", false, true, func(s *Style) string { return strconv.Itoa(s.Order) }, "0"},
	{
		"grid-template-columns",
		false,
		true,
		func(s *Style) string { return tracksText(s.GridColumns, s.GridFill) },
		"none",
	},
	{"grid-template-rows", false, true, func(s *Style) string { return tracksText(s.GridRows, NoFill) }, "none"},
	{"grid-auto-columns", false, true, func(s *Style) string { return s.GridAutoColumns.text() }, "auto"},
	{"grid-auto-rows", false, true, func(s *Style) string { return s.GridAutoRows.text() }, "auto"},
	{"grid-auto-flow", false, true, func(s *Style) string { return flowNames[s.GridFlow] }, "row"},
	{"column-gap", false, true, func(s *Style) string { return gapText(s.ColumnGap) }, "normal"},
	{"row-gap", false, true, func(s *Style) string { return gapText(s.RowGap) }, "normal"},
	{"grid-column", false, true, func(s *Style) string { return lineText(s.ColumnStart, s.ColumnSpan) }, "auto"},
	{"grid-row", false, true, func(s *Style) string { return lineText(s.RowStart, s.RowSpan) }, "auto"},
	{"justify-content", false, true, func(s *Style) string { return alignText(s.JustifyContent, "normal") }, "normal"},
	{"align-content", false, true, func(s *Style) string { return alignText(s.AlignContent, "normal") }, "normal"},
	{"justify-items", false, true, func(s *Style) string { return alignText(s.JustifyItems, "normal") }, "normal"},
	{"align-items", false, true, func(s *Style) string { return alignText(s.AlignItems, "normal") }, "normal"},
	{"justify-self", false, true, func(s *Style) string { return alignText(s.JustifySelf, "auto") }, "auto"},
	{"align-self", false, true, func(s *Style) string { return alignText(s.AlignSelf, "auto") }, "auto"},
	{
		"z-index",
		false,
		false,
		func(s *Style) string { return choose(s.ZIndex == 0, "auto", strconv.Itoa(s.ZIndex)) },
		"auto",
	},
	{"font-family", true, true, func(s *Style) string { return FontStack(s.FontFamily, s.FontGeneric) }, ""},
	{"font-weight", true, true, func(s *Style) string { return strconv.Itoa(s.FontWeight) }, ""},
	{"font-style", true, true, func(s *Style) string { return choose(s.FontItalic, "italic", "normal") }, ""},
	{"font-size", true, true, func(s *Style) string { return s.FontSize.InRem().String() }, ""},
	{
		"line-height",
		true,
		true,
		func(s *Style) string {
			return choose(s.LineHeight.Unit == Auto, "normal", s.LineHeight.InRem().String())
		},
		"",
	},
	{
		LetterSpacing,
		true,
		true,
		func(s *Style) string { return choose(s.LetterSpacing == 0, "normal", Number(s.LetterSpacing)+"em") },
		"",
	},
	{
		"text-shadow",
		true,
		false,
		func(s *Style) string { return choose(s.TextShadow == "", "none", s.TextShadow) },
		"",
	},
	{"text-align", true, true, func(s *Style) string { return textAlignNames[s.TextAlign] }, ""},
	{"text-transform", true, true, func(s *Style) string { return transformNames[s.TextTransform] }, ""},
	{"white-space", true, true, func(s *Style) string { return choose(s.NoWrap, "nowrap", "normal") }, ""},
	{"text-wrap-style", true, true, func(s *Style) string { return choose(s.Balance, "balance", "auto") }, ""},
	{"overflow-wrap", true, true, func(s *Style) string { return overflowWrapNames[s.OverflowWrap] }, ""},
	// Where words may be broken, a ligature must not stand in the way.
	{
		"font-variant-ligatures",
		true,
		true,
		func(s *Style) string { return choose(s.OverflowWrap != WrapNormal, "none", "normal") },
		"",
	},
	{
		"font-variant-numeric",
		true,
		true,
		func(s *Style) string { return choose(s.Tabular, "tabular-nums", "normal") },
		"",
	},
	{"color", true, false, func(s *Style) string { return s.Color }, ""},
	{
		"list-style-type",
		false,
		false,
		func(s *Style) string { return choose(s.ListStyle == "", "none", s.ListStyle) },
		"none",
	},
	{"background", false, false, func(s *Style) string {
		var layers []string
		if s.BackgroundTop != "" {
			layers = append(layers, s.BackgroundTop)
		}
		last := s.Background
		if s.BackgroundURL != "" {
			url := "url(" + strconv.Quote(s.BackgroundURL) + ")"
			if s.BackgroundModern != "" { // CSS Images 4 §2.4
				url = "image-set(url(" + strconv.Quote(
					s.BackgroundModern,
				) + ") type(\"image/avif\"), " + url + " type(\"image/webp\"))"
			}
			last = strings.TrimSpace(
				last + " " + url + " " + choose(s.BackgroundFit == "", "center/cover", s.BackgroundFit),
			)
		}
		if last != "" {
			layers = append(layers, last)
		}
		return choose(len(layers) == 0, "none", strings.Join(layers, ", "))
	}, "none"},
	{
		"border-color",
		false,
		false,
		func(s *Style) string { return choose(s.BorderColor == "", "currentcolor", s.BorderColor) },
		"currentcolor",
	},
	{"border-radius", false, false, radiusText, "0"},
	{
		"box-shadow",
		false,
		false,
		func(s *Style) string { return choose(s.BoxShadow == "", "none", s.BoxShadow) },
		"none",
	},
	{"opacity", false, false, func(s *Style) string { return choose(s.Opacity == 0, "1", Number(s.Opacity)) }, "1"},
	{
		"object-fit",
		false,
		false,
		func(s *Style) string { return choose(s.ObjectFit == "", "fill", s.ObjectFit) },
		"fill",
	},
	{
		"object-position",
		false,
		false,
		func(s *Style) string { return choose(s.ObjectPos == "", "50% 50%", s.ObjectPos) },
		"50% 50%",
	},
	{"clip-path", false, false, func(s *Style) string { return choose(s.ClipPath == "", "none", s.ClipPath) }, "none"},
	{"text-decoration", false, false, func(s *Style) string {
		return choose(s.Underline, "underline", choose(s.Strike, "line-through", "none"))
	}, "none"},
	{"text-decoration-thickness", false, false, func(s *Style) string {
		return choose(
			s.UnderlineLine == 0, "auto",
			Number(s.UnderlineLine)+"px",
		)
	}, "auto"},
	{"text-underline-offset", false, false, func(s *Style) string {
		return choose(
			s.UnderlineDrop == 0, "auto",
			Number(s.UnderlineDrop)+"px",
		)
	}, "auto"},
	{"filter", false, false, func(s *Style) string { return choose(s.Filter == "", "none", s.Filter) }, "none"},
	{"translate", false, false, func(s *Style) string {
		return choose(
			s.TranslateX == 0 && s.TranslateY == 0,
			"none",
			Number(s.TranslateX)+"px "+Number(s.TranslateY)+"px",
		)
	}, "none"},
	{
		"rotate",
		false,
		false,
		func(s *Style) string { return choose(s.Rotate == 0, "none", Number(s.Rotate)+"deg") },
		"none",
	},
	{"scale", false, false, func(s *Style) string {
		x, y := cmp.Or(s.ScaleX, 1), cmp.Or(s.ScaleY, 1)
		return choose(x == 1 && y == 1, "none", choose(x == y, Number(x), Number(x)+" "+Number(y)))
	}, "none"},
	{"transition", false, false, func(s *Style) string { return choose(s.Quick, quick, "none") }, "none"},
	{
		"animation",
		false,
		false,
		func(s *Style) string { return animations(s, "none", func(a animation) string { return a.steps }) },
		"none",
	},
	{
		"animation-timeline",
		false,
		false,
		func(s *Style) string { return animations(s, "auto", func(a animation) string { return a.timeline }) },
		"auto",
	},
	{
		"animation-range",
		false,
		false,
		func(s *Style) string { return animations(s, "normal", func(a animation) string { return a.span }) },
		"normal",
	},
	{"--by", false, false, func(s *Style) string { return Number(s.Entrance.By) + "px" }, "0px"},
	{"--sway", false, false, func(s *Style) string { return Number(s.Sway.By) + "px" }, "0px"},
	{"--drift", false, false, func(s *Style) string { return Number(s.Drift) }, "0"},
	{"--glide", false, false, func(s *Style) string { return Number(s.Glide*50) + "%" }, "0%"},
	{
		"scroll-snap-type",
		false,
		false,
		func(s *Style) string { return choose(s.ScrollSnapType == "", "none", s.ScrollSnapType) },
		"none",
	},
	{"scroll-padding", false, false, func(s *Style) string { return s.ScrollPadding.text(0) }, "0"},
	{
		"scroll-snap-align",
		false,
		false,
		func(s *Style) string { return choose(s.ScrollSnapAlign == "", "none", s.ScrollSnapAlign) },
		"none",
	},
}

// LetterSpacing is the property whose value in em is computed to px before it is
// inherited, so that it has to be written again where the font size changes (CSS
// Text 3 §9.2).
const LetterSpacing = "letter-spacing"

var (
	displayNames   = [...]string{"block", "inline", "flex", "grid", "list-item", "none"}
	positionNames  = [...]string{"static", "relative", "absolute", "sticky", "fixed"}
	overflowNames  = [...]string{"visible", "hidden", "auto", "clip"}
	directionNames = [...]string{"row", "row-reverse", "column", "column-reverse"}
	wrapNames      = [...]string{"nowrap", "wrap", "wrap-reverse"}
	flowNames      = [...]string{"row", "column", "dense", "column dense"}
	alignNames     = [...]string{
		"",
		"start",
		"center",
		"end",
		"stretch",
		"baseline",
		"space-between",
		"space-around",
		"space-evenly",
	}
	textAlignNames    = [...]string{"start", "center", "end"}
	transformNames    = [...]string{"none", "uppercase", "lowercase"}
	overflowWrapNames = [...]string{"normal", "break-word", "anywhere"}
)

// quick lets what only paints glide from one state to another; boxes don't.
const quick = "color .15s, background-color .15s, border-color .15s, box-shadow .15s, opacity .15s, translate .15s, scale .15s"

// animation is one of an element's, as the three properties have it.
type animation struct{ steps, timeline, span string }

// animations gives a part of all of an element's animations, or the property's initial value.
// Where there are no timelines of scrolling, those that have one are over at once.
func animations(s *Style, none string, part func(animation) string) string {
	var all []animation
	if s.Reveal {
		all = append(all, animation{"reveal linear both", "scroll()", "0 100vh"})
	}
	if s.Drift > 0 {
		all = append(all, animation{"drift linear both", "view()", "normal"})
	}
	if s.Glide > 0 {
		all = append(all, animation{"glide linear both", "view()", "normal"})
	}
	if e := s.Entrance; e.Kind != "" {
		all = append(all, animation{
			"enter-" + e.Kind + " ease-out both", "view()", "entry " + Number(e.From) + "% entry " + Number(e.To) + "%",
		})
	}
	if w := s.Sway; w.Kind != "" {
		all = append(
			all,
			animation{
				"sway-" + w.Kind + " " + Number(w.Period/2) + "s ease-in-out infinite alternate",
				"auto",
				"normal",
			},
		)
	}
	if len(all) == 0 {
		return none
	}
	texts := make([]string, len(all))
	for i, a := range all {
		texts[i] = part(a)
	}
	if !slices.ContainsFunc(texts, func(t string) bool { return t != none }) {
		return none
	}
	return strings.Join(texts, ", ")
}

func radiusText(s *Style) string {
	all := choose(s.BorderRadius.Unit == Auto, "0", s.BorderRadius.String())
	if !s.Corners.Any() {
		return all
	}
	of := func(l Length) string { return choose(l.Unit == Auto, all, l.String()) }
	return sides(of(s.Corners.TopLeft), of(s.Corners.TopRight), of(s.Corners.BottomRight), of(s.Corners.BottomLeft))
}

func choose(c bool, yes, no string) string {
	if c {
		return yes
	}
	return no
}

// small is a height of the viewport's as it is while a phone's bars are shown, so that what is to be
// seen at once is (CSS Values 4 §6.1.2).
func small(height string) string { return strings.ReplaceAll(height, "vh", "svh") }

func orNone(l Length) string { return choose(l.Unit == Auto, "none", l.String()) }

func gapText(l Length) string { return choose(l.Unit == Auto, "normal", l.String()) }

func alignText(a Alignment, initial string) string {
	return choose(a == AlignAuto, initial, alignNames[a])
}

func insetText(s *Style) string {
	return sides(s.Inset.Top.String(), s.Inset.Right.String(), s.Inset.Bottom.String(), s.Inset.Left.String())
}

func flexText(s *Style) string {
	return Number(s.FlexGrow) + " " + Number(s.FlexShrink.Value()) + " " + choose(
		s.FlexBasis.N == 0 && s.FlexBasis.Unit == Px, "0px", s.FlexBasis.String(),
	)
}

// text gives the four sides as shorthand properties have them, those in autos as
// auto.
func (e Edges) text(autos Sides) string {
	of := func(l Length, s Sides) string {
		switch {
		case autos&s != 0:
			return "auto"
		case l.Unit == Auto:
			return "0"
		}
		return l.String()
	}
	return sides(of(e.Top, Top), of(e.Right, Right), of(e.Bottom, Bottom), of(e.Left, Left))
}

func sides(t, r, b, l string) string {
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
	switch {
	case start == 0 && span <= 1:
		return "auto"
	case start == 0:
		return "span " + strconv.Itoa(span)
	case span <= 1:
		return strconv.Itoa(start)
	}
	return strconv.Itoa(start) + " / span " + strconv.Itoa(span)
}

func (t Track) text() string {
	if t.Fit.Unit != Auto {
		return "fit-content(" + t.Fit.String() + ")"
	}
	largest := t.Max.String()
	if t.Fr > 0 {
		largest = Number(t.Fr) + "fr"
	}
	least := t.Min.String()
	if least == largest || t.Fr > 0 && t.Min.Unit == Auto { // 1fr is minmax(auto, 1fr)
		return largest
	}
	return "minmax(" + least + ", " + largest + ")"
}

func tracksText(ts []Track, fill GridFill) string {
	if len(ts) == 0 {
		return "none"
	}
	alike := len(ts) > 1 && !slices.ContainsFunc(ts, func(t Track) bool { return t != ts[0] })
	s := ts[0].text()
	if !alike {
		for _, t := range ts[1:] {
			s += " " + t.text()
		}
	}
	switch {
	case fill == AutoFill:
		return "repeat(auto-fill, " + s + ")"
	case fill == AutoFit:
		return "repeat(auto-fit, " + s + ")"
	case alike:
		return "repeat(" + strconv.Itoa(len(ts)) + ", " + s + ")"
	}
	return s
}

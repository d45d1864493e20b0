package style

import (
	"math"
	"slices"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/number"
)

// gradient is a CSS gradient as settings hold it: "linear 135deg $deep 0%, $accent
// 100%", "radial $accent 0%, $deep 100%" or "conic 0deg …", colours being tokens, with an
// opacity or without ("$deep/40%"), or "#rrggbb" or "#rrggbbaa".
type gradient struct {
	kind  string
	angle float64 // degrees: of the line (CSS Images 3 §3.1.1), or where a conic one begins
	stops []stop
}

type stop struct {
	colour string
	at     float64 // per cent; two at one place make a hard edge
}

const (
	maxStops    = 12
	maxGradient = 2000 // bytes of an entry
)

// gradientKinds are those that there are (CSS Images 4 §3).
var gradientKinds = []string{"linear", "radial", "conic"}

// readGradient reads a gradient: its kind or angle, then two colours or more, parted
// by commas, each with its place in per cent or without. CSS functions are read too.
func readGradient(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	text := strings.TrimSpace(entry)
	g := gradient{kind: "linear", angle: 180}
	for _, kind := range gradientKinds {
		if rest, ok := strings.CutPrefix(text, kind); ok {
			if g.kind = kind; kind == "conic" {
				g.angle = 0
			}
			if in, ok := strings.CutPrefix(rest, "-gradient("); ok {
				rest = strings.TrimSuffix(in, ")")
			}
			text = rest
		}
	}
	text = strings.TrimPrefix(strings.TrimLeft(text, " ,"), "from ")
	if first, rest, ok := cutAngle(text); ok {
		g.angle, text = first, rest
	}
	if text == "" {
		return "", doc.Problemf(s.Label, "has no colours: write two or more, such as linear 135deg Deep, Accent 60%%")
	}
	parts := Parts(text)
	if len(parts) < 2 || len(parts) > maxStops {
		return "", doc.Problemf(
			s.Label,
			"has %d colours; a gradient has 2 to %d, parted by commas",
			len(parts),
			maxStops,
		)
	}
	for i, p := range parts {
		st := stop{at: -1}
		p = strings.TrimSpace(p)
		if k := strings.LastIndexByte(p, ' '); k >= 0 && strings.HasSuffix(p, "%") {
			n, err := Evaluate(strings.TrimSuffix(p[k+1:], "%"))
			if err != nil || n < 0 || n > 100 {
				return "", doc.Problemf(s.Label, "has %.20q as a place; write 0%% to 100%%", p[k+1:])
			}
			st.at, p = n, strings.TrimSpace(p[:k])
		}
		if st.colour = readAnyColour(h, p); st.colour == "" {
			return "", doc.Problemf(s.Label, "has %.40q as a colour; write one of the palette or one like #1d5f6b", p)
		}
		if st.at < 0 {
			st.at = 100 * float64(i) / float64(len(parts)-1)
		}
		if k := len(g.stops) - 1; k >= 0 && st.at < g.stops[k].at {
			st.at = g.stops[k].at // stops never go back (CSS Images 3 §3.4.3)
		}
		g.stops = append(g.stops, st)
	}
	return g.canonical(), nil
}

// cutAngle reads "135deg" or "135" at the beginning.
func cutAngle(text string) (angle float64, rest string, ok bool) {
	end := strings.IndexAny(text, " ,")
	if end < 0 {
		end = len(text)
	}
	n, err := number.Real(strings.TrimSuffix(text[:end], "deg"))
	if err != nil || n < -360 || n > 360 {
		return 0, text, false
	}
	return n, strings.TrimLeft(text[end:], " ,"), true
}

// Parts gives the parts of a list in CSS: it is cut at commas that stand in no brackets.
func Parts(text string) (parts []string) {
	depth, from := 0, 0
	for i, r := range text {
		switch {
		case r == '(':
			depth++
		case r == ')':
			depth--
		case r == ',' && depth == 0:
			parts = append(parts, text[from:i])
			from = i + 1
		}
	}
	return append(parts, text[from:])
}

func (g gradient) canonical() string {
	var b strings.Builder
	b.WriteString(g.kind)
	if g.kind != "radial" {
		b.WriteString(" " + Number(g.angle) + "deg")
	}
	for i, s := range g.stops {
		if i > 0 {
			b.WriteByte(',')
		}
		b.WriteString(" " + s.colour + " " + Number(s.at) + "%")
	}
	return b.String()
}

// parseGradient reads a canonical gradient; ok is false for anything else.
func parseGradient(v string) (g gradient, ok bool) {
	kind, rest, ok := strings.Cut(v, " ")
	if !ok || !slices.Contains(gradientKinds, kind) {
		return g, false
	}
	if g.kind = kind; kind != "radial" {
		var angle string
		angle, rest, _ = strings.Cut(rest, " ")
		g.angle, _ = number.Real(strings.TrimSuffix(angle, "deg"))
	}
	for p := range strings.SplitSeq(rest, ",") {
		c, at, _ := strings.Cut(strings.TrimSpace(p), " ")
		n, _ := number.Real(strings.TrimSuffix(at, "%"))
		g.stops = append(g.stops, stop{c, n})
	}
	return g, true
}

// Gradient gives a gradient setting as CSS text, each colour seen through by an
// opacity of 0 to 1, or "" when it is unset.
func (s Sheet) Gradient(name string, opacity float64) string {
	g, ok := parseGradient(s.value(name))
	if !ok {
		return ""
	}
	var b strings.Builder
	b.WriteString(g.kind + "-gradient(")
	switch g.kind {
	case "linear":
		b.WriteString(Number(g.angle) + "deg, ")
	case "conic":
		b.WriteString("from " + Number(g.angle) + "deg, ")
	}
	for i, p := range g.stops {
		if i > 0 {
			b.WriteString(", ")
		}
		b.WriteString(Veil(s.colour(p.colour, "#000000"), opacity) + " " + Number(p.at) + "%")
	}
	return b.String() + ")"
}

// GradientEnds gives the first and the last colour of a gradient setting, as CSS has them,
// or "".
func (s Sheet) GradientEnds(name string) (first, last string) {
	g, ok := parseGradient(s.value(name))
	if !ok {
		return "", ""
	}
	return s.colour(g.stops[0].colour, "#000000"), s.colour(g.stops[len(g.stops)-1].colour, "#000000")
}

// Veil gives a colour "#rrggbb" or "#rrggbbaa" seen through by an opacity of 0 to 1.
func Veil(hex string, opacity float64) string {
	if opacity >= 1 {
		return hex
	}
	c, err := colour.ParseHex(hex)
	if err != nil {
		return hex
	}
	c.A = uint8(math.Round(float64(c.A) * max(opacity, 0)))
	return c.String()
}

// Over gives the colour that is seen where one that may be see-through lies on another, in
// CSS's hexadecimal notation; "" is no colour. What isn't known to lie below is white.
func Over(top, under string) string {
	if top == "" {
		return under
	}
	a, err := colour.ParseHex(top)
	if err != nil || a.A == 255 {
		return top
	}
	b, err := colour.ParseHex(under)
	if err != nil {
		b = colour.Colour{R: 255, G: 255, B: 255, A: 255}
	}
	return a.Over(b).String()
}

// GradientWords says a gradient setting in words, or "" when it is unset.
func GradientWords(s Sheet, name string) string {
	g, ok := parseGradient(s.value(name))
	if !ok || len(g.stops) == 0 {
		return ""
	}
	names := make([]string, len(g.stops))
	for i, p := range g.stops {
		names[i] = colourName(s, p.colour)
	}
	out := g.kind + " gradient, from " + names[0] + " to " + names[len(names)-1]
	if n := len(names) - 2; n > 0 {
		out += " over " + strings.Join(names[1:len(names)-1], ", ")
	}
	if g.kind != "radial" {
		out += ", " + Number(g.angle) + " degrees"
	}
	return out
}

// ShadowWords says a shadow setting in words, or "" when it is unset.
func ShadowWords(s Sheet, name string) string {
	sh, ok := s.shadow(name)
	if !ok {
		return ""
	}
	out := "shadow " + Number(
		sh.Y,
	) + " px down, " + Number(
		sh.X,
	) + " px to the right, blurred by " + Number(
		sh.Blur,
	) + " px"
	if sh.Inner {
		out = "inner " + out
	}
	return out
}

// colourName is what a colour is called: by the palette's name, or as it is written.
func colourName(s Sheet, v string) string {
	token, seen, _ := strings.Cut(strings.TrimPrefix(v, "$"), "/")
	if w := s.House.Swatch(token); w != nil && strings.HasPrefix(v, "$") {
		if seen != "" {
			return w.Name + " at " + seen
		}
		return w.Name
	}
	return v
}

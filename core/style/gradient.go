package style

import (
	"strconv"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
)

// gradient is a CSS gradient as settings hold it: "linear 135deg $deep 0%, $accent
// 100%" or "radial $accent 0%, $deep 100%", colours being tokens or "#rrggbb".
type gradient struct {
	radial bool
	angle  float64 // degrees, CSS Images 3 §3.1.1
	stops  []stop
}

type stop struct {
	colour string
	at     float64 // per cent; two at one place make a hard edge
}

const maxStops = 12

// readGradient reads a gradient: its kind or angle, then two colours or more, parted
// by commas, each with its place in per cent or without. CSS functions are read too.
func readGradient(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	text := strings.TrimSpace(entry)
	g := gradient{angle: 180}
	for _, kind := range []string{"linear", "radial"} {
		if rest, ok := strings.CutPrefix(text, kind); ok {
			g.radial = kind == "radial"
			if in, ok := strings.CutPrefix(rest, "-gradient("); ok {
				rest = strings.TrimSuffix(in, ")")
			}
			text = rest
		}
	}
	text = strings.TrimLeft(text, " ,")
	if first, rest, ok := cutAngle(text); ok {
		g.angle, text = first, rest
	}
	if text == "" {
		return "", doc.Problemf(s.Label, "has no colours: write two or more, such as linear 135deg Deep, Accent 60%%")
	}
	parts := Parts(text)
	if len(parts) < 2 || len(parts) > maxStops {
		return "", doc.Problemf(s.Label, "has %d colours; a gradient has 2 to %d, parted by commas", len(parts), maxStops)
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
		if st.colour = stopColour(h, p); st.colour == "" {
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
	n, err := strconv.ParseFloat(strings.TrimSuffix(text[:end], "deg"), 64)
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

// stopColour reads a colour: a name or token of the palette, or any that package
// colour reads.
func stopColour(h *doc.House, p string) string {
	if token, ok := strings.CutPrefix(p, "$"); ok {
		if h.Swatch(token) != nil {
			return p
		}
		return ""
	}
	for _, w := range h.Palette {
		if strings.EqualFold(w.Name, p) {
			return "$" + w.Token
		}
	}
	if c, err := colour.Parse(p); err == nil {
		return c.String()
	}
	return ""
}

func (g gradient) canonical() string {
	var b strings.Builder
	if g.radial {
		b.WriteString("radial")
	} else {
		b.WriteString("linear " + Number(g.angle) + "deg")
	}
	for i, s := range g.stops {
		if i > 0 {
			b.WriteByte(',')
		}
		b.WriteString(" " + s.colour + " " + Number(s.at) + "%")
	}
	return b.String()
}

// Gradient gives a gradient setting as CSS text, each colour seen through by an
// opacity of 0 to 1, or "" when it is unset.
func (s Sheet) Gradient(name string, opacity float64) string {
	kind, rest, ok := strings.Cut(s.value(name), " ")
	if !ok || kind != "linear" && kind != "radial" {
		return ""
	}
	var b strings.Builder
	b.WriteString(kind + "-gradient(")
	if kind == "linear" {
		var angle string
		angle, rest, _ = strings.Cut(rest, " ")
		b.WriteString(angle + ", ")
	}
	for i, p := range strings.Split(rest, ",") {
		c, at, _ := strings.Cut(strings.TrimSpace(p), " ")
		if token, ok := strings.CutPrefix(c, "$"); ok {
			c = s.Swatch(token, "#000000")
		}
		if i > 0 {
			b.WriteString(", ")
		}
		b.WriteString(Veil(c, opacity) + " " + at)
	}
	return b.String() + ")"
}

// GradientEnds gives the first and the last colour of a gradient setting, "#rrggbb", or "".
func (s Sheet) GradientEnds(name string) (first, last string) {
	kind, rest, ok := strings.Cut(s.value(name), " ")
	if kind == "linear" {
		_, rest, ok = strings.Cut(rest, " ")
	}
	if !ok || kind != "linear" && kind != "radial" {
		return "", ""
	}
	stops := strings.Split(rest, ",")
	at := func(p string) string {
		c, _, _ := strings.Cut(strings.TrimSpace(p), " ")
		if token, ok := strings.CutPrefix(c, "$"); ok {
			return s.Swatch(token, "#000000")
		}
		return c
	}
	return at(stops[0]), at(stops[len(stops)-1])
}

// Veil gives a colour "#rrggbb" seen through by an opacity of 0 to 1.
func Veil(hex string, opacity float64) string {
	if opacity >= 1 {
		return hex
	}
	c, err := colour.ParseHex(hex)
	if err != nil {
		return hex
	}
	return "rgb(" + strconv.Itoa(int(c.R)) + " " + strconv.Itoa(int(c.G)) + " " + strconv.Itoa(int(c.B)) + " / " + Number(opacity) + ")"
}

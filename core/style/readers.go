package style

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/place"
)

// readers check an entry and give its canonical form, by Type.
var readers = [...]func(s *Setting, h *doc.House, entry string) (string, *doc.Problem){
	readWord, readLength, readWhole, readPercent, readRatio, readColour, readTextStyle, readShadow, readShares, readGradient, readPoint, readButtonSize,
	readFamily, readNumber, readEm, readAngle, readSeconds,
}

func readWord(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	return "", s.wrong(entry)
}

func readLength(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	if token, ok := strings.CutPrefix(entry, "$"); ok {
		if s.Steps != nil {
			if _, ok := doc.FindStep(s.Steps(h), token); ok {
				return entry, nil
			}
		}
		return "", doc.Problemf(s.Label, "the house style has no step %.40q for this", token)
	}
	l, err := EvaluateLength(strings.ToLower(entry))
	if err != nil { // a unit behind a sum is that of all of it
		for u := Px; u <= Vh; u++ {
			if t, ok := strings.CutSuffix(entry, unitNames[u]); ok {
				var n float64
				n, err = Evaluate(t)
				l = Length{N: n, Unit: u}
				break
			}
		}
	}
	if err != nil {
		return "", s.wrong(entry)
	}
	of := []Length{l}
	if l.Unit == Math {
		of = l.Fn.Args
	}
	for _, a := range of {
		if a.Unit != Px && !slices.Contains(s.Units, a.Unit) {
			return "", doc.Problemf(s.Label, "can't be in %s: %s", unitNames[a.Unit], s.hint())
		}
	}
	px, _ := l.Resolve(1000, Viewport{Width: 1000, Height: 1000}) // a common yardstick for the bounds
	least := min(s.Min, 0)
	switch {
	case l.Unit == Percent && (l.N > 100 || l.N < max(least, -100)), l.Unit != Percent && (px < s.Min || px > s.Max):
		return "", doc.Problemf(s.Label, "%.40s is out of range: %s", entry, s.hint())
	case l.Unit == Math:
		return l.String(), nil
	}
	return Number(l.N) + unitNames[l.Unit], nil
}

func readWhole(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	n, err := Evaluate(entry)
	if err != nil || n != float64(int(n)) || n < s.Min || n > s.Max {
		return "", s.wrong(entry)
	}
	return strconv.Itoa(int(n)), nil
}

func readPercent(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	n, err := Evaluate(strings.TrimSuffix(entry, "%"))
	if err != nil || n < s.Min || n > s.Max {
		return "", s.wrong(entry)
	}
	return Number(n) + "%", nil
}

func readRatio(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	w, h, ok := strings.Cut(entry, ":")
	if !ok {
		w, h, ok = strings.Cut(entry, "/")
	}
	a, err1 := Evaluate(w)
	b, err2 := Evaluate(h)
	if !ok || err1 != nil || err2 != nil || b <= 0 || a/b < s.Min || a/b > s.Max {
		return "", doc.Problemf(s.Label, "can't be %.40q: write width : height such as 4:3, Original or Rows", entry)
	}
	return Number(a) + ":" + Number(b), nil
}

// readPoint reads a focal point, "30% 70%".
func readPoint(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	var at [2]float64
	parts := strings.Fields(strings.ReplaceAll(entry, "%", " "))
	for i := range at {
		var err error
		if len(parts) != 2 {
			return "", doc.Problemf(
				s.Label,
				"can't be %.40q: write how far from the left and from the top, such as 30%% 70%%",
				entry,
			)
		}
		if at[i], err = Evaluate(parts[i]); err != nil || at[i] < 0 || at[i] > 100 {
			return "", doc.Problemf(s.Label, "can't be %.40q: both are from 0%% to 100%%", entry)
		}
	}
	return Number(at[0]) + "% " + Number(at[1]) + "%", nil
}

// readShares reads a pattern of columns in twelfths. A row may have room left over,
// but no more than twelve are given away in one.
func readShares(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	entry = strings.Join(
		strings.FieldsFunc(entry, func(r rune) bool { return strings.ContainsRune(" ,+-–·/", r) }),
		" ",
	)
	if place.ReadShares(entry) == nil {
		return "", doc.Problemf(
			s.Label,
			"can't be %.40q: write twelfths for each column, such as 4 8 or 3 6 3, or Equal",
			entry,
		)
	}
	return entry, nil
}

func readTextStyle(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	if _, ok := h.Text[strings.TrimPrefix(entry, "$")]; ok {
		return "$" + strings.TrimPrefix(entry, "$"), nil
	}
	return "", doc.Problemf(s.Label, "the house style has no text style %.40q", entry)
}

func readButtonSize(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	for _, b := range h.ButtonSizes() {
		if entry == "$"+b.Token {
			return entry, nil
		}
	}
	return "", doc.Problemf(s.Label, "the house style has no button size %.40q", entry)
}

// readShadow reads a shadow of the house style, or one's own.
func readShadow(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	for _, sh := range h.Shadows {
		if entry == "$"+sh.Token {
			return entry, nil
		}
	}
	if strings.HasPrefix(entry, "$") {
		return "", doc.Problemf(s.Label, "the house style has no shadow %.40q", entry)
	}
	sh, wrong := ReadShadow(s.Label, h, entry)
	if wrong != nil {
		return "", wrong
	}
	return ShadowText(sh), nil
}

// ReadShadow reads a shadow: x, y, blur and spread in px, a colour, and "inset" for an inner
// one (CSS Backgrounds 3 §6.1). Label names the field in problems.
func ReadShadow(label string, h *doc.House, entry string) (sh doc.Shadow, wrong *doc.Problem) {
	wrong = doc.Problemf(
		label,
		"can't be %.40q: write x, y, blur and spread in px and a colour, such as 0 6 20 0 #00000024, and inset for an inner one",
		entry,
	)
	words, inset := strings.CutSuffix(entry, "inset")
	parts := strings.Fields(words)
	if len(parts) < 5 {
		return sh, wrong
	}
	sh.Inner = inset
	for i, to := range []*float64{&sh.X, &sh.Y, &sh.Blur, &sh.Spread} {
		n, err := Evaluate(strings.TrimSuffix(parts[i], "px"))
		if err != nil || n < -maxShadow || n > maxShadow || to == &sh.Blur && n < 0 {
			return sh, wrong
		}
		*to = n
	}
	if sh.Colour = readAnyColour(h, strings.Join(parts[4:], " ")); sh.Colour == "" {
		return sh, wrong
	}
	return sh, nil
}

// ShadowText gives a shadow as ReadShadow reads it.
func ShadowText(sh doc.Shadow) string {
	out := ""
	for _, n := range []float64{sh.X, sh.Y, sh.Blur, sh.Spread} {
		out += Number(n) + "px "
	}
	out += shadeOf(sh)
	if sh.Inner {
		out += " inset"
	}
	return out
}

// shadeOf gives the colour of a shadow as CSS text.
func shadeOf(sh doc.Shadow) string {
	return cmp.Or(sh.Colour, fmt.Sprintf("#000000%02x", int(math.Round(min(max(sh.Opacity, 0), 1)*255))))
}

// maxShadow is how far in px a shadow is moved, blurred or spread at most.
const maxShadow = 200

func readColour(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	if c := readAnyColour(h, entry); c != "" {
		return c, nil
	}
	if strings.HasPrefix(entry, "$") {
		return "", doc.Problemf(s.Label, "the palette has no colour %.40q", strings.TrimPrefix(entry, "$"))
	}
	_, err := colour.Parse(entry)
	if err == nil {
		return "", s.wrong(entry)
	}
	return "", doc.Problemf(s.Label, "%v, or choose one of the palette", err)
}

// readAnyColour reads a colour: a token or the name of one of the palette, with an opacity
// behind it or without ("$deep/40%", "Deep 40%"), or any notation that package colour
// reads. It gives "" for others.
func readAnyColour(h *doc.House, entry string) string {
	name, alpha := strings.TrimSpace(entry), 100.0
	if i := strings.LastIndexAny(name, "/ "); i > 0 && strings.HasSuffix(name, "%") &&
		!strings.ContainsAny(name, "(#") {
		n, err := Evaluate(strings.TrimSuffix(name[i+1:], "%"))
		if err != nil || n < 0 || n > 100 {
			return ""
		}
		name, alpha = strings.TrimSpace(strings.TrimRight(name[:i], "/ ")), n
	}
	for _, w := range h.Palette {
		if name == "$"+w.Token || strings.EqualFold(w.Name, name) {
			if alpha < 100 {
				return "$" + w.Token + "/" + Number(alpha) + "%"
			}
			return "$" + w.Token
		}
	}
	if strings.HasPrefix(name, "$") {
		return ""
	}
	if c, err := colour.Parse(strings.TrimSpace(entry)); err == nil {
		return c.String()
	}
	return ""
}

func readFamily(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	for _, o := range s.Offers(h) {
		if strings.EqualFold(entry, o.Value) {
			return o.Value, nil
		}
	}
	return "", doc.Problemf(s.Label, "there is no font %.40q: %s", entry, s.hint())
}

func readNumber(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	n, err := Evaluate(entry)
	if err != nil || n < s.Min || n > s.Max {
		return "", s.wrong(entry)
	}
	return Number(n), nil
}

func readEm(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	return withUnit(s, entry, "em")
}

func readAngle(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	return withUnit(s, strings.TrimSuffix(entry, "°"), "deg")
}

func readSeconds(s *Setting, _ *doc.House, entry string) (string, *doc.Problem) {
	return withUnit(s, entry, "s")
}

// withUnit reads a number of one unit, which need not be written.
func withUnit(s *Setting, entry, unit string) (string, *doc.Problem) {
	n, err := Evaluate(strings.TrimSpace(strings.TrimSuffix(entry, unit)))
	if err != nil || n < s.Min || n > s.Max {
		return "", s.wrong(entry)
	}
	return Number(n) + unit, nil
}

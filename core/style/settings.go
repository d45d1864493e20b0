package style

import (
	"maps"
	"slices"
	"strconv"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/place"
)

// Setting is one thing a person can set on a block or a section, per zone.
type Setting struct {
	Name  string
	Label string
	// On tells which kinds of block have it; OnSection stands for sections.
	On func(doc.Kind) bool
	// Words are the keywords it takes, the first being what it is unless set.
	Words []string
	Type  Type
	// Min and Max bound a number or a length in px; Units are those allowed
	// beside px.
	Min, Max float64
	Units    []Unit
	// Steps gives the house style's tokens for a length.
	Steps func(*doc.House) []doc.Step
}

// Type says what entries a setting takes beside its words.
type Type uint8

// The types.
const (
	TypeWord Type = iota
	TypeLength
	TypeWhole
	TypePercent
	TypeRatio
	TypeColour
	TypeTextStyle
	TypeShadow
	TypeShares
	TypeGradient
	TypePoint
)

// readers check an entry and give its canonical form, by Type.
var readers = [...]func(s *Setting, h *doc.House, entry string) (string, *doc.Problem){
	readWord, readLength, readWhole, readPercent, readRatio, readColour, readTextStyle, readShadow, readShares, readGradient, readPoint,
}

// OnSection is the kind that stands for sections in Setting.On.
const OnSection doc.Kind = "section"

// having tells the kinds with all of the traits.
func having(t doc.Trait) func(doc.Kind) bool {
	return func(k doc.Kind) bool { return k.Is(t) }
}

// only tells the kinds named.
func only(kinds ...doc.Kind) func(doc.Kind) bool {
	return func(k doc.Kind) bool { return slices.Contains(kinds, k) }
}

func either(a, b func(doc.Kind) bool) func(doc.Kind) bool {
	return func(k doc.Kind) bool { return a(k) || b(k) }
}

var (
	all      = having(0)
	typed    = having(doc.Typed)
	solid    = having(doc.Solid)
	filled   = having(doc.Filled)
	section  = only(OnSection)
	boxed    = either(section, filled)
	coloured = either(section, typed)
	holds    = either(section, having(doc.Holding))
	gapped   = either(holds, only(doc.Figures, doc.Progress, doc.Social, doc.Gallery, doc.Menu, doc.PageList, doc.SiteFacts))
	picture  = only(doc.Picture)
	spaces   = func(h *doc.House) []doc.Step { return h.Space }
	corners  = func(h *doc.House) []doc.Step { return h.Corners }
	lines    = (*doc.House).LineSteps
)

// places are the points of a picture that are kept in sight.
var places = []string{"50% 50%", "0% 0%", "50% 0%", "100% 0%", "0% 50%", "100% 50%", "0% 100%", "50% 100%", "100% 100%"}

// Edgings are the shapes that a section's edge can have; package element draws them.
var Edgings = []string{"straight", "wave", "swell", "tide", "slope", "arc", "hollow", "peak", "notch", "scallops", "steps", "torn"}

// Settings lists every setting, in the order of the Tray.
var Settings = []*Setting{
	{Name: "width", Label: "Width", On: all, Words: []string{"columns"}, Type: TypeLength, Min: 1, Max: 4000, Units: []Unit{Rem, Percent, Vw}},
	{Name: "min-height", Label: "Least height", On: either(section, solid), Words: []string{"none"}, Type: TypeLength, Min: 0, Max: 4000, Units: []Unit{Rem, Vh}},
	{Name: "aspect-ratio", Label: "Shape", On: either(picture, only(doc.Gallery, doc.Map, doc.Video)), Words: []string{"own", "rows"}, Type: TypeRatio, Min: 0.05, Max: 20},
	{Name: "shape", Label: "Cut to", On: picture, Words: []string{"none", "circle", "arch", "leaf", "slant", "hexagon"}, Type: TypeWord},
	{Name: "object-fit", Label: "Fills", On: picture, Words: []string{"fill", "whole"}, Type: TypeWord},
	{Name: "object-position", Label: "Crop to", On: picture, Words: places, Type: TypePoint},
	{Name: "align-self", Label: "Up and down", On: all, Words: []string{"fill", "top", "middle", "bottom"}, Type: TypeWord},
	{Name: "justify-self", Label: "Side to side", On: all, Words: []string{"fill", "left", "middle", "right"}, Type: TypeWord},
	{Name: "padding-top", Label: "Top", On: section, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "padding-top", Label: "Top", On: filled, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces},
	{Name: "padding-right", Label: "Right", On: section, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "padding-right", Label: "Right", On: filled, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces},
	{Name: "padding-bottom", Label: "Bottom", On: section, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "padding-bottom", Label: "Bottom", On: filled, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces},
	{Name: "padding-left", Label: "Left", On: section, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "padding-left", Label: "Left", On: filled, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces},
	{Name: "wrap-side", Label: "Picture", On: only(doc.Text), Words: []string{"left", "right", "above"}, Type: TypeWord},
	{Name: "wrap-width", Label: "Picture’s width", On: only(doc.Text), Words: []string{"40%"}, Type: TypeLength, Min: 40, Max: 800, Units: []Unit{Rem, Percent}},
	{Name: "list-marks", Label: "Marks", On: only(doc.List), Words: []string{"dots", "numbers", "squares", "ticks", "none"}, Type: TypeWord},
	{Name: "button-look", Label: "Look", On: only(doc.Button), Words: []string{"filled", "outlined", "quiet"}, Type: TypeWord},
	{Name: "button-size", Label: "Size", On: only(doc.Button), Words: []string{"medium", "small", "large"}, Type: TypeWord},
	{Name: "text-style", Label: "Style", On: typed, Words: []string{"usual"}, Type: TypeTextStyle},
	{Name: "font-size", Label: "Type size", On: typed, Words: []string{"as style"}, Type: TypeLength, Min: 8, Max: 300, Units: []Unit{Rem}},
	{Name: "text-align", Label: "Lines", On: coloured, Words: []string{"left", "middle", "right"}, Type: TypeWord},
	{Name: "color", Label: "Colour", On: coloured, Words: []string{"usual"}, Type: TypeColour},
	{Name: "background", Label: "Fill", On: boxed, Words: []string{"none"}, Type: TypeColour},
	{Name: "border-radius", Label: "Corners", On: either(section, solid), Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent}, Steps: corners},
	{Name: "border-width", Label: "Line", On: either(section, all), Words: []string{"none"}, Type: TypeLength, Max: 40, Steps: lines},
	{Name: "border-color", Label: "Line colour", On: either(section, all), Words: []string{"usual"}, Type: TypeColour},
	{Name: "box-shadow", Label: "Shadow", On: either(section, solid), Words: []string{"none"}, Type: TypeShadow},
	{Name: "opacity", Label: "Opacity", On: all, Words: []string{"100%"}, Type: TypePercent, Min: 0, Max: 100},
	{Name: "menu-folds", Label: "Folds", On: only(doc.Menu), Words: []string{"on phones", "on tablets and phones", "everywhere", "never"}, Type: TypeWord},
	{Name: "gallery-as", Label: "Runs as", On: only(doc.Gallery), Words: []string{"grid", "rows of equal height", "columns"}, Type: TypeWord},
	{Name: "gallery-height", Label: "Rows’ height", On: only(doc.Gallery), Words: []string{"usual"}, Type: TypeLength, Min: 40, Max: 800},
	{Name: "icon-size", Label: "Icon size", On: only(doc.Icon, doc.Social), Words: []string{"usual"}, Type: TypeLength, Min: 8, Max: 400, Units: []Unit{Rem}},
	{Name: "logo-height", Label: "Height", On: only(doc.Logo), Words: []string{"usual"}, Type: TypeLength, Min: 8, Max: 400, Units: []Unit{Rem}},
	{Name: "height", Label: "Height", On: only(doc.Space, doc.OwnHTML), Words: []string{"usual"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw, Vh}, Steps: spaces},
	{Name: "shape-colour", Label: "Colour", On: only(doc.Shape), Words: []string{"usual"}, Type: TypeColour},
	{Name: "figure-colour", Label: "Numbers", On: only(doc.Figures), Words: []string{"usual"}, Type: TypeColour},
	{Name: "bar-colour", Label: "Bars", On: only(doc.Progress), Words: []string{"usual"}, Type: TypeColour},
	{Name: "time-width", Label: "Times’ width", On: only(doc.Timetable), Words: []string{"usual"}, Type: TypeLength, Min: 20, Max: 400, Units: []Unit{Rem}},
	{Name: "cell-padding", Label: "Rows’ padding", On: only(doc.Table), Words: []string{"usual"}, Type: TypeLength, Max: 100, Units: []Unit{Rem}, Steps: spaces},
	{Name: "gradient", Label: "Gradient", On: section, Words: []string{"none"}, Type: TypeGradient},
	{Name: "picture-fit", Label: "Picture", On: section, Words: []string{"cover", "contain", "tile"}, Type: TypeWord},
	{Name: "picture-position", Label: "Picture at", On: section, Words: places, Type: TypePoint},
	{Name: "picture-scroll", Label: "Scrolls", On: section, Words: []string{"with the page", "more slowly", "stays"}, Type: TypeWord},
	{Name: "filter", Label: "Filter over it", On: section, Words: []string{"none"}, Type: TypeColour},
	{Name: "filter-gradient", Label: "Filter gradient", On: section, Words: []string{"none"}, Type: TypeGradient},
	{Name: "filter-opacity", Label: "Filter’s strength", On: section, Words: []string{"50%"}, Type: TypePercent, Min: 0, Max: 100},
	{Name: "margin-top", Label: "Above", On: section, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "margin-bottom", Label: "Below", On: section, Words: []string{"none"}, Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "margin-sides", Label: "At the sides", On: section, Words: []string{"none"}, Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "margin-left", Label: "On the left", On: section, Words: []string{"as the sides"}, Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "margin-right", Label: "On the right", On: section, Words: []string{"as the sides"}, Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces},
	{Name: "pull", Label: "Pulled up by", On: section, Words: []string{"none"}, Type: TypeLength, Max: 600, Units: []Unit{Rem, Vw}, Steps: spaces},
	{Name: "layer", Label: "Layer", On: section, Words: []string{"as it comes"}, Type: TypeWhole, Min: 0, Max: doc.MaxLayer},
	{Name: "content-at", Label: "Content at", On: section, Words: []string{"top", "middle", "bottom"}, Type: TypeWord},
	{Name: "stays", Label: "On scrolling", On: section, Words: []string{"goes", "stays", "stays after the first section"}, Type: TypeWord},
	{Name: "over", Label: "See-through", On: section, Words: []string{"no", "over the first section"}, Type: TypeWord},
	{Name: "edge-top", Label: "Top edge", On: section, Words: Edgings, Type: TypeWord},
	{Name: "edge-top-height", Label: "Height", On: section, Words: []string{"usual"}, Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem, Vw}},
	{Name: "edge-top-colour", Label: "Colour", On: section, Words: []string{"usual"}, Type: TypeColour},
	{Name: "edge-top-flip", Label: "Flipped", On: section, Words: []string{"no", "yes"}, Type: TypeWord},
	{Name: "edge-bottom", Label: "Bottom edge", On: section, Words: Edgings, Type: TypeWord},
	{Name: "edge-bottom-height", Label: "Height", On: section, Words: []string{"usual"}, Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem, Vw}},
	{Name: "edge-bottom-colour", Label: "Colour", On: section, Words: []string{"usual"}, Type: TypeColour},
	{Name: "edge-bottom-flip", Label: "Flipped", On: section, Words: []string{"no", "yes"}, Type: TypeWord},
	{Name: "content", Label: "Content", On: section, Words: []string{"boxed", "full"}, Type: TypeWord},
	{Name: "columns", Label: "Columns", On: holds, Words: []string{"usual"}, Type: TypeWhole, Min: 1, Max: doc.MaxColumns},
	{Name: "row-height", Label: "Row", On: holds, Words: []string{"24px"}, Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem}},
	{Name: "column-gap", Label: "Gap across", On: gapped, Words: []string{"usual"}, Type: TypeLength, Max: 200, Units: []Unit{Rem}, Steps: spaces},
	{Name: "row-gap", Label: "Gap down", On: gapped, Words: []string{"usual"}, Type: TypeLength, Max: 200, Units: []Unit{Rem}, Steps: spaces},
	{Name: "shares", Label: "Shares", On: holds, Words: []string{"equal"}, Type: TypeShares},
	{Name: "below", Label: "Below one another", On: holds, Words: []string{"first on top", "last on top"}, Type: TypeWord},
	{Name: "direction", Label: "Goes", On: holds, Words: []string{"down", "across"}, Type: TypeWord},
	{Name: "spread", Label: "Spread", On: holds, Words: []string{"start", "middle", "end", "apart", "around", "even"}, Type: TypeWord},
	{Name: "align-items", Label: "Align", On: holds, Words: []string{"fill", "start", "middle", "end"}, Type: TypeWord},
	{Name: "wrap", Label: "Wraps", On: holds, Words: []string{"wraps", "one line"}, Type: TypeWord},
	{Name: "grow-items", Label: "All grow", On: holds, Words: []string{"no", "yes"}, Type: TypeWord},
	{Name: "grow", Label: "Grows", On: all, Words: []string{"no", "yes"}, Type: TypeWord},
	{Name: "run", Label: "Runs as", On: only(doc.Series), Words: []string{"grid", "line", "slider"}, Type: TypeWord},
	{Name: "per-row", Label: "In a row", On: only(doc.Series, doc.Figures, doc.Gallery, doc.PageList), Words: []string{"usual"}, Type: TypeWhole, Min: 1, Max: 12},
}

// Find gives the setting of a name for a kind, or nil.
func Find(name string, kind doc.Kind) *Setting {
	for _, s := range Settings {
		if s.Name == name && s.On(kind) {
			return s
		}
	}
	return nil
}

// Read checks an entry for the setting and gives its canonical form.
func (s *Setting) Read(h *doc.House, entry string) (string, *doc.Problem) {
	entry = strings.TrimSpace(entry)
	if len(entry) > 200 {
		return "", doc.Problemf(s.Label, "is too long; %s", s.hint())
	}
	for _, w := range s.Words {
		if strings.EqualFold(entry, w) {
			return w, nil
		}
	}
	for _, o := range s.Offers(h) {
		if strings.EqualFold(entry, o.Name) {
			return o.Value, nil
		}
	}
	return readers[s.Type](s, h, entry)
}

// Offer is a value that the house style has for a setting.
type Offer struct {
	Name  string // as people see it
	Value string // canonical
	// Colour is what a palette colour looks like, or "".
	Colour string
}

// Offers lists the house style's values for the setting.
func (s *Setting) Offers(h *doc.House) []Offer {
	var out []Offer
	switch {
	case s.Steps != nil:
		for _, st := range s.Steps(h) {
			out = append(out, Offer{Name: st.Name, Value: "$" + st.Token})
		}
	case s.Type == TypeColour:
		for _, w := range h.Palette {
			out = append(out, Offer{w.Name, "$" + w.Token, w.Value})
		}
	case s.Type == TypeTextStyle:
		for _, name := range slices.Sorted(maps.Keys(h.Text)) {
			out = append(out, Offer{Name: strings.ToUpper(name[:1]) + name[1:], Value: "$" + name})
		}
	case s.Type == TypeShadow:
		for _, sh := range h.Shadows {
			out = append(out, Offer{Name: sh.Name, Value: "$" + sh.Token})
		}
	}
	return out
}

// Shown gives a canonical value as people see it.
func (s *Setting) Shown(h *doc.House, value string) string {
	for _, o := range s.Offers(h) {
		if o.Value == value {
			return o.Name
		}
	}
	return strings.TrimSuffix(value, "px")
}

func (s *Setting) hint() string {
	var could []string
	if s.Max > 0 {
		unit := ""
		if s.Units != nil || s.Steps != nil || s.Max > 100 {
			unit = " px"
		}
		could = append(could, "a number from "+Number(s.Min)+" to "+Number(s.Max)+unit)
	}
	could = append(could, s.Words...)
	if len(could) > 5 {
		could = could[:5]
	}
	return "write " + strings.Join(could, ", or ")
}

func (s *Setting) wrong(entry string) *doc.Problem {
	return doc.Problemf(s.Label, "can't be %.40q: %s", entry, s.hint())
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
	unit, text := Px, entry
	for u := Px; u <= Vh; u++ {
		if t, ok := strings.CutSuffix(entry, unitNames[u]); ok {
			unit, text = u, t
			break
		}
	}
	if unit != Px && !slices.Contains(s.Units, unit) {
		return "", doc.Problemf(s.Label, "can't be in %s: %s", unitNames[unit], s.hint())
	}
	n, err := Evaluate(text)
	if err != nil {
		return "", s.wrong(entry)
	}
	px, _ := Length{N: n, Unit: unit}.Resolve(1000, Viewport{1000, 1000}) // a common yardstick for the bounds
	if px < s.Min || px > s.Max && unit != Percent || unit == Percent && (n < 0 || n > 100) {
		return "", doc.Problemf(s.Label, "%s is out of range: %s", entry, s.hint())
	}
	return Number(n) + unitNames[unit], nil
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
		return "", doc.Problemf(s.Label, "can't be %.40q: write width : height such as 4:3, own, or rows", entry)
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
			return "", doc.Problemf(s.Label, "can't be %.40q: write how far from the left and from the top, such as 30%% 70%%", entry)
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
	entry = strings.Join(strings.FieldsFunc(entry, func(r rune) bool { return strings.ContainsRune(" ,+-–·/", r) }), " ")
	if place.ReadShares(entry) == nil {
		return "", doc.Problemf(s.Label, "can't be %.40q: write twelfths for each column, such as 4 8 or 3 6 3, or equal", entry)
	}
	return entry, nil
}

func readTextStyle(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	if _, ok := h.Text[strings.TrimPrefix(entry, "$")]; ok {
		return "$" + strings.TrimPrefix(entry, "$"), nil
	}
	return "", doc.Problemf(s.Label, "the house style has no text style %.40q", entry)
}

func readShadow(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	for _, sh := range h.Shadows {
		if entry == "$"+sh.Token {
			return entry, nil
		}
	}
	return "", doc.Problemf(s.Label, "the house style has no shadow %.40q", entry)
}

func readColour(s *Setting, h *doc.House, entry string) (string, *doc.Problem) {
	if token, ok := strings.CutPrefix(entry, "$"); ok {
		if h.Swatch(token) != nil {
			return entry, nil
		}
		return "", doc.Problemf(s.Label, "the palette has no colour %.40q", token)
	}
	c, err := colour.Parse(entry)
	if err != nil {
		return "", doc.Problemf(s.Label, "%v, or choose one of the palette", err)
	}
	return c.String(), nil
}

package style

import (
	"maps"
	"slices"
	"strconv"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/value"
)

// Setting is one thing a person can set on a block or a section, per zone.
type Setting struct {
	Name  string
	Label string
	// On tells which kinds of block have it; OnSection stands for sections.
	On func(doc.Kind) bool
	// Choices are the keywords it takes, the first being what it is unless set.
	Choices []value.Choice
	Type    Type
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
	TypeButtonSize
)

// readers check an entry and give its canonical form, by Type.
var readers = [...]func(s *Setting, h *doc.House, entry string) (string, *doc.Problem){
	readWord, readLength, readWhole, readPercent, readRatio, readColour, readTextStyle, readShadow, readShares, readGradient, readPoint, readButtonSize,
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
var places = value.Is(
	"50% 50%", "Center", "0% 0%", "Top left", "50% 0%", "Top", "100% 0%", "Top right", "0% 50%", "Left",
	"100% 50%", "Right", "0% 100%", "Bottom left", "50% 100%", "Bottom", "100% 100%", "Bottom right",
)

// Dividers are the shapes that a section can end in; package element draws them.
var Dividers = value.Is(
	value.None, "None", "wave", "Wave", "swell", "Swell", "tide", "Tide", "slope", "Slope", "arc", "Arc",
	"hollow", "Hollow", "peak", "Peak", "notch", "Notch", "scallops", "Scallops", "steps", "Steps", "torn", "Torn",
)

// Settings lists every setting, in the order of the Tray.
var Settings = []*Setting{
	{
		Name: "width", Label: "Width", On: all,
		Choices: value.Is(value.Auto, "Auto"), Type: TypeLength, Min: 1, Max: 4000, Units: []Unit{Rem, Percent, Vw},
	},
	{
		Name: "min-height", Label: "Min height", On: either(section, solid),
		Choices: value.Is(value.Auto, "Auto"), Type: TypeLength, Max: 4000, Units: []Unit{Rem, Vh},
	},
	{
		Name: "aspect-ratio", Label: "Aspect ratio", On: either(picture, only(doc.Gallery, doc.Map, doc.Video)),
		Choices: value.Is(value.Auto, "Original", value.Rows, "Rows"), Type: TypeRatio, Min: 0.05, Max: 20,
	},
	{
		Name: "shape", Label: "Mask", On: picture,
		Choices: value.Is(
			value.None, "None", "circle", "Circle", "arch", "Arch", "leaf", "Leaf", "slant", "Slant", "hexagon",
			"Hexagon",
		), Type: TypeWord,
	},
	{Name: "object-fit", Label: "Fit", On: picture, Choices: value.Is(value.Cover, "Fill", value.Contain, "Whole"), Type: TypeWord},
	{Name: "object-position", Label: "Focal point", On: picture, Choices: places, Type: TypePoint},
	{
		Name: "align-self", Label: "Align vertically", On: all,
		Choices: value.Is(value.Stretch, "Stretch", value.Start, "Top", value.Center, "Center", value.End, "Bottom"), Type: TypeWord,
	},
	{
		Name: "justify-self", Label: "Align horizontally", On: all,
		Choices: value.Is(value.Stretch, "Stretch", value.Start, "Left", value.Center, "Center", value.End, "Right"), Type: TypeWord,
	},
	{
		Name: "padding-top", Label: "Padding top", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "padding-top", Label: "Padding top", On: filled,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces,
	},
	{
		Name: "padding-right", Label: "Padding right", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "padding-right", Label: "Padding right", On: filled,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces,
	},
	{
		Name: "padding-bottom", Label: "Padding bottom", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "padding-bottom", Label: "Padding bottom", On: filled,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces,
	},
	{
		Name: "padding-left", Label: "Padding left", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "padding-left", Label: "Padding left", On: filled,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces,
	},
	{
		Name: "wrap-side", Label: "Picture side", On: only(doc.Text),
		Choices: value.Is(value.Left, "Left", value.Right, "Right", value.Above, "Above"), Type: TypeWord,
	},
	{
		Name: "wrap-width", Label: "Picture width", On: only(doc.Text),
		Choices: value.Is("40%", "40%"), Type: TypeLength, Min: 40, Max: 800, Units: []Unit{Rem, Percent},
	},
	{
		Name: "list-marks", Label: "Markers", On: only(doc.List),
		Choices: value.Is(
			value.Disc, "Dots", value.Decimal, "Numbers", value.Square, "Squares", value.Check, "Checks", value.None,
			"None",
		), Type: TypeWord,
	},
	{
		Name: "button-look", Label: "Variant", On: only(doc.Button),
		Choices: value.Is(value.Filled, "Filled", value.Outlined, "Outlined", value.Quiet, "Quiet"), Type: TypeWord,
	},
	{Name: "button-size", Label: "Button size", On: only(doc.Button), Type: TypeButtonSize},
	{Name: "text-style", Label: "Text style", On: typed, Choices: value.Is(value.Default, "Default"), Type: TypeTextStyle},
	{
		Name: "font-size", Label: "Font size", On: typed,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 8, Max: 300, Units: []Unit{Rem},
	},
	{
		Name: "text-align", Label: "Align text", On: coloured,
		Choices: value.Is(value.Start, "Left", value.Center, "Center", value.End, "Right"), Type: TypeWord,
	},
	{Name: "color", Label: "Text colour", On: coloured, Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{Name: "background", Label: "Fill", On: boxed, Choices: value.Is(value.None, "None"), Type: TypeColour},
	{
		Name: "border-radius", Label: "Corner radius", On: either(section, solid),
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent}, Steps: corners,
	},
	{
		Name: "border-width", Label: "Border", On: either(section, all),
		Choices: value.Is(value.None, "None"), Type: TypeLength, Max: 40, Steps: lines,
	},
	{Name: "border-color", Label: "Border colour", On: either(section, all), Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{Name: "box-shadow", Label: "Shadow", On: either(section, solid), Choices: value.Is(value.None, "None"), Type: TypeShadow},
	{Name: "opacity", Label: "Opacity", On: all, Choices: value.Is("100%", "100%"), Type: TypePercent, Max: 100},
	{
		Name: "menu-folds", Label: "Collapses", On: only(doc.Menu),
		Choices: value.Is(
			value.Narrowest, "On phones", value.Narrower, "On tablets and phones", value.Always, "Always", value.Never,
			"Never",
		), Type: TypeWord,
	},
	{
		Name: "gallery-as", Label: "Layout", On: only(doc.Gallery),
		Choices: value.Is(value.Grid, "Grid", value.Rows, "Rows of equal height", value.Columns, "Columns"), Type: TypeWord,
	},
	{
		Name: "gallery-height", Label: "Row height", On: only(doc.Gallery),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 40, Max: 800,
	},
	{
		Name: "icon-size", Label: "Icon size", On: only(doc.Icon, doc.Social),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 8, Max: 400, Units: []Unit{Rem},
	},
	{
		Name: "logo-height", Label: "Logo height", On: only(doc.Logo),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 8, Max: 400, Units: []Unit{Rem},
	},
	{
		Name: "height", Label: "Height", On: only(doc.Space, doc.OwnHTML),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw, Vh}, Steps: spaces,
	},
	{Name: "shape-colour", Label: "Shape colour", On: only(doc.Shape), Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{Name: "figure-colour", Label: "Number colour", On: only(doc.Figures), Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{Name: "bar-colour", Label: "Bar colour", On: only(doc.Progress), Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{
		Name: "time-width", Label: "Time column width", On: only(doc.Timetable),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 20, Max: 400, Units: []Unit{Rem},
	},
	{
		Name: "cell-padding", Label: "Cell padding", On: only(doc.Table),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 100, Units: []Unit{Rem}, Steps: spaces,
	},
	{Name: "gradient", Label: "Gradient", On: section, Choices: value.Is(value.None, "None"), Type: TypeGradient},
	{
		Name: "picture-fit", Label: "Background size", On: section,
		Choices: value.Is(value.Cover, "Fill", value.Contain, "Whole", value.Repeat, "Repeat"), Type: TypeWord,
	},
	{Name: "picture-position", Label: "Background position", On: section, Choices: places, Type: TypePoint},
	{
		Name: "picture-scroll", Label: "Background on scroll", On: section,
		Choices: value.Is(value.Scroll, "Scrolls", value.Parallax, "Parallax", value.Fixed, "Fixed"), Type: TypeWord,
	},
	{Name: "parallax", Label: "Parallax strength", On: section, Choices: value.Is("50%", "50%"), Type: TypePercent, Min: 10, Max: 100},
	{Name: "filter", Label: "Overlay", On: section, Choices: value.Is(value.None, "None"), Type: TypeColour},
	{Name: "filter-gradient", Label: "Overlay gradient", On: section, Choices: value.Is(value.None, "None"), Type: TypeGradient},
	{Name: "filter-opacity", Label: "Overlay opacity", On: section, Choices: value.Is("50%", "50%"), Type: TypePercent, Max: 100},
	{
		Name: "margin-top", Label: "Margin top", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "margin-bottom", Label: "Margin bottom", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "margin-sides", Label: "Margin left and right", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "margin-left", Label: "Margin left", On: section,
		Choices: value.Is(value.Default, "As both sides"), Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "margin-right", Label: "Margin right", On: section,
		Choices: value.Is(value.Default, "As both sides"), Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "pull", Label: "Overlap above", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 600, Units: []Unit{Rem, Vw}, Steps: spaces,
	},
	{Name: "layer", Label: "Layer", On: section, Choices: value.Is(value.Auto, "Auto"), Type: TypeWhole, Max: doc.MaxLayer},
	{
		Name: "content-at", Label: "Align vertically", On: section,
		Choices: value.Is(value.Start, "Top", value.Center, "Center", value.End, "Bottom"), Type: TypeWord,
	},
	{
		Name: "stays", Label: "On scroll", On: section,
		Choices: value.Is(value.Static, "Scrolls", value.Sticky, "Sticks", value.StickyAfter, "Sticks after the first section"), Type: TypeWord,
	},
	{Name: "over", Label: "Overlay bar", On: section, Choices: value.Is(value.No, "No", value.Yes, "Over the next section"), Type: TypeWord},
	{Name: "edge-top", Label: "Top shape divider", On: section, Choices: Dividers, Type: TypeWord},
	{
		Name: "edge-top-height", Label: "Top divider height", On: section,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem, Vw},
	},
	{Name: "edge-top-colour", Label: "Top divider colour", On: section, Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{Name: "edge-top-flip", Label: "Flip top divider", On: section, Choices: value.Is(value.No, "No", value.Yes, "Yes"), Type: TypeWord},
	{Name: "edge-bottom", Label: "Bottom shape divider", On: section, Choices: Dividers, Type: TypeWord},
	{
		Name: "edge-bottom-height", Label: "Bottom divider height", On: section,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem, Vw},
	},
	{Name: "edge-bottom-colour", Label: "Bottom divider colour", On: section, Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{Name: "edge-bottom-flip", Label: "Flip bottom divider", On: section, Choices: value.Is(value.No, "No", value.Yes, "Yes"), Type: TypeWord},
	{Name: "content", Label: "Content width", On: section, Choices: value.Is(value.Boxed, "Boxed", value.Full, "Full"), Type: TypeWord},
	{Name: "columns", Label: "Grid columns", On: holds, Choices: value.Is(value.Default, "Default"), Type: TypeWhole, Min: 1, Max: doc.MaxColumns},
	{Name: "row-height", Label: "Row height", On: holds, Choices: value.Is("24px", "24"), Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem}},
	{
		Name: "column-gap", Label: "Column gap", On: gapped,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 200, Units: []Unit{Rem}, Steps: spaces,
	},
	{
		Name: "row-gap", Label: "Row gap", On: gapped,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 200, Units: []Unit{Rem}, Steps: spaces,
	},
	{Name: "shares", Label: "Column widths", On: holds, Choices: value.Is(value.Equal, "Equal"), Type: TypeShares},
	{Name: "below", Label: "Stacked order", On: holds, Choices: value.Is(value.First, "First on top", value.Last, "Last on top"), Type: TypeWord},
	{Name: "direction", Label: "Direction", On: holds, Choices: value.Is(value.Column, "Down", value.Row, "Across"), Type: TypeWord},
	{
		Name: "spread", Label: "Justify", On: holds,
		Choices: value.Is(
			value.Start, "Start", value.Center, "Center", value.End, "End", value.SpaceBetween, "Space between",
			value.SpaceAround, "Space around", value.SpaceEvenly, "Space evenly",
		), Type: TypeWord,
	},
	{
		Name: "align-items", Label: "Align items", On: holds,
		Choices: value.Is(value.Stretch, "Stretch", value.Start, "Start", value.Center, "Center", value.End, "End"), Type: TypeWord,
	},
	{Name: "wrap", Label: "Wrap", On: holds, Choices: value.Is(value.Wrap, "Wrap", value.NoWrap, "One line"), Type: TypeWord},
	{Name: "grow-items", Label: "Grow all", On: holds, Choices: value.Is(value.No, "No", value.Yes, "Yes"), Type: TypeWord},
	{Name: "grow", Label: "Grow", On: all, Choices: value.Is(value.No, "No", value.Yes, "Yes"), Type: TypeWord},
	{
		Name: "run", Label: "Layout", On: only(doc.Series),
		Choices: value.Is(value.Grid, "Grid", value.Line, "Line", value.Slider, "Slider"), Type: TypeWord,
	},
	{
		Name: "per-row", Label: "Per row", On: only(doc.Series, doc.Figures, doc.Gallery, doc.PageList),
		Choices: value.Is(value.Default, "Default"), Type: TypeWhole, Min: 1, Max: 12,
	},
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
	for _, c := range s.Choices {
		if strings.EqualFold(entry, c.Value) || strings.EqualFold(entry, c.Label) {
			return c.Value, nil
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
	case s.Type == TypeButtonSize:
		for _, b := range h.ButtonSizes() {
			out = append(out, Offer{Name: b.Name, Value: "$" + b.Token})
		}
	case s.Type == TypeShadow:
		for _, sh := range h.Shadows {
			out = append(out, Offer{Name: sh.Name, Value: "$" + sh.Token})
		}
	}
	return out
}

// Unset is what people read where nothing is set.
func (s *Setting) Unset() string {
	if len(s.Choices) == 0 {
		return "Default"
	}
	return s.Choices[0].Label
}

// Shown gives a canonical value as people see it.
func (s *Setting) Shown(h *doc.House, v string) string {
	for _, o := range s.Offers(h) {
		if o.Value == v {
			return o.Name
		}
	}
	return strings.TrimSuffix(value.Label(s.Choices, v), "px")
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
	for _, c := range s.Choices {
		if s.Max == 0 || !strings.HasPrefix(c.Value, c.Label) { // a number is one of those already
			could = append(could, c.Label)
		}
	}
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
		return "", doc.Problemf(s.Label, "can't be %.40q: write twelfths for each column, such as 4 8 or 3 6 3, or Equal", entry)
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

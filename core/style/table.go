package style

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/value"
)

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
	gapped   = either(
		holds,
		only(doc.Figures, doc.Progress, doc.Social, doc.Share, doc.Gallery, doc.Menu, doc.PageList, doc.SiteFacts),
	)
	picture = only(doc.Picture)
	// Blocks that show words set in one text style, unlike those that hold others.
	worded   = func(k doc.Kind) bool { return k.Is(doc.Typed) && !k.Is(doc.Holding) && k != doc.Icon }
	grounded = either(
		section,
		func(k doc.Kind) bool { return k.Is(doc.Holding|doc.Filled) && k != doc.Series && k != doc.Buttons },
	)
	pressable = either(
		func(k doc.Kind) bool { return k.Is(doc.Holding|doc.Filled) && k != doc.Series && k != doc.Buttons },
		only(doc.Button, doc.Picture, doc.Icon),
	)
	forms   = only(doc.Form, doc.Search)
	spaces  = func(h *doc.House) []doc.Step { return h.Space }
	corners = func(h *doc.House) []doc.Step { return h.Corners }
	lines   = (*doc.House).LineSteps
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
var Settings = slices.Concat(settings, stateSettings())

var settings = []*Setting{
	{
		Name: "width", Label: "Width", On: all,
		Choices: value.Is(value.Auto, "Auto"), Type: TypeLength, Min: 1, Max: 4000, Units: []Unit{Rem, Percent, Vw},
	},
	{
		Name: "min-width", Label: "Min width", On: all,
		Choices: value.Is(value.Auto, "Auto"), Type: TypeLength, Max: 4000, Units: []Unit{Rem, Percent, Vw},
	},
	{
		Name: "max-width", Label: "Max width", On: all,
		Choices: value.Is(value.None, "None"), Type: TypeLength, Min: 1, Max: 4000, Units: []Unit{Rem, Percent, Vw},
	},
	{
		Name: "min-height", Label: "Min height", On: either(section, solid),
		Choices: value.Is(value.Auto, "Auto"), Type: TypeLength, Max: 4000, Units: []Unit{Rem, Vh, Vw},
	},
	{
		// What holds blocks has a min height: what it holds can always be seen then.
		Name: "height", Label: "Height",
		On: func(k doc.Kind) bool {
			return k.Is(doc.Solid|doc.Filled) && !k.Is(doc.Holding) && k != doc.Gallery && k != doc.Map
		},
		Choices: value.Is(value.Auto, "Auto"), Type: TypeLength, Min: 1, Max: 4000, Units: []Unit{Rem, Vh, Vw},
	},
	{
		Name: "aspect-ratio", Label: "Aspect ratio", On: either(picture, only(doc.Gallery, doc.Map, doc.Video, doc.PageList)),
		Choices: value.Is(value.Auto, "Original", value.Rows, "Rows"), Type: TypeRatio, Min: 0.05, Max: 20,
	},
	{
		Name: "shape", Label: "Mask", On: picture,
		Choices: value.Is(
			value.None, "None", "circle", "Circle", "arch", "Arch", "leaf", "Leaf", "slant", "Slant", "hexagon",
			"Hexagon",
		), Type: TypeWord,
	},
	{
		Name:    "object-fit",
		Label:   "Fit",
		On:      picture,
		Choices: value.Is(value.Cover, "Fill", value.Contain, "Whole"),
		Type:    TypeWord,
	},
	{Name: "object-position", Label: "Focal point", On: picture, Choices: places, Type: TypePoint},
	{
		Name: "align-self", Label: "Align vertically", On: all,
		Choices: value.Is(
			value.Stretch,
			"Stretch",
			value.Start,
			"Top",
			value.Center,
			"Center",
			value.End,
			"Bottom",
		), Type: TypeWord,
	},
	{
		Name: "justify-self", Label: "Align horizontally", On: all,
		Choices: value.Is(
			value.Stretch,
			"Stretch",
			value.Start,
			"Left",
			value.Center,
			"Center",
			value.End,
			"Right",
		), Type: TypeWord,
	},
	{
		Name: "padding-top", Label: "Padding top", On: boxed,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "padding-right", Label: "Padding right", On: boxed,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "padding-bottom", Label: "Padding bottom", On: boxed,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "padding-left", Label: "Padding left", On: boxed,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
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
		Name: "button-look", Label: "Button variant", On: only(doc.Button, doc.Form),
		Choices: value.Is(value.Filled, "Filled", value.Outlined, "Outlined", value.Quiet, "Quiet"), Type: TypeWord,
	},
	{Name: "button-size", Label: "Button size", On: only(doc.Button, doc.Form), Type: TypeButtonSize},
	{
		Name:    "text-style",
		Label:   "Text style",
		On:      worded,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeTextStyle,
	},
	{
		Name: "font-size", Label: "Font size", On: worded,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 8, Max: 300, Units: []Unit{Rem},
	},
	{Name: "font", Label: "Font", On: worded, Choices: value.Is(value.Default, "Default"), Type: TypeFamily},
	{
		Name:    "font-weight",
		Label:   "Weight",
		On:      worded,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeWhole,
		Min:     100,
		Max:     900,
	},
	{
		Name:    "line-height",
		Label:   "Line height",
		On:      worded,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeNumber,
		Min:     0.7,
		Max:     3,
	},
	{
		Name:    LetterSpacing,
		Label:   "Letter spacing",
		On:      worded,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeEm,
		Min:     -0.1,
		Max:     1,
	},
	{
		Name: "text-shadow", Label: "Letter shadow", On: worded, Choices: value.Is(value.None, "None"), Type: TypeShadow,
	},
	{
		Name: "text-transform", Label: "Case", On: worded,
		Choices: value.Is(
			value.Default,
			"Default",
			value.None,
			"As written",
			value.Uppercase,
			"Uppercase",
			value.Lowercase,
			"Lowercase",
		), Type: TypeWord,
	},
	{
		Name: "text-wrap", Label: "Balance lines", On: worded,
		Choices: value.Is(value.Default, "Default", value.Balance, "Yes", value.Auto, "No"), Type: TypeWord,
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
	cornerSetting("top-left", "top left"), cornerSetting("top-right", "top right"),
	cornerSetting("bottom-right", "bottom right"), cornerSetting("bottom-left", "bottom left"),
	borderSetting("top"), borderSetting("right"), borderSetting("bottom"), borderSetting("left"),
	{
		Name:    "border-color",
		Label:   "Border colour",
		On:      either(section, all),
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name:    "box-shadow",
		Label:   "Shadow",
		On:      either(section, solid),
		Choices: value.Is(value.None, "None"),
		Type:    TypeShadow,
	},
	{Name: "opacity", Label: "Opacity", On: all, Choices: value.Is("100%", "100%"), Type: TypePercent, Max: 100},
	{Name: "rotate", Label: "Rotation", On: all, Choices: value.Is("0deg", "0°"), Type: TypeAngle, Min: -180, Max: 180},
	{
		Name:    "brightness",
		Label:   "Brightness",
		On:      picture,
		Choices: value.Is("100%", "100%"),
		Type:    TypePercent,
		Max:     200,
	},
	{Name: "contrast", Label: "Contrast", On: picture, Choices: value.Is("100%", "100%"), Type: TypePercent, Max: 200},
	{
		Name:    "saturate",
		Label:   "Saturation",
		On:      picture,
		Choices: value.Is("100%", "100%"),
		Type:    TypePercent,
		Max:     200,
	},
	{Name: "grayscale", Label: "Greyscale", On: picture, Choices: value.Is("0%", "0%"), Type: TypePercent, Max: 100},
	{Name: "sepia", Label: "Tint", On: picture, Choices: value.Is("0%", "0%"), Type: TypePercent, Max: 100},
	{
		Name:    "hue-rotate",
		Label:   "Tint hue",
		On:      picture,
		Choices: value.Is("0deg", "0°"),
		Type:    TypeAngle,
		Min:     -180,
		Max:     180,
	},
	{
		Name: "mirror", Label: "Mirror", On: picture,
		Choices: value.Is(
			value.None,
			"None",
			value.Horizontal,
			"Horizontally",
			value.Vertical,
			"Vertically",
			value.Both,
			"Both",
		), Type: TypeWord,
	},
	{
		Name:    "picture-parallax",
		Label:   "Parallax",
		On:      picture,
		Choices: value.Is("0%", "0%"),
		Type:    TypePercent,
		Max:     100,
	},
	{
		Name: "entrance", Label: "Entrance", On: all,
		Choices: value.Is(
			value.None, "None", value.Fade, "Fade", value.Rise, "Rise", value.FromLeft, "From the left",
			value.FromRight, "From the right", value.Grow, "Grow",
		), Type: TypeWord,
	},
	{
		Name:    "entrance-by",
		Label:   "Entrance distance",
		On:      all,
		Choices: value.Is("40px", "40"),
		Type:    TypeLength,
		Min:     4,
		Max:     400,
	},
	{
		Name:    "entrance-length",
		Label:   "Entrance length",
		On:      all,
		Choices: value.Is("80%", "80%"),
		Type:    TypePercent,
		Min:     10,
		Max:     100,
	},
	{
		Name:    "entrance-delay",
		Label:   "Entrance delay",
		On:      all,
		Choices: value.Is("0%", "0%"),
		Type:    TypePercent,
		Max:     90,
	},
	{
		Name: "sway", Label: "Slow drift", On: all,
		Choices: value.Is(
			value.None,
			"None",
			value.Horizontal,
			"Sideways",
			value.Vertical,
			"Up and down",
		), Type: TypeWord,
	},
	{
		Name:    "sway-by",
		Label:   "Drift distance",
		On:      all,
		Choices: value.Is("12px", "12"),
		Type:    TypeLength,
		Min:     1,
		Max:     200,
	},
	{
		Name:    "sway-period",
		Label:   "Drift period",
		On:      all,
		Choices: value.Is("8s", "8s"),
		Type:    TypeSeconds,
		Min:     2,
		Max:     60,
	},
	{
		Name: "field-look", Label: "Field look", On: forms,
		Choices: value.Is(
			value.Default,
			"Default",
			value.Box,
			"Box",
			value.Filled,
			"Filled",
			value.Below,
			"Line below",
		), Type: TypeWord,
	},
	{
		Name: "field-radius", Label: "Field corner radius", On: forms,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 60, Units: []Unit{Rem}, Steps: corners,
	},
	{Name: "field-fill", Label: "Field fill", On: forms, Choices: value.Is(value.Default, "Default"), Type: TypeColour},
	{
		Name:    "field-color",
		Label:   "Field text colour",
		On:      forms,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name:    "field-border",
		Label:   "Field border colour",
		On:      forms,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name: "field-labels", Label: "Labels", On: only(doc.Form),
		Choices: value.Is(value.Default, "Default", value.Above, "Above", value.Inside, "In the field"), Type: TypeWord,
	},
	{
		Name:    "label-color",
		Label:   "Label colour",
		On:      only(doc.Form),
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name: "label-size", Label: "Label size", On: only(doc.Form),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 8, Max: 100, Units: []Unit{Rem},
	},
	{
		Name: "label-weight", Label: "Label weight", On: only(doc.Form),
		Choices: value.Is(value.Default, "Default"), Type: TypeWhole, Min: 100, Max: 900,
	},
	{
		Name:    "button-fill",
		Label:   "Button fill",
		On:      only(doc.Form),
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name:    "button-color",
		Label:   "Button text colour",
		On:      only(doc.Form),
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name: "button-radius", Label: "Button corner radius", On: only(doc.Form),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 60, Units: []Unit{Rem}, Steps: corners,
	},
	{
		Name: "button-width", Label: "Button width", On: only(doc.Form),
		Choices: value.Is(value.Default, "As its label", value.Full, "Full"), Type: TypeWord,
	},
	{
		Name: "menu-folds", Label: "Collapses", On: only(doc.Menu),
		Choices: value.Is(
			value.Narrowest, "On phones", value.Narrower, "On tablets and phones", value.Always, "Always", value.Never,
			"Never",
		), Type: TypeWord,
	},
	{
		Name: "gallery-as", Label: "Layout", On: only(doc.Gallery),
		Choices: value.Is(
			value.Grid,
			"Grid",
			value.Rows,
			"Rows of equal height",
			value.Columns,
			"Columns",
		), Type: TypeWord,
	},
	{
		Name: "gallery-height", Label: "Row height", On: only(doc.Gallery),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 40, Max: 800,
	},
	{
		Name: "icon-size", Label: "Icon size", On: only(doc.Icon, doc.Social, doc.Share, doc.ScrollHint),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 8, Max: 400, Units: []Unit{Rem},
	},
	{
		Name: "logo-height", Label: "Logo height", On: only(doc.Logo),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 8, Max: 400, Units: []Unit{Rem},
	},
	{
		Name: "height", Label: "Height", On: only(doc.Space, doc.OwnHTML),
		Choices: value.Is(
			value.Default,
			"Default",
		), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Vw, Vh}, Steps: spaces,
	},
	{
		Name:    "shape-colour",
		Label:   "Shape colour",
		On:      only(doc.Shape),
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name:    "figure-colour",
		Label:   "Number colour",
		On:      only(doc.Figures),
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name:    "bar-colour",
		Label:   "Bar colour",
		On:      only(doc.Progress),
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name: "time-width", Label: "Time column width", On: only(doc.Timetable),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 20, Max: 400, Units: []Unit{Rem},
	},
	{
		Name: "cell-padding", Label: "Cell padding", On: only(doc.Table),
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 100, Units: []Unit{Rem}, Steps: spaces,
	},
	{Name: "gradient", Label: "Gradient", On: grounded, Choices: value.Is(value.None, "None"), Type: TypeGradient},
	{
		Name: "picture-fit", Label: "Background size", On: grounded,
		Choices: value.Is(value.Cover, "Fill", value.Contain, "Whole", value.Repeat, "Repeat"), Type: TypeWord,
	},
	{
		Name: "tile", Label: "Tile width", On: grounded, Choices: value.Is(value.Default, "As the picture is"),
		Type: TypeLength, Min: 8, Max: 2000, Units: []Unit{Rem},
	},
	{Name: "picture-position", Label: "Background position", On: grounded, Choices: places, Type: TypePoint},
	{
		Name: "picture-scroll", Label: "Background on scroll", On: section,
		Choices: value.Is(value.Scroll, "Scrolls", value.Parallax, "Parallax", value.Fixed, "Fixed"), Type: TypeWord,
	},
	{
		Name:    "parallax",
		Label:   "Parallax strength",
		On:      section,
		Choices: value.Is("50%", "50%"),
		Type:    TypePercent,
		Min:     10,
		Max:     100,
	},
	{Name: "filter", Label: "Overlay", On: grounded, Choices: value.Is(value.None, "None"), Type: TypeColour},
	{
		Name:    "filter-gradient",
		Label:   "Overlay gradient",
		On:      grounded,
		Choices: value.Is(value.None, "None"),
		Type:    TypeGradient,
	},
	{
		Name:    "filter-opacity",
		Label:   "Overlay opacity",
		On:      grounded,
		Choices: value.Is("50%", "50%"),
		Type:    TypePercent,
		Max:     100,
	},
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
		Choices: value.Is(
			value.Default,
			"As both sides",
		), Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		Name: "margin-right", Label: "Margin right", On: section,
		Choices: value.Is(
			value.Default,
			"As both sides",
		), Type: TypeLength, Max: 600, Units: []Unit{Rem, Percent, Vw}, Steps: spaces,
	},
	{
		// How far it hangs out below what it stands in, such as over the next section.
		Name: "overhang", Label: "Overhang below", On: all,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 600, Units: []Unit{Rem, Vw}, Steps: spaces,
	},
	marginSetting("top"), marginSetting("right"), marginSetting("bottom"), marginSetting("left"),
	{
		Name: "pull", Label: "Overlap above", On: section,
		Choices: value.Is("0px", "0"), Type: TypeLength, Max: 600, Units: []Unit{Rem, Vw}, Steps: spaces,
	},
	{
		Name:    "layer",
		Label:   "Layer",
		On:      section,
		Choices: value.Is(value.Auto, "Auto"),
		Type:    TypeWhole,
		Max:     doc.MaxLayer,
	},
	{
		Name: "content-at", Label: "Align vertically", On: section,
		Choices: value.Is(value.Start, "Top", value.Center, "Center", value.End, "Bottom"), Type: TypeWord,
	},
	{
		Name: "stays", Label: "On scroll", On: section,
		Choices: value.Is(
			value.Static,
			"Scrolls",
			value.Sticky,
			"Sticks",
			value.StickyAfter,
			"Sticks after the first section",
		), Type: TypeWord,
	},
	{
		Name:    "over",
		Label:   "Overlay bar",
		On:      section,
		Choices: value.Is(value.No, "No", value.Yes, "Over the next section"),
		Type:    TypeWord,
	},
	{Name: "edge-top", Label: "Top shape divider", On: section, Choices: Dividers, Type: TypeWord},
	{
		Name: "edge-top-height", Label: "Top divider height", On: section,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem, Vw},
	},
	{
		Name:    "edge-top-colour",
		Label:   "Top divider colour",
		On:      section,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name:    "edge-top-flip",
		Label:   "Flip top divider",
		On:      section,
		Choices: value.Is(value.No, "No", value.Yes, "Yes"),
		Type:    TypeWord,
	},
	{Name: "edge-bottom", Label: "Bottom shape divider", On: section, Choices: Dividers, Type: TypeWord},
	{
		Name: "edge-bottom-height", Label: "Bottom divider height", On: section,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Min: 4, Max: 400, Units: []Unit{Rem, Vw},
	},
	{
		Name:    "edge-bottom-colour",
		Label:   "Bottom divider colour",
		On:      section,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeColour,
	},
	{
		Name:    "edge-bottom-flip",
		Label:   "Flip bottom divider",
		On:      section,
		Choices: value.Is(value.No, "No", value.Yes, "Yes"),
		Type:    TypeWord,
	},
	{
		Name: "content", Label: "Content width", On: section,
		Choices: value.Is(
			value.Boxed,
			"Boxed",
			value.Full,
			"Full",
		), Type: TypeLength, Min: 160, Max: 4000, Units: []Unit{Rem, Percent, Vw},
	},
	{
		Name:    "columns",
		Label:   "Grid columns",
		On:      holds,
		Choices: value.Is(value.Default, "Default"),
		Type:    TypeWhole,
		Min:     1,
		Max:     doc.MaxColumns,
	},
	{
		Name:    "row-height",
		Label:   "Row height",
		On:      holds,
		Choices: value.Is("24px", "24"),
		Type:    TypeLength,
		Min:     4,
		Max:     400,
		Units:   []Unit{Rem},
	},
	{
		Name: "column-gap", Label: "Column gap", On: gapped,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 200, Units: []Unit{Rem}, Steps: spaces,
	},
	{
		Name: "row-gap", Label: "Row gap", On: gapped,
		Choices: value.Is(value.Default, "Default"), Type: TypeLength, Max: 200, Units: []Unit{Rem}, Steps: spaces,
	},
	{
		Name:    "order",
		Label:   "Order",
		On:      either(section, all),
		Choices: value.Is(value.Default, "As in the document"),
		Type:    TypeWhole,
		Min:     1,
		Max:     1000,
	},
	{Name: "shares", Label: "Column widths", On: holds, Choices: value.Is(value.Equal, "Equal"), Type: TypeShares},
	{
		Name:    "below",
		Label:   "Stacked order",
		On:      holds,
		Choices: value.Is(value.First, "First on top", value.Last, "Last on top"),
		Type:    TypeWord,
	},
	{
		Name:    "direction",
		Label:   "Direction",
		On:      holds,
		Choices: value.Is(value.Column, "Down", value.Row, "Across"),
		Type:    TypeWord,
	},
	{
		Name: "spread", Label: "Justify", On: holds,
		Choices: value.Is(
			value.Start, "Start", value.Center, "Center", value.End, "End", value.SpaceBetween, "Space between",
			value.SpaceAround, "Space around", value.SpaceEvenly, "Space evenly",
		), Type: TypeWord,
	},
	{
		Name: "align-items", Label: "Align items", On: holds,
		Choices: value.Is(
			value.Stretch,
			"Stretch",
			value.Start,
			"Start",
			value.Center,
			"Center",
			value.End,
			"End",
		), Type: TypeWord,
	},
	{
		Name:    "wrap",
		Label:   "Wrap",
		On:      holds,
		Choices: value.Is(value.Wrap, "Wrap", value.NoWrap, "One line"),
		Type:    TypeWord,
	},
	{
		Name:    "grow-items",
		Label:   "Grow all",
		On:      holds,
		Choices: value.Is(value.No, "No", value.Yes, "Yes"),
		Type:    TypeWord,
	},
	{Name: "grow", Label: "Grow", On: all, Choices: value.Is(value.No, "No", value.Yes, "Yes"), Type: TypeWord},
	{
		Name: "run", Label: "Layout", On: only(doc.Series, doc.PageList),
		Choices: value.Is(value.Grid, "Grid", value.Line, "Line", value.Slider, "Slider"), Type: TypeWord,
	},
	{
		Name: "per-row", Label: "Per row", On: only(doc.Series, doc.Figures, doc.Gallery, doc.PageList),
		Choices: value.Is(value.Default, "Default"), Type: TypeWhole, Min: 1, Max: 12,
	},
}

func marginSetting(side string) *Setting {
	return &Setting{
		Name: "margin-" + side, Label: "Margin " + side, On: all,
		Choices: value.Is("0px", "0"), Type: TypeLength, Min: -600, Max: 1000, Units: []Unit{Rem, Vw}, Steps: spaces,
	}
}

func cornerSetting(corner, label string) *Setting {
	return &Setting{
		Name: "border-" + corner + "-radius", Label: "Radius " + label, On: either(section, solid),
		Choices: value.Is(
			value.Default,
			"As all",
		), Type: TypeLength, Max: 1000, Units: []Unit{Rem, Percent}, Steps: corners,
	}
}

func borderSetting(side string) *Setting {
	return &Setting{
		Name: "border-" + side + "-width", Label: "Border " + side, On: either(section, all),
		Choices: value.Is(value.Default, "As all"), Type: TypeLength, Max: 40, Steps: lines,
	}
}

// State is what something is in while it is pointed at or pressed.
type State struct{ Name, Label string }

// States are those that have settings, beside the default: the later ones win.
var States = []State{{"hover", "Hover"}, {"focus", "Focus"}, {"active", "Pressed"}}

// stateSettings are what can be other in each state; the names begin with the state's.
func stateSettings() (out []*Setting) {
	unset := value.Is(value.Default, "Default")
	for _, st := range States {
		add := func(s Setting) {
			s.Name, s.Label, s.On = st.Name+"-"+s.Name, st.Label+": "+s.Label, pressable
			out = append(out, &s)
		}
		add(Setting{Name: "color", Label: "text colour", Choices: unset, Type: TypeColour})
		add(
			Setting{
				Name:    "background",
				Label:   "fill",
				Choices: value.Is(value.Default, "Default", value.None, "None"),
				Type:    TypeColour,
			},
		)
		add(Setting{Name: "border-color", Label: "border colour", Choices: unset, Type: TypeColour})
		add(
			Setting{
				Name:    "box-shadow",
				Label:   "shadow",
				Choices: value.Is(value.Default, "Default", value.None, "None"),
				Type:    TypeShadow,
			},
		)
		add(Setting{Name: "lift", Label: "lift", Choices: value.Is("0px", "0"), Type: TypeLength, Min: -40, Max: 40})
		add(
			Setting{
				Name:    "grow",
				Label:   "grow",
				Choices: value.Is("100%", "100%"),
				Type:    TypePercent,
				Min:     50,
				Max:     200,
			},
		)
		add(Setting{Name: "opacity", Label: "opacity", Choices: unset, Type: TypePercent, Max: 100})
		add(
			Setting{
				Name:    "underline",
				Label:   "underline",
				Choices: value.Is(value.Default, "Default", value.Yes, "Yes", value.No, "No"),
				Type:    TypeWord,
			},
		)
	}
	return out
}

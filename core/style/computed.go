package style

import "math"

// Style is the CSS of one element in one zone. The zero value of a field is the
// property's initial value under the reset that emit writes first (no margins, no
// padding, border-box sizing, headings set like their surroundings), except for
// inherited properties, which Inherit fills in.
type Style struct {
	Display  Display
	Float    Float
	Position Position
	Inset    Edges // auto where a side isn't held
	Overflow Overflow

	Width, Height       Length
	MinWidth, MinHeight Length // auto is the automatic minimum
	MaxWidth, MaxHeight Length // auto stands for none
	Margin, Padding     Edges  // auto stands for 0
	MarginAuto          Sides  // margins that are auto
	Border              Widths
	AspectRatio         float64 // width over height; 0 is auto

	FlexDirection FlexDirection
	FlexWrap      FlexWrap
	FlexGrow      float64
	FlexShrink    Factor
	FlexBasis     Length
	Order         int

	GridColumns, GridRows         []Track   // grid-template-*
	GridFill                      GridFill  // GridColumns repeated as often as they fit
	GridAutoColumns, GridAutoRows Track     // grid-auto-*
	GridFlow                      GridFlow  // grid-auto-flow
	ColumnStart, ColumnSpan       int       // grid lines from 1; a start of 0 is auto
	RowStart, RowSpan             int       //
	ColumnGap, RowGap             Length    // auto stands for normal, 0
	JustifyContent, AlignContent  Alignment // auto is normal
	JustifyItems, AlignItems      Alignment // auto is normal
	JustifySelf, AlignSelf        Alignment
	ZIndex                        int // 0 is auto

	// Inherited.
	FontFamily    string // the first name of the stack
	FontGeneric   string // what stands in for a family of the site's own; "" for a shipped one
	FontWeight    int
	FontItalic    bool
	FontSize      Length
	LineHeight    Length // Times the size, or px; auto is normal
	LetterSpacing float64
	TextShadow    string // CSS text, or ""
	TextAlign     TextAlign
	TextTransform TextTransform
	NoWrap        bool // white-space: nowrap
	Balance       bool // text-wrap: balance
	Tabular       bool // font-variant-numeric: tabular-nums
	OverflowWrap  OverflowWrap
	Color         string // "#rrggbb"

	// Paint: none of these moves a box.
	ListStyle        string // list-style-type of a list; "" is none
	Background       string // a colour, or ""
	BackgroundURL    string // a picture behind, on the colour
	BackgroundModern string // the same picture in AVIF, or ""
	BackgroundFit    string // how it stands: position, size and repetition; "" covers from the middle
	BackgroundTop    string // images that lie over it, as CSS has them
	BorderColor      string
	BorderRadius     Length
	Corners          Corners // those that are other than BorderRadius
	BoxShadow        string
	Opacity          float64 // 0 stands for 1; a setting of 0 is kept as a hair above
	ObjectFit        string
	ObjectPos        string
	Underline        bool
	UnderlineLine    float64 // its thickness in px; 0 is auto
	UnderlineDrop    float64 // how far it is below the words in px; 0 is auto
	Strike           bool

	ClipPath string
	Filter   string // functions of CSS Filter Effects 1, or ""

	// How the box is moved where it is painted, without moving others (CSS Transforms 2 §4):
	// by px, in degrees and by factors, 0 standing for 1.
	TranslateX, TranslateY float64
	Rotate                 float64
	ScaleX, ScaleY         float64

	// Entrance is how it comes into sight, Sway how it moves while it is seen, and Quick that
	// it goes from one state to another in a moment rather than at once.
	Entrance Entrance
	Sway     Sway
	Quick    bool

	// TextName is the text style of the house style that words are set in. It isn't written.
	TextName string

	// Behind is the colour that is seen through an element without a fill: the nearest
	// background of those it stands in, or "". It isn't written.
	Behind string
	// Pictured reports that something else lies on that colour: an image, or another section.
	Pictured bool

	// Reveal lets a sticky box go with the page and come back after a screenful.
	Reveal bool

	// Drift lets a picture that fills a box go more slowly than the box is scrolled: by which
	// part of the box's height it is moved, up and then down, while it goes by. It is as much
	// higher, but not for those who mind motion.
	Drift float64

	// Glide lets what a picture is cropped to go by more slowly than the page: by which
	// part of what is cut off above and below, 0 to 1, it moves within its box.
	Glide float64

	// Scrolling of what doesn't fit: neither moves a box of a page as it opens.
	ScrollSnapType, ScrollSnapAlign string
	ScrollPadding                   Edges
}

// Corners are the radii of corners that are other than all; auto is as all.
type Corners struct{ TopLeft, TopRight, BottomRight, BottomLeft Length }

// Any reports whether one of them is set.
func (c Corners) Any() bool { return c != Corners{} }

// Entrance is how a box comes into sight while the page is scrolled: Kind names the steps,
// By is how far it comes in px, and From and To are the part of its way over the viewport's
// lower edge, in per cent, during which it does: at the end of it, it is always there.
type Entrance struct {
	Kind     string // "" is none
	By       float64
	From, To float64
}

// Sway is a slow movement to and fro: Kind names the steps, By is how far in px, Period how
// long one way and back takes in seconds.
type Sway struct {
	Kind   string // "" is none
	By     float64
	Period float64
}

// FontPx is the font size in px. Browsers size glyphs in whole 1/64 px.
func (s *Style) FontPx(v Viewport) float64 { return asRead(s.FontSize, v).Or(0, v, RootFontSize) }

// asRead is a length of text for a reader's text size: what is written of it is in rem.
func asRead(l Length, v Viewport) Length {
	if v.rem() == RootFontSize {
		return l
	}
	return l.InRem()
}

// LinePx is the line height in px, or NaN for normal. A number multiplies the size
// in whole 1/64 px.
func (s *Style) LinePx(v Viewport) float64 {
	switch s.LineHeight.Unit {
	case Auto:
		return math.NaN()
	case Times:
		return s.LineHeight.N * math.Round(s.FontPx(v)*64) / 64
	}
	return math.Round(asRead(s.LineHeight, v).Or(0, v, math.NaN())*64) / 64
}

// Display is the display property.
type Display uint8

// The values of display that are emitted.
const (
	Block Display = iota
	Inline
	Flex
	Grid
	ListItem
	None
)

// Float is the float property.
type Float uint8

// The values of float that are emitted.
const (
	NoFloat Float = iota
	FloatLeft
	FloatRight
)

// Position is the position property.
type Position uint8

// The values of position that are emitted. An absolute box stands in the padding
// box of its parent, which is positioned too.
const (
	Static Position = iota
	Relative
	Absolute
	Sticky
	OnViewport // fixed; only in states, out of the flow: package layout doesn't know it
)

// Overflow is the overflow property.
type Overflow uint8

// The values of overflow that are emitted (CSS Overflow 3 §3).
const (
	Visible Overflow = iota
	Hidden
	Scroll // auto
	Clip
)

// Scrolls reports whether it makes a scroll container.
func (o Overflow) Scrolls() bool { return o == Hidden || o == Scroll }

// Sides is a set of sides.
type Sides uint8

// The sides.
const (
	Top Sides = 1 << iota
	Right
	Bottom
	Left
)

// FlexDirection is the flex-direction property.
type FlexDirection uint8

// The values of flex-direction.
const (
	Row FlexDirection = iota
	RowReverse
	Column
	ColumnReverse
)

// FlexWrap is the flex-wrap property.
type FlexWrap uint8

// The values of flex-wrap.
const (
	SingleLine FlexWrap = iota
	Wrap
	WrapReverse
)

// Factor is a number whose initial value is 1.
type Factor struct {
	N   float64
	Set bool
}

// Times0 is the factor 0.
var Times0 = Factor{0, true}

// Value is the number.
func (f Factor) Value() float64 {
	if f.Set {
		return f.N
	}
	return 1
}

// GridFill says how often a grid's columns are repeated (CSS Grid 2 §7.2.3.2).
type GridFill uint8

// The values: once, or as often as they fit, empty ones kept or collapsed.
const (
	NoFill GridFill = iota
	AutoFill
	AutoFit
)

// GridFlow is the grid-auto-flow property.
type GridFlow uint8

// The values of grid-auto-flow.
const (
	FlowRow GridFlow = iota
	FlowColumn
	FlowRowDense
	FlowColumnDense
)

// Alignment is a value of the align-* and justify-* properties (CSS Box Alignment 3).
type Alignment uint8

// The values that are emitted; the zero value is auto or normal.
const (
	AlignAuto Alignment = iota
	AlignStart
	AlignCenter
	AlignEnd
	AlignStretch
	AlignBaseline
	SpaceBetween
	SpaceAround
	SpaceEvenly
)

// TextAlign is the text-align property.
type TextAlign uint8

// The values of text-align that are emitted.
const (
	TextStart TextAlign = iota
	TextCenter
	TextEnd
)

// TextTransform is the text-transform property.
type TextTransform uint8

// The values of text-transform that are emitted.
const (
	AsWritten TextTransform = iota
	Uppercase
	Lowercase
)

// OverflowWrap is the overflow-wrap property.
type OverflowWrap uint8

// The values of overflow-wrap.
const (
	WrapNormal OverflowWrap = iota
	BreakWord
	Anywhere
)

// Edges are lengths for the four sides.
type Edges struct{ Top, Right, Bottom, Left Length }

// Same makes Edges that are all alike.
func Same(l Length) Edges { return Edges{l, l, l, l} }

// Widths are border widths in whole px (browsers draw no others, CSS Backgrounds 3
// §3.3).
type Widths struct{ Top, Right, Bottom, Left float64 }

// AllSides makes Widths that are all alike.
func AllSides(px float64) Widths { return Widths{px, px, px, px} }

// Track is a grid track's sizing function (CSS Grid 2 §7.2): minmax(Min, Max), or
// fit-content(Fit). Min and Max are lengths, auto, min-content or max-content;
// when Fr is over 0 it is the maximum instead.
type Track struct {
	Min, Max Length
	Fr       float64
	Fit      Length // auto for no fit-content()
}

// Fixed is a track of one length.
func Fixed(l Length) Track { return Track{Min: l, Max: l} }

// EqualColumns are n columns that share the width whatever stands in them.
func EqualColumns(n int) []Track {
	t := make([]Track, n)
	for i := range t {
		t[i] = Track{Min: Pixels(0), Fr: 1}
	}
	return t
}

// Inherit copies the inherited properties of a parent.
func (s *Style) Inherit(p *Style) {
	s.FontFamily, s.FontGeneric, s.FontWeight, s.FontItalic = p.FontFamily, p.FontGeneric, p.FontWeight, p.FontItalic
	s.FontSize, s.LineHeight, s.LetterSpacing = p.FontSize, p.LineHeight, p.LetterSpacing
	s.TextAlign, s.TextTransform, s.Color = p.TextAlign, p.TextTransform, p.Color
	s.TextName = p.TextName
	s.TextShadow = p.TextShadow
	s.NoWrap, s.Balance, s.OverflowWrap, s.Tabular = p.NoWrap, p.Balance, p.OverflowWrap, p.Tabular
	s.Behind = Over(p.Background, p.Behind)
	s.Pictured = p.BackgroundURL != "" || p.BackgroundTop != "" || p.Background == "" && p.Pictured
}

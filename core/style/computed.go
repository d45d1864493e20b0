package style

// Style is the CSS of one element in one zone. The zero value of a field is the
// property's initial value under the reset that emit writes first (no margins, no
// padding, border-box sizing, headings set like their surroundings), except for
// inherited properties, which Inherit fills in.
type Style struct {
	Display  Display
	Position Position

	Width, Height       Length
	MinWidth, MinHeight Length
	MaxWidth, MaxHeight Length // auto stands for none
	Margin, Padding     Edges  // auto stands for 0
	CenterX             bool   // margin-left and margin-right are auto
	BorderWidth         float64
	AspectRatio         float64 // width over height; 0 is auto

	GridColumns []Track // grid-template-columns
	GridRows    Track   // grid-auto-rows
	ColumnGap   Length  // auto stands for normal, 0
	RowGap      Length
	ColumnStart int // grid lines; 0 is auto
	ColumnSpan  int
	RowStart    int
	RowSpan     int
	AlignSelf   Align
	JustifySelf Align
	ZIndex      int // 0 is auto

	// Inherited.
	FontFamily    string // the first name of the stack
	FontWeight    int
	FontItalic    bool
	FontSize      float64 // px
	LineHeight    float64 // times the size
	LetterSpacing float64 // px
	TextAlign     TextAlign
	Color         string // "#rrggbb"

	// Paint: none of these moves a box.
	Background    string // a colour, or ""
	BackgroundURL string // a picture behind, covering
	BorderColor   string
	BorderRadius  Length
	BoxShadow     string
	Opacity       float64 // 0 stands for 1; a setting of 0 is kept as a hair above
	ObjectFit     string
	ObjectPos     string
	Underline     bool
}

// Display is the display property.
type Display uint8

// The values of display that are emitted.
const (
	Block Display = iota
	Inline
	Grid
	None
)

// Position is the position property.
type Position uint8

// The values of position that are emitted. An absolute box always has inset: 0.
const (
	Static Position = iota
	Relative
	Absolute
)

// Align is a value of align-self or justify-self.
type Align uint8

// The values that are emitted; the zero value is auto, which stretches.
const (
	AlignAuto Align = iota
	AlignStart
	AlignCenter
	AlignEnd
)

// TextAlign is the text-align property.
type TextAlign uint8

// The values of text-align that are emitted.
const (
	TextStart TextAlign = iota
	TextCenter
	TextEnd
)

// Edges are lengths for the four sides.
type Edges struct{ Top, Right, Bottom, Left Length }

// Same makes Edges that are all alike.
func Same(l Length) Edges { return Edges{l, l, l, l} }

// Track is a grid track's sizing function, minmax(Min, Max) (CSS Grid 2 §7.2).
// Min is a length or auto; Max is a length, auto, or, when Fr is over 0, a
// flexible length.
type Track struct {
	Min, Max Length
	Fr       float64
}

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
	s.FontFamily, s.FontWeight, s.FontItalic = p.FontFamily, p.FontWeight, p.FontItalic
	s.FontSize, s.LineHeight, s.LetterSpacing = p.FontSize, p.LineHeight, p.LetterSpacing
	s.TextAlign, s.Color = p.TextAlign, p.Color
}

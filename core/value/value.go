// Package value names the choices that documents hold: CSS's own word where there is
// one. They are what is stored and compared, and never change; what people read is a
// label beside each (style.Settings, element.Anatomy), which may change any day.
// A value that has to change needs a migration of documents (core/migrate).
package value

// Values that several settings share.
const (
	Default = "default" // as the house style or the block has it
	Auto    = "auto"
	None    = "none"
	No      = "no"
	Yes     = "yes"
	Hidden  = "hidden"
	Shown   = "shown"
)

// Alignment (CSS Box Alignment 3), of boxes and of text.
const (
	Start        = "start"
	Center       = "center"
	End          = "end"
	Stretch      = "stretch"
	SpaceBetween = "space-between"
	SpaceAround  = "space-around"
	SpaceEvenly  = "space-evenly"
)

// Lines of boxes: flex-direction, flex-wrap and the order below one another.
const (
	Row    = "row"
	Column = "column"
	Wrap   = "wrap"
	NoWrap = "nowrap"
	First  = "first" // the first block on top
	Last   = "last"
	Equal  = "equal" // columns of one width
)

// Pictures: object-fit, background-repeat, background-attachment, and the aspect ratio
// that is the rows' which a picture stands in.
const (
	Cover    = "cover"
	Contain  = "contain"
	Repeat   = "repeat"
	Scroll   = "scroll"
	Fixed    = "fixed"
	Parallax = "parallax" // more slowly than the page
	Rows     = "rows"
	Large    = "large" // on click
)

// List markers (list-style-type).
const (
	Disc    = "disc"
	Decimal = "decimal"
	Square  = "square"
	Check   = "check"
)

// Sections on scrolling (position), and their content.
const (
	Static      = "static"
	Sticky      = "sticky"
	StickyAfter = "sticky-after" // once the first section has gone by
	Boxed       = "boxed"
	Full        = "full"
)

// Where several blocks are brought to, and along what they are spread.
const (
	Top    = "top"
	Middle = "middle"
	Bottom = "bottom"
	Across = "across"
	Down   = "down"
)

// Text beside a picture.
const (
	Left  = "left"
	Right = "right"
	Above = "above"
	Under = "under"
	Hover = "hover"
)

// Menus, galleries and Series.
const (
	Narrowest = "narrowest" // folded in the narrowest zone
	Narrower  = "narrower"  // in all but the widest
	Always    = "always"
	Never     = "never"
	Grid      = "grid"
	Columns   = "columns"
	Line      = "line"
	Slider    = "slider"
	Unordered = "unordered"
	Ordered   = "ordered"
	Articles  = "articles"
	Pages     = "pages"  // a menu of the site's pages
	Footer    = "footer" // a menu of those that are in its footer
	Legal     = "legal"  // a menu of what the law wants, and the like
	Own       = "own"    // of its own entries
	All       = "all"    // pages of the site, in a list of them
	Title     = "title"  // the order of their names
	Views     = "views"  // of the page that it is on
)

// Looks of buttons.
const (
	Filled   = "filled"
	Outlined = "outlined"
	Quiet    = "quiet"
)

// Type: text-transform and text-wrap-style.
const (
	Uppercase = "uppercase"
	Lowercase = "lowercase"
	Balance   = "balance"
)

// Fields of forms, and where their labels are.
const (
	Box    = "box"
	Below  = "below" // a line below
	Inside = "inside"
)

// Mirrored pictures, entrances and slow movements.
const (
	Horizontal = "horizontal"
	Vertical   = "vertical"
	Fade       = "fade"
	Rise       = "rise"
	FromLeft   = "from-left"
	FromRight  = "from-right"
	Grow       = "grow"
)

// Tables, accordions, videos, page lists.
const (
	Both         = "both" // the first row and the first column are headings
	Cards        = "cards"
	Several      = "several"
	One          = "one"
	Open         = "open"
	Closed       = "closed"
	Click        = "click" // plays on click
	Loop         = "loop"  // plays silently, over and over
	Names        = "names"
	Descriptions = "descriptions"
	Dated        = "dated"  // names and dates
	Dates        = "dates"  // and descriptions
	Newest       = "newest" // by date
	Beside       = "beside"
)

// Fields of forms: the type attribute, or the element (HTML §4.10).
const (
	Text          = "text"
	Email         = "email"
	Tel           = "tel"
	Number        = "number"
	Date          = "date"
	Time          = "time"
	Textarea      = "textarea"
	Select        = "select"
	Radio         = "radio"
	Checkbox      = "checkbox"
	YesNo         = "yes-no"  // one box to tick
	Rating        = "rating"  // from 1 to 5
	Between       = "between" // words between fields
	Step          = "step"    // what comes behind it is a step of its own
	Digits        = "digits"  // alone
	Letters       = "letters"
	LettersDigits = "letters-digits"
	ByLabel       = "by-label" // what browsers fill in is told from it
	Half          = "half"
)

// Choice is a value with what people read.
type Choice struct{ Value, Label string }

// Is makes choices of values and labels by turns.
func Is(pairs ...string) []Choice {
	out := make([]Choice, 0, len(pairs)/2)
	for i := 0; i+1 < len(pairs); i += 2 {
		out = append(out, Choice{pairs[i], pairs[i+1]})
	}
	return out
}

// Label gives what people read for a value, or the value itself.
func Label(choices []Choice, v string) string {
	for _, c := range choices {
		if c.Value == v {
			return c.Label
		}
	}
	return v
}

// Labels joins what people read for all of them.
func Labels(choices []Choice) string {
	var b []byte
	for i, c := range choices {
		if i > 0 {
			b = append(b, ", "...)
		}
		b = append(b, c.Label...)
	}
	return string(b)
}

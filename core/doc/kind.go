package doc

// Kind says what a block is.
type Kind string

// The kinds of block.
const (
	Heading     Kind = "heading"
	Text        Kind = "text"
	List        Kind = "list"
	Quote       Kind = "quote"
	Button      Kind = "button"
	Buttons     Kind = "buttons"
	Picture     Kind = "picture"
	Video       Kind = "video"
	Audio       Kind = "audio"
	Countdown   Kind = "countdown"
	Icon        Kind = "icon"
	Logo        Kind = "logo"
	Shape       Kind = "shape"
	Container   Kind = "container"
	Series      Kind = "series"
	Card        Kind = "card"
	IconCard    Kind = "icon-card"
	Person      Kind = "person"
	Testimonial Kind = "testimonial"
	PriceCard   Kind = "price-card"
	Notice      Kind = "notice"
	Figures     Kind = "figures"
	Progress    Kind = "progress"
	Table       Kind = "table"
	Timetable   Kind = "timetable"
	Accordion   Kind = "accordion"
	Tabs        Kind = "tabs"
	Gallery     Kind = "gallery"
	Map         Kind = "map"
	Form        Kind = "form"
	Search      Kind = "search"
	OwnHTML     Kind = "own-html"
	Menu        Kind = "menu"
	Breadcrumb  Kind = "breadcrumb"
	PageList    Kind = "page-list"
	SiteFacts   Kind = "facts"
	Social      Kind = "social"
	BackToTop   Kind = "back-to-top"
	ScrollHint  Kind = "scroll-hint"
	Share       Kind = "share"
	Anchor      Kind = "anchor"
	Divider     Kind = "divider"
	Space       Kind = "space"
)

// Trait is something that kinds have in common; traits add up to sets.
type Trait uint

// The traits.
const (
	Worded  Trait = 1 << iota // words of its own, to be written
	Holding                   // holds blocks in an arrangement
	Typed                     // shows text, so that it has a type, a colour and an alignment
	Filled                    // an area with padding and a fill
	Solid                     // more than a line: it has corners, a shadow and a least height
)

const (
	writing = Worded | Typed | Filled | Solid
	holding = Holding | Typed | Filled | Solid
	listing = Typed | Filled | Solid // what lists entries
)

var kinds = []struct {
	kind   Kind
	traits Trait
}{
	{Heading, writing}, {Text, writing}, {List, writing}, {Quote, writing}, {Button, writing}, {Buttons, holding},
	{
		Picture,
		Solid,
	}, {Gallery, Solid | Filled}, {Video, Solid}, {Audio, listing}, {Countdown, listing}, {Icon, Solid | Typed | Filled}, {Logo, writing}, {Shape, 0},
	{Container, holding}, {Series, Holding | Solid | Filled},
	{
		Card,
		holding,
	}, {IconCard, holding}, {Person, holding}, {Testimonial, holding}, {PriceCard, holding}, {Notice, holding},
	{
		Figures,
		listing,
	}, {Progress, listing}, {Table, listing}, {Timetable, listing}, {Accordion, listing}, {Tabs, listing},
	{Map, listing}, {OwnHTML, 0}, {Form, listing}, {Search, listing}, {SiteFacts, listing}, {Menu, listing}, {
		Breadcrumb, listing,
	}, {PageList, listing}, {Social, listing}, {BackToTop, listing}, {ScrollHint, listing}, {Share, listing}, {Anchor, 0}, {Divider, 0}, {Space, 0},
}

// Kinds lists every kind.
var Kinds = func() (out []Kind) {
	for _, k := range kinds {
		out = append(out, k.kind)
	}
	return out
}()

// Is reports whether blocks of the kind have all of the traits.
func (k Kind) Is(t Trait) bool {
	for _, e := range kinds {
		if e.kind == k {
			return e.traits&t == t
		}
	}
	return false
}

package element

import (
	"cmp"
	"maps"
	"slices"
	"strconv"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/style"
	"openplot/core/value"
)

// Anatomy says what a kind of block is: how it is called, what can be entered for
// it, what a new one begins with, and what it is made of.
type Anatomy struct {
	Name, Hint string
	Icon       string // of bootstrap-icons
	Find       string // further words that searching the Shelf looks in
	Shelf      Shelf
	Span, Rows int // size of a new one in a grid, in twelfths and rows
	// Fields are what can be entered for it beside its words, Entry what can be for each
	// of those that it lists, which are called EntryName.
	Fields    []Field
	Entry     []Field
	EntryName string
	// EntryWords tells that entries have words to be written.
	EntryWords bool
	// Settings are those of package style that the kind has for itself.
	Settings []string
	// start gives a new block without id, kind and place.
	start func() *doc.Block
	build func(b *Builder, in *Node, bl *doc.Block) *Node
	// pressed tells that it is something to press, with looks of its own for that.
	pressed bool
	// finish sets what stands on the block's edge, after box did.
	finish func(st *style.Style, sh style.Sheet)
}

// Shelf is the part of the Shelf that a kind lies on.
type Shelf string

// The parts of the Shelf, in the order of Shelves.
const (
	Wording   Shelf = "Text"
	Showing   Shelf = "Media"
	Listing   Shelf = "Data and lists"
	Cards     Shelf = "Cards"
	Asking    Shelf = "Forms"
	Arranging Shelf = "Layout"
	Finding   Shelf = "Navigation"
)

// Shelves lists the parts of the Shelf.
var Shelves = []Shelf{Wording, Showing, Cards, Listing, Asking, Arranging, Finding}

var anatomies map[doc.Kind]*Anatomy

func init() { // a variable initialiser would be a cycle through Builder
	anatomies = map[doc.Kind]*Anatomy{
		doc.Heading: &heading, doc.Text: &text, doc.List: &list, doc.Quote: &quote, doc.Button: &button, doc.Buttons: &buttons,
		doc.Picture: &picture, doc.Gallery: &gallery, doc.Video: &video, doc.Audio: &audio, doc.Countdown: &countdown, doc.Icon: &icon, doc.Logo: &logo, doc.Shape: &shape,
		doc.Container: &container, doc.Series: &series,
		doc.Card: &card, doc.IconCard: &iconCard, doc.Person: &person, doc.Testimonial: &testimonial, doc.PriceCard: &priceCard, doc.Notice: &notice,
		doc.Figures: &figures, doc.Progress: &progress, doc.Table: &table, doc.Timetable: &timetable, doc.Accordion: &accordion, doc.Tabs: &tabs,
		doc.Map: &chartMap, doc.Form: &form, doc.Search: &search, doc.OwnHTML: &ownHTML, doc.SiteFacts: &facts,
		doc.Menu: &menu, doc.Breadcrumb: &breadcrumb, doc.PageList: &pageList, doc.Social: &social, doc.BackToTop: &backToTop, doc.ScrollHint: &scrollHint, doc.Share: &share, doc.Anchor: &anchor,
		doc.Divider: &divider, doc.Space: &space,
	}
	for kind, a := range anatomies {
		if style.Find("picture-fit", kind) != nil { // what holds others can lie on a picture
			a.Fields = append(a.Fields, Field{Name: "picture", Label: "Background picture", Type: PictureID})
		}
	}
}

// Of gives the anatomy of a kind, or nil.
func Of(k doc.Kind) *Anatomy { return anatomies[k] }

// Start gives a new block of a kind with sensible stand-in content, without ids.
func Start(k doc.Kind) *doc.Block {
	b := &doc.Block{}
	if a := Of(k); a != nil && a.start != nil {
		b = a.start()
	}
	b.Kind = k
	return b
}

// FieldType says what a field of content takes.
type FieldType uint8

// The types of field.
const (
	Line      FieldType = iota // a line of text
	Lines                      // text of several lines
	Prose                      // a few sentences, whose line ends don't matter
	Address                    // an address that a visitor can follow
	PictureID                  // a medium that is a picture
	VideoID                    // a medium that is a video
	AudioID                    // a medium to be listened to
	Choice                     // one of Choices
	Number                     // a number from Min to Max
	IconName                   // an icon of the shipped set
	Cells                      // a table, a line a row, cells parted by tabs
	Markup                     // HTML of one's own
	LocalTime                  // a date and a time of day, as doc.ParseMoment reads them
	LinkName                   // a name for links to lead to, of small letters, digits and hyphens
)

// Field is something to be entered for a block or an entry. Fields named "words",
// "picture", "alt", "link" and "level" of a block are those of doc.Content.
type Field struct {
	Name, Label string
	Type        FieldType
	Choices     []value.Choice // the first is what it is unless set
	Min, Max    float64
	Default     string   // what is in force unless it is set, in words
	Menus       bool     // the menus of the site's own are choices too
	Of          []string // the types of entry that have it, by their "type"; all of them when nil
}

// On gives the choices that there are on a site, which may be nil.
func (f *Field) On(s *doc.Site) []value.Choice {
	if !f.Menus || s == nil {
		return f.Choices
	}
	all := slices.Clone(f.Choices)
	for _, m := range s.OwnMenus() {
		all = append(all, value.Choice{Value: m.ID, Label: m.Name})
	}
	return all
}

// Is reports whether an entry with values has the field.
func (f *Field) Is(values map[string]string) bool {
	return f.Of == nil || slices.Contains(f.Of, cmp.Or(values["type"], value.Text))
}

// Field finds a field of the block by name, or nil.
func (a *Anatomy) Field(name string) *Field { return find(a.Fields, name) }

// EntryField finds a field of the entries by name, or nil.
func (a *Anatomy) EntryField(name string) *Field { return find(a.Entry, name) }

func find(fields []Field, name string) *Field {
	if i := slices.IndexFunc(fields, func(f Field) bool { return f.Name == name }); i >= 0 {
		return &fields[i]
	}
	return nil
}

// Value gives a field of a block's content by name.
func Value(c doc.Content, name string) string {
	switch name {
	case "words":
		return c.Words.Plain()
	case "picture":
		return c.Picture
	case "alt":
		return c.Alt
	case "link":
		return c.Link
	case "level":
		return strconv.Itoa(c.Level)
	}
	return c.Values[name]
}

// With gives content in which a field has another value; the value was checked.
func With(c doc.Content, name, value string) doc.Content {
	switch name {
	case "words":
		if c.Words = doc.PlainWords(value); value == "" {
			c.Words = nil
		}
	case "picture":
		c.Picture = value
	case "alt":
		c.Alt = value
	case "link":
		c.Link = value
	case "level":
		c.Level, _ = number.Whole(value)
	default:
		c.Values = WithValue(c.Values, name, value)
	}
	return c
}

// WithValue gives a copy of values in which one is another; "" takes it away.
func WithValue(values map[string]string, name, value string) map[string]string {
	values = maps.Clone(values)
	switch {
	case value == "":
		delete(values, name)
		if len(values) == 0 {
			return nil
		}
	case values == nil:
		values = map[string]string{name: value}
	default:
		values[name] = value
	}
	return values
}

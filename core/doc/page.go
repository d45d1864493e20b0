package doc

import (
	"maps"
	"slices"
	"strings"
)

// Page is one page of a site: its head and its sections from top to bottom.
// Pages are treated as values: an edit makes a new Page that shares the sections
// it did not touch, so a *Section must never be changed in place.
type Page struct {
	ID          string `json:"id"`
	Name        string `json:"name"`  // as the site's people call it
	Title       string `json:"title"` // as browsers and search results show it
	Description string `json:"description,omitempty"`
	// Categories are what lists of pages choose it by, Picture the id of the medium that stands
	// for it there and where it is shared.
	Categories []string `json:"categories,omitempty"`
	Picture    string   `json:"picture,omitempty"`
	// Date is the day that it is of, "2026-11-29", as lists of pages show it; "" is that on which it was
	// begun.
	Date string `json:"date,omitempty"`
	// Language is what its words are in where that isn't the site's (BCP 47), or "".
	Language string `json:"language,omitempty"`
	// Unlisted asks search engines to leave it out.
	Unlisted bool `json:"unlisted,omitempty"`
	// Ground is the colour that the page lies on, by token; "" is the house style's.
	Ground string `json:"ground,omitempty"`
	// Guides are lines that people have drawn to compose along, by the zone they are drawn in.
	// Visitors get none.
	Guides   Zoned[Guides] `json:"guides,omitempty"`
	Sections []*Section    `json:"sections"`
}

// Guides are lines across a page: X are the places of the upright ones in px from its left
// edge, Y those of the level ones from its top.
type Guides struct {
	X []int `json:"x,omitempty"`
	Y []int `json:"y,omitempty"`
}

// MaxGuides is how many guides a page has in a zone, each way, at most.
const MaxGuides = 40

// Role is the part a section plays on the page; it chooses the landmark element
// that the section stands in.
type Role string

// The roles. An ordinary section stands in <main>.
const (
	RoleMain   Role = ""
	RoleHeader Role = "header"
	RoleFooter Role = "footer"
)

// Section is a horizontal part of a page, with one arrangement of blocks.
type Section struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Role   Role   `json:"role,omitempty"`
	Hidden bool   `json:"hidden,omitempty"`
	// Shared stands on several pages of the site, the same on each with all that is in it: its id
	// and those of its blocks are the same there.
	Shared bool `json:"shared,omitempty"`
	// Made is the ready-made section that it began as, or "".
	Made string `json:"made,omitempty"`
	// Anchor is the id that links on the page lead to, or "".
	Anchor string `json:"anchor,omitempty"`
	// View is the one of several views of the page that it is part of, or nil when it is always
	// seen. Only sections of the main part are in views.
	View *View `json:"view,omitempty"`
	// Fold makes it one that visitors unfold, or is nil.
	Fold *Fold `json:"fold,omitempty"`
	// Picture is the id of the medium drawn behind the section, or "".
	Picture string `json:"picture,omitempty"`
	// Video is the id of the video that plays behind it silently, or ""; Picture is then
	// what is seen before it does.
	Video string `json:"video,omitempty"`
	// Style holds the surface, the padding and the grid's measures by property
	// name; package style knows the names and the values.
	Style       Style       `json:"style,omitempty"`
	Arrangement Arrangement `json:"arrangement,omitempty"`
	Blocks      []*Block    `json:"blocks"`
}

// View is a part of a page that is seen by itself, at an address of its own on the page.
// Neighbouring sections with one anchor are one view.
type View struct {
	Title  string `json:"title"`
	Anchor string `json:"anchor"`
}

// Fold is what a section that visitors unfold shows of itself before.
type Fold struct {
	Title string `json:"title"`
	Open  bool   `json:"open,omitempty"` // to begin with
}

// Style is a set of property values by name, each by zone.
type Style map[string]Zoned[string]

// Block is one piece of content in a section, or a container of further blocks.
type Block struct {
	ID   string `json:"id"`
	Kind Kind   `json:"kind"`
	Name string `json:"name,omitempty"`
	// Place is where it stands in the grid of a Placed arrangement, in each zone it
	// was placed in by hand; the widest zone always has one. Package place derives the
	// others. What stands in another arrangement keeps the one it had.
	Place Zoned[Place] `json:"place,omitempty"`
	// Hidden leaves the block out of a zone.
	Hidden Zoned[bool] `json:"hidden,omitempty"`
	// Locked keeps it from being changed by accident.
	Locked  bool    `json:"locked,omitempty"`
	Style   Style   `json:"style,omitempty"`
	Content Content `json:"content"`
	// Arrangement and Blocks are a container's. A Series holds one block, its design.
	Arrangement Arrangement `json:"arrangement,omitempty"`
	Blocks      []*Block    `json:"blocks,omitempty"`
	Items       []Item      `json:"items,omitempty"` // of a Series
}

// Place is a rectangle of grid cells and the layer it is drawn in. Columns and
// rows count from 1; a higher layer lies on top.
type Place struct {
	Column int `json:"column"`
	Span   int `json:"span"`
	Row    int `json:"row"`
	Rows   int `json:"rows"`
	Layer  int `json:"layer"`
}

// Overlaps reports whether two placements share a cell.
func (p Place) Overlaps(q Place) bool {
	return p.Column < q.Column+q.Span && q.Column < p.Column+p.Span &&
		p.Row < q.Row+q.Rows && q.Row < p.Row+p.Rows
}

// Content is what a block says or shows; which fields a kind uses is in
// package element.
type Content struct {
	Words Words `json:"words,omitempty"`
	// Instead is what is said instead in a narrower zone, and in those that are narrower still.
	Instead Zoned[Words] `json:"instead,omitempty"`
	Level   int          `json:"level,omitempty"`   // of a heading, 1 to 6
	Picture string       `json:"picture,omitempty"` // id of a medium
	Alt     string       `json:"alt,omitempty"`     // words for those who can't see the picture
	Link    string       `json:"link,omitempty"`
	// Values holds what else a kind asks for, by name; Entries what it lists, such as
	// the questions of an accordion.
	Values  map[string]string `json:"values,omitempty"`
	Entries []Entry           `json:"entries,omitempty"`
}

// WordsIn gives what is said in zone i, and the id of the zone that it was written for.
func (c Content) WordsIn(zs Zones, i int) (w Words, from string) {
	if w, from, ok := c.Instead.Resolve(zs, i); ok && from != zs.Widest() {
		return w, from
	}
	return c.Words, zs.Widest()
}

// Said gives all words of the content but those of its entries.
func (c Content) Said() []Words {
	out := []Words{c.Words}
	for _, zone := range slices.Sorted(maps.Keys(c.Instead)) {
		out = append(out, c.Instead[zone])
	}
	return out
}

// Entry is one of the things that a block lists.
type Entry struct {
	Words  Words             `json:"words,omitempty"`
	Values map[string]string `json:"values,omitempty"`
}

// Words are paragraphs of text.
type Words []Paragraph

// Paragraph is a sequence of runs.
type Paragraph []Run

// Run is a stretch of text with one look. A newline in Text is a line break.
type Run struct {
	Text      string `json:"text"`
	Bold      bool   `json:"bold,omitempty"`
	Italic    bool   `json:"italic,omitempty"`
	Underline bool   `json:"underline,omitempty"`
	Strike    bool   `json:"strike,omitempty"`
	Small     bool   `json:"small,omitempty"`
	Super     bool   `json:"super,omitempty"` // superscript
	Code      bool   `json:"code,omitempty"`
	Colour    string `json:"colour,omitempty"` // token of the palette, or a colour as #rrggbb
	// Size is how large the letters are in percent of those around, and Tracking what is added between
	// them in hundredths of an em; 0 is as they are around.
	Size     int    `json:"size,omitempty"`
	Tracking int    `json:"tracking,omitempty"`
	Link     string `json:"link,omitempty"`
	// Language is what the words are in where that isn't the page's (BCP 47), or "".
	Language string `json:"language,omitempty"`
	// Item is "disc" or "decimal" on a paragraph's first run when the paragraph is an
	// item of such a list.
	Item string `json:"item,omitempty"`
	// Depth is 1 on such a run when the item is of a list within the item before it.
	Depth int `json:"depth,omitempty"`
	// As is what the paragraph of which this is the first run is, other than a paragraph or
	// an item: "h2", "h3", "h4" or "quote".
	As string `json:"as,omitempty"`
}

// Bounds of a run's Size and Tracking.
const (
	LeastSize, MostSize         = 50, 300
	LeastTracking, MostTracking = -10, 100
)

// Bound keeps a run's colour, language, size and tracking within what they can be.
func (r *Run) Bound() {
	if !isLanguageTag(r.Language) {
		r.Language = ""
	}
	if !isRunColour(r.Colour) {
		r.Colour = ""
	}
	if r.Size != 0 {
		r.Size = min(max(r.Size, LeastSize), MostSize)
	}
	if r.Size == 100 {
		r.Size = 0
	}
	r.Tracking = min(max(r.Tracking, LeastTracking), MostTracking)
}

// isLanguageTag reports whether text is formed as a language tag: subtags of letters and digits with
// hyphens between them, the first of letters (RFC 5646 §2.1, common part).
func isLanguageTag(text string) bool {
	const most = 35 // RFC 5646 §4.4.1
	for i, part := range strings.Split(text, "-") {
		letters := "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"
		if i > 0 {
			letters += "0123456789"
		}
		if part == "" || len(part) > 8 || i == 0 && len(part) < 2 || strings.Trim(part, letters) != "" {
			return false
		}
	}
	return len(text) <= most
}

// isRunColour reports whether a colour is a token, words of small letters and digits with hyphens between them, or #rrggbb.
func isRunColour(c string) bool {
	letters := "abcdefghijklmnopqrstuvwxyz0123456789-"
	if hex, ok := strings.CutPrefix(c, "#"); ok {
		if len(hex) != 6 {
			return false
		}
		c, letters = hex, "0123456789abcdef"
	}
	return strings.Trim(c, letters) == "" && !strings.HasPrefix(c, "-") && !strings.HasSuffix(c, "-") &&
		!strings.Contains(c, "--")
}

// MostDepth is how deep lists are nested in words: one within another.
const MostDepth = 1

// Item tells what list a paragraph is an item of, or "".
func (p Paragraph) Item() string {
	if len(p) == 0 {
		return ""
	}
	return p[0].Item
}

// Depth tells how deep the list is nested that a paragraph is an item of.
func (p Paragraph) Depth() int {
	if len(p) == 0 {
		return 0
	}
	return p[0].Depth
}

// As tells what a paragraph is, other than a paragraph or an item, or "".
func (p Paragraph) As() string {
	if len(p) == 0 {
		return ""
	}
	return p[0].As
}

// Plain gives the words without their look, paragraphs on lines of their own.
func (w Words) Plain() string {
	var b []byte
	for i, p := range w {
		if i > 0 {
			b = append(b, '\n')
		}
		for _, r := range p {
			b = append(b, r.Text...)
		}
	}
	return string(b)
}

// PlainWords makes a paragraph of each line of text.
func PlainWords(lines ...string) Words {
	w := make(Words, len(lines))
	for i, l := range lines {
		w[i] = Paragraph{{Text: l}}
	}
	return w
}

// Section finds a section by id and gives its index, or nil and -1.
func (p *Page) Section(id string) (*Section, int) {
	for i, s := range p.Sections {
		if s.ID == id {
			return s, i
		}
	}
	return nil, -1
}

// Views are the views of the page that is not all seen at once, in the order in which they
// begin.
func (p *Page) Views() (out []View) {
	for _, s := range p.Sections {
		if s.View != nil && !s.Hidden &&
			!slices.ContainsFunc(out, func(v View) bool { return v.Anchor == s.View.Anchor }) {
			out = append(out, *s.View)
		}
	}
	return out
}

// SharedSections are the ids of the page's sections that stand on others too, in their order.
func (p *Page) SharedSections() []string {
	ids := []string{}
	for _, s := range p.Sections {
		if s.Shared {
			ids = append(ids, s.ID)
		}
	}
	return ids
}

// Divided reports whether a section has a shape divider.
func (s *Section) Divided() bool { return s.Style["edge-top"] != nil || s.Style["edge-bottom"] != nil }

// LiesOver reports whether a section lies over the next one in some zone.
func (s *Section) LiesOver() bool { return s.Style["over"] != nil }

// Block finds a block by id at any depth and the section it stands in, or nil.
func (p *Page) Block(id string) (*Section, *Block) {
	for _, s := range p.Sections {
		if path := s.Path(id); path != nil {
			return s, path[len(path)-1]
		}
	}
	return nil, nil
}

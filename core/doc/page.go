package doc

// Page is one page of a site: its head and its sections from top to bottom.
// Pages are treated as values: an edit makes a new Page that shares the sections
// it did not touch, so a *Section must never be changed in place.
type Page struct {
	ID          string     `json:"id"`
	Name        string     `json:"name"`  // as the site's people call it
	Title       string     `json:"title"` // as browsers and search results show it
	Description string     `json:"description,omitempty"`
	Sections    []*Section `json:"sections"`
}

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
	// Anchor is the id that links on the page lead to, or "".
	Anchor string `json:"anchor,omitempty"`
	// Picture is the id of the medium drawn behind the section, or "".
	Picture string `json:"picture,omitempty"`
	// Style holds the surface, the padding and the grid's measures by property
	// name; package style knows the names and the values.
	Style  Style    `json:"style,omitempty"`
	Blocks []*Block `json:"blocks"`
}

// Style is a set of property values by name, each by zone.
type Style map[string]Zoned[string]

// Kind says what a block is.
type Kind string

// The kinds of block.
const (
	Heading Kind = "heading"
	Text    Kind = "text"
	Picture Kind = "picture"
	Button  Kind = "button"
	List    Kind = "list"
	Quote   Kind = "quote"
	Divider Kind = "divider"
)

// Kinds lists every kind, in the order of the Shelf.
var Kinds = []Kind{Heading, Text, List, Quote, Picture, Button, Divider}

// Worded reports whether blocks of the kind hold words to be written.
func (k Kind) Worded() bool { return k != Picture && k != Divider }

// Block is one piece of content in a section.
type Block struct {
	ID   string `json:"id"`
	Kind Kind   `json:"kind"`
	Name string `json:"name,omitempty"`
	// Place is where it stands in the grid in each zone it was placed in by hand;
	// the widest zone always has one. Package place derives the others.
	Place Zoned[Place] `json:"place"`
	// Hidden leaves the block out of a zone.
	Hidden  Zoned[bool] `json:"hidden,omitempty"`
	Style   Style       `json:"style,omitempty"`
	Content Content     `json:"content"`
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
	Words   Words  `json:"words,omitempty"`
	Level   int    `json:"level,omitempty"`   // of a heading, 1 to 6
	Picture string `json:"picture,omitempty"` // id of a medium
	Alt     string `json:"alt,omitempty"`     // words for those who can't see the picture
	Link    string `json:"link,omitempty"`
}

// Words are paragraphs of text.
type Words []Paragraph

// Paragraph is a sequence of runs.
type Paragraph []Run

// Run is a stretch of text with one look. A newline in Text is a line break.
type Run struct {
	Text   string `json:"text"`
	Bold   bool   `json:"bold,omitempty"`
	Italic bool   `json:"italic,omitempty"`
	Link   string `json:"link,omitempty"`
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

// Block finds a block by id and the section it stands in, or nil.
func (p *Page) Block(id string) (*Section, *Block) {
	for _, s := range p.Sections {
		if b, _ := s.Block(id); b != nil {
			return s, b
		}
	}
	return nil, nil
}

// Block finds a block of the section by id and gives its index, or nil and -1.
func (s *Section) Block(id string) (*Block, int) {
	for i, b := range s.Blocks {
		if b.ID == id {
			return b, i
		}
	}
	return nil, -1
}

// Columns is the number of grid columns in zone i.
func (s *Section) Columns(zs Zones, i int) int {
	n := 0
	if v, from, ok := s.Style["columns"].Resolve(zs, i); ok && zs.Index(from) == i {
		for _, c := range v {
			n = n*10 + int(c-'0')
		}
	}
	if n < 1 || n > MaxColumns {
		return zs[i].Columns
	}
	return n
}

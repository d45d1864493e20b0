package doc

import (
	"cmp"
	"maps"
	"slices"
	"strings"
)

// House is a site's house style: what is set once and used everywhere. Blocks
// refer to a part of it by token, "$" and the part's name.
type House struct {
	Palette []Swatch `json:"palette"`
	Fonts   Fonts    `json:"fonts"`
	// Own are the families of which the site has files of its own.
	Own     []OwnFamily          `json:"own,omitempty"`
	Text    map[string]TextStyle `json:"text"` // by name: display, h1 … h6, lead, body, small, quote, label, button, mono
	Space   []Step               `json:"space"`
	Corners []Step               `json:"corners"`
	Lines   []Step               `json:"lines,omitempty"` // widths; StandardLines when there are none
	Shadows []Shadow             `json:"shadows"`
	Buttons ButtonSet            `json:"buttons"`
	Links   LinkLook             `json:"links"`
	Forms   FormLook             `json:"forms,omitzero"`
	// PageGround is the colour that pages lie on, by token; "" is the role ground.
	PageGround string `json:"pageGround,omitempty"`
	// ColumnGap is the space in px between columns unless an arrangement says otherwise;
	// StandardGap where it is unset.
	ColumnGap Zoned[float64] `json:"columnGap,omitempty"`
	// ViewHeight is the viewport height in px that is taken for each zone where pages are
	// drawn, measured and worked on.
	ViewHeight Zoned[float64] `json:"viewHeight,omitempty"`
	// ContentWidth is the greatest width in px of what stands in a boxed section.
	ContentWidth float64 `json:"contentWidth"`
	// Gutter is the least space in px between content and the viewport's edge.
	Gutter Zoned[float64] `json:"gutter"`
}

// Roles are the tokens of the colours that every palette has, in their order.
var Roles = []string{"ground", "quiet-ground", "words", "quiet-words", "accent", "second-accent", "line"}

// Swatch is a colour of the palette; Value is "#rrggbb".
type Swatch struct {
	Token string `json:"token"`
	Name  string `json:"name"`
	Value string `json:"value"`
}

// Step is a named length in px.
type Step struct {
	Token string  `json:"token"`
	Name  string  `json:"name"`
	Px    float64 `json:"px"`
	// Narrow is what it shrinks to, evenly, towards the narrowest zone's typical width; 0 is
	// Px everywhere.
	Narrow float64 `json:"narrow,omitempty"`
}

// Shadow is a named box shadow (CSS Backgrounds 3 §6.1), lengths in px.
type Shadow struct {
	Token   string  `json:"token"`
	Name    string  `json:"name"`
	X       float64 `json:"x,omitempty"`
	Y, Blur float64 `json:",omitempty"`
	Spread  float64 `json:"spread,omitempty"`
	// Colour is a token of the palette, with an opacity or without, or CSS text; where it
	// is "" the shadow is black of Opacity.
	Colour  string  `json:"colour,omitempty"`
	Opacity float64 `json:"opacity"`
	Inner   bool    `json:"inner,omitempty"`
}

// OwnFamily is a family of fonts that a site's people uploaded.
type OwnFamily struct {
	Name    string `json:"name"`
	Generic string `json:"generic"` // the CSS generic family that stands in for it
}

// OwnFamily finds one by name, or nil.
func (h *House) OwnFamily(name string) *OwnFamily {
	for i := range h.Own {
		if h.Own[i].Name == name {
			return &h.Own[i]
		}
	}
	return nil
}

// Fonts names the families of the house style.
type Fonts struct {
	Heading string `json:"heading"`
	Body    string `json:"body"`
	Mono    string `json:"mono"`
}

// TextStyle is how a kind of text is set.
type TextStyle struct {
	Family        string         `json:"family"` // "heading", "body" or "mono"
	Weight        int            `json:"weight"`
	Size          Zoned[float64] `json:"size"`          // px
	LineHeight    float64        `json:"lineHeight"`    // times the size
	LetterSpacing float64        `json:"letterSpacing"` // em
	// Case is "" as written, "upper" or "lower".
	Case string `json:"case,omitempty"`
	// Fluid lets the size grow evenly from the narrowest zone's at its typical width to
	// the widest zone's at its own; the zones between have none then.
	Fluid bool `json:"fluid,omitempty"`
}

// ButtonSet is how the three looks of buttons are drawn: filled, outlined and quiet.
type ButtonSet struct {
	Corners string       `json:"corners"` // token of a step
	Line    float64      `json:"line"`    // px, of an outlined button
	Sizes   []ButtonSize `json:"sizes"`
	// Shift is by how much the fill gets darker under the pointer, and twice as much when
	// pressed: a difference of OKLCH lightness in per cent, lighter when negative.
	Shift float64 `json:"shift"`
}

// ButtonSize is a named size of buttons: padding in px, and the size of its words
// as a multiple of the text style's.
type ButtonSize struct {
	Token string  `json:"token"`
	Name  string  `json:"name"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	Size  float64 `json:"size"`
}

// StandardButtons is what a house style has that says nothing else.
func StandardButtons() ButtonSet {
	return ButtonSet{Corners: "soft", Line: 2, Shift: 6, Sizes: []ButtonSize{
		{"small", "Small", 14, 7, 0.875}, {"medium", "Medium", 22, 12, 1}, {"large", "Large", 30, 16, 1.125},
	}}
}

// ButtonLook is how buttons are drawn: what the house style says, or StandardButtons.
func (h *House) ButtonLook() ButtonSet {
	if len(h.Buttons.Sizes) == 0 {
		return StandardButtons()
	}
	return h.Buttons
}

// ButtonSizes are the sizes that there are, from small to large.
func (h *House) ButtonSizes() []ButtonSize { return h.ButtonLook().Sizes }

// ButtonSize gives the size of a token, or the one that buttons have unless it is set:
// the second.
func (h *House) ButtonSize(token string) ButtonSize {
	sizes := h.ButtonSizes()
	for _, s := range sizes {
		if s.Token == token {
			return s
		}
	}
	return sizes[min(1, len(sizes)-1)]
}

// LinkLook is how links in running words are drawn. They are always underlined, since
// colour alone doesn't tell them apart (WCAG 2.2, 1.4.1).
type LinkLook struct {
	// Colour and Hover are tokens of the palette, Hover being that under the pointer; ""
	// is as the words around. A colour isn't taken on a ground that it can't be read on.
	Colour string `json:"colour,omitempty"`
	Hover  string `json:"hover,omitempty"`
	// Line is the thickness of the underline and Drop how far below the words it is, in
	// px; 0 leaves both to the browser.
	Line float64 `json:"line,omitempty"`
	Drop float64 `json:"drop,omitempty"`
}

// FormLook is how the fields of forms are drawn, unless a form says otherwise.
type FormLook struct {
	Look    string `json:"look,omitempty"`    // "box", "filled" or "below"; "" is box
	Corners string `json:"corners,omitempty"` // token of a step; "" is 4 px
	Labels  string `json:"labels,omitempty"`  // "above" or "inside"; "" is above
}

// StandardLines are the widths of lines of a house style that names none.
func StandardLines() []Step {
	return []Step{
		{Token: "fine", Name: "Fine", Px: 1},
		{Token: "firm", Name: "Firm", Px: 2},
		{Token: "bold", Name: "Bold", Px: 4},
	}
}

// LineSteps are the house style's widths of lines.
func (h *House) LineSteps() []Step {
	if len(h.Lines) == 0 {
		return StandardLines()
	}
	return h.Lines
}

// StandardGap is the space between columns in px of a house style that sets none.
const StandardGap = 24

// Ground is the colour that pages lie on, "#rrggbb".
func (h *House) Ground() string {
	for _, token := range []string{h.PageGround, "ground"} {
		if w := h.Swatch(token); w != nil {
			return w.Value
		}
	}
	return "#ffffff"
}

// Swatch finds a colour by token, or nil.
func (h *House) Swatch(token string) *Swatch {
	for i := range h.Palette {
		if h.Palette[i].Token == token {
			return &h.Palette[i]
		}
	}
	return nil
}

// Gone gives what pages can refer to by token and next has no more, token and name.
func (h *House) Gone(next *House) (gone []Step) {
	here, there := h.tokens(), next.tokens()
	for list := range here {
		for _, s := range here[list] {
			if _, ok := FindStep(there[list], s.Token); !ok {
				gone = append(gone, s)
			}
		}
	}
	return gone
}

// tokens lists the tokens and names of the colours, the steps of every kind, the shadows,
// the sizes of buttons and the text styles.
func (h *House) tokens() [7][]Step {
	lists := [7][]Step{h.Space, h.Corners, h.LineSteps()}
	for _, w := range h.Palette {
		lists[3] = append(lists[3], Step{Token: w.Token, Name: w.Name})
	}
	for _, s := range h.Shadows {
		lists[4] = append(lists[4], Step{Token: s.Token, Name: s.Name})
	}
	for _, s := range h.Buttons.Sizes {
		lists[5] = append(lists[5], Step{Token: s.Token, Name: s.Name})
	}
	for _, name := range slices.Sorted(maps.Keys(h.Text)) {
		lists[6] = append(lists[6], Step{Token: name, Name: name})
	}
	return lists
}

// FindStep finds a step by token.
func FindStep(steps []Step, token string) (Step, bool) {
	for _, s := range steps {
		if s.Token == token {
			return s, true
		}
	}
	return Step{}, false
}

// Site is what the pages of one site share.
type Site struct {
	ID    string `json:"id"`
	Slug  string `json:"slug"`
	Name  string `json:"name"`
	House House  `json:"house"`
	Zones Zones  `json:"zones"`
	Facts Facts  `json:"facts"`
	// Language is what the words are in (BCP 47); "" is English.
	Language string `json:"language,omitempty"`
	// Business is the kind of business it is for, as ready.Businesses has them; "" is any.
	Business string `json:"business,omitempty"`
	// SharePicture is the id of the medium that links to its pages are shown with where a page
	// has none of its own; Icon is what browsers show beside its name.
	SharePicture string   `json:"sharePicture,omitempty"`
	Icon         SiteIcon `json:"icon,omitzero"`
	// Menus are what the site's menus hold behind its pages, by menu: value.Pages is the one at the
	// top, value.Footer and value.Legal are others, and those that OwnMenus lists.
	Menus map[string][]MenuItem `json:"menus,omitempty"`
	// TimeZone is where it is (IANA), such as "Europe/Vienna"; "" is UTC.
	TimeZone string `json:"timeZone,omitempty"`
	// CountsVisits has published pages tell how wide the window is in which they are seen.
	CountsVisits bool `json:"countsVisits,omitempty"`
}

// MenuItem is an item of a menu that isn't a page of its own accord: a link to anywhere, or a
// heading over those under it.
type MenuItem struct {
	Label string `json:"label"`
	Link  string `json:"link,omitempty"`  // "" is a heading
	Under bool   `json:"under,omitempty"` // the one before it that isn't under another
	// Button reports whether it looks like one.
	Button bool `json:"button,omitempty"`
	// Hand stands before the items of a menu that is by hand: they are all that it holds, where
	// otherwise pages come first, in their order. It is no item itself; its label is what a menu of
	// the site's own is called.
	Hand bool `json:"hand,omitempty"`
}

// OwnMenu is a menu that a site has beside those of every site.
type OwnMenu struct{ ID, Name string }

// OwnMenus lists the menus of the site's own by their names.
func (s *Site) OwnMenus() (own []OwnMenu) {
	for id, items := range s.Menus {
		if isOwnMenuID(id) && len(items) > 0 && items[0].Hand && items[0].Label != "" {
			own = append(own, OwnMenu{id, items[0].Label})
		}
	}
	slices.SortFunc(own, func(a, b OwnMenu) int { return cmp.Or(cmp.Compare(a.Name, b.Name), cmp.Compare(a.ID, b.ID)) })
	return own
}

// isOwnMenuID reports whether an id has the form of one of a menu of a site's own, which no other menu has.
func isOwnMenuID(id string) bool {
	return strings.HasPrefix(id, "u") && len(id) <= 40 && strings.Trim(id, "abcdefghijklmnopqrstuvwxyz0123456789") == ""
}

// ByHand reports whether a menu is all by hand, and gives its items.
func ByHand(menu []MenuItem) (items []MenuItem, byHand bool) {
	if len(menu) > 0 && menu[0].Hand {
		return menu[1:], true
	}
	return menu, false
}

// SiteIcon is what browsers show of a site beside its name: a picture of it, an icon of the
// shipped set, or a letter, on a colour.
type SiteIcon struct {
	Medium string `json:"medium,omitempty"`
	Icon   string `json:"icon,omitempty"`
	Letter string `json:"letter,omitempty"` // "" is the first of the site's name
	Colour string `json:"colour,omitempty"` // token of the palette, "" being the accent
}

// Facts are what a site says about itself in several places, entered once.
type Facts struct {
	Address string `json:"address,omitempty"` // lines
	Hours   string `json:"hours,omitempty"`   // lines
	Phone   string `json:"phone,omitempty"`
	Mail    string `json:"mail,omitempty"`
	// Opening are the hours by day, for those who look for them; Hours says them in words.
	Opening []Opening `json:"opening,omitempty"`
	Social  []string  `json:"social,omitempty"` // addresses of profiles elsewhere
}

// Opening is a span of a day of the week at which it is open; a day may have several.
type Opening struct {
	Day  string `json:"day"`  // "Monday" to "Sunday", as schema.org has it
	From string `json:"from"` // "09:00"
	To   string `json:"to"`
}

// Days are the days of the week, from Monday (ISO 8601).
var Days = []string{"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"}

// StandardHouse is what a new site begins with.
func StandardHouse() House {
	size := func(desktop, tablet, phone float64) Zoned[float64] {
		return Zoned[float64]{"desktop": desktop, "tablet": tablet, "phone": phone}
	}
	grows := func(desktop, phone float64) Zoned[float64] { // evenly in between
		return Zoned[float64]{"desktop": desktop, "phone": phone}
	}
	return House{
		Palette: []Swatch{
			{"ground", "Ground", "#ffffff"},
			{"quiet-ground", "Quiet ground", "#f6f1e8"},
			{"words", "Words", "#1f2a2c"},
			{"quiet-words", "Quiet words", "#56615f"},
			{"accent", "Accent", "#1d5f6b"},
			{"second-accent", "Second accent", "#aa4d26"},
			{"line", "Line", "#d9d4c8"},
			{"deep", "Deep", "#123a44"},
			{"on-deep", "On deep", "#f3f7f6"},
		},
		Fonts: Fonts{Heading: "Bricolage Grotesque", Body: "Hanken Grotesk", Mono: "IBM Plex Mono"},
		Text: map[string]TextStyle{
			"display": {
				Family:        "heading",
				Weight:        700,
				Size:          grows(60, 38),
				LineHeight:    1.08,
				LetterSpacing: -0.015,
				Fluid:         true,
			},
			"h1": {
				Family:        "heading",
				Weight:        700,
				Size:          grows(46, 34),
				LineHeight:    1.12,
				LetterSpacing: -0.01,
				Fluid:         true,
			},
			"h2": {
				Family:        "heading",
				Weight:        650,
				Size:          grows(34, 27),
				LineHeight:    1.18,
				LetterSpacing: -0.008,
				Fluid:         true,
			},
			"h3":     {Family: "heading", Weight: 600, Size: size(22, 21, 20), LineHeight: 1.3, LetterSpacing: 0},
			"h4":     {Family: "heading", Weight: 600, Size: size(19, 18, 18), LineHeight: 1.35, LetterSpacing: 0},
			"h5":     {Family: "heading", Weight: 600, Size: size(17, 17, 16), LineHeight: 1.4, LetterSpacing: 0},
			"h6":     {Family: "heading", Weight: 600, Size: size(15, 15, 15), LineHeight: 1.4, LetterSpacing: 0.01},
			"quote":  {Family: "body", Weight: 400, Size: size(20, 19, 18), LineHeight: 1.5, LetterSpacing: 0},
			"lead":   {Family: "body", Weight: 400, Size: size(20, 19, 18), LineHeight: 1.5, LetterSpacing: 0},
			"body":   {Family: "body", Weight: 400, Size: size(17, 17, 16), LineHeight: 1.6, LetterSpacing: 0},
			"small":  {Family: "body", Weight: 400, Size: size(14, 14, 14), LineHeight: 1.5, LetterSpacing: 0},
			"label":  {Family: "body", Weight: 600, Size: size(14, 14, 14), LineHeight: 1.4, LetterSpacing: 0.04},
			"mono":   {Family: "mono", Weight: 400, Size: size(17, 17, 16), LineHeight: 1.6, LetterSpacing: 0},
			"button": {Family: "body", Weight: 600, Size: size(16, 16, 16), LineHeight: 1.25, LetterSpacing: 0},
		},
		Space: []Step{
			{Token: "none", Name: "None"},
			{Token: "hair", Name: "Hair", Px: 4},
			{Token: "small", Name: "Small", Px: 8},
			{Token: "snug", Name: "Snug", Px: 16},
			{Token: "room", Name: "Room", Px: 24},
			{Token: "wide", Name: "Wide", Px: 40, Narrow: 32},
			{Token: "broad", Name: "Broad", Px: 64, Narrow: 44},
			{Token: "vast", Name: "Vast", Px: 96, Narrow: 64},
		},
		Corners: []Step{
			{
				Token: "square",
				Name:  "Square",
			}, {Token: "soft", Name: "Soft", Px: 4}, {Token: "card", Name: "Card", Px: 8},
			{Token: "round", Name: "Round", Px: 20}, {Token: "pill", Name: "Pill", Px: 999},
		},
		Shadows: []Shadow{
			{Token: "low", Name: "Low", Y: 1, Blur: 3, Opacity: 0.16},
			{Token: "card", Name: "Card", Y: 6, Blur: 20, Opacity: 0.14},
		},
		Lines:   StandardLines(),
		Buttons: StandardButtons(),
		Links:   LinkLook{Colour: "accent", Hover: "words"},

		ContentWidth: 1080,
		ColumnGap:    size(StandardGap, StandardGap, StandardGap),
		Gutter:       Zoned[float64]{"desktop": 40, "tablet": 32, "phone": 20},
	}
}

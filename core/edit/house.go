package edit

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/style"
)

// HouseCommand is a change of a site's house style.
type HouseCommand struct {
	Op    string `json:"op"`
	Token string `json:"token,omitempty"`
	Name  string `json:"name,omitempty"`
	Value string `json:"value,omitempty"`
}

// ApplyHouse carries out a command on a house style and gives the new one; the one
// given isn't changed. Errors are *doc.Problem.
func ApplyHouse(h doc.House, zones doc.Zones, c HouseCommand) (doc.House, error) {
	run, ok := houseOperations[c.Op]
	if !ok {
		return h, doc.Problemf("Edit", "%.40q isn't a known edit of a house style", c.Op)
	}
	h.Palette = slices.Clone(h.Palette)
	return run(h, zones, c)
}

// Input names what a command fills in, so that a problem with it can be shown there: its
// operation, its token, and its name where that isn't something entered.
func (c HouseCommand) Input() string {
	switch c.Op {
	case "type.set", "measure.set", "pick":
		return strings.Join([]string{c.Op, c.Token, c.Name}, "/")
	}
	return c.Op + "/" + c.Token
}

// houseOperations lists all commands by Op, with the fields each reads. Each gives a
// changed copy; the palette is its own already.
var houseOperations = map[string]func(h doc.House, zones doc.Zones, c HouseCommand) (doc.House, error){
	"colour.set":    setColour,    // Token, Value
	"colour.add":    addColour,    // Name, Value
	"colour.rename": renameColour, // Token, Name
	"colour.remove": removeColour, // Token
	"fonts.pair":    pairFonts,    // Value: a pairing
	"fonts.set":     setFont,      // Token: heading, body or mono; Value: a family
	"fonts.add":     addFamily,    // Name: a family that the site has files of; Value: a generic family
	"fonts.drop":    dropFamily,   // Name: a family of the site's own
	"type.set":      setType,      // Token: a text style; Name: a value of it; Value
	"type.scale":    scaleType,    // Value: base and ratio
	"measure.set":   setMeasure,   // Name: of one of Measures; Value
	"pick":          pick,         // Name: of one of Picks; Value: a token
	"shadow.set":    setShadow,    // Token, Value
	"step.add":      newStep,      // Token: space, corners or lines; Name; Value: px
	"width.set":     setWidth,     // Value: px
}

func setColour(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	w := h.Swatch(c.Token)
	if w == nil {
		return h, doc.Problemf("Colour", "the palette has no %.40q any more", c.Token)
	}
	v, err := readColour(w.Name, c.Value)
	if err == nil {
		w.Value = v
	}
	return h, err
}

func renameColour(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	w := h.Swatch(c.Token)
	if w == nil || slices.Contains(doc.Roles, c.Token) {
		return h, doc.Problemf("Colour", "%.40q can't be renamed; only colours added by hand can", c.Token)
	}
	name, err := doc.Line("Name", c.Name, 40)
	if err != nil || name == "" {
		return h, doc.Problemf("Name", "write 1 to 40 characters")
	}
	w.Name = name
	return h, nil
}

func removeColour(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	i := slices.IndexFunc(h.Palette, func(w doc.Swatch) bool { return w.Token == c.Token })
	if i < 0 || slices.Contains(doc.Roles, c.Token) {
		return h, doc.Problemf("Colour", "%.40q can't be removed; only colours added by hand can", c.Token)
	}
	h.Palette = slices.Delete(h.Palette, i, i+1)
	return h, nil
}

func pairFonts(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	p := style.FindPairing(c.Value)
	if p == nil {
		return h, doc.Problemf("Fonts", "there is no pairing %.40q", c.Value)
	}
	h.Fonts.Heading, h.Fonts.Body = p.Heading, p.Body
	return h, nil
}

func setFont(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	if !style.HasFamily(&h, c.Value) {
		return h, doc.Problemf("Font", "%.60q isn't one of the families", c.Value)
	}
	uses := map[string]*string{"heading": &h.Fonts.Heading, "body": &h.Fonts.Body, "mono": &h.Fonts.Mono}
	use, ok := uses[c.Token]
	if !ok {
		return h, doc.Problemf("Font", "%.40q isn't a use of one; heading, body and mono are", c.Token)
	}
	*use = c.Value
	return h, nil
}

func newStep(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	h, _, err := addStep(h, c.Token, c.Name, c.Value)
	return h, err
}

func setWidth(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	n, err := style.Evaluate(strings.TrimSuffix(strings.TrimSpace(c.Value), "px"))
	if err != nil || n < 320 || n > 1920 {
		return h, doc.Problemf("Content width", "can't be %.40q: write 320 to 1920 px, or a sum", c.Value)
	}
	h.ContentWidth = n
	return h, nil
}

func readColour(field, value string) (string, error) {
	if len(value) > 100 {
		return "", doc.Problemf(field, "is too long for a colour; write one like #1d5f6b")
	}
	c, err := colour.Parse(value)
	if err != nil {
		return "", doc.Problemf(field, "%v", err)
	}
	return c.String(), nil
}

var notToken = regexp.MustCompile(`[^a-z0-9]+`)

func addColour(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	name, err := doc.Line("Name", c.Name, 40)
	if err != nil {
		return h, err
	}
	if name == "" {
		return h, doc.Problemf("Name", "is missing: say what the colour is for, such as Buoy red")
	}
	if len(h.Palette) >= doc.MaxColours {
		return h, doc.Problemf("Palette", "has %d colours already, the most there can be", doc.MaxColours)
	}
	v, err := readColour(name, c.Value)
	if err != nil {
		return h, err
	}
	token := freshToken(name, "colour", func(t string) bool { return h.Swatch(t) != nil })
	h.Palette = append(h.Palette, doc.Swatch{Token: token, Name: name, Value: v})
	return h, nil
}

// freshToken makes a token of a name that isn't taken.
func freshToken(name, fallback string, taken func(string) bool) string {
	token := strings.Trim(notToken.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if token == "" {
		token = fallback
	}
	base := token
	for n := 2; taken(token); n++ { // ends: there are only so many
		token = base + "-" + strconv.Itoa(n)
	}
	return token
}

// addFamily makes it known that the site has files of a family, or sets anew what stands
// in for it.
func addFamily(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	if !slices.Contains(style.Generics, c.Value) {
		return h, doc.Problemf("Fallback", "can't be %.40q: choose %s", c.Value, strings.Join(style.Generics, ", "))
	}
	if slices.ContainsFunc(style.Families, func(f style.Family) bool { return strings.EqualFold(f.Name, c.Name) }) {
		return h, doc.Problemf("Family", "%q ships with Open Plot: choose it, or give yours another name", c.Name)
	}
	h.Own = slices.Clone(h.Own)
	if own := h.OwnFamily(c.Name); own != nil {
		own.Generic = c.Value
		return h, nil
	}
	if len(h.Own) >= doc.MaxFamilies {
		return h, doc.Problemf(
			"Family",
			"can't be added: %d of a site's own are the most there can be",
			doc.MaxFamilies,
		)
	}
	h.Own = append(h.Own, doc.OwnFamily{Name: c.Name, Generic: c.Value})
	return h, nil
}

func dropFamily(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	if h.OwnFamily(c.Name) == nil {
		return h, doc.Problemf("Family", "%.40q isn't one of the site's own any more", c.Name)
	}
	for use, name := range map[string]string{"headings": h.Fonts.Heading, "reading": h.Fonts.Body, "figures": h.Fonts.Mono} {
		if name == c.Name {
			return h, doc.Problemf("Family", "%s is what %s are set in: choose another for them first", c.Name, use)
		}
	}
	h.Own = slices.DeleteFunc(slices.Clone(h.Own), func(f doc.OwnFamily) bool { return f.Name == c.Name })
	return h, nil
}

// TakePalette gives a house style whose roles have other colours; its colours by
// name stay.
func TakePalette(h doc.House, r colour.Roles) doc.House {
	h.Palette = slices.Clone(h.Palette)
	for token, c := range map[string]colour.Colour{
		"ground": r.Ground, "quiet-ground": r.QuietGround, "words": r.Words, "quiet-words": r.QuietWords,
		"accent": r.Accent, "second-accent": r.SecondAccent, "line": r.Line,
	} {
		if w := h.Swatch(token); w != nil {
			w.Value = c.String()
		}
	}
	return h
}

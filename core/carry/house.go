package carry

import (
	"bytes"
	"encoding/json"
	"maps"
	"regexp"
	"slices"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/style"
)

// HouseFormat marks a house style's file (docs/house-style-file.md).
const HouseFormat = "open-plot-house-style"

// MaxHouseFile is the greatest size of such a file in bytes, its fonts included.
const MaxHouseFile = 16 << 20

// House is a house style with what it needs where it is carried to.
type House struct {
	Name  string // of the site that it comes from
	House doc.House
	Fonts []Font
}

// Font is a font file of one of the house style's own families, as WOFF2.
type Font struct {
	Family string `json:"family"`
	WOFF2  []byte `json:"woff2"`
}

type houseFile struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	Name    string    `json:"name"`
	House   doc.House `json:"house"`
	Fonts   []Font    `json:"fonts,omitempty"`
}

// WriteHouse gives a house style as a file. Errors are *doc.Problem when its fonts are
// too large to be carried.
func WriteHouse(c House) ([]byte, error) {
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetIndent("", "  ")
	e.SetEscapeHTML(false)
	if err := e.Encode(houseFile{HouseFormat, 1, c.Name, c.House, c.Fonts}); err != nil {
		return nil, err
	}
	if b.Len() > MaxHouseFile {
		return nil, doc.Problemf(
			"File",
			"would have %.1f MB with the fonts in it; %d MB is the most, so upload them as WOFF2 with fewer scripts or weights",
			float64(b.Len())/(1<<20),
			MaxHouseFile>>20,
		)
	}
	return b.Bytes(), nil
}

// ReadHouse reads a house style from a file for a site with the given zones. Sizes
// for zones that the site doesn't have are left out. Fonts are as the file has them, and
// still to be checked. Errors are *doc.Problem.
func ReadHouse(b []byte, zones doc.Zones) (House, error) {
	if len(b) > MaxHouseFile {
		return House{}, doc.Problemf("File", "has more than %d MB, which a house style's never has", MaxHouseFile>>20)
	}
	var f houseFile
	if err := Unpack(b, &f, FewValues, "File"); err != nil {
		return House{}, doc.Problemf("File", "isn't a house style: %s", strings.TrimPrefix(err.Error(), "json: "))
	}
	if f.Format != HouseFormat || f.Version != 1 {
		return House{}, doc.Problemf(
			"File",
			"isn't a house style of version 1: its format is %.40q, version %d",
			f.Format,
			f.Version,
		)
	}
	h := &f.House
	for _, check := range []func(*doc.House, doc.Zones) error{checkPalette, checkType, checkSteps} {
		if err := check(h, zones); err != nil {
			return House{}, err
		}
	}
	for _, c := range f.Fonts {
		if h.OwnFamily(c.Family) == nil {
			return House{}, doc.Problemf(
				"Fonts",
				"have a file of %.40q, which the house style doesn't name among its own",
				c.Family,
			)
		}
	}
	return House{f.Name, *h, f.Fonts}, nil
}

// TakeHouse gives the house style of a file for a site that has another. What pages
// may refer to and the file lacks (colours, text styles, steps) stays as it was. Families
// of the file's own are taken that it carries files of. Errors are *doc.Problem.
func TakeHouse(was, taken doc.House, carried ...Font) (doc.House, error) {
	taken.Palette = withMissing(taken.Palette, was.Palette, func(w doc.Swatch) string { return w.Token })
	if len(taken.Palette) > doc.MaxColours {
		return was, doc.Problemf(
			"Palette", "would have %d colours with this site's own; %d is the most, so remove some first",
			len(taken.Palette), doc.MaxColours,
		)
	}
	// A file says which families of its own a site had; what counts is which are here.
	own := slices.Clone(was.Own)
	for _, f := range taken.Own {
		if was.OwnFamily(f.Name) == nil &&
			slices.ContainsFunc(carried, func(c Font) bool { return c.Family == f.Name }) {
			own = append(own, f)
		}
	}
	if taken.Own = own; len(own) > doc.MaxFamilies {
		return was, doc.Problemf(
			"Fonts",
			"would be %d families of this site's own; %d is the most, so forget some first",
			len(own),
			doc.MaxFamilies,
		)
	}
	for use, family := range map[string]string{"headings": taken.Fonts.Heading, "reading": taken.Fonts.Body, "figures": taken.Fonts.Mono} {
		if !style.HasFamily(&taken, family) {
			return was, doc.Problemf(
				"Fonts",
				"%q, which %s are set in, isn't here nor in the file: upload it to this site first",
				family,
				use,
			)
		}
	}
	step := func(s doc.Step) string { return s.Token }
	taken.Space = withMissing(taken.Space, was.Space, step)
	taken.Corners = withMissing(taken.Corners, was.Corners, step)
	taken.Lines = withMissing(taken.LineSteps(), was.LineSteps(), step)
	taken.Shadows = withMissing(taken.Shadows, was.Shadows, func(s doc.Shadow) string { return s.Token })
	taken.Text, taken.Gutter = filled(taken.Text, was.Text), filled(taken.Gutter, was.Gutter)
	return taken, nil
}

// withMissing gives the items and, after them, those of was whose tokens they lack.
func withMissing[T any](items, was []T, token func(T) string) []T {
	items = slices.Clone(items)
	for _, w := range was {
		if !slices.ContainsFunc(items, func(t T) bool { return token(t) == token(w) }) {
			items = append(items, w)
		}
	}
	return items
}

// filled gives the values of m and those of was that it lacks.
func filled[M ~map[K]V, K comparable, V any](m, was M) M {
	out := M{}
	maps.Copy(out, was)
	maps.Copy(out, m)
	return out
}

var TokenPattern = regexp.MustCompile(`^[a-z0-9]+(-[a-z0-9]+)*$`)

func checkToken(field, token string, seen map[string]bool) error {
	if !TokenPattern.MatchString(token) || len(token) > 60 || seen[token] {
		return doc.Problemf(
			field,
			"can't have the token %.60q: it has to be small letters, digits and hyphens, and there once",
			token,
		)
	}
	seen[token] = true
	return nil
}

func checkPalette(h *doc.House, _ doc.Zones) error {
	if len(h.Palette) > doc.MaxColours {
		return doc.Problemf("Palette", "has %d colours; %d is the most", len(h.Palette), doc.MaxColours)
	}
	seen := map[string]bool{}
	for i := range h.Palette {
		w := &h.Palette[i]
		if err := checkToken("Palette", w.Token, seen); err != nil {
			return err
		}
		var err error
		if w.Name, err = doc.Line("Palette", w.Name, 40); err != nil || w.Name == "" {
			return doc.Problemf("Palette", "the colour %s needs a name of 1 to 40 characters", w.Token)
		}
		c, perr := colour.ParseHex(w.Value)
		if perr != nil {
			return doc.Problemf(w.Name, "%v", perr)
		}
		w.Value = c.String()
	}
	for _, role := range doc.Roles {
		if !seen[role] {
			return doc.Problemf("Palette", "lacks the colour %q", role)
		}
	}
	return nil
}

// between reports whether a number from a file lies in a range; NaN doesn't.
func between(v, least, most float64) bool { return v >= least && v <= most }

// inZones keeps the values of zones that the site has.
func inZones(z doc.Zoned[float64], zones doc.Zones) doc.Zoned[float64] {
	out := maps.Clone(z)
	maps.DeleteFunc(out, func(id string, _ float64) bool { return zones.Index(id) < 0 })
	return out
}

func checkType(h *doc.House, zones doc.Zones) error {
	if len(h.Own) > doc.MaxFamilies {
		return doc.Problemf("Fonts", "of its own are %d; %d is the most", len(h.Own), doc.MaxFamilies)
	}
	for _, f := range h.Own {
		if len(f.Name) > 160 || !slices.Contains(style.Generics, f.Generic) {
			return doc.Problemf("Fonts", "can't have %.40q, for which %.40q stands in", f.Name, f.Generic)
		}
	}
	for use, family := range map[string]string{"heading": h.Fonts.Heading, "body": h.Fonts.Body, "mono": h.Fonts.Mono} {
		if !style.HasFamily(h, family) {
			return doc.Problemf("Fonts", "%.60q for %s isn't one of the families here", family, use)
		}
	}
	for _, name := range slices.Sorted(maps.Keys(doc.StandardHouse().Text)) {
		if _, ok := h.Text[name]; !ok {
			return doc.Problemf("Text styles", "lack %q", name)
		}
	}
	if len(h.Text) > doc.MaxSteps {
		return doc.Problemf("Text styles", "are %d; %d is the most", len(h.Text), doc.MaxSteps)
	}
	for name, t := range h.Text {
		if !TokenPattern.MatchString(name) || len(name) > 60 {
			return doc.Problemf("Text styles", "can't have one called %.60q", name)
		}
		t.Size = inZones(t.Size, zones)
		if _, ok := t.Size[zones.Widest()]; !ok {
			return doc.Problemf("Text styles", "%s has no size for %s", name, zones[0].Name)
		}
		for _, v := range t.Size {
			if !between(v, 8, 300) {
				return doc.Problemf("Text styles", "%s has a size of %v; 8 to 300 px can be", name, v)
			}
		}
		if t.Weight < 100 || t.Weight > 900 || !between(t.LineHeight, 0.8, 3) || !between(
			t.LetterSpacing, -0.2, 1,
		) || t.Case != "" && t.Case != "upper" && t.Case != "lower" {
			return doc.Problemf(
				"Text styles",
				"%s has a value out of range: weight 100 to 900, line height 0.8 to 3, letter spacing -0.2 to 1",
				name,
			)
		}
		if t.Family != "heading" && t.Family != "body" && t.Family != "mono" {
			return doc.Problemf("Text styles", "%s is set in %.40q; heading, body and mono can be", name, t.Family)
		}
		h.Text[name] = t
	}
	return nil
}

// checkButtons checks how buttons are drawn; a file may say nothing of them.
func checkButtons(h *doc.House) error {
	b := &h.Buttons
	if len(b.Sizes) == 0 {
		*b = doc.StandardButtons()
	}
	if _, ok := doc.FindStep(h.Corners, b.Corners); !ok && len(h.Corners) > 0 {
		return doc.Problemf("Buttons", "have corners %.40q, which is no step of the corners", b.Corners)
	}
	if !between(b.Line, 0, 12) || !between(b.Shift, -30, 30) || len(b.Sizes) > 12 {
		return doc.Problemf("Buttons", "have a value out of range")
	}
	seen := map[string]bool{}
	for _, s := range b.Sizes {
		if err := checkToken("Buttons", s.Token, seen); err != nil {
			return err
		}
		if !between(s.X, 0, 100) || !between(s.Y, 0, 60) || !between(s.Size, 0.5, 2) || len(s.Name) > 60 {
			return doc.Problemf("Buttons", "%s has a value out of range", s.Token)
		}
	}
	return nil
}

// checkPicks checks what a house style chooses among its own values.
func checkPicks(h *doc.House) error {
	for _, p := range style.Picks(h) {
		if p.Value == "" && p.Usual != "" ||
			slices.ContainsFunc(p.Offers, func(o style.Offer) bool { return o.Value == p.Value }) {
			continue
		}
		return doc.Problemf(p.Group, "%s can't be %.40q, which the house style doesn't have", p.Label, p.Value)
	}
	if !between(h.Links.Line, 0, 8) || !between(h.Links.Drop, 0, 12) {
		return doc.Problemf("Links", "have a value out of range: an underline of 0 to 8 px, 0 to 12 px below the words")
	}
	return nil
}

func checkSteps(h *doc.House, zones doc.Zones) error {
	for field, steps := range map[string][]doc.Step{"Spacing": h.Space, "Corners": h.Corners, "Lines": h.Lines} {
		if len(steps) > doc.MaxSteps {
			return doc.Problemf(field, "has %d steps; %d is the most", len(steps), doc.MaxSteps)
		}
		seen := map[string]bool{}
		for _, s := range steps {
			if err := checkToken(field, s.Token, seen); err != nil {
				return err
			}
			if !between(s.Px, 0, 2000) || !between(s.Narrow, 0, 2000) || len(s.Name) > 60 {
				return doc.Problemf(field, "%s is %v px; 0 to 2000 can be", s.Token, s.Px)
			}
		}
	}
	seen := map[string]bool{}
	for _, s := range h.Shadows {
		if err := checkToken("Shadows", s.Token, seen); err != nil {
			return err
		}
		if !between(s.Opacity, 0, 1) || len(s.Name) > 60 || len(h.Shadows) > 40 {
			return doc.Problemf("Shadows", "%s has a value out of range", s.Token)
		}
		if _, wrong := style.ReadShadow(s.Token, h, style.ShadowText(s)); wrong != nil {
			return wrong
		}
	}
	if err := checkButtons(h); err != nil {
		return err
	}
	if !between(h.ContentWidth, 320, 1920) {
		return doc.Problemf("Content width", "is %v px; 320 to 1920 can be", h.ContentWidth)
	}
	for _, of := range []struct {
		field       string
		values      *doc.Zoned[float64]
		least, most float64
	}{
		{field: "Gutter", values: &h.Gutter, most: 400},
		{field: "Column gap", values: &h.ColumnGap, most: 400},
		{field: "Viewport height", values: &h.ViewHeight, least: 320, most: 2400},
	} {
		*of.values = inZones(*of.values, zones)
		for _, v := range *of.values {
			if !between(v, of.least, of.most) {
				return doc.Problemf(of.field, "is %v px; %v to %v can be", v, of.least, of.most)
			}
		}
	}
	return checkPicks(h)
}

package style

import (
	"maps"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/value"
)

// Setting is one thing a person can set on a block or a section, per zone.
type Setting struct {
	Name  string
	Label string
	// On tells which kinds of block have it; OnSection stands for sections.
	On func(doc.Kind) bool
	// Choices are the keywords it takes, the first being what it is unless set.
	Choices []value.Choice
	Type    Type
	// Min and Max bound a number or a length in px; Units are those allowed
	// beside px.
	Min, Max float64
	Units    []Unit
	// Steps gives the house style's tokens for a length.
	Steps func(*doc.House) []doc.Step
}

// Type says what entries a setting takes beside its words.
type Type uint8

// The types.
const (
	TypeWord Type = iota
	TypeLength
	TypeWhole
	TypePercent
	TypeRatio
	TypeColour
	TypeTextStyle
	TypeShadow
	TypeShares
	TypeGradient
	TypePoint
	TypeButtonSize
	TypeFamily
	TypeNumber
	TypeEm
	TypeAngle
	TypeSeconds
)

// OnSection is the kind that stands for sections in Setting.On.
const OnSection doc.Kind = "section"

// byName has the settings by name; one of a name may be another on sections.
var byName = func() map[string][]*Setting {
	out := map[string][]*Setting{}
	for _, s := range Settings {
		out[s.Name] = append(out[s.Name], s)
	}
	return out
}()

// Find gives the setting of a name for a kind, or nil.
func Find(name string, kind doc.Kind) *Setting {
	for _, s := range byName[name] {
		if s.On(kind) {
			return s
		}
	}
	return nil
}

// Read checks an entry for the setting and gives its canonical form.
func (s *Setting) Read(h *doc.House, entry string) (string, *doc.Problem) {
	entry = strings.TrimSpace(entry)
	if len(entry) > maxSum && (s.Type != TypeGradient || len(entry) > maxGradient) {
		return "", doc.Problemf(s.Label, "is too long; %s", s.hint())
	}
	for _, c := range s.Choices {
		if strings.EqualFold(entry, c.Value) || strings.EqualFold(entry, c.Label) {
			return c.Value, nil
		}
	}
	for _, o := range s.Offers(h) {
		if strings.EqualFold(entry, o.Name) {
			return o.Value, nil
		}
	}
	return readers[s.Type](s, h, entry)
}

// Offer is a value that the house style has for a setting.
type Offer struct {
	Name  string // as people see it
	Value string // canonical
	// Colour is what a palette colour looks like, or "".
	Colour string
}

// Offers lists the house style's values for the setting.
func (s *Setting) Offers(h *doc.House) []Offer {
	var out []Offer
	switch {
	case s.Steps != nil:
		for _, st := range s.Steps(h) {
			out = append(out, Offer{Name: st.Name, Value: "$" + st.Token})
		}
	case s.Type == TypeColour:
		for _, w := range h.Palette {
			out = append(out, Offer{w.Name, "$" + w.Token, w.Value})
		}
	case s.Type == TypeTextStyle:
		for _, name := range slices.Sorted(maps.Keys(h.Text)) {
			out = append(out, Offer{Name: doc.Capital(name), Value: "$" + name})
		}
	case s.Type == TypeButtonSize:
		for _, b := range h.ButtonSizes() {
			out = append(out, Offer{Name: b.Name, Value: "$" + b.Token})
		}
	case s.Type == TypeFamily:
		for _, f := range h.Own {
			out = append(out, Offer{Name: f.Name, Value: f.Name})
		}
		for _, f := range Families {
			out = append(out, Offer{Name: f.Name, Value: f.Name})
		}
	case s.Type == TypeShadow:
		for _, sh := range h.Shadows {
			out = append(out, Offer{Name: sh.Name, Value: "$" + sh.Token})
		}
	}
	return out
}

// Unset is what people read where nothing is set.
func (s *Setting) Unset() string {
	if len(s.Choices) == 0 {
		return "Default"
	}
	return s.Choices[0].Label
}

// Shown gives a canonical value as people see it.
func (s *Setting) Shown(h *doc.House, v string) string {
	for _, o := range s.Offers(h) {
		if o.Value == v {
			return o.Name
		}
	}
	if strings.HasPrefix(v, "calc(") {
		return strings.TrimSuffix(strings.TrimPrefix(v, "calc("), ")")
	}
	shown := value.Label(s.Choices, v)
	switch s.Type {
	case TypeAngle:
		return strings.TrimSuffix(shown, "deg") + "°"
	case TypeEm:
		return strings.TrimSuffix(shown, "em")
	case TypeColour:
		if token, alpha, ok := strings.Cut(v, "/"); ok {
			if w := h.Swatch(strings.TrimPrefix(token, "$")); w != nil {
				return w.Name + " " + alpha
			}
		}
	}
	return strings.TrimSuffix(shown, "px")
}

func (s *Setting) hint() string {
	var could []string
	switch s.Type {
	case TypeEm:
		return "write a number from " + Number(s.Min) + " to " + Number(s.Max) + " em"
	case TypeAngle:
		return "write degrees from " + Number(s.Min) + " to " + Number(s.Max)
	case TypeSeconds:
		return "write seconds from " + Number(s.Min) + " to " + Number(s.Max)
	case TypeFamily:
		return "choose one of the fonts that ship or that the house style has"
	}
	if s.Max > 0 {
		unit := ""
		if s.Type == TypeLength {
			unit = " px"
		}
		could = append(could, "a number from "+Number(s.Min)+" to "+Number(s.Max)+unit)
	}
	for _, c := range s.Choices {
		if s.Max == 0 || !strings.HasPrefix(c.Value, c.Label) { // a number is one of those already
			could = append(could, c.Label)
		}
	}
	if len(could) > 5 {
		could = could[:5]
	}
	return "write " + strings.Join(could, ", or ")
}

func (s *Setting) wrong(entry string) *doc.Problem {
	return doc.Problemf(s.Label, "can't be %.40q: %s", entry, s.hint())
}

package model

import (
	"encoding/json"
	"html/template"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/number"
	"openplot/core/rights"
	"openplot/core/style"
)

// step is one of the house style's lengths, as a menu draws it.
type step struct {
	Name  string  `json:"name"`
	Value string  `json:"value"`
	Px    float64 `json:"px"`
}

// settings gives the fields of settings by name, those that the kind has.
func (v fields) settings(values doc.Style, kind doc.Kind, names ...string) []field {
	var fs []field
	for _, name := range names {
		if s := style.Find(name, kind); s != nil {
			fs = append(fs, v.settingField(s, values))
		}
	}
	return fs
}

// settingField gives the field of a setting: what is set here or followed, and the control
// that shows it.
func (v fields) settingField(s *style.Setting, values doc.Style) field {
	zs, house, zone, name := v.Site.Zones, &v.Site.House, v.Current(), s.Name
	f := field{ID: "f-" + name, Label: s.Label, Op: "set", Setting: name, Control: "text", Zoned: true}
	value, from, ok := values[name].Resolve(zs, v.Zone)
	if ownInEachZone(name, v.Zone == len(zs)-1) && from != zone.ID {
		value, from, ok = "", "", false
	}
	f.Here, f.Raw = ok && from == zone.ID, value
	shown := s.Unset()
	if ok {
		shown = s.Shown(house, value)
	}
	switch {
	case f.Here:
		f.Value, f.Reset = shown, "follow"
		f.From = "the default"
		if _, wider, ok := values[name].Resolve(zs, v.Zone-1); ok && !ownInEachZone(name, v.Zone == len(zs)-1) {
			f.From = zs[zs.Index(wider)].Name
		}
	default:
		f.Follows = shown
		if ok {
			f.From = zs[zs.Index(from)].Name
		} else {
			f.Follows = v.instead(s, values)
		}
	}
	if f.Here && !ownInEachZone(name, false) {
		f.Others, f.ThereToo = v.others(name, values)
	}
	f.Token = ok && strings.HasPrefix(value, "$")
	f.Promotes = f.Here && v.Site.Role.May(rights.House) && edit.Promotable(s, value)
	v.control(&f, s, values, value, ok)
	return f
}

// control sets what a setting's control shows.
func (v fields) control(f *field, s *style.Setting, values doc.Style, value string, ok bool) {
	house := &v.Site.House
	sh := style.Sheet{House: house, Zones: v.Site.Zones, Zone: v.Zone, Style: values}
	switch s.Type {
	case style.TypeWord:
		f.Control = "options"
		if s.Name == "object-position" || s.Name == "picture-position" {
			f.Control = "crop"
		}
		for _, c := range s.Choices {
			f.Options = append(
				f.Options,
				option{
					Value:  c.Value,
					Label:  c.Label,
					Chosen: c.Value == value,
					Icon:   drawn[s.Name+" "+c.Value],
					Sample: sampled[s.Name+" "+c.Value],
				},
			)
			o := &f.Options[len(f.Options)-1]
			switch s.Name {
			case "shape":
				if o.Clip = element.MaskPath(c.Value); o.Clip == "" {
					o.Clip = "none"
				}
			case "edge-top", "edge-bottom":
				o.Drawing = divider(c.Value)
			}
		}
		f.segmented()
	case style.TypePoint:
		f.Control = "crop"
		for _, c := range s.Choices {
			f.Options = append(f.Options, option{Value: c.Value, Label: c.Label, Chosen: c.Value == value})
		}
	case style.TypeButtonSize:
		f.Control = "options"
		if !ok {
			value = "$" + house.ButtonSize("").Token
		}
		for _, o := range s.Offers(house) {
			f.Options = append(f.Options, option{Value: o.Value, Label: o.Name, Chosen: o.Value == value})
		}
		f.segmented()
	case style.TypeTextStyle:
		f.Control = "options"
		for _, o := range s.Offers(house) {
			token := strings.TrimPrefix(o.Value, "$")
			var st style.Style
			sh.TextStyle(&st, token)
			f.Options = append(f.Options, option{
				Value: o.Value, Label: o.Name, Chosen: o.Value == value, Font: st.FontFamily, Weight: st.FontWeight,
				Size: min(max(st.FontPx(style.Viewport{Width: v.Width}), 12), 26),
			})
		}
	case style.TypeFamily:
		f.Control = "options"
		f.Find = true
		for _, o := range s.Offers(house) {
			f.Options = append(
				f.Options,
				option{Value: o.Value, Label: o.Name, Chosen: o.Value == value, Font: o.Name, Size: 16},
			)
		}
		if f.Font = value; value == "" {
			f.Font = v.holds[s.Name]
		}
	case style.TypeColour:
		f.Control = "colour"
		if f.Paint = v.holds[s.Name]; ok {
			f.Paint = sh.Colour(s.Name, "")
		}
	case style.TypeGradient:
		f.Control = "gradient"
		f.Paint, f.Spoken = sh.Gradient(s.Name, 1), style.GradientWords(sh, s.Name)
	case style.TypeShadow:
		f.Control = "shadow"
		f.Paint, f.Spoken = sh.Shadow(s.Name), style.ShadowWords(sh, s.Name)
	case style.TypeRatio:
		f.Control = "ratio"
		for _, r := range []string{"1:1", "4:3", "3:2", "16:9", "2:3"} {
			f.Options = append(f.Options, option{Value: r, Label: r, Chosen: r == value})
		}
		for _, c := range s.Choices {
			f.Options = append(f.Options, option{Value: c.Value, Label: c.Label, Chosen: c.Value == value})
		}
	case style.TypeShares:
		f.Control = "shares"
		for _, p := range []string{"equal", "6 6", "4 8", "8 4", "4 4 4", "3 6 3", "6 3 3", "3 3 6", "3 3 3 3", "2 2 2 2 2 2", "12"} {
			f.Options = append(f.Options, option{Value: p, Label: p, Chosen: p == value})
		}
	default:
		v.number(f, s, sh, value)
	}
}

// divider draws a shape divider as a choice shows it.
func divider(name string) template.HTML {
	shape := element.DividerShape(name)
	if shape == "" {
		shape = `<path d="M0 96h1000v4H0z"/>`
	}
	return template.HTML(
		`<svg class="draw-divider" viewBox="0 0 1000 100" preserveAspectRatio="none" aria-hidden="true">` + shape + `</svg>`,
	)
}

// number sets what a number's control shows: bounds, units, steps, and how large it is now.
func (v fields) number(f *field, s *style.Setting, sh style.Sheet, value string) {
	f.Control, f.Min, f.Max, f.Step = "number", s.Min, s.Max, 1
	switch s.Type {
	case style.TypeLength:
		f.Units = []string{"px"}
		for _, u := range s.Units {
			f.Units = append(f.Units, style.Length{N: 1, Unit: u}.String()[1:])
		}
		if l := sh.Length(s.Name, style.ParseLength(v.holds[s.Name], style.Length{})); l.Unit != style.Auto {
			view := style.Viewport{Width: v.Width, Height: v.Current().ViewHeight()}
			if px, ok := l.Resolve(v.Width, view); ok && l.Unit != style.Percent {
				f.Now = style.Number(px)
			} else if l.Unit == style.Percent {
				f.Now = l.String()
			}
		}
		if s.Steps != nil {
			for _, st := range s.Steps(&v.Site.House) {
				f.Steps = append(f.Steps, step{st.Name, "$" + st.Token, st.Px})
			}
		}
		if strings.HasSuffix(s.Name, "height") && s.Max > 1000 { // of the viewport
			for _, n := range []string{"25vh", "50vh", "75vh", "100vh"} {
				f.Quick = append(f.Quick, option{Value: n, Label: strings.TrimSuffix(n, "vh"), Chosen: n == value})
			}
		}
	case style.TypePercent:
		f.Units, f.Now = []string{"%"}, strings.TrimSuffix(firstOf(value, s), "%")
	case style.TypeEm:
		f.Step, f.Now = 0.01, strings.TrimSuffix(v.orHolds(value, s.Name), "em")
	case style.TypeNumber:
		f.Step, f.Now = 0.05, v.orHolds(value, s.Name)
	case style.TypeAngle:
		f.Now = strings.TrimSuffix(firstOf(value, s), "deg")
	case style.TypeSeconds:
		f.Step, f.Now = 0.5, strings.TrimSuffix(firstOf(value, s), "s")
	case style.TypeWhole:
		f.Now = v.orHolds(value, s.Name)
		if s.Name == "font-weight" {
			f.Step, f.Slides = 25, true
		}
	}
	if s.Type == style.TypePercent && s.Name != "entrance-length" && s.Name != "entrance-delay" ||
		s.Type == style.TypeAngle {
		f.Slides = true
	}
	if _, err := number.Real(strings.TrimSuffix(f.Now, "%")); err != nil {
		f.Now = ""
	}
}

func (v fields) orHolds(value, setting string) string {
	if value != "" && value[0] != '$' {
		return value
	}
	return v.holds[setting]
}

// firstOf is a value, or what a setting is unless it is set.
func firstOf(v string, s *style.Setting) string {
	if v == "" && len(s.Choices) > 0 {
		return s.Choices[0].Value
	}
	return v
}

// mostSegments is how many characters the labels of choices may have together to stand side
// by side.
const mostSegments = 20

// segmented lets a few short choices stand side by side; others are a list to open.
func (f *field) segmented() {
	long := 0
	for i := range f.Options {
		if f.Options[i].Sample != "" {
			long += len([]rune(f.Options[i].Sample))
		} else if f.Options[i].Icon == "" {
			long += len([]rune(f.Options[i].Label))
		} else {
			long += 3
		}
	}
	if f.Control == "options" && len(f.Options) <= 5 && long <= mostSegments {
		f.Control = "segments"
	}
}

// drawn names the icon that shows a choice, by setting and value.
var drawn = map[string]string{
	"text-align start": "text-left", "text-align center": "text-center", "text-align end": "text-right",
	"align-self stretch": "arrows-expand", "align-self start": "align-top", "align-self center": "align-middle", "align-self end": "align-bottom",
	"justify-self stretch": "arrows", "justify-self start": "align-start", "justify-self center": "align-center", "justify-self end": "align-end",
	"content-at start": "align-top", "content-at center": "align-middle", "content-at end": "align-bottom",
	"direction column": "arrow-down", "direction row": "arrow-right",
	"align-items stretch": "arrows-expand", "align-items start": "align-top", "align-items center": "align-middle", "align-items end": "align-bottom",
	"mirror none": "slash-circle", "mirror horizontal": "symmetry-vertical", "mirror vertical": "symmetry-horizontal", "mirror both": "arrows-move",
	"text-transform default": "slash-circle",
}

// sampled shows a choice by letters as they come out, by setting and value.
var sampled = map[string]string{
	"text-transform none": "Aa", "text-transform uppercase": "AA", "text-transform lowercase": "aa",
}

// Data gives what a number's menu shows, as JSON.
func (f field) Data() string {
	text, err := json.Marshal(map[string]any{"units": f.Units, "steps": f.Steps})
	if err != nil {
		return "{}"
	}
	return string(text)
}

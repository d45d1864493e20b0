package bench

import (
	"encoding/json"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/rights"
	"openplot/core/style"
	"openplot/core/value"
	"strconv"
	"strings"
)

// contentClusters are what can be entered for a block beside its words.
func (v *View) contentClusters(b *doc.Block) []cluster {
	a := element.Of(b.Kind)
	var cs []cluster
	if len(a.Fields) > 0 {
		c := cluster{Title: "Content"}
		for _, f := range a.Fields {
			c.Fields = append(c.Fields, v.contentField(f, "block.content", "f-c-"+f.Name, element.Value(b.Content, f.Name), b.Content.Picture))
		}
		cs = append(cs, c)
	}
	if a.EntryName != "" {
		cs = append(cs, cluster{Title: a.EntryName, Note: strconv.Itoa(len(b.Content.Entries)), Entries: v.entries(a, b)})
	}
	return cs
}

// contentField is a field of content as the Tray shows it; picture is the medium that
// alternative words would be of.
func (v *View) contentField(f element.Field, op, id, value, picture string) field {
	out := field{ID: id, Label: f.Label, Op: op, Setting: f.Name, Control: "text", Value: value, Here: value != "", Follows: f.Default}
	switch f.Type {
	case element.PictureID, element.VideoID:
		out = v.pictureField(value, op, f.Name)
		out.ID, out.Label, out.Video = id, f.Label, f.Type == element.VideoID
	case element.Lines, element.Prose, element.Markup, element.Cells:
		out.Control = "area"
		if m, ok := v.Builder.Media(picture); ok && f.Name == "alt" {
			out.Follows = m.Alt
		}
	case element.Address:
		out.List, out.Follows = "list-pages", "None"
	case element.Choice:
		out.Control, out.Here = "choice", true
		if value == "" {
			value = f.Choices[0].Value
		}
		for _, c := range f.Choices {
			out.Options = append(out.Options, option{c.Value, c.Label, c.Value == value})
		}
	}
	return out
}

func (v *View) pictureField(id, op, setting string) field {
	f := field{ID: "f-picture", Label: "Picture", Op: op, Setting: setting, Control: "picture", Value: id, Here: id != "", Follows: "None"}
	for _, m := range v.Media() {
		if m.ID == id {
			f.Follows = m.Name
		}
	}
	return f
}

// Entries is what a block lists.
type Entries struct {
	Node    string
	Count   int
	Entries []Entry
}

type Entry struct {
	At, Number  int
	Name        string
	Fields      []field
	First, Last bool
}

func (v *View) entries(a *element.Anatomy, b *doc.Block) *Entries {
	out := &Entries{Node: v.Selected, Count: len(b.Content.Entries)}
	for i, e := range b.Content.Entries {
		ev := Entry{At: i, Number: i + 1, First: i == 0, Last: i == len(b.Content.Entries)-1}
		prefix := "e-" + strconv.Itoa(i) + "-"
		for _, f := range a.Entry {
			fv := v.contentField(f, "entry.set", prefix+f.Name, e.Values[f.Name], e.Values["picture"])
			fv.At = i
			ev.Fields = append(ev.Fields, fv)
		}
		if a.EntryWords {
			f := field{ID: prefix + "words", Label: "Text", Op: "entry.write", Control: "words", At: i, Value: e.Words.Plain(), Here: true}
			if !plain(e.Words) { // they are written on the page, so that no formatting is lost
				f.Control, f.Label = "formatted", "Text, formatted"
			}
			ev.Fields = append(ev.Fields, f)
		}
		out.Entries = append(out.Entries, ev)
	}
	return out
}

// plain reports whether words are nothing but text.
func plain(w doc.Words) bool {
	for _, p := range w {
		for _, r := range p {
			if r != (doc.Run{Text: r.Text}) {
				return false
			}
		}
	}
	return true
}

// ownInEachZone reports whether a setting holds in its zone alone.
func ownInEachZone(name string, narrowest bool) bool {
	return name == "columns" || name == "per-row" || name == "shares" && narrowest
}

// instead says in words what holds where a setting isn't set: "default" and a number for
// lengths that the house style or the kind of block has, a colour by its name.
func (v *View) instead(s *style.Setting, values doc.Style) string {
	sh := style.Sheet{House: &v.Site.House, Zones: v.Site.Zones, Zone: v.Zone, Style: values}
	switch s.Name {
	case "columns":
		return strconv.Itoa(v.Current().Columns)
	case "per-row":
		return strconv.Itoa(element.PerRow(sh))
	case "shares":
		if len(place.Shares(doc.Holder{Style: values}, v.Site.Zones, v.Zone)) == 1 {
			return "12, stacked"
		}
	}
	holds := v.holds[s.Name]
	if holds == "" {
		return s.Unset()
	}
	switch s.Type {
	case style.TypeColour:
		for _, w := range v.Site.House.Palette {
			if w.Value == holds {
				return w.Name
			}
		}
	case style.TypeTextStyle:
		return styleName(holds)
	case style.TypeLength:
		if len(s.Choices) > 0 && s.Choices[0].Value != value.Default && s.Shown(&v.Site.House, holds) == s.Unset() {
			return s.Unset()
		}
		if strings.Contains(holds, "(") { // it grows with the viewport
			return "default, fluid"
		}
		return "default " + strings.TrimSuffix(holds, "px")
	}
	return holds
}

// styleName is a text style as people read it.
func styleName(token string) string { return strings.ToUpper(token[:1]) + token[1:] }

// others names the narrower zones with a value of their own for a setting, and gives the
// command that lets them follow.
func (v *View) others(name string, values doc.Style) (zones, command string) {
	var names []string
	all := edit.Command{Op: edit.Many}
	for _, z := range v.Site.Zones[v.Zone+1:] {
		if _, ok := values[name][z.ID]; ok {
			names = append(names, z.Name)
			all.Parts = append(all.Parts, edit.Command{Op: "follow", Node: v.Selected, Zone: z.ID, Setting: name})
		}
	}
	if len(names) == 0 {
		return "", ""
	}
	text, err := json.Marshal(all)
	if err != nil {
		return "", ""
	}
	return strings.Join(names, " and "), string(text)
}

// settings gives the fields of settings by name, those that the kind has.
func (v *View) settings(values doc.Style, kind doc.Kind, names ...string) []field {
	var fs []field
	zs, house := v.Site.Zones, &v.Site.House
	zone := v.Current()
	for _, name := range names {
		s := style.Find(name, kind)
		if s == nil {
			continue
		}
		f := field{ID: "f-" + name, Label: s.Label, Op: "set", Setting: name, Control: "text", Zoned: true}
		value, from, ok := values[name].Resolve(zs, v.Zone)
		if ownInEachZone(name, v.Zone == len(zs)-1) && from != zone.ID {
			value, from, ok = "", "", false
		}
		f.Here = ok && from == zone.ID
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
		switch s.Type {
		case style.TypeWord:
			f.Control = "choice"
			if name == "object-position" {
				f.Control = "crop"
			}
			for _, c := range s.Choices {
				f.Options = append(f.Options, option{c.Value, c.Label, c.Value == value})
			}
		case style.TypeButtonSize:
			f.Control = "choice"
			if !ok {
				value = "$" + house.ButtonSize("").Token
			}
			for _, o := range s.Offers(house) {
				f.Options = append(f.Options, option{o.Value, o.Name, o.Value == value})
			}
		case style.TypeColour:
			f.List = "list-colour"
			if ok {
				sh := style.Sheet{House: house, Zones: zs, Zone: v.Zone, Style: values}
				f.Swatch = sh.Colour(name, "")
			}
		case style.TypeTextStyle:
			f.List = "list-text-style"
		case style.TypeShadow:
			f.List = "list-shadow"
		case style.TypeLength:
			if offers := s.Offers(house); len(offers) > 0 {
				f.List = "list-space"
				switch name {
				case "border-radius":
					f.List = "list-corners"
				case "border-width":
					f.List = "list-lines"
				}
			}
		}
		fs = append(fs, f)
	}
	return fs
}

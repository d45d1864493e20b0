package model

import (
	"cmp"
	"encoding/json"
	"html/template"
	"math"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/core/value"
)

// contentClusters are what can be entered for a block beside its words.
func (v fields) contentClusters(b *doc.Block) []cluster {
	a := element.Of(b.Kind)
	var cs []cluster
	if len(a.Fields) > 0 || element.Varies(b.Kind, b.Content) {
		c := cluster{ID: "content", Title: "Content"}
		for _, f := range a.Fields {
			if f.Name == "picture" && b.Kind.Is(doc.Holding) { // what it lies on is with its surface
				continue
			}
			c.Fields = append(
				c.Fields,
				v.contentField(f, "block.content", "f-c-"+f.Name, element.Value(b.Content, f.Name), b.Content.Picture),
			)
		}
		if c.Says = trayParts(v).saying(b); len(c.Fields) > 0 || c.Says != nil {
			cs = append(cs, c)
		}
	}
	if a.EntryName != "" {
		cs = append(
			cs,
			cluster{
				ID:      "entries",
				Title:   a.EntryName,
				Note:    strconv.Itoa(len(b.Content.Entries)),
				Entries: v.entries(a, b),
			},
		)
	}
	return cs
}

// contentField is a field of content as the Tray shows it; picture is the medium that
// alternative words would be of.
func (v fields) contentField(f element.Field, op, id, value, picture string) field {
	out := field{
		ID:      id,
		Label:   f.Label,
		Op:      op,
		Setting: f.Name,
		Control: "text",
		Value:   value,
		Here:    value != "",
		Follows: f.Default,
	}
	switch f.Type {
	case element.PictureID, element.VideoID, element.AudioID:
		out = v.pictureField(value, op, f.Name)
		out.ID, out.Label, out.Sort = id, f.Label, sorts[f.Type]
	case element.Cells:
		out.Control = "cells"
		out.Cells = element.Rows(value)
	case element.Lines, element.Prose, element.Markup:
		out.Control = "area"
		if m, ok := v.Builder.Media(picture); ok && f.Name == "alt" {
			out.Follows = m.Alt
		}
	case element.Address:
		out.Control, out.Follows = "link", "None"
		out.Leads, out.Broken = v.leads(value)
		out.Raw = value
		if out.Value, _ = doc.SplitLink(value); doc.LinkedFile(value) != "" { // chosen, not written
			out.Value, out.Fixed = strings.TrimSuffix(out.Leads, inNewTab), true
		}
	case element.IconName:
		out.Control = "icon"
	case element.Number:
		out.Control, out.Min, out.Max, out.Step = "number", f.Min, f.Max, 1
	case element.LocalTime:
		out.Control = "time"
	case element.Choice:
		out.Control, out.Here = "options", true
		if value == "" {
			value = f.Choices[0].Value
		}
		for _, c := range f.On(&v.Site.Site) {
			out.Options = append(out.Options, option{Value: c.Value, Label: c.Label, Chosen: c.Value == value})
		}
		out.segmented()
	}
	return out
}

// inNewTab ends what is said of a link that opens in one.
const inNewTab = ", in a new tab"

// leads says in words where a link leads, and whether there is nothing there.
func (v fields) leads(link string) (where string, broken bool) {
	if address, further := doc.SplitLink(link); further {
		where, broken = v.leads(address)
		return where + inNewTab, broken
	}
	if id := doc.LinkedFile(link); id != "" {
		for _, m := range v.Media() {
			if m.ID == id {
				return m.Name, false
			}
		}
		return "No such file in the library", true
	}
	path, anchor, placed := strings.Cut(link, "#")
	switch {
	case link == "":
		return "", false
	case strings.HasPrefix(link, "mailto:"):
		return "Mail", false
	case strings.HasPrefix(link, "tel:"):
		return "Telephone", false
	case !strings.HasPrefix(link, "/") && !strings.HasPrefix(link, "#"):
		return "Another site", false
	}
	where = v.Page.Name
	here := path == "" || path == "/"+v.Slug.Address()
	if path != "" {
		where, broken = "No such page", true
		for _, p := range v.Source.Pages {
			if "/"+p.Slug == path {
				where, broken = p.Name, false
			}
		}
	}
	if !placed || broken || !here {
		return where, broken
	}
	for _, s := range v.Page.Sections {
		if s.Anchor == anchor {
			return s.Name, false
		}
	}
	if anchor == "" || anchor == "top" {
		return where, false
	}
	return "No such place on this page", true
}

// sorts are those of the media that fields take.
var sorts = map[element.FieldType]doc.MediumSort{
	element.PictureID: doc.PictureMedium, element.VideoID: doc.VideoMedium, element.AudioID: doc.AudioMedium,
}

func (v fields) pictureField(id, op, setting string) field {
	f := field{
		ID:      "f-picture",
		Label:   "Picture",
		Op:      op,
		Setting: setting,
		Control: "picture",
		Sort:    doc.PictureMedium,
		Value:   id,
		Here:    id != "",
		Follows: "None",
	}
	for _, m := range v.Media() {
		if m.ID == id {
			f.Follows = m.Name
			f.Note = MediumSize(m)
		}
	}
	if m, ok := v.Builder.Media(id); ok && m.Sort() == doc.PictureMedium {
		f.Thumb = m.Thumb()
	}
	return f
}

// Entries is what a block lists.
type Entries struct {
	Node    string
	Count   int
	Entries []Entry
}

// Entry is one of them: a row with its name, and its fields for when it is the chosen one.
type Entry struct {
	At, Number int
	Name       string
	Icon       string // of a form's field, by its type
	Fields     []field
}

// fieldIcons show the types of a form's fields.
var fieldIcons = map[string]string{
	value.Text: "input-cursor-text", value.Email: "envelope", value.Tel: "telephone", value.Number: "123", value.Date: "calendar-date",
	value.Time: "clock", value.Textarea: "textarea-t", value.Select: "menu-button-wide", value.Radio: "ui-radios", value.Checkbox: "ui-checks",
	value.YesNo: "check-square", value.Rating: "star-half", value.Hidden: "eye-slash", value.Between: "text-paragraph", value.Step: "signpost-split",
}

// fieldDrawings are live examples of the types, that nobody reaches.
var fieldDrawings = func() map[string]template.HTML {
	out := map[string]template.HTML{
		value.Textarea: `<span class="live-field" inert aria-hidden="true"><textarea class="form-control">More words,
in lines</textarea></span>`,
		value.Select:  `<span class="live-field" inert aria-hidden="true"><select class="form-select"><option>Langey</option></select></span>`,
		value.YesNo:   `<span class="live-field" inert aria-hidden="true"><span><input class="form-check-input" type="checkbox" checked> I agree</span></span>`,
		value.Rating:  `<span class="live-field" inert aria-hidden="true"><span>1 2 3 <strong>4</strong> 5</span></span>`,
		value.Hidden:  `<span class="live-field" inert aria-hidden="true"><span class="measure">?offer=winter</span></span>`,
		value.Between: `<span class="live-field" inert aria-hidden="true"><strong>About the boat</strong></span>`,
		value.Step:    `<span class="live-field" inert aria-hidden="true"><span class="measure">2 / 3 →</span></span>`,
	}
	for kind, example := range map[string]string{
		value.Text: `value="Runa Berg"`, value.Email: `value="runa@berg.example"`, value.Tel: `value="0555 017 204"`, value.Number: `value="3"`,
		value.Date: `value="2026-05-01"`, value.Time: `value="08:10"`, value.Radio: `checked`, value.Checkbox: `checked`,
	} {
		class := "form-control"
		if example == "checked" {
			class = "form-check-input"
		}
		out[kind] = template.HTML(
			`<span class="live-field" inert aria-hidden="true"><input class="` + class + `" type="` + kind + `" ` + example + `></span>`,
		)
	}
	return out
}()

func (v fields) entries(a *element.Anatomy, b *doc.Block) *Entries {
	out := &Entries{Node: v.Selected, Count: len(b.Content.Entries)}
	for i, e := range b.Content.Entries {
		ev := Entry{At: i, Number: i + 1}
		prefix := "e-" + strconv.Itoa(i) + "-"
		for _, f := range a.Entry {
			if !f.Is(e.Values) || f.Name == "is" && e.Values["when"] == "" {
				continue
			}
			fv := v.contentField(f, "entry.set", prefix+f.Name, e.Values[f.Name], e.Values["picture"])
			fv.At = i
			if b.Kind == doc.Form && f.Name == "type" {
				ev.Icon = fieldIcons[cmp.Or(e.Values["type"], value.Text)]
				for k := range fv.Options {
					fv.Options[k].Icon, fv.Options[k].Drawing = fieldIcons[fv.Options[k].Value], fieldDrawings[fv.Options[k].Value]
				}
			}
			if b.Kind == doc.Form && (f.Name == "when" || f.Name == "is") {
				fv.offer(conditions(b.Content.Entries, i, f.Name))
			}
			if ev.Name == "" && f.Type == element.Address {
				ev.Name = fv.Leads
			}
			if ev.Name == "" && (f.Type == element.Line || f.Type == element.Prose) {
				ev.Name = e.Values[f.Name]
			}
			ev.Fields = append(ev.Fields, fv)
		}
		if a.EntryWords {
			f := field{
				ID:      prefix + "words",
				Label:   "Text",
				Op:      "entry.write",
				Control: "words",
				At:      i,
				Value:   e.Words.Plain(),
				Here:    true,
			}
			if !plain(e.Words) { // they are written on the page, so that no formatting is lost
				f.Control, f.Label = "formatted", "Text, formatted"
			}
			ev.Fields = append(ev.Fields, f)
			ev.Name = cmp.Or(ev.Name, e.Words.Plain())
		}
		ev.Name = cmp.Or(ev.Name, strconv.Itoa(ev.Number))
		out.Entries = append(out.Entries, ev)
	}
	return out
}

// conditions offer what a field of a form can depend on: another field, or one of its values, the first being
// that it doesn't, or that any will do.
func conditions(entries []doc.Entry, at int, name string) (offers []value.Choice) {
	if name == "when" {
		offers = value.Is("", "Always there")
		for i, e := range entries {
			if label := e.Values["label"]; i != at && label != "" && element.Asks(e.Values) {
				offers = append(offers, value.Choice{Value: label, Label: label})
			}
		}
		return offers
	}
	offers = value.Is("", "Filled in")
	for _, e := range entries {
		if e.Values["label"] == entries[at].Values["when"] {
			for _, c := range element.Choices(e.Values) {
				offers = append(offers, value.Choice{Value: c, Label: c})
			}
		}
	}
	return offers
}

// offer makes a field one of choices; what was chosen and isn't there any more is one of them.
func (f *field) offer(choices []value.Choice) {
	chosen := slices.ContainsFunc(choices, func(c value.Choice) bool { return c.Value == f.Value })
	if !chosen {
		choices = append(choices, value.Choice{Value: f.Value, Label: f.Value + " (isn’t there)"})
	}
	f.Control, f.Here, f.Options = "options", true, nil
	for _, c := range choices {
		f.Options = append(f.Options, option{Value: c.Value, Label: c.Label, Chosen: c.Value == f.Value})
	}
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
func (v fields) instead(s *style.Setting, values doc.Style) string {
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
			l := style.ParseLength(holds, style.Length{})
			px, ok := l.Resolve(v.Width, style.Viewport{Width: v.Width, Height: v.Current().ViewHeight()})
			if !ok {
				return "default, fluid"
			}
			return "default " + style.Number(math.Round(px*10)/10) + ", fluid"
		}
		return "default " + strings.TrimSuffix(holds, "px")
	}
	return holds
}

// styleName is a text style as people read it.
func styleName(token string) string { return doc.Capital(token) }

// others names the narrower zones with a value of their own for a setting, and gives the
// command that lets them follow.
func (v fields) others(name string, values doc.Style) (zones, command string) {
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

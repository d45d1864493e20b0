package edit

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/ready"
	"openplot/core/settings"
)

// oneOf gives a page with one block of a kind, and its id.
func oneOf(k doc.Kind, e Env) (*doc.Page, string) {
	b := element.Start(k).Anew(e.NewID)
	b.Place = doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 1}}
	return &doc.Page{
		ID:       "p",
		Name:     "P",
		Title:    "P",
		Sections: []*doc.Section{{ID: "s", Name: "S", Blocks: []*doc.Block{b}}},
	}, b.ID
}

func TestBadContent(t *testing.T) {
	tooMany := strings.Repeat(strings.Repeat("1\t", 99)+"1\n", 100) // 10,000 cells
	for _, tt := range []struct {
		kind               doc.Kind
		op, setting, value string
		at                 int
		field, says        string
	}{
		{doc.Table, "block.content", "cells", tooMany, 0, "Cells, separated by tabs", "10000, in 100 rows and 100 columns"},
		{doc.Table, "block.content", "cells", strings.Repeat("\t", 1<<19), 0, "Cells, separated by tabs", "at most 1200"},
		{doc.Table, "block.content", "narrow", "explodes", 0, "On phones", "choose Scrolls, Cards"},
		{doc.Icon, "block.content", "icon", "no-such-icon", 0, "Icon", "none of that name"},
		{doc.Map, "block.content", "latitude", "91", 0, "Latitude", "from -85 to 85"},
		{doc.Map, "block.content", "latitude", "NaN", 0, "Latitude", "from -85 to 85"},
		{doc.Countdown, "block.content", "until", "2027-02-29T18:00", 0, "Date and time", "write it as"},
		{doc.Countdown, "block.content", "zone", "Mars/Olympus", 0, "Time zone", "choose UTC"},
		{doc.Audio, "block.content", "audio", "v1", 0, "Audio file", "isn't one of this site's"},
		{doc.Button, "block.content", "link", "file:../x", 0, "Link", "can't be"},
		{doc.Anchor, "block.content", "name", "Two Words", 0, "Name", "small letters"},
		{doc.OwnHTML, "block.content", "html", strings.Repeat("x", doc.MaxMarkup+1), 0, "HTML", "at most"},
		{doc.Accordion, "entry.set", "title", strings.Repeat("x", 400), 0, "Question", "at most 300"},
		{doc.Accordion, "entry.set", "icon", "x", 0, "Setting", "isn't part of an entry"},
		{doc.Accordion, "entry.set", "title", "x", 99, "Entry", "isn't there"},
		{doc.Accordion, "entry.remove", "", "", -1, "Entry", "isn't there"},
		{doc.Text, "entry.add", "", "", 0, "Entry", "no list"},
		{doc.Figures, "entry.write", "", "<p>x</p>", 0, "Text", "have none"},
		{doc.Social, "entry.set", "link", "javascript:alert(1)", 0, "Link", "can't be"},
		{doc.Text, "item.add", "", "", 0, "Item", "Series"},
		{doc.Text, "arrange", "", "columns", 0, "Arrangement", "has none"},
		{doc.Container, "arrange", "", "in a heap", 0, "Arrangement", "choose Placed"},
	} {
		e := env()
		p, id := oneOf(tt.kind, e)
		was := encoded(t, p)
		_, err := Apply(
			p,
			Command{Op: tt.op, Node: id, Zone: "desktop", Setting: tt.setting, Value: tt.value, At: tt.at},
			e,
		)
		var problem *doc.Problem
		if !errors.As(err, &problem) || problem.Field != tt.field || !strings.Contains(problem.Message, tt.says) {
			t.Errorf("%s %s %s: %v, want a problem of %s about %q", tt.kind, tt.op, tt.setting, err, tt.field, tt.says)
		}
		if encoded(t, p) != was {
			t.Errorf("%s %s changed the page it was given", tt.kind, tt.op)
		}
	}
}

// Each field of each kind takes what it should and says it again.
func TestFieldsKeepWhatIsEntered(t *testing.T) {
	good := map[element.FieldType]string{
		element.Line: "A line", element.Lines: "Two\nlines", element.Prose: "A sentence.", element.Address: "/fares", element.PictureID: "m1", element.VideoID: "v1", element.AudioID: "a1",
		element.IconName: "clock", element.Cells: "a\tb\nc\td", element.Markup: "<p>x</p>", element.LinkName: "here", element.LocalTime: "2028-02-29T18:00",
	}
	for _, k := range doc.Kinds {
		a := element.Of(k)
		value := func(f element.Field) string {
			switch f.Type {
			case element.Choice:
				return f.Choices[len(f.Choices)-1].Value
			case element.Number:
				return fmt.Sprint(int(f.Max))
			}
			return good[f.Type]
		}
		for _, f := range a.Fields {
			e := env()
			p, id := oneOf(k, e)
			r, err := Apply(p, Command{Op: "block.content", Node: id, Setting: f.Name, Value: value(f)}, e)
			if err != nil {
				t.Errorf("%s %s: %v", k, f.Name, err)
				continue
			}
			if _, b := r.Page.Block(id); element.Value(b.Content, f.Name) != value(f) {
				t.Errorf("%s %s is %q, want %q", k, f.Name, element.Value(b.Content, f.Name), value(f))
			}
		}
		for _, f := range a.Entry {
			e := env()
			p, id := oneOf(k, e)
			value := value
			if k == doc.Form && (f.Name == "min" || f.Name == "max") {
				value = func(element.Field) string { return "5" }
			}
			r, err := Apply(p, Command{Op: "entry.add", Node: id}, e)
			if err == nil {
				r, err = Apply(r.Page, Command{Op: "entry.set", Node: id, Setting: f.Name, Value: value(f)}, e)
			}
			if err != nil {
				t.Errorf("%s, an entry's %s: %v", k, f.Name, err)
				continue
			}
			if _, b := r.Page.Block(id); b.Content.Entries[0].Values[f.Name] != value(f) {
				t.Errorf("%s, an entry's %s is %q", k, f.Name, b.Content.Entries[0].Values[f.Name])
			}
		}
	}
}

func TestFacts(t *testing.T) {
	f, err := settings.ReadFacts(
		doc.Facts{Address: " 1 North Steps \r\n Harbour ", Mail: "office@skerry.example"},
		nil,
		"",
	)
	if err != nil || f.Address != "1 North Steps\nHarbour" {
		t.Errorf("%+v, %v", f, err)
	}
	for _, bad := range []doc.Facts{{Mail: "nobody"}, {Mail: "a b@c.d"}, {Phone: strings.Repeat("1", 300)}, {Hours: strings.Repeat("x\n", 40)}} {
		var problem *doc.Problem
		if _, err := settings.ReadFacts(bad, nil, ""); !errors.As(err, &problem) {
			t.Errorf("%+v gives %v", bad, err)
		}
	}
}

func TestNewPage(t *testing.T) {
	for _, r := range ready.Pages {
		e := env()
		p, err := ready.NewPage(r.ID, " Fares ", nil, e.NewID, nil)
		if err != nil || p.Name != "Fares" || len(p.Sections) != len(r.Sections) {
			t.Errorf("%s: %v", r.ID, err)
		}
		ids := map[string]bool{}
		for _, s := range p.Sections {
			s.Walk(func(b *doc.Block) {
				if b.ID == "" || ids[b.ID] {
					t.Errorf("%s has the id %q twice or a block without one", r.ID, b.ID)
				}
				ids[b.ID] = true
			})
		}
	}
	for _, bad := range [][2]string{{"home", ""}, {"nope", "X"}} {
		var problem *doc.Problem
		if _, err := ready.NewPage(bad[0], bad[1], nil, env().NewID, nil); !errors.As(err, &problem) {
			t.Errorf("%v gives %v", bad, err)
		}
	}
}

// TestWordsOfAZone writes in a narrower zone what is said there, and has it follow again.
func TestWordsOfAZone(t *testing.T) {
	env := Env{Site: &doc.Site{Zones: doc.StandardZones()}, NewID: func(p string) string { return p + "new" }}
	h := &doc.Block{
		ID:      "h",
		Kind:    doc.Heading,
		Content: doc.Content{Level: 2, Words: doc.PlainWords("Boats to all islands")},
	}
	p := &doc.Page{
		Sections: []*doc.Section{
			{ID: "s", Name: "S", Arrangement: doc.LineUp, Blocks: []*doc.Block{h, {ID: "t", Kind: doc.Table}}},
		},
	}
	said := func() string {
		_, b := p.Block("h")
		out := ""
		for z := range env.Site.Zones {
			w, _ := b.Content.WordsIn(env.Site.Zones, z)
			out += w.Plain() + "|"
		}
		return out
	}
	for _, step := range []struct {
		c    Command
		want string
	}{
		{Command{Op: "block.write", Node: "h", Zone: "phone", Value: "All islands"}, "All islands|All islands|All islands|"}, // none of its own: all zones
		{Command{Op: "block.words", Node: "h", Zone: "tablet"}, "All islands|All islands|All islands|"},
		{Command{Op: "block.write", Node: "h", Zone: "phone", Value: "Boats"}, "All islands|Boats|Boats|"}, // what holds there is the tablet's
		{Command{Op: "block.words", Node: "h", Zone: "phone"}, "All islands|Boats|Boats|"},
		{Command{Op: "block.write", Node: "h", Zone: "phone", Value: "Sail"}, "All islands|Boats|Sail|"},
		{Command{Op: "block.write", Node: "h", Value: "Islands"}, "Islands|Boats|Sail|"},
		{Command{Op: "block.words", Node: "h", Zone: "tablet", Hide: true}, "Islands|Islands|Sail|"},
		{Command{Op: "zone.follow", Zone: "phone"}, "Islands|Islands|Islands|"},
	} {
		r, err := Apply(p, step.c, env)
		if err != nil {
			t.Fatal(err)
		}
		if p = r.Page; said() != step.want {
			t.Errorf("%s in %q: %s, want %s", step.c.Op, step.c.Zone, said(), step.want)
		}
	}
	for _, c := range []Command{{Node: "h", Zone: "desktop"}, {Node: "t", Zone: "phone"}} {
		c.Op = "block.words"
		if _, err := Apply(p, c, env); err == nil {
			t.Errorf("%v: no problem", c)
		}
	}
}

package demo

import (
	"fmt"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/ready"
	"openplot/icons"
)

// What specimens show that is no picture, by id.
const (
	SpecimenVideo = "clip"
	SpecimenSound = "bell"
)

// variants are what some kinds can be beside what they begin as: commands on the block.
var variants = []struct {
	kind doc.Kind
	name string
	do   []edit.Command
}{
	{
		doc.Picture, "with words below it",
		[]edit.Command{
			content("caption", "The boat at the steps, early in the morning before anybody has come"),
			content("large", "large"),
		},
	},
	{
		doc.Picture,
		"shown large, in a circle",
		[]edit.Command{content("large", "large"), look("shape", "circle"), look("aspect-ratio", "1:1")},
	},
	{
		doc.Picture,
		"filling its rows over words",
		[]edit.Command{content("caption", "In rows"), look("aspect-ratio", "rows")},
	},
	{doc.Picture, "that leads somewhere", []edit.Command{content("link", "/fares"), content("caption", "The fares")}},
	{doc.Menu, "folded everywhere", []edit.Command{look("menu-folds", "always")}},
	{doc.Text, "beside a picture", []edit.Command{content("picture", "four"), long, look("wrap-width", "34%")}},
	{
		doc.Text, "beside a picture on the right, to the middle",
		[]edit.Command{
			content("picture", "one"), long, look("wrap-side", "right"), look("text-align", "center"),
			look("padding-left", "$room"), look("background", "$quiet-ground"),
		},
	},
	{
		doc.Text, "beside a picture everywhere",
		[]edit.Command{
			content("picture", "six"), long,
			{Op: "set", Zone: "phone", Setting: "wrap-side", Value: "left"},
			look("wrap-width", "160px"), look("text-style", "$lead"),
		},
	},
	{
		doc.Text, "with hardly room beside its picture",
		[]edit.Command{
			content("picture", "two"), long,
			{Op: "set", Zone: "phone", Setting: "wrap-side", Value: "right"},
			look("wrap-width", "86%"),
		},
	},
	{doc.Video, "of its own", []edit.Command{content("video", SpecimenVideo), content("caption", "The boat leaves")}},
	{
		doc.PageList,
		"pictures above",
		[]edit.Command{content("pictures", "above"), look("per-row", "2"), look("aspect-ratio", "4:3")},
	},
	{
		doc.PageList,
		"pictures beside, and dates",
		[]edit.Command{
			content("pictures", "beside"),
			content("with", "dates"),
			content("order", "newest"),
			look("per-row", "2"),
		},
	},
	{doc.PageList, "pictures under", []edit.Command{content("pictures", "under"), look("border-radius", "$round")}},
	{doc.PageList, "text that hover shows", []edit.Command{content("pictures", "hover"), content("count", "2")}},
	{
		doc.Countdown,
		"on a dark ground",
		[]edit.Command{look("background", "$deep"), look("padding-left", "24px"), look("padding-top", "24px")},
	},
	{
		doc.Audio,
		"with a transcript",
		[]edit.Command{content("audio", SpecimenSound), content("transcript", "Two strokes.\nThen one.")},
	},
	{
		doc.Audio,
		"of its own",
		[]edit.Command{
			content("audio", SpecimenSound),
			content("title", "The harbour bell"),
			content("caption", "Rung at ten to every hour"),
		},
	},
	{
		doc.Video,
		"silent",
		[]edit.Command{content("video", SpecimenVideo), content("plays", "loop"), look("aspect-ratio", "4:3")},
	},
	{doc.Video, "from elsewhere", []edit.Command{content("player", "https://player.example/boat")}},
}

// long is words that go round a picture and on below it.
var long = edit.Command{
	Op:    "block.write",
	Value: "<p>The boat leaves from the north steps, in any weather a boat should be out in, and in some that it shouldn’t. Bring a coat; bring a second one for whoever forgot.</p><p>Short.</p><p>On Skarva the path begins behind the customs house and goes up at once. From the top one sees <a href=\"/islands\">all three islands</a>, the light, and on clear days the mainland, which nobody has missed.</p><ul><li>A flask of something hot, and a cup for each of you</li><li>The timetable, since the last boat doesn’t wait</li></ul><p>Those who miss it sleep at the old customs house, where there are blankets, a stove and a book in which everybody before them has written that they, too, had looked at the wrong column. Nobody has minded much.</p>",
}

// surfaces are what a section can lie on beside a fill: commands on the section.
var surfaces = []struct {
	name string
	do   []edit.Command
}{
	{
		"picture that goes more slowly",
		[]edit.Command{
			{Op: "section.picture", Value: "one"}, look("picture-scroll", "parallax"), look("filter", "#102030"),
			look("edge-bottom", "wave"), look("padding-top", "$vast"), look("color", "#ffffff"),
		},
	},
	{
		"picture that goes more slowly on phones only",
		[]edit.Command{
			{Op: "section.picture", Value: "one"},
			{Op: "set", Zone: "phone", Setting: "picture-scroll", Value: "parallax"},
			look("border-radius", "$round"),
		},
	},
	{
		"video",
		[]edit.Command{
			{Op: "section.video", Value: SpecimenVideo}, look("filter", "#000000"), look("filter-opacity", "60%"),
			look("color", "#ffffff"), look("min-height", "70vh"), look("content-at", "center"),
		},
	},
}

// folds and views are pages of which not all is seen at once.
var folds = []struct {
	name string
	do   []edit.Command
}{
	{
		"closed",
		[]edit.Command{
			{Op: "section.fold", Setting: "as", Value: "closed"},
			{Op: "block.add", Kind: doc.Text, Zone: "desktop"},
		},
	},
	{
		"open",
		[]edit.Command{
			{Op: "section.fold", Setting: "as", Value: "open"},
			{Op: "section.fold", Setting: "title", Value: "What to bring"},
			{Op: "block.add", Kind: doc.Text, Zone: "desktop"},
			look("background", "$deep"),
		},
	},
	{"views", []edit.Command{
		{Op: "section.view", Value: "In summer"}, {Op: "block.add", Kind: doc.Heading, Zone: "desktop"},
		{
			Op:     "section.add",
			Preset: "empty",
		}, {Op: "section.view", Value: "In winter"}, {Op: "block.add", Kind: doc.Text, Zone: "desktop"},
		{
			Op:     "section.add",
			Preset: "empty",
		}, {Op: "block.add", Kind: doc.Menu, Zone: "desktop"}, content("from", "views"),
		{
			Op:     "section.add",
			Preset: "empty",
		}, {Op: "section.view", Value: "In summer"}, {Op: "block.add", Kind: doc.Figures, Zone: "desktop"},
	}},
}

func content(name, value string) edit.Command {
	return edit.Command{Op: "block.content", Setting: name, Value: value}
}

func look(name, value string) edit.Command {
	return edit.Command{Op: "set", Zone: "desktop", Setting: name, Value: value}
}

// SpecimenPages are what specimens list as the pages of their site.
var SpecimenPages = []element.PageLink{
	{Name: "Home"},
	{
		Slug:        "skarva",
		Name:        "Skarva",
		Description: "Steep dark cliffs, and the customs house where one sleeps.",
		Categories:  []string{"Islands"},
		Picture:     "one",
		Date:        "2026-11-02",
		DateWords:   "2 November 2026",
	},
	{
		Slug:       "langey",
		Name:       "Langey, and how to come round it in a day",
		Categories: []string{"Islands"},
		Picture:    "two",
		Date:       "2026-11-29",
		DateWords:  "29 November 2026",
	},
	{Slug: "langey/walks", Name: "Walks"},
	{Slug: "fares", Name: "Fares", Description: "What it costs.", Picture: "six"},
}

// Specimens gives a page for each kind of block, as the Shelf adds it and in its
// variants, for what a section can lie on, and for each ready-made section, for the
// checks that look at all of them. Pictures that a block begins without are filled in
// from the ids given, one after another.
func Specimens(s *doc.Site, pictures []string) ([]*doc.Page, error) {
	n := 0
	env := edit.Env{Site: s, Medium: func(id string) doc.MediumSort {
		switch id {
		case SpecimenVideo:
			return doc.VideoMedium
		case SpecimenSound:
			return doc.AudioMedium
		}
		return doc.PictureMedium
	}, NewID: func(prefix string) string {
		n++
		return fmt.Sprint(prefix, n)
	}, HasIcon: func(name string) bool {
		_, ok := icons.Drawing(name)
		return ok
	}}
	var pages []*doc.Page
	add := func(name string, commands ...edit.Command) error {
		p := &doc.Page{ID: "p", Name: name, Title: name}
		for _, c := range commands {
			switch {
			case c.Op == "block.add" || strings.HasPrefix(c.Op, "section.") && c.Op != "section.add":
				c.Node = p.Sections[0].ID
			case c.Node == "" && c.Op != "section.add": // of the block, or of the section without one
				if c.Node = p.Sections[0].ID; len(p.Sections[0].Blocks) > 0 {
					c.Node = p.Sections[0].Blocks[0].ID
				}
			}
			r, err := edit.Apply(p, c, env)
			if err != nil {
				return fmt.Errorf("making the page of %s: %w", name, err)
			}
			p = r.Page
		}
		for i, sec := range p.Sections {
			p.Sections[i] = Illustrated(sec, pictures)
		}
		pages = append(pages, p)
		return nil
	}
	for _, k := range doc.Kinds {
		if err := add(
			"kind "+string(k),
			edit.Command{Op: "section.add", Preset: "empty"},
			edit.Command{Op: "block.add", Kind: k, Zone: "desktop"},
		); err != nil {
			return nil, err
		}
	}
	for _, v := range variants {
		commands := append(
			[]edit.Command{{Op: "section.add", Preset: "empty"}, {Op: "block.add", Kind: v.kind, Zone: "desktop"}},
			v.do...)
		if err := add("kind "+string(v.kind)+", "+v.name, commands...); err != nil {
			return nil, err
		}
	}
	for _, v := range surfaces {
		commands := append([]edit.Command{{Op: "section.add", Preset: "empty"}}, v.do...)
		commands = append(commands, edit.Command{Op: "block.add", Kind: doc.Heading, Zone: "desktop"})
		if err := add("surface "+v.name, commands...); err != nil {
			return nil, err
		}
	}
	for _, v := range folds {
		if err := add("folds "+v.name, append([]edit.Command{{Op: "section.add", Preset: "empty"}}, v.do...)...); err != nil {
			return nil, err
		}
	}
	for _, p := range ready.Presets {
		commands := []edit.Command{{Op: "section.add", Preset: p.ID}}
		if p.ID == "bar-over" { // it is seen on a picture only
			commands = append([]edit.Command{{Op: "section.add", Preset: "welcome-picture"}}, commands...)
		}
		if err := add("section "+p.ID, commands...); err != nil {
			return nil, err
		}
	}
	return pages, nil
}

// Illustrated gives a section in which what begins without pictures has some, in turn.
func Illustrated(sec *doc.Section, pictures []string) *doc.Section {
	next := 0
	pick := func() string {
		next++
		return pictures[(next-1)%len(pictures)]
	}
	content := func(kind doc.Kind, c doc.Content) doc.Content {
		if f := element.Of(kind).Field("picture"); f != nil && c.Picture == "" && kind != doc.Logo &&
			kind != doc.Text &&
			!kind.Is(doc.Holding) {
			c.Picture = pick()
		}
		if f := element.Of(kind).EntryField("picture"); f != nil {
			entries := make([]doc.Entry, len(c.Entries))
			for i, e := range c.Entries {
				if entries[i] = e; e.Values["picture"] == "" {
					entries[i].Values = element.WithValue(e.Values, "picture", pick())
				}
			}
			c.Entries = entries
		}
		return c
	}
	var fill func(b *doc.Block) *doc.Block
	fill = func(b *doc.Block) *doc.Block {
		b = b.Clone()
		b.Content = content(b.Kind, b.Content)
		for i, in := range b.Blocks {
			b.Blocks[i] = fill(in)
		}
		items := make([]doc.Item, len(b.Items))
		for i, it := range b.Items {
			items[i] = doc.Item{ID: it.ID, Contents: map[string]doc.Content{}}
			b.Walk(func(in *doc.Block) {
				if c, ok := it.Contents[in.ID]; ok {
					items[i].Contents[in.ID] = content(in.Kind, c)
				} else if in.Kind == doc.Picture {
					items[i].Contents[in.ID] = doc.Content{Picture: pick()}
				}
			})
		}
		if len(items) > 0 {
			b.Items = items
		}
		return b
	}
	sec = sec.Clone()
	if sec.Picture == "" && (sec.Style["filter"] != nil || sec.Style["filter-gradient"] != nil) {
		sec.Picture = pick()
	}
	for i, b := range sec.Blocks {
		sec.Blocks[i] = fill(b)
	}
	return sec
}

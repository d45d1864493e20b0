package demo

import (
	"openplot/core/compose"
	"openplot/core/doc"
	"openplot/store"
)

// spot is a placement: first column, columns, first row, rows, layer.
type spot [5]int

func (s spot) place() doc.Place {
	return doc.Place{Column: s[0], Span: s[1], Row: s[2], Rows: s[3], Layer: s[4]}
}

// on gives a placement on desktop; the others are left to the rule.
func on(desktop spot) doc.Zoned[doc.Place] { return doc.Zoned[doc.Place]{"desktop": desktop.place()} }

func block(kind doc.Kind, at doc.Zoned[doc.Place], style doc.Style, c doc.Content) *doc.Block {
	return &doc.Block{ID: store.NewID("b"), Kind: kind, Place: at, Style: style, Content: c}
}

func heading(level int, words string, at doc.Zoned[doc.Place], style doc.Style) *doc.Block {
	return block(doc.Heading, at, style, doc.Content{Level: level, Words: doc.PlainWords(words)})
}

func text(at doc.Zoned[doc.Place], style doc.Style, lines ...string) *doc.Block {
	return block(doc.Text, at, style, doc.Content{Words: doc.PlainWords(lines...)})
}

func photo(at doc.Zoned[doc.Place], style doc.Style, id, alt string) *doc.Block {
	return block(doc.Picture, at, style, doc.Content{Picture: id, Alt: alt})
}

func button(words, link string, at doc.Zoned[doc.Place], style doc.Style) *doc.Block {
	return block(doc.Button, at, style, doc.Content{Words: doc.PlainWords(words), Link: link})
}

func section(name string, style doc.Style, blocks ...*doc.Block) *doc.Section {
	return &doc.Section{ID: store.NewID("s"), Name: name, Style: style, Blocks: blocks}
}

func room(top, bottom string, more ...string) doc.Style {
	return compose.Look(append([]string{"padding-top", top, "padding-bottom", bottom}, more...)...)
}

func named(b *doc.Block, name string) *doc.Block {
	b.Name = name
	return b
}

func topBar() *doc.Section {
	menu := &doc.Block{
		Kind:    doc.Menu,
		Content: doc.Content{Values: map[string]string{"from": "own"}},
		Style:   compose.Look("column-gap", "$room", "menu-folds", "narrower"),
	}
	for _, l := range [][2]string{
		{"Sailings", "/sailings"},
		{"Fares", "/fares"}, {"Islands", "/islands"}, {"Crew", "/crew"}, {"Notices", "/notices"},
	} {
		menu.Content.Entries = append(
			menu.Content.Entries,
			doc.Entry{Values: map[string]string{"label": l[0], "link": l[1]}},
		)
	}
	s := titled("Top bar", compose.Section(doc.LineUp, compose.Look(
		"padding-top", "12px", "padding-bottom", "12px", "background", "$deep", "color", "$on-deep", "direction", "row",
		"wrap", "nowrap", "spread", "space-between", "align-items", "center", "column-gap", "$room", "stays", "sticky",
	),
		&doc.Block{Kind: doc.Logo, Name: "Name", Content: doc.Content{Link: "/", Words: doc.PlainWords("Skerry Line")}},
		compose.Hold(doc.Container, doc.LineUp, compose.Look(
			"direction", "row", "wrap", "nowrap", "align-items", "center", "column-gap", "$room", "column-gap@phone",
			"12px",
		), menu,
			compose.Button(
				"Ask for a berth", "/ask-for-a-berth", "button-look", "outlined", "button-size", "$small", "color",
				"$on-deep", "border-color", "#7fa3a8",
			))))
	s.Blocks[1].Blocks[1].Hidden = doc.Zoned[bool]{"phone": true} // there is no room for it
	s.Role = doc.RoleHeader
	return s
}

func footer() *doc.Section {
	s := section(
		"Contact",
		room("$broad", "$wide", "row-gap@phone", "$snug", "background", "$deep", "color", "$on-deep"),
		heading(2, "Ask for a berth", on(spot{1, 6, 1, 2}), compose.Look("text-style", "$h2")),
		text(
			on(spot{1, 5, 3, 3}),
			compose.Look("text-style", "$body"),
			"Bicycles travel free. Cars, carts and sheep need a berth: tell us the day and the sailing, and we answer before the evening boat.",
		),
		button(
			"Write to the office", "mailto:office@skerry.example", on(spot{1, 4, 7, 2}),
			compose.Look("background", "$second-accent", "color", "#ffffff"),
		),
		text(
			on(spot{7, 3, 1, 7}), compose.Look("font-size", "16px"), "Harbour office",
			"1 North Steps\nSkerry Harbour", "Open 07:30 to 18:00",
		),
		text(
			on(spot{10, 3, 1, 7}), compose.Look("font-size", "16px"), "By telephone",
			"The office: 555 0142\nSailings, day and night: 555 0143",
		),
		text(
			on(spot{1, 12, 12, 1}), compose.Look("text-style", "$small", "opacity", "80%"),
			"Skerry Line is made up, and so are its islands. No boat leaves from here.",
		),
	)
	s.Role, s.Anchor = doc.RoleFooter, "contact"
	return s
}

// Home is the demo's first page; ids are its pictures' by name.
func Home(ids map[string]string) *doc.Page {
	welcome := section(
		"Welcome",
		room(
			"$vast",
			"$vast",
			"padding-top@phone",
			"$broad",
			"padding-bottom@phone",
			"$broad",
			"background",
			"$deep",
			"color",
			"$on-deep",
			"filter-gradient",
			"linear 90deg $deep 0%, $deep 45%, $accent 100%",
			"filter-opacity",
			"38%",
			"filter-opacity@phone",
			"80%",
			"min-height",
			"560px",
			"min-height@phone",
			"auto",
			"row-gap@phone",
			"$snug",
		),
		heading(
			1,
			"Small boats, three islands, all year.",
			on(spot{1, 8, 1, 4}),
			compose.Look("text-style", "$display"),
		),
		text(
			on(spot{1, 6, 6, 2}),
			compose.Look("text-style", "$lead"),
			"Foot passengers, bicycles and the occasional sheep. Nine sailings a day from the north steps, in any weather a boat should be out in.",
		),
		button(
			"See today’s sailings",
			"#departures",
			on(spot{1, 4, 9, 2}),
			compose.Look(
				"background",
				"$second-accent",
				"color",
				"#ffffff",
				"padding-top",
				"14px",
				"padding-bottom",
				"14px",
			),
		),
	)
	welcome.Picture = ids["dawn-over-the-sound.png"]

	card := func(s ...string) doc.Style {
		return compose.Look(
			append(
				[]string{
					"background", "$ground", "border-radius", "$card", "box-shadow", "$low", "padding-top", "$room",
					"padding-right", "$room", "padding-bottom", "$room", "padding-left", "$room",
				},
				s...,
			)...,
		)
	}
	departures := section(
		"Departures",
		room(
			"$vast",
			"$vast",
			"padding-top@phone",
			"$broad",
			"padding-bottom@phone",
			"$broad",
			"background",
			"$quiet-ground",
		),
		heading(2, "Next departures", on(spot{1, 4, 1, 2}), nil),
		text(
			on(spot{1, 4, 3, 4}), compose.Look("color", "$quiet-words"),
			"Boats leave from the north steps. Be there ten minutes before, fifteen with a bicycle.",
			"In fog the morning boat waits for the light; the sign at the steps says how long.",
		),
		named(
			heading(3, "Today from Harbour Steps", on(spot{5, 6, 1, 8}), card("font-size@phone", "17px")),
			"Today’s card",
		),
		named(
			block(
				doc.Table, on(spot{5, 6, 3, 5, 1}),
				compose.Look("padding-left", "$room", "padding-right", "$room", "cell-padding", "6px"),
				doc.Content{Values: map[string]string{
					"head":  "both",
					"cells": "To\tDeparts\nInner Holm\t08:10  11:40  15:20\nSkarva\t09:00  13:30\nLangey\t10:15  17:05\nRound trip\t18:45",
				}},
			),
			"Times",
		),
		named(
			photo(
				on(spot{9, 4, 8, 7, 2}),
				compose.Look("aspect-ratio", "rows", "border-radius", "$card", "box-shadow", "$card"),
				ids["the-langey-boat.png"], "",
			),
			"Photo: the Langey boat",
		),
	)
	departures.Anchor = "departures"

	islands := section(
		"Three islands",
		room("$vast", "$vast", "padding-top@phone", "$broad", "padding-bottom@phone", "$broad"),
		heading(2, "Three islands, each a day out", on(spot{1, 8, 1, 2}), nil),
	)
	islands.Anchor = "islands"
	for i, is := range []struct{ name, file, words, time string }{
		{
			"Inner Holm", "inner-holm.png",
			"Six painted houses, one bakery and a beach that warms up by noon. Good with children and short legs.",
			"18 minutes from the steps",
		},
		{
			"Skarva", "skarva.png",
			"Cliffs, sea birds and the best walk in the sound. Bring boots and something to hold your hat on with.",
			"35 minutes from the steps",
		},
		{
			"Langey", "langey.png",
			"Long, flat and quiet: cycle to the light at the far end, and catch the last boat home after sunset.",
			"50 minutes from the steps",
		},
	} {
		islands.Blocks = append(islands.Blocks,
			photo(
				on(spot{1 + 4*i, 4, 4, 8}),
				compose.Look("aspect-ratio", "4:3", "border-radius", "$card"),
				ids[is.file], "",
			),
			heading(
				3, is.name, on(spot{1 + 4*i, 4, 12, 2}),
				compose.Look("align-self", "end", "align-self@tablet", "start"),
			),
			text(on(spot{1 + 4*i, 4, 14, 4}), compose.Look("color", "$quiet-words"), is.words),
			text(
				on(spot{1 + 4*i, 4, 18, 1}),
				compose.Look("text-style", "$label", "color", "$accent", "padding-bottom@phone", "$room"),
				is.time,
			),
		)
	}

	winter := section("Winter weekend", room("$none", "$vast", "padding-bottom@phone", "$broad"),
		named(
			photo(
				on(spot{1, 9, 1, 13}),
				compose.Look("aspect-ratio", "rows", "border-radius", "$card"),
				ids["winter-light.png"], "",
			),
			"Photo: winter light",
		),
		named(text(
			on(
				spot{7, 6, 5, 6, 1},
			),
			compose.Look(
				"background",
				"$ground",
				"text-style",
				"$body",
				"padding-top",
				"$wide",
				"padding-right",
				"$wide",
				"padding-bottom",
				"$wide",
				"padding-left",
				"$wide",
				"padding-top@phone",
				"$room",
				"padding-right@phone",
				"$room",
				"padding-bottom@phone",
				"$room",
				"padding-left@phone",
				"$room",
				"border-radius",
				"$card",
				"box-shadow",
				"$card",
			),
			"A winter weekend on Skarva",
			"Two nights at the old customs house, a stove, a stack of books, and the boat there and back. From November to March.",
		), "Winter card"),
	)
	winter.Blocks[1].Content.Words = append(
		winter.Blocks[1].Content.Words,
		doc.Paragraph{{Text: "What it costs", Link: "/winter-weekend", Bold: true}},
	)
	winter.Blocks[1].Content.Words[0] = doc.Paragraph{{Text: "A winter weekend on Skarva", Bold: true}}

	return &doc.Page{
		ID: store.NewID(
			"p",
		), Name: "Home", Title: "Skerry Line: small boats to three islands", Description: "Ferries from Skerry Harbour to Inner Holm, Skarva and Langey, every day of the year.",
		Sections: []*doc.Section{topBar(), welcome, departures, islands, winter, footer()},
	}
}

// WinterWeekend is the demo's landing page.
func WinterWeekend(ids map[string]string) *doc.Page {
	opening := section(
		"Opening",
		room(
			"$vast", "$vast", "background", "$deep", "color", "$on-deep", "filter", "$deep", "filter-opacity", "60%",
			"min-height", "520px",
		),
		heading(
			1,
			"Two nights on Skarva, when nobody else is there",
			on(spot{1, 8, 1, 5}),
			compose.Look("text-style", "$display"),
		),
		text(
			on(spot{1, 6, 7, 2}),
			compose.Look("text-style", "$lead"),
			"From November to March: the boat there and back, two nights at the old customs house, and soup when you arrive.",
		),
	)
	opening.Picture = ids["dawn-over-the-sound.png"]
	prices := section("Prices", room("$vast", "$vast"),
		heading(2, "What it costs", on(spot{1, 6, 1, 2}), nil),
		text(
			on(spot{1, 4, 4, 6}),
			compose.Look(
				"background", "$quiet-ground", "border-radius", "$card", "padding-top", "$room", "padding-right",
				"$room", "padding-bottom", "$room", "padding-left", "$room",
			),
			"One person", "148", "A room to yourself, both boats, breakfast twice.",
		),
		text(
			on(spot{5, 4, 4, 6}),
			compose.Look(
				"background", "$quiet-ground", "border-radius", "$card", "padding-top", "$room", "padding-right",
				"$room", "padding-bottom", "$room", "padding-left", "$room",
			),
			"Two people", "236", "One room with the stove, both boats, breakfast twice.",
		),
		text(
			on(spot{9, 4, 4, 6}),
			compose.Look(
				"background", "$quiet-ground", "border-radius", "$card", "padding-top", "$room", "padding-right",
				"$room", "padding-bottom", "$room", "padding-left", "$room",
			),
			"A family", "310", "Two rooms, both boats, breakfast and a lantern each.",
		),
	)
	for _, b := range prices.Blocks[1:] {
		b.Content.Words[0][0].Bold = true
	}
	return &doc.Page{
		ID: store.NewID(
			"p",
		), Name: "Winter weekend", Title: "A winter weekend on Skarva · Skerry Line", Description: "Two winter nights on Skarva, with the boat there and back.",
		Sections: []*doc.Section{topBar(), opening, prices, footer()},
	}
}

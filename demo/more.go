package demo

import (
	"openplot/core/compose"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/value"
	"openplot/store"
)

// page makes a page of sections, with the bar above and the footer below them.
func page(name, title, description string, sections ...*doc.Section) *doc.Page {
	p := &doc.Page{ID: store.NewID("p"), Name: name, Title: title + " · Skerry Line", Description: description}
	p.Sections = append([]*doc.Section{topBar()}, sections...)
	p.Sections = append(p.Sections, lastLines())
	return p
}

// titled names a section and gives it and its blocks ids.
func titled(name string, s *doc.Section) *doc.Section {
	s.ID, s.Name = store.NewID("s"), name
	for i, b := range s.Blocks {
		s.Blocks[i] = b.Anew(store.NewID)
	}
	return s
}

// opening is how the inner pages begin: where they stand, a title and a lead.
func opening(title, lead string) *doc.Section {
	return titled("Opening", compose.Section(doc.LineUp, compose.Room(
		"background", "$deep", "color", "$on-deep", "padding-top", "$wide", "padding-bottom", "120px",
		"padding-bottom@phone", "$vast", "row-gap", "$snug", "edge-bottom", "swell", "edge-bottom-colour", "$ground",
	),
		compose.With(
			&doc.Block{Kind: doc.Breadcrumb},
			"opacity", "85%",
		), compose.Heading(1, title), compose.With(compose.Words("lead", lead), "width", "680px")))
}

// lastLines is the footer of the inner pages.
func lastLines() *doc.Section {
	s := titled("Contact", compose.Section(doc.Columns, compose.Look(
		"background", "$deep", "color", "$on-deep", "padding-top", "$broad", "padding-bottom", "$wide", "shares",
		"5 3 4 12", "shares@tablet", "6 6 12", "shares@phone", "12", "column-gap", "$wide", "row-gap", "$wide",
	),
		compose.Stack(
			"$snug",
			&doc.Block{Kind: doc.Logo, Content: doc.Content{Link: "/", Words: doc.PlainWords("Skerry Line")}},
			compose.Words(
				"",
				"Small boats from Skerry Harbour to Inner Holm, Skarva and Langey, every day of the year.",
			),
		),
		&doc.Block{
			Kind:    doc.PageList,
			Content: doc.Content{Values: map[string]string{"with": "names"}},
			Style:   compose.Look("per-row", "1", "per-row@tablet", "1", "row-gap", "$small"),
		},
		&doc.Block{Kind: doc.SiteFacts}, compose.With(
			compose.Words("small", "Skerry Line is made up, and so are its islands. No boat leaves from here."),
			"opacity", "80%",
		)))
	s.Role = doc.RoleFooter
	return s
}

// Sailings is the timetable.
func Sailings() *doc.Page {
	notice := titled("Notice", compose.Section(doc.LineUp, compose.Look(
		"padding-top", "12px", "padding-bottom", "12px", "background", "$quiet-ground",
	),
		&doc.Block{Kind: doc.Notice, Arrangement: doc.LineUp, Style: compose.Look(
			"direction", "row", "wrap", "nowrap", "column-gap", "$snug",
		), Blocks: []*doc.Block{
			compose.Icon("cloud-fog2", "icon-size", "22px"),
			{
				Kind: doc.Text, Style: compose.Look("grow", "yes", "width", "1px"),
				Content: doc.Content{
					Words: doc.Words{
						{
							{Text: "In fog ", Bold: true},
							{Text: "the 08:10 waits for the light. The sign at the steps says how long, and so does "},
							{Text: "555 0143", Link: "tel:5550143"}, {Text: "."},
						},
					},
				},
			},
		}}))
	fields := []string{"time", "title", "who", "words"}
	day := compose.Stack("$snug", compose.Heading(2, "From Skerry Harbour, every day"),
		compose.Listing(doc.Timetable, fields, [][]string{
			{"08:10", "Inner Holm", "18 minutes, the Bramble", "Calls at the school pier on weekdays."},
			{"09:00", "Skarva", "35 minutes, the Tern", "Room for twelve bicycles."},
			{"10:15", "Langey", "50 minutes, the Tern", "With an hour ashore before the boat goes back."},
			{
				"11:40",
				"Inner Holm",
				"18 minutes, the Bramble",
				"The bakery boat: it brings the bread for the harbour on the way back.",
			},
			{
				"13:30",
				"Skarva",
				"35 minutes, the Tern",
				"The last from which the cliff walk can be done in daylight all year.",
			},
			{"15:20", "Inner Holm", "18 minutes, the Bramble", ""},
			{"17:05", "Langey", "50 minutes, the Tern", "The evening boat; home again at 19:10."},
			{"18:45", "Round trip", "all three islands, the Bramble", "No landing. From May to September, with soup."},
		}))
	aside := compose.Stack("$room",
		compose.With(compose.Stack("$small", compose.Heading(3, "Before you come"), &doc.Block{
			Kind:  doc.List,
			Style: compose.Look("list-marks", "check"),
			Content: doc.Content{
				Words: doc.PlainWords(
					"Be at the north steps ten minutes before", "Fifteen minutes with a bicycle",
					"Cars, carts and sheep need a berth",
				),
			},
		},
			compose.Button(
				"Ask for a berth", "/ask-for-a-berth",
			)), "background", "$quiet-ground", "border-radius", "$card", "padding-top", "$room", "padding-right", "$room", "padding-bottom", "$room", "padding-left", "$room"),
		compose.With(
			compose.Stack(
				"$small",
				compose.Heading(3, "By telephone"),
				compose.Words("", "Sailings, day and night: 555 0143"),
			),
			"padding-left",
			"$room",
		))
	times := titled(
		"Times",
		compose.Section(
			doc.Columns,
			compose.Room("shares", "8 4", "column-gap", "$broad", "row-gap", "$wide", "padding-top", "$broad"),
			day, aside,
		),
	)
	seasons := titled("Seasons", compose.Section(doc.LineUp, compose.Room(
		"background", "$quiet-ground", "row-gap", "$room",
	), compose.Heading(2, "What the season changes"),
		compose.Listing(doc.Tabs, []string{"title", "words"}, [][]string{
			{
				"Summer",
				"From May to September every boat sails as above, and on Saturdays there is a second round trip at 20:15.",
			},
			{
				"Winter",
				"From November to March the 15:20 and the 18:45 don’t sail, and the 17:05 to Langey leaves at 16:30, while there is light.",
			},
			{
				"Holidays",
				"On the first of January nothing sails before noon. On the day of the regatta everything does, twice.",
			},
		})))
	seasons.Anchor = "seasons"
	return page(
		"Sailings", "Sailings",
		"All sailings from Skerry Harbour to Inner Holm, Skarva and Langey, in summer and in winter.", notice,
		opening("Nine sailings a day", "To three islands and round them, in any weather a boat should be out in."),
		times, seasons,
	)
}

// Fares is the prices.
func Fares() *doc.Page {
	cards := titled(
		"Tickets",
		compose.Section(
			doc.LineUp,
			compose.Room("row-gap", "$wide", "padding-top", "$broad"),
			compose.With(
				compose.Stack(
					"$snug",
					compose.Heading(2, "The three that most people want"),
					compose.Words("", "All of them there and back, on any boat of the day. Bicycles travel free."),
				),
				"width", "640px",
			),
			compose.Repeated(
				compose.Look("per-row@tablet", "3", "column-gap@tablet", "$snug"),
				element.Start(doc.PriceCard),
				[]string{
					"One island", "11.20", "there and back, for one",
					"Inner Holm, Skarva or Langey\nAny boat of the day\nA bicycle goes free", "See sailings",
				},
				[]string{
					"Three islands", "24.00", "for one, for two days",
					"All three islands\nAs often as you like\nSoup on the round trip", "See sailings",
				},
				[]string{
					"The family", "28.50", "two grown-ups, any children",
					"One island of your choice\nAny boat of the day\nBicycles and prams go free", "See sailings",
				},
			),
		),
	)
	table := titled("All fares", compose.Section(
		doc.LineUp,
		compose.Room(
			"background", "$quiet-ground", "row-gap", "$room",
		),
		compose.Heading(2, "All fares"),
		&doc.Block{
			Kind: doc.Table,
			Content: doc.Content{
				Values: map[string]string{
					"head": "both", "narrow": "cards",
					"cells": "\tInner Holm\tSkarva\tLangey\nGrown-ups, one way\t4.20\t6.40\t7.80\nGrown-ups, there and back\t7.60\t11.20\t13.60\nChildren to 14\t2.10\t3.20\t3.90\nTen trips\t34.00\t52.00\t64.00\nBicycles\tfree\tfree\tfree\nCars\t–\t18.00\t22.00\nSheep, each\t1.00\t1.00\t1.00",
				},
			},
		},
		compose.With(
			compose.Words("small", "Islanders pay half. Dogs pay nothing and may choose their seat."),
			"color",
			"$quiet-words",
		),
	))
	ask := titled(
		"Questions",
		compose.Section(
			doc.Columns,
			compose.Room("shares", "4 8", "column-gap", "$broad", "row-gap", "$room"),
			compose.Stack(
				"$snug",
				compose.Heading(2, "About tickets"),
				compose.Words("", "Something else? The office knows."),
				compose.Button("Ask the office", "/ask-for-a-berth", "button-look", "outlined"),
			),
			compose.Listing(doc.Accordion, []string{"title", "words"}, [][]string{
				{
					"Where do I buy a ticket?",
					"On the boat, from whoever takes the ropes. Cards are fine; so are coins.",
				},
				{
					"What if a boat doesn’t sail?",
					"The ticket is good for a month. If you can’t come again, the office gives the money back.",
				},
				{
					"Do I have to book?",
					"On foot or with a bicycle, no. With anything on four wheels or four legs, yes.",
				},
				{
					"Is there a ticket for the whole summer?",
					"There is: 96.00, with your name on it. Ask at the office.",
				},
			}),
		),
	)
	for _, b := range cards.Blocks {
		b.Walk(func(b *doc.Block) {
			if b.Kind == doc.Button {
				b.Content.Link = "/sailings"
			}
			for i, it := range b.Items {
				for id, c := range it.Contents {
					if c.Words.Plain() == "See sailings" {
						c.Link = "/sailings"
						it.Contents[id] = c
					}
				}
				b.Items[i] = it
			}
		})
	}
	return page(
		"Fares", "Fares",
		"What a ticket costs to Inner Holm, Skarva and Langey, for people, bicycles, cars and sheep.",
		opening("Fares", "Paid on board, to whoever takes the ropes."),
		cards, table, ask,
	)
}

// Islands is what there is to see.
func Islands(ids map[string]string) *doc.Page {
	island := func(name, file, kicker, words string, pictureFirst bool) *doc.Section {
		picture := compose.Picture("3:2")
		picture.Content.Picture = ids[file]
		text := compose.Stack("$snug", compose.Kicker(kicker), compose.Heading(2, name), compose.Words("", words))
		style := compose.Room(
			"shares", "6 6", "column-gap", "$broad", "row-gap", "$room", "align-items", "center", "padding-top",
			"$broad", "padding-bottom", "$broad",
		)
		s := compose.Section(doc.Columns, style, picture, text)
		if !pictureFirst {
			s = compose.Section(doc.Columns, style, text, picture)
			s.Style["below"] = doc.Zoned[string]{"phone": value.Last}
		}
		s = titled(name, s)
		return s
	}
	gallery := compose.With(
		element.Start(doc.Gallery), "gallery-as", "rows", "gallery-height", "280px", "gallery-height@phone", "150px",
		"border-radius", "$soft",
	)
	gallery.Content.Entries = nil
	for _, p := range [][2]string{
		{"gulls.png", "Evening, from the stern"},
		{"the-bakery.png", "The bakery, ten to six"},
		{"the-wheelhouse.png", "Out past the red buoy"},
		{"winter-light.png", "January"},
		{"the-langey-boat.png", "The 17:05"},
		{"skarva.png", "Under the cliffs"},
	} {
		gallery.Content.Entries = append(
			gallery.Content.Entries,
			doc.Entry{Values: map[string]string{"picture": ids[p[0]], "caption": p[1]}},
		)
	}
	album := titled(
		"Album",
		compose.Section(
			doc.LineUp,
			compose.Room("background", "$quiet-ground", "row-gap", "$wide"),
			compose.Heading(2, "From the ship’s album"), gallery,
		),
	)
	film := &doc.Block{Kind: doc.Video, Style: compose.Look(
		"border-radius", "$card",
	), Content: doc.Content{Picture: ids["the-langey-boat.png"], Alt: "The ferry crosses the sound, in four seconds",
		Values: map[string]string{"video": ids[clipName], "caption": "In truth it takes eighteen minutes."}}}
	crossing := titled("Crossing", compose.Section(doc.Columns, compose.Room(
		"shares", "5 7", "column-gap", "$broad", "row-gap", "$room", "align-items", "center",
	),
		compose.Stack(
			"$snug",
			compose.Heading(2, "The way there is half of it"),
			compose.Words(
				"",
				"Stand on the right going out: seals on the skerries at low water, and the red buoy that sings in a swell. Inside there is soup.",
			),
		), film))
	chart := compose.With(
		element.Start(doc.Map),
		"border-radius",
		"$card",
		"aspect-ratio",
		"16:9",
		"aspect-ratio@phone",
		"1:1",
	)
	chart.Content.Values = map[string]string{
		"latitude": "58.07", "longitude": "-11.53", "zoom": "10", "mark": "hidden",
		"label": "Skerry Harbour, the three islands, and the boats’ ways between them",
	}
	where := titled(
		"Chart",
		compose.Section(doc.LineUp, compose.Room("row-gap", "$room"), compose.Heading(2, "Where they lie"), chart),
	)
	return page(
		"Islands",
		"Inner Holm, Skarva and Langey",
		"Three islands in the sound: painted houses, cliffs with sea birds, and a long flat one with a light at its end.",
		opening(
			"Three islands, each a day out",
			"You can see all of them from the north steps. They have little in common but the weather.",
		),
		island(
			"Inner Holm",
			"inner-holm.png",
			"18 minutes from the steps",
			"Six painted houses, one bakery and a beach that warms up by noon. The path around takes an hour, with children an afternoon. There is a swing at the far end that nobody remembers putting up.",
			true,
		),
		island(
			"Skarva",
			"skarva.png",
			"35 minutes from the steps",
			"Cliffs, sea birds and the best walk in the sound. From April to July the ledges are full; keep to the posts and the birds keep to theirs. Soup at the old customs house from noon.",
			false,
		),
		island(
			"Langey",
			"langey.png",
			"50 minutes from the steps",
			"Long, flat and quiet: nine kilometres of gravel road to the light at the far end, and the wind behind you in one direction. Bicycles can be borrowed at the pier.",
			true,
		),
		crossing,
		album,
		where,
	)
}

// Crew is who works there.
func Crew(ids map[string]string) *doc.Page {
	person := element.Start(doc.Person)
	people := titled("People", compose.Section(doc.LineUp, compose.Room(
		"row-gap", "$wide", "padding-top", "$broad",
	), compose.Heading(2, "The six of us"),
		compose.Repeated(
			compose.Look(
				"per-row",
				"3",
				"per-row@tablet",
				"3",
				"per-row@phone",
				"2",
				"row-gap",
				"$broad",
				"row-gap@phone",
				"$wide",
				"column-gap",
				"$wide",
				"column-gap@phone",
				"$snug",
			),
			person,
			[]string{
				ids["ada.png"],
				"Ada",
				"Skipper, the Tern",
				"Turned back twice in thirty years, and was right both times.",
			},
			[]string{ids["bo.png"], "Bo", "Ropes and tickets", "Knows every bicycle on the islands by its bell."},
			[]string{ids["carl.png"], "Carl", "Engine", "Hears what it needs before it says so."},
			[]string{
				ids["dina.png"],
				"Dina",
				"Skipper, the Bramble",
				"Grew up on Skarva and still waves at the same window.",
			},
			[]string{ids["egil.png"], "Egil", "The office", "Answers before the evening boat, always."},
			[]string{
				ids["frida.png"],
				"Frida",
				"The galley",
				"The soup is hers. Don’t ask what is in it; ask for more.",
			},
		)))
	voices := titled("Voices", compose.Section(doc.LineUp, compose.Room(
		"background", "$quiet-ground", "row-gap", "$wide",
	), compose.Heading(2, "What passengers say"),
		compose.Repeated(compose.Look("run@tablet", "slider", "per-row@tablet", "2"), compose.With(
			compose.Stack(
				"$snug",
				compose.With(
					&doc.Block{Kind: doc.Quote, Content: doc.Content{Words: doc.PlainWords("Said")}},
					"padding-left", "0px", "border-width", "none", "grow", "yes",
				),
				compose.With(compose.Words("small", "Who"), "color", "$quiet-words"),
			),
			"background",
			"$ground",
			"border-radius",
			"$card",
			"padding-top",
			"$room",
			"padding-right",
			"$room",
			"padding-bottom",
			"$room",
			"padding-left",
			"$room",
		),
			[]string{"“They waited four minutes for us and told nobody.”", "A family with a pram"}, []string{
				"“I asked whether it would be rough. She said: interesting.”", "A first-time passenger",
			}, []string{"“My sheep have never travelled better.”", "A farmer from Langey"})))
	numbers := titled("Figures", compose.Section(doc.LineUp, compose.Room(
		"background", "$deep", "color", "$on-deep", "padding-top", "$broad", "padding-bottom", "$broad",
	),
		compose.Listing(
			doc.Figures,
			[]string{"number", "label"},
			[][]string{
				{"2", "boats"},
				{"6", "people"},
				{"97 %", "sailed on the minute last year"},
				{"0", "sheep lost"},
			},
			"per-row",
			"4",
			"text-align",
			"center",
		)))
	return page(
		"Crew", "Crew", "The six people who run two boats to three islands.",
		opening("Who sails with you", "Two boats, six people, and a good deal of weather between them."),
		people, numbers, voices,
	)
}

// Notices is the news.
func Notices() *doc.Page {
	news := titled("News", compose.Section(doc.Columns, compose.Room(
		"shares", "4 8", "column-gap", "$broad", "row-gap", "$room", "padding-top", "$broad",
	),
		compose.Stack(
			"$room", compose.Heading(2, "This season"),
			compose.Words("", "What the sign at the steps says, and a little more. The newest is first."),
			&doc.Block{Kind: doc.Search},
		),
		compose.Repeated(compose.Look("per-row", "1", "per-row@tablet", "1", "row-gap", "$wide"), compose.Stack(
			"$small",
			compose.With(compose.Words("label", "The day"), "color", "$accent"),
			compose.Heading(3, "What happened"),
			compose.Words("", "What it means."),
		),
			[]string{
				"3 May", "The summer timetable is on",
				"Nine sailings a day from today, and a second round trip on Saturdays. The soup has leeks in it again.",
			},
			[]string{
				"21 April", "The north steps have a new rail",
				"It is on the side that everybody has always wanted one on. The old one can be had for the asking, by whoever carries it away.",
			},
			[]string{
				"2 April", "The ledges on Skarva are full",
				"From now to July the upper path is closed between the second and the fifth post. The lower one is better anyway.",
			},
			[]string{
				"11 March", "The Tern is back in the water",
				"She has a new shaft and is two minutes faster, which we shall spend on tying up more carefully.",
			})))
	tell := titled("Hear of it", compose.Section(doc.LineUp, compose.Look(
		"background", "$deep", "color", "$on-deep", "padding-top", "$broad", "padding-bottom", "$broad", "direction",
		"row", "spread", "space-between", "align-items", "center", "column-gap", "$wide", "row-gap", "$room",
	),
		compose.With(
			compose.Stack(
				"$small",
				compose.Heading(2, "Does it sail today?"),
				compose.Words("", "The telephone knows, day and night."),
			),
			"width",
			"620px",
		), compose.Button("555 0143", "tel:5550143", "background", "$on-deep", "color", "$deep", "button-size", "$large")))
	return page(
		"Notices", "Notices", "What is new at Skerry Line: timetables, weather, birds and rails.",
		opening("Notices", "What the sign at the steps says."), news, tell,
	)
}

// Berth is the form to ask for a place for a car, a cart or sheep.
func Berth() *doc.Page {
	form := &doc.Block{
		Kind: doc.Form,
		Content: doc.Content{
			Values: map[string]string{
				"submit": "Ask for the berth", "consent": "You may keep this until the sailing is over.",
				"note": "We answer before the evening boat of the same day.",
			},
		},
	}
	for _, f := range []map[string]string{
		{"label": "Your name", "required": "yes", "width": "half"},
		{"label": "Where to answer", "type": "email", "required": "yes", "width": "half"},
		{"label": "Day of the sailing", "type": "date", "required": "yes", "width": "half"},
		{
			"label": "Sailing", "type": "select", "required": "yes", "width": "half",
			"choices": "08:10 Inner Holm\n09:00 Skarva\n10:15 Langey\n13:30 Skarva\n17:05 Langey",
		},
		{"label": "What needs a berth", "type": "radio", "required": "yes", "choices": "A car\nA cart or a trailer\nSheep\nSomething else"},
		{"label": "How long it is, in metres", "type": "number", "hint": "With the drawbar. For sheep: how many.", "width": "half"},
		{"label": "What else we should know", "type": "textarea"},
	} {
		form.Content.Entries = append(form.Content.Entries, doc.Entry{Values: f})
	}
	aside := compose.Stack("$room", compose.Heading(2, "The office"), &doc.Block{Kind: doc.SiteFacts},
		compose.With(
			compose.Words(
				"small",
				"Egil reads what you send. On foot or with a bicycle you don’t need a berth: just come.",
			),
			"color",
			"$quiet-words",
		))
	s := titled(
		"Form",
		compose.Section(
			doc.Columns,
			compose.Room("shares", "7 5", "column-gap", "$broad", "row-gap", "$wide", "padding-top", "$broad"),
			form, aside,
		),
	)
	return page(
		"Ask for a berth", "Ask for a berth", "Ask for a place on a sailing for a car, a cart or sheep.",
		opening("Ask for a berth", "Four places a boat. Tell us the day and the sailing, and what is to come along."),
		s,
	)
}

package ready

import (
	"openplot/core/compose"
	"openplot/core/doc"
	"openplot/core/value"
)

// dark is the look of a section on the deep ground.
var onDeep = []string{"background", "$deep", "color", "$on-deep"}

// Presets lists the ready-made sections, by purpose in the order of Purposes; the first
// is the empty one.
var Presets = []Preset{
	{
		ID: "empty", Purpose: "Blank", Name: "Empty section",
		Hint: "room to place blocks in",
		section: func() *doc.Section {
			return compose.Section(doc.Placed, compose.Look("padding-top", "$broad", "padding-bottom", "$broad"))
		},
	},
	{
		ID: "empty-columns", Purpose: "Blank", Name: "Two columns",
		Hint: "two columns to fill",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "6 6", "column-gap", "$wide"),
				compose.Stack(
					"$snug",
					compose.Heading(2, "On the left"),
					compose.Words("", "What stands in the first column."),
				),
				compose.Stack(
					"$snug",
					compose.Heading(2, "On the right"),
					compose.Words("", "What stands in the second."),
				),
			)
		},
	},

	{
		ID: "bar", Purpose: "Top bar", Name: "Bar",
		Hint: "name, menu and a button on one line",
		section: func() *doc.Section {
			return topBar(
				compose.Look("background", "$ground", "color", "$words"),
				"",
			)
		},
	},
	{
		ID: "bar-deep", Purpose: "Top bar", Name: "Deep bar that stays",
		Hint: "the same on the deep ground; stays on scrolling",
		section: func() *doc.Section {
			return topBar(compose.Look("background", "$deep", "color", "$on-deep", "stays", "sticky"), "$on-deep")
		},
	},
	{
		ID: "bar-over", Purpose: "Top bar", Name: "See-through bar",
		Hint: "lies over the picture of the section below it",
		section: func() *doc.Section {
			return topBar(compose.Look("color", "$on-deep", "over", "yes"), "$on-deep")
		},
	},

	{
		ID: "welcome-picture", Purpose: "Welcome", Name: "Welcome over a picture", Stock: "first-light",
		Hint: "a large picture with words and two buttons on it",
		section: func() *doc.Section {
			s := compose.Section(
				doc.LineUp,
				compose.Room(
					append(
						onDeep, "min-height", "72vh", "content-at", "center", "row-gap", "$room", "filter-gradient",
						"linear 90deg $deep 0%, $deep 40%, $accent 100%", "filter-opacity", "62%",
					)...,
				),
				compose.With(
					compose.Heading(1, "Say in seven words what this is"),
					"text-style",
					"$display",
					"width",
					"760px",
				),
				compose.With(
					compose.Words("lead", "One sentence more: for whom it is, and what they will have of it."),
					"width",
					"600px",
				),
				compose.Hold(
					doc.Buttons,
					doc.LineUp,
					compose.Look("direction", "row", "column-gap", "$snug", "row-gap", "$small"),
					compose.Button(
						"Begin here",
						"#",
						"background",
						"$second-accent",
						"color",
						"$ground",
						"button-size",
						"$large",
					),
					compose.Button(
						"Look around first",
						"#",
						"button-look",
						"outlined",
						"color",
						"$on-deep",
						"button-size",
						"$large",
					),
				),
			)
			return s
		},
	},
	{
		ID: "welcome-beside", Purpose: "Welcome", Name: "Welcome beside a picture",
		Hint: "words on the left, a tall picture on the right",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "7 5", "column-gap", "$broad", "row-gap", "$wide", "align-items", "center"),
				compose.Stack("$room", compose.Kicker("Where and since when"), compose.With(
					compose.Heading(1, "Say in seven words what this is"),
					"text-style", "$display", "text-style@tablet", "$h1",
				), compose.Words("lead", "One sentence more: for whom it is, and what they will have of it."),
					compose.Hold(
						doc.Buttons, doc.LineUp,
						compose.Look("direction", "row", "column-gap", "$snug", "row-gap", "$small"),
						compose.Button("Begin here", "#", "button-size", "$large"),
						compose.Button("Ask first", "#", "button-look", "quiet", "button-size", "$large"),
					)),
				compose.Picture("4:5", "border-radius", "$round"),
			)
		},
	},
	{
		ID: "welcome-middle", Purpose: "Welcome", Name: "Welcome in the middle",
		Hint: "large words on a gradient that ends in a wave",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Centred(
					append(
						onDeep, "gradient", "linear 160deg $deep 0%, $accent/45% 100%", "padding-bottom", "160px",
						"padding-bottom@phone", "110px", "edge-bottom", "tide",
					)...,
				),
				compose.With(compose.Words("label", "Where and since when"), "opacity", "85%"),
				compose.With(
					compose.Heading(1, "Say in seven words what this is"),
					"text-style", "$display", "width", "820px",
				),
				compose.With(
					compose.Words("lead", "One sentence more: for whom it is, and what they will have of it."),
					"width",
					"620px",
				),
				compose.Button("Begin here", "#", "background", "$on-deep", "color", "$deep", "button-size", "$large"),
			)
		},
	},
	{
		ID: "welcome-card", Purpose: "Welcome", Name: "Welcome with a card",
		Hint: "a wide picture with a card of words over its edge",
		section: func() *doc.Section {
			card := compose.Hold(doc.Container, doc.LineUp, compose.Look(
				"background", "$ground", "color", "$words", "border-radius", "$card", "box-shadow", "$card", "row-gap",
				"$snug",
			),
				compose.Heading(1, "Say in seven words what this is"),
				compose.Words("lead", "One sentence more: for whom it is, and what they will have of it."),
				compose.Button("Begin here", "#"))
			for _, side := range []string{"top", "right", "bottom", "left"} {
				compose.With(card, "padding-"+side, "$wide")
			}
			return compose.Section(doc.Placed, compose.Look("padding-top", "$wide", "padding-bottom", "$wide"),
				at(compose.Picture("rows"), [4]int{1, 12, 1, 15}, [4]int{1, 4, 1, 8}),
				at(card, [4]int{2, 6, 9, 9}, [4]int{1, 4, 7, 9}))
		},
	},

	{
		ID: "about-picture", Purpose: "About", Name: "About, with a picture",
		Hint: "a picture on the left, words on the right",
		section: func() *doc.Section {
			return compose.Section(doc.Columns, compose.Room(
				"shares", "6 6", "column-gap", "$broad", "row-gap", "$wide", "align-items", "center",
			), compose.Picture("4:3"),
				compose.Stack(
					"$snug",
					compose.Kicker("About us"),
					compose.Heading(2, "Who we are and how it began"),
					compose.Words(
						"",
						"Tell the story as you would across a table: what was there before, what was missing, and what you did about it.",
						"Then say how it is today, and who is behind it.",
					),
					compose.Button("Read the whole story", "#", "button-look", "quiet", "padding-left", "0px"),
				))
		},
	},
	{
		ID: "about-figures", Purpose: "About", Name: "About, with figures",
		Hint: "words on the left, large figures on the right",
		section: func() *doc.Section {
			return compose.Section(doc.Columns, compose.Room(
				"background",
				"$quiet-ground",
				"shares",
				"7 5",
				"column-gap",
				"$broad",
				"row-gap",
				"$wide",
				"align-items",
				"center",
			),
				compose.Stack(
					"$snug",
					compose.Heading(2, "What we stand for"),
					compose.Words(
						"lead",
						"Two or three sentences that nobody else could have written about themselves.",
					),
					compose.Words("", "And one that says what you will not do, since that says as much."),
				),
				compose.Listing(
					doc.Figures,
					[]string{"number", "label"},
					[][]string{{"1974", "the year it began"}, {"31", "people who work here"}},
					"per-row", "1", "figure-colour", "$accent",
				))
		},
	},
	{
		ID: "about-columns", Purpose: "About", Name: "About, in two columns",
		Hint: "a heading across, two columns of words, a quote below",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "12 6 6 12", "column-gap", "$wide", "row-gap", "$room"),
				compose.Heading(2, "What you should know about us"),
				compose.Words(
					"",
					"The first column says what you do, in the order in which somebody meets it when they come for the first time.",
				),
				compose.Words(
					"",
					"The second says why you do it like that, and what people say who have come back for years.",
				),
				&doc.Block{
					Kind: doc.Quote,
					Content: doc.Content{
						Words: doc.PlainWords("A sentence that somebody said once, and that everybody here repeats."),
					},
				},
			)
		},
	},

	{
		ID: "features", Purpose: "Features", Name: "Three features",
		Hint: "three icons, each with a heading and a text",
		section: func() *doc.Section {
			return compose.Section(doc.LineUp, compose.Room("row-gap", "$wide"), compose.With(
				compose.Heading(2, "Three reasons to come"),
				"width", "640px",
			),
				compose.Repeated(compose.Look("per-row", "3", "column-gap", "$wide", "row-gap", "$wide"), compose.Stack(
					"12px", compose.Icon("compass"),
					compose.Heading(3, "A reason"),
					compose.Words("", "Say in a sentence what it means for those who come."),
				),
					[]string{
						"compass", "The first reason", "Say in a sentence what it means for those who come.",
					}, []string{
						"clock", "The second", "Give a figure if there is one: it is remembered better.",
					}, []string{"heart", "The third", "End with the one that is closest to the heart."}))
		},
	},
	{
		ID: "features-cards", Purpose: "Features", Name: "Features on cards",
		Hint: "four cards on the quiet ground",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "row-gap", "$wide"),
				compose.Heading(2, "What is in it"),
				compose.Repeated(compose.Look("per-row", "4"), onCard(
					"$snug",
					compose.Icon("check-circle", "icon-size", "28px"),
					compose.Heading(3, "One thing"),
					compose.Words("", "A sentence about it."),
				),
					[]string{
						"sunrise", "In the morning", "What there is before everybody is up.",
					}, []string{"sun", "By day", "What most people come for."}, []string{"moon-stars", "In the evening", "What they stay for."}, []string{
						"cloud-drizzle", "In the rain", "What they had not expected.",
					}),
			)
		},
	},
	{
		ID: "features-list", Purpose: "Features", Name: "A list beside a picture",
		Hint: "points with ticks, a picture beside them",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "5 7", "column-gap", "$broad", "row-gap", "$wide", "align-items", "center"),
				compose.Stack(
					"$room",
					compose.Heading(2, "All of this is in it"),
					compose.With(
						&doc.Block{
							Kind: doc.List,
							Content: doc.Content{
								Words: doc.PlainWords(
									"The first point, the most important one", "The second, which others leave out",
									"The third, which costs nothing more", "And the fourth, for those who read on",
								),
							},
						},
						"list-marks", "check",
					),
					compose.Button("See it for yourself", "#"),
				),
				compose.Picture("3:2"),
			)
		},
	},

	{
		ID: "figures", Purpose: "Figures", Name: "A band of figures",
		Hint: "three large figures on the deep ground",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room(append(onDeep, "padding-top", "$broad", "padding-bottom", "$broad")...),
				compose.Listing(
					doc.Figures,
					[]string{"number", "label"},
					[][]string{{"9", "people at work"}, {"52", "weeks of the year"}, {"3,400", "guests last summer"}},
					"text-align", "center", "per-row", "3",
				),
			)
		},
	},
	{
		ID: "figures-words", Purpose: "Figures", Name: "Figures with words",
		Hint: "a heading and a text, four figures below",
		section: func() *doc.Section {
			return compose.Section(doc.LineUp, compose.Room("row-gap", "$wide"), compose.With(
				compose.Stack(
					"$snug",
					compose.Heading(2, "In figures"),
					compose.Words("lead", "A sentence that says what the figures add up to."),
				),
				"width",
				"680px",
			),
				compose.Listing(
					doc.Figures,
					[]string{"number", "label"},
					[][]string{
						{"12", "of the one"},
						{"96 %", "of the other"},
						{"1 in 9", "of all there are"},
						{"0", "of what nobody wants"},
					},
					"per-row",
					"4",
					"figure-colour",
					"$accent",
				))
		},
	},

	{
		ID: "steps", Purpose: "Steps", Name: "Steps side by side",
		Hint: "three numbered steps",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "row-gap", "$wide"),
				compose.Heading(2, "How it goes"),
				listed(
					value.Ordered,
					compose.Repeated(compose.Look("per-row", "3", "column-gap", "$wide"), compose.Stack(
						"$small",
						compose.With(compose.Words("display", "1"), "color", "$accent"),
						compose.Heading(3, "A step"),
						compose.Words("", "What happens in it."),
					),
						[]string{"1", "Ask", "Tell us the day and how many you are. It takes a minute."}, []string{
							"2", "Hear from us", "We answer before the evening, with what there is and what it costs.",
						}, []string{"3", "Come", "Be there ten minutes before. We do the rest."}),
				),
			)
		},
	},
	{
		ID: "steps-down", Purpose: "Steps", Name: "Steps down the page",
		Hint: "a time, a heading and words for each step",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "4 8", "column-gap", "$broad", "row-gap", "$room"),
				compose.Stack(
					"$snug",
					compose.Kicker("From the first to the last"),
					compose.Heading(2, "What the day is like"),
				),
				compose.Listing(
					doc.Timetable,
					[]string{"time", "title", "words"},
					[][]string{
						{"08:00", "Arriving", "Where to go first, and who is there to meet you."},
						{"10:30", "The middle of it", "What you came for."},
						{"16:00", "Going home", "What you take with you."},
					},
				),
			)
		},
	},

	{
		ID: "gallery", Purpose: "Gallery", Name: "Pictures in rows",
		Hint: "pictures of any shape in rows of one height",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("row-gap", "$wide"),
				compose.Heading(2, "What it looks like"),
				gallery(
					"gallery-as",
					"rows",
					"gallery-height",
					"260px",
					"gallery-height@phone",
					"150px",
					"border-radius",
					"$soft",
				),
			)
		},
	},
	{
		ID: "gallery-slider", Purpose: "Gallery", Name: "Pictures to slide through",
		Hint: "one large picture after another, a part of the next showing",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "row-gap", "$room"),
				compose.Heading(2, "A walk through"),
				compose.Repeated(
					compose.Look("run", "slider", "per-row", "2", "per-row@tablet", "1"),
					compose.Stack("$small", compose.Picture("3:2"), compose.Words("small", "What it shows")),
					[]string{"", "In the morning"},
					[]string{"", "By day"},
					[]string{"", "In the evening"},
					[]string{"", "In winter"},
				),
			)
		},
	},
	{
		ID: "gallery-columns", Purpose: "Gallery", Name: "Pictures in columns",
		Hint: "whole pictures in three columns, with words above",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("row-gap", "$wide"),
				compose.With(
					compose.Stack(
						"$snug",
						compose.Heading(2, "From our album"),
						compose.Words("", "A sentence that says who took them, and when."),
					),
					"width",
					"640px",
				),
				gallery("gallery-as", "columns", "border-radius", "$soft"),
			)
		},
	},

	{
		ID: "people", Purpose: "People", Name: "People in a row",
		Hint: "portraits with names and what they do",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("row-gap", "$wide"),
				compose.Heading(2, "Who you will meet"),
				compose.Repeated(compose.Look(
					"per-row", "4", "per-row@phone", "2", "row-gap", "$wide",
				), portrait(),
					[]string{"", "First name", "What they do", "Something only they would say."}, []string{
						"", "Second name", "What they do", "Something only they would say.",
					}, []string{"", "Third name", "What they do", "Something only they would say."}, []string{
						"", "Fourth name", "What they do", "Something only they would say.",
					}),
			)
		},
	},
	{
		ID: "people-one", Purpose: "People", Name: "One person",
		Hint: "a large portrait with a text",
		section: func() *doc.Section {
			return compose.Section(doc.Columns, compose.Room(
				"background",
				"$quiet-ground",
				"shares",
				"4 8",
				"column-gap",
				"$broad",
				"row-gap",
				"$wide",
				"align-items",
				"center",
			), compose.Picture("1:1", "shape", "circle"),
				compose.Stack(
					"$snug",
					compose.Kicker("What they do here"),
					compose.Heading(2, "Their name"),
					compose.Words("lead", "A sentence in their own words."),
					compose.With(
						compose.Words(
							"",
							"And what others say about them: how long they have been here, and what nobody else can do as well.",
						),
						"width", "560px",
					),
				))
		},
	},

	{
		ID: "testimonial", Purpose: "Testimonials", Name: "One voice",
		Hint: "one large quote in the middle",
		section: func() *doc.Section {
			return compose.Section(doc.LineUp, compose.Centred(onDeep...), compose.Icon(
				"quote", "color", "$on-deep", "icon-size", "48px", "opacity", "70%",
			),
				compose.With(
					compose.Words("h2", "Put here what they said, in their own words and no longer than that."),
					"width", "820px",
				), compose.With(compose.Words("small", "Their name, and where they come from"), "opacity", "85%"))
		},
	},
	{
		ID: "testimonials", Purpose: "Testimonials", Name: "Three voices",
		Hint: "three quotes with portraits, to slide through on phones",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "row-gap", "$wide"),
				compose.Heading(2, "What people say"),
				compose.Repeated(
					compose.Look("run@tablet", "slider", "per-row@tablet", "2"),
					voice(),
					[]string{"“They waited for us, in that weather.”", "", "First name\nFrom the mainland"},
					[]string{"“We came for a day and stayed for three.”", "", "Second name\nFrom the hills"},
					[]string{"“The soup alone.”", "", "Third name\nFrom the town"},
				),
			)
		},
	},

	{
		ID: "prices", Purpose: "Prices", Name: "Price cards",
		Hint: "three cards with prices and what is in them",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "row-gap", "$wide"),
				compose.With(
					compose.Stack(
						"$snug",
						compose.Heading(2, "What it costs"),
						compose.Words("", "A sentence about what is always in it."),
					),
					"width",
					"640px",
				),
				compose.Repeated(
					compose.Look("per-row", "3", "column-gap@tablet", "$snug"),
					priceCard(),
					[]string{
						"For one",
						"24",
						"for one day",
						"Any day of the week\nA drink is included",
						"Choose this",
					},
					[]string{
						"For two",
						"42",
						"for one day",
						"Any day of the week\nA drink is included\nSoup at the end of it",
						"Choose this",
					},
					[]string{
						"For a family", "58", "for one day",
						"Two grown-ups, any number of children\nA drink is included\nSoup at the end of it", "Choose this",
					},
				),
			)
		},
	},
	{
		ID: "prices-table", Purpose: "Prices", Name: "Price table",
		Hint: "a heading, a table and what else to know",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("row-gap", "$room"),
				compose.Heading(2, "All prices"),
				table(
					value.Both, "\tOnce\tBoth days\tTen times", "Grown-ups\t6.40\t11.20\t52.00",
					"Children to 14\t3.20\t5.60\t26.00", "Under three\tfree\tfree\tfree", "Groups\t18.00\t32.00\t–",
				),
				compose.With(
					compose.Words("small", "Say here what isn’t in the table: groups, winter, dogs."),
					"color",
					"$quiet-words",
				),
			)
		},
	},

	{
		ID: "timetable", Purpose: "Timetable", Name: "Timetable",
		Hint: "what happens when, under a heading",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("row-gap", "$room"),
				compose.Heading(2, "What happens when"),
				compose.With(compose.Listing(
					doc.Timetable,
					[]string{"time", "title", "who", "words"},
					[][]string{
						{"08:10", "The first of the day", "Who leads it", "What to bring, and where to meet."},
						{"11:40", "The next one", "Who leads it", "What is different about it."},
						{"15:20", "The last", "Who leads it", "When it ends."},
					},
				), "width", "760px"),
			)
		},
	},
	{
		ID: "timetable-days", Purpose: "Timetable", Name: "Timetable by kinds of day",
		Hint: "tabs for weekdays, weekends and winter",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "row-gap", "$room"),
				compose.Heading(2, "Times"),
				compose.With(compose.Listing(
					doc.Tabs,
					[]string{"title", "words"},
					[][]string{
						{"Weekdays", "Say when it begins, how often it goes, and when the last one is."},
						{"Weekends", "Say what is different on Saturdays and Sundays."},
						{"Winter", "Say from when to when, and what doesn’t go then."},
					},
				), "width", "760px"),
			)
		},
	},

	{
		ID: "questions", Purpose: "Questions", Name: "Questions",
		Hint: "a heading on the left, questions that open on the right",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "4 8", "column-gap", "$broad", "row-gap", "$room"),
				compose.Stack(
					"$snug",
					compose.Heading(2, "What people ask"),
					compose.Words("", "Your question isn’t here? Write to us, and it will be."),
					compose.Button("Ask us", "#", "button-look", "outlined"),
				),
				questions(),
			)
		},
	},
	{
		ID: "questions-middle", Purpose: "Questions", Name: "Questions in the middle",
		Hint: "one column of questions on the quiet ground",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "align-items", "center", "row-gap", "$room"),
				compose.Heading(2, "Good to know"),
				compose.With(questions(), "width", "760px"),
			)
		},
	},

	{
		ID: "notice", Purpose: "Notices", Name: "Notice bar",
		Hint: "something to know just now, across the page",
		section: func() *doc.Section {
			return compose.Section(doc.LineUp, compose.Look(
				"padding-top", "12px", "padding-bottom", "12px", "background", "$quiet-ground",
			), compose.Hold(doc.Notice, doc.LineUp, compose.Look(
				"direction", "row", "wrap", "nowrap", "column-gap", "$snug",
			), compose.Icon("megaphone", "icon-size", "22px"),
				&doc.Block{
					Kind:  doc.Text,
					Style: compose.Look("grow", "yes", "width", "1px"),
					Content: doc.Content{
						Words: doc.Words{
							{
								{Text: "From Monday: ", Bold: true},
								{Text: "say here what is different, and until when. "},
								{Text: "Read more", Link: "#"},
							},
						},
					},
				}))
		},
	},
	{
		ID: "notices", Purpose: "Notices", Name: "News",
		Hint: "dated news, one below the other",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "4 8", "column-gap", "$broad", "row-gap", "$room"),
				compose.Heading(2, "News"),
				listed(value.Articles, compose.Repeated(compose.Look("per-row", "1", "row-gap", "$room"), compose.Stack(
					"$small",
					compose.Heading(3, "What happened"),
					compose.With(compose.Words("label", "The day"), "color", "$accent"),
					compose.Words("", "Two sentences about it."),
				),
					[]string{
						"What happened first", "3 May", "Two sentences about it, and where to read more.",
					}, []string{
						"What happened before that", "21 April", "Two sentences about it.",
					}, []string{"And before that", "2 April", "Two sentences about it."})),
			)
		},
	},

	{
		ID: "form", Purpose: "Form", Name: "Form beside words",
		Hint: "words on the left, a form on the right",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "5 7", "column-gap", "$broad", "row-gap", "$wide"),
				compose.Stack(
					"$snug",
					compose.Heading(2, "Ask us"),
					compose.Words("lead", "Say what happens after they send it, and how soon."),
					&doc.Block{Kind: doc.SiteFacts},
				),
				contactForm(),
			)
		},
	},
	{
		ID: "form-card", Purpose: "Form", Name: "Form on a card",
		Hint: "a form in the middle, on a card",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room("background", "$quiet-ground", "align-items", "center"),
				compose.With(onCard("$room", compose.Heading(2, "Write to us"), contactForm()), "width", "720px"),
			)
		},
	},

	{
		ID: "contact-map", Purpose: "Map and contact", Name: "Map and contact",
		Hint: "a map beside the site’s address and hours",
		section: func() *doc.Section {
			return compose.Section(
				doc.Columns,
				compose.Room("shares", "7 5", "column-gap", "$broad", "row-gap", "$wide", "align-items", "center"),
				chart(),
				compose.Stack(
					"$room",
					compose.Heading(2, "Where to find us"),
					&doc.Block{Kind: doc.SiteFacts},
					compose.Button("Plan your way", "#", "button-look", "outlined"),
				),
			)
		},
	},
	{
		ID: "contact-deep", Purpose: "Map and contact", Name: "Contact on the deep ground",
		Hint: "address, hours and a button on one line, a map below",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Room(append(onDeep, "row-gap", "$wide")...),
				compose.Columns(
					"6 6",
					compose.Stack(
						"$snug",
						compose.Heading(2, "Come and see us"),
						compose.Words("lead", "A sentence about how easy it is."),
					),
					&doc.Block{Kind: doc.SiteFacts},
				),
				compose.With(chart(), "aspect-ratio", "21:9", "aspect-ratio@phone", "1:1"),
			)
		},
	},

	{
		ID: "action", Purpose: "Call to action", Name: "Call in the middle",
		Hint: "a heading and a button on a gradient",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Centred(
					append(
						onDeep,
						"gradient",
						"linear 120deg $accent/45% 0%, $deep 100%",
						"edge-top",
						"slope",
						"padding-top",
						"150px",
						"padding-top@phone",
						"110px",
					)...,
				),
				compose.With(compose.Heading(2, "Say what to do next"), "text-style", "$h1", "width", "720px"),
				compose.With(compose.Words("lead", "And why today is a good day for it."), "width", "560px"),
				compose.Button("Do it now", "#", "background", "$on-deep", "color", "$deep", "button-size", "$large"),
			)
		},
	},
	{
		ID: "action-line", Purpose: "Call to action", Name: "Call on one line",
		Hint: "words on the left, a button on the right",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp,
				compose.Look(
					append(
						onDeep, "padding-top", "$broad", "padding-bottom", "$broad", "direction", "row", "spread",
						"space-between", "align-items", "center", "column-gap", "$wide", "row-gap", "$room",
					)...,
				),
				compose.With(
					compose.Stack(
						"$small",
						compose.Heading(2, "Say what to do next"),
						compose.Words("", "And why today is a good day for it."),
					),
					"width",
					"300px",
					"grow",
					"yes",
				),
				compose.Button(
					"Do it now",
					"#",
					"background",
					"$second-accent",
					"color",
					"$ground",
					"button-size",
					"$large",
				),
			)
		},
	},
	{
		ID: "action-card", Purpose: "Call to action", Name: "Call on a card with a picture",
		Hint: "a card in two halves: words and a picture",
		section: func() *doc.Section {
			return compose.Section(
				doc.LineUp, compose.Room(),
				compose.With(
					compose.Columns(
						"6 6",
						compose.With(
							compose.Stack(
								"$snug",
								compose.Heading(2, "Say what to do next"),
								compose.Words("lead", "And why today is a good day for it."),
								compose.Button("Do it now", "#"),
							),
							"padding-top", "$wide", "padding-left", "$wide", "padding-bottom", "$wide", "padding-right",
							"$wide",
						),
						compose.Picture("4:3", "border-radius", "0px"),
					),
					"background", "$quiet-ground", "border-radius", "$card", "column-gap", "$none", "row-gap", "$none",
					"align-items", "center",
				),
			)
		},
	},

	{
		ID: "footer", Purpose: "Footer", Name: "Footer in columns",
		Hint: "name, pages, contact and a last line",
		section: func() *doc.Section {
			s := compose.Section(doc.Columns, compose.Look(
				append(
					onDeep,
					"padding-top",
					"$broad",
					"padding-bottom",
					"$wide",
					"shares",
					"5 3 4 12",
					"column-gap",
					"$wide",
					"row-gap",
					"$wide",
				)...,
			),
				compose.Stack(
					"$snug",
					&doc.Block{Kind: doc.Logo, Content: doc.Content{Link: "/"}},
					compose.Words("", "A sentence that says what this is, for those who came in at the end."),
				),
				&doc.Block{
					Kind:    doc.PageList,
					Content: doc.Content{Values: map[string]string{"with": "names"}},
					Style:   compose.Look("per-row", "1", "row-gap", "$small"),
				},
				&doc.Block{Kind: doc.SiteFacts}, compose.With(
					compose.Words("small", "A last line: who is responsible, and since when."),
					"opacity", "80%",
				))
			s.Role = doc.RoleFooter
			return s
		},
	},
	{
		ID: "footer-line", Purpose: "Footer", Name: "Footer on one line",
		Hint: "name, links and icons side by side",
		section: func() *doc.Section {
			s := compose.Section(doc.LineUp, compose.Look(
				"padding-top", "$room", "padding-bottom", "$room", "direction", "row", "spread", "space-between",
				"align-items", "center", "background", "$quiet-ground", "row-gap", "$snug",
			),
				compose.Words("small", "The site’s name, since when"), &doc.Block{Kind: doc.BackToTop}, social())
			s.Role = doc.RoleFooter
			return s
		},
	},
}

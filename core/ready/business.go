package ready

import (
	"slices"

	"openplot/core/doc"
)

// Business is a kind of business that a site is for: it chooses what stands in for words and
// pictures until there are its own.
type Business struct {
	ID, Name string
	// Scenes are the stand-in pictures, the most fitting first, as stock.Scenes has them.
	Scenes []string
	says   []string // in the order of general
}

// general is what ready-made sections say whatever a site is for; a Business says something
// else in the place of each.
var general = []string{
	"Say in seven words what this is",
	"One sentence more: for whom it is, and what they will have of it.",
	"Begin here",
	"Look around first",
	"Ask first",
	"Where and since when",
	"Who we are and how it began",
	"Tell the story as you would across a table: what was there before, what was missing, and what you did about it.",
	"What we stand for",
	"Two or three sentences that nobody else could have written about themselves.",
	"Three reasons to come",
	"The first reason",
	"The second",
	"The third",
	"What is in it",
	"All of this is in it",
	"Who you will meet",
	"What they do",
	"“They waited for us, in that weather.”",
	"“We came for a day and stayed for three.”",
	"“The soup alone.”",
	"What it costs",
	"For one",
	"For two",
	"For a family",
	"Choose this",
	"What it looks like",
	"Say what to do next",
	"And why today is a good day for it.",
	"Do it now",
	"A sentence that says what this is, for those who came in at the end.",
}

// Businesses lists the kinds, in the order in which they are offered.
var Businesses = []Business{
	{
		"food", "Food and drink", []string{"table", "hands", "room", "street", "people", "product"},
		[]string{
			"Food from around here, cooked every day", "A short menu that follows the season, and a table by the window if you call.", "Book a table",
			"See the menu", "Ask us", "In the old mill since 2009", "How the kitchen began",
			"It began with one stove and four tables. What grew nearby went into the pots, and it still does.", "What goes into the pots",
			"We cook what is ripe. When something is gone, it is gone until tomorrow.", "Three reasons to stay for dessert", "From the market",
			"Baked at dawn", "Room outside", "On the table today", "All of this comes with it", "Who cooks, who serves", "Cooks, and bakes",
			"“They kept the kitchen open for us.”", "“We came for lunch and stayed for supper.”", "“The soup alone.”", "Our menus", "Two courses",
			"Three courses", "For the whole table", "Book this", "From the kitchen", "Shall we keep a table for you?",
			"On Fridays there is fish, and the terrace is open.", "Book a table", "A kitchen with eleven tables, open from Wednesday to Sunday.",
		},
	},
	{
		"lodging", "Lodging", []string{"room", "landscape", "table", "street", "people", "hands"},
		[]string{
			"Nine quiet rooms above the harbour", "For people who like to wake to the light, and to breakfast that takes its time.", "Find a room",
			"See the rooms", "Ask us", "By the water since 1931", "How the house became a guest house",
			"It was a sailmaker’s. The beams are still there, the beds are new, and the breakfast room is where the sails were cut.",
			"What a good night takes", "Thick walls, open windows, and nobody who wakes you.", "Three reasons to stay a night longer",
			"The view", "The breakfast", "The quiet", "In every room", "All of this is included", "Who looks after you", "At the desk, mornings",
			"“They waited up for us, in that weather.”", "“We came for a night and stayed for three.”", "“The breakfast alone.”", "Rooms and prices",
			"Single room", "Double room", "Family room", "Choose this room", "A look inside", "When would you like to come?",
			"In the low season the third night is on us.", "Ask for a room", "A small house by the water, open all year but November.",
		},
	},
	{
		"trade", "Trade or craft", []string{"hands", "plan", "room", "product", "street", "people"},
		[]string{
			"Furniture and fittings, made to measure", "For rooms that nothing ready-made fits, and for people who keep things.", "Ask for a quote",
			"See our work", "Call us", "A workshop since 1987", "How the workshop began",
			"It began in a garage with one plane and one good order. Today six people work here, and the plane is still sharp.",
			"How we work", "We measure twice, say what it costs before we begin, and clean up when we leave.", "Three reasons to have it made",
			"It fits", "It lasts", "It can be repaired", "What we do", "All of this is part of the job", "Who does the work", "Joiner, second generation",
			"“They came on the day they said.”", "“You can’t see where the old part ends.”", "“Swept up and all.”", "What it costs roughly", "A repair",
			"A single piece", "A whole room", "Ask about this", "From the workshop", "Tell us what you have in mind",
			"We are taking orders for the spring now.", "Ask for a quote", "A joinery of six people, for rooms that nothing ready-made fits.",
		},
	},
	{
		"shop", "Shop", []string{"product", "street", "hands", "table", "people", "room"},
		[]string{
			"Well-made things for every day", "Chosen one by one, kept in stock, and wrapped by people who use them too.", "See what is new",
			"Visit the shop", "Ask us", "On the corner since 2003", "How the shop began",
			"We couldn’t find a good kettle. Two years later there was a shop with forty things in it, each of which we would buy again.",
			"What comes into the shop", "Nothing that we wouldn’t use ourselves, and nothing that can’t be repaired.", "Three reasons to come by",
			"Try it first", "Repairs", "Good advice", "On the shelves", "With everything you buy", "Who you meet at the counter", "Buys the tea",
			"“They told me I didn’t need it.”", "“Came for a cup, left with six.”", "“And the wrapping!”", "Gift boxes", "For one", "For two",
			"For a whole house", "Order this", "New this month", "Something in mind?", "Order today and it leaves tomorrow.", "Order now",
			"A small shop for things that last, open from Tuesday to Saturday.",
		},
	},
	{
		"health", "Health and care", []string{"people", "room", "hands", "person", "landscape", "plan"},
		[]string{
			"Care that takes its time", "For everybody from the first days on, with appointments that begin when they should.", "Make an appointment",
			"How we work", "Ask us", "In the square since 1998", "How the practice came about",
			"Three of us wanted to know the people we treat. So we took fewer of them, and more time.", "What you can count on",
			"We say what we know, what we don’t, and what it will cost.", "Three things that are different here", "More time", "One person for you",
			"Answers the same day", "What we treat", "All of this belongs to a first visit", "Who you will meet", "Physiotherapist",
			"“For the first time somebody listened.”", "“I left without the pain I came with.”", "“Even my son wants to go back.”", "Fees", "A first visit",
			"A course of six", "For a family", "Book this", "Our rooms", "When does it suit you?", "There are places left this week.", "Book a time",
			"A practice for the whole family, open from Monday to Friday.",
		},
	},
	{
		"office", "Practice or office", []string{"plan", "room", "people", "street", "hands", "person"},
		[]string{
			"Advice you can act on tomorrow", "For small companies that have a decision to make, and would rather make it once.", "Talk to us",
			"See what we did for others", "Ask first", "Independent since 1994", "Who we are and how we work",
			"We began as two people with one client and one rule: the answer fits on a page. There are twelve of us now, and the rule holds.",
			"What we stand for", "We give one recommendation, with its reasons, and put our name to it.", "Three reasons to call us", "Plain answers",
			"Fixed fees", "One person for you", "What we do", "All of this is in the fee", "Who you will work with", "Contracts and leases",
			"“One page, and we knew what to do.”", "“They told us not to hire them.”", "“Worth it for the first hour.”", "Fees", "One hour",
			"A second opinion", "A whole project", "Ask about this", "Where we work", "What do you have to decide?",
			"The first conversation costs nothing.", "Arrange a call", "An office of twelve, for companies that would rather decide once.",
		},
	},
	{
		"culture", "Culture and events", []string{"people", "street", "room", "table", "person", "landscape"},
		[]string{
			"Concerts in a boathouse, forty nights a year", "For people who like to sit close, and to hear what is said between the songs.", "See the programme",
			"What it is like", "Write to us", "In the boathouse since 2011", "How the first night came about",
			"There was a piano nobody wanted and a roof that didn’t leak. We set out chairs, and sixty people came.", "What we put on",
			"What we would cross the water for ourselves, and never the same thing twice.", "Three reasons to come on a Thursday", "You sit close",
			"They talk afterwards", "There is soup", "This season", "Your ticket includes", "Who makes it happen", "Books the artists",
			"“I have never heard it like that.”", "“We came for a song and stayed till they swept up.”", "“The soup alone.”", "Tickets", "One evening",
			"For two", "The whole season", "Get tickets", "From last season", "Will you be there?", "Half of the seats for spring are gone.",
			"Get tickets", "A hall with a hundred chairs, open on forty nights a year.",
		},
	},
	{
		"outdoors", "Sport and outdoors", []string{"landscape", "people", "person", "street", "plan", "product"},
		[]string{
			"Guided walks in the high country", "For people with good boots and no need to hurry, in groups of eight at most.", "Find a walk",
			"See the routes", "Ask a guide", "On the hill since 1976", "How it began",
			"One of us lived up there and got tired of drawing maps on napkins. Now there are five guides, and proper maps.", "How we walk",
			"We turn round when the weather says so, and nobody has ever been sorry.", "Three reasons to go with a guide", "Small groups",
			"Safe ground", "Stories on the way", "What to expect", "All of this is included", "Who walks with you", "Knows the north face",
			"“They turned back in time, and they were right.”", "“We came for a day and stayed for three.”", "“The view from the hut alone.”", "Prices",
			"A half day", "A whole day", "A weekend", "Choose this", "From the trail", "Which walk is yours?", "The snow is gone to 1,800 metres.",
			"Join a walk", "Five guides for the high country, from May to October.",
		},
	},
	{
		"teaching", "Teaching", []string{"people", "plan", "hands", "person", "room", "table"},
		[]string{
			"Learn to build a boat in ten evenings", "For beginners who like to use their hands, with everything there that it takes.", "See the courses",
			"How we teach", "Ask a teacher", "Evening classes since 1969", "How the school began",
			"A boatbuilder retired and couldn’t stop explaining. The first course had six people and one boat, and it floats to this day.",
			"What we believe", "You learn what you have done yourself, and what you were allowed to get wrong.", "Three reasons to begin now", "Small classes",
			"Your own work", "No grades", "What you learn", "All of this is in the fee", "Who teaches", "Teaches drawing",
			"“I can do it now. I wouldn’t have believed it.”", "“I signed up for one course and took three.”", "“The teachers alone.”", "Fees", "One evening",
			"One course", "A whole year", "Sign up", "From the classroom", "Which course is yours?", "The autumn courses begin in three weeks.", "Sign up",
			"A school for people who like to use their hands, open in the evening.",
		},
	},
	{
		"club", "Club or charity", []string{"people", "hands", "landscape", "street", "person", "table"},
		[]string{
			"Neighbours who keep the harbour clean", "For everybody who has an hour to spare, with gloves and coffee provided.", "Come along",
			"What we do", "Write to us", "A club since 1952", "How it began",
			"After the big storm somebody put up a note. Forty people came, and every spring they come again.", "What we are for",
			"We do what can be done by hand, and we write down what can’t, until somebody does it.", "Three reasons to join", "An hour is enough",
			"You see what you did", "You meet people", "What we do in a year", "What your fee pays for", "Who you will meet", "Keeps the boats",
			"“I came for the coffee and found friends.”", "“We cleared it in a morning.”", "“The cake afterwards.”", "Membership", "For one", "For two",
			"For a family", "Join", "From last year", "Will you lend a hand?", "The next day out is on Saturday.", "Join in",
			"A club of neighbours, on the shore on every first Saturday.",
		},
	},
}

// FindBusiness gives a kind of business by id, or nil: "" is none.
func FindBusiness(id string) *Business {
	i := slices.IndexFunc(Businesses, func(b Business) bool { return b.ID == id })
	if i < 0 {
		return nil
	}
	return &Businesses[i]
}

// Say puts a business's words in the place of general ones in blocks that are new.
func (b *Business) Say(blocks []*doc.Block) {
	if b == nil {
		return
	}
	said := make(map[string]string, len(general))
	for i, g := range general {
		said[g] = b.says[i]
	}
	words := func(ws doc.Words) doc.Words {
		for _, p := range ws {
			if s, ok := said[doc.Words{p}.Plain()]; ok && len(p) == 1 {
				p[0].Text = s
			}
		}
		return ws
	}
	values := func(vs map[string]string) {
		for name, v := range vs {
			if s, ok := said[v]; ok {
				vs[name] = s
			}
		}
	}
	content := func(c *doc.Content) {
		for _, w := range c.Said() {
			words(w)
		}
		for i := range c.Entries {
			words(c.Entries[i].Words)
			values(c.Entries[i].Values)
		}
	}
	for _, top := range blocks {
		top.Walk(func(in *doc.Block) {
			content(&in.Content)
			for i := range in.Items {
				for id, c := range in.Items[i].Contents {
					content(&c)
					in.Items[i].Contents[id] = c
				}
			}
		})
	}
}

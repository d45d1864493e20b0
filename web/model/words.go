package model

// Word is a word of the Bench's that isn't plain, with what it means in a sentence.
type Word struct{ Name, Means string }

// OwnWords are those that the Bench explains: where they stand, and in the dialog of keys.
var OwnWords = []Word{
	{"Tray", "Below the canvas or beside it: everything that can be changed about what is selected."},
	{"Shelf", "What can be put in: blocks, ready-made sections, and those that you kept."},
	{"Overview", "The page drawn small, section by section; sections are dragged there, and found."},
	{"Reach", "The rule of widths above the canvas, with the page’s zones and what breaks where."},
	{"Zone", "A range of widths with values of its own: Desktop, Tablet and Phone to begin with."},
	{
		"House style",
		"The site’s colours, type, steps of spacing, corners, shadows and buttons, which all pages follow.",
	},
	{
		"Series",
		"One design that is shown once for each of many items, such as cards: the look is one, the words are each item’s.",
	},
	{"Container", "A box that holds blocks together, in an arrangement of its own."},
	{"Placed", "An arrangement by hand: each block stands in the cells of a grid where it was put."},
	{"Columns", "An arrangement side by side, each column with its share of the width."},
	{"Line-up", "An arrangement in one line, across or down, each block as large as it needs to be."},
	{"Overhang", "How far it reaches out of what it stands in, so that it lies over the edge."},
	{"Grow", "Whether it takes the room in its line that the others leave."},
	{"Landmark", "What the section is to a screen reader: the page’s header, its footer, or a section of it."},
}

// Means explains what the field is about where its name is a word of the Bench’s own, or is "".
func (f field) Means() string {
	for _, w := range OwnWords {
		if w.Name == f.Shown() {
			return w.Means
		}
	}
	return ""
}

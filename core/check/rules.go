package check

// Rules are all of them, in the order in which their findings are listed.
var Rules = []*Rule{
	// Layout.
	&besidePage, &wordsCut, &wordsOver, &covered, &tooWide, &longWord, &overlapping, &alone, &narrowLines, &longLines, &lastWord, &nearMiss,
	&tallBar, &underBar,
	// Reading.
	&contrast, &smallWords, &smallFields, &smallTarget, &headings, &order,
	// Content.
	&deadLink, &noLink, &noWordsLink, &noAlternative, &noLabel, &twice, &standsIn, &vagueLink, &sameLink, &offChart, &about,
	// Weight.
	&heavy, &blurred, &wasteful, &crowded, &unusedFont,
}

// Find gives the rule with an id, or nil.
func Find(id string) *Rule {
	for _, r := range Rules {
		if r.ID == id {
			return r
		}
	}
	return nil
}

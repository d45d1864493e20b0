package inbox

import (
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"openplot/core/number"
)

// Names of the fields of every form that are there to tell people from programs: the first
// has to stay empty, the second is the number of milliseconds from the first look to sending.
const (
	Trap = "_homepage"
	Took = "_took"
	// Once is what the page made up when it was loaded, so that what it sends twice is kept once.
	Once = "_once"
)

// leastTime is how long filling in a form takes a person at least.
const leastTime = 2000 // ms

// Sort takes out the fields that are there to tell people from programs, and says why
// an entry looks like a program's, or "". Of the others those are left that the form has, in its
// order; all of them where its fields aren't known.
func Sort(answers []Answer, fields []string) (rest []Answer, why string) {
	has := func(name string) bool {
		return slices.ContainsFunc(answers, func(a Answer) bool { return a.Field == name })
	}
	if slices.Contains(fields, Trap) && (!has(Trap) || !has(Took)) {
		why = "it lacks fields that the form sends by itself"
	}
	for _, a := range answers {
		switch a.Field {
		case Trap:
			if a.Value != "" {
				why = "a field was filled in that nobody sees"
			}
		case Once:
		case Took:
			ms, err := number.Real(a.Value)
			switch {
			case why != "":
			case err != nil:
				why = "the page’s script didn’t run"
			case ms < leastTime:
				why = "it was sent within two seconds"
			}
		default:
			if len(fields) == 0 || slices.Contains(fields, a.Field) {
				rest = append(rest, a)
			} else if why == "" {
				why = "it has fields that the form hasn’t"
			}
		}
	}
	if len(fields) > 0 {
		slices.SortStableFunc(
			rest,
			func(a, b Answer) int { return slices.Index(fields, a.Field) - slices.Index(fields, b.Field) },
		)
	}
	if why == "" {
		why = wordsOfPrograms(rest)
	}
	return rest, why
}

// How much of what programs write makes an entry look like theirs (common practice).
const (
	manyLinks  = 3  // in all of it
	fewWords   = 12 // of which too few are looked at for what they repeat
	sameWord   = 3  // one word in so many is the same
	sameFields = 3  // so many fields have the same in them
	sameLength = 5  // characters that this has at least
)

var (
	aLink  = regexp.MustCompile(`(?i)\bhttps?://(?:www\.)?|\bwww\.`)
	markup = regexp.MustCompile(`(?i)\[/?url|\[link|</?a[\s>]`)
)

// wordsOfPrograms says what in an entry's words is as programs write, or "".
func wordsOfPrograms(answers []Answer) string {
	links := 0
	count := map[string]int{}
	fields := map[string]int{}
	words := 0
	for _, a := range answers {
		if markup.MatchString(a.Value) {
			return "it has links written as forums take them"
		}
		links += len(aLink.FindAllString(a.Value, -1))
		if v := strings.ToLower(strings.TrimSpace(a.Value)); utf8.RuneCountInString(v) >= sameLength {
			if fields[v]++; fields[v] >= sameFields {
				return "several fields have the same in them"
			}
		}
		for _, w := range split(a.Value) {
			if utf8.RuneCountInString(w) > 2 {
				words++
				count[w]++
			}
		}
	}
	if links >= manyLinks {
		return "it has links in plenty"
	}
	for _, n := range count {
		if words >= fewWords && n*sameWord >= words {
			return "it says one word over and over"
		}
	}
	return ""
}

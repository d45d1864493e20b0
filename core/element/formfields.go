package element

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/phrase"
	"openplot/core/style"
	"openplot/core/value"
)

// fieldTypes are what a field of a form can take: an input's type attribute, or the element, or what
// several of them make.
var fieldTypes = value.Is(
	value.Text,
	"Text",
	value.Email,
	"Email",
	value.Tel,
	"Telephone",
	value.Number,
	"Number",
	value.Date,
	"Date",
	value.Time,
	"Time",
	value.Textarea,
	"Several lines",
	value.Select,
	"Drop-down",
	value.Radio,
	"Radio buttons",
	value.Checkbox,
	"Checkboxes",
	value.YesNo,
	"Yes or no",
	value.Rating,
	"Rating, 1 to 5",
	value.Hidden,
	"Hidden value",
	value.Between,
	"Words between",
	value.Step,
	"New step",
)

// asking are the types that visitors fill in, and some more.
func asking(more ...string) []string {
	all := []string{
		value.Text, value.Email, value.Tel, value.Number, value.Date, value.Time, value.Textarea, value.Select, value.Radio, value.Checkbox,
		value.YesNo, value.Rating,
	}
	return append(all, more...)
}

// limited are the types with a least and a most: of characters, or of what is entered.
var limited = []string{value.Text, value.Tel, value.Textarea, value.Number, value.Date, value.Time}

// Asks reports whether a field of a form is one that visitors fill in.
func Asks(values map[string]string) bool {
	return slices.Contains(asking(), cmp.Or(values["type"], value.Text))
}

// Choices are what there is to choose from in a field of a form; nil where anything can be written.
func Choices(values map[string]string) (all []string) {
	switch values["type"] {
	case value.Rating:
		return []string{"1", "2", "3", "4", "5"}
	case value.Select, value.Radio, value.Checkbox:
	default:
		return nil
	}
	for c := range strings.SplitSeq(cmp.Or(values["choices"], "The first\nThe second"), "\n") {
		if c != "" {
			all = append(all, c)
		}
	}
	return all
}

// filledIn are what browsers fill in by themselves (WCAG 2.2, 1.3.5; HTML §4.10.19.7 has the names).
var filledIn = value.Is(
	value.ByLabel,
	"As the label says",
	"name",
	"Name",
	"given-name",
	"First name",
	"family-name",
	"Last name",
	"organization",
	"Organisation",
	"street-address",
	"Street and number",
	"postal-code",
	"Postcode",
	"address-level2",
	"Town",
	"country-name",
	"Country",
	"off",
	"Nothing",
)

// autocompletes are those of types.
var autocompletes = map[string]string{value.Email: "email", value.Tel: "tel"}

// autofills tell by what a line of text is called, in English.
var autofills = []struct {
	name  string
	words []string
}{
	{"given-name", []string{"first name", "given name"}},
	{"family-name", []string{"last name", "family name", "surname"}},
	{"organization", []string{"company", "organisation", "organization"}},
	{"postal-code", []string{"postcode", "postal code", "zip code"}},
	{"address-level2", []string{"town", "city"}},
	{"country-name", []string{"country"}},
	{"street-address", []string{"address", "street"}},
	{"name", []string{"your name", "full name", "name"}},
}

// autofill gives the autocomplete attribute of a field, or "".
func autofill(takes, says, label string) string {
	if a := autocompletes[takes]; a != "" || takes != value.Text {
		return a
	}
	if says != "" && says != value.ByLabel {
		return says
	}
	label = strings.ToLower(strings.TrimSpace(label))
	for _, a := range autofills {
		if slices.Contains(a.words, label) {
			return a.name
		}
	}
	return ""
}

// patterns are what fields of text take alone, as pattern attributes (ECMA-262 with the v flag, and RE2 alike),
// with what is said of anything else.
var patterns = map[string]struct {
	pattern string
	says    phrase.Key
}{
	value.Digits:        {`[0-9]+`, phrase.Digits},
	value.Letters:       {`[\p{L}\p{M} '’\-]+`, phrase.Letters},
	value.LettersDigits: {`[\p{L}\p{M}\p{N} '’\-]+`, phrase.LettersDigits},
}

// CheckField says what is wrong with a limit of a field of a form, as a *doc.Problem: a number of
// characters, a number, a date or a time, the least of which isn't more than the most.
func CheckField(values map[string]string, name string) error {
	if name != "min" && name != "max" || values[name] == "" {
		return nil
	}
	label := map[string]string{"min": "At least", "max": "At most"}[name]
	read, want := readsLimit(values["type"])
	v, ok := read(values[name])
	if !ok {
		return doc.Problemf(label, "can't be %.40q: write %s", values[name], want)
	}
	other, ok := read(values[map[string]string{"min": "max", "max": "min"}[name]])
	if ok && (name == "min" && v > other || name == "max" && v < other) {
		return doc.Problemf(label, "can't be %.40q: at least is more than at most then", values[name])
	}
	return nil
}

// readsLimit gives what reads a limit of a type of field, to be compared, and what is to be written.
func readsLimit(takes string) (read func(string) (float64, bool), want string) {
	inOrder := func(is func(string) bool) func(string) (float64, bool) { // as digits they are in order
		return func(s string) (float64, bool) {
			n, err := number.Whole(strings.NewReplacer("-", "", ":", "").Replace(s))
			return float64(n), err == nil && is(s)
		}
	}
	switch takes {
	case value.Number:
		return func(s string) (float64, bool) { n, err := number.Real(s); return n, err == nil }, "a number"
	case value.Date:
		return inOrder(doc.IsDate), "a date as year, month and day, such as 2026-12-31"
	case value.Time:
		return inOrder(func(s string) bool {
			_, ok := doc.ParseMoment("2000-01-01T" + s)
			return ok && len(s) == 5
		}), "a time such as 09:30"
	}
	return func(s string) (float64, bool) {
		n, err := number.Whole(s)
		return float64(n), err == nil && n >= 1 && n <= mostCharacters
	}, "how many characters, from 1 to 10000"
}

// mostCharacters is how many a field takes.
const mostCharacters = 10_000

// limit says on a field what it takes; a limit that is none says nothing.
func (b formBlocks) limit(f *Node, e doc.Entry, takes string) {
	least, most := "minlength", "maxlength"
	switch takes {
	case value.Number:
		f.attr("step", "any") // not whole ones alone
		f.attr("inputmode", "decimal")
		least, most = "min", "max"
	case value.Date, value.Time:
		least, most = "min", "max"
	case value.Text:
		if p, ok := patterns[e.Values["only"]]; ok {
			f.attr("pattern", p.pattern)
			f.attr("title", b.says().Say(p.says))
			if e.Values["only"] == value.Digits {
				f.attr("inputmode", "numeric")
			}
		}
	case value.Tel, value.Textarea:
	default:
		return
	}
	read, _ := readsLimit(takes)
	for _, limit := range [][2]string{{least, e.Values["min"]}, {most, e.Values["max"]}} {
		if _, ok := read(limit[1]); ok {
			f.attr(limit[0], limit[1])
		}
	}
}

// hint adds what helps to fill in a field, and reports whether there is any.
func (b formBlocks) hint(row *Node, e doc.Entry, id string) bool {
	if e.Values["hint"] == "" {
		return false
	}
	say(b.child(row, "p", func(z int, st *style.Style) {
		b.smallWords(z, st)
		st.Padding.Bottom = style.Pixels(6)
	}), e.Values["hint"]).attr("id", id+"-hint")
	return true
}

// require has a field be filled in. One that isn't always there is required by the script that shows it, and
// where it arrives.
func (b formBlocks) require(f *Node, e doc.Entry) {
	switch {
	case e.Values["required"] != value.Yes:
	case e.Values["when"] != "":
		f.attr("data-required", "")
	default:
		f.attr("required", "")
	}
}

// only says of a field that is wanted only when another has a value, or any: without a script it is there, with a
// word about it.
func (b formBlocks) only(row *Node, bl *doc.Block, e doc.Entry) {
	when := e.Values["when"]
	if when == "" ||
		!slices.ContainsFunc(bl.Content.Entries, func(o doc.Entry) bool { return o.Values["label"] == when }) {
		return // the field is gone
	}
	row.attr("data-when", when)
	is := e.Values["is"]
	if is != "" {
		row.attr("data-is", is)
	} else {
		is = "…"
	}
	note := say(b.child(row, "p", func(z int, st *style.Style) {
		b.smallWords(z, st)
		st.Padding.Bottom = style.Pixels(6)
	}), b.says().Say(phrase.OnlyIf, when, is))
	note.attr("data-only", "")
}

// hidden adds what is sent without being asked for: what the page's address says, or else a value.
func (b formBlocks) hidden(n *Node, e doc.Entry, label string) {
	f := b.child(n, "input", func(int, *style.Style) {})
	f.Folded = true
	f.attr("type", "hidden")
	f.attr("name", label)
	f.attr("value", e.Values["value"])
	if p := e.Values["parameter"]; p != "" {
		f.attr("data-parameter", p)
	}
}

// between adds words between fields: what they are called, and what more is said.
func (b formBlocks) between(n *Node, bl *doc.Block, e doc.Entry, i int, whole func(int, *style.Style)) {
	row := b.child(n, "div", whole)
	row.Entry = strconv.Itoa(i)
	b.only(row, bl, e)
	say(b.child(row, "p", func(_ int, st *style.Style) { st.FontWeight = 600 }), e.Values["label"]).Part = part(
		i,
		"label",
	)
	if hint := e.Values["hint"]; hint != "" {
		say(b.child(row, "p", func(int, *style.Style) {}), hint)
	}
}

// step begins a step of a form: what comes behind it, as far as the next one.
func (b formBlocks) step(n *Node, bl *doc.Block, e doc.Entry, i int, whole func(int, *style.Style)) *Node {
	group := b.child(n, "div", func(z int, st *style.Style) {
		whole(z, st)
		st.Display, st.ColumnGap, st.RowGap = style.Grid, style.Pixels(formGap), style.Pixels(20)
		st.AlignItems = style.AlignStart
		st.GridColumns = style.EqualColumns(b.fieldsBeside(z))
	})
	group.attr("role", "group")
	group.attr("data-step", "")
	if label := e.Values["label"]; label != "" {
		id := "step-" + bl.ID + b.item + "-" + strconv.Itoa(i+1)
		group.attr("aria-labelledby", id)
		head := b.child(group, "p", func(z int, st *style.Style) {
			whole(z, st)
			words(st, b.sheet(nil, z), "h4")
		})
		head.attr("id", id)
		head.attr("tabindex", "-1") // the script leads there
		head.Entry = strconv.Itoa(i)
		say(head, label).Part = part(i, "label")
	}
	return group
}

// stepping adds what a script leads through the steps by: how far one is, and the ways on and back.
func (b formBlocks) stepping(n *Node, bl *doc.Block, whole func(int, *style.Style)) {
	bar := b.child(n, "div", func(z int, st *style.Style) {
		whole(z, st)
		st.Display, st.ColumnGap, st.AlignItems = style.Flex, style.Pixels(12), style.AlignCenter
	})
	bar.Folded = true
	bar.attr("data-stepping", "")
	bar.attr("hidden", "")
	for _, way := range []struct {
		name string
		says phrase.Key
	}{{"previous", phrase.Previous}, {"next", phrase.Next}} {
		button := b.child(bar, "button", func(z int, st *style.Style) { buttonLook(st, b.sheet(b.buttonStyle(bl), z)) })
		button.attr("type", "button")
		button.attr("data-go", way.name)
		say(button, b.says().Say(way.says))
	}
	far := b.child(bar, "p", b.smallWords)
	far.attr("data-far", "")
	far.attr("aria-live", "polite")
}

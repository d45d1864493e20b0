package element

import (
	"cmp"
	"html"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/inbox"
	"openplot/core/phrase"
	"openplot/core/style"
	"openplot/core/value"
)

// A form asks for things: fields with a label, a hint and what is wanted in them. What
// is sent goes to where Builder.Form says.
var form = Anatomy{
	Name: "Form", Hint: "fields to fill in and send", Icon: "ui-checks", Find: "contact input field send question sign-up signup newsletter enquiry",
	Shelf: Asking, Span: 8, Rows: 12,
	Fields: []Field{
		{Name: "submit", Label: "Button label", Type: Line, Default: "Send"},
		{Name: "consent", Label: "Consent text", Type: Prose, Default: "not shown"},
		{Name: "note", Label: "Note below the button", Type: Prose, Default: "not shown"},
		{Name: "thanks", Label: "Words after sending", Type: Prose, Default: "that it has arrived"},
		{Name: "then", Label: "Page after sending", Type: Address, Default: "one with these words"},
		{Name: "copy", Label: "Copy to the sender", Type: Choice, Choices: value.Is(value.No, "No", value.Yes, "Yes")},
	},
	EntryName: "Fields",
	Entry: []Field{
		{Name: "label", Label: "Label", Type: Line},
		{Name: "type", Label: "Field type", Type: Choice, Choices: fieldTypes},
		{Name: "hint", Label: "Hint", Type: Line, Default: "none", Of: asking(value.Between)},
		{
			Name:    "required",
			Label:   "Required",
			Type:    Choice,
			Choices: value.Is(value.No, "No", value.Yes, "Yes"),
			Of:      asking(),
		},
		{
			Name:  "choices",
			Label: "Choices, one per line",
			Type:  Lines,
			Of:    []string{value.Select, value.Radio, value.Checkbox},
		},
		{
			Name:    "width",
			Label:   "Width",
			Type:    Choice,
			Choices: value.Is(value.Full, "Full", value.Half, "Half"),
			Of:      asking(),
		},
		{Name: "min", Label: "At least", Type: Line, Default: "any", Of: limited},
		{Name: "max", Label: "At most", Type: Line, Default: "any", Of: limited},
		{Name: "only", Label: "Takes only", Type: Choice, Of: []string{value.Text}, Choices: value.Is(
			value.Text,
			"Anything",
			value.Digits,
			"Digits",
			value.Letters,
			"Letters",
			value.LettersDigits,
			"Letters and digits",
		)},
		{Name: "fills", Label: "Browsers fill in", Type: Choice, Choices: filledIn, Of: []string{value.Text}},
		{Name: "parameter", Label: "From the address’s", Type: Line, Default: "nothing", Of: []string{value.Hidden}},
		{Name: "value", Label: "Or else", Type: Line, Default: "nothing", Of: []string{value.Hidden}},
		{Name: "when", Label: "Only if", Type: Line, Default: "always there", Of: asking(value.Between)},
		{Name: "is", Label: "Is", Type: Line, Default: "filled in", Of: asking(value.Between)},
	},
	Settings: []string{
		"field-look", "field-radius", "field-fill", "field-color", "field-border",
		"field-labels", "label-color", "label-size", "label-weight",
		"button-look", "button-size", "button-fill", "button-color", "button-radius", "button-width",
	},
	start: func() *doc.Block {
		entry := func(pairs ...string) doc.Entry {
			v := map[string]string{}
			for i := 0; i+1 < len(pairs); i += 2 {
				v[pairs[i]] = pairs[i+1]
			}
			return doc.Entry{Values: v}
		}
		return &doc.Block{Content: doc.Content{Entries: []doc.Entry{
			entry("label", "Your name", "required", "yes", "width", "half"),
			entry("label", "Where to answer", "type", "email", "required", "yes", "width", "half"),
			entry("label", "What you would like to know", "type", "textarea", "required", "yes"),
		}}}
	},
	build: as(formBlocks.form),
}

// Names of the fields of every form that are there to tell people from programs.
const (
	FormTrap = inbox.Trap
	FormTook = inbox.Took
	FormOnce = inbox.Once
)

// fieldsBeside is how many fields of half width there are on a row: two where each has room for what
// is usually written in it, 240 px (common practice), in the middle of a zone.
func (b formBlocks) fieldsBeside(z int) int {
	if z > 0 && z == len(b.Site.Zones)-1 || typicalContent(b.Site, z)*partOf(b.portion, z) < 2*240+formGap {
		return 1
	}
	return 2
}

// formGap is what there is between two fields beside each other, px.
const formGap = 24

func (b formBlocks) form(outer *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "form", Script: "form"}
	n.attr("method", "post")
	action := "#"
	if b.Form != nil {
		action = b.Form(bl.ID)
	}
	n.attr("action", action)
	n.Styles = b.styles(outer, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
		st.Display, st.ColumnGap, st.RowGap = style.Grid, style.Pixels(formGap), style.Pixels(20)
		st.AlignItems = style.AlignStart
		st.GridColumns = style.EqualColumns(b.fieldsBeside(z))
	})
	if b.DropEmpty { // what becomes of what is sent is read from the published page
		if then := bl.Content.Values["then"]; then != "" && !b.broken(then) {
			n.attr("data-then", b.link(then))
		}
		if thanks := bl.Content.Values["thanks"]; thanks != "" {
			n.attr("data-thanks", thanks)
		}
		if bl.Content.Values["copy"] == value.Yes {
			n.attr("data-copy", "")
		}
	}
	whole := func(z int, st *style.Style) { st.ColumnSpan = b.fieldsBeside(z) }
	in := n // what fields stand in: the form, or a step of it
	isStep := func(e doc.Entry) bool { return e.Values["type"] == value.Step }
	steps := slices.ContainsFunc(bl.Content.Entries, isStep)
	for i, e := range bl.Content.Entries {
		if i == 0 && steps && !isStep(e) {
			in = b.step(n, bl, doc.Entry{}, 0, whole)
		}
		if isStep(e) {
			in = b.step(n, bl, e, i, whole)
			continue
		}
		b.field(in, bl, e, i, whole)
	}
	if c := bl.Content.Values["consent"]; c != "" {
		b.tick(b.child(in, "div", whole), bl, "checkbox", called(c), b.says().Say(phrase.Yes), c+b.asked(), true)
	}
	last := b.child(n, "div", func(z int, st *style.Style) {
		whole(z, st)
		st.Display, st.FlexDirection, st.RowGap, st.AlignItems = style.Flex, style.Column, style.Pixels(
			12,
		), style.AlignStart
	})
	if steps {
		b.stepping(n, bl, whole)
		last.attr("data-end", "")
	}
	// What nobody sees and programs fill in, and how long filling in took, which a script says.
	for _, name := range []string{FormTrap, FormTook, FormOnce} {
		unseen := b.child(last, "input", func(int, *style.Style) {})
		unseen.Folded = true
		unseen.attr("type", "text")
		unseen.attr("name", name)
		unseen.attr("hidden", "")
		unseen.attr("tabindex", "-1")
		unseen.attr("autocomplete", "off")
	}
	send := b.child(last, "button", func(z int, st *style.Style) {
		buttonLook(st, b.sheet(b.buttonStyle(bl), z))
		st.BorderRadius = b.sheet(bl.Style, z).Length("button-radius", st.BorderRadius)
		if b.sheet(bl.Style, z).Word("button-width", value.Default) == value.Full {
			st.AlignSelf = style.AlignStretch
		}
	})
	send.Entry = "submit"
	send.States = b.pressing()
	send.attr("type", "submit")
	say(send, cmp.Or(bl.Content.Values["submit"], "Send"))
	if note := bl.Content.Values["note"]; note != "" {
		say(b.child(last, "p", b.smallWords), note)
	}
	return n
}

// says are the phrases of the site's language.
func (b formBlocks) says() *phrase.Book { return phrase.In(b.Site.Language) }

// asked is what is said of what has to be filled in.
func (b formBlocks) asked() string { return b.says().Say(phrase.Required) }

// called is what a field is called that is known by its words.
func called(words string) string {
	if r := []rune(words); len(r) > longestCalled {
		return strings.TrimSpace(string(r[:longestCalled-1])) + "…"
	}
	return words
}

const longestCalled = 120

func (b formBlocks) field(n *Node, bl *doc.Block, e doc.Entry, i int, whole func(int, *style.Style)) {
	takes, required := cmp.Or(e.Values["type"], value.Text), e.Values["required"] == value.Yes
	id := "field-" + bl.ID + b.item + "-" + strconv.Itoa(i+1)
	label := cmp.Or(e.Values["label"], "Field "+strconv.Itoa(i+1))
	choices := Choices(e.Values)
	switch takes {
	case value.Hidden:
		b.hidden(n, e, label)
		return
	case value.Between:
		b.between(n, bl, e, i, whole)
		return
	case value.YesNo:
		row := b.child(n, "div", whole)
		row.Entry = strconv.Itoa(i)
		b.only(row, bl, e)
		words := label
		if required {
			words += b.asked()
		}
		b.hint(row, e, id)
		b.require(b.tick(row, bl, "checkbox", label, b.says().Say(phrase.Yes), words, false), e)
		return
	case value.Rating:
		takes = value.Radio
	}
	many := takes == value.Radio || takes == value.Checkbox
	in, tag := "div", "label"
	if many {
		in, tag = "fieldset", "legend"
	}
	row := b.child(n, in, func(z int, st *style.Style) {
		if e.Values["width"] != value.Half {
			whole(z, st)
		} else if !many && takes != value.Textarea { // fields side by side are level, whatever their labels are
			st.AlignSelf = style.AlignEnd
		}
	})
	row.Entry = strconv.Itoa(i)
	// A label in the field is there for those who hear it; what can't show one keeps its own above.
	inside := !many && takes != value.Select && takes != value.Date && takes != value.Time &&
		b.fieldLabels(bl) == value.Inside
	head := b.child(row, tag, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		if st.Display, st.FontWeight = style.Block, 600; many {
			st.Width = style.Percentage(100) // a legend is as wide as its words by itself
		}
		if w := sh.Number("label-weight"); w > 0 {
			st.FontWeight = int(w)
		}
		st.Color = sh.Colour("label-color", st.Color)
		if size := sh.Length("label-size", style.Length{}); size.Unit != style.Auto {
			st.FontSize = size
		}
		st.Padding.Bottom = style.Pixels(6)
		if inside {
			st.Position, st.Width, st.Height = style.Absolute, style.Pixels(1), style.Pixels(1)
			st.Inset.Top, st.Inset.Left = style.Pixels(0), style.Pixels(0)
			st.Overflow, st.ClipPath, st.Padding.Bottom = style.Hidden, "inset(50%)", style.Pixels(0)
		}
	})
	if inside {
		for z := range row.Styles {
			row.Styles[z].Position = style.Relative
		}
	}
	if !many {
		head.attr("for", id)
	}
	text := label
	if required && takes != value.Checkbox {
		text += b.asked()
	}
	switch written := say(head, label); {
	case inside, b.DropEmpty && text != label:
		head.Children[0].Text = text
	case text == label:
		written.Part = part(i, "label")
	default: // what is written is the label alone
		head.Children = nil
		say(b.child(head, "span", func(_ int, st *style.Style) { st.Display = style.Inline }), label).Part = part(
			i,
			"label",
		)
		say(head, strings.TrimPrefix(text, label))
	}
	b.only(row, bl, e) // behind the legend, which has to come first
	hint := b.hint(row, e, id)
	if many {
		if hint {
			row.attr("aria-describedby", id+"-hint")
		}
		in := row
		if e.Values["type"] == value.Rating { // beside one another
			in = b.child(row, "div", func(_ int, st *style.Style) {
				st.Display, st.FlexWrap, st.ColumnGap, st.RowGap = style.Flex, style.Wrap, style.Pixels(
					20,
				), style.Pixels(
					4,
				)
			})
		}
		for _, c := range choices {
			box := b.tick(in, bl, takes, label, c, c, false)
			if takes == value.Radio {
				b.require(box, e)
			}
		}
		return
	}
	input := "input"
	switch takes {
	case value.Textarea, value.Select:
		input = takes
	}
	f := b.child(row, input, func(z int, st *style.Style) {
		b.inputLook(st, bl, z)
		if st.Height = style.Pixels(48).InRem(); input == "textarea" {
			st.Height = style.Pixels(140).InRem()
		}
		if input == "select" {
			st.BackgroundURL = `data:image/svg+xml,%3Csvg%20xmlns='http://www.w3.org/2000/svg'%20viewBox='0%200%2016%2016'%20width='16'%20height='16'%20fill='none'%20stroke='%23555'%20stroke-width='2'%3E%3Cpath%20d='M3%205.5l5%205%205-5'/%3E%3C/svg%3E`
			st.BackgroundFit = "right 14px center/16px no-repeat"
		}
	})
	f.attr("id", id)
	f.attr("name", label)
	if input == "input" {
		f.attr("type", takes)
		if a := autofill(takes, e.Values["fills"], label); a != "" {
			f.attr("autocomplete", a)
		}
	}
	b.limit(f, e, takes)
	b.require(f, e)
	if inside {
		f.attr("placeholder", text)
	}
	if hint {
		f.attr("aria-describedby", id+"-hint")
	}
	if input == "select" {
		var raw strings.Builder
		raw.WriteString(`<option value="">` + html.EscapeString(b.says().Say(phrase.Choose)) + `</option>`)
		for _, c := range choices {
			raw.WriteString("<option>" + html.EscapeString(c) + "</option>")
		}
		f.Raw = raw.String()
	}
}

// fieldLabels tells where a form's labels are: as it says itself, or the house style.
func (b formBlocks) fieldLabels(bl *doc.Block) string {
	if v := b.sheet(bl.Style, 0).Word("field-labels", value.Default); v != value.Default {
		return v
	}
	return cmp.Or(b.Site.House.Forms.Labels, value.Above)
}

// buttonStyle gives the part of a form's style that is its button's.
func (b formBlocks) buttonStyle(bl *doc.Block) doc.Style {
	out := doc.Style{}
	for name, of := range map[string]string{
		"button-look": "button-look", "button-size": "button-size",
		"button-fill": "background", "button-color": "color",
	} {
		if v, ok := bl.Style[name]; ok {
			out[of] = v
		}
	}
	return out
}

// inputLook is what fields to write in look like: as their block says, or the house style;
// by themselves words on the page's ground, with a line that can be seen (WCAG 2.2, 1.4.11).
func (b formBlocks) inputLook(st *style.Style, bl *doc.Block, z int) {
	sh, house := b.sheet(bl.Style, z), &b.Site.House
	// As wide as there is room, whatever width browsers give a field by itself.
	st.Width, st.MinWidth = style.Pixels(1), style.Percentage(100)
	st.Padding = style.Edges{
		Top:    style.Pixels(10),
		Right:  style.Pixels(14),
		Bottom: style.Pixels(10),
		Left:   style.Pixels(14),
	}
	look := sh.Word("field-look", value.Default)
	if look == value.Default {
		look = cmp.Or(house.Forms.Look, value.Box)
	}
	fill := sh.Swatch("ground", "#ffffff")
	st.Border = style.AllSides(1)
	switch look {
	case value.Filled:
		fill = sh.Swatch("quiet-ground", "#f6f1e8")
		st.Border = style.Widths{Bottom: 2}
	case value.Below:
		fill = ""
		st.Border = style.Widths{Bottom: 2}
		st.Padding.Left, st.Padding.Right = style.Pixels(2), style.Pixels(2)
	}
	radius := style.Pixels(4)
	if c, ok := doc.FindStep(house.Corners, house.Forms.Corners); ok {
		radius = style.Pixels(c.Px)
	}
	if look == value.Below {
		radius = style.Pixels(0)
	}
	st.Background = sh.Colour("field-fill", fill)
	st.BorderRadius = sh.Length("field-radius", radius)
	st.BorderColor = sh.Colour("field-border", sh.Swatch("quiet-words", "#56615f"))
	st.Color = sh.Colour("field-color", sh.Swatch("words", "#1f2a2c"))
	if sh.Word("field-color", value.Default) == value.Default {
		sh.Style = nil // the colour of words around them isn't that of fields
		if st.Background == "" {
			probe := *st
			probe.Background = style.Over("", st.Behind)
			legible(&probe, sh)
			st.Color = probe.Color
		} else {
			legible(st, sh)
		}
	}
}

// tick adds a box to tick, or one of several to choose, with its words.
func (b formBlocks) tick(in *Node, bl *doc.Block, kind, name, value, words string, required bool) *Node {
	l := b.child(in, "label", func(_ int, st *style.Style) {
		st.Display, st.ColumnGap, st.AlignItems = style.Flex, style.Pixels(10), style.AlignStart
		st.Padding.Top, st.Padding.Bottom = style.Pixels(4), style.Pixels(4)
	})
	sh := func(z int) style.Sheet { return b.sheet(nil, z) }
	box := b.child(l, "input", func(z int, st *style.Style) {
		b.inputLook(st, bl, z)
		st.Padding, st.Border, st.BorderRadius = style.Edges{}, style.AllSides(1), style.Pixels(4)
		st.Background = sh(z).Swatch("ground", "#ffffff")
		st.Width, st.Height, st.FlexShrink = style.Pixels(22), style.Pixels(22), style.Times0
		st.MinWidth = style.Length{}
		if kind == "radio" {
			st.BorderRadius = style.Pixels(11)
		}
	})
	box.States = []State{{":checked", func(z int, st *style.Style) {
		st.Background = sh(z).Swatch("accent", "#1d5f6b")
		st.BoxShadow = "inset 0 0 0 4px " + sh(z).Swatch("ground", "#ffffff")
	}}}
	box.attr("type", kind)
	box.attr("name", name)
	box.attr("value", value)
	if required {
		box.attr("required", "")
	}
	say(
		b.child(l, "span", func(_ int, st *style.Style) { st.Display, st.MinWidth = style.Block, style.Pixels(0) }),
		words,
	)
	return box
}

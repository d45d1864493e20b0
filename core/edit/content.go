package edit

import (
	"maps"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/settings"
	"openplot/core/style"
	"openplot/core/value"
)

// content is what the block says, in the item it was pointed at.
func (e contentEdits) content() doc.Content {
	if e.series != nil {
		return e.series.Items[e.item].Shows(e.block).Content
	}
	return e.block.Content
}

// say gives the step after which the block, or the item it was pointed at in, says
// something else.
func (e contentEdits) say(c doc.Content) []Step {
	if e.series == nil {
		return e.replace(func(b *doc.Block) { b.Content = c })
	}
	return e.items(func(items []doc.Item) []doc.Item {
		it := &items[e.item]
		contents := make(map[string]doc.Content, len(it.Contents)+1)
		for id, was := range it.Contents {
			contents[id] = was
		}
		contents[e.block.ID] = c
		it.Contents = contents
		return items
	})
}

// items gives the step that changes a Series' items.
func (e contentEdits) items(change func([]doc.Item) []doc.Item) []Step {
	return setBlock(e.series, func(b *doc.Block) { b.Items = change(slices.Clone(b.Items)) })
}

func (e contentEdits) write() ([]Step, error) {
	if !e.block.Kind.Is(doc.Worded) {
		return nil, doc.Problemf("Text", "a %s has none of its own", e.block.Kind)
	}
	c := e.content()
	w, err := ParseWords(e.c.Value)
	if err != nil {
		return nil, err
	}
	if z := e.zones().Index(e.c.Zone); z > 0 && element.Varies(e.block.Kind, c) {
		if _, from := c.WordsIn(e.zones(), z); from != e.zones().Widest() {
			c.Instead = c.Instead.With(from, w)
			return e.say(c), nil
		}
	}
	c.Words = w
	return e.say(c), nil
}

// ownWords lets a block say something else in a narrower zone: what it says there now, to begin
// with; or lets it say what it does in the wider one.
func (e contentEdits) ownWords() ([]Step, error) {
	z, c := e.zones().Index(e.c.Zone), e.content()
	switch {
	case z == 0:
		return nil, doc.Problemf(
			"Text",
			"is what the other zones follow in %s; choose a narrower zone",
			e.zones()[0].Name,
		)
	case !element.Varies(e.block.Kind, c):
		return nil, doc.Problemf(
			"Text",
			"can't differ by zone in a %s that goes round a picture, or has more than words; headings, texts, quotes and buttons can",
			e.block.Kind,
		)
	}
	_, own := c.Instead[e.c.Zone]
	switch {
	case e.c.Hide && own:
		c.Instead = c.Instead.Without(e.c.Zone)
	case !e.c.Hide && !own:
		w, _ := c.WordsIn(e.zones(), z)
		c.Instead = c.Instead.With(e.c.Zone, w)
	default:
		return nil, nil
	}
	return e.say(c), nil
}

func (e contentEdits) setContent() ([]Step, error) {
	f := element.Of(e.block.Kind).Field(e.c.Setting)
	if f == nil {
		return nil, doc.Problemf("Setting", "%.40q isn't part of a %s's content", e.c.Setting, e.block.Kind)
	}
	v, err := e.read(f)
	if err != nil {
		return nil, err
	}
	return e.say(element.With(e.content(), f.Name, v)), nil
}

// read checks what was entered for a field and gives its canonical form.
func (e contentEdits) read(f *element.Field) (string, error) {
	v := strings.TrimSpace(e.c.Value)
	switch f.Type {
	case element.Line:
		return doc.Line(f.Label, v, 300)
	case element.Prose:
		return doc.Line(f.Label, strings.Join(strings.Fields(v), " "), 1000)
	case element.Lines:
		return doc.Lines(f.Label, v, 100)
	case element.Address:
		return settings.CheckLink(v)
	case element.PictureID:
		return v, e.medium(f.Label, v, doc.PictureMedium)
	case element.VideoID:
		return v, e.medium(f.Label, v, doc.VideoMedium)
	case element.AudioID:
		return v, e.medium(f.Label, v, doc.AudioMedium)
	case element.Choice:
		on := f.On(e.env.Site)
		if !slices.ContainsFunc(on, func(c value.Choice) bool { return c.Value == v }) {
			return "", doc.Problemf(f.Label, "can't be %.40q: choose %s", v, value.Labels(on))
		}
		return v, nil
	case element.Number:
		if v == "" {
			return "", nil
		}
		n, err := style.Evaluate(v)
		if err != nil || n < f.Min || n > f.Max {
			return "", doc.Problemf(
				f.Label,
				"can't be %.40q: write a number from %s to %s",
				v,
				style.Number(f.Min),
				style.Number(f.Max),
			)
		}
		return style.Number(n), nil
	}
	return special(f, e.editing, v)
}

// special reads fields that only some kinds have.
func special(f *element.Field, e *editing, v string) (string, error) {
	switch f.Type {
	case element.IconName:
		if v != "" && (e.env.HasIcon == nil || !e.env.HasIcon(v)) {
			return "", doc.Problemf(
				f.Label,
				"can't be %.40q: the set has none of that name; look for a word such as clock",
				v,
			)
		}
		return v, nil
	case element.LocalTime:
		if _, ok := doc.ParseMoment(v); v != "" && !ok {
			return "", doc.Problemf(f.Label, "can't be %.40q: write it as 2027-06-01T18:00", v)
		}
		return v, nil
	case element.LinkName:
		v = strings.TrimPrefix(v, "#")
		if v != "" && !anchorPattern.MatchString(v) {
			return "", doc.Problemf(
				f.Label,
				"can't be %.60q: write small letters, digits and hyphens, such as opening-hours",
				v,
			)
		}
		if taken := e.anchored(v); taken {
			return "", doc.Problemf(f.Label, "%q is taken on this page; choose another", v)
		}
		return v, nil
	case element.Markup:
		if n := len(e.c.Value); n > doc.MaxMarkup {
			return "", doc.Problemf(f.Label, "has %d bytes; write at most %d", n, doc.MaxMarkup)
		}
		return e.c.Value, nil
	case element.Cells:
		return readCells(f, e.c.Value)
	}
	return "", doc.Problemf(f.Label, "can't be entered")
}

// anchored reports whether a name leads somewhere on the page already, beside the
// block.
func (e *editing) anchored(name string) bool {
	found := false
	for _, s := range e.page.Sections {
		found = found || name != "" && (s.Anchor == name || s.View != nil && s.View.Anchor == name)
		s.Walk(func(b *doc.Block) {
			found = found || name != "" && b != e.block && b.Kind == doc.Anchor && b.Content.Values["name"] == name
		})
	}
	return found
}

// readCells reads what was pasted from a spreadsheet.
func readCells(f *element.Field, v string) (string, error) {
	v = strings.Trim(strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(v), "\n")
	rows := strings.Count(v, "\n") + 1
	widest := 0
	lines := strings.SplitN(v, "\n", doc.MaxCells+1)
	for i, line := range lines {
		cells := strings.SplitN(line, "\t", doc.MaxCells+1)
		widest = max(widest, len(cells))
		for k, c := range cells {
			var err error
			if cells[k], err = doc.Line(f.Label, c, 300); err != nil {
				return "", err
			}
		}
		lines[i] = strings.Join(cells, "\t")
	}
	if n := rows * widest; n > doc.MaxCells {
		return "", doc.Problemf(
			f.Label, "are %d, in %d rows and %d columns; a table holds at most %d, since more can't be read on a phone",
			n, rows, widest, doc.MaxCells,
		)
	}
	return strings.Trim(strings.Join(lines, "\n"), "\n"), nil // a row of blanks has become empty
}

// entries gives the step that changes what the block lists, after checking that it
// lists something and has the entry that the command names.
func (e contentEdits) entries(change func([]doc.Entry) ([]doc.Entry, error)) ([]Step, error) {
	if a := element.Of(e.block.Kind); a.EntryName == "" {
		return nil, doc.Problemf("Entry", "a %s has no list", e.block.Kind)
	}
	c := e.content()
	if e.c.Op != "entry.add" && e.c.Op != "entry.fill" && (e.c.At < 0 || e.c.At >= len(c.Entries)) {
		return nil, doc.Problemf("Entry", "%d isn't there any more; there are %d", e.c.At+1, len(c.Entries))
	}
	var err error
	if c.Entries, err = change(slices.Clone(c.Entries)); err != nil {
		return nil, err
	}
	return e.say(c), nil
}

// addEntry adds one like that before it.
func (e contentEdits) addEntry() ([]Step, error) {
	return e.entries(func(es []doc.Entry) ([]doc.Entry, error) {
		if len(es) >= doc.MaxItems {
			return nil, doc.Problemf("Entry", "can't be added: %d are the most there can be", doc.MaxItems)
		}
		at := min(max(e.c.At, 0), len(es))
		return slices.Insert(es, at, e.freshEntry(es, at)), nil
	})
}

// freshEntry is a new entry, which begins like the one before it: with its choices and pictures, but with words
// of its own.
func (e contentEdits) freshEntry(es []doc.Entry, at int) (fresh doc.Entry) {
	if like := element.Start(e.block.Kind).Content.Entries; len(like) > 0 {
		fresh = like[len(like)-1]
	}
	if at == 0 || at > len(es) || e.block.Kind == doc.Form && !element.Asks(es[at-1].Values) {
		return fresh
	}
	values := maps.Clone(fresh.Values)
	for _, f := range element.Of(e.block.Kind).Entry {
		v, set := es[at-1].Values[f.Name]
		if set && len(f.Choices) > 0 && f.Name != "fills" {
			if values == nil {
				values = map[string]string{}
			}
			values[f.Name] = v
		}
	}
	fresh.Values = values
	return fresh
}

func (e contentEdits) removeEntry() ([]Step, error) {
	return e.entries(func(es []doc.Entry) ([]doc.Entry, error) { return without(es, e.c.At), nil })
}

func (e contentEdits) shiftEntry() ([]Step, error) {
	return e.entries(func(es []doc.Entry) ([]doc.Entry, error) {
		return shifted(es, e.c.At, e.c.DY), nil
	})
}

// shifted moves an element some places earlier or later.
func shifted[T any](s []T, at, by int) []T {
	to := min(max(at+by, 0), len(s)-1)
	moved := s[at]
	return slices.Insert(slices.Delete(s, at, at+1), to, moved)
}

func (e contentEdits) duplicateEntry() ([]Step, error) {
	return e.entries(func(es []doc.Entry) ([]doc.Entry, error) {
		if len(es) >= doc.MaxItems {
			return nil, doc.Problemf("Entry", "can't be duplicated: %d are the most there can be", doc.MaxItems)
		}
		return slices.Insert(es, e.c.At+1, es[e.c.At]), nil
	})
}

func (e contentEdits) writeEntry() ([]Step, error) {
	return e.entries(func(es []doc.Entry) ([]doc.Entry, error) {
		if !element.Of(e.block.Kind).EntryWords {
			return nil, doc.Problemf("Text", "entries of a %s have none", e.block.Kind)
		}
		var err error
		es[e.c.At].Words, err = ParseWords(e.c.Value)
		return es, err
	})
}

func (e contentEdits) setEntry() ([]Step, error) {
	return e.entries(func(es []doc.Entry) ([]doc.Entry, error) {
		f := element.Of(e.block.Kind).EntryField(e.c.Setting)
		if f == nil {
			return nil, doc.Problemf("Setting", "%.40q isn't part of an entry of a %s", e.c.Setting, e.block.Kind)
		}
		v, err := e.read(f)
		if err != nil {
			return es, err
		}
		was := es[e.c.At].Values[f.Name]
		es[e.c.At].Values = element.WithValue(es[e.c.At].Values, f.Name, v)
		if e.block.Kind != doc.Form {
			return es, nil
		}
		if f.Name == "label" && was != "" { // fields that are there because of it go on being so
			for i := range es {
				if es[i].Values["when"] == was {
					es[i].Values = element.WithValue(es[i].Values, "when", v)
				}
			}
		}
		return es, element.CheckField(es[e.c.At].Values, f.Name)
	})
}

// fillEntry sets a value in the first entry that has none of it yet, or in a new one behind
// the last.
func (e contentEdits) fillEntry() ([]Step, error) {
	f := element.Of(e.block.Kind).EntryField(e.c.Setting)
	if f == nil {
		return nil, doc.Problemf("Setting", "%.40q isn't part of an entry of a %s", e.c.Setting, e.block.Kind)
	}
	e.c.At = slices.IndexFunc(e.content().Entries, func(en doc.Entry) bool { return en.Values[f.Name] == "" })
	if e.c.At >= 0 {
		return e.setEntry()
	}
	e.c.At = 0
	return e.entries(func(es []doc.Entry) ([]doc.Entry, error) {
		if len(es) >= doc.MaxItems {
			return nil, doc.Problemf("Entry", "can't be added: %d are the most there can be", doc.MaxItems)
		}
		v, err := e.read(f)
		if err != nil {
			return nil, err
		}
		return append(es, doc.Entry{Values: element.WithValue(nil, f.Name, v)}), nil
	})
}

// ofItem checks that the node is in an item of a Series.
func (e contentEdits) ofItem() error {
	if e.series == nil {
		return doc.Problemf("Item", "choose one of a Series first")
	}
	return nil
}

// addItem adds an item behind the one pointed at, saying the same; behind the last
// when the Series itself was.
func (e contentEdits) addItem() ([]Step, error) {
	if e.series == nil && e.block.Kind == doc.Series {
		e.series, e.item = e.block, len(e.block.Items)-1
	}
	if err := e.ofItem(); err != nil {
		return nil, err
	}
	if len(e.series.Items) >= doc.MaxItems {
		return nil, doc.Problemf("Item", "can't be added: a Series has at most %d", doc.MaxItems)
	}
	fresh := doc.Item{ID: e.env.NewID("i")}
	if e.item >= 0 {
		fresh.Contents = e.series.Items[e.item].Contents
	}
	if len(e.series.Blocks) > 0 {
		e.selected = doc.ItemID(e.series.Blocks[0].ID, fresh.ID)
	}
	return e.items(func(items []doc.Item) []doc.Item { return slices.Insert(items, e.item+1, fresh) }), nil
}

func (e contentEdits) removeItem() ([]Step, error) {
	if err := e.ofItem(); err != nil {
		return nil, err
	}
	e.selected = e.series.ID
	return e.items(func(items []doc.Item) []doc.Item { return without(items, e.item) }), nil
}

// moveItem puts an item where it is the one at an index.
func (e contentEdits) moveItem() ([]Step, error) {
	if err := e.ofItem(); err != nil {
		return nil, err
	}
	now, to := e.item, min(max(e.c.At, 0), len(e.series.Items)-1)
	if now == to {
		return nil, nil
	}
	return e.items(func(items []doc.Item) []doc.Item {
		it := items[now]
		return slices.Insert(slices.Delete(items, now, now+1), to, it)
	}), nil
}

func (e contentEdits) shiftItem() ([]Step, error) {
	if err := e.ofItem(); err != nil {
		return nil, err
	}
	return e.items(func(items []doc.Item) []doc.Item { return shifted(items, e.item, e.c.DY) }), nil
}

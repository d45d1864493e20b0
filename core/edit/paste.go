package edit

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/settings"
	"openplot/core/style"
	"openplot/core/value"
)

// paste adds what was copied: sections behind the selected one, blocks in the section or
// container that is selected or behind the selected block. What this site hasn't, such as
// pictures of another, is left out.
func (e additions) paste() ([]Step, error) {
	c, err := carry.ReadClip(e.c.Value)
	if err != nil {
		return nil, err
	}
	if len(c.Sections) > 0 {
		return e.pasteSections(c.Sections)
	}
	if len(c.Blocks) == 0 {
		return nil, doc.Problemf("Clipboard", "has no blocks: copy some first")
	}
	blocks := make([]*doc.Block, len(c.Blocks))
	for i, was := range c.Blocks {
		b, err := e.clean(was, 0)
		if err != nil {
			return nil, err
		}
		blocks[i] = b.Anew(e.env.NewID)
	}
	into := e.section.ID
	if e.block != nil {
		into = e.section.HolderOf(e.block.ID).ID
		// A container takes them in, but not another one like itself: that goes beside it.
		if e.block.Kind.Is(doc.Holding) && e.block.Kind != doc.Series &&
			!slices.ContainsFunc(blocks, func(b *doc.Block) bool { return b.Kind == e.block.Kind }) {
			into = e.block.ID
		}
	}
	if outer := e.section.Path(into); len(outer) > 0 &&
		outer[len(outer)-1].Kind == doc.Series { // its design is one block
		into = e.section.HolderOf(into).ID
	}
	h, err := e.into(into)
	if err != nil {
		return nil, err
	}
	at := len(h.Blocks)
	if e.block != nil && h.Index(e.block.ID) >= 0 {
		at = h.Index(e.block.ID) + 1
	}
	var steps []Step
	var below int // rows that what is pasted is moved down
	widest := e.zones().Widest()
	if h.Arrangement == doc.Placed {
		below = place.FreeRow(place.Resolve(h, e.zones())[0]) - 1
	}
	top := doc.MaxRow
	for _, b := range blocks {
		if p, ok := b.Place[widest]; ok {
			top = min(top, p.Row)
		}
	}
	for i, b := range blocks {
		if h.Arrangement == doc.Placed {
			if p, ok := b.Place[widest]; ok { // as they stood to one another, below what is there
				p.Row += below + 1 - top
				b.Place = doc.Zoned[doc.Place]{widest: place.Fit(p, h.Columns(e.zones(), 0))}
			} else if b.Place, _, err = e.cells(h, b.Kind, nil); err != nil {
				return nil, err
			}
		}
		if i == 0 {
			e.selected = b.ID
		}
		steps = append(steps, Step{Do: InsertBlock, Parent: h.ID, At: at + i, Block: b})
	}
	return steps, nil
}

func (e additions) pasteSections(list []*doc.Section) ([]Step, error) {
	at := len(e.page.Sections)
	if _, i := e.page.Section(e.section.ID); i >= 0 {
		at = i + 1
	}
	var steps []Step
	for i, was := range list {
		s, err := e.cleanSection(was)
		if err != nil {
			return nil, err
		}
		s = anew(s, e.env.NewID)
		if i == 0 {
			e.selected = s.ID
		}
		steps = append(steps, Step{Do: InsertSection, At: at + i, Section: s})
	}
	return steps, nil
}

// clean gives a block of which all is checked as if somebody had entered it, with what can't
// be here left out. It keeps its id.
func (e additions) clean(was *doc.Block, depth int) (*doc.Block, error) {
	if was == nil || element.Of(was.Kind) == nil {
		kind := doc.Kind("")
		if was != nil {
			kind = was.Kind
		}
		return nil, doc.Problemf("Clipboard", "has a block of the kind %.40q, which this version doesn't know", kind)
	}
	if depth > doc.MaxDepth {
		return nil, doc.Problemf("Clipboard", "has containers within each other more than %d deep", doc.MaxDepth)
	}
	b := &doc.Block{
		ID:      was.ID,
		Kind:    was.Kind,
		Name:    plainText(was.Name, doc.MaxNameRunes),
		Style:   e.cleanStyle(was.Style, was.Kind),
		Content: e.cleanContent(was.Kind, was.Content),
	}
	columns := place.Twelfths
	if e.whole {
		columns, b.Locked = doc.MaxColumns, was.Locked
	}
	for zone, p := range was.Place {
		if i := e.zones().Index(zone); i >= 0 {
			b.Place = b.Place.With(zone, place.Fit(p, columns))
		}
	}
	for zone, hidden := range was.Hidden {
		if e.zones().Index(zone) >= 0 {
			b.Hidden = b.Hidden.With(zone, hidden)
		}
	}
	if !was.Kind.Is(doc.Holding) {
		return b, nil
	}
	b.Arrangement = arrangementOr(was.Arrangement)
	for _, in := range was.Blocks {
		c, err := e.clean(in, depth+1)
		if err != nil {
			return nil, err
		}
		b.Blocks = append(b.Blocks, c)
	}
	if e.whole && b.Arrangement == doc.Placed && b.Kind != doc.Series {
		e.standAll(b.Blocks)
	}
	if was.Kind != doc.Series {
		return b, nil
	}
	if len(b.Blocks) != 1 || len(was.Items) > doc.MaxItems {
		return nil, doc.Problemf(
			"Clipboard",
			"has a Series of %d designs and %d items; one has 1 design and at most %d items",
			len(b.Blocks),
			len(was.Items),
			doc.MaxItems,
		)
	}
	kinds := map[string]doc.Kind{}
	b.Walk(func(in *doc.Block) { kinds[in.ID] = in.Kind })
	for _, it := range was.Items {
		own := map[string]doc.Content{}
		for id, c := range it.Contents {
			if kind, ok := kinds[id]; ok {
				own[id] = e.cleanContent(kind, c)
			}
		}
		b.Items = append(b.Items, doc.Item{ID: it.ID, Contents: own})
	}
	return b, nil
}

func arrangementOr(a doc.Arrangement) doc.Arrangement {
	if a == doc.Columns || a == doc.LineUp {
		return a
	}
	return doc.Placed
}

// cleanStyle keeps the settings that a kind has, with values that this house style has.
func (e additions) cleanStyle(was doc.Style, kind doc.Kind) doc.Style {
	var out doc.Style
	for name, zoned := range was {
		s := style.Find(name, kind)
		if s == nil {
			continue
		}
		for zone, entry := range zoned {
			v, problem := s.Read(&e.env.Site.House, entry)
			if problem != nil || e.zones().Index(zone) < 0 {
				continue
			}
			if out == nil {
				out = doc.Style{}
			}
			out[name] = out[name].With(zone, v)
		}
	}
	return out
}

// cleanContent keeps what can be entered for a kind.
func (e additions) cleanContent(kind doc.Kind, was doc.Content) doc.Content {
	a := element.Of(kind)
	kept := func(f *element.Field, v string) string {
		at := *e.editing
		at.block, at.c.Value = nil, v
		v, err := contentEdits{&at}.read(f)
		if err != nil {
			return ""
		}
		return v
	}
	var c doc.Content
	if kind.Is(doc.Worded) {
		c.Words = cleanWords(was.Words)
	}
	for zone, w := range was.Instead {
		if element.Varies(kind, c) && e.zones().Index(zone) > 0 {
			c.Instead = c.Instead.With(zone, cleanWords(w))
		}
	}
	if kind == doc.Heading {
		c.Level = min(max(was.Level, 1), 6)
	}
	for i := range a.Fields {
		f := &a.Fields[i]
		if v := element.Value(was, f.Name); v != "" && f.Name != "words" && f.Name != "level" {
			c = element.With(c, f.Name, kept(f, v))
		}
	}
	for _, entry := range was.Entries[:min(len(was.Entries), doc.MaxItems)] {
		var to doc.Entry
		for i := range a.Entry {
			if v := entry.Values[a.Entry[i].Name]; v != "" {
				to.Values = element.WithValue(to.Values, a.Entry[i].Name, kept(&a.Entry[i], v))
			}
		}
		if a.EntryWords {
			to.Words = cleanWords(entry.Words)
		}
		if a.EntryName != "" {
			c.Entries = append(c.Entries, to)
		}
	}
	return c
}

// cleanWords keeps what words can be.
func cleanWords(was doc.Words) (out doc.Words) {
	left := doc.MaxWordsRunes
	for _, p := range was {
		var to doc.Paragraph
		for _, r := range p {
			r.Text = strings.Map(func(c rune) rune {
				if c == utf8.RuneError || unicode.IsControl(c) && c != '\n' {
					return -1
				}
				return c
			}, r.Text)
			if left -= utf8.RuneCountInString(r.Text); left < 0 {
				return out
			}
			r.Link, _ = settings.CheckLink(r.Link)
			r.Bound()
			if !slices.Contains([]string{"", value.Disc, value.Decimal}, r.Item) {
				r.Item = ""
			}
			if r.Depth = min(max(r.Depth, 0), doc.MostDepth); r.Item == "" {
				r.Depth = 0
			}
			if !slices.Contains([]string{"", "h2", "h3", "h4", "quote"}, r.As) {
				r.As = ""
			}
			if r.Text != "" {
				to = append(to, r)
			}
		}
		out = append(out, to)
	}
	return out
}

// plainText is a line of text without what can't be in one.
func plainText(v string, limit int) string {
	v, err := doc.Line("", v, limit)
	if err != nil {
		return ""
	}
	return v
}

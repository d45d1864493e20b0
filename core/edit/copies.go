package edit

import (
	"maps"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/core/value"
)

// builtAlike reports whether two blocks are built the same, so that what differs is what they say;
// with look they also look the same.
func builtAlike(a, b *doc.Block, look bool) bool {
	if a.Kind != b.Kind || a.Arrangement != b.Arrangement || len(a.Blocks) != len(b.Blocks) || a.Kind == doc.Series {
		return false
	}
	if look && !reflect.DeepEqual(a.Style, b.Style) {
		return false
	}
	for i := range a.Blocks {
		if !builtAlike(a.Blocks[i], b.Blocks[i], look) {
			return false
		}
	}
	return true
}

// differing adds what a copy of a block says otherwise to contents, by the ids of the block's.
func differing(contents map[string]doc.Content, of, copy *doc.Block) {
	if !reflect.DeepEqual(of.Content, copy.Content) {
		contents[of.ID] = copy.Content
	}
	for i := range of.Blocks {
		differing(contents, of.Blocks[i], copy.Blocks[i])
	}
}

// toSeries makes a Series of a block and its copies beside it, or of those that the command
// names: the block is its design, and what the others say otherwise are the items' contents.
func (e groupEdits) toSeries() ([]Step, error) {
	bs, indices, err := e.gathered()
	if err != nil {
		return nil, err
	}
	h := e.holder()
	if len(bs) == 1 { // all that is the same is found
		bs, indices = nil, nil
		for _, i := range place.Order(h, e.zones()) {
			if b := h.Blocks[i]; b.ID == e.block.ID || !b.Locked && builtAlike(e.block, b, true) {
				bs, indices = append(bs, b), append(indices, i)
			}
		}
	}
	if len(bs) < 2 {
		return nil, doc.Problemf(
			"Series",
			"needs copies of the block beside it: there is none that is built and looks the same",
		)
	}
	design := bs[0]
	s := element.Start(doc.Series)
	s.ID, s.Kind, s.Items = e.env.NewID("b"), doc.Series, nil
	for _, b := range bs {
		if !builtAlike(design, b, false) {
			return nil, doc.Problemf(
				"Series",
				"can't be made: what is selected isn't built the same, such as a heading and a text in each",
			)
		}
		it := doc.Item{ID: e.env.NewID("i"), Contents: map[string]doc.Content{}}
		if differing(it.Contents, design, b); len(it.Contents) == 0 {
			it.Contents = nil
		}
		s.Items = append(s.Items, it)
	}
	if len(s.Items) > doc.MaxItems {
		return nil, doc.Problemf("Series", "would have %d items; %d are the most", len(s.Items), doc.MaxItems)
	}
	shown := design.Clone()
	shown.Place, shown.Hidden = nil, nil
	for _, name := range []string{"width", "margin-top", "margin-bottom", "margin-left", "margin-right"} { // the Series gives them their room
		delete(shown.Style, name)
	}
	s.Blocks = []*doc.Block{shown}
	if s.Style == nil {
		s.Style = doc.Style{}
	}
	s.Style["per-row"] = doc.Zoned[string]{e.zones().Widest(): strconv.Itoa(e.perRow(h, indices))}
	for _, name := range []string{"column-gap", "row-gap"} {
		gap := maps.Clone(h.Style[name])
		if gap == nil && h.Arrangement != doc.LineUp {
			// As the grid has it; a gap of rows is the columns'.
			if gap = maps.Clone(h.Style["column-gap"]); gap == nil {
				gap = doc.Zoned[string]{}
				for z, zone := range e.zones() {
					gap[zone.ID] = style.Number(e.env.Site.House.ColumnGap.Or(e.zones(), z, doc.StandardGap)) + "px"
				}
			}
		}
		if gap != nil {
			s.Style[name] = gap
		}
	}
	if h.Arrangement == doc.Placed {
		s.Place, _ = e.area(h, indices)
	}
	at := slices.Min(indices)
	var steps []Step
	for _, b := range bs {
		steps = append(steps, Step{Do: RemoveBlock, ID: b.ID})
	}
	e.selected = s.ID
	return append(steps, Step{Do: InsertBlock, Parent: h.ID, At: at, Block: s}), nil
}

// perRow is how many of a holder's blocks, by index, stand beside one another in the widest
// zone.
func (e groupEdits) perRow(h doc.Holder, indices []int) int {
	n := 1
	switch h.Arrangement {
	case doc.Placed:
		ps := place.Resolve(h, e.zones())[0]
		first := ps[indices[0]]
		n = 0
		for _, i := range indices {
			if ps[i].Row < first.Row+first.Rows && first.Row < ps[i].Row+ps[i].Rows {
				n++
			}
		}
	case doc.Columns:
		tracks, spans := place.ColumnSpans(place.Shares(h, e.zones(), 0), len(h.Blocks))
		n = tracks / max(spans[indices[0]], 1)
	case doc.LineUp:
		if h.Style["direction"].Or(e.zones(), 0, value.Column) == value.Row {
			n = len(indices)
		}
	}
	return min(max(n, 1), 12, len(indices))
}

// fromSeries makes a Series into as many blocks as it has items, in a container where it stood.
func (e groupEdits) fromSeries() ([]Step, error) {
	s := e.series
	if s == nil {
		s = e.block
	}
	if s.Kind != doc.Series || len(s.Blocks) == 0 || len(s.Items) == 0 {
		return nil, doc.Problemf("Series", "isn't what is selected; choose one, or an item of it")
	}
	_, e.block = e.page.Block(s.ID)
	h := e.section.HolderOf(s.ID)
	c := &doc.Block{
		ID: e.env.NewID("b"), Kind: doc.Container, Name: s.Name, Place: s.Place, Hidden: s.Hidden,
		Arrangement: doc.Columns, Style: doc.Style{},
	}
	for name, z := range s.Style {
		if style.Find(name, doc.Container) != nil && name != "per-row" && name != "run" {
			c.Style[name] = maps.Clone(z)
		}
	}
	shares := doc.Zoned[string]{}
	for z, zone := range e.zones() {
		n := element.PerRow(style.Sheet{House: &e.env.Site.House, Zones: e.zones(), Zone: z, Style: s.Style})
		if place.Twelfths%n == 0 {
			shares[zone.ID] = strconv.Itoa(place.Twelfths / n)
		}
	}
	if len(shares) > 0 {
		c.Style["shares"] = shares
	}
	for _, it := range s.Items {
		c.Blocks = append(c.Blocks, it.Shows(s.Blocks[0]).Anew(e.env.NewID))
	}
	e.selected = c.ID
	return []Step{{Do: RemoveBlock, ID: s.ID}, {Do: InsertBlock, Parent: h.ID, At: h.Index(s.ID), Block: c}}, nil
}

// likeThis gives all blocks of a kind on the page the look of one, headings those of its
// level. Where they stand stays.
func (e groupEdits) likeThis() ([]Step, error) {
	of := e.block
	var steps []Step
	others := 0
	for _, sec := range e.page.Sections {
		sec.Walk(func(b *doc.Block) {
			if b.ID == of.ID || b.Kind != of.Kind || b.Locked ||
				b.Kind == doc.Heading && b.Content.Level != of.Content.Level {
				return
			}
			others++
			next := doc.Style{}
			for name, z := range b.Style {
				if slices.Contains(standing, name) {
					next[name] = z
				}
			}
			for name, z := range of.Style {
				if !slices.Contains(standing, name) {
					next[name] = z
				}
			}
			if len(next) == 0 {
				next = nil
			}
			if !reflect.DeepEqual(next, b.Style) {
				steps = append(steps, setBlock(b, func(b *doc.Block) { b.Style = next })...)
			}
		})
	}
	what := strings.ToLower(element.Of(of.Kind).Name)
	if others == 0 {
		return nil, doc.Problemf("Look", "has nothing to go to: there is no other %s like it on this page", what)
	}
	e.note = strconv.Itoa(len(steps)) + " of " + strconv.Itoa(others) + " others changed."
	return steps, nil
}

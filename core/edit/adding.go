package edit

import (
	"slices"
	"strconv"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/value"
)

// into gives the section or container that the command puts a block into.
func (e *editing) into(id string) (doc.Holder, error) {
	id, _ = doc.SplitItem(id)
	if sec, _ := e.page.Section(id); sec != nil {
		return sec.Holder(), nil
	}
	_, b := e.page.Block(id)
	if b != nil && b.Kind == doc.Series && len(b.Blocks) > 0 {
		b = b.Blocks[0] // what goes into a Series goes into its design
	}
	if b == nil || !b.Kind.Is(doc.Holding) || b.Kind == doc.Series {
		return doc.Holder{}, doc.Problemf("Position", "holds no blocks; point at a section or a container")
	}
	return b.Holder(), nil
}

// behind gives the index behind a block of a holder: behind the last unless it is
// named, at the beginning for "first".
func (e *editing) behind(h doc.Holder) int {
	id, _ := doc.SplitItem(e.c.After)
	if id == "first" {
		return 0
	}
	if i := h.Index(id); i >= 0 {
		return i + 1
	}
	return len(h.Blocks)
}

func (e additions) addBlock() ([]Step, error) {
	if element.Of(e.c.Kind) == nil {
		return nil, doc.Problemf("Block", "%.40q isn't a kind of block", e.c.Kind)
	}
	b := element.Start(e.c.Kind).Anew(e.env.NewID)
	if err := e.fillWith(b); err != nil {
		return nil, err
	}
	h, err := e.into(e.c.Node)
	if err != nil {
		return nil, err
	}
	var steps []Step
	if h.Arrangement == doc.Placed {
		if b.Place, steps, err = e.cells(h, e.c.Kind, e.c.Place); err != nil {
			return nil, err
		}
	} else if b.Kind == doc.Picture { // there are no rows to fill
		delete(b.Style, "aspect-ratio")
	}
	e.selected = b.ID
	return append(steps, Step{Do: InsertBlock, Parent: h.ID, At: e.behind(h), Block: b}), nil
}

// fillWith puts the command's medium into a new block that can show it.
func (e additions) fillWith(b *doc.Block) error {
	field, sort := "picture", doc.PictureMedium
	switch b.Kind {
	case doc.Video:
		field, sort = "video", doc.VideoMedium
	case doc.Audio:
		field, sort = "audio", doc.AudioMedium
	}
	if e.c.Value == "" {
		return nil
	}
	b.Content = element.With(b.Content, field, e.c.Value)
	return e.medium(element.Of(doc.Kind(sort)).Name, e.c.Value, sort)
}

// cells finds the cells of a new block in a Placed arrangement: those given for the
// command's zone, else at the left of the first free row. What was put into a narrower zone stands
// in the widest by place.Upward, with steps by which others make room there.
func (e *editing) cells(h doc.Holder, kind doc.Kind, given *doc.Place) (doc.Zoned[doc.Place], []Step, error) {
	zones := e.zones()
	resolved := place.Resolve(h, zones)
	a := element.Of(kind)
	put := func(z int, p *doc.Place) (doc.Place, error) {
		columns := h.Columns(zones, z)
		at := doc.Place{
			Column: 1,
			Span:   place.Span(a.Span, columns),
			Row:    place.FreeRow(resolved[z]),
			Rows:   max(a.Rows, 1),
		}
		at.Row = min(at.Row, doc.MaxRow-at.Rows+1)
		if p != nil {
			at = *p
		}
		for _, q := range resolved[z] { // new things come on top
			if at.Overlaps(q.Place) && !q.Hidden {
				at.Layer = min(max(at.Layer, q.Layer+1), doc.MaxLayer)
			}
		}
		return at, checkPlace(at, columns)
	}
	z := zones.Index(e.c.Zone)
	if z <= 0 || given == nil {
		p, err := put(0, given)
		return doc.Zoned[doc.Place]{zones.Widest(): p}, nil, err
	}
	p, err := put(z, given)
	if err != nil {
		return nil, nil, err
	}
	to, down := place.Upward(h, zones, z, p)
	var steps []Step
	for i, b := range h.Blocks {
		if by, ok := down[i]; ok {
			at := resolved[0][i].Place
			at.Row += by
			steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = b.Place.With(zones.Widest(), at) })...)
		}
	}
	return doc.Zoned[doc.Place]{zones[z].ID: p, zones.Widest(): to}, steps, nil
}

func (e additions) moveBlock() ([]Step, error) {
	to, err := e.into(e.c.Into)
	if err != nil {
		return nil, err
	}
	from := e.holder()
	if e.series != nil && from.ID == e.series.ID || e.series == nil && e.parentKind() == doc.Series {
		return nil, doc.Problemf("Position", "can't change: a Series needs its design")
	}
	inside := false
	e.block.Walk(func(b *doc.Block) { inside = inside || b.ID == to.ID })
	if inside {
		return nil, doc.Problemf("Position", "can't be in the block itself")
	}
	if z := e.zones().Index(e.c.Zone); z > 0 && from.ID == to.ID &&
		(from.Arrangement != doc.Placed || e.c.Place == nil) {
		if e.c.DY = 0; e.c.After == "first" {
			e.c.After = ""
		}
		return placeEdits(e).order()
	}
	at := e.behind(to)
	if now := from.Index(e.block.ID); from.ID == to.ID && at > now { // counted without the block itself
		if at--; at == now {
			return nil, nil
		}
	}
	e.selected = e.block.ID
	says := e.takenOut(to)
	var steps []Step
	e.block.Walk(func(b *doc.Block) {
		if c, own := says[b.ID]; own && b.ID != e.block.ID {
			steps = append(steps, setBlock(b, func(b *doc.Block) { b.Content = c })...)
		}
	})
	own, taken := says[e.block.ID]
	if to.Arrangement == doc.Placed && from.ID != to.ID {
		cells, room, err := e.cells(to, e.block.Kind, e.c.Place)
		if err != nil {
			return nil, err
		}
		steps = append(steps, room...)
		steps = append(steps, e.replace(func(b *doc.Block) {
			if b.Place = cells; taken {
				b.Content = own
			}
		})...)
	} else if taken {
		steps = append(steps, e.replace(func(b *doc.Block) { b.Content = own })...)
	}
	return append(steps, Step{Do: MoveBlock, ID: e.block.ID, Parent: to.ID, At: at}), nil
}

// takenOut gives what the block and those in it say in the item of a Series that the block was taken
// hold of in, by id, when it goes out of that Series; and notes what happens to the others.
func (e *additions) takenOut(to doc.Holder) map[string]doc.Content {
	if e.series == nil {
		return nil
	}
	within := false
	e.series.Walk(func(b *doc.Block) { within = within || b.ID == to.ID })
	if within {
		return nil
	}
	if n := len(e.series.Items) - 1; n > 0 {
		e.note = "It says what it said in this item; what it said in the other " + strconv.Itoa(n) + " is gone with it."
	}
	return e.series.Items[e.item].Contents
}

// parentKind is the kind of the container the block stands in, or "".
func (e *editing) parentKind() doc.Kind {
	path := e.section.Path(e.block.ID)
	if len(path) < 2 {
		return ""
	}
	return path[len(path)-2].Kind
}

// arrange gives the blocks of a section or container another arrangement; package
// place has the rules.
func (e additions) arrange() ([]Step, error) {
	to := doc.Arrangement(e.c.Value)
	if e.c.Value == "placed" {
		to = doc.Placed
	}
	if !slices.Contains([]doc.Arrangement{doc.Placed, doc.Columns, doc.LineUp}, to) {
		return nil, doc.Problemf("Arrangement", "%.40q isn't one; choose Placed, Columns or Line-up", e.c.Value)
	}
	h := e.section.Holder()
	if e.block != nil {
		if h = e.block.Holder(); !e.block.Kind.Is(doc.Holding) || e.block.Kind == doc.Series {
			return nil, doc.Problemf("Arrangement", "a %s has none of its own", e.block.Kind)
		}
	}
	if h.Arrangement == to {
		return nil, nil
	}
	plan := place.Rearrange(h, to, e.zones())
	look := func(s *doc.Style, a *doc.Arrangement) {
		*a = to
		set := func(name, v string) {
			if *s == nil {
				*s = doc.Style{}
			}
			if v == "" {
				delete(*s, name)
			} else {
				(*s)[name] = doc.Zoned[string]{e.zones().Widest(): v}
			}
			if len(*s) == 0 {
				*s = nil
			}
		}
		if to == doc.Columns {
			set("shares", plan.Shares)
		}
		if to == doc.LineUp {
			set("direction", map[bool]string{true: value.Row}[plan.Across])
		}
	}
	var steps []Step
	if e.block != nil {
		steps = e.replace(func(b *doc.Block) { look(&b.Style, &b.Arrangement) })
	} else {
		steps = e.head(func(s *doc.Section) { look(&s.Style, &s.Arrangement) })
	}
	at := 0
	for _, c := range plan.Children {
		parent, first := h.ID, at
		if len(c.Blocks) > 1 { // a stack of its own
			stack := &doc.Block{ID: e.env.NewID("b"), Kind: doc.Container, Arrangement: doc.LineUp}
			steps = append(steps, Step{Do: InsertBlock, Parent: h.ID, At: at, Block: stack})
			parent, first = stack.ID, 0
		}
		for i, b := range c.Blocks {
			if to == doc.Placed {
				steps = append(steps, e.cellsIn(b, c.Place)...)
			}
			steps = append(steps, Step{Do: MoveBlock, ID: b.ID, Parent: parent, At: first + i})
		}
		if c.Emptied != nil {
			steps = append(steps, Step{Do: RemoveBlock, ID: c.Emptied.ID})
		}
		at++
	}
	e.selected = h.ID
	return steps, nil
}

// cellsIn gives the steps that put a block into cells. A block that has been in a grid
// before keeps its cells in the narrower zones.
func (e *editing) cellsIn(b *doc.Block, p doc.Place) []Step {
	if was, ok := b.Place[e.zones().Widest()]; ok {
		p.Layer = was.Layer
	}
	return setBlock(b, func(b *doc.Block) { b.Place = b.Place.With(e.zones().Widest(), p) })
}

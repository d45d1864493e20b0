package edit

import (
	"fmt"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/style"
)

// operation is one thing that can be done.
type operation struct {
	on   target
	zone bool // needs Zone
	// writer is true for what the Writer role may do: words and pictures.
	writer bool
	run    func(*editing) ([]Step, error)
}

// operations lists all commands by Op, with the fields each reads.
var operations map[string]operation

func init() { // a variable initialiser would be a cycle through Apply
	operations = map[string]operation{
		"page.set":          {onPage, false, false, (*editing).setPage},         // Setting: name, title or description; Value
		"section.add":       {onPage, false, false, (*editing).addSection},      // After, Preset
		"section.move":      {onSection, false, false, (*editing).moveSection},  // Node, After
		"section.shift":     {onSection, false, false, (*editing).shiftSection}, // Node, DY
		"section.hide":      {onSection, false, false, (*editing).hideSection},  // Node, Hide
		"section.role":      {onSection, false, false, (*editing).setRole},      // Node, Value
		"section.anchor":    {onSection, false, false, (*editing).setAnchor},    // Node, Value
		"section.picture":   {onSection, false, true, (*editing).setBackdrop},   // Node, Value
		"block.add":         {onSection, true, false, (*editing).addBlock},      // Node: the section; Kind, Zone, Place, Value: a picture
		"block.place":       {onBlock, true, false, (*editing).placeBlock},      // Node, Zone, Place
		"block.nudge":       {onBlock, true, false, (*editing).nudge},           // Node, Zone, DX, DY
		"block.resize":      {onBlock, true, false, (*editing).resize},          // Node, Zone, DX, DY
		"block.place.set":   {onBlock, true, false, (*editing).setPlace},        // Node, Zone, Setting: columns, rows or layer; Value
		"block.place.reset": {onBlock, true, false, (*editing).followPlace},     // Node, Zone
		"block.layer":       {onBlock, true, false, (*editing).changeLayer},     // Node, Zone, DY: 1 or -1
		"block.hide":        {onBlock, true, false, (*editing).hideBlock},       // Node, Zone, Hide
		"block.write":       {onBlock, false, true, (*editing).write},           // Node, Value: HTML
		"block.content":     {onBlock, false, true, (*editing).setContent},      // Node, Setting: level, picture, alt or link; Value
		"rename":            {onEither, false, false, (*editing).rename},        // Node, Value
		"set":               {onEither, true, false, (*editing).set},            // Node, Zone, Setting, Value
		"follow":            {onEither, true, false, (*editing).follow},         // Node, Zone, Setting
		"duplicate":         {onEither, false, false, (*editing).duplicate},     // Node
		"delete":            {onEither, false, false, (*editing).delete},        // Node
	}
}

// ForWriter tells whether the Writer role may do an operation.
func ForWriter(op string) bool { return operations[op].writer }

func (e *editing) setPage() ([]Step, error) {
	head := PageHead{e.page.Name, e.page.Title, e.page.Description}
	var err error
	switch e.c.Setting {
	case "name":
		if head.Name, err = text("Name", e.c.Value, doc.MaxNameRunes); err == nil && head.Name == "" {
			err = doc.Problemf("Name", "can't be empty: it is how the page is found")
		}
	case "title":
		if head.Title, err = text("Title", e.c.Value, doc.MaxNameRunes); err == nil && head.Title == "" {
			err = doc.Problemf("Title", "can't be empty: browsers and search results show it")
		}
	case "description":
		head.Description, err = text("Description", e.c.Value, 400)
	default:
		err = doc.Problemf("Setting", "%.40q isn't one of a page; name, title and description are", e.c.Setting)
	}
	if err != nil {
		return nil, err
	}
	return []Step{{Do: SetPage, Page: &head}}, nil
}

// after gives the index behind a section, or 0 for "".
func (e *editing) after() (int, error) {
	if e.c.After == "" {
		return 0, nil
	}
	s, i := e.page.Section(e.c.After)
	if s == nil {
		return 0, doc.Problemf("Place", "the section %.40q to put it after isn't on this page (any more)", e.c.After)
	}
	return i + 1, nil
}

func (e *editing) addSection() ([]Step, error) {
	at, err := e.after()
	if err != nil {
		return nil, err
	}
	preset := FindPreset(e.c.Preset)
	if preset == nil {
		return nil, doc.Problemf("Section", "there is no ready-made section %.40q", e.c.Preset)
	}
	s := preset.make(e.env.NewID)
	e.selected = s.ID
	return []Step{{Do: InsertSection, At: at, Section: s}}, nil
}

func (e *editing) moveSection() ([]Step, error) {
	to, err := e.after()
	if err != nil {
		return nil, err
	}
	_, from := e.page.Section(e.section.ID)
	if to > from { // counted without the section itself
		to--
	}
	if to == from {
		return nil, nil
	}
	e.selected = e.section.ID
	return []Step{{Do: MoveSection, ID: e.section.ID, At: to}}, nil
}

func (e *editing) shiftSection() ([]Step, error) {
	_, from := e.page.Section(e.section.ID)
	to := min(max(from+sign(e.c.DY), 0), len(e.page.Sections)-1)
	if to == from {
		return nil, nil
	}
	e.selected = e.section.ID
	return []Step{{Do: MoveSection, ID: e.section.ID, At: to}}, nil
}

func sign(n int) int {
	switch {
	case n > 0:
		return 1
	case n < 0:
		return -1
	}
	return 0
}

// head gives the step that replaces the section's own fields after change.
func (e *editing) head(change func(*doc.Section)) []Step {
	s := e.section.Clone()
	s.Blocks = nil
	change(s)
	return []Step{{Do: SetSection, ID: s.ID, Section: s}}
}

func (e *editing) replace(change func(*doc.Block)) []Step {
	b := e.block.Clone()
	change(b)
	return []Step{{Do: SetBlock, ID: b.ID, Block: b}}
}

func (e *editing) hideSection() ([]Step, error) {
	return e.head(func(s *doc.Section) { s.Hidden = e.c.Hide }), nil
}

func (e *editing) setRole() ([]Step, error) {
	r := doc.Role(e.c.Value)
	if r != doc.RoleMain && r != doc.RoleHeader && r != doc.RoleFooter {
		return nil, doc.Problemf("Part", "%.40q is none; choose header, footer or an ordinary section", e.c.Value)
	}
	return e.head(func(s *doc.Section) { s.Role = r }), nil
}

var anchorPattern = regexp.MustCompile(`^[a-z][a-z0-9-]{0,59}$`)

func (e *editing) setAnchor() ([]Step, error) {
	v := strings.TrimPrefix(strings.TrimSpace(e.c.Value), "#")
	if v != "" && !anchorPattern.MatchString(v) {
		return nil, doc.Problemf("Anchor", "can't be %.60q: write small letters, digits and hyphens, such as opening-hours", v)
	}
	for _, s := range e.page.Sections {
		if v != "" && s.Anchor == v && s.ID != e.section.ID {
			return nil, doc.Problemf("Anchor", "%q is the section %q's already; choose another", v, s.Name)
		}
	}
	return e.head(func(s *doc.Section) { s.Anchor = v }), nil
}

func (e *editing) picture(id string) error {
	if id != "" && !e.env.HasPicture(id) {
		return doc.Problemf("Picture", "%.40q isn't one of this site's; choose one or upload it", id)
	}
	return nil
}

func (e *editing) setBackdrop() ([]Step, error) {
	if err := e.picture(e.c.Value); err != nil {
		return nil, err
	}
	return e.head(func(s *doc.Section) { s.Picture = e.c.Value }), nil
}

func (e *editing) rename() ([]Step, error) {
	name, err := text("Name", e.c.Value, doc.MaxNameRunes)
	if err != nil {
		return nil, err
	}
	if e.block != nil {
		return e.replace(func(b *doc.Block) { b.Name = name }), nil
	}
	if name == "" {
		return nil, doc.Problemf("Name", "can't be empty: it is how the section is found in the Overview")
	}
	return e.head(func(s *doc.Section) { s.Name = name }), nil
}

func (e *editing) change(name string, change func(doc.Zoned[string]) doc.Zoned[string]) []Step {
	apply := func(s *doc.Style) {
		v := change((*s)[name])
		if v == nil {
			delete(*s, name)
			if len(*s) == 0 {
				*s = nil
			}
			return
		}
		if *s == nil {
			*s = doc.Style{}
		}
		(*s)[name] = v
	}
	if e.block != nil {
		return e.replace(func(b *doc.Block) { apply(&b.Style) })
	}
	return e.head(func(s *doc.Section) { apply(&s.Style) })
}

func (e *editing) setting() (*style.Setting, error) {
	s := style.Find(e.c.Setting, e.kind())
	if s == nil {
		return nil, doc.Problemf("Setting", "%.40q isn't one of a %s", e.c.Setting, e.kind())
	}
	return s, nil
}

func (e *editing) set() ([]Step, error) {
	s, err := e.setting()
	if err != nil {
		return nil, err
	}
	v, problem := s.Read(&e.env.Site.House, e.c.Value)
	if problem != nil {
		return nil, problem
	}
	return e.change(s.Name, func(z doc.Zoned[string]) doc.Zoned[string] { return z.With(e.c.Zone, v) }), nil
}

func (e *editing) follow() ([]Step, error) {
	s, err := e.setting()
	if err != nil {
		return nil, err
	}
	return e.change(s.Name, func(z doc.Zoned[string]) doc.Zoned[string] { return z.Without(e.c.Zone) }), nil
}

func (e *editing) delete() ([]Step, error) {
	if e.block != nil {
		e.selected = e.section.ID
		return []Step{{Do: RemoveBlock, ID: e.block.ID}}, nil
	}
	return []Step{{Do: RemoveSection, ID: e.section.ID}}, nil
}

func (e *editing) duplicate() ([]Step, error) {
	if e.block != nil {
		c := e.block.Clone()
		c.ID = e.env.NewID("b")
		at := doc.Zoned[doc.Place]{}
		for zone, p := range c.Place { // below the original, over whatever is there
			p.Row = min(p.Row+p.Rows, doc.MaxRow-p.Rows+1)
			p.Layer = min(p.Layer+1, doc.MaxLayer)
			at[zone] = p
		}
		c.Place = at
		_, i := e.section.Block(e.block.ID)
		e.selected = c.ID
		return []Step{{Do: InsertBlock, Parent: e.section.ID, At: i + 1, Block: c}}, nil
	}
	c := e.section.Clone()
	c.ID, c.Anchor = e.env.NewID("s"), ""
	if c.Name, _ = text("Name", c.Name+" copy", doc.MaxNameRunes); c.Name == "" {
		c.Name = e.section.Name
	}
	for i, b := range c.Blocks {
		b = b.Clone()
		b.ID = e.env.NewID("b")
		c.Blocks[i] = b
	}
	_, i := e.page.Section(e.section.ID)
	e.selected = c.ID
	return []Step{{Do: InsertSection, At: i + 1, Section: c}}, nil
}

func (e *editing) zones() doc.Zones { return e.env.Site.Zones }

// placed is the block's index in its section and its placement in the command's
// zone, with all the others'.
func (e *editing) placed() (ps []place.Placed, index, columns int) {
	z := e.zones().Index(e.c.Zone)
	_, index = e.section.Block(e.block.ID)
	return place.Resolve(e.section, e.zones())[z], index, e.section.Columns(e.zones(), z)
}

// at gives the step that puts the block somewhere by hand in the zone.
func (e *editing) at(p doc.Place) []Step {
	if now, ok := e.block.Place[e.c.Zone]; ok && now == p {
		return nil
	}
	return e.replace(func(b *doc.Block) { b.Place = b.Place.With(e.c.Zone, p) })
}

func checkPlace(p doc.Place, columns int) error {
	switch {
	case p.Column < 1 || p.Column > columns:
		return doc.Problemf("Columns", "begin at %d; the grid has columns 1 to %d here", p.Column, columns)
	case p.Span < 1 || p.Column+p.Span-1 > columns:
		return doc.Problemf("Columns", "reach from %d over %d; the grid has %d columns here", p.Column, p.Span, columns)
	case p.Row < 1 || p.Rows < 1 || p.Row+p.Rows-1 > doc.MaxRow || p.Row > doc.MaxRow || p.Rows > doc.MaxRow:
		return doc.Problemf("Rows", "begin at %d and are %d; they lie between 1 and %d", p.Row, p.Rows, doc.MaxRow)
	case p.Layer < 0 || p.Layer > doc.MaxLayer:
		return doc.Problemf("Layer", "can't be %d; write 0 to %d", p.Layer, doc.MaxLayer)
	}
	return nil
}

func (e *editing) placeBlock() ([]Step, error) {
	if e.c.Place == nil {
		return nil, doc.Problemf("Place", "is missing: say columns and rows")
	}
	_, _, columns := e.placed()
	if err := checkPlace(*e.c.Place, columns); err != nil {
		return nil, err
	}
	return e.at(*e.c.Place), nil
}

func (e *editing) nudge() ([]Step, error) {
	ps, i, columns := e.placed()
	return e.at(place.Nudge(ps[i].Place, bounded(e.c.DX), bounded(e.c.DY), columns)), nil
}

func (e *editing) resize() ([]Step, error) {
	ps, i, columns := e.placed()
	return e.at(place.Resize(ps[i].Place, bounded(e.c.DX), bounded(e.c.DY), columns)), nil
}

// bounded keeps a step from overflowing when it is added.
func bounded(n int) int { return min(max(n, -doc.MaxRow), doc.MaxRow) }

// setPlace reads "3 – 8" for columns and rows, or one number, and the layer.
func (e *editing) setPlace() ([]Step, error) {
	ps, i, columns := e.placed()
	p := ps[i].Place
	from, to, err := span(e.c.Value)
	switch e.c.Setting {
	case "columns":
		if err != nil {
			return nil, doc.Problemf("Columns", "can't be %.40q: write the first and the last, such as 3 – 8", e.c.Value)
		}
		p.Column, p.Span = from, to-from+1
	case "rows":
		if err != nil {
			return nil, doc.Problemf("Rows", "can't be %.40q: write the first and the last, such as 2 – 6", e.c.Value)
		}
		p.Row, p.Rows = from, to-from+1
	case "layer":
		if p.Layer, err = strconv.Atoi(strings.TrimSpace(e.c.Value)); err != nil {
			return nil, doc.Problemf("Layer", "can't be %.40q: write a number from 0 to %d", e.c.Value, doc.MaxLayer)
		}
	default:
		return nil, doc.Problemf("Setting", "%.40q isn't part of a placement; columns, rows and layer are", e.c.Setting)
	}
	if err := checkPlace(p, columns); err != nil {
		return nil, err
	}
	return e.at(p), nil
}

// span reads "a – b", "a-b", "a b" or "a".
func span(v string) (from, to int, err error) {
	parts := strings.FieldsFunc(v, func(r rune) bool { return strings.ContainsRune("-–— ", r) })
	if len(parts) == 1 {
		parts = append(parts, parts[0])
	}
	if len(parts) != 2 {
		return 0, 0, fmt.Errorf("%d parts", len(parts))
	}
	if from, err = strconv.Atoi(parts[0]); err == nil {
		to, err = strconv.Atoi(parts[1])
	}
	if err == nil && (from < 0 || to < from || to > 1<<20) {
		err = fmt.Errorf("from %d to %d", from, to)
	}
	return from, to, err
}

func (e *editing) followPlace() ([]Step, error) {
	if e.c.Zone == e.zones().Widest() {
		return nil, doc.Problemf("Place", "can't follow in %s: it is the zone the others follow", e.zones()[0].Name)
	}
	if _, ok := e.block.Place[e.c.Zone]; !ok {
		return nil, nil
	}
	return e.replace(func(b *doc.Block) { b.Place = b.Place.Without(e.c.Zone) }), nil
}

func (e *editing) changeLayer() ([]Step, error) {
	ps, i, _ := e.placed()
	if e.c.DY == 0 {
		return nil, doc.Problemf("Layer", "say up or down")
	}
	var steps []Step
	layers := place.Layers(ps, i, sign(e.c.DY))
	for k, b := range e.section.Blocks {
		if layer, ok := layers[k]; ok && layer != ps[k].Layer {
			p := ps[k].Place
			p.Layer = layer
			b = b.Clone()
			b.Place = b.Place.With(e.c.Zone, p)
			steps = append(steps, Step{Do: SetBlock, ID: b.ID, Block: b})
		}
	}
	return steps, nil
}

func (e *editing) hideBlock() ([]Step, error) {
	return e.replace(func(b *doc.Block) {
		i := e.zones().Index(e.c.Zone)
		b.Hidden = b.Hidden.Without(e.c.Zone)
		if b.Hidden.Or(e.zones(), i, false) != e.c.Hide {
			b.Hidden = b.Hidden.With(e.c.Zone, e.c.Hide)
		}
	}), nil
}

func (e *editing) addBlock() ([]Step, error) {
	if !slices.Contains(doc.Kinds, e.c.Kind) {
		return nil, doc.Problemf("Block", "%.40q is no kind of block", e.c.Kind)
	}
	if err := e.picture(e.c.Value); err != nil {
		return nil, err
	}
	zones := e.zones()
	resolved := place.Resolve(e.section, zones)
	b := newBlock(e.c.Kind, e.env.NewID("b"))
	b.Content.Picture = e.c.Value
	z := zones.Index(e.c.Zone)
	put := func(z int, p *doc.Place) error {
		columns := e.section.Columns(zones, z)
		at := defaultPlace(e.c.Kind, columns, place.FreeRow(resolved[z]))
		if p != nil {
			at = *p
		}
		for _, q := range resolved[z] { // new things come on top
			if at.Overlaps(q.Place) && !q.Hidden {
				at.Layer = min(max(at.Layer, q.Layer+1), doc.MaxLayer)
			}
		}
		if err := checkPlace(at, columns); err != nil {
			return err
		}
		b.Place = b.Place.With(zones[z].ID, at)
		return nil
	}
	var err error
	if z > 0 && e.c.Place != nil { // dropped by hand in a narrower zone
		err = put(z, e.c.Place)
		if err == nil {
			err = put(0, nil)
		}
	} else if z == 0 {
		err = put(0, e.c.Place)
	} else {
		err = put(0, nil)
	}
	if err != nil {
		return nil, err
	}
	e.selected = b.ID
	return []Step{{Do: InsertBlock, Parent: e.section.ID, At: len(e.section.Blocks), Block: b}}, nil
}

func (e *editing) write() ([]Step, error) {
	if !e.block.Kind.Worded() {
		return nil, doc.Problemf("Words", "a %s has none", e.block.Kind)
	}
	words, err := ParseWords(e.c.Value)
	if err != nil {
		return nil, err
	}
	return e.replace(func(b *doc.Block) { b.Content.Words = words }), nil
}

func (e *editing) setContent() ([]Step, error) {
	v, kind := e.c.Value, e.block.Kind
	switch {
	case e.c.Setting == "level" && kind == doc.Heading:
		n, err := strconv.Atoi(v)
		if err != nil || n < 1 || n > 6 {
			return nil, doc.Problemf("Level", "can't be %.40q: choose 1 to 6", v)
		}
		return e.replace(func(b *doc.Block) { b.Content.Level = n }), nil
	case e.c.Setting == "picture" && kind == doc.Picture:
		if err := e.picture(v); err != nil {
			return nil, err
		}
		return e.replace(func(b *doc.Block) { b.Content.Picture = v }), nil
	case e.c.Setting == "alt" && kind == doc.Picture:
		alt, err := text("Words for those who can't see it", strings.Join(strings.Fields(v), " "), 1000)
		if err != nil {
			return nil, err
		}
		return e.replace(func(b *doc.Block) { b.Content.Alt = alt }), nil
	case e.c.Setting == "link" && (kind == doc.Picture || kind == doc.Button):
		link, err := CheckLink(v)
		if err != nil {
			return nil, err
		}
		return e.replace(func(b *doc.Block) { b.Content.Link = link }), nil
	}
	return nil, doc.Problemf("Setting", "%.40q isn't part of a %s's content", e.c.Setting, kind)
}

// CheckLink checks an address that a visitor can follow: a page of the site
// ("/fares"), a place on the page ("#crew"), the web, mail or a telephone.
func CheckLink(v string) (string, error) {
	v, err := text("Opens", v, doc.MaxAddress)
	if err != nil || v == "" {
		return v, err
	}
	u, perr := url.Parse(v)
	ok := perr == nil && !strings.ContainsAny(v, " <>\"\\")
	if ok {
		switch u.Scheme {
		case "http", "https":
			ok = u.Host != ""
		case "mailto", "tel":
			ok = u.Opaque != ""
		case "":
			ok = u.Host == "" && (strings.HasPrefix(v, "/") || strings.HasPrefix(v, "#"))
		default:
			ok = false
		}
	}
	if !ok {
		return "", doc.Problemf("Opens", "can't be %.60q: write a page such as /fares, a place such as #crew, or an address that begins with https:, mailto: or tel:", v)
	}
	return v, nil
}

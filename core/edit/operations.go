package edit

import (
	"cmp"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/core/settings"
	"openplot/core/style"
	"openplot/core/value"
)

// operation is one thing that can be done.
type operation struct {
	on    target
	zone  bool // needs Zone
	right rights.Right
	run   func(*editing) ([]Step, error)
}

// The operations by what they change; each has the command that is at work.
type (
	additions    struct{ *editing } // blocks that are added, moved, copied and pasted, and arrangements
	contentEdits struct{ *editing } // what blocks say
	groupEdits   struct{ *editing } // containers and Series
	lookEdits    struct{ *editing } // settings
	placeEdits   struct{ *editing } // places in a grid, and orders
	sectionEdits struct{ *editing } // the page and its sections
	severalEdits struct{ *editing } // several blocks at once
)

// as is an operation of one of those.
func as[T ~struct{ *editing }](run func(T) ([]Step, error)) func(*editing) ([]Step, error) {
	return func(e *editing) ([]Step, error) { return run(T{e}) }
}

// operations lists all commands by Op, with the fields each reads.
var operations map[string]operation

func init() { // a variable initialiser would be a cycle through Apply
	operations = map[string]operation{
		"page.set": {
			on:    onPage,
			right: rights.Compose,
			run:   as(sectionEdits.setPage),
		}, // Setting: name, title, description, ground, categories, picture, date, language or unlisted; Value
		"page.guide": {
			on:    onPage,
			zone:  true,
			right: rights.Compose,
			run:   as(sectionEdits.setGuide),
		}, // Zone, Setting: x or y; Value: px, "" to take it away; After: the px of the one that is moved, "" for a new one
		"section.add": {
			on:    onPage,
			right: rights.Compose,
			run:   as(sectionEdits.addSection),
		}, // After, Preset
		"section.move": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.moveSection),
		}, // Node, After
		"section.shift": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.shiftSection),
		}, // Node, DY
		"section.hide": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.hideSection),
		}, // Node, Hide
		"section.redesign": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.redesign),
		}, // Node, Preset
		"section.role": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.setRole),
		}, // Node, Value
		"section.anchor": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.setAnchor),
		}, // Node, Value
		"section.view": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.setView),
		}, // Node, Value: a title
		"section.share": {on: onSection, right: rights.Compose, run: as(sectionEdits.share)},   // Node
		"section.own":   {on: onSection, right: rights.Compose, run: as(sectionEdits.makeOwn)}, // Node
		"section.fold": {
			on:    onSection,
			right: rights.Compose,
			run:   as(sectionEdits.setFold),
		}, // Node, Setting: as or title; Value
		"section.picture": {
			on:    onSection,
			right: rights.Write,
			run:   as(sectionEdits.setBackdrop),
		}, // Node, Value
		"section.video": {
			on:    onSection,
			right: rights.Write,
			run:   as(sectionEdits.setFilm),
		}, // Node, Value
		"block.add": {
			on:    onEither,
			zone:  true,
			right: rights.Compose,
			run:   as(additions.addBlock),
		}, // Node: a section or container; Kind, Zone, Place or After, Value: a medium
		"block.move": {
			on:    onBlock,
			right: rights.Compose,
			run:   as(additions.moveBlock),
		}, // Node, Into, After, or Zone and Place
		"block.place": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(placeEdits.placeBlock),
		}, // Node, Zone, Place
		"block.nudge": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(placeEdits.nudge),
		}, // Node, Zone, DX, DY
		"block.resize": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(placeEdits.resize),
		}, // Node, Zone, DX, DY
		"block.place.set": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(placeEdits.setPlace),
		}, // Node, Zone, Setting: columns, rows or layer; Value
		"block.place.reset": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(placeEdits.followPlace),
		}, // Node, Zone
		"block.layer": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(placeEdits.changeLayer),
		}, // Node, Zone, DY: 1 or -1
		"blocks.align": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(severalEdits.alignAll),
		}, // Node, With, Zone, Value: left, center, right, top, middle or bottom; Setting: "section" or "" for each other
		"blocks.spread": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(severalEdits.spreadAll),
		}, // Node, With, Zone, Value: across or down; Setting: a gap in cells, "" for equal ones
		"blocks.same": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(severalEdits.sameAll),
		}, // Node, With, Zone, Value: width or height, of Node
		"blocks.nudge": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(severalEdits.nudgeAll),
		}, // Node, With, Zone, DX, DY
		"blocks.tidy": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(severalEdits.tidyAll),
		}, // Node, With, Zone
		"blocks.order": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(severalEdits.orderAll),
		}, // Node, With, Zone, Value: front or back
		"blocks.scale": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(severalEdits.scaleAll),
		}, // Node, With, Zone, Place: what all of them cover then
		"blocks.move": {
			on:    onBlock,
			right: rights.Compose,
			run:   as(severalEdits.moveAll),
		}, // Node, With, Into, After, or Zone and Place of Node
		"blocks.group": {
			on:    onBlock,
			right: rights.Compose,
			run:   as(groupEdits.group),
		}, // Node, With, Value: line-up, or "" for as they stand
		"blocks.series": {
			on:    onBlock,
			right: rights.Compose,
			run:   as(groupEdits.toSeries),
		}, // Node, With: copies of it, or none for all beside it
		"block.ungroup": {
			on:    onBlock,
			right: rights.Compose,
			run:   as(groupEdits.ungroup),
		}, // Node: a container
		"block.loose": {
			on:    onBlock,
			right: rights.Compose,
			run:   as(groupEdits.fromSeries),
		}, // Node: a Series, or in an item of it
		"block.room": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(groupEdits.makeRoom),
		}, // Node, Zone
		"block.alike": {on: onBlock, right: rights.Compose, run: as(groupEdits.likeThis)}, // Node
		"block.lock": {
			on:    onBlock,
			right: rights.Compose,
			run:   as(groupEdits.lock),
		}, // Node, Hide: whether it is locked
		"flip": {
			on:    onEither,
			right: rights.Compose,
			run:   as(groupEdits.flip),
		}, // Node: a section or container, or a block in it
		"block.hide": {
			on:    onBlock,
			zone:  true,
			right: rights.Compose,
			run:   as(lookEdits.hideBlock),
		}, // Node, Zone, Hide
		"block.write": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.write),
		}, // Node, Value: HTML; Zone: where it is written, "" being the widest
		"block.words": {
			on:    onBlock,
			zone:  true,
			right: rights.Write,
			run:   as(contentEdits.ownWords),
		}, // Node, Zone, Hide: whether they follow the wider zone
		"block.content": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.setContent),
		}, // Node, Setting: a field of its anatomy; Value
		"entry.add": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.addEntry),
		}, // Node, At
		"entry.fill": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.fillEntry),
		}, // Node, Setting, Value
		"entry.duplicate": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.duplicateEntry),
		}, // Node, At
		"entry.remove": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.removeEntry),
		}, // Node, At
		"entry.shift": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.shiftEntry),
		}, // Node, At, DY
		"entry.write": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.writeEntry),
		}, // Node, At, Value: HTML
		"entry.set": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.setEntry),
		}, // Node, At, Setting, Value
		"item.add": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.addItem),
		}, // Node: of an item, or the Series
		"item.remove": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.removeItem),
		}, // Node: of an item
		"item.move": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.moveItem),
		}, // Node: of an item; At: among the others
		"item.shift": {
			on:    onBlock,
			right: rights.Write,
			run:   as(contentEdits.shiftItem),
		}, // Node: of an item; DY
		"arrange": {
			on:    onEither,
			right: rights.Compose,
			run:   as(additions.arrange),
		}, // Node: a section or container; Value
		"paste": {
			on:    onEither,
			right: rights.Compose,
			run:   as(additions.paste),
		}, // Node: beside or in which; Value: what Copy wrote
		"look": {
			on:    onEither,
			zone:  true,
			right: rights.Compose,
			run:   as(lookEdits.takeLook),
		}, // Node, Zone, Value: settings and their values as JSON
		"rename": {
			on:    onEither,
			right: rights.Compose,
			run:   as(lookEdits.rename),
		}, // Node, Value
		"set": {
			on:    onEither,
			zone:  true,
			right: rights.Compose,
			run:   as(lookEdits.set),
		}, // Node, Zone, Setting, Value; "" follows
		"follow": {
			on:    onEither,
			zone:  true,
			right: rights.Compose,
			run:   as(lookEdits.follow),
		}, // Node, Zone, Setting
		"order": {
			on:    onEither,
			zone:  true,
			right: rights.Compose,
			run:   as(placeEdits.order),
		}, // Node, Zone; DY: so many earlier or later, or After: what it is to be seen after, "" being none
		"zone.follow": {
			on:    onPage,
			zone:  true,
			right: rights.Compose,
			run:   as(sectionEdits.followZone),
		}, // Zone; Node: a section or block, "" being all of the page; Setting: "places", or "" for all that is set
		"same": {
			on:    onEither,
			zone:  true,
			right: rights.Compose,
			run:   as(lookEdits.same),
		}, // Node, Zone, Setting, After: a section or block that has it
		"duplicate": {on: onEither, right: rights.Compose, run: as(additions.duplicate)}, // Node
		"delete":    {on: onEither, right: rights.Compose, run: as(additions.delete)},    // Node
	}
}

// RightFor is the right that an operation takes; of one that isn't known, Compose.
func RightFor(op string) rights.Right { return cmp.Or(operations[op].right, rights.Compose) }

// Operations lists all operations by name.
func Operations() []string { return slices.Sorted(maps.Keys(operations)) }

func (e sectionEdits) setPage() ([]Step, error) {
	head := headOf(e.page)
	var err error
	switch e.c.Setting {
	case "name":
		if head.Name, err = doc.Line("Name", e.c.Value, doc.MaxNameRunes); err == nil && head.Name == "" {
			err = doc.Problemf("Name", "can't be empty: it is how the page is found")
		}
	case "title":
		if head.Title, err = doc.Line("Title", e.c.Value, doc.MaxNameRunes); err == nil && head.Title == "" {
			err = doc.Problemf("Title", "can't be empty: browsers and search results show it")
		}
	case "description":
		head.Description, err = doc.Line("Description", e.c.Value, 400)
	case "ground":
		head.Ground, err = e.readGround()
	case "categories":
		head.Categories, err = readCategories(e.c.Value)
	case "picture":
		head.Picture, err = e.c.Value, e.medium("Picture", e.c.Value, doc.PictureMedium)
	case "date":
		if head.Date = strings.TrimSpace(e.c.Value); head.Date != "" && !doc.IsDate(head.Date) {
			err = doc.Problemf("Date", "can't be %.40q: write year, month and day, such as 2027-06-01", e.c.Value)
		}
	case "language":
		head.Language, err = settings.ReadLanguage(e.c.Value)
	case "unlisted":
		head.Unlisted = e.c.Value == value.Yes
	default:
		err = doc.Problemf(
			"Setting",
			"%.40q isn't one of a page; name, title, description, ground, categories, picture, date, language and unlisted are",
			e.c.Setting,
		)
	}
	if err != nil {
		return nil, err
	}
	return []Step{{Do: SetPage, Page: &head}}, nil
}

// readGround reads the colour that a page lies on: one of the palette, or "" for the house
// style's.
func (e sectionEdits) readGround() (string, error) {
	v := strings.TrimSpace(e.c.Value)
	if v == "" || strings.EqualFold(v, "default") {
		return "", nil
	}
	for _, w := range e.env.Site.House.Palette {
		if v == "$"+w.Token || strings.EqualFold(v, w.Name) {
			return w.Token, nil
		}
	}
	return "", doc.Problemf(
		"Page background",
		"can't be %.40q: choose a colour of the palette, or none for the house style's",
		v,
	)
}

// after gives the index behind a section, or 0 for "".
func (e *editing) after() (int, error) {
	if e.c.After == "" {
		return 0, nil
	}
	s, i := e.page.Section(e.c.After)
	if s == nil {
		return 0, doc.Problemf(
			"Position",
			"isn't there any more: the section to put it after is gone; choose another place",
		)
	}
	return i + 1, nil
}

func (e sectionEdits) addSection() ([]Step, error) {
	at, err := e.after()
	if err != nil {
		return nil, err
	}
	s, err := e.ready(e.c.Preset)
	if err != nil {
		return nil, err
	}
	if s.Shared && taken(e.page, s.ID) {
		return nil, doc.Problemf("Section", "“%s” is on this page already; it is the same wherever it stands", s.Name)
	}
	e.selected = s.ID
	return []Step{{Do: InsertSection, At: at, Section: s}}, nil
}

// ready gives a new section: ready-made, or for "kept:" and an id one that the site
// keeps on its Shelf.
func (e sectionEdits) ready(id string) (*doc.Section, error) {
	if kept, ok := strings.CutPrefix(id, "kept:"); ok && e.env.Kept != nil {
		if s := e.env.Kept(kept); s != nil {
			return anew(s, e.env.NewID), nil
		}
		return nil, doc.Problemf("Section", "%.40q isn't on the Shelf any more", kept)
	}
	if shared, ok := strings.CutPrefix(id, SharedPrefix); ok && e.env.Shared != nil {
		if s := e.env.Shared(shared); s != nil {
			return s, nil
		}
		return nil, doc.Problemf("Section", "isn't on any page any more, so it can't be shared from there")
	}
	preset := ready.FindPreset(id)
	if preset == nil {
		return nil, doc.Problemf("Section", "there is no ready-made section %.40q", id)
	}
	s := preset.Make(e.env.NewID, ready.FindBusiness(e.env.Site.Business))
	if preset.Stock != "" && e.env.Stock != nil {
		s.Picture = e.env.Stock(preset.Stock)
	}
	return s, nil
}

// anew gives a copy of a section with new ids.
func anew(s *doc.Section, newID func(string) string) *doc.Section {
	c := s.Clone()
	c.ID, c.Anchor, c.View, c.Shared = newID("s"), "", nil, false
	for i, b := range c.Blocks {
		c.Blocks[i] = b.Anew(newID)
	}
	return c
}

func (e sectionEdits) moveSection() ([]Step, error) {
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

func (e sectionEdits) shiftSection() ([]Step, error) {
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
	return setBlock(e.block, change)
}

// setBlock gives the step that replaces a block's own fields after change.
func setBlock(b *doc.Block, change func(*doc.Block)) []Step {
	b = b.Clone()
	b.Blocks = nil
	change(b)
	return []Step{{Do: SetBlock, ID: b.ID, Block: b}}
}

func (e sectionEdits) hideSection() ([]Step, error) {
	return e.head(func(s *doc.Section) { s.Hidden = e.c.Hide }), nil
}

func (e sectionEdits) setRole() ([]Step, error) {
	r := doc.Role(e.c.Value)
	if r != doc.RoleMain && r != doc.RoleHeader && r != doc.RoleFooter {
		return nil, doc.Problemf("Landmark", "can't be %.40q: choose header, footer or section", e.c.Value)
	}
	return e.head(func(s *doc.Section) { s.Role = r }), nil
}

var anchorPattern = regexp.MustCompile(`^[a-z][a-z0-9-]{0,59}$`)

func (e sectionEdits) setAnchor() ([]Step, error) {
	v := strings.TrimPrefix(strings.TrimSpace(e.c.Value), "#")
	if v != "" && !anchorPattern.MatchString(v) {
		return nil, doc.Problemf(
			"Anchor",
			"can't be %.60q: write small letters, digits and hyphens, such as opening-hours",
			v,
		)
	}
	for _, s := range e.page.Sections {
		if v != "" && s.Anchor == v && s.ID != e.section.ID {
			return nil, doc.Problemf("Anchor", "%q is the section %q's already; choose another", v, s.Name)
		}
	}
	if v != "" && e.viewed(v) {
		return nil, doc.Problemf("Anchor", "%q is a view's already; choose another", v)
	}
	return e.head(func(s *doc.Section) { s.Anchor = v }), nil
}

// medium checks that the site has a file of a sort; "" is none.
func (e *editing) medium(field, id string, sort doc.MediumSort) error {
	if id != "" && (e.env.Medium == nil || e.env.Medium(id) != sort) {
		return doc.Problemf(field, "isn't one of this site's any more; choose one or upload it")
	}
	return nil
}

// setFilm sets what plays behind a section.
func (e sectionEdits) setFilm() ([]Step, error) {
	if err := e.medium("Video", e.c.Value, doc.VideoMedium); err != nil {
		return nil, err
	}
	return e.head(func(s *doc.Section) { s.Video = e.c.Value }), nil
}

func (e sectionEdits) setBackdrop() ([]Step, error) {
	if err := e.medium("Picture", e.c.Value, doc.PictureMedium); err != nil {
		return nil, err
	}
	return e.head(func(s *doc.Section) { s.Picture = e.c.Value }), nil
}

func (e lookEdits) rename() ([]Step, error) {
	name, err := doc.Line("Name", e.c.Value, doc.MaxNameRunes)
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

func (e lookEdits) change(name string, change func(doc.Zoned[string]) doc.Zoned[string]) []Step {
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

func (e lookEdits) setting() (*style.Setting, error) {
	s := style.Find(e.c.Setting, e.kind())
	if s == nil {
		return nil, doc.Problemf("Setting", "%.40q isn't one of a %s", e.c.Setting, e.kind())
	}
	return s, nil
}

func (e lookEdits) set() ([]Step, error) {
	s, err := e.setting()
	if err != nil {
		return nil, err
	}
	if strings.TrimSpace(e.c.Value) == "" { // an emptied field follows again
		return e.follow()
	}
	v, problem := s.Read(&e.env.Site.House, e.c.Value)
	if problem != nil {
		return nil, problem
	}
	return e.change(s.Name, func(z doc.Zoned[string]) doc.Zoned[string] { return z.With(e.c.Zone, v) }), nil
}

func (e lookEdits) follow() ([]Step, error) {
	s, err := e.setting()
	if err != nil {
		return nil, err
	}
	return e.change(s.Name, func(z doc.Zoned[string]) doc.Zoned[string] { return z.Without(e.c.Zone) }), nil
}

// same takes the value that another section or block has of a setting: a token as the token,
// and nothing where it has none.
func (e lookEdits) same() ([]Step, error) {
	s, err := e.setting()
	if err != nil {
		return nil, err
	}
	var from doc.Style
	kind := style.OnSection
	id, _ := doc.SplitItem(e.c.After)
	if sec, _ := e.page.Section(id); sec != nil {
		from = sec.Style
	} else if _, b := e.page.Block(id); b != nil {
		from, kind = b.Style, b.Kind
	} else {
		return nil, doc.Problemf(s.Label, "can't be taken over: the block to take it from isn't on this page any more")
	}
	if style.Find(s.Name, kind) == nil {
		return nil, doc.Problemf(s.Label, "that block has no such setting; press another one")
	}
	v, _, ok := from[s.Name].Resolve(e.env.Site.Zones, e.env.Site.Zones.Index(e.c.Zone))
	if !ok {
		return e.follow()
	}
	e.c.Value = v
	return e.set()
}

func (e additions) delete() ([]Step, error) {
	switch {
	case e.block == nil:
		return []Step{{Do: RemoveSection, ID: e.section.ID}}, nil
	case e.series != nil && e.holder().ID == e.series.ID: // the design, as one item shows it
		return contentEdits(e).removeItem()
	}
	e.selected = e.holder().ID
	return []Step{{Do: RemoveBlock, ID: e.block.ID}}, nil
}

func (e additions) duplicate() ([]Step, error) {
	if e.block == nil {
		c := anew(e.section, e.env.NewID)
		c.Name = e.copyName(c.Name)
		_, i := e.page.Section(e.section.ID)
		e.selected = c.ID
		return []Step{{Do: InsertSection, At: i + 1, Section: c}}, nil
	}
	h := e.holder()
	if e.series != nil && h.ID == e.series.ID {
		return contentEdits(e).addItem()
	}
	c := e.block.Anew(e.env.NewID)
	if h.Arrangement == doc.Placed {
		at := doc.Zoned[doc.Place]{}
		resolved := place.Resolve(h, e.zones())
		for z, zone := range e.zones() {
			if _, byHand := c.Place[zone.ID]; byHand {
				at[zone.ID] = place.Again(resolved[z], h.Index(e.block.ID), h.Columns(e.zones(), z))
			}
		}
		c.Place = at
	}
	e.selected = c.ID
	return []Step{{Do: InsertBlock, Parent: h.ID, At: h.Index(e.block.ID) + 1, Block: c}}, nil
}

// copyName names a copy of a section by the next number that is free: "Fares 2", "Fares 3" and so on.
func (e additions) copyName(name string) string {
	base := copySuffix.ReplaceAllString(name, "")
	taken := func(name string) bool {
		return slices.ContainsFunc(e.page.Sections, func(s *doc.Section) bool { return s.Name == name })
	}
	for n := 2; n <= doc.MaxSections+1; n++ {
		named := base + " " + strconv.Itoa(n)
		if utf8.RuneCountInString(named) > doc.MaxNameRunes {
			return name
		}
		if !taken(named) {
			return named
		}
	}
	return name
}

var copySuffix = regexp.MustCompile(`( copy)*( \d{1,2})?$`) // as copies are named, or were

func (e *editing) zones() doc.Zones { return e.env.Site.Zones }

func (e lookEdits) hideBlock() ([]Step, error) {
	return e.replace(func(b *doc.Block) {
		i := e.zones().Index(e.c.Zone)
		b.Hidden = b.Hidden.Without(e.c.Zone)
		if b.Hidden.Or(e.zones(), i, false) != e.c.Hide {
			b.Hidden = b.Hidden.With(e.c.Zone, e.c.Hide)
		}
	}), nil
}

package check

import (
	"cmp"
	"context"
	"slices"
	"sync"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/style"
)

// Part is a section that is checked: its elements, ready to be laid out, and what is around it.
type Part struct {
	Root *element.Node
	// Tree is Root ready to be laid out, which what is asked of the whole page needs not.
	Tree  func() *layout.Tree
	Zones doc.Zones
	// Section is the document's.
	Section *doc.Section
	// Pixels gives the colours of a picture by the address that its elements have, or nil where
	// nothing is known of it; it may be nil.
	Pixels func(address string) *colour.Pixels
	// At are the widths in px that are looked at, in their order; nil is all.
	At []int
}

// slack is how far, in px, something may be off without being seen.
const slack = 0.5

// Section gives what is wrong in a section by itself, at every width, unless ctx ends before.
func Section(ctx context.Context, p Part) ([]Finding, error) {
	g := p.gather()
	for z, zone := range p.Zones {
		g.refer(z, zone)
		g.flat = append(g.flat, g.flats(z))
	}
	out, err := g.sweep(ctx, Rules)
	if err != nil {
		return nil, err
	}
	return append(out, g.zoned()...), nil
}

// sweep looks for what breaks rules at each width.
func (g *gathered) sweep(ctx context.Context, rules []*Rule) ([]Finding, error) {
	p := g.Part
	if p.At != nil {
		s := &sight{gathered: g}
		all := make([][]raw, len(p.At))
		for i, w := range p.At {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			s.look(rules, p.Tree().At(float64(w)), w)
			all[i] = slices.Clone(s.found)
		}
		return merged(all, func(i int) int { return p.At[i] }), nil
	}
	all := make([][]raw, Widths.To-Widths.From+1)
	sights := sync.Pool{New: func() any { return &sight{gathered: g} }}
	p.Tree().Each(Widths.From, Widths.To, func(width int, root *layout.Box) bool {
		s := sights.Get().(*sight)
		s.look(rules, root, width)
		all[width-Widths.From] = slices.Clone(s.found)
		sights.Put(s)
		return ctx.Err() == nil
	})
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	return merged(all, func(i int) int { return Widths.From + i }), nil
}

// raw is something found at one width.
type raw struct {
	rule              *Rule
	node, other, part string
	by, of            float64
	words             string
}

func (r *raw) key() Key { return Key{Rule: r.rule.ID, Node: r.node, Other: r.other, Part: r.part} }

// merged makes findings of what was found at each of some widths, which width gives.
func merged(by [][]raw, width func(i int) int) (out []Finding) {
	at := map[Key]int{}
	for i, rs := range by {
		width, before := width(i), width(max(i-1, 0))
		for _, r := range rs {
			k, known := at[r.key()]
			if !known {
				k = len(out)
				at[r.key()] = k
				out = append(
					out,
					Finding{
						Rule:  r.rule,
						Node:  r.node,
						Other: r.other,
						Part:  r.part,
						By:    r.by,
						Of:    r.of,
						Worst: width,
						Words: r.words,
					},
				)
			}
			f := &out[k]
			if n := len(f.Ranges) - 1; n >= 0 && f.Ranges[n].To >= before {
				f.Ranges[n].To = width
			} else {
				f.Ranges = append(f.Ranges, Range{From: width, To: width})
			}
			if r.by > f.By != r.rule.Least && r.by != f.By {
				f.By, f.Of, f.Worst, f.Words = r.by, r.of, width, r.words
			}
		}
	}
	return slices.DeleteFunc(out, func(f Finding) bool { return f.least > 0 && f.Reach() < f.least })
}

// info is what is known of an element whatever the width.
type info struct {
	block, section string
	top            bool     // it is the outermost of its block or section
	above          string   // the block that its block stands in, or ""
	within         []string // the blocks that it stands in, its own included, from the outermost
	text           string   // of a container of lines
	heading        int      // its level, or 0
	target         bool     // it is pressed
	inline         bool     // a target in a sentence
	shown          bool     // a picture, a video or an own page
	hidden         bool     // visitors aren't told of it
	nth            int      // its place in the document
}

// gathered is what is known of a section before it is looked at.
type gathered struct {
	Part
	infos map[*element.Node]*info
	kinds map[string]*doc.Block
	// meant are pairs of blocks that overlap where they were placed, by zone.
	meant []map[[2]string]bool
	paint []bool                    // by zone: something is painted in another order than it stands in
	count int                       // of the elements known
	flat  []map[*element.Node]faint // by zone: words on a ground that is too like them, by the element of their lines
	pair  bool                      // they are two sections, of which only what one does to the other is looked for
}

func (p Part) gather() *gathered {
	g := &gathered{
		Part:  p,
		infos: map[*element.Node]*info{},
		kinds: map[string]*doc.Block{},
		meant: make([]map[[2]string]bool, len(p.Zones)),
		paint: make([]bool, len(p.Zones)),
	}
	if p.Section != nil {
		p.Section.Walk(func(b *doc.Block) { g.kinds[b.ID] = b })
	}
	g.know(p.Root, &info{})
	return g
}

func (g *gathered) know(n *element.Node, up *info) {
	g.count++
	in := &info{
		nth:     g.count,
		block:   up.block,
		section: up.section,
		within:  up.within,
		above:   up.above,
		hidden:  up.hidden,
		inline:  up.inline,
	}
	if n.Section != "" {
		in.section, in.top = n.Section, true
	}
	if n.Block != "" && n.Block != up.block {
		in.block, in.top, in.above = n.Block, true, up.block
		in.within = append(slices.Clone(up.within), n.Block)
	}
	if attr(n, "aria-hidden") == "true" {
		in.hidden = true
	}
	switch n.Tag {
	case "a":
		in.target = attr(n, "href") != ""
	case "button", "select", "textarea", "summary":
		in.target = true
	case "input":
		in.target = attr(n, "type") != "hidden" && attr(n, "tabindex") != "-1"
	case "img", "video", "iframe":
		in.shown = true
	case "h1", "h2", "h3", "h4", "h5", "h6":
		in.heading = int(n.Tag[1] - '0')
	}
	if n.Inline() {
		in.text = textOf(n)
		if in.heading == 0 {
			in.heading = up.heading
		}
	}
	for z := range n.Styles {
		g.paint[z] = g.paint[z] || n.Styles[z].ZIndex != 0
	}
	g.infos[n] = in
	for _, c := range n.Children {
		g.know(c, in)
	}
}

// attr gives an attribute of an element, or "".
func attr(n *element.Node, name string) string {
	for _, a := range n.Attrs {
		if a.Name == name {
			return a.Value
		}
	}
	return ""
}

func has(n *element.Node, name string) bool {
	return slices.ContainsFunc(n.Attrs, func(a element.Attr) bool { return a.Name == name })
}

// textOf gives the words that an element holds: those of the widest zone, where it has others.
func textOf(n *element.Node) string {
	if n.Tag == "" {
		return n.Text
	}
	var out string
	for _, c := range n.Children {
		if c.Tag == "" || c.Tag == "br" || attr(c, "data-words") == "" || c.Styles[0].Display != style.None {
			out += textOf(c)
		}
	}
	return out
}

// box is a box where it stands: its own, and as it is painted.
type box struct {
	*layout.Box
	*info
	st             *style.Style
	x, y           float64
	px, py, pw, ph float64 // painted
	up             int     // the index of the box that it stands in, -1 for none
	clip           int     // that of the one that cuts it off, -1 for none
	cut            int     // that of the one whose edges it isn't seen past, -1 for none
	free           bool    // it stands in what is scrolled, or turned with what it stands in
	see            float64 // its opacity
}

// line is a line of words where it is seen.
type line struct {
	box        int
	i          int // which of the box's
	x, y, w, h float64
}

// sight is what is seen of a section at a width, in the order in which it is painted.
type sight struct {
	*gathered
	width   float64
	px      int
	zone    int
	view    style.Viewport
	boxes   []box
	lines   []line
	rule    *Rule // the one that is looked for
	found   []raw
	from    int                      // where those of the rule begin
	notes   map[[3]string]int        // those of them that come after the first few, by node, other and part
	order   []int                    // scratch
	colours map[string]colour.Colour // that were read
	read    map[string][]gradient    // that were read
	last    seen
}

// seen is how a section was at the width before.
type seen struct {
	root *layout.Box
	zone int
}

// alike reports whether a section is as it was at the width that was looked at before, but for how far
// it stands from the page's edges: what it holds is the very same.
func (s *sight) alike(root *layout.Box, zone int) bool {
	was := s.last.root
	st := &root.Node.Styles[zone]
	if was == nil || s.last.zone != zone || was.H != root.H || len(was.Children) != len(root.Children) ||
		st.BackgroundURL != "" ||
		st.BackgroundTop != "" {
		return false
	}
	for i := range root.Children {
		if root.Children[i].Box != was.Children[i].Box || root.Children[i].Y != was.Children[i].Y {
			return false
		}
	}
	return true
}

// look looks at a section at a width and notes what is found.
func (s *sight) look(rules []*Rule, root *layout.Box, width int) {
	alike := s.alike(root, s.Zones.At(float64(width)))
	s.take(root, width)
	if s.last = (seen{root, s.zone}); alike {
		s.found = slices.DeleteFunc(s.found, func(f raw) bool { return f.rule.viewport })
	} else {
		s.found = s.found[:0]
	}
	for _, r := range rules {
		if r.at != nil && (!alike || r.viewport) {
			s.begin(r)
			r.at(s)
		}
	}
}

// take takes the boxes of a section in.
func (s *sight) take(root *layout.Box, width int) {
	s.px, s.width, s.zone = width, float64(width), s.Zones.At(float64(width))
	s.view = style.Viewport{Width: s.width, Height: s.Zones[s.zone].ViewHeight()}
	s.boxes, s.lines = s.boxes[:0], s.lines[:0]
	s.walk(root, 0, 0, -1, -1, -1, false, 1)
}

func (s *sight) walk(b *layout.Box, x, y float64, up, clip, cut int, free bool, see float64) {
	st := &b.Node.Styles[s.zone]
	if st.Display == style.None || st.ClipPath == unseenClip {
		return
	}
	if st.Opacity > 0 {
		see *= st.Opacity
	}
	in := s.infos[b.Node]
	if in == nil {
		return
	}
	i := len(s.boxes)
	dx, dy, w, h := b.Painted(s.zone)
	s.boxes = append(s.boxes, box{b, in, st, x, y, x + dx, y + dy, w, h, up, clip, cut, free, see})
	for k, l := range b.Lines {
		s.lines = append(s.lines, line{i, k, x + l.X, y + l.Y, l.W, l.H})
	}
	switch {
	case st.Overflow == style.Hidden && in.top:
		clip = i
	case st.Overflow != style.Visible || st.ClipPath != "":
		clip, free = -1, true
	}
	if st.Overflow != style.Visible {
		cut = i
	}
	if st.Rotate != 0 { // what is in it is turned with it
		free = true
	}
	if !s.paint[s.zone] || len(b.Children) < 2 {
		for _, c := range b.Children {
			s.walk(c.Box, x+c.X, y+c.Y, i, clip, cut, free, see)
		}
		return
	}
	// Painted by z-index, what is alike in the order of the document (CSS 2.2, appendix E).
	from := len(s.order)
	for k := range b.Children {
		s.order = append(s.order, k)
	}
	mine := s.order[from:]
	slices.SortStableFunc(mine, func(a, c int) int {
		return cmp.Compare(b.Children[a].Node.Styles[s.zone].ZIndex, b.Children[c].Node.Styles[s.zone].ZIndex)
	})
	for k := range mine {
		c := b.Children[s.order[from+k]]
		s.walk(c.Box, x+c.X, y+c.Y, i, clip, cut, free, see)
	}
	s.order = s.order[:from]
}

// unseenClip is how elements are cut that are there to be heard only.
const unseenClip = "inset(50%)"

// cutOff reports whether nothing is seen of a rectangle in a box, for what the box stands in cuts it off: the slides
// of a slider that come later, beside which something else stands. What is scrolled together is seen together.
func (s *sight) cutOff(b, other *box, x0, y0, x1, y1 float64) bool {
	for i := b.cut; i >= 0; i = s.boxes[i].cut {
		c := &s.boxes[i]
		if x1 > c.x+1 && y1 > c.y+1 && x0 < c.x+c.W-1 && y0 < c.y+c.H-1 {
			continue
		}
		within := false
		for k := other.cut; k >= 0 && !within; k = s.boxes[k].cut {
			within = k == i
		}
		if c.st.Overflow == style.Hidden || !within {
			return true
		}
	}
	return false
}

// node is what a box is part of: its block, or the section.
func (b *box) node() string { return cmp.Or(b.block, b.section) }

// note notes a finding at the width.
func (s *sight) note(node, other string, by float64) { s.noteWords(node, other, "", by, 0, "") }

func (s *sight) noteWords(node, other, part string, by, of float64, words string) {
	if i := s.noted(node, other, part); i >= 0 { // the worst of several
		if f := &s.found[i]; by > f.by != s.rule.Least && by != f.by {
			f.by, f.of, f.words = by, of, words
		}
		return
	}
	if len(s.found)-s.from >= fewNotes {
		s.notes[[3]string{node, other, part}] = len(s.found)
	}
	s.found = append(s.found, raw{s.rule, node, other, part, by, of, words})
}

// fewNotes is how many notes of a rule are gone through one by one.
const fewNotes = 16

// noted gives where the rule has noted something about the same already, or -1.
func (s *sight) noted(node, other, part string) int {
	few := s.found[s.from:]
	for i := range few[:min(len(few), fewNotes)] {
		if f := &few[i]; f.node == node && f.other == other && f.part == part {
			return s.from + i
		}
	}
	if len(few) <= fewNotes {
		return -1
	}
	if i, ok := s.notes[[3]string{node, other, part}]; ok {
		return i
	}
	return -1
}

// begin begins to look for what breaks a rule.
func (s *sight) begin(r *Rule) {
	s.rule, s.from = r, len(s.found)
	if s.notes == nil {
		s.notes = map[[3]string]int{}
	}
	clear(s.notes)
}

// foreign reports whether two boxes are of the two sections of a pair.
func (g *gathered) foreign(a, b *info) bool { return g.pair && a.section != b.section }

// apart reports whether two boxes are of blocks neither of which stands in the other.
func apart(a, b *info) bool {
	return a.block != b.block && a.block != "" && b.block != "" && !slices.Contains(a.within, b.block) &&
		!slices.Contains(b.within, a.block)
}

// opaque reports whether nothing is seen through a box.
func (b *box) opaque() bool {
	if b.see < 0.5 {
		return false
	}
	if b.shown || b.st.BackgroundURL != "" {
		return true
	}
	return solid(b.st.Background)
}

// solid reports whether a colour, "#rrggbb" or "#rrggbbaa", lets hardly anything through.
func solid(colour string) bool {
	return len(colour) == 7 || len(colour) == 9 && colour[7] >= '8'
}

// start gives the first of a text's letters, as findings quote it.
func start(text string) string {
	r := []rune(text)
	if len(r) > 40 {
		return string(r[:39]) + "…"
	}
	return text
}

// zoned is a section's elements in a zone.
type zoned struct {
	*gathered
	zone  int
	rule  *Rule
	found []raw
}

// zoned gives what is found by zone, whatever the width in it.
func (g *gathered) zoned() []Finding {
	var out []Finding
	at := map[Key]int{}
	for z := len(g.Zones) - 1; z >= 0; z-- {
		r := zoneRange(g.Zones, z)
		s := &zoned{gathered: g, zone: z}
		for _, rule := range Rules {
			if rule.zone != nil {
				s.rule = rule
				rule.zone(s)
			}
		}
		for _, f := range s.found {
			k, known := at[f.key()]
			if !known {
				k = len(out)
				at[f.key()] = k
				out = append(
					out,
					Finding{
						Rule:  f.rule,
						Node:  f.node,
						Other: f.other,
						Part:  f.part,
						By:    f.by,
						Of:    f.of,
						Worst: r.From,
						Words: f.words,
					},
				)
			}
			o := &out[k]
			if n := len(o.Ranges) - 1; n >= 0 && o.Ranges[n].To == r.From-1 {
				o.Ranges[n].To = r.To
			} else {
				o.Ranges = append(o.Ranges, r)
			}
			if f.by > o.By != f.rule.Least && f.by != o.By {
				o.By, o.Of, o.Worst, o.Words = f.by, f.of, r.From, f.words
			}
		}
	}
	return out
}

// zoneRange gives the widths of a zone that are checked.
func zoneRange(zs doc.Zones, z int) Range {
	r := Range{From: max(zs[z].Min, Widths.From), To: Widths.To}
	if z > 0 {
		r.To = min(r.To, zs[z-1].Min-1)
	}
	return r
}

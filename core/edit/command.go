package edit

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/number"
	"openplot/core/ready"
	"openplot/core/rights"
)

// Command is what a person asks for. Which fields an operation reads stands
// beside it in the table of operations.
type Command struct {
	Op string `json:"op"`
	// Base is the sequence number of the page that the person saw.
	Base    int64      `json:"base"`
	Node    string     `json:"node,omitempty"`
	With    []string   `json:"with,omitempty"`  // further blocks, for what is done to several
	After   string     `json:"after,omitempty"` // a section or block; "" is the beginning
	Into    string     `json:"into,omitempty"`  // a section or container
	At      int        `json:"at,omitempty"`    // an entry, from 0
	Zone    string     `json:"zone,omitempty"`
	Kind    doc.Kind   `json:"kind,omitempty"`
	Preset  string     `json:"preset,omitempty"` // a ready-made section
	Setting string     `json:"setting,omitempty"`
	Value   string     `json:"value,omitempty"`
	Place   *doc.Place `json:"place,omitempty"`
	DX      int        `json:"dx,omitempty"` // columns, or for sections and layers DY alone
	DY      int        `json:"dy,omitempty"`
	Hide    bool       `json:"hide,omitempty"`
	// Parts are the commands of one that holds several, Many, in their order. A node
	// named "@1" is the one that the first of them selects, such as what it adds.
	Parts []Command `json:"parts,omitempty"`
}

// Many is the operation of a command that holds several: they are checked together, are
// one entry of the log, and are taken back together.
const Many = "many"

// MaxParts is how many commands one holds at most.
const MaxParts = 500

// Nodes gives the nodes that a command names to be changed.
func (c Command) Nodes() (out []string) {
	if c.Op != Many {
		return append([]string{c.Node}, c.With...)
	}
	for _, p := range c.Parts {
		out = append(out, p.Nodes()...)
	}
	return out
}

// StockPrefix begins what stands for a stock picture that isn't in a site's library.
const StockPrefix = "stock:"

// Stocks gives the stock pictures that a command needs in the site's library.
func (c Command) Stocks() (out []string) {
	for _, p := range c.Parts {
		out = append(out, p.Stocks()...)
	}
	if id, ok := c.stock(); ok {
		out = append(out, id)
	}
	if c.Op != "section.add" {
		return out
	}
	if p := ready.FindPreset(c.Preset); p != nil && p.Stock != "" {
		out = append(out, p.Stock)
	}
	return out
}

// stock gives the stock picture that is the value of a command; what is written or named may begin
// as one does, and isn't.
func (c Command) stock() (id string, ok bool) {
	if slices.Contains([]string{"block.write", "entry.write", "rename"}, c.Op) {
		return "", false
	}
	return strings.CutPrefix(c.Value, StockPrefix)
}

// WithStocks gives the command with the site's own in place of stock pictures, by their ids there.
func (c Command) WithStocks(own map[string]string) Command {
	if id, ok := c.stock(); ok && own[id] != "" {
		c.Value = own[id]
	}
	c.Parts = slices.Clone(c.Parts)
	for i, p := range c.Parts {
		c.Parts[i] = p.WithStocks(own)
	}
	return c
}

// Rights gives the rights that a command takes.
func (c Command) Rights() (out []rights.Right) {
	if c.Op != Many {
		if c.Op == "block.content" && element.TakesMarkup(c.Setting) { // which can do whatever a page can
			return []rights.Right{RightFor(c.Op), rights.Compose}
		}
		return []rights.Right{RightFor(c.Op)}
	}
	for _, p := range c.Parts {
		out = append(out, p.Rights()...)
	}
	return out
}

// MaxCommand is the greatest size of a command's JSON in bytes.
const MaxCommand = 1 << 20

// Parse reads a command from JSON. Unknown fields are refused.
func Parse(b []byte) (Command, error) {
	var c Command
	if len(b) > MaxCommand {
		return c, doc.Problemf("Edit", "is larger than 1 MB; make it in smaller parts")
	}
	if err := carry.CountValues(b, carry.FewValues); errors.Is(err, carry.ErrMuch) {
		return c, doc.Problemf("Edit", "holds too much; make it in smaller parts")
	}
	d := json.NewDecoder(bytes.NewReader(b))
	d.DisallowUnknownFields()
	if err := d.Decode(&c); err != nil {
		return c, doc.Problemf("Edit", "can't be read: %s", strings.TrimPrefix(err.Error(), "json: "))
	}
	if d.More() {
		return c, doc.Problemf("Edit", "has something after its end; send one at a time")
	}
	return c, nil
}

// Env is what a command is checked against beside the page.
type Env struct {
	Site *doc.Site
	// NewID makes a new id with a prefix, unique on the page.
	NewID func(prefix string) string
	// Medium tells what a file of the site's library is good for, HasIcon whether the shipped
	// set has an icon. Nil functions know of none.
	Medium  func(id string) doc.MediumSort
	HasIcon func(name string) bool
	// Stock gives the site's picture that is a stock picture, or ""; nil has none.
	Stock func(id string) string
	// Shared gives a section that stands on several pages, or nil.
	Shared func(id string) *doc.Section
	// Kept gives a section that the site keeps on its Shelf, or nil.
	Kept func(id string) *doc.Section
}

// Result is an accepted command's outcome.
type Result struct {
	Page    *doc.Page
	Steps   []Step // what was done
	Inverse []Step // what takes it back
	Nodes   []string
	// Sections are those that look different now, gone ones included.
	Sections []string
	// Select is the node to select afterwards, or "" for no change.
	Select string
	// Note tells a person what isn't seen, such as what was left out, or is "".
	Note string
}

// Apply carries out a command. Errors are *doc.Problem; the page is unchanged
// then. A command that changes nothing gives a Result without steps.
func Apply(p *doc.Page, c Command, env Env) (*Result, error) {
	if c.Op == Many {
		return applyMany(p, c.Parts, env)
	}
	op, ok := operations[c.Op]
	if !ok {
		return nil, doc.Problemf("Edit", "%.40q isn't a known edit", c.Op)
	}
	e := &editing{page: p, c: c, env: env}
	if err := e.find(op.on); err != nil {
		return nil, err
	}
	if op.zone && env.Site.Zones.Index(c.Zone) < 0 {
		return nil, doc.Problemf("Zone", "%.40q isn't a zone of this site", c.Zone)
	}
	if err := e.unlocked(); err != nil {
		return nil, err
	}
	steps, err := op.run(e)
	if err != nil {
		return nil, err
	}
	next, inverse, err := Run(p, steps)
	if err != nil {
		return nil, fmt.Errorf("running %s: %w", c.Op, err)
	}
	if err := withinLimits(p, next); err != nil {
		return nil, err
	}
	r := &Result{Page: next, Steps: steps, Inverse: inverse, Select: e.selected, Note: e.note}
	r.Nodes, r.Sections = Touched(steps, p, next)
	return r, nil
}

// applyMany carries out commands one after another on what those before made, and gives
// their outcome as one.
func applyMany(p *doc.Page, parts []Command, env Env) (*Result, error) {
	if len(parts) == 0 || len(parts) > MaxParts {
		return nil, doc.Problemf("Edit", "holds %d commands; 1 to %d can be made together", len(parts), MaxParts)
	}
	out := &Result{Page: p}
	selected := make([]string, len(parts))
	for i, c := range parts {
		if c.Op == Many {
			return nil, doc.Problemf("Edit", "holds several commands within several; put them on one level")
		}
		for _, ref := range []*string{&c.Node, &c.After, &c.Into} {
			if n, ok := strings.CutPrefix(*ref, "@"); ok {
				k, err := number.Whole(n)
				if err != nil || k < 1 || k > i {
					return nil, doc.Problemf(
						"Edit",
						"names %.20q; @1 to @%d are the nodes of the commands before",
						*ref,
						i,
					)
				}
				*ref = selected[k-1]
			}
		}
		r, err := Apply(out.Page, c, env)
		if err != nil {
			return nil, err
		}
		selected[i] = cmp.Or(r.Select, c.Node)
		out.Page, out.Select, out.Note = r.Page, cmp.Or(r.Select, out.Select), cmp.Or(r.Note, out.Note)
		out.Steps = append(out.Steps, r.Steps...)
		out.Inverse = append(slices.Clone(r.Inverse), out.Inverse...)
	}
	out.Nodes, out.Sections = Touched(out.Steps, p, out.Page)
	return out, nil
}

// withinLimits holds a page to what there can be; one that was larger already may get smaller.
func withinLimits(was, p *doc.Page) error {
	if now := p.Size(); now.Over() {
		switch before := was.Size(); {
		case now.Runes > doc.MaxPageRunes && now.Runes > before.Runes:
			return doc.Problemf(
				"Page",
				"would have %d characters; %d is the most, so put some on a page of their own",
				now.Runes,
				doc.MaxPageRunes,
			)
		case now.Blocks > doc.MaxShownBlocks && now.Blocks > before.Blocks:
			return doc.Problemf(
				"Page",
				"would show %d blocks, those of Series once for each item; %d is the most",
				now.Blocks,
				doc.MaxShownBlocks,
			)
		}
	}
	if len(p.Sections) > doc.MaxSections {
		return doc.Problemf("Page", "has %d sections already, the most there can be", doc.MaxSections)
	}
	n, deep := 0, 0
	for _, s := range p.Sections {
		s.Walk(func(*doc.Block) { n++ })
		for _, b := range s.Blocks {
			deep = max(deep, b.Depth())
		}
	}
	if deep > doc.MaxDepth {
		return doc.Problemf("Container", "would stand in %d others; %d is the most", deep-1, doc.MaxDepth-1)
	}
	if n > doc.MaxBlocks {
		return doc.Problemf("Page", "has %d blocks already, the most there can be", doc.MaxBlocks)
	}
	return nil
}

// editing is one command at work.
type editing struct {
	page     *doc.Page
	c        Command
	env      Env
	section  *doc.Section // the node, or the section it stands in
	block    *doc.Block   // the node, when it is a block
	series   *doc.Block   // the Series whose item the node was pointed at in, or nil
	item     int          // the item's index
	whole    bool         // a page is read from a file, so that more of it is kept than of what is pasted
	selected string
	note     string
}

// target says what kind of node an operation works on.
type target int

const (
	onPage target = iota
	onSection
	onBlock
	onEither
)

func (e *editing) find(on target) error {
	if on == onPage {
		return nil
	}
	if on != onBlock {
		if e.section, _ = e.page.Section(e.c.Node); e.section != nil {
			return nil
		}
	}
	if on != onSection {
		id, item := doc.SplitItem(e.c.Node)
		if e.section, e.block = e.page.Block(id); e.block != nil && e.findItem(item) {
			return nil
		}
	}
	what := map[target]string{onSection: "Section", onBlock: "Block", onEither: "Selection"}[on]
	return doc.Problemf(what, "isn't on this page any more")
}

// findItem finds the Series that a block of its design stands in; "" is no item.
func (e *editing) findItem(id string) bool {
	if id == "" {
		return true
	}
	for _, b := range e.section.Path(e.block.ID) {
		if _, i := b.FindItem(id); i >= 0 {
			e.series, e.item = b, i
			return true
		}
	}
	return false
}

// holder is what the block stands in, or the section itself.
func (e *editing) holder() doc.Holder {
	if e.block == nil {
		return e.section.Holder()
	}
	return e.section.HolderOf(e.block.ID)
}

// kind is the node's kind as settings see it.
func (e *editing) kind() doc.Kind {
	if e.block != nil {
		return e.block.Kind
	}
	return "section"
}

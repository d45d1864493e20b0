package model

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"html/template"
	"path"
	"path/filepath"
	"slices"
	"sync"

	"openplot/core/check"
	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/layout"
	"openplot/core/ready"
	"openplot/site"
	"openplot/store"
)

// Checked is what was found on a page.
type Checked struct {
	Findings []check.Finding
	Quiet    []QuietFinding // those that are meant to be so
	names    map[string]string
	page     *check.Page
}

// QuietFinding is a finding that is meant to be so.
type QuietFinding struct {
	check.Finding
	Reason, By string
}

// Name gives what people call a section or a block.
func (c *Checked) Name(id string) string {
	if n, ok := c.names[id]; ok {
		return n
	}
	of, _ := doc.SplitItem(id)
	if n, ok := c.names[of]; ok {
		return n
	}
	return "something"
}

// Weights is what a visitor's browser loads for the page, by zone.
func (c *Checked) Weights() []check.Bytes { return c.page.Weights }

// Counts counts those that aren't quiet.
func (c *Checked) Counts() (n store.Counts) {
	for _, f := range c.Findings {
		switch f.Severity {
		case check.Broken:
			n.Broken++
		case check.Doubtful:
			n.Doubtful++
		default:
			n.Hints++
		}
	}
	return n
}

// Look tells apart what findings on a site's pages depend on beside the pages themselves.
func (st *Stage) Look() string { return st.look }

// Check gives what is wrong with a page: of sections that didn't change since, from memory.
// others are the site's other pages, quiet what is meant to be so. It ends when ctx does, since each
// edit asks anew.
func (st *Stage) Check(
	ctx context.Context,
	p *doc.Page,
	here string,
	others []check.Other,
	quiet []store.Quiet,
) (*Checked, error) {
	page := &check.Page{
		Site: &st.Site.Site, Doc: p, Here: here,
		Others: append(
			slices.Clone(others),
			check.Other{
				Address:     here,
				Name:        p.Name,
				Title:       p.Title,
				Description: p.Description,
				Anchors:     check.Anchors(p),
			},
		),
		File:    func(id string) bool { return st.Medium(id) != "" },
		StandIn: func(_ *doc.Block, words string) bool { return ready.StandsIn(words) },
	}
	weighed := make(chan struct{})
	go func() {
		page.Weights, page.Families = st.Source.Weigh(ctx, here, p, st.workshop.mediaDir)
		close(weighed)
	}()
	var sections [][]check.Finding
	var before *part
	for _, sec := range p.Sections {
		if sec.Hidden {
			continue
		}
		now := sceneChecks{st}.part(p, sec)
		if before != nil {
			pair, err := sceneChecks{st}.checkedPair(ctx, before, now)
			if err != nil {
				return nil, err
			}
			sections = append(sections, pair)
		}
		alone, err := sceneChecks{st}.checkedSection(ctx, now)
		if err != nil {
			return nil, err
		}
		page.Parts, before = append(page.Parts, now.Part), now
		sections = append(sections, alone)
	}
	<-weighed
	out := &Checked{names: map[string]string{"": "The page"}, page: page}
	for _, s := range p.Sections {
		out.names[s.ID] = s.Name
		s.Walk(func(b *doc.Block) { out.names[b.ID] = blockName(b) })
	}
	said := map[check.Key]store.Quiet{}
	for _, q := range quiet {
		said[q.Key()] = q
	}
	for _, f := range check.Findings(page, sections) {
		if q, ok := said[f.Key()]; ok && q.Content == About(p, f.Key()) {
			out.Quiet = append(out.Quiet, QuietFinding{f, q.Reason, q.By})
			continue
		}
		out.Findings = append(out.Findings, f)
	}
	return out, nil
}

// Offer is a repair that was proven: with it the finding is gone, and nothing else is wrong that
// wasn't.
type Offer struct {
	*check.Repair
	Before, After template.HTML // the section at the finding's worst width
	Of            int           // how many findings it mends
}

// Offer gives the repair of a finding, proven, or nil; with all, one for all findings of its rule
// that have one.
func (st *Stage) Offer(
	ctx context.Context,
	p *doc.Page,
	here string,
	c *Checked,
	f *check.Finding,
	all bool,
	env edit.Env,
	others []check.Other,
	quiet []store.Quiet,
) *Offer {
	var of []*check.Finding
	var repairs []*check.Repair
	for i := range c.Findings {
		g := &c.Findings[i]
		if g != f && (!all || g.Rule != f.Rule) {
			continue
		}
		if r := c.page.Repair(g); r != nil {
			of, repairs = append(of, g), append(repairs, r)
		}
	}
	if len(repairs) == 0 || all && len(repairs) < 2 {
		return nil
	}
	offer := &Offer{Repair: repairs[0], Of: len(of)}
	if all {
		offer.Repair = &check.Repair{Label: repairs[0].Label, Command: check.AllOf(repairs)}
	}
	done, err := edit.Apply(p, offer.Command, env)
	if err != nil || len(done.Steps) == 0 {
		return nil
	}
	after, err := st.Check(ctx, done.Page, here, others, quiet)
	if err != nil {
		return nil
	}
	for _, g := range of {
		if !check.Mends(g, c.Findings, after.Findings) {
			return nil
		}
	}
	offer.Before, offer.After = sceneChecks{st}.drawAt(p, f), sceneChecks{st}.drawAt(done.Page, f)
	return offer
}

// MendedAll is one command that mends what was found in a zone, as far as repairs are known: Of
// findings are gone with it, and Left are still there.
type MendedAll struct {
	Command  edit.Command
	Of, Left int
}

// mostMended is how many repairs are tried for all of a zone: each is proven by checking the page.
const mostMended = 24

// MendAll mends what was found in a zone, hints left out, one repair after another, each proven on
// what those before made of the page; nil where none of them helps. Errors are the context's.
func (st *Stage) MendAll(
	ctx context.Context,
	p *doc.Page,
	here string,
	c *Checked,
	zone int,
	env edit.Env,
	others []check.Other,
	quiet []store.Quiet,
) (*MendedAll, error) {
	out := &MendedAll{}
	var taken []*check.Repair
	passed := map[check.Key]bool{} // those whose repair didn't help
	next := func() *check.Finding {
		for i := range c.Findings {
			f := &c.Findings[i]
			if f.Severity > check.Hint && !passed[f.Key()] && check.In(f, st.Site.Zones, zone) {
				return f
			}
		}
		return nil
	}
	for range mostMended {
		f := next()
		if f == nil {
			break
		}
		passed[f.Key()] = true
		r := c.page.Repair(f)
		if r == nil {
			continue
		}
		done, err := edit.Apply(p, r.Command, env)
		if err != nil || len(done.Steps) == 0 {
			continue
		}
		after, err := st.Check(ctx, done.Page, here, others, quiet)
		if err != nil {
			return nil, err
		}
		if check.Mends(f, c.Findings, after.Findings) {
			p, c, taken, out.Of = done.Page, after, append(taken, r), out.Of+1
		}
	}
	for i := range c.Findings {
		if f := &c.Findings[i]; f.Severity > check.Hint && check.In(f, st.Site.Zones, zone) {
			out.Left++
		}
	}
	if len(taken) == 0 {
		return nil, nil
	}
	out.Command = check.AllOf(taken)
	return out, nil
}

// DrawFinding draws the section that a finding is about, at its worst width; "" where it is about
// none.
func (st *Stage) DrawFinding(p *doc.Page, f *check.Finding) template.HTML {
	return sceneChecks{st}.drawAt(p, f)
}

// repairWide is how wide, in px, the drawings of a repair are.
const repairWide = 164

// drawAt draws the section that a finding is about, at its worst width.
func (st sceneChecks) drawAt(p *doc.Page, f *check.Finding) template.HTML {
	id, _ := doc.SplitItem(f.Node)
	sec, _ := p.Section(id)
	if sec == nil {
		sec, _ = p.Block(id)
	}
	if sec == nil {
		return ""
	}
	return st.drawSection(
		p,
		sec,
		drawing{width: float64(f.Worst), marked: f.Node, most: 0.9 * float64(f.Worst)},
		repairWide,
	)
}

// drawSection draws a section of a page that isn't kept, wide px wide on screen.
func (st sceneChecks) drawSection(p *doc.Page, sec *doc.Section, d drawing, wide float64) template.HTML {
	d.zone = st.Site.Zones.At(d.width)
	on := st.Passing()
	return d.whole(on.scene(p, sec).at(d.width), (&View{Stage: on, Page: p}).over(sec, d.zone), wide)
}

// Again is a section whose blocks stand otherwise in a zone than by the rule, drawn as it is and
// as the rule has it.
type Again struct {
	Now, ByRule           template.HTML
	BreaksNow, BreaksThen int // findings about its layout in the zone
}

// againWide is how wide, in px, these drawings are.
const againWide = 108

// Again draws what arranging a section again by the rule would do in a zone, or gives nil where it
// stands by the rule already.
func (st *Stage) Again(ctx context.Context, p *doc.Page, sec *doc.Section, zone doc.Zone, env edit.Env) *Again {
	r, err := edit.Apply(p, edit.Command{Op: "zone.follow", Node: sec.ID, Zone: zone.ID, Setting: "places"}, env)
	if err != nil || len(r.Steps) == 0 {
		return nil
	}
	next, _ := r.Page.Section(sec.ID)
	d := drawing{width: float64(zone.Typical)}
	breaks := func(p *doc.Page, sec *doc.Section) (n int) {
		all, err := check.Section(ctx, sceneChecks{st}.part(p, sec).Part)
		for i := range all {
			f := &all[i]
			if err == nil && f.Rule.Family == check.Layout && f.Severity > check.Hint &&
				check.In(f, st.Site.Zones, st.Site.Zones.Index(zone.ID)) {
				n++
			}
		}
		return n
	}
	return &Again{
		sceneChecks{st}.drawSection(p, sec, d, againWide),
		sceneChecks{st}.drawSection(r.Page, next, d, againWide),
		breaks(p, sec), breaks(r.Page, next),
	}
}

// About tells states of what a finding is about apart: the blocks, or the page's own words.
func About(p *doc.Page, k check.Key) string {
	var about []any
	for _, id := range []string{k.Node, k.Other} {
		of, _ := doc.SplitItem(id)
		if s, _ := p.Section(of); s != nil {
			about = append(about, s)
		} else if _, b := p.Block(of); b != nil {
			about = append(about, b)
		}
	}
	if len(about) == 0 {
		about = append(about, p.Title, p.Description)
	}
	b, err := json.Marshal(about)
	if err != nil {
		return ""
	}
	sum := sha256.Sum256(b)
	return hex.EncodeToString(sum[:12])
}

// part is a section that is checked, as visitors see it, with what it is known by.
type part struct {
	check.Part
	key sceneKey
}

// part makes a section of a page ready to be checked. What is found is remembered, not this: the
// elements are made anew each time, which takes little beside looking at them at every width.
func (st sceneChecks) part(p *doc.Page, sec *doc.Section) *part {
	b := st.Source.Builder(
		st.Builder.Here,
		site.Addresses{Media: st.workshop.mediaURL, StyleMedia: st.workshop.mediaURL},
	)
	st.on(p, b)
	b.DropEmpty = true
	root := b.Section(sec)
	return &part{check.Part{
		Root: root, Tree: sync.OnceValue(func() *layout.Tree {
			t := layout.New(st.lib, st.Site.Zones, root)
			t.SayWidths()
			return t
		}),
		Zones: st.Site.Zones, Section: sec, Pixels: st.pixels,
	}, sceneKey{sec, st.key + p.Ground + st.around(p, sec) + st.shown(sec)}}
}

// checkedSection gives what is wrong in a section by itself, from memory when nothing changed.
func (st sceneChecks) checkedSection(ctx context.Context, p *part) ([]check.Finding, error) {
	if fs, ok := st.workshop.checked.Get(p.key); ok {
		return fs, nil
	}
	fs, err := check.Section(ctx, p.Part)
	if err == nil && !st.passing {
		st.workshop.checked.Put(p.key, fs, p.Section)
	}
	return fs, err
}

// checkedPair gives what is wrong where a section overlaps the one below it, from memory when neither
// changed.
func (st sceneChecks) checkedPair(ctx context.Context, above, below *part) ([]check.Finding, error) {
	if !check.Overlap(above.Section, below.Section) {
		return nil, nil
	}
	k := [2]sceneKey{above.key, below.key}
	if fs, ok := st.workshop.pairs.Get(k); ok {
		return fs, nil
	}
	fs, err := check.Between(ctx, above.Part, below.Part)
	if err == nil && !st.passing {
		st.workshop.pairs.Put(k, fs, above.Section)
	}
	return fs, err
}

// pixels gives the colours of a picture of the library, by the address of one of its copies:
// from memory, or from the smallest there is. Drawings have none.
func (st sceneChecks) pixels(address string) *colour.Pixels {
	w, file := st.workshop, path.Base(address)
	of := ""
	for _, m := range st.Source.Media {
		if slices.ContainsFunc(m.Variants, func(c store.MediumCopy) bool { return c.File == file }) {
			for _, c := range m.Variants { // plain ones come first, from narrow to wide
				if of == "" && path.Ext(c.File) != ".svg" {
					of = c.File
				}
			}
			break
		}
	}
	if of == "" {
		return nil
	}
	if p, ok := w.colours.Get(of); ok {
		return p
	}
	p, err := w.readPixels(filepath.Join(w.mediaDir, of))
	if err != nil {
		w.log.Warn("colours", "file", of, "error", err)
		p = nil
	}
	w.colours.Put(of, p, nil)
	return p
}

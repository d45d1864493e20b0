package edit

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"

	"openplot/core/doc"
)

// SharedPrefix begins, before its id, what section.add calls a section that stands on other
// pages.
const SharedPrefix = "shared:"

// share has a section stand on several pages, the same on each.
func (e sectionEdits) share() ([]Step, error) {
	if e.section.Shared {
		return nil, nil
	}
	next := e.section.Head()
	next.Shared = true
	e.note = "It can be put on other pages now: from the Shelf, under Shared. What is changed of it then changes on all of them."
	return []Step{{Do: SetSection, ID: e.section.ID, Section: next}}, nil
}

// makeOwn makes a shared section the page's own: it stays as it is, with ids of its own.
func (e sectionEdits) makeOwn() ([]Step, error) {
	if !e.section.Shared {
		return nil, nil
	}
	own := anew(e.section, e.env.NewID)
	own.Anchor, own.View = e.section.Anchor, e.section.View
	_, at := e.page.Section(e.section.ID)
	e.selected = own.ID
	e.note = "It is this page’s own now: what is changed of it changes here alone."
	return []Step{{Do: RemoveSection, ID: e.section.ID}, {Do: InsertSection, At: at, Section: own}}, nil
}

// Spread gives the ids of the sections that are shared and that an edit changed, for which it
// has to be made on other pages too.
func (r *Result) Spread(before *doc.Page) (ids []string) {
	for _, s := range r.Page.Sections {
		was, _ := before.Section(s.ID)
		if s.Shared && was != nil && was.Shared && was != s && !sameSection(was, s) {
			ids = append(ids, s.ID)
		}
	}
	return ids
}

// Follow gives what an edit that changed shared sections does to another page that has some of
// them, or nil. The steps are those of the edit where they fit; a section that they don't make
// the same is put in the place of the one there.
func (r *Result) Follow(ids []string, page *doc.Page) (*Result, error) {
	var steps []Step
	for _, id := range ids {
		now, _ := r.Page.Section(id)
		there, at := page.Section(id)
		if now == nil || there == nil || !there.Shared || sameSection(there, now) {
			continue
		}
		own := about(r.Steps, now, there)
		if next, _, err := Run(page, own); err == nil {
			if made, _ := next.Section(id); made != nil && sameSection(made, now) {
				steps = append(steps, own...)
				continue
			}
		}
		steps = append(steps, Step{Do: RemoveSection, ID: id}, Step{Do: InsertSection, At: at, Section: now})
	}
	if len(steps) == 0 {
		return nil, nil
	}
	next, inverse, err := Run(page, steps)
	if err != nil {
		return nil, fmt.Errorf("changing a shared section: %w", err)
	}
	out := &Result{Page: next, Steps: steps, Inverse: inverse}
	out.Nodes, out.Sections = Touched(steps, page, next)
	out.Nodes = Within(out.Nodes, page)
	return out, nil
}

// about gives those steps that are about a section or what stands in it, before or after.
func about(steps []Step, now, before *doc.Section) (out []Step) {
	in := []string{now.ID}
	for _, s := range []*doc.Section{now, before} {
		s.Walk(func(b *doc.Block) { in = append(in, b.ID) })
	}
	for _, s := range steps {
		id := s.ID
		if id == "" && s.Block != nil {
			id = s.Block.ID
		}
		if slices.Contains(in, id) && s.Do != MoveSection && s.Do != InsertSection && s.Do != RemoveSection {
			out = append(out, s)
		}
	}
	return out
}

// sameSection reports whether two sections are the same with all that stands in them.
func sameSection(a, b *doc.Section) bool {
	x, err := json.Marshal(a)
	y, err2 := json.Marshal(b)
	return err == nil && err2 == nil && bytes.Equal(x, y)
}

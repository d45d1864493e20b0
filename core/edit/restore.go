package edit

import (
	"fmt"
	"slices"

	"openplot/core/doc"
)

// Restore makes a page what it was then, or a section or block of it, "" being all. A section
// that is shared stays as it stands on other pages now, which shared gives, nil being nowhere.
// Errors are *doc.Problem.
func Restore(now, then *doc.Page, node string, shared func(id string) *doc.Section) (*Result, error) {
	var steps []Step
	var err error
	switch sec, _ := then.Section(node); {
	case node == "":
		steps = restoreAll(now, then, shared)
	case sec != nil:
		steps = restoreSection(now, then, sec, shared)
	default:
		steps, err = restoreBlock(now, then, node)
	}
	if err != nil {
		return nil, err
	}
	next, inverse, err := Run(now, steps)
	if err != nil {
		return nil, doc.Problemf(
			"Version",
			"can't give that back by itself: a part of it stands elsewhere on the page now; take the whole section back",
		)
	}
	r := &Result{Page: next, Steps: steps, Inverse: inverse, Select: node}
	r.Nodes, r.Sections = Touched(steps, now, next)
	r.Nodes = Within(r.Nodes, next)
	if err := withinLimits(now, next); err != nil {
		return nil, fmt.Errorf("restoring: %w", err)
	}
	return r, nil
}

func restoreAll(now, then *doc.Page, shared func(string) *doc.Section) (steps []Step) {
	head := headOf(then)
	head.Guides = now.Guides
	steps = append(steps, Step{Do: SetPage, Page: &head})
	for _, s := range now.Sections {
		steps = append(steps, Step{Do: RemoveSection, ID: s.ID})
	}
	for i, s := range then.Sections {
		steps = append(steps, Step{Do: InsertSection, At: i, Section: current(s, now, shared)})
	}
	return steps
}

// current is a section as it was, or as it is on other pages when it stands there too.
func current(s *doc.Section, now *doc.Page, shared func(string) *doc.Section) *doc.Section {
	if here, _ := now.Section(s.ID); !s.Shared && (here == nil || !here.Shared) {
		return s
	}
	if there := shared(s.ID); there != nil {
		return there
	}
	return s
}

func restoreSection(now, then *doc.Page, s *doc.Section, shared func(string) *doc.Section) []Step {
	if here, at := now.Section(s.ID); here != nil { // what it is on other pages follows, if it is shared
		next := s
		if s.Shared != here.Shared {
			next = s.Clone()
			next.Shared = here.Shared
		}
		if moved(now, then, s.ID) {
			rest := now.Clone()
			rest.Sections = without(rest.Sections, at)
			at = beside(rest, then, s.ID)
		}
		return []Step{{Do: RemoveSection, ID: s.ID}, {Do: InsertSection, At: at, Section: next}}
	}
	return []Step{{Do: InsertSection, At: beside(now, then, s.ID), Section: current(s, now, shared)}}
}

// moved reports whether a section isn't between those that it was between.
func moved(now, then *doc.Page, id string) bool {
	_, here := now.Section(id)
	_, there := then.Section(id)
	for k := there - 1; k >= 0; k-- {
		if _, i := now.Section(then.Sections[k].ID); i >= 0 {
			if i > here {
				return true
			}
			break
		}
	}
	for k := there + 1; k < len(then.Sections); k++ {
		if _, i := now.Section(then.Sections[k].ID); i >= 0 {
			return i < here
		}
	}
	return false
}

// beside gives the index for a section that is gone: behind the nearest one before it that is
// still there.
func beside(now, then *doc.Page, id string) int {
	_, at := then.Section(id)
	for k := at - 1; k >= 0; k-- {
		if _, i := now.Section(then.Sections[k].ID); i >= 0 {
			return i + 1
		}
	}
	return 0
}

func restoreBlock(now, then *doc.Page, id string) ([]Step, error) {
	in, b := then.Block(id)
	if b == nil {
		return nil, doc.Problemf(
			"Version",
			"doesn't have what you want back from it; choose a block that is marked on it",
		)
	}
	if sec, here := now.Block(id); here != nil {
		h := sec.HolderOf(id)
		return []Step{{Do: RemoveBlock, ID: id}, {Do: InsertBlock, Parent: h.ID, At: h.Index(id), Block: b}}, nil
	}
	h := in.HolderOf(id)
	sec, _ := now.Section(h.ID)
	_, held := now.Block(h.ID)
	if sec == nil && held == nil {
		return nil, doc.Problemf(
			"Version",
			"can't give that block back by itself: what it stood in is gone; take that back instead",
		)
	}
	at := 0
	before := h.Blocks[:h.Index(id)]
	for _, sibling := range slices.Backward(before) {
		if s, b := now.Block(sibling.ID); b != nil {
			if there := s.HolderOf(sibling.ID); there.ID == h.ID {
				at = there.Index(sibling.ID) + 1
				break
			}
		}
	}
	return []Step{{Do: InsertBlock, Parent: h.ID, At: at, Block: b}}, nil
}

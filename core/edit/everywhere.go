package edit

import (
	"slices"

	"openplot/core/doc"
)

// EverywhereOp names the command by which a section stands on several pages as their top bar or their
// footer. Pages log it; it isn't one of those that Apply knows.
const EverywhereOp = "section.everywhere"

// AsPart gives a section as it stands on several pages in a role, the top bar's or the footer's. Errors
// are *doc.Problem.
func AsPart(s *doc.Section, role doc.Role) (*doc.Section, error) {
	if role != doc.RoleHeader && role != doc.RoleFooter {
		return nil, doc.Problemf("Landmark", "can't be %.40q: choose header or footer", role)
	}
	if s.View != nil {
		return nil, doc.Problemf(
			"Section",
			"“%s” is a view, which visitors open: choose one that stands on the page",
			s.Name,
		)
	}
	c := s.Clone()
	c.Shared, c.Role = true, role
	return c, nil
}

// PartsOf lists the sections that a page has in a role now.
func PartsOf(p *doc.Page, role doc.Role) (out []*doc.Section) {
	for _, s := range p.Sections {
		if s.Role == role && s.View == nil {
			out = append(out, s)
		}
	}
	return out
}

// Everywhere puts a section that AsPart gave on a page: in the place of those that the page has in its
// role, at its beginning or its end where there is none. It gives nil where the page has it so already.
// Errors are *doc.Problem.
func Everywhere(p *doc.Page, s *doc.Section) (*Result, error) {
	parts := PartsOf(p, s.Role)
	if len(parts) == 1 && sameSection(parts[0], s) {
		return nil, nil
	}
	var steps []Step
	at := 0
	if s.Role == doc.RoleFooter {
		at = len(p.Sections)
	}
	if len(parts) > 0 {
		_, at = p.Section(parts[0].ID)
	}
	gone := func(t *doc.Section) bool { return t.ID == s.ID || slices.Contains(parts, t) }
	before := 0 // how many go that stand before its place
	for i, t := range p.Sections {
		if gone(t) {
			steps = append(steps, Step{Do: RemoveSection, ID: t.ID})
			if i < at {
				before++
			}
		}
	}
	return carriedOut(p, s, append(steps, Step{Do: InsertSection, At: at - before, Section: s}))
}

// Stays is what Everywhere does to a page that has the section so already and from which it is put on
// others: nothing that shows, so that what it does to those is taken back from this page too.
func Stays(p *doc.Page, s *doc.Section) (*Result, error) {
	return carriedOut(p, s, []Step{{Do: SetSection, ID: s.ID, Section: s.Head()}})
}

func carriedOut(p *doc.Page, s *doc.Section, steps []Step) (*Result, error) {
	next, inverse, err := Run(p, steps)
	if err != nil {
		return nil, err
	}
	r := &Result{Page: next, Steps: steps, Inverse: inverse, Select: s.ID}
	r.Nodes, r.Sections = Touched(steps, p, next)
	r.Nodes = Within(r.Nodes, next)
	return r, withinLimits(p, next)
}

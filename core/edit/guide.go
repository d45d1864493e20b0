package edit

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/number"
)

// mostGuide is how far into a page a guide is drawn, in px.
const mostGuide = 100_000

// setGuide draws a guide across the page in a zone, moves one or takes one away.
func (e sectionEdits) setGuide() ([]Step, error) {
	head := headOf(e.page)
	guides := head.Guides[e.c.Zone]
	list := &guides.X
	switch e.c.Setting {
	case "x":
	case "y":
		list = &guides.Y
	default:
		return nil, doc.Problemf("Guide", "can't be %.40q: an upright one is x, a level one y", e.c.Setting)
	}
	next := slices.Clone(*list)
	if e.c.After != "" {
		was, err := number.Whole(e.c.After)
		i := slices.Index(next, was)
		if err != nil || i < 0 {
			return nil, doc.Problemf("Guide", "at %.10s isn't on this page any more", e.c.After)
		}
		next = slices.Delete(next, i, i+1)
	}
	if e.c.Value != "" {
		px, err := number.Whole(e.c.Value)
		if err != nil || px < 0 || px > mostGuide {
			return nil, doc.Problemf("Guide", "can't be at %.40q: write whole px from 0 to %d", e.c.Value, mostGuide)
		}
		if i, there := slices.BinarySearch(next, px); !there {
			next = slices.Insert(next, i, px)
		}
	}
	if len(next) > doc.MaxGuides {
		return nil, doc.Problemf("Guide", "can't be added: %d are the most there can be", doc.MaxGuides)
	}
	if slices.Equal(next, *list) {
		return nil, nil
	}
	if *list = next; len(next) == 0 {
		*list = nil
	}
	if head.Guides = head.Guides.With(e.c.Zone, guides); len(guides.X)+len(guides.Y) == 0 {
		head.Guides = head.Guides.Without(e.c.Zone)
	}
	if len(head.Guides) == 0 {
		head.Guides = nil
	}
	return []Step{{Do: SetPage, Page: &head}}, nil
}

package edit

import (
	"maps"
	"slices"
	"strings"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/style"
)

// takeLook gives a section or a block the look of another: of the settings that both have,
// those that the other sets are set, and those that it doesn't follow again. Where it stands
// stays.
func (e lookEdits) takeLook() ([]Step, error) {
	var look map[string]string
	if err := carry.Unpack([]byte(e.c.Value), &look, carry.FewValues, "Look"); err != nil {
		return nil, doc.Problemf("Look", "can't be read: copy it again")
	}
	now := e.section.Style
	if e.block != nil {
		now = e.block.Style
	}
	next := maps.Clone(now)
	if next == nil {
		next = doc.Style{}
	}
	for name := range now {
		if _, ok := look[name]; !ok && !slices.Contains(standing, name) {
			if next[name] = next[name].Without(e.c.Zone); len(next[name]) == 0 {
				delete(next, name)
			}
		}
	}
	var left []string
	for name, entry := range look {
		s := style.Find(name, e.kind())
		if slices.Contains(standing, name) {
			continue
		}
		if s == nil {
			left = append(left, labelOf(name))
			continue
		}
		if v, problem := s.Read(&e.env.Site.House, entry); problem == nil {
			next[name] = next[name].With(e.c.Zone, v)
		}
	}
	if len(left) > 0 {
		slices.Sort(left)
		e.note = "Left out, since it has none: " + strings.Join(slices.Compact(left), ", ") + "."
	}
	if e.block != nil {
		return e.replace(func(b *doc.Block) { b.Style = next }), nil
	}
	return e.head(func(s *doc.Section) { s.Style = next }), nil
}

// standing are the settings that say where something stands, and how what it holds does,
// rather than what it looks like.
var standing = []string{
	"align-self", "justify-self", "grow", "run", "margin-top", "margin-bottom", "margin-left", "margin-right", "margin-sides", "overhang", "width", "min-width", "max-width", "min-height",
	"height", "pull", "layer", "over", "stays", "columns", "row-height", "shares", "below", "direction", "per-row", "order",
}

package edit

import (
	"maps"
	"slices"

	"openplot/core/doc"
	"openplot/core/element"
)

// WithMedia gives a section without the media that a site lacks, as when it comes from
// another one: stand-ins are seen there.
func WithMedia(s *doc.Section, has func(id string) bool) *doc.Section {
	known := func(id string) string {
		if id != "" && !has(id) {
			return ""
		}
		return id
	}
	values := func(fields []element.Field, m map[string]string) map[string]string {
		m = maps.Clone(m)
		for _, f := range fields {
			if v := m[f.Name]; v != "" &&
				(f.Type == element.PictureID || f.Type == element.VideoID || f.Type == element.AudioID) &&
				known(v) == "" {
				delete(m, f.Name)
			}
		}
		return m
	}
	content := func(k doc.Kind, c doc.Content) doc.Content {
		a := element.Of(k)
		c.Picture, c.Values, c.Entries = known(c.Picture), values(a.Fields, c.Values), slices.Clone(c.Entries)
		for i := range c.Entries {
			c.Entries[i].Values = values(a.Entry, c.Entries[i].Values)
		}
		return c
	}
	var blocks func(list []*doc.Block) []*doc.Block
	blocks = func(list []*doc.Block) []*doc.Block {
		out := make([]*doc.Block, len(list))
		for i, was := range list {
			b := was.Clone()
			b.Content, b.Blocks, b.Items = content(b.Kind, b.Content), blocks(b.Blocks), slices.Clone(b.Items)
			for k, it := range b.Items {
				own := make(map[string]doc.Content, len(it.Contents))
				b.Walk(func(of *doc.Block) {
					if c, ok := it.Contents[of.ID]; ok {
						own[of.ID] = content(of.Kind, c)
					}
				})
				b.Items[k].Contents = own
			}
			out[i] = b
		}
		return out
	}
	c := s.Clone()
	c.Picture, c.Video, c.Blocks = known(s.Picture), known(s.Video), blocks(s.Blocks)
	return c
}

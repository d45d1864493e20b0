package compare

import "openplot/core/doc"

// Copies says what differs between two sections that were made of one: block by block, in the order in
// which they are written. It is false where they aren't put together alike, so that neither is a copy of
// the other.
func Copies(was, now *doc.Section) (changes []Change, alike bool) {
	var before, after []*doc.Block
	copied := was.Clone()
	copied.ID, copied.Name, copied.Role, copied.Shared, copied.Anchor = now.ID, now.Name, now.Role, now.Shared, now.Anchor
	copied.Walk(func(b *doc.Block) { before = append(before, b) })
	now.Walk(func(b *doc.Block) { after = append(after, b) })
	if len(before) != len(after) {
		return nil, false
	}
	for i, b := range before {
		if b.Kind != after[i].Kind {
			return nil, false
		}
	}
	ids := map[string]string{}
	for i, b := range before {
		ids[b.ID] = after[i].ID
	}
	for k, b := range before {
		b.ID = ids[b.ID]
		for i := range b.Items {
			if len(b.Items) == len(after[k].Items) {
				b.Items[i].ID = after[k].Items[i].ID
			}
			contents := make(map[string]doc.Content, len(b.Items[i].Contents))
			for id, c := range b.Items[i].Contents {
				if to, ok := ids[id]; ok {
					id = to
				}
				contents[id] = c
			}
			if b.Items[i].Contents != nil {
				b.Items[i].Contents = contents
			}
		}
	}
	return Pages(&doc.Page{Sections: []*doc.Section{copied}}, &doc.Page{Sections: []*doc.Section{now}}), true
}

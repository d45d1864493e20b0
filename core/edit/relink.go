package edit

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
)

// Relink has the links of a page lead where the pages are now that they lead to: moved gives new
// addresses by old ones, without slashes at their ends. It is nil when none of them leads there.
func Relink(p *doc.Page, moved map[string]string) (*Result, error) {
	var steps []Step
	var failed error
	for _, s := range p.Sections {
		s.Walk(func(b *doc.Block) {
			next, err := relinked(b, moved)
			if err != nil {
				failed = err
			} else if next != nil {
				steps = append(steps, Step{Do: SetBlock, ID: b.ID, Block: next})
			}
		})
	}
	if failed != nil || len(steps) == 0 {
		return nil, failed
	}
	next, inverse, err := Run(p, steps)
	if err != nil {
		return nil, err
	}
	r := &Result{Page: next, Steps: steps, Inverse: inverse}
	r.Nodes, r.Sections = Touched(steps, p, next)
	return r, nil
}

// RelinkMenus does so with a site's menus, which it changes, and reports whether it did.
func RelinkMenus(menus map[string][]doc.MenuItem, moved map[string]string) (changed bool) {
	for _, items := range menus {
		for i := range items {
			if to, ok := movedLink(items[i].Link, moved); ok {
				items[i].Link, changed = to, true
			}
		}
	}
	return changed
}

// relinked gives a block by itself with its links changed, or nil when none is.
func relinked(b *doc.Block, moved map[string]string) (*doc.Block, error) {
	head := *b.Head()
	text, err := json.Marshal(head)
	if err != nil {
		return nil, fmt.Errorf("copying block %s: %w", b.ID, err)
	}
	next := new(doc.Block) // a copy, as documents are values
	if err := json.Unmarshal(text, next); err != nil {
		return nil, fmt.Errorf("copying block %s: %w", b.ID, err)
	}
	changed := false
	link := func(l *string) {
		if to, ok := movedLink(*l, moved); ok {
			*l, changed = to, true
		}
	}
	content := func(kind doc.Kind, c *doc.Content) {
		of := element.Of(kind)
		values := func(fields []element.Field, vs map[string]string) {
			for name, v := range vs {
				if slices.ContainsFunc(
					fields,
					func(f element.Field) bool { return f.Name == name && f.Type == element.Address },
				) {
					link(&v)
					vs[name] = v
				}
			}
		}
		words := func(ws doc.Words) {
			for _, p := range ws {
				for i := range p {
					link(&p[i].Link)
				}
			}
		}
		link(&c.Link)
		for _, w := range c.Said() {
			words(w)
		}
		if of != nil {
			values(of.Fields, c.Values)
		}
		for i := range c.Entries {
			words(c.Entries[i].Words)
			if of != nil {
				values(of.Entry, c.Entries[i].Values)
			}
		}
	}
	content(next.Kind, &next.Content)
	for _, item := range next.Items {
		for id, c := range item.Contents {
			kind := doc.Kind("")
			b.Walk(func(in *doc.Block) { // the design is in the block itself
				if in.ID == id {
					kind = in.Kind
				}
			})
			content(kind, &c)
			item.Contents[id] = c
		}
	}
	if !changed {
		return nil, nil
	}
	return next, nil
}

// movedLink gives where a link leads now.
func movedLink(link string, moved map[string]string) (string, bool) {
	address, inNewTab := doc.SplitLink(link)
	if !strings.HasPrefix(address, "/") {
		return link, false
	}
	path, tail := address, ""
	if at := strings.IndexAny(address, "?#"); at >= 0 {
		path, tail = address[:at], address[at:]
	}
	to, ok := moved[strings.Trim(path, "/")]
	if !ok {
		return link, false
	}
	return doc.JoinLink("/"+to+tail, inNewTab), true
}

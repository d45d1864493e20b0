// Package compare says what differs between two states of a page.
//
// In come two documents; out come changes in the order of the page, and a few words about them.
// Nodes are the same when their ids are. Start at Pages.
package compare

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
)

// Kind is what became of a node.
type Kind string

// The kinds.
const (
	Added   Kind = "added"
	Removed Kind = "removed"
	Moved   Kind = "moved"   // to another place: in the order, or in the grid
	Words   Kind = "words"   // says something else
	Changed Kind = "changed" // shows something else, or looks otherwise
)

// Change is what became of a section or a block.
type Change struct {
	Kind    Kind
	Node    string // its id, or "" for what is the page's
	Name    string // what people call it
	Section string // the section that it is or stands in, on the newer page unless it is gone
	In      string // that section's name
	Block   bool
}

// Pages gives what a page became. What stands in something that was added or removed isn't
// listed by itself.
func Pages(was, now *doc.Page) (out []Change) {
	if head := pageHead(was, now); head {
		out = append(out, Change{Kind: Changed, Name: "page settings"})
	}
	kept := inOrder(ids(was.Sections), ids(now.Sections))
	for _, s := range now.Sections {
		before, _ := was.Section(s.ID)
		if before == nil {
			out = append(out, ofSection(Added, s))
			continue
		}
		if !kept[s.ID] {
			out = append(out, ofSection(Moved, s))
		}
		if !reflect.DeepEqual(before.Head(), s.Head()) {
			out = append(out, ofSection(Changed, s))
		}
		out = append(out, blocks(was, now, s)...)
	}
	for _, s := range was.Sections {
		if after, _ := now.Section(s.ID); after == nil {
			out = append(out, ofSection(Removed, s))
			continue
		}
		standing := map[string]bool{}
		s.Walk(func(b *doc.Block) {
			in, after := now.Block(b.ID)
			if above := s.HolderOf(b.ID).ID; after == nil && !standing[above] {
				out = append(out, ofBlock(Removed, b, s))
			}
			standing[b.ID] = in == nil
		})
	}
	return out
}

// pageHead reports whether what is the page's own differs.
func pageHead(was, now *doc.Page) bool {
	a, b := *was, *now
	a.Sections, b.Sections, a.Guides, b.Guides = nil, nil, nil, nil
	return !reflect.DeepEqual(a, b)
}

func ids(ss []*doc.Section) (out []string) {
	for _, s := range ss {
		out = append(out, s.ID)
	}
	return out
}

// blocks gives what became of the blocks of a section that was there before.
func blocks(was, now *doc.Page, s *doc.Section) (out []Change) {
	fresh := map[string]bool{}
	s.Walk(func(b *doc.Block) {
		from, before := was.Block(b.ID)
		holder := s.HolderOf(b.ID)
		if before == nil {
			if !fresh[holder.ID] {
				out = append(out, ofBlock(Added, b, s))
			}
			fresh[b.ID] = true
			return
		}
		if held := from.HolderOf(b.ID); held.ID != holder.ID || !reflect.DeepEqual(before.Place, b.Place) ||
			!stays(held.Blocks, holder.Blocks, b.ID) {
			out = append(out, ofBlock(Moved, b, s))
		}
		says, shows := differ(before, b)
		if says {
			out = append(out, ofBlock(Words, b, s))
		}
		if shows {
			out = append(out, ofBlock(Changed, b, s))
		}
	})
	return out
}

// stays reports whether a block is where it was among those that stand beside it in both.
func stays(was, now []*doc.Block, id string) bool {
	names := func(bs []*doc.Block) (out []string) {
		for _, b := range bs {
			out = append(out, b.ID)
		}
		return out
	}
	return inOrder(names(was), names(now))[id]
}

// differ tells whether a block by itself says something else, and whether anything else of it
// differs but its place.
func differ(a, b *doc.Block) (says, shows bool) {
	x, y := *a.Head(), *b.Head()
	says = !reflect.DeepEqual(words(x.Content), words(y.Content))
	for i := range x.Items {
		if i < len(y.Items) {
			for id, c := range x.Items[i].Contents {
				says = says || !reflect.DeepEqual(words(c), words(y.Items[i].Contents[id]))
			}
		}
	}
	says = says || len(x.Items) != len(y.Items)
	for _, c := range []*doc.Block{&x, &y} {
		c.Place, c.Content.Words, c.Content.Instead, c.Content.Entries, c.Items = nil, nil, nil, nil, nil
	}
	return says, !reflect.DeepEqual(x, y)
}

// words are what a content says, and lists.
func words(c doc.Content) doc.Content {
	return doc.Content{Words: c.Words, Instead: c.Instead, Entries: c.Entries}
}

// inOrder gives those of now that stand in the order that they had: the longest run of them, so
// that as few as can be count as moved.
func inOrder(was, now []string) map[string]bool {
	at := map[string]int{}
	for i, id := range was {
		at[id] = i
	}
	var common []string
	for _, id := range now {
		if _, ok := at[id]; ok {
			common = append(common, id)
		}
	}
	// The longest increasing subsequence, by its last elements for each length.
	best, from := make([]int, 0, len(common)), make([]int, len(common))
	for i, id := range common {
		k, _ := slices.BinarySearchFunc(best, at[id], func(j, v int) int { return cmp.Compare(at[common[j]], v) })
		if from[i] = -1; k > 0 {
			from[i] = best[k-1]
		}
		if k == len(best) {
			best = append(best, i)
		} else {
			best[k] = i
		}
	}
	kept := map[string]bool{}
	if len(best) > 0 {
		for i := best[len(best)-1]; i >= 0; i = from[i] {
			kept[common[i]] = true
		}
	}
	return kept
}

func ofSection(k Kind, s *doc.Section) Change {
	name := cmp.Or(s.Name, "section")
	return Change{Kind: k, Node: s.ID, Name: name, Section: s.ID, In: name}
}

func ofBlock(k Kind, b *doc.Block, s *doc.Section) Change {
	name := b.Name
	if a := element.Of(b.Kind); name == "" && a != nil {
		name = a.Name
	}
	return Change{Kind: k, Node: b.ID, Name: name, Section: s.ID, In: cmp.Or(s.Name, "section"), Block: true}
}

// Say says what changed in a few lines, a line for what was done to whole sections, and for the
// blocks of each.
func Say(changes []Change) (lines []string) {
	type counts map[Kind]int
	in := map[string]counts{}
	var order []string
	for _, c := range changes {
		if !c.Block {
			switch {
			case c.Node == "":
				lines = append(lines, "Page settings changed")
			case c.Kind == Changed:
				lines = append(lines, "“"+c.Name+"”: its look changed")
			default:
				lines = append(lines, "“"+c.Name+"” "+string(c.Kind))
			}
			continue
		}
		if in[c.Section] == nil {
			in[c.Section] = counts{}
			order = append(order, c.Section+"\x00"+c.In)
		}
		in[c.Section][c.Kind]++
	}
	for _, o := range order {
		id, name, _ := strings.Cut(o, "\x00")
		var parts []string
		for _, k := range []Kind{Words, Changed, Moved, Added, Removed} {
			n := in[id][k]
			if n == 0 {
				continue
			}
			blocks := "blocks"
			if n == 1 {
				blocks = "block"
			}
			text := fmt.Sprintf("%d %s %s", n, blocks, k)
			if k == Words {
				text = fmt.Sprintf("words of %d %s", n, blocks)
			}
			parts = append(parts, text)
		}
		lines = append(lines, "“"+name+"”: "+strings.Join(parts, ", "))
	}
	return lines
}

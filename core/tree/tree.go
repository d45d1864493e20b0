// Package tree is the pages of a site in their order, one below another, with their addresses.
//
// In come a tree and what somebody wants of it; out comes another tree, or a *doc.Problem. A
// page's address is that of the page it stands under and a word of its own. Nothing here knows
// documents or a database. Start at Tree.
package tree

import (
	"maps"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"github.com/gosimple/slug"

	"openplot/core/doc"
)

// Page is a page's place.
type Page struct {
	ID     string
	Parent string // the page that it stands under, or "" at the top
	// Address is the whole of it, without the slashes at its ends, such as "islands/skarva"; ""
	// is the home page.
	Address string
	Name    string
}

// Tree is pages in their order, each before those under it.
type Tree []Page

// Limits of our own.
const (
	MaxPages   = 2000
	MaxDepth   = 4  // pages within each other
	maxSegment = 60 // characters of a page's own part of an address
	maxAddress = 200
	maxTarget  = 1500 // bytes of where a redirect leads
)

var segmentPattern = regexp.MustCompile(`^[a-z0-9]+(-[a-z0-9]+)*$`)

// Sorted puts pages, each under another or at the top, in the order of a tree: those beside
// each other keep the order in which they come. A page whose parent isn't there stands at the
// top.
func Sorted(pages []Page) Tree {
	there := map[string]bool{}
	for _, p := range pages {
		there[p.ID] = true
	}
	under := map[string][]Page{}
	for _, p := range pages {
		parent := p.Parent
		if !there[parent] {
			parent = ""
		}
		under[parent] = append(under[parent], p)
	}
	out := make(Tree, 0, len(pages))
	var add func(parent string)
	add = func(parent string) {
		for _, p := range under[parent] {
			p.Parent = parent
			out = append(out, p)
			add(p.ID)
		}
		delete(under, parent) // whatever is there twice ends
	}
	add("")
	return out
}

// Index gives the index of a page, or -1.
func (t Tree) Index(id string) int {
	return slices.IndexFunc(t, func(p Page) bool { return p.ID == id })
}

// Depth tells within how many pages one stands; 0 is the top.
func (t Tree) Depth(id string) int {
	n := 0
	for i := t.Index(id); i >= 0 && t[i].Parent != ""; i = t.Index(t[i].Parent) {
		n++
	}
	return n
}

// Depths tells of all pages within how many others each stands.
func (t Tree) Depths() []int {
	depths, of := make([]int, len(t)), make(map[string]int, len(t))
	for i, p := range t { // the one that it is under comes first
		if p.Parent != "" {
			depths[i] = of[p.Parent] + 1
		}
		of[p.ID] = depths[i]
	}
	return depths
}

// end gives the index behind a page and all that is under it.
func (t Tree) end(i int) int {
	within := map[string]bool{t[i].ID: true}
	k := i + 1
	for k < len(t) && within[t[k].Parent] {
		within[t[k].ID] = true
		k++
	}
	return k
}

// Branch gives a page and all that is under it.
func (t Tree) Branch(id string) Tree {
	i := t.Index(id)
	if i < 0 {
		return nil
	}
	return t[i:t.end(i)]
}

// Children gives the pages right under one, or those at the top.
func (t Tree) Children(id string) (out Tree) {
	for _, p := range t {
		if p.Parent == id {
			out = append(out, p)
		}
	}
	return out
}

// segment is a page's own part of its address.
func (p Page) segment() string { return p.Address[strings.LastIndex(p.Address, "/")+1:] }

// find gives the index of a page.
func (t Tree) find(id string) (int, error) {
	if i := t.Index(id); i >= 0 {
		return i, nil
	}
	return 0, doc.Problemf("Page", "%.40q isn't on this site any more; load the pages again", id)
}

// Move puts a page with all that is under it under another one, "" being the top, behind one of
// those there, "" being the beginning.
func (t Tree) Move(id, parent, after string) (Tree, error) {
	i, err := t.find(id)
	if err != nil {
		return nil, err
	}
	p := t[i]
	branch := slices.Clone(t[i:t.end(i)])
	if parent != "" {
		to, err := t.find(parent)
		switch {
		case err != nil:
			return nil, err
		case branch.Index(parent) >= 0:
			return nil, doc.Problemf("Page", "can't stand under itself; choose a page that isn't under “%s”", p.Name)
		case p.Address == "":
			return nil, doc.Problemf(
				"Page",
				"is the home page, which stands at the top; make another page the home page first",
			)
		case t[to].Address == "":
			return nil, doc.Problemf("Page", "can't stand under the home page: what is at the top is beside it")
		}
	}
	rest := slices.Delete(slices.Clone(t), i, t.end(i))
	at := 0
	switch {
	case after != "":
		k := rest.Index(after)
		if k < 0 || rest[k].Parent != parent {
			return nil, doc.Problemf("Page", "can't go there: the pages were moved since; load them again")
		}
		at = rest.end(k)
	case parent != "":
		at = rest.Index(parent) + 1
	}
	branch[0].Parent = parent
	next := slices.Insert(rest, at, branch...)
	for _, q := range branch {
		if next.Depth(q.ID) >= MaxDepth {
			return nil, doc.Problemf("Page", "would stand %d deep; %d is the most", next.Depth(q.ID)+1, MaxDepth)
		}
	}
	if parent == p.Parent {
		return next, nil
	}
	return next.readdress(id, p.segment())
}

// Direction is where a page is moved by a key.
type Direction string

// The directions.
const (
	Up   Direction = "up"   // before the one before it
	Down Direction = "down" // behind the one behind it
	In   Direction = "in"   // under the one before it, at the end
	Out  Direction = "out"  // behind the one that it stands under
)

// Step moves a page by a key; where it can't go the tree stays as it is.
func (t Tree) Step(id string, to Direction) (Tree, error) {
	i, err := t.find(id)
	if err != nil {
		return nil, err
	}
	beside := t.Children(t[i].Parent)
	k := beside.Index(id)
	switch {
	case to == Up && k == 1:
		return t.Move(id, t[i].Parent, "")
	case to == Up && k > 1:
		return t.Move(id, t[i].Parent, beside[k-2].ID)
	case to == Down && k < len(beside)-1:
		return t.Move(id, t[i].Parent, beside[k+1].ID)
	case to == In && k > 0:
		under := t.Children(beside[k-1].ID)
		after := ""
		if len(under) > 0 {
			after = under[len(under)-1].ID
		}
		return t.Move(id, beside[k-1].ID, after)
	case to == Out && t[i].Parent != "":
		return t.Move(id, t[t.Index(t[i].Parent)].Parent, t[i].Parent)
	}
	return t, nil
}

// SetAddress gives a page another word of its own in its address; what is under it follows.
func (t Tree) SetAddress(id, segment string) (Tree, error) {
	i, err := t.find(id)
	if err != nil {
		return nil, err
	}
	if t[i].Address == "" {
		return nil, doc.Problemf("Address", "of the home page is the site's own; make another page the home page first")
	}
	if err := CheckSegment(segment); err != nil {
		return nil, err
	}
	return slices.Clone(t).readdress(id, segment)
}

// readdress gives a page a word of its own and the address that comes of it, and those under it
// theirs. It changes t.
func (t Tree) readdress(id, segment string) (Tree, error) {
	i := t.Index(id)
	was, now := t[i].Address, segment
	if t[i].Parent != "" {
		now = t[t.Index(t[i].Parent)].Address + "/" + segment
	} else if err := reserved(segment); err != nil {
		return nil, err
	}
	end := t.end(i)
	for k, p := range t {
		if p.Address == now && k != i {
			return nil, doc.Problemf(
				"Address",
				"would be /%s, where the page “%s” is already; choose another",
				now,
				p.Name,
			)
		}
	}
	for k := i; k < end; k++ {
		t[k].Address = now + strings.TrimPrefix(t[k].Address, was)
		if len(t[k].Address) > maxAddress {
			return nil, doc.Problemf(
				"Address",
				"of “%s” would have %d characters; %d is the most",
				t[k].Name,
				len(t[k].Address),
				maxAddress,
			)
		}
	}
	return t, nil
}

// MakeHome makes a page the home page; the one that was gets an address of its name.
func (t Tree) MakeHome(id string) (Tree, error) {
	i, err := t.find(id)
	if err != nil {
		return nil, err
	}
	if t[i].Address == "" {
		return t, nil
	}
	if len(t.Children(id)) > 0 {
		return nil, doc.Problemf("Page", "has pages under it, which the home page can't have; move those first")
	}
	next, err := t.Move(id, "", "")
	if err != nil {
		return nil, err
	}
	next = slices.Clone(next)
	if k := slices.IndexFunc(next, func(p Page) bool { return p.Address == "" }); k >= 0 {
		next[k].Address = Fresh(next[k].Name, "page", next.taken(""))
	}
	next[next.Index(id)].Address = ""
	return next, nil
}

// Add puts a new page behind the last of those under a parent; its word is checked, or derived
// from its name where it is "".
func (t Tree) Add(p Page, segment string) (Tree, error) {
	if len(t) >= MaxPages {
		return nil, doc.Problemf("Site", "has %d pages already, the most there can be", MaxPages)
	}
	if segment == "" {
		segment = Fresh(p.Name, "page", t.taken(p.Parent))
	}
	if err := CheckSegment(segment); err != nil {
		return nil, err
	}
	at := len(t)
	if p.Parent != "" {
		i, err := t.find(p.Parent)
		if err != nil {
			return nil, err
		}
		if t[i].Address == "" {
			return nil, doc.Problemf("Page", "can't stand under the home page: what is at the top is beside it")
		}
		if t.Depth(p.Parent)+1 >= MaxDepth {
			return nil, doc.Problemf("Page", "would stand %d deep; %d is the most", t.Depth(p.Parent)+2, MaxDepth)
		}
		at = t.end(i)
	}
	p.Address = segment
	return slices.Insert(slices.Clone(t), at, p).readdress(p.ID, segment)
}

// Remove takes a page away with all that is under it.
func (t Tree) Remove(id string) (Tree, error) {
	i, err := t.find(id)
	if err != nil {
		return nil, err
	}
	if t[i].Address == "" {
		return nil, doc.Problemf(
			"Page",
			"is the home page, which can't be deleted; make another page the home page first",
		)
	}
	return slices.Delete(slices.Clone(t), i, t.end(i)), nil
}

// taken tells which words pages under a parent have.
func (t Tree) taken(parent string) func(string) bool {
	words := map[string]bool{}
	for _, p := range t.Children(parent) {
		words[p.segment()] = true
	}
	return func(word string) bool { return words[word] || parent == "" && doc.PageReserved(word) }
}

// Taken tells which words can't be a new page's own under a parent.
func (t Tree) Taken(parent string) func(string) bool { return t.taken(parent) }

// Moved gives the pages whose address differs in another tree, by the address that they have in
// this one.
func (t Tree) Moved(next Tree) map[string]string {
	now := map[string]string{}
	for _, p := range next {
		now[p.ID] = p.Address
	}
	moved := map[string]string{}
	for _, p := range t {
		if to, there := now[p.ID]; there && to != p.Address {
			moved[p.Address] = to
		}
	}
	return moved
}

// Slug derives a word of an address from a name: transliterated, small letters, digits and
// hyphens, with a number where it is taken; "" when the name has none of those.
func Slug(name string, taken func(string) bool) string {
	base := slug.Make(name)
	if len(base) > maxSegment-4 {
		base = strings.Trim(base[:maxSegment-4], "-") // it is ASCII
	}
	if !segmentPattern.MatchString(base) {
		return ""
	}
	s := base
	for n := 2; taken(s); n++ { // ends: there are only so many
		s = base + "-" + strconv.Itoa(n)
	}
	return s
}

// Fresh is Slug, or that of another word where the name has nothing for one.
func Fresh(name, otherwise string, taken func(string) bool) string {
	if s := Slug(name, taken); s != "" {
		return s
	}
	return Slug(otherwise, taken)
}

// CheckSegment checks a page's own part of an address.
func CheckSegment(s string) error {
	if segmentPattern.MatchString(s) && len(s) <= maxSegment {
		return nil
	}
	if !utf8.ValidString(s) {
		s = ""
	}
	example := Fresh(s, "winter-fares", func(string) bool { return false })
	return doc.Problemf(
		"Address",
		"can't be %.60q: write at most %d small letters, digits and hyphens, such as %s",
		s,
		maxSegment,
		example,
	)
}

// reserved refuses words that mean something at the top of every site.
func reserved(segment string) error {
	if doc.PageReserved(segment) {
		return doc.Problemf("Address", "%q means something else on every site; choose another", segment)
	}
	return nil
}

// Redirects are addresses that lead elsewhere: from an address to another of the site, or a
// whole one.
type Redirects map[string]string

// Add has an address lead elsewhere. Errors are *doc.Problem: for loops, for addresses that a
// page has, and for what isn't an address.
func (r Redirects) Add(t Tree, from, to string) (Redirects, error) {
	from, to = strings.Trim(strings.TrimSpace(from), "/"), strings.TrimSpace(to)
	for s := range strings.SplitSeq(from, "/") {
		if s == "" || strings.ContainsAny(s, " ?#\\%<>\"") || strings.ContainsFunc(s, unicode.IsControl) ||
			!utf8.ValidString(s) ||
			len(from) > maxAddress {
			return nil, doc.Problemf(
				"Old address",
				"can't be %.60q: write it as it stood on the site, such as /prices",
				from,
			)
		}
	}
	if i := slices.IndexFunc(t, func(p Page) bool { return p.Address == from }); i >= 0 {
		return nil, doc.Problemf(
			"Old address",
			"/%s is the page “%s”; a page that is there can't lead elsewhere",
			from,
			t[i].Name,
		)
	}
	if strings.ContainsFunc(
		to,
		func(c rune) bool { return unicode.IsControl(c) || unicode.IsSpace(c) || c == utf8.RuneError },
	) ||
		len(to) > maxTarget {
		return nil, doc.Problemf(
			"New address",
			"can't be %.60q: write one address without spaces or line breaks, at most %d characters",
			to,
			maxTarget,
		)
	}
	if strings.HasPrefix(to, "https://") || strings.HasPrefix(to, "http://") {
		if u, err := url.Parse(to); err != nil || u.Host == "" || u.User != nil {
			return nil, doc.Problemf("New address", "can't be %.60q: write it as https://example.org/somewhere", to)
		}
	} else {
		if strings.HasPrefix(to, "//") {
			return nil, doc.Problemf("New address", "can't be %.60q, which leads to another host: write https:// before it if you mean that", to)
		}
		path, tail := strings.Trim(to, "/"), ""
		if at := strings.IndexAny(path, "?#"); at >= 0 {
			path, tail = strings.Trim(path[:at], "/"), path[at:]
		}
		if !strings.HasPrefix(to, "/") || strings.ContainsAny(to, " \\<>\"") {
			return nil, doc.Problemf("New address", "can't be %.60q: begin one of this site with /, and any other with https://", to)
		}
		for at, steps := path, 0; ; steps++ {
			if at == from || steps > len(r) {
				return nil, doc.Problemf("New address", "leads back to /%s; choose one that leads somewhere", from)
			}
			next, ok := r[at]
			if !ok || strings.Contains(next, "://") {
				break
			}
			at = next
		}
		to = path + tail
	}
	next := maps.Clone(r)
	if next == nil {
		next = Redirects{}
	}
	next[from] = to
	return next, nil
}

package web

import (
	"html"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit/edittest"
	"openplot/core/rights"
	"openplot/core/tree"
	"openplot/store"
	"openplot/web/paths"
)

// links finds what leads on from a screen: anchors, frames, forms and what htmx gets.
var links = regexp.MustCompile(`(?:href|src|action|hx-get|hx-post|value)="(/[^"]*)"`)

// On a site with a page two levels deep every screen is found by following what leads from one to the
// next, and none of it leads nowhere.
func TestEveryScreenIsReached(t *testing.T) {
	p := begin(t)
	for i, address := range []string{"isles", "isles/north", "isles/north/quay"} {
		page := &doc.Page{
			ID:       []string{"q1", "q2", "q3"}[i],
			Name:     address,
			Title:    address,
			Sections: edittest.Sections(store.NewID)[:1],
		}
		at := tree.Page{ID: page.ID, Name: page.Name}
		if i > 0 {
			at.Parent = []string{"q1", "q2"}[i-1]
		}
		if err := p.store.Tree.Put(t.Context(), "w1", page, func(was tree.Tree) (tree.Tree, error) {
			return was.Add(at, address[strings.LastIndex(address, "/")+1:])
		}); err != nil {
			t.Fatal(err)
		}
	}
	d := p.as("designer@example.org")
	if err := p.store.People.AddMember(t.Context(), "w1", p.userID("designer@example.org"), store.Owner); err != nil {
		t.Fatal(err)
	}
	st, err := p.store.Sites.BySlug(t.Context(), "skerry")
	if err == nil {
		err = p.server.Publisher.PublishAll(t.Context(), p.store, st) // there is something to export
	}
	if err != nil {
		t.Fatal(err)
	}
	deep := paths.To("skerry").Page("isles/north/quay")
	var posts []string
	seen, next := map[string]bool{}, []string{"/"}
	for len(next) > 0 {
		at := next[0]
		next = next[1:]
		path, _, _ := strings.Cut(at, "#")
		if path, _, _ := strings.Cut(path, "?"); seen[path] || strings.HasPrefix(path, "/static/") ||
			strings.HasPrefix(path, "/fonts/") {
			continue
		} else {
			seen[path] = true
		}
		status, body, header := d.get(path)
		if status >= http.StatusBadRequest {
			t.Errorf("%s: %d", at, status)
		}
		if !strings.Contains(header.Get("Content-Type"), "html") || strings.HasSuffix(path, "canvas") {
			continue
		}
		for _, m := range links.FindAllStringSubmatch(body, -1) {
			to := html.UnescapeString(m[1])
			if strings.HasPrefix(m[0], "action") || strings.HasPrefix(m[0], "hx-post") {
				posts = append(posts, to)
			} else if !strings.HasPrefix(m[0], "value") || strings.HasPrefix(to, "/sites/") {
				next = append(next, to)
			}
		}
	}
	// Where a page is named, it is by its segment; what forms send to is a route.
	var routes []*regexp.Regexp
	var own []string // of pages, that are links
	for _, r := range p.server.Table() {
		pattern := regexp.MustCompile(`:\w+`).ReplaceAllString(r.Path, `[^/]+`)
		routes = append(routes, regexp.MustCompile("^"+pattern+"$"))
		if r.Method == http.MethodGet && strings.HasPrefix(r.Path, paths.PageRoute+"/") && r.Right != rights.None {
			own = append(own, strings.TrimPrefix(r.Path, paths.PageRoute+"/"))
		}
	}
	for _, to := range posts {
		u, err := url.Parse(to)
		if err != nil || !slices.ContainsFunc(routes, func(r *regexp.Regexp) bool { return r.MatchString(u.Path) }) {
			t.Errorf("a form sends to %s, which is nothing: %v", to, err)
		}
	}
	if len(own) < 10 || len(seen) < 40 || len(posts) < 40 {
		t.Fatalf("too few: %d routes of pages, %d screens, %d forms", len(own), len(seen), len(posts))
	}
	for _, screen := range []string{"bench", "checks", "versions", "settings", "canvas"} {
		if !seen[deep.At(screen)] {
			t.Errorf("nothing leads to %s", deep.At(screen))
		}
	}
	for path := range seen {
		if rest, of := strings.CutPrefix(path, "/sites/skerry/pages/"); of &&
			!slices.Contains(
				[]string{"home", "isles", "isles.north", "isles.north.quay"},
				strings.Split(rest, "/")[0],
			) {
			t.Errorf("%s names a page otherwise", path)
		}
	}
}

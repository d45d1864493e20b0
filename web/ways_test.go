package web

import (
	"errors"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/core/tree"
	"openplot/store"
)

// Whoever has no right to what a site keeps doesn't get it another way: each role tries each way
// to a site's pages, its files, its entries and its links. What a way needs is said here once more.
func TestEveryWayToASitesData(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	page := &doc.Page{
		ID:       "p2",
		Name:     "Berths",
		Title:    "Berths",
		Sections: []*doc.Section{{ID: "s2", Name: "Quillwort"}},
	}
	p.put(page, tree.Page{ID: "p2", Name: "Berths"})
	if err := p.store.Tree.LockPage(ctx, "w1", "p2", "a password"); err != nil {
		t.Fatal(err)
	}
	ways := map[string]struct {
		right rights.Right
		try   func(q *person) bool // reports whether it was got
	}{
		"a copy": {rights.Publish, func(q *person) bool {
			status, _, h := q.post("/new", url.Values{"name": {"A copy"}, "from": {"copy:skerry"}})
			if status != http.StatusSeeOther || !strings.HasPrefix(h.Get("Location"), "/works/") {
				return false
			}
			to, _ := q.made(h)
			return strings.HasPrefix(to, "/sites/a-copy")
		}},
		"a copy offered": {
			rights.Publish,
			func(q *person) bool { _, text, _ := q.get("/new"); return strings.Contains(text, "copy:skerry") },
		},
		"its file": {
			rights.Publish,
			func(q *person) bool { _, text, _ := q.get("/sites/skerry/file"); return strings.HasPrefix(text, "PK") },
		},
		"its export": {rights.Publish, func(q *person) bool {
			status, text, _ := q.get("/sites/skerry/export")
			return strings.HasPrefix(text, "PK") || status == http.StatusUnprocessableEntity
		}},
		"a preview": {rights.Publish, func(q *person) bool {
			status, _, _ := q.post("/sites/skerry/previews", url.Values{"days": {"1"}})
			return status < 400
		}},
		"its links": {
			rights.Publish,
			func(q *person) bool { status, _, _ := q.get("/sites/skerry/previews"); return status == http.StatusOK },
		},
		"its entries": {rights.Keep, func(q *person) bool {
			status, _, _ := q.get("/sites/skerry/entries/file")
			return status == http.StatusOK
		}},
		"its log": {
			rights.Account,
			func(q *person) bool { status, _, _ := q.get("/sites/skerry/audit"); return status == http.StatusOK },
		},
		"its house style": {rights.House, func(q *person) bool {
			status, _, _ := q.get("/sites/skerry/house/file")
			return status == http.StatusOK
		}},
		"its pages": {rights.See, func(q *person) bool {
			status, _, _ := q.get("/sites/skerry/pages/berths/canvas")
			return status == http.StatusOK
		}},
		"blocks": {rights.See, func(q *person) bool {
			_, text, _ := q.get("/sites/skerry/pages/berths/copy?select=s2")
			return strings.Contains(text, carry.ClipHead)
		}},
	}
	id := p.userID("stranger@example.org")
	for _, role := range []store.Role{"", store.Writer, store.Designer, store.Owner, "gone", "disabled"} {
		switch role {
		case "gone":
			p.owned() // somebody has to be
			if err := p.store.Members.Set(ctx, "w1", id, ""); err != nil {
				t.Fatal(err)
			}
		case "", "disabled":
		default:
			if err := p.store.People.AddMember(ctx, "w1", id, role); err != nil {
				t.Fatal(err)
			}
		}
		q := p.as("stranger@example.org")
		if role == "disabled" {
			if err := errors.Join(p.store.People.AddMember(ctx, "w1", id, store.Owner), p.store.People.DisableUser(ctx, "stranger@example.org", true)); err != nil {
				t.Fatal(err)
			}
		}
		for name, way := range ways {
			may := role != "" && role != "gone" && role != "disabled" && role.May(way.right)
			if got := way.try(q); got != may {
				t.Errorf("%q gets %s: %v, want %v", role, name, got, may)
			}
		}
	}
	if err := p.store.People.DisableUser(ctx, "stranger@example.org", false); err != nil {
		t.Fatal(err)
	}
	// What is copied, or comes from a file, keeps its lock.
	d := p.as("designer@example.org")
	_, _, h := d.post("/new", url.Values{"name": {"Second"}, "from": {"copy:skerry"}})
	if to, said := d.made(h); to != "/sites/second" {
		t.Fatal(to, said)
	}
	_, file, _ := d.get("/sites/skerry/file")
	h = uploaded(t, d, "/new/file", "x.site.zip", []byte(file), map[string]string{"name": "Third"})
	if _, said := d.made(h); !strings.Contains(said, "its password") {
		t.Fatal(said)
	}
	for _, slug := range []string{"second", "third"} {
		st, err := p.store.Sites.BySlug(ctx, slug)
		if err != nil {
			t.Fatal(err)
		}
		copied, err := p.store.Pages.At(ctx, st.ID, "berths")
		if err != nil || copied.Lock == "" {
			t.Errorf("%s: the page has no lock, %v", slug, err)
		}
	}
}

// A plan is carried out with the rights that whoever made it has then.
func TestPlansTakeRights(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	id := p.userID("stranger@example.org")
	for name, tt := range map[string]struct {
		role store.Role // "" isn't a member any more
		off  bool       // the account is disabled
		want bool
	}{"still a designer": {store.Designer, false, true}, "a writer": {store.Writer, false, false}, "gone": {"", false, false}, "disabled": {store.Owner, true, false}} {
		if err := errors.Join(p.store.People.DisableUser(ctx, "stranger@example.org", false), p.store.People.AddMember(ctx, "w1", id, store.Designer)); err != nil {
			t.Fatal(err)
		}
		if err := p.store.Releases.AddPlan(ctx, store.Plan{Site: "w1", Act: store.PlanPublish, Pages: []string{"p1"}, By: id}); err != nil {
			t.Fatal(err)
		}
		plans, err := p.store.Releases.Plans(ctx, "w1")
		if err != nil {
			t.Fatal(err)
		}
		before, err := p.store.Releases.List(ctx, "w1", 50)
		if err != nil {
			t.Fatal(err)
		}
		if tt.role == "" {
			err = p.store.Members.Set(ctx, "w1", id, "")
		} else {
			err = errors.Join(p.store.People.AddMember(ctx, "w1", id, tt.role), p.store.People.DisableUser(ctx, "stranger@example.org", tt.off))
		}
		if err != nil {
			t.Fatal(err)
		}
		if err := p.tasks().CarryOut(ctx, plans[0].ID); err != nil {
			t.Fatal(err)
		}
		after, err := p.store.Releases.List(ctx, "w1", 50)
		if err != nil || (len(after) > len(before)) != tt.want {
			t.Errorf("%s: %d publications of %d, %v", name, len(after), len(before), err)
		}
		left, err := p.store.Releases.Plans(ctx, "w1")
		if err != nil || (len(left) == 0) != tt.want || !tt.want && left[0].Problem == "" {
			t.Errorf("%s: %+v, %v", name, left, err)
		}
		if err := p.store.Releases.DropPlan(ctx, "w1", plans[0].ID); err != nil {
			t.Fatal(err)
		}
	}
}

// A preview of one page tells nothing of the others but what visitors know of them.
func TestOnePagePreviewsNameNoDrafts(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for _, name := range []string{"Known", "Secretly", "Closed"} {
		page := &doc.Page{ID: "q" + name, Name: name, Title: name, Description: "About " + name}
		p.put(page, tree.Page{ID: page.ID, Name: name})
	}
	if status, text := d.edit(edit.Command{Op: "block.add", Node: p.page.Sections[0].ID, Zone: "desktop", Kind: doc.PageList}); status != http.StatusOK {
		t.Fatalf("%d %s", status, text)
	}
	if status, _, _ := d.post("/sites/skerry/publish", url.Values{"id": {"qKnown", "qClosed"}}); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	if err := p.store.Tree.LockPage(t.Context(), "w1", "qClosed", "a password"); err != nil {
		t.Fatal(err)
	}
	// The known one gets another name that visitors don't know.
	page, err := p.store.Pages.ByID(t.Context(), "w1", "qKnown")
	if err != nil {
		t.Fatal(err)
	}
	env := edit.Env{Site: &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}, NewID: store.NewID}
	command := edit.Command{Op: "page.set", Setting: "name", Value: "Renamed"}
	if _, err := p.store.Pages.Edit(t.Context(), "qKnown", p.userID("designer@example.org"), page.Seq, command, func(d *doc.Page) (*edit.Result, error) { return edit.Apply(d, command, env) }); err != nil {
		t.Fatal(err)
	}
	_, _, h := d.post(benchPath+"/try", nil)
	_, text, _ := p.as("").get(h.Get("Location"))
	if !strings.Contains(text, "Known") || strings.Contains(text, "Secretly") || strings.Contains(text, "Renamed") ||
		strings.Contains(text, "Closed") {
		t.Errorf("it names what visitors don't know, or not what they do: %s", text)
	}
}

package store

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/memory"
)

// state is all that a command over pages and the house style can change.
func (f *fixture) state() string {
	f.t.Helper()
	f.Pages.Remember(memory.New(1 << 20))
	var all []any
	for _, slug := range []string{"", "second"} {
		p, err := f.Pages.At(f.t.Context(), "w1", slug)
		if err != nil {
			f.t.Fatal(err)
		}
		all = append(all, p.Doc)
	}
	s, err := f.Sites.BySlugFor(f.t.Context(), f.user, "skerry")
	if err != nil {
		f.t.Fatal(err)
	}
	b, err := json.Marshal(append(all, s.House))
	if err != nil {
		f.t.Fatal(err)
	}
	return string(b)
}

// both begins with two pages, a section on each.
func both(t *testing.T) (f *fixture, sections [2]string) {
	f = begin(t)
	if err := f.Pages.Add(t.Context(), "w1", "second", 1, &doc.Page{ID: "p2", Name: "Second", Title: "Second"}); err != nil {
		t.Fatal(err)
	}
	for i, page := range []string{"p1", "p2"} {
		f.page = page
		sections[i] = f.must(0, edit.Command{Op: "section.add", Preset: "empty"}).Result.Select
	}
	return f, sections
}

// paint adds a colour to the house style and gives it to a section of each page.
func (f *fixture) paint(sections [2]string, seen Seen) error {
	house := edit.HouseCommand{Op: "colour.add", Name: "Buoy", Value: "#c22222"}
	_, err := f.Log.Together(
		f.t.Context(),
		"w1",
		f.user,
		seen,
		func(h doc.House, pages map[string]*doc.Page) (*Act, error) {
			next, err := edit.ApplyHouse(h, f.site.Zones, house)
			if err != nil {
				return nil, err
			}
			env := f.env()
			as := *f.site
			as.House, env.Site = next, &as
			act := &Act{House: &next, HouseCommand: house, Pages: map[string]PageAct{}}
			for i, page := range []string{"p1", "p2"} {
				c := edit.Command{Op: "set", Node: sections[i], Zone: "desktop", Setting: "background", Value: "$buoy"}
				r, err := edit.Apply(pages[page], c, env)
				if err != nil {
					return nil, err
				}
				act.Pages[page] = PageAct{Command: c, Result: r}
			}
			return act, nil
		},
	)
	return err
}

// One command over two pages and the house style is kept as one, and taken back and done
// again as one, from either page and from the house style's screen.
func TestTogether(t *testing.T) {
	f, sections := both(t)
	before := f.state()
	if err := f.paint(sections, Seen{House: 1, Pages: map[string]int64{"p1": 1, "p2": 1}}); err != nil {
		t.Fatal(err)
	}
	painted := f.state()
	if painted == before {
		t.Fatal("nothing changed")
	}
	undo := map[string]func() error{
		"the first page":  func() error { _, err := f.Log.Undo(t.Context(), "p1", f.user); return err },
		"the second page": func() error { _, err := f.Log.Undo(t.Context(), "p2", f.user); return err },
		"the house style": func() error { return f.Houses.Undo(t.Context(), "w1", f.user) },
	}
	for name, back := range undo {
		if err := back(); err != nil {
			t.Fatalf("undo from %s: %v", name, err)
		}
		if f.state() != before {
			t.Fatalf("undo from %s leaves %s", name, f.state())
		}
		if h, err := f.Log.History(t.Context(), "p2", f.user); err != nil || h.Edits != 1 || !h.CanRedo {
			t.Errorf("after undo from %s: %+v, %v", name, h, err)
		}
		if _, err := f.Log.Redo(t.Context(), "p2", f.user); err != nil {
			t.Fatalf("redo after undo from %s: %v", name, err)
		}
		if f.state() != painted {
			t.Fatalf("redo after undo from %s leaves %s", name, f.state())
		}
	}
}

// What is stale in one place is done nowhere.
func TestTogetherOrNotAtAll(t *testing.T) {
	f, sections := both(t)
	f.page = "p2"
	f.must(1, edit.Command{Op: "rename", Node: sections[1], Value: "Renamed"})
	before := f.state()
	for name, seen := range map[string]Seen{
		"an old page":        {House: 1, Pages: map[string]int64{"p1": 1, "p2": 1}},
		"an old house style": {House: 0, Pages: map[string]int64{"p1": 1, "p2": 2}},
	} {
		if err := f.paint(sections, seen); !errors.Is(err, ErrStale) || f.state() != before {
			t.Errorf("%s: %v", name, err)
		}
	}
	if err := f.paint(
		[2]string{sections[0], "nowhere"},
		Seen{House: 1, Pages: map[string]int64{"p1": 1, "p2": 2}},
	); err == nil || f.state() != before {
		t.Errorf("a section that isn't there: %v", err)
	}
}

// A compound that can't be taken back whole is taken back nowhere.
func TestTogetherIsTakenBackWhole(t *testing.T) {
	f, sections := both(t)
	if err := f.paint(sections, Seen{House: 1, Pages: map[string]int64{"p1": 1, "p2": 1}}); err != nil {
		t.Fatal(err)
	}
	other, err := f.People.AddUser(t.Context(), "other@example.org", "Other", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	c := edit.Command{Op: "rename", Node: sections[1], Value: "Renamed"}
	if _, err := f.Pages.Edit(t.Context(), "p2", other.ID, 2, c, func(p *doc.Page) (*edit.Result, error) { return edit.Apply(p, c, f.env()) }); err != nil {
		t.Fatal(err)
	}
	before := f.state()
	var problem *doc.Problem
	if _, err := f.Log.Undo(t.Context(), "p1", f.user); !errors.As(err, &problem) || f.state() != before {
		t.Errorf("undo although somebody built on it: %v", err)
	}
	if _, err := f.Log.Undo(t.Context(), "p2", other.ID); err != nil {
		t.Fatal(err)
	}
	if _, err := f.Log.Undo(t.Context(), "p1", f.user); err != nil {
		t.Errorf("undo when the other's is gone: %v", err)
	}
}

// Everybody takes back their own last edit, and nobody what others built on.
func TestUndoIsOnesOwn(t *testing.T) {
	f := begin(t)
	other, err := f.People.AddUser(t.Context(), "other@example.org", "Other", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	me := f.user
	as := func(user string, base int64, c edit.Command) *Edited {
		t.Helper()
		f.user = user
		return f.must(base, c)
	}
	names := func() string {
		var out string
		for _, s := range f.stored().Doc.Sections {
			out += s.Name + " "
		}
		return out
	}
	mine := as(me, 0, edit.Command{Op: "section.add", Preset: "empty"}).Result.Select
	theirs := as(other.ID, 1, edit.Command{Op: "section.add", Preset: "bar"}).Result.Select
	as(me, 2, edit.Command{Op: "rename", Node: mine, Value: "Mine"})
	as(other.ID, 3, edit.Command{Op: "rename", Node: theirs, Value: "Theirs"})
	undo := func(user string) error { _, err := f.Log.Undo(t.Context(), "p1", user); return err }
	if err := undo(me); err != nil || names() != "Theirs New section " {
		t.Errorf("%v, %s", err, names())
	}
	if h, err := f.Log.History(t.Context(), "p1", other.ID); err != nil || h.Edits != 3 || !h.CanUndo || h.CanRedo {
		t.Errorf("%+v, %v", h, err)
	}
	// They put a block into my section: taking the section back would take that too.
	as(other.ID, 5, edit.Command{Op: "block.add", Node: mine, Zone: "desktop", Kind: doc.Text})
	var problem *doc.Problem
	if err := undo(me); !errors.As(err, &problem) || names() != "Theirs New section " {
		t.Errorf("%v, %s", err, names())
	}
	if err := undo(other.ID); err != nil {
		t.Fatal(err)
	}
	if err := undo(me); err != nil || names() != "Theirs " {
		t.Errorf("%v, %s", err, names())
	}
	if err := undo(me); !errors.Is(err, ErrNothing) {
		t.Errorf("there is nothing of mine left: %v", err)
	}
	for _, want := range []string{"Theirs New section ", "Theirs Mine "} {
		if _, err := f.Log.Redo(t.Context(), "p1", me); err != nil || names() != want {
			t.Errorf("redo: %v, %s, want %s", err, names(), want)
		}
	}
	if _, err := f.Log.Redo(t.Context(), "p1", me); !errors.Is(err, ErrNothing) {
		t.Errorf("there is nothing of mine to redo: %v", err)
	}
}

// The house style too: one's own last edit, and only while it is the last.
func TestHouseUndoIsOnesOwn(t *testing.T) {
	f := begin(t)
	other, err := f.People.AddUser(t.Context(), "other@example.org", "Other", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	for i, user := range []string{f.user, other.ID} {
		c := edit.HouseCommand{Op: "width.set", Value: []string{"900", "1000"}[i]}
		if err := f.Houses.Edit(t.Context(), "w1", user, int64(i+1), c, func(h doc.House) (doc.House, error) {
			return edit.ApplyHouse(
				h, f.site.Zones, c,
			)
		}); err != nil {
			t.Fatal(err)
		}
	}
	var problem *doc.Problem
	if err := f.Houses.Undo(t.Context(), "w1", f.user); !errors.As(err, &problem) {
		t.Errorf("undo over somebody else's edit: %v", err)
	}
	if err := errors.Join(f.Houses.Undo(t.Context(), "w1", other.ID), f.Houses.Undo(t.Context(), "w1", f.user)); err != nil {
		t.Error(err)
	}
}

// A section that stands on several pages is changed on all of them at once, also by two people
// from two pages at the same time; taking that back takes it back everywhere, and a page that
// gets it back gets it as it is now.
func TestSharedSections(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	r := f.must(0, edit.Command{Op: "section.add", Preset: "footer"})
	id := r.Page.Sections[len(r.Page.Sections)-1].ID
	for _, s := range r.Page.Sections {
		if s.Role == doc.RoleFooter {
			id = s.ID
		}
	}
	f.must(1, edit.Command{Op: "section.share", Node: id})
	env := edit.Env{Site: f.site, NewID: NewID, Shared: func(id string) *doc.Section {
		s, err := f.Pages.SharedSection(ctx, "w1", id)
		if err != nil {
			t.Fatal(err)
		}
		return s
	}}
	for _, other := range []string{"q1", "q2"} {
		if err := f.Pages.Add(ctx, "w1", other, 5, &doc.Page{ID: other, Name: other, Sections: []*doc.Section{{ID: "s" + other, Name: "Words"}}}); err != nil {
			t.Fatal(err)
		}
	}
	do := func(page string, base int64, c edit.Command) (*Edited, error) {
		return f.Pages.Edit(
			ctx,
			page,
			f.user,
			base,
			c,
			func(p *doc.Page) (*edit.Result, error) { return edit.Apply(p, c, env) },
		)
	}
	for _, other := range []string{"q1", "q2"} {
		if e, err := do(other, 0, edit.Command{Op: "section.add", Preset: edit.SharedPrefix + id, After: "s" + other}); err != nil ||
			e.Shared != 0 {
			t.Fatalf("%+v, %v", e, err)
		}
	}
	// As JSON, for a document from the database has nothing where one in memory has an empty map.
	same := func(what string, pages ...string) *doc.Section {
		t.Helper()
		var first *doc.Section
		var written []byte
		for _, page := range pages {
			p, err := f.Pages.ByID(ctx, "w1", page)
			if err != nil {
				t.Fatal(err)
			}
			s, _ := p.Doc.Section(id)
			if s == nil {
				t.Fatalf("%s: %s lacks it", what, page)
			}
			b, err := json.Marshal(s)
			if err != nil {
				t.Fatal(err)
			}
			if first == nil {
				first, written = s, b
			} else if !bytes.Equal(written, b) {
				t.Fatalf("%s: %s has another one:\n%s\n%s", what, page, written, b)
			}
		}
		return first
	}
	e, err := do("q1", 1, edit.Command{Op: "rename", Node: id, Value: "Foot"})
	if err != nil || e.Shared != 2 || same("renamed", f.page, "q1", "q2").Name != "Foot" {
		t.Fatalf("%+v, %v", e, err)
	}
	// One page lets it go, the others go on, and it comes back as they have it.
	if _, err := do("q2", 2, edit.Command{Op: "delete", Node: id}); err != nil {
		t.Fatal(err)
	}
	if _, err := do("q1", 2, edit.Command{Op: "rename", Node: id, Value: "Footer"}); err != nil {
		t.Fatal(err)
	}
	if _, err := f.Log.Undo(ctx, "q2", f.user); err != nil {
		t.Fatal(err)
	}
	same("back on one page", f.page, "q1", "q2")
	// Taking a change back on one page does so on all.
	if _, err := f.Log.Undo(ctx, "q1", f.user); err != nil {
		t.Fatal(err)
	}
	if s := same("taken back", f.page, "q1", "q2"); s.Name != "Foot" {
		t.Errorf("it is called %s", s.Name)
	}
	// Many at once, from all pages.
	errs := make(chan error)
	pages := []string{f.page, "q1", "q2"}
	for i, page := range pages {
		go func() {
			for n := range 20 {
				for {
					p, err := f.Pages.ByID(ctx, "w1", page)
					if err == nil {
						_, err = do(
							page,
							p.Seq,
							edit.Command{Op: "rename", Node: id, Value: fmt.Sprint("Footer ", i, " ", n)},
						)
					}
					if errors.Is(err, ErrStale) {
						continue
					}
					if err != nil {
						errs <- err
						return
					}
					break
				}
			}
			errs <- nil
		}()
	}
	for range pages {
		if err := <-errs; err != nil {
			t.Error(err)
		}
	}
	same("after many", pages...)
	shared, err := f.Pages.SharedSections(ctx, "w1")
	if err != nil || len(shared) != 1 || len(shared[0].Pages) != 3 {
		t.Errorf("%+v, %v", shared, err)
	}
}

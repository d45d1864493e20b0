package store

import (
	"errors"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/tree"
)

// addresses gives the pages of the site as the tree has them, "!" behind those in a redirect.
func (f *fixture) addresses() string {
	f.t.Helper()
	infos, err := f.Pages.List(f.t.Context(), "w1")
	if err != nil {
		f.t.Fatal(err)
	}
	var b []string
	for _, p := range Tree(infos) {
		b = append(b, p.ID+":/"+p.Address)
	}
	return strings.Join(b, " ")
}

func (f *fixture) rearrange(change func(tree.Tree) (tree.Tree, error)) error {
	return f.Tree.Rearrange(f.t.Context(), "w1", change)
}

// Pages move with what is under them, links to them follow on every page, and addresses that
// visitors know lead on.
func TestRearrange(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	put := func(id, name, parent string, words doc.Words) {
		t.Helper()
		p := &doc.Page{ID: id, Name: name, Title: name, Sections: []*doc.Section{{ID: "s" + id, Blocks: []*doc.Block{{
			ID: "b" + id, Kind: doc.Text, Content: doc.Content{Words: words},
		}}}}}
		must(
			f.Tree.Put(
				ctx,
				"w1",
				p,
				func(t tree.Tree) (tree.Tree, error) { return t.Add(tree.Page{ID: id, Name: name, Parent: parent}, "") },
			),
		)
	}
	put("i", "Islands", "", nil)
	put(
		"s",
		"Skarva",
		"i",
		doc.Words{{{Text: "up", Link: "/islands#map"}, {Text: "here", Link: "/islands/skarva _blank"}}},
	)
	put(
		"l",
		"Langey",
		"i",
		doc.Words{{{Text: "elsewhere", Link: "https://example.org/islands"}, {Text: "crew", Link: "/islanders"}}},
	)
	if got := f.addresses(); !strings.HasSuffix(got, "i:/islands s:/islands/skarva l:/islands/langey") {
		t.Fatal(got)
	}
	if _, err := f.db.ExecContext(ctx, `UPDATE pages SET published_at = now(), published_seq = 0 WHERE id IN ('i', 's')`); err != nil {
		t.Fatal(err)
	}
	must(f.rearrange(func(t tree.Tree) (tree.Tree, error) { return t.SetAddress("i", "isles") }))
	s, err := f.Pages.ByID(ctx, "w1", "s")
	must(err)
	links := s.Doc.Sections[0].Blocks[0].Content.Words[0]
	if s.Slug != "isles/skarva" || links[0].Link != "/isles#map" || links[1].Link != "/isles/skarva _blank" ||
		s.Seq != 1 {
		t.Errorf("%s as of %d: %+v", s.Slug, s.Seq, links)
	}
	l, err := f.Pages.At(ctx, "w1", "isles/langey")
	must(err)
	if l.Seq != 0 {
		t.Errorf("a page without such links was edited: %+v", l.Doc.Sections[0].Blocks[0].Content.Words)
	}
	rs, err := f.Tree.Redirects(ctx, "w1")
	if err != nil || len(rs) != 2 || rs[0].Address != "islands" || rs[0].Page != "i" ||
		rs[1].Address != "islands/skarva" {
		t.Errorf("redirects: %+v, %v", rs, err)
	}
	// The program's entries are nobody's to take back.
	if h, err := f.Log.History(ctx, "s", f.user); err != nil || h.CanUndo {
		t.Errorf("%+v, %v", h, err)
	}
	// An address at which there is a page again leads nowhere else.
	must(f.rearrange(func(t tree.Tree) (tree.Tree, error) { return t.SetAddress("i", "islands") }))
	if rs, _ = f.Tree.Redirects(ctx, "w1"); len(rs) != 2 || rs[0].Address != "isles" {
		t.Errorf("redirects: %+v", rs)
	}
	// Two pages may change their addresses with each other, and a problem changes nothing.
	before := f.addresses()
	var problem *doc.Problem
	if err := f.rearrange(func(t tree.Tree) (tree.Tree, error) { return t.SetAddress("s", "langey") }); !errors.As(
		err,
		&problem,
	) ||
		f.addresses() != before {
		t.Errorf("%v: %s", err, f.addresses())
	}
	must(f.rearrange(func(t tree.Tree) (tree.Tree, error) {
		a, b := t.Index("s"), t.Index("l")
		t = append(tree.Tree{}, t...)
		t[a].Address, t[b].Address = t[b].Address, t[a].Address
		return t, nil
	}))
	if got := f.addresses(); !strings.HasSuffix(got, "s:/islands/langey l:/islands/skarva") {
		t.Error(got)
	}
}

// Two who claim one address at once: one has it, the other is told.
func TestOneAddressTwice(t *testing.T) {
	f := begin(t)
	errs := make(chan error)
	for _, id := range []string{"x1", "x2"} {
		go func() {
			errs <- f.Tree.Put(t.Context(), "w1", &doc.Page{ID: id, Name: "Prices"}, func(t tree.Tree) (tree.Tree, error) {
				return t.Add(tree.Page{ID: id, Name: "Prices"}, "prices")
			})
		}()
	}
	failed := 0
	for range 2 {
		var problem *doc.Problem
		if err := <-errs; errors.As(err, &problem) && strings.Contains(problem.Message, "already") {
			failed++
		} else if err != nil {
			t.Error(err)
		}
	}
	if failed != 1 {
		t.Errorf("%d of two were told", failed)
	}
}

func TestDeletedPagesComeBack(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	add := func(id, name, parent, word string) {
		t.Helper()
		if err := f.Tree.Put(ctx, "w1", &doc.Page{ID: id, Name: name}, func(t tree.Tree) (tree.Tree, error) {
			return t.Add(tree.Page{ID: id, Name: name, Parent: parent}, word)
		}); err != nil {
			t.Fatal(err)
		}
	}
	add("i", "Islands", "", "")
	add("s", "Skarva", "i", "")
	if err := f.rearrange(func(t tree.Tree) (tree.Tree, error) { return t.Remove("i") }); err != nil {
		t.Fatal(err)
	}
	if _, err := f.Pages.At(ctx, "w1", "islands/skarva"); !errors.Is(err, ErrNotFound) {
		t.Errorf("a deleted page: %v", err)
	}
	gone, err := f.Tree.Deleted(ctx, "w1")
	if err != nil || len(gone) != 2 {
		t.Fatalf("%d deleted, %v", len(gone), err)
	}
	add("j", "Islands", "", "islands") // somebody has taken the address
	for _, id := range []string{"s", "i"} {
		if err := f.Tree.Restore(ctx, "w1", id); err != nil {
			t.Fatal(err)
		}
	}
	if got := f.addresses(); !strings.HasSuffix(got, "j:/islands s:/skarva i:/islands-2") {
		t.Error(got)
	}
	if err := f.Tree.Restore(ctx, "w1", "i"); !errors.Is(err, ErrNotFound) {
		t.Errorf("restored twice: %v", err)
	}
	if err := f.rearrange(func(t tree.Tree) (tree.Tree, error) { return t.Remove("i") }); err != nil {
		t.Fatal(err)
	}
	for after, want := range map[time.Duration]int{-time.Hour: 1, time.Hour: 0} {
		if after > 0 {
			if err := f.Tree.Forget(ctx, time.Now().Add(after)); err != nil {
				t.Fatal(err)
			}
			if gone, _ := f.Tree.Deleted(ctx, "w1"); len(gone) != want {
				t.Errorf("%d are left", len(gone))
			}
		}
	}
}

// Redirects that people enter can't make loops.
func TestRedirectsOfOnesOwn(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	var problem *doc.Problem
	for _, tt := range []struct{ from, to, problem string }{
		{"/old", "/new", ""}, {"/new", "/newer", ""}, {"/newer", "/old", "leads back"}, {"/away", "https://example.org/", ""}, {"/start", "/", ""},
		{"/", "/old", "as it stood"}, {"/old", "/newest", ""},
	} {
		err := f.Tree.AddRedirect(ctx, "w1", tt.from, tt.to)
		if tt.problem == "" && err != nil ||
			tt.problem != "" && (!errors.As(err, &problem) || !strings.Contains(problem.Message, tt.problem)) {
			t.Errorf("%s to %s: %v", tt.from, tt.to, err)
		}
	}
	rs, err := f.Tree.Redirects(ctx, "w1")
	if err != nil || len(rs) != 4 || rs[2].Address != "old" || rs[2].Target != "newest" || rs[3].Target != "/" {
		t.Errorf("%+v, %v", rs, err)
	}
	if err := f.Tree.DropRedirect(ctx, "w1", "old"); err != nil {
		t.Fatal(err)
	}
	if rs, _ = f.Tree.Redirects(ctx, "w1"); len(rs) != 3 {
		t.Errorf("%d are left", len(rs))
	}
}

package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/alexedwards/argon2id"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/memory"
	"openplot/postgres/postgrestest"
)

func TestMain(m *testing.M) { postgrestest.Main(m, Migrate) }

type fixture struct {
	*Store
	t    testing.TB
	site *doc.Site
	page string
	user string
}

func begin(t testing.TB) *fixture {
	t.Helper()
	st, err := Open(t.Context(), postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	f := &fixture{
		Store: st, t: t, page: "p1",
		site: &doc.Site{
			ID:    "w1",
			Slug:  "skerry",
			Name:  "Skerry",
			House: doc.StandardHouse(),
			Zones: doc.StandardZones(),
		},
	}
	u, err := st.People.AddUser(t.Context(), "Dana@Example.org", "Dana", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	f.user = u.ID
	for _, err := range []error{
		st.Sites.Add(t.Context(), f.site), st.People.AddMember(t.Context(), "w1", u.ID, Designer),
		st.Pages.Add(t.Context(), "w1", "", 0, &doc.Page{ID: "p1", Name: "Home", Title: "Home"}),
	} {
		if err != nil {
			t.Fatal(err)
		}
	}
	return f
}

func (f *fixture) env() edit.Env {
	return edit.Env{Site: f.site, NewID: NewID}
}

func (f *fixture) edit(base int64, c edit.Command) (*Edited, error) {
	return f.Pages.Edit(
		f.t.Context(),
		f.page,
		f.user,
		base,
		c,
		func(p *doc.Page) (*edit.Result, error) { return edit.Apply(p, c, f.env()) },
	)
}

func (f *fixture) must(base int64, c edit.Command) *Edited {
	f.t.Helper()
	e, err := f.edit(base, c)
	if err != nil {
		f.t.Fatalf("%s: %v", c.Op, err)
	}
	return e
}

// stored reads the page past the cache.
func (f *fixture) stored() *Page {
	f.t.Helper()
	f.Pages.Remember(memory.New(1 << 20))
	p, err := f.Pages.At(f.t.Context(), "w1", "")
	if err != nil {
		f.t.Fatal(err)
	}
	return p
}

func encoded(t testing.TB, p *doc.Page) string {
	t.Helper()
	b, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

func TestEditUndoRedo(t *testing.T) {
	f := begin(t)
	states := []string{encoded(t, f.stored().Doc)}
	for i := range 5 {
		e := f.must(int64(i), edit.Command{Op: "section.add", Preset: "welcome-middle"})
		if e.Seq != int64(i+1) || !e.History.CanUndo || e.History.CanRedo || e.History.Undo == "" ||
			e.History.Redo != "" {
			t.Fatalf("after edit %d: %+v", i, e.History)
		}
		states = append(states, encoded(t, e.Page))
		if got := encoded(t, f.stored().Doc); got != states[i+1] {
			t.Fatal("what is stored isn't what was answered")
		}
	}
	for i := 4; i >= 0; i-- {
		e, err := f.Log.Undo(t.Context(), f.page, f.user)
		if err != nil {
			t.Fatal(err)
		}
		if encoded(t, f.stored().Doc) != states[i] || !e.History.CanRedo || e.History.CanUndo != (i > 0) ||
			(e.History.Undo != "") != (i > 0) ||
			e.History.Redo == "" {
			t.Fatalf("undo to %d: %+v", i, e.History)
		}
	}
	if _, err := f.Log.Undo(t.Context(), f.page, f.user); !errors.Is(err, ErrNothing) {
		t.Errorf("undo of nothing: %v", err)
	}
	for i := 1; i <= 3; i++ {
		if _, err := f.Log.Redo(t.Context(), f.page, f.user); err != nil {
			t.Fatal(err)
		}
		if encoded(t, f.stored().Doc) != states[i] {
			t.Fatalf("redo to %d gives another page", i)
		}
	}
	if _, err := f.Log.Undo(t.Context(), f.page, f.user); err != nil || encoded(t, f.stored().Doc) != states[2] {
		t.Fatalf("undo after redo: %v", err)
	}
	// A new edit ends what could be redone.
	seq := f.stored().Seq
	f.must(seq, edit.Command{Op: "page.set", Setting: "title", Value: "Other"})
	if _, err := f.Log.Redo(t.Context(), f.page, f.user); !errors.Is(err, ErrNothing) {
		t.Errorf("redo after an edit: %v", err)
	}
	if _, err := f.Log.Undo(t.Context(), f.page, f.user); err != nil || encoded(t, f.stored().Doc) != states[2] {
		t.Errorf("undo of it: %v", err)
	}
}

func TestStaleEdits(t *testing.T) {
	f := begin(t)
	f.must(0, edit.Command{Op: "section.add", Preset: "welcome-middle"})
	a := f.must(1, edit.Command{Op: "section.add", Preset: "features"})
	first, second := a.Page.Sections[0].ID, a.Page.Sections[1].ID
	f.must(2, edit.Command{Op: "rename", Node: first, Value: "Changed"})
	// Made against 2 on another node: it is put on top.
	if e := f.must(2, edit.Command{Op: "rename", Node: second, Value: "Other"}); e.Seq != 4 ||
		e.Page.Sections[0].Name != "Changed" {
		t.Errorf("rebased: %+v", e)
	}
	// Made against 2 on the same node: refused, and nothing changes.
	was := encoded(t, f.stored().Doc)
	if _, err := f.edit(2, edit.Command{Op: "rename", Node: first, Value: "Mine"}); !errors.Is(err, ErrStale) {
		t.Errorf("same node: %v", err)
	}
	// On a node that is gone since.
	f.must(4, edit.Command{Op: "delete", Node: second})
	if _, err := f.edit(4, edit.Command{Op: "rename", Node: second, Value: "Mine"}); !errors.Is(err, ErrStale) {
		t.Errorf("gone node: %v", err)
	}
	if _, err := f.Log.Undo(t.Context(), f.page, f.user); err != nil {
		t.Fatal(err)
	}
	if encoded(t, f.stored().Doc) != was {
		t.Error("refused edits left something behind")
	}
	var problem *doc.Problem
	for _, base := range []int64{-1, 99} {
		if _, err := f.edit(base, edit.Command{Op: "rename", Node: first, Value: "x"}); !errors.As(err, &problem) {
			t.Errorf("base %d: %v", base, err)
		}
	}
}

func TestEditsAtOnceAllCount(t *testing.T) {
	f := begin(t)
	var wg sync.WaitGroup
	for i := range 20 {
		wg.Go(func() {
			if _, err := f.edit(0, edit.Command{Op: "section.add", Preset: "empty"}); err != nil {
				t.Errorf("edit %d: %v", i, err)
			}
		})
	}
	wg.Wait()
	if p := f.stored(); len(p.Doc.Sections) != 20 || p.Seq != 20 {
		t.Errorf("%d sections at %d", len(p.Doc.Sections), p.Seq)
	}
}

func TestSignIn(t *testing.T) {
	f := begin(t)
	if u, err := f.People.SignIn(t.Context(), " dana@EXAMPLE.org ", "a long password"); err != nil || u.ID != f.user {
		t.Errorf("%v", err)
	}
	for _, tt := range [][2]string{
		{"dana@example.org", "A long password"},
		{"dana@example.org", ""},
		{"nobody@example.org", "a long password"},
		{"' OR 1=1 --", "x"},
	} {
		if _, err := f.People.SignIn(t.Context(), tt[0], tt[1]); !errors.Is(err, ErrNotFound) {
			t.Errorf("%q: %v", tt, err)
		}
	}
}

func TestOthersSitesAreNotFound(t *testing.T) {
	f := begin(t)
	other, err := f.People.AddUser(t.Context(), "other@example.org", "Other", "a password of length")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.Sites.BySlugFor(t.Context(), other.ID, "skerry"); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
	}
	if s, err := f.Sites.BySlugFor(t.Context(), f.user, "skerry"); err != nil || s.Role != Designer ||
		s.Zones.Index("phone") != 2 {
		t.Errorf("%v", err)
	}
	if sites, err := f.Sites.List(t.Context(), other.ID); err != nil || len(sites) != 0 {
		t.Errorf("%d sites, %v", len(sites), err)
	}
}

func TestSchemaRefusesNonsense(t *testing.T) {
	f := begin(t)
	for _, q := range []string{
		`INSERT INTO members VALUES ('w1', 'u-nobody', 'designer')`,
		`UPDATE members SET role = 'king'`,
		`INSERT INTO pages (id, site_id, slug, doc) VALUES ('p2', 'w1', '', '{}')`,
		`INSERT INTO pages (id, site_id, slug, doc) VALUES ('p2', 'w1', 'Not A Slug', '{}')`,
		`UPDATE pages SET seq = -1`,
		`INSERT INTO media (id, site_id, name, type, width, height, variants) VALUES ('m', 'w1', 'x', 'text/html', 1, 1, '[]')`,
	} {
		if _, err := f.pool.Exec(q); err == nil {
			t.Errorf("%s was taken", q)
		}
	}
}

// Processes that start at once migrate once, one after another.
func TestOpeningAtOnceMigratesOnce(t *testing.T) {
	dsn := postgrestest.Empty(t)
	var wg sync.WaitGroup
	for i := range 4 {
		wg.Go(func() {
			st, err := Open(t.Context(), dsn)
			if err != nil {
				t.Errorf("opening %d: %v", i, err)
				return
			}
			defer st.Close()
			if err := st.Ping(t.Context()); err != nil {
				t.Errorf("opening %d: %v", i, err)
			}
		})
	}
	wg.Wait()
}

// What is slow ends by itself, and a transaction that is left idle.
func TestStatementsHaveLimits(t *testing.T) {
	f := begin(t)
	for setting, want := range map[string]string{"statement_timeout": "30s", "idle_in_transaction_session_timeout": "1min", "lock_timeout": "15s"} {
		var got string
		if err := f.pool.Get(&got, `SHOW `+setting); err != nil || got != want {
			t.Errorf("%s is %q, %v", setting, got, err)
		}
	}
	ctx, cancel := context.WithTimeout(t.Context(), 50*time.Millisecond)
	defer cancel()
	if _, err := f.pool.ExecContext(ctx, `SELECT pg_sleep(20)`); err == nil {
		t.Error("a statement outlives its context")
	}
}

// A transaction over several things leaves nothing behind when it fails.
func TestTransactionIsAllOrNothing(t *testing.T) {
	f := begin(t)
	broken := errors.New("broken")
	err := f.Transaction(t.Context(), func(st *Store) error {
		if err := st.Sites.Add(t.Context(), &doc.Site{ID: "w2", Slug: "other", Name: "Other"}); err != nil {
			return err
		}
		if first, err := st.Once(t.Context(), "tried"); err != nil || !first {
			t.Errorf("%v, %v", first, err)
		}
		return broken
	})
	if !errors.Is(err, broken) {
		t.Fatal(err)
	}
	if _, err := f.Sites.BySlug(t.Context(), "other"); !errors.Is(err, ErrNotFound) {
		t.Error(err)
	}
	for i := range 2 {
		if first, err := f.Once(t.Context(), "tried"); err != nil || first != (i == 0) {
			t.Errorf("time %d: %v, %v", i, first, err)
		}
	}
}

// Accounts that can't be made say why, and one that is disabled or has another password
// ends what was begun with it.
func TestAccounts(t *testing.T) {
	f := begin(t)
	u, err := f.People.AddUser(t.Context(), " Ann@Example.org ", "Ann", "twelve letters")
	if err != nil || u.Email != "ann@example.org" {
		t.Fatal(u, err)
	}
	for _, tt := range []struct{ email, name, password, field string }{
		{"ann@example.org", "Ann", "twelve letters", "Email"},
		{"ann", "Ann", "twelve letters", "Email"},
		{"Ann <ann2@example.org>", "Ann", "twelve letters", "Email"},
		{"ann2@example.org", " ", "twelve letters", "Name"},
		{"ann2@example.org", "Ann", "short", "Password"},
		{"ann2@example.org", "Ann", strings.Repeat("x", 129), "Password"},
	} {
		var p *doc.Problem
		if _, err := f.People.AddUser(t.Context(), tt.email, tt.name, tt.password); !errors.As(err, &p) ||
			p.Field != tt.field {
			t.Errorf("%v: %v", tt, err)
		}
	}
	signs := func(password string) bool {
		t.Helper()
		_, err := f.People.SignIn(t.Context(), "ANN@example.org", password)
		if err != nil && !errors.Is(err, ErrNotFound) {
			t.Error(err)
		}
		return err == nil
	}
	if !signs("twelve letters") || signs("twelve letterz") || signs("a\x00b") {
		t.Error("signing in")
	}
	if _, err := f.People.SignIn(t.Context(), "a\x00b\xff", "x"); !errors.Is(err, ErrNotFound) {
		t.Errorf("NUL in an address: %v", err)
	}
	if err := f.People.SetPassword(t.Context(), "ann@example.org", "another one, longer"); err != nil ||
		signs("twelve letters") ||
		!signs("another one, longer") {
		t.Errorf("another password: %v", err)
	}
	if v, err := f.People.User(t.Context(), u.ID); err != nil || v.Epoch == u.Epoch {
		t.Error("sessions go on after another password", err)
	}
	if err := f.People.DisableUser(t.Context(), "ann@example.org", true); err != nil || signs("another one, longer") {
		t.Errorf("disabled: %v", err)
	}
	if _, err := f.People.User(t.Context(), u.ID); !errors.Is(err, ErrNotFound) {
		t.Error("a disabled account is found", err)
	}
	if err := f.People.DisableUser(t.Context(), "ann@example.org", false); err != nil || !signs("another one, longer") {
		t.Errorf("enabled: %v", err)
	}
	// A hash of before is made anew when it was right.
	old, err := argon2id.CreateHash("another one, longer", argon2id.DefaultParams)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.pool.Exec(`UPDATE users SET password_hash = $2 WHERE id = $1`, u.ID, old); err != nil {
		t.Fatal(err)
	}
	if signs("wrong, and longer") || !signs("another one, longer") || !signs("another one, longer") {
		t.Error("with a hash of before")
	}
	if v, err := f.People.User(t.Context(), u.ID); err != nil ||
		!strings.Contains(v.PasswordHash, "$m=19456,t=2,p=1$") {
		t.Errorf("%s, %v", v.PasswordHash, err)
	}
	var p *doc.Problem
	if err := f.People.SetPassword(t.Context(), "nobody@example.org", "another one, longer"); !errors.As(err, &p) {
		t.Error(err)
	}
}

func TestMediaRoundTrip(t *testing.T) {
	f := begin(t)
	for i := range 3 {
		m := &Medium{
			ID: fmt.Sprint("m", i), SiteID: "w1", Name: "a.png", Type: "image/png", Width: 10, Height: 5, Alt: "x",
			Variants: []MediumCopy{{File: "f", Width: 10}},
		}
		if err := f.Media.Add(t.Context(), m); err != nil {
			t.Fatal(err)
		}
	}
	ms, err := f.Media.List(t.Context(), "w1")
	if err != nil || len(ms) != 3 || ms[0].ID != "m2" || ms[0].Variants[0].Width != 10 {
		t.Errorf("%v, %v", ms, err)
	}
}

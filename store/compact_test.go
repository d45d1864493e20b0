package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/policy"
)

// Old edits give way to a snapshot; what stays in the log still leads back, and can be taken
// back.
func TestCompact(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	f.must(0, edit.Command{Op: "section.add", Preset: "bar"})
	p, err := f.Pages.At(ctx, "w1", "")
	if err != nil {
		t.Fatal(err)
	}
	id := p.Doc.Sections[0].ID
	states := map[int64]string{p.Seq: encoded(t, p.Doc)}
	for i := range 12 {
		e := f.must(p.Seq+int64(i), edit.Command{Op: "rename", Node: id, Value: fmt.Sprint("Name ", i)})
		states[e.Seq] = encoded(t, e.Page)
	}
	if _, err := f.pool.Exec(`UPDATE page_log SET made_at = now() - interval '100 days' WHERE page_id = $1 AND seq <= $2`, f.page, p.Seq+7); err != nil {
		t.Fatal(err)
	}
	for seq, want := range states {
		if d, err := f.Pages.AsOf(ctx, f.page, seq); err != nil || encoded(t, d) != want {
			t.Errorf("at %d: %v", seq, err)
		}
	}
	gone, err := f.Pages.Compact(ctx, time.Now().Add(-policy.Log))
	if err != nil || gone != 8 {
		t.Errorf("%d entries gone, %v", gone, err)
	}
	if again, err := f.Pages.Compact(ctx, time.Now().Add(-policy.Log)); err != nil || again != 0 {
		t.Errorf("the second time %d, %v", again, err)
	}
	var snapshot []byte
	if err := f.pool.Get(&snapshot, `SELECT doc FROM page_snapshots WHERE page_id = $1 AND seq = $2`, f.page, p.Seq+7); err != nil {
		t.Fatal(err)
	}
	var d doc.Page
	if err := json.Unmarshal(snapshot, &d); err != nil || encoded(t, &d) != states[p.Seq+7] {
		t.Errorf("the snapshot: %v", err)
	}
	if d, err := f.Pages.AsOf(ctx, f.page, p.Seq+7); err != nil || encoded(t, d) != states[p.Seq+7] {
		t.Errorf("back to the snapshot: %v", err)
	}
	if _, err := f.Pages.AsOf(ctx, f.page, p.Seq+3); !errors.Is(err, ErrNotFound) {
		t.Errorf("before it: %v", err)
	}
	for want := p.Seq + 11; want >= p.Seq+7; want-- {
		e, err := f.Log.Undo(ctx, f.page, f.user)
		if err != nil || encoded(t, e.Page) != states[want] {
			t.Fatalf("undo to %d: %v", want, err)
		}
	}
	if _, err := f.Log.Undo(ctx, f.page, f.user); !errors.Is(err, ErrNothing) {
		t.Errorf("nothing is left to undo: %v", err)
	}
}

// The audit log shows a site's own, and its members' sign-ins, and forgets after a year.
func TestAudit(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	for _, n := range []Noted{
		{Site: "w1", User: f.user, Who: "a@example.org", Act: "page published", About: "Home", Address: "192.0.2.1"},
		{User: f.user, Who: "a@example.org", Act: "signed in", Address: "192.0.2.1"},
		{Who: "some\x00body\xff", Act: "sign-in failed"},
	} {
		if err := f.Audit.Note(ctx, n); err != nil {
			t.Fatal(err)
		}
	}
	ns, err := f.Audit.List(ctx, "w1", 10)
	if err != nil || len(ns) != 2 || ns[1].Act != "page published" || ns[1].About != "Home" ||
		ns[1].Address != "192.0.2.1" {
		t.Errorf("%+v, %v", ns, err)
	}
	if ns, err := f.Audit.List(ctx, "another", 10); err != nil || len(ns) != 0 {
		t.Errorf("another site: %+v, %v", ns, err)
	}
	if _, err := f.pool.Exec(`UPDATE audit SET at = now() - interval '13 months' WHERE act = 'signed in'`); err != nil {
		t.Fatal(err)
	}
	if err := f.Audit.Forget(ctx); err != nil {
		t.Fatal(err)
	}
	if ns, err := f.Audit.List(ctx, "w1", 10); err != nil || len(ns) != 1 {
		t.Errorf("%d are left, %v", len(ns), err)
	}
}

// Entries are kept as long as the site says, and erased when somebody asks.
func TestEntriesAreForgotten(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	for i, mail := range []string{"a@example.org", "b@example.org", " A@Example.org"} {
		if err := f.Entries.Add(ctx, "w1", FormEntry{Form: "b1", Answers: []Answer{{Field: "Name", Value: fmt.Sprint(i)}, {Field: "Mail", Value: mail}}, Trial: i == 1}, Telling{}); err != nil {
			t.Fatal(err)
		}
	}
	if n, err := f.Entries.EraseAnswers(ctx, "w1", "a@example.ORG "); err != nil || n != 2 {
		t.Errorf("%d erased, %v", n, err)
	}
	if err := f.Entries.SetDays(ctx, "w1", 90); err != nil {
		t.Fatal(err)
	}
	if err := f.Entries.Add(ctx, "w1", FormEntry{Form: "b1", Answers: []Answer{{Field: "Name", Value: "x"}}}, Telling{}); err != nil {
		t.Fatal(err)
	}
	for _, tt := range []struct{ days, left int }{{29, 2}, {31, 1}, {91, 0}} {
		if _, err := f.pool.Exec(`UPDATE form_entries SET sent_at = now() - make_interval(days => $1)`, tt.days); err != nil {
			t.Fatal(err)
		}
		if err := f.Entries.Forget(ctx); err != nil {
			t.Fatal(err)
		}
		var n int
		if err := f.pool.Get(&n, `SELECT count(*) FROM form_entries`); err != nil || n != tt.left {
			t.Errorf("after %d days: %d are left, want %d, %v", tt.days, n, tt.left, err)
		}
	}
}

// A site keeps so many sections, and says so.
func TestKeptSectionsAreLimited(t *testing.T) {
	f := begin(t)
	if _, err := f.pool.Exec(`INSERT INTO kept_sections (id, site_id, name, section) SELECT 'k' || n, 'w1', 'x', '{}' FROM generate_series(1, $1) n`, policy.KeptSections); err != nil {
		t.Fatal(err)
	}
	var p *doc.Problem
	if err := f.Shelf.KeepSection(t.Context(), &KeptSection{Site: "w1", Name: "One more", Section: &doc.Section{ID: "s"}}); !errors.As(
		err,
		&p,
	) {
		t.Errorf("%v", err)
	}
}

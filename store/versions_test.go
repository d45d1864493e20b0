package store

import (
	"errors"
	"fmt"
	"testing"
	"time"

	"openplot/core/edit"
)

// Versions are kept by name, after an hour's work, before something is taken back, and with the
// whole site; what is taken back is an edit that can be taken back.
func TestVersions(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	kinds := func() (out string) {
		t.Helper()
		vs, err := f.Log.Versions(ctx, "w1", f.page, 50)
		must(err)
		for _, v := range vs {
			out += string(v.Kind) + fmt.Sprint(v.Seq) + " "
		}
		return out
	}
	sec := f.must(0, edit.Command{Op: "section.add", Preset: "features"}).Page.Sections[0]
	f.must(1, edit.Command{Op: "rename", Node: sec.ID, Value: "Reasons"})
	if got := kinds(); got != "hour1 " {
		t.Fatalf("after two edits: %s", got)
	}
	must(f.Log.KeepVersion(ctx, "w1", f.page, f.user, Named, "Before the holidays"))
	f.must(2, edit.Command{Op: "rename", Node: sec.ID, Value: "Why"})
	f.must(3, edit.Command{Op: "delete", Node: sec.ID})
	must(f.Log.KeepSiteVersion(ctx, "w1", f.user, Before, "Before something"))
	if got := kinds(); got != "before4 named2 hour1 " {
		t.Errorf("%s", got)
	}
	vs, err := f.Log.Versions(ctx, "w1", f.page, 50)
	must(err)
	named := vs[1]
	if named.Note != "Before the holidays" || named.By == "" || time.Since(named.MadeAt) > time.Minute {
		t.Errorf("%+v", named)
	}
	e, err := f.Log.RestoreVersion(ctx, "w1", f.page, f.user, named.ID, sec.ID)
	must(err)
	if s, _ := e.Page.Section(sec.ID); s == nil || s.Name != "Reasons" || e.Seq != 5 {
		t.Errorf("%+v as of %d", s, e.Seq)
	}
	if got := kinds(); got != "before4 before4 named2 hour1 " {
		t.Errorf("after taking back: %s", got)
	}
	if e, err = f.Log.Undo(ctx, f.page, f.user); err != nil {
		t.Fatal(err)
	}
	if s, _ := e.Page.Section(sec.ID); s != nil {
		t.Error("undo didn't take that back")
	}
	if _, _, err := f.Log.VersionOf(ctx, "another", f.page, named.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("of another site: %v", err)
	}
	site, err := f.Log.SiteVersions(ctx, "w1", 9)
	if err != nil || len(site) != 1 {
		t.Fatalf("%+v, %v", site, err)
	}
	then, err := f.Log.SiteVersion(ctx, "w1", site[0].ID)
	if err != nil || then.Pages[f.page] == nil || len(then.House.Palette) == 0 {
		t.Errorf("%+v, %v", then, err)
	}
	// Thinned out: what has a name stays, with its document.
	must(f.Log.ForgetVersions(ctx, time.Now().Add(time.Hour)))
	if got := kinds(); got != "named2 " {
		t.Errorf("thinned out: %s", got)
	}
	if _, d, err := f.Log.VersionOf(ctx, "w1", f.page, named.ID); err != nil || d.Sections[0].Name != "Reasons" {
		t.Errorf("%v", err)
	}
	var docs int
	must(f.db.GetContext(ctx, &docs, `SELECT count(*) FROM page_docs`))
	if docs != 1 {
		t.Errorf("%d documents are kept for one version", docs)
	}
}

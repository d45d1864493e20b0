package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

// Many pages are published in the background: the screen and the rail say how far that has come, it
// can be ended before anybody sees any of it, and be tried again where it didn't work.
func TestManyPagesArePublishedInTheBackground(t *testing.T) {
	p := begin(t)
	p.many(30)
	d := p.as("designer@example.org")
	const at = "/sites/skerry/publish"
	infos, err := p.store.Pages.List(t.Context(), "w1")
	if err != nil {
		t.Fatal(err)
	}
	ids := url.Values{}
	for _, i := range infos {
		ids.Add("id", i.ID)
	}
	says := func(path, words string) {
		t.Helper()
		if status, body, _ := d.get(path); status != http.StatusOK || !strings.Contains(oneLine(body), words) {
			t.Errorf("%s: %d, without %q", path, status, words)
		}
	}
	begun := func() (plan string) {
		t.Helper()
		if status, body, h := d.post(at, ids); status != http.StatusSeeOther || h.Get("Location") != at {
			t.Fatalf("publishing: %d %s %.200s", status, h.Get("Location"), body)
		}
		plans, err := p.store.Releases.Plans(t.Context(), "w1")
		if err != nil || len(plans) != 1 {
			t.Fatalf("%d plans, %v", len(plans), err)
		}
		return plans[0].ID
	}
	published := func() (n int) {
		t.Helper()
		infos, err := p.store.Pages.List(t.Context(), "w1")
		if err != nil {
			t.Fatal(err)
		}
		for _, i := range infos {
			if i.PublishedSeq != nil {
				n++
			}
		}
		return n
	}

	plan := begun()
	says(at, "31 pages are being published")
	says(at+"/under-way", "begins in a moment")
	says("/sites/skerry/rail", "Publishing 31 pages")
	if status, _, _ := d.post(at+"/stop", nil); status != http.StatusSeeOther {
		t.Fatalf("ending it: %d", status)
	}
	if err := p.tasks().CarryOut(t.Context(), plan); err != nil || published() != 0 {
		t.Fatalf("ended before it was begun: %v, %d are published", err, published())
	}

	if _, _, h := d.get(at + "/under-way?since=0"); h.Get("HX-Redirect") != at {
		t.Errorf("what was ended is called published: %q", h.Get("HX-Redirect"))
	}

	plan = begun()
	if err := p.store.Releases.FailPlan(t.Context(), plan, "it didn’t work"); err != nil {
		t.Fatal(err)
	}
	says("/sites/skerry/rail", "Publishing didn’t work")
	says(at, "it didn’t work")
	if status, _, _ := d.post(at+"/again", nil); status != http.StatusSeeOther {
		t.Fatalf("trying again: %d", status)
	}
	says(at, "31 pages are being published")
	if err := p.store.Releases.PlanDone(t.Context(), plan, 12, 31); err != nil {
		t.Fatal(err)
	}
	says(at+"/under-way", "12 are ready")
	if err := p.tasks().CarryOut(t.Context(), plan); err != nil || published() != 31 {
		t.Fatalf("%v, %d are published", err, published())
	}
	status, _, h := d.get(at + "/under-way")
	if status != http.StatusNoContent || h.Get("HX-Redirect") != at+"?done=published" {
		t.Errorf("at the end: %d, to %q", status, h.Get("HX-Redirect"))
	}
}

// Of many pages to publish some are told of at once, and the others as they come into sight.
func TestPagesToPublishAreToldOf(t *testing.T) {
	p := begin(t)
	p.many(30)
	d := p.as("designer@example.org")
	_, body, _ := d.get("/sites/skerry/publish")
	if n := strings.Count(body, `class="publish-row"`); n != 31 || strings.Count(body, "is new to visitors") != 8 ||
		strings.Count(body, "/publish/told") != 23 {
		t.Errorf("%d rows, %d of them told of", n, strings.Count(body, "is new to visitors"))
	}
	// What is known of findings is told of all.
	const known = `<span class="row-checks"><`
	if strings.Contains(body, known) {
		t.Error("findings of pages that nobody looked at")
	}
	d.get("/sites/skerry/pages/page-29/checks/count")
	_, body, _ = d.get("/sites/skerry/publish")
	if last := body[strings.LastIndex(body, `class="publish-row"`):]; !strings.Contains(last, known) ||
		strings.Count(body, known) != 1 {
		t.Errorf("%d pages’ findings are told, want those of the last", strings.Count(body, known))
	}
	status, body, _ := d.get("/sites/skerry/pages/page-29/publish/told")
	if status != http.StatusOK || !strings.Contains(body, "is new to visitors") || !strings.Contains(body, "<svg") {
		t.Errorf("%d %.200s", status, body)
	}
	if !strings.Contains(body, known) {
		t.Error("the row that is told of asks for findings that are known")
	}
}

// What is broken is drawn for the question before publishing, with what would mend it for those who compose.
func TestWhatIsBrokenIsDrawn(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	const at = "/sites/skerry/pages/home/checks/broken"
	if status, body, _ := d.get(at); status != http.StatusOK || strings.Contains(body, "<li") {
		t.Errorf("a sound page: %d %.200s", status, body)
	}
	small := 0
	for _, sec := range p.page.Sections {
		for _, b := range sec.Blocks {
			if b.Kind != doc.Text {
				continue
			}
			if status, body := d.edit(edit.Command{
				Op: "set", Node: b.ID, Zone: "desktop", Setting: "color", Value: "$ground",
			}); status != http.StatusOK {
				t.Fatalf("%d %.200s", status, body)
			}
			small++
		}
	}
	_, body, _ := d.get(at)
	if small <= 3 || strings.Count(body, "<li") != 3 || strings.Count(body, `<svg class="drawing`) != 6 ||
		strings.Count(body, "rule=contrast") != 3 || !strings.Contains(body, "more: <a") {
		t.Errorf("%d texts can't be read: %.900s", small, body)
	}
	_, body, _ = p.as("writer@example.org").get(at)
	if strings.Count(body, `<svg class="drawing`) != 3 || strings.Contains(body, "rule=contrast") {
		t.Errorf("to somebody who doesn't compose: %.900s", body)
	}
}

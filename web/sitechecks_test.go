package web

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/demo"
	"openplot/memory"
	"openplot/site"
	"openplot/web/model"
)

// swept asks for the checks of a site until all its pages were looked at.
func swept(t testing.TB, d *person) string {
	t.Helper()
	_, body, _ := d.get("/sites/skerry/checks")
	for range 600 {
		if !strings.Contains(body, `<progress`) {
			return body
		}
		time.Sleep(100 * time.Millisecond)
		_, body, _ = d.get("/sites/skerry/checks?part=1")
	}
	t.Fatalf("not at its end: %.300s", body)
	return ""
}

// TestSiteChecks has all pages of a site checked in the background, and only those again that
// changed.
func TestSiteChecks(t *testing.T) {
	p := begin(t)
	p.works()
	p.many(12)
	faint := &doc.Page{ID: "p5", Name: "Faint", Title: "Faint", Sections: []*doc.Section{{
		ID: "s", Name: "S", Arrangement: doc.LineUp, Style: doc.Style{"background": {"desktop": "#ffffff"}},
		Blocks: []*doc.Block{
			{
				ID:      "b",
				Kind:    doc.Text,
				Style:   doc.Style{"color": {"desktop": "#dddddd"}},
				Content: doc.Content{Words: doc.PlainWords("Hardly to be seen")},
			},
		},
	}}}
	text, err := json.Marshal(faint)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := p.store.DB().ExecContext(t.Context(), `UPDATE pages SET doc = $1, name = 'Faint', seq = seq + 1 WHERE id = (SELECT id FROM pages WHERE site_id = 'w1' ORDER BY position DESC LIMIT 1)`, text); err != nil {
		t.Fatal(err)
	}
	d := p.as("designer@example.org")
	body := swept(t, d)
	if !strings.Contains(body, "1 broken") ||
		strings.Index(body, "Faint") > strings.Index(body, "Sound at every width") &&
			strings.Contains(body, "Sound at every width") {
		t.Errorf("the worst page isn't the first: %.900s", body)
	}
	if strings.Contains(body, "not checked yet") {
		t.Errorf("a page was left out: %.900s", body)
	}
	if _, again, _ := d.get("/sites/skerry/checks"); strings.Contains(again, "<progress") {
		t.Error("all are checked again though nothing changed")
	}
	if status, _, _ := p.as("").get("/sites/skerry/checks"); status == http.StatusOK {
		t.Error("whoever isn't signed in sees it")
	}
}

// BenchmarkSweepSite checks a hundred pages, made of the demo's, as the background does; eight are in
// the menus.
func BenchmarkSweepSite(b *testing.B) {
	p := begin(b)
	p.many(100)
	all := demo.Pages(nil)
	infos, err := p.store.Pages.List(b.Context(), "w1")
	if err != nil {
		b.Fatal(err)
	}
	for i, r := range infos {
		page := all[i%len(all)].Page.Clone()
		page.ID, page.Name = r.ID, fmt.Sprintf("%s %d", page.Name, i)
		for k, sec := range page.Sections { // no list of all hundred in the footer
			c := sec.Clone()
			c.Blocks = slices.DeleteFunc(c.Blocks, func(b *doc.Block) bool { return b.Kind == doc.PageList })
			page.Sections[k] = c
		}
		text, err := json.Marshal(page)
		if err != nil {
			b.Fatal(err)
		}
		if _, err := p.store.DB().ExecContext(b.Context(), `UPDATE pages SET doc = $1, in_menu = $3, in_footer = $3 WHERE id = $2`, text, r.ID, i < 8); err != nil {
			b.Fatal(err)
		}
	}
	st, err := p.store.Sites.BySlug(b.Context(), "skerry")
	if err != nil {
		b.Fatal(err)
	}
	src, err := site.ReadSource(b.Context(), p.store, st)
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		p.tasks().SweepPages(b.Context(), st, src, src.Pages)
	}
	b.ReportMetric(float64(len(src.Pages)), "pages")
}

// largest is a page as large as there can be: as many blocks as are shown, with as many characters.
func largest() *doc.Page {
	p := &doc.Page{ID: "p9", Name: "Largest", Title: "Largest"}
	words := strings.Fields(
		"The ferry leaves the harbour at seven in the morning and calls at three islands before it returns; unaccompanied freight travels for half",
	)
	said := 0
	text := func(runes int) string {
		var b strings.Builder
		for b.Len() < runes {
			b.WriteString(words[said%len(words)] + " ")
			said++
		}
		return b.String()[:runes]
	}
	const sections = doc.MaxSections
	for i := range sections {
		s := &doc.Section{ID: fmt.Sprint("s", i), Name: "Section", Arrangement: doc.Columns}
		for k := range doc.MaxBlocks/sections - 1 {
			s.Blocks = append(
				s.Blocks,
				&doc.Block{
					ID:      fmt.Sprint("b", i, "-", k),
					Kind:    doc.Text,
					Content: doc.Content{Words: doc.PlainWords(text(150))},
				},
			)
		}
		s.Blocks = append(
			s.Blocks,
			&doc.Block{
				ID:      fmt.Sprint("l", i),
				Kind:    doc.Text,
				Content: doc.Content{Words: doc.PlainWords(text(doc.MaxPageRunes/sections - 150*len(s.Blocks) - 50))},
			},
		)
		p.Sections = append(p.Sections, s)
	}
	return p
}

// BenchmarkChecksAtTheLimit checks a page as large as there can be for the first time.
func BenchmarkChecksAtTheLimit(b *testing.B) {
	p := begin(b)
	page := largest()
	if size := page.Size(); size.Over() || size.Runes < doc.MaxPageRunes*9/10 {
		b.Fatalf("%+v", size)
	}
	p.put(page, tree.Page{ID: page.ID, Name: page.Name})
	st, err := p.store.Sites.BySlug(b.Context(), "skerry")
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		src, err := site.ReadSource(b.Context(), p.store, st)
		if err != nil {
			b.Fatal(err)
		}
		kept, err := p.store.Pages.ByID(b.Context(), "w1", page.ID)
		if err != nil {
			b.Fatal(err)
		}
		w, err := model.NewWorkshop(p.server.MediaDir, "", nil, memory.New(64<<20), nil) // which remembers nothing
		if err != nil {
			b.Fatal(err)
		}
		if _, err := model.NewChecker(p.store, w).Page(b.Context(), st, src, kept); err != nil {
			b.Fatal(err)
		}
	}
}

// A sweep can be stopped, and ends with whoever asked.
func TestSweepsStop(t *testing.T) {
	p := begin(t)
	p.works()
	p.many(3)
	page := largest()
	p.put(page, tree.Page{ID: page.ID, Name: page.Name})
	d := p.as("designer@example.org")
	if _, body, _ := d.get("/sites/skerry/checks"); !strings.Contains(body, "<progress") {
		t.Fatalf("nothing is checked: %.300s", body)
	}
	if status, _, h := d.post("/sites/skerry/checks/stop", nil); status != http.StatusSeeOther ||
		h.Get("Location") != "/sites/skerry/checks?stopped=1" {
		t.Error(status, h.Get("Location"))
	}
	_, body, _ := d.get("/sites/skerry/checks?stopped=1")
	if strings.Contains(body, "<progress") || !strings.Contains(body, "check the rest") {
		t.Errorf("it goes on: %.900s", body)
	}
	// The check of one page ends with its request.
	st, err := p.store.Sites.BySlug(t.Context(), "skerry")
	if err != nil {
		t.Fatal(err)
	}
	src, err := site.ReadSource(t.Context(), p.store, st)
	if err != nil {
		t.Fatal(err)
	}
	kept, err := p.store.Pages.ByID(t.Context(), "w1", page.ID)
	if err != nil {
		t.Fatal(err)
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := p.server.Checker.Page(ctx, st, src, kept); !errors.Is(err, context.Canceled) {
		t.Errorf("%v", err)
	}
}

package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"sync"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
)

// Edits, publications, settings and moves of pages at the same time are all answered: none ends
// for the sake of another.
func TestPublishingBesideEdits(t *testing.T) {
	p := begin(t)
	var ids []string
	for i := range 5 {
		id := fmt.Sprint("q", i)
		page := &doc.Page{ID: id, Name: "Quay " + id, Title: "Quay", Sections: []*doc.Section{
			{
				ID: "s" + id,
				Blocks: []*doc.Block{
					{ID: "b" + id, Kind: doc.Heading, Content: doc.Content{Words: doc.PlainWords("Quay")}},
				},
			},
			{ID: "shared", Shared: true, Name: "Footer"},
		}}
		p.put(page, tree.Page{ID: id, Name: "Quay " + id})
		ids = append(ids, id)
	}
	d := p.as("designer@example.org")
	const rounds = 12
	var all sync.WaitGroup
	say := func(path string, form url.Values) {
		if status, text, _ := d.post(path, form); status >= 500 || status == http.StatusNotFound {
			t.Errorf("%s %v: %d %.300s", path, form, status, text)
		}
	}
	each := func(f func(round int)) {
		all.Go(func() {
			for r := range rounds {
				f(r)
			}
		})
	}
	for i, id := range ids {
		at := "/sites/skerry/pages/quay-" + id
		each(func(r int) { // one's own words, and a section that stands on all pages
			for _, c := range []edit.Command{{Op: "page.set", Setting: "description", Value: fmt.Sprint(r)}, {Op: "rename", Node: "shared", Value: fmt.Sprint("Footer ", i, r)}} {
				page, err := p.store.Pages.ByID(t.Context(), "w1", id)
				if err != nil {
					t.Error(err)
					return
				}
				c.Base = page.Seq
				b, err := json.Marshal(c)
				if err != nil {
					t.Error(err)
					return
				}
				say(at+"/edits", url.Values{"command": {string(b)}, "width": {"1280"}})
			}
		})
	}
	for range 2 {
		each(func(int) { say("/sites/skerry/publish", url.Values{"id": append([]string{"p1"}, ids...)}) })
	}
	each(func(r int) {
		say("/sites/skerry/pages/settings", url.Values{
			"name": {
				"Quay q0",
			}, "title": {fmt.Sprint("Quay ", r)}, "segment": {"quay-q0"}, "menu-name": {fmt.Sprint("To the quay ", r)}, "page": {ids[0]}, "in-menu": {"1"},
		})
	})
	each(func(r int) {
		say(
			"/sites/skerry/pages/several",
			url.Values{"id": {ids[1], ids[3], ids[2]}, "act": {[]string{"show", "hide"}[r%2]}},
		)
	})
	all.Wait()
}

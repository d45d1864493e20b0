package web

import (
	"encoding/json"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/store"
)

// What is pasted from another of one's sites brings its pictures along when that is wanted; what
// belongs to sites of others stays there.
func TestPicturesComeAlongToAnotherSite(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	for _, id := range []string{"w2", "w3"} {
		must(
			p.store.Sites.Add(
				t.Context(),
				&doc.Site{ID: id, Slug: id, Name: id, House: doc.StandardHouse(), Zones: doc.StandardZones()},
			),
		)
		must(p.store.Media.Add(t.Context(), &store.Medium{
			ID: "m-" + id, SiteID: id, Name: id + ".png", Type: "image/png", Width: 40, Height: 30, Alt: "Hills", Original: id + ".png", Variants: []store.MediumCopy{{File: id + ".webp", Width: 40}},
		}))
	}
	must(p.store.People.AddMember(t.Context(), "w2", p.userID("designer@example.org"), store.Designer))
	page := &doc.Page{
		ID:   "q",
		Name: "Other",
		Sections: []*doc.Section{{ID: "s", Name: "S", Picture: "m-w3", Blocks: []*doc.Block{
			{
				ID:      "b",
				Kind:    doc.Picture,
				Content: doc.Content{Picture: "m-w2"},
				Place:   doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 3, Row: 1, Rows: 2}},
			},
		}}},
	}
	text, err := carry.Copy(page, []string{"s"})
	must(err)
	ask := func(form url.Values) (status int, a struct {
		Count   int      `json:"count"`
		Names   []string `json:"names"`
		Text    string   `json:"text"`
		Problem string   `json:"problem"`
	}) {
		t.Helper()
		form.Set("text", text)
		status, body, _ := d.post("/sites/skerry/pages/home/bring", form)
		if err := json.Unmarshal([]byte(body), &a); err != nil {
			t.Fatalf("%d %.200s", status, body)
		}
		return status, a
	}
	before := len(p.media())
	if _, a := ask(url.Values{}); a.Count != 1 || a.Names[0] != "w2.png" || len(p.media()) != before {
		t.Fatalf("asked: %+v, with %d files", a, len(p.media()))
	}
	_, a := ask(url.Values{"take": {"yes"}})
	here := p.media()
	if len(here) != before+1 || here[0].Name != "w2.png" || here[0].Alt != "Hills" ||
		here[0].Variants[0].File != "w2.webp" {
		t.Fatalf("brought %+v", here)
	}
	if strings.Contains(a.Text, "m-w2") || !strings.Contains(a.Text, here[0].ID) || !strings.Contains(a.Text, "m-w3") {
		t.Errorf("the text is %s", a.Text)
	}
	command, _ := json.Marshal(edit.Command{Op: "paste", Node: p.home().Sections[0].ID, Value: a.Text})
	if status, body, _ := d.post("/sites/skerry/pages/home/edits", url.Values{"command": {string(command)}, "width": {"1280"}}); status != http.StatusOK {
		t.Fatalf("%d %.300s", status, body)
	}
	pasted := p.home().Sections[1]
	if pasted.Blocks[0].Content.Picture != here[0].ID || pasted.Picture != "" {
		t.Errorf("pasted with %q and, of a site of others, %q", pasted.Blocks[0].Content.Picture, pasted.Picture)
	}
	text = "Something else"
	if status, a := ask(url.Values{"take": {"yes"}}); status != http.StatusOK || a.Count != 0 {
		t.Errorf("text that is no blocks: %d %+v", status, a)
	}
}

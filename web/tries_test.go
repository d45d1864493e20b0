package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"sync"
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

// rows gives how many rows every table has, and a hash of what they say, but for the
// sessions, whose time of last use changes.
func (p *studio) rows(t *testing.T) map[string]string {
	t.Helper()
	q, err := p.store.DB().
		QueryContext(t.Context(), `SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename NOT IN ('sessions', 'river_leader', 'river_queue', 'river_client')`)
	if err != nil {
		t.Fatal(err)
	}
	defer q.Close()
	out := map[string]string{}
	for q.Next() {
		var name, sum string
		if err := q.Scan(&name); err != nil {
			t.Fatal(err)
		}
		query := `SELECT count(*)::text || ' ' || coalesce(md5(string_agg(r::text, ' ' ORDER BY r::text)), '') FROM "` + name + `" r`
		if err := p.store.DB().QueryRowContext(t.Context(), query).Scan(&sum); err != nil {
			t.Fatal(name, err)
		}
		out[name] = sum
	}
	if err := q.Err(); err != nil || len(out) < 10 {
		t.Fatal(len(out), err)
	}
	return out
}

// unchanged reports tables that aren't what they were.
func (p *studio) unchanged(t *testing.T, before map[string]string) {
	t.Helper()
	after := p.rows(t)
	for name, was := range before {
		if now := after[name]; now != was {
			t.Errorf("table %s was %s and is %s", name, was, now)
		}
	}
}

// home gives the home page as it is kept.
func (p *studio) home() *doc.Page {
	p.t.Helper()
	page, err := p.store.Pages.At(p.t.Context(), "w1", "")
	if err != nil {
		p.t.Fatal(err)
	}
	return page.Doc
}

// 1,000 commands that are tried leave no trace in any table, whatever they are.
func TestTriesLeaveNoTrace(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	page := p.home()
	section := page.Sections[0]
	block := section.Blocks[0]
	kinds := []string{
		`{"op":"set","node":"%s","zone":"desktop","setting":"padding-top","value":"%d"}`,
		`{"op":"set","node":"%s","zone":"phone","setting":"background","value":"#12%04d"}`,
		`{"op":"rename","node":"%s","value":"Name %d"}`,
		`{"op":"duplicate","node":"%s","dx":%d}`,
		`{"op":"delete","node":"%s","dx":%d}`,
		`{"op":"set","node":"%s","zone":"desktop","setting":"padding-top","value":"%d pt"}`,
	}
	before := p.rows(t)
	answers := map[int]int{}
	for i := range 1000 {
		node := section.ID
		if i%2 == 0 {
			node = block.ID
		}
		command := fmt.Sprintf(kinds[i%len(kinds)], node, i)
		if i%7 == 0 { // one that needs a picture of its own
			command = `{"op":"section.add","after":"","preset":"welcome-picture"}`
		}
		status, body, _ := d.post("/sites/skerry/pages/home/tries", url.Values{"command": {command}})
		answers[status]++
		if status != http.StatusOK && status != http.StatusUnprocessableEntity {
			t.Fatal(status, body)
		}
	}
	if answers[http.StatusOK] < 500 || answers[http.StatusUnprocessableEntity] < 100 {
		t.Errorf("answers by status: %v", answers)
	}
	p.unchanged(t, before)
}

// A try answers with the sections that would look different, as the canvas has them.
func TestTrySection(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	page := p.home()
	section := page.Sections[0].ID
	try := func(command string) (int, map[string]any) {
		status, body, _ := d.post("/sites/skerry/pages/home/tries", url.Values{"command": {command}})
		var out map[string]any
		if err := json.Unmarshal([]byte(body), &out); err != nil {
			t.Fatalf("%d %.300s: %v", status, body, err)
		}
		return status, out
	}
	status, out := try(
		`{"op":"set","node":"` + section + `","zone":"desktop","setting":"background","value":"#123456"}`,
	)
	show := out["show"].([]any)
	if status != http.StatusOK || len(show) == 0 ||
		!strings.Contains(show[0].(map[string]any)["css"].(string), "#123456") {
		t.Errorf("%d %v", status, out)
	}
	if now := p.home(); now.Sections[0].Style["background"]["desktop"] == "#123456" {
		t.Error("it was kept")
	}
	// What is wrong with it is told; nothing of it is shown.
	long := strings.Repeat("9", 10_000)
	stops := strings.Repeat("#fff, ", 199) + "#000"
	for value, want := range map[string]string{
		`"setting":"padding-top","value":"` + long + `"`: "too long", `"setting":"padding-top","value":"forty"`: "can't be",
		`"setting":"padding-top","value":"10pt"`: "can't be", `"setting":"gradient","value":"` + stops + `"`: "200 colours",
		`"setting":"background","value":"$gone"`: "no colour",
	} {
		if status, out := try(`{"op":"set","node":"` + section + `","zone":"desktop",` + value + `}`); status != http.StatusUnprocessableEntity ||
			!strings.Contains(out["problem"].(string), want) {
			t.Errorf("%.80s: %d %.200v", value, status, out)
		}
	}
	if status, out := try(`{"op":"set","node":"gone","zone":"desktop","setting":"width","value":"10"}`); status != http.StatusUnprocessableEntity ||
		!strings.Contains(out["problem"].(string), "isn't on this page any more") {
		t.Errorf("a block that is gone: %d %v", status, out)
	}
	// A writer can try what a writer can do.
	w := p.as("writer@example.org")
	if status, _, _ := w.post("/sites/skerry/pages/home/tries", url.Values{"command": {`{"op":"delete","node":"` + section + `"}`}}); status != http.StatusForbidden {
		t.Errorf("a writer tries to delete: %d", status)
	}
}

// Two people who try at once see each their own.
func TestTwoPeopleTryAtOnce(t *testing.T) {
	p := begin(t)
	page := p.home()
	section := page.Sections[0].ID
	var wg sync.WaitGroup
	for _, who := range []struct{ mail, colour string }{{"designer@example.org", "#111111"}, {"designer@example.org", "#222222"}} {
		wg.Go(func() {
			d := p.as(who.mail)
			for range 20 {
				_, body, _ := d.post("/sites/skerry/pages/home/tries", url.Values{
					"command": {
						`{"op":"set","node":"` + section + `","zone":"desktop","setting":"background","value":"` + who.colour + `"}`,
					},
				})
				if !strings.Contains(body, who.colour) {
					t.Errorf("%s isn't in %.200s", who.colour, body)
				}
			}
		})
	}
	wg.Wait()
}

// A change of the house style can be tried on the specimen and on a page, and isn't kept.
func TestHouseTries(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	before := p.rows(t)
	for _, page := range []string{"", "home"} {
		status, body, _ := d.post(
			"/sites/skerry/house/tries",
			url.Values{"op": {"colour.set"}, "token": {"accent"}, "value": {"#abcdef"}, "page": {page}},
		)
		if status != http.StatusOK || page == "" && !strings.Contains(body, "#abcdef") {
			t.Errorf("page %q: %d %.200s", page, status, body)
		}
	}
	if status, body, _ := d.post("/sites/skerry/house/tries", url.Values{"op": {"colour.set"}, "token": {"accent"}, "value": {"reddish"}}); status != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "is no colour") {
		t.Errorf("%d %s", status, body)
	}
	p.unchanged(t, before)
}

// What differs from a text style becomes the style's, and the block follows it again.
func TestRestyle(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	page := p.home()
	var heading *doc.Block
	for _, s := range page.Sections {
		s.Walk(func(b *doc.Block) {
			if b.Kind == doc.Heading && heading == nil {
				heading = b
			}
		})
	}
	made := 0
	for setting, v := range map[string]string{"font-weight": "300", style.LetterSpacing: "0.2", "text-transform": "uppercase"} {
		if status, body, _ := d.post("/sites/skerry/pages/home/edits", url.Values{
			"command": {`{"op":"set","node":"` + heading.ID + `","zone":"desktop","setting":"` + setting + `","value":"` + v + `","base":` + fmt.Sprint(made) + `}`}, "width": {"1280"},
		}); status != http.StatusOK {
			t.Fatalf("%s: %d %.300s", setting, status, body)
		}
		made++
	}
	status, body, _ := d.post("/sites/skerry/pages/home/restyle", url.Values{"select": {heading.ID}, "width": {"1280"}})
	if status != http.StatusOK {
		t.Fatalf("%d %.300s", status, body)
	}
	page = p.home()
	_, b := page.Block(heading.ID)
	base := strings.TrimPrefix(b.Style["text-style"]["desktop"], "$")
	if base == "" {
		base = fmt.Sprintf("h%d", b.Content.Level)
	}
	h, _ := p.house()
	if s := h.Text[base]; s.Weight != 300 || s.LetterSpacing != 0.2 || s.Case != "upper" {
		t.Errorf("%s is %+v", base, s)
	}
	if b.Style["font-weight"] != nil || b.Style["text-transform"] != nil {
		t.Errorf("the block still says %v", b.Style)
	}
	if status, _, _ := d.post("/sites/skerry/pages/home/restyle", url.Values{"select": {heading.ID}, "width": {"1280"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("with nothing that differs: %d", status)
	}
}

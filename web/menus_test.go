package web

import (
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
	"openplot/core/value"
	"openplot/site"
)

// items is what the site keeps of a menu.
func (p *studio) items(menu string) []doc.MenuItem {
	p.t.Helper()
	st, err := p.store.Sites.ByID(p.t.Context(), "w1")
	if err != nil {
		p.t.Fatal(err)
	}
	return st.Menus[menu]
}

// entered is a form of a menu's items: label, link, level, look, tab and page of each.
func entered(menu string, items ...[6]string) url.Values {
	v := url.Values{"menu": {menu}}
	for _, i := range items {
		for at, name := range []string{"label", "link", "level", "look", "tab", "page"} {
			v.Add(name, i[at])
		}
	}
	return v
}

// A menu that is changed is by hand from then on: what was entered, in that order, is all of it. It
// can follow the pages again, and keeps then what isn't one of them.
func TestMenusByHand(t *testing.T) {
	p := begin(t)
	for _, name := range []string{"Fares", "Crew"} {
		p.put(&doc.Page{ID: "p" + name, Name: name, Title: name}, tree.Page{ID: "p" + name, Name: name})
	}
	d := p.as("designer@example.org")
	_, screen, _ := d.get("/sites/skerry/menus")
	if !strings.Contains(screen, "follows the pages") ||
		strings.Count(screen, `<li class="menu-row`) != 4 { // with the one to be filled
		t.Errorf("a menu that nobody changed doesn't follow the pages:\n%s", screen)
	}
	status, _, h := d.post("/sites/skerry/menus", entered(
		value.Pages,
		[6]string{
			"",
			"/crew",
			"top",
			"",
			"",
			"yes",
		},
		[6]string{"What it costs", "/fares", "under", "button", "", "yes"},
		[6]string{"Charts", "https://example.org/charts", "top", "", "yes", ""},
		[6]string{"", "", "top", "", "", ""},
	))
	want := []doc.MenuItem{
		{Hand: true},
		{Link: "/crew"},
		{Label: "What it costs", Link: "/fares", Under: true, Button: true},
		{Label: "Charts", Link: doc.JoinLink("https://example.org/charts", true)},
	}
	if got := p.items(value.Pages); status != http.StatusSeeOther || !slices.Equal(got, want) {
		t.Fatalf("%d: %+v", status, got)
	}
	_, screen, _ = d.get(h.Get("Location"))
	if !strings.Contains(screen, "by hand") || !strings.Contains(screen, `data-address="/"`) {
		t.Error("the screen doesn't say that the menu is by hand, or offer the page that isn't in it")
	}
	_, drawn, h := d.get("/sites/skerry/menus/drawn?menu=" + value.Pages)
	for _, says := range []string{">Crew<", ">What it costs<", ">Charts<"} {
		if !strings.Contains(drawn, says) {
			t.Errorf("the drawing doesn't say %s", says)
		}
	}
	if strings.Contains(drawn, ">Fares<") ||
		!strings.Contains(h.Get("Content-Security-Policy"), "frame-ancestors 'self'") ||
		strings.Contains(h.Get("Content-Security-Policy"), "script") {
		t.Errorf("the drawing says what isn't in the menu, or may run scripts: %s", h.Get("Content-Security-Policy"))
	}
	// A page that moves takes the menu along.
	if err := p.store.Tree.Rearrange(t.Context(), "w1", func(t tree.Tree) (tree.Tree, error) {
		return t.SetAddress("pFares", "prices")
	}); err != nil {
		t.Fatal(err)
	}
	if got := p.items(value.Pages); got[2].Link != "/prices" {
		t.Errorf("the menu leads to %s", got[2].Link)
	}
	again := entered(
		value.Pages,
		[6]string{"", "/crew", "top", "", "", "yes"},
		[6]string{"Charts", "https://example.org/charts", "top", "", "", ""},
	)
	again.Set("follows", "yes")
	if d.post("/sites/skerry/menus", again); !slices.Equal(
		p.items(value.Pages),
		[]doc.MenuItem{{Label: "Charts", Link: "https://example.org/charts"}},
	) {
		t.Errorf("following again it keeps %+v", p.items(value.Pages))
	}
}

// What can't be a menu is said, with all that was entered, and nothing of it is kept.
func TestMenusThatCantBe(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	status, screen, _ := d.post("/sites/skerry/menus", entered(
		value.Footer,
		[6]string{
			"Good",
			"https://example.org/",
			"top",
			"",
			"",
			"",
		},
		[6]string{"Bad", "javascript:alert(1)", "top", "", "", ""},
	))
	if status != http.StatusUnprocessableEntity || !tellsOf(screen, "Link") ||
		!strings.Contains(screen, `value="Good"`) ||
		!strings.Contains(screen, `value="javascript:alert(1)"`) ||
		p.items(value.Footer) != nil {
		t.Errorf("%d, and kept is %+v", status, p.items(value.Footer))
	}
	if status, _, _ := d.post("/sites/skerry/menus", entered("elsewhere", [6]string{"A", "/", "top"})); status != http.StatusUnprocessableEntity {
		t.Errorf("a menu that there isn't: %d", status)
	}
	for _, email := range []string{"writer@example.org", "stranger@example.org"} {
		if status, _, _ := p.as(email).post("/sites/skerry/menus", entered(value.Footer, [6]string{"A", "/", "top"})); status < 400 {
			t.Errorf("%s: %d", email, status)
		}
	}
}

// A site has menus of its own beside those of every site: begun, named and filled, chosen as the
// source of a block, and deleted, after which the block shows visitors nothing.
func TestMenusOfItsOwn(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	status, _, h := d.post("/sites/skerry/menus/new", nil)
	_, id, _ := strings.Cut(h.Get("Location"), "menu=")
	if status != http.StatusSeeOther || id == "" {
		t.Fatalf("%d %s", status, h.Get("Location"))
	}
	form := entered(id, [6]string{"Tides", "https://example.org/tides", "top", "", "", ""})
	form.Set("called", "In the harbour")
	if status, body, _ := d.post("/sites/skerry/menus", form); status != http.StatusSeeOther {
		t.Fatalf("%d %.300s", status, body)
	}
	want := []doc.MenuItem{{Hand: true, Label: "In the harbour"}, {Label: "Tides", Link: "https://example.org/tides"}}
	if got := p.items(id); !slices.Equal(got, want) {
		t.Fatalf("%+v", got)
	}
	if status, body := d.edit(edit.Command{
		Op: "block.add", Node: p.page.Sections[0].ID, Kind: doc.Menu, Zone: "desktop",
	}); status != http.StatusOK {
		t.Fatalf("%d %.200s", status, body)
	}
	home, err := p.store.Pages.At(t.Context(), "w1", "")
	if err != nil {
		t.Fatal(err)
	}
	var menu string
	for _, sec := range home.Doc.Sections {
		sec.Walk(func(b *doc.Block) {
			if b.Kind == doc.Menu {
				menu = b.ID
			}
		})
	}
	set := func(from string) int {
		c := edit.Command{Op: "block.content", Node: menu, Setting: "from", Value: from, Base: home.Seq}
		status, _ := d.edit(c)
		return status
	}
	if set("u0deleted") != http.StatusUnprocessableEntity || set(id) != http.StatusOK {
		t.Errorf("menu %q: it isn't chosen as a menu of the site's own, or what is none is", menu)
	}
	if _, tray, _ := d.get(benchPath + "/parts?select=" + menu); !strings.Contains(tray, "In the harbour") {
		t.Error("the Tray doesn't offer it")
	}
	shown := func() string {
		t.Helper()
		if status, body, _ := d.post(benchPath+"/publish", nil); status != http.StatusOK {
			t.Fatalf("%d %.200s", status, body)
		}
		html, err := site.Read(os.DirFS(filepath.Join(p.siteDir, "w1")), "")
		if err != nil {
			t.Fatal(err)
		}
		return string(html)
	}
	if html := shown(); !strings.Contains(html, `aria-label="In the harbour"`) || !strings.Contains(html, "Tides") {
		t.Error("visitors don't see it")
	}
	if status, _, _ := d.post("/sites/skerry/menus/drop", url.Values{"menu": {id}}); status != http.StatusSeeOther ||
		p.items(id) != nil {
		t.Errorf("deleting it: %d %+v", status, p.items(id))
	}
	if html := shown(); strings.Contains(html, "Tides") {
		t.Error("visitors see what was deleted")
	}
	if status, _, _ := d.post("/sites/skerry/menus/drop", url.Values{"menu": {value.Pages}}); status != http.StatusSeeOther {
		t.Errorf("one of every site: %d", status)
	}
}

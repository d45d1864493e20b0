package web

import (
	"io/fs"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"openplot/store"
)

// railed finds the places in the rail of a screen, with what they count.
var railed = regexp.MustCompile(`(?s)<li><a href="([^"]+)" title="([^:]+): g, then ([a-z])"[^>]*>.*?</li>`)

// The rail leads each role to the screens that it may look at, and to all of those; from every one
// of them, by a letter that no other place has, and with the place one is at marked.
func TestTheRailLeadsWhereOneMayGo(t *testing.T) {
	p := begin(t)
	for email, places := range map[string]int{"writer@example.org": 4, "designer@example.org": 9, "owner@example.org": 11} {
		if email == "owner@example.org" {
			u, err := p.store.People.AddUser(t.Context(), email, "Some One", "three islands")
			if err == nil {
				err = p.store.People.AddMember(t.Context(), "w1", u.ID, store.Owner)
			}
			if err != nil {
				t.Fatal(err)
			}
		}
		q := p.as(email)
		_, home, _ := q.get("/sites/skerry")
		all := railed.FindAllStringSubmatch(home, -1)
		letters := map[string]bool{}
		for _, place := range all {
			if letters[place[3]] {
				t.Errorf("%q leads to two places", place[3])
			}
			letters[place[3]] = true
			status, screen, _ := q.get(place[1])
			if status != http.StatusOK {
				t.Errorf("%s is led to %s, which answers %d", email, place[2], status)
			}
			here := regexp.MustCompile(`<li><a href="([^"]+)"[^>]*aria-current="page"`).FindStringSubmatch(screen)
			if here == nil || here[1] != place[1] || len(railed.FindAllString(screen, -1)) != len(all) {
				t.Errorf(
					"at %s the rail says %v, with %d places",
					place[2],
					here,
					len(railed.FindAllString(screen, -1)),
				)
			}
		}
		if len(all) < places {
			t.Errorf("%s is led to %d places", email, len(all))
		}
		for _, path := range []string{"/menus", "/house", "/publish", "/audit"} {
			status, _, _ := q.get("/sites/skerry" + path)
			led := slices.ContainsFunc(all, func(m []string) bool { return m[1] == "/sites/skerry"+path })
			if led != (status == http.StatusOK) {
				t.Errorf("%s is led to %s: %v, which answers %d", email, path, led, status)
			}
		}
	}
}

// What the rail counts is what there is: pages, what visitors sent, what they don't see yet.
func TestTheRailCounts(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	for i, e := range []store.FormEntry{{Form: "Ask"}, {Form: "Ask", Trial: true}, {Form: "Ask", Suspect: "too quick"}, {Form: "Ask"}} {
		e.ID, e.Answers = "e"+string(rune('1'+i)), []store.Answer{{Field: "Name", Value: "A"}}
		if err := p.store.Entries.Add(ctx, "w1", e, store.Telling{}); err != nil {
			t.Fatal(err)
		}
	}
	u, err := p.store.People.UserByEmail(ctx, "designer@example.org")
	if err != nil {
		t.Fatal(err)
	}
	n, err := p.store.Sites.Tally(ctx, "w1", u.ID)
	infos, err2 := p.store.Pages.List(ctx, "w1")
	if err != nil || err2 != nil {
		t.Fatal(err, err2)
	}
	if n.Pages != len(infos) || n.New != 2 || n.ToPublish != len(infos) || n.UnderWay != (store.UnderWay{}) {
		t.Errorf("%+v of %d pages", n, len(infos))
	}
	_, home, _ := p.as("designer@example.org").get("/sites/skerry")
	for _, want := range []string{"2<span> new", "to publish"} {
		if !strings.Contains(home, want) {
			t.Errorf("the rail doesn't say %q", want)
		}
	}
	// A page that was checked as it is counts with what was found, hints apart.
	if err := p.store.Findings.KeepFound(ctx, infos[0].ID, infos[0].Seq, "look", store.Counts{Broken: 2, Doubtful: 1, Hints: 5}); err != nil {
		t.Fatal(err)
	}
	if n, err := p.store.Sites.Tally(ctx, "w1", u.ID); err != nil || n.Findings != 3 {
		t.Errorf("%d findings, %v", n.Findings, err)
	}
}

// The bar leads to one's own sites in use, those edited last first, and to nobody else's.
func TestTheBarLeadsToOnesSites(t *testing.T) {
	p := begin(t)
	u := p.userID("designer@example.org")
	sites, err := p.store.Sites.Last(t.Context(), u, 9)
	if err != nil || len(sites) != 1 || sites[0].Slug != "skerry" {
		t.Errorf("%+v, %v", sites, err)
	}
	if err := p.store.Sites.Archive(t.Context(), "w1", true); err != nil {
		t.Fatal(err)
	}
	if sites, err = p.store.Sites.Last(t.Context(), u, 9); err != nil || len(sites) != 0 {
		t.Errorf("archived: %+v, %v", sites, err)
	}
	if sites, err = p.store.Sites.Last(t.Context(), p.userID("stranger@example.org"), 9); err != nil ||
		len(sites) != 0 {
		t.Errorf("a stranger's: %+v, %v", sites, err)
	}
}

// What draws itself anew by the clock is morphed, so that what somebody ticked, opened or focused
// in it meanwhile stays so.
func TestWhatRedrawsItselfMorphs(t *testing.T) {
	byClock := regexp.MustCompile(`<[a-z][^<>]*hx-trigger="(?:every|load) [^<>]*`)
	found := 0
	err := filepath.WalkDir(".", func(name string, e fs.DirEntry, err error) error {
		if err != nil || filepath.Ext(name) != ".html" {
			return err
		}
		text, err := os.ReadFile(name)
		// what decides within a tag would end it here
		plain := regexp.MustCompile(`\{\{[^}]*\}\}`).ReplaceAll(text, nil)
		for _, tag := range byClock.FindAllString(string(plain), -1) {
			found++
			if !strings.Contains(tag, `hx-trigger="every `) || !strings.Contains(tag, `hx-swap="outerMorph"`) {
				t.Errorf("%s: %s", name, oneLine(tag))
			}
		}
		return err
	})
	if err != nil || found < 5 {
		t.Errorf("%d found, %v", found, err)
	}
}

// triggered finds what makes an element ask when something in it is entered.
var triggered = regexp.MustCompile(`hx-trigger="[^"]*(?:change|input)`)

// What asks when something is entered says what becomes of what was entered before the last answer
// came: by itself, htmx asks for the first that waits and drops the others.
func TestWhatIsEnteredBeforeAnAnswerIsNotDropped(t *testing.T) {
	found := 0
	screens, err := files.ReadDir(".")
	if err != nil {
		t.Fatal(err)
	}
	for _, screen := range screens {
		all := map[string]string{} // by template
		inherits := false
		err := fs.WalkDir(files, screen.Name(), func(at string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || filepath.Ext(at) != ".html" {
				return err
			}
			b, err := fs.ReadFile(files, at)
			all[at] = string(b)
			inherits = inherits || strings.Contains(all[at], "hx-sync:inherited=")
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
		for at, text := range all {
			for _, i := range triggered.FindAllStringIndex(text, -1) {
				found++
				rest, _, _ := strings.Cut(text[i[0]:], ">") // hx-sync is written after hx-trigger
				if !inherits && !strings.Contains(rest, "hx-sync=") {
					t.Errorf("%s: %s", at, oneLine(rest))
				}
			}
		}
	}
	if found < 10 {
		t.Errorf("only %d elements ask when something is entered", found)
	}
}

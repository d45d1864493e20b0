package web

import (
	"context"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/shell"
)

// hostileNumbers are what no field of a number is to take: what isn't finite, what is too large
// for its kind, what is written as programs write it.
var hostileNumbers = []string{
	"NaN",
	"-NaN",
	"Inf",
	"-Inf",
	"+Infinity",
	"1e308",
	"-1e308",
	"1e-400",
	"-0",
	"9223372036854775808",
	"-9223372036854775809",
	"99999999999999999999999999",
	"0x1p1023",
	"1_0",
	"٣",
}

// parameters gives the names of all fields that handlers read, from their source.
func parameters(t testing.TB) []string {
	t.Helper()
	files, err := filepath.Glob("*/*.go")
	if err != nil {
		t.Fatal(err)
	}
	reads := regexp.MustCompile(
		`(?:Query|QueryArray|PostForm|PostFormArray|FormValue|q|q\.Get|get|all)\("([a-z][A-Za-z-]*)"\)`,
	)
	var names []string
	for _, file := range files {
		b, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		for _, m := range reads.FindAllSubmatch(b, -1) {
			names = append(names, string(m[1]))
		}
	}
	slices.Sort(names)
	return slices.Compact(names)
}

// hostileAsker asks routes of the application as a member of the site with all rights.
type hostileAsker struct {
	*studio
	routes  []shell.Route
	handler http.Handler
	cookie  string
	names   []string
	known   map[string][]string // plausible values of fields
}

func asking(t testing.TB, p *studio) *hostileAsker {
	t.Helper()
	ctx := t.Context()
	owner, err := p.store.People.UserByEmail(ctx, "designer@example.org")
	if err == nil {
		err = p.store.People.AddMember(ctx, "w1", owner.ID, store.Owner)
	}
	if err == nil {
		err = p.store.People.SetOperator(ctx, owner.Email, true)
	}
	if err != nil {
		t.Fatal(err)
	}
	d := p.as(owner.Email)
	at, err := url.Parse(p.app.URL)
	if err != nil {
		t.Fatal(err)
	}
	h := &hostileAsker{
		studio:  p,
		names:   parameters(t),
		handler: p.app.Config.Handler,
		cookie:  d.client.Jar.Cookies(at)[0].String(),
	}
	for _, r := range p.server.Table() {
		switch r.Path { // which would end all others
		case "/sign-out", "/sites/:site/delete", "/sites/:site/address", "/sites/:site/archive":
			continue
		}
		h.routes = append(h.routes, r)
	}
	if len(h.names) < 80 || len(h.routes) < 120 {
		t.Fatalf("too few: %d fields, %d routes", len(h.names), len(h.routes))
	}
	section, block := p.page.Sections[0].ID, p.page.Sections[0].Blocks[0].ID
	h.known = map[string][]string{
		"width": {
			"375",
			"1280",
		}, "at": {"1280", "640"}, "select": {section, block}, "also": {block}, "id": {"p1"}, "page": {"p1"}, "base": {"0", "1"},
		"command": {
			`{"op":"page.set","setting":"description","value":"x"}`,
			`{"op":"block.nudge","node":"` + block + `","zone":"desktop","dx":1}`,
		},
		"name": {
			"Quay",
		}, "title": {"Quay"}, "slug": {"quay"}, "zone": {"phone", "desktop"}, "op": {"move", "split"}, "from": {"blank"},
	}
	return h
}

func (h *hostileAsker) path(r shell.Route) string {
	return strings.NewReplacer(
		":site",
		"skerry",
		":page",
		"home",
		":medium",
		"m1",
		":picture",
		"meadow.png",
		":file",
		"x",
		"*file",
		"x",
		":section",
		h.page.Sections[0].ID,
		":zone",
		"phone",
		":version",
		"v1",
	).Replace(r.Path)
}

// mixed is a form of which one field in so many has one of some values, and the others what they may
// have or nothing.
func (h *hostileAsker) mixed(random *rand.Rand, one int, values []string) url.Values {
	form := url.Values{}
	for _, name := range h.names {
		switch known := h.known[name]; {
		case random.IntN(one) == 0:
			form.Set(name, values[random.IntN(len(values))])
		case len(known) > 0:
			form.Set(name, known[random.IntN(len(known))])
		}
	}
	return form
}

// ask asks one route, and gives a problem unless it is answered in good time without failing.
func (h *hostileAsker) ask(r shell.Route, query, form string) error {
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
	defer cancel()
	var body io.Reader
	if r.Method == http.MethodPost {
		body = strings.NewReader(form)
	}
	req, err := http.NewRequestWithContext(ctx, r.Method, "http://app.localhost"+h.path(r), body)
	if err != nil {
		return err
	}
	req.URL.RawQuery = query
	req.Header.Set("Cookie", h.cookie)
	if body != nil {
		req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	w, done := httptest.NewRecorder(), make(chan struct{})
	go func() { defer close(done); h.handler.ServeHTTP(w, req) }()
	select {
	case <-done:
	case <-ctx.Done():
		return fmt.Errorf("%s %s?%s %s isn't answered", r.Method, r.Path, query, form)
	}
	if w.Code >= 500 || w.Code == http.StatusUnauthorized {
		return fmt.Errorf("%s %s?%s %s: %d %.300s", r.Method, r.Path, query, form, w.Code, w.Body)
	}
	return nil
}

// No number that comes from outside keeps the program busy or has it fail: each route with all
// fields hostile, and hundreds of mixtures with fields as they should be; bin/fuzz tries more.
func TestHostileNumbers(t *testing.T) {
	h := asking(t, begin(t))
	const each = 2 // of the numbers, others at each route
	for i, r := range h.routes {
		for k := range each {
			v := hostileNumbers[(i*each+k)%len(hostileNumbers)]
			all := url.Values{}
			for _, name := range h.names {
				all.Set(name, v)
			}
			if err := h.ask(r, all.Encode(), all.Encode()); err != nil {
				t.Error(err)
			}
		}
	}
	random := rand.New(rand.NewPCG(23, 2))
	for range 250 {
		r := h.routes[random.IntN(len(h.routes))]
		if r.Right == rights.None {
			continue
		}
		form := h.mixed(random, 3, hostileNumbers)
		if err := h.ask(r, form.Encode(), form.Encode()); err != nil {
			t.Error(err)
		}
	}
	// In commands, where numbers are JSON's.
	section, block := h.page.Sections[0].ID, h.page.Sections[0].Blocks[0].ID
	for _, op := range edit.Operations() {
		for _, n := range []string{"1e308", "-1e308", "-0", "9007199254740993", "99999999999", "-2147483649", "1e400", "0.5"} {
			command := fmt.Sprintf(
				`{"op":%q,"node":%q,"nodes":[%q],"zone":"desktop","dx":%[4]s,"dy":%[4]s,"value":%[5]q,"setting":%[5]q,"at":%[4]s,"place":{"column":%[4]s,"span":%[4]s,"row":%[4]s,"rows":%[4]s,"layer":%[4]s}}`,
				op,
				block,
				section,
				n,
				n,
			)
			for _, to := range []string{"edits", "tries"} {
				r := h.routes[slices.IndexFunc(h.routes, func(r shell.Route) bool { return r.Path == "/sites/:site/pages/:page/"+to })]
				if err := h.ask(r, "", url.Values{"command": {command}, "width": {"1280"}}.Encode()); err != nil {
					t.Error(err)
				}
			}
		}
	}
}

// FuzzRoutes asks every route with any query and form.
func FuzzRoutes(f *testing.F) {
	for i, v := range hostileNumbers {
		f.Add(uint16(i*7), "width="+v+"&from="+v, "command={}&at="+v+"&base="+v)
	}
	f.Add(uint16(3), "width=375&select=s1", `command={"op":"page.set","setting":"name","value":"x"}&width=375`)
	h := asking(f, begin(f))
	f.Fuzz(func(t *testing.T, i uint16, query, form string) {
		if err := h.ask(h.routes[int(i)%len(h.routes)], query, form); err != nil {
			t.Error(err)
		}
	})
}

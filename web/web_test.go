package web

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/png"
	"io"
	"mime/multipart"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/edit/edittest"
	"openplot/jobs"
	"openplot/media"
	"openplot/postgres/postgrestest"
	"openplot/site"
	"openplot/store"
	"openplot/visitors"
	"openplot/web/model"
)

func TestMain(m *testing.M) { postgrestest.Main(m, store.Migrate) }

// studio is a running application with a site, its designer and writer, and
// somebody who belongs to neither.
type studio struct {
	t       testing.TB
	server  *Server
	store   *store.Store
	app     *httptest.Server
	pages   *httptest.Server
	page    *doc.Page
	hosts   site.Hosts
	siteDir string
}

// anywhere dials this machine whatever the host is called: "x.localhost" is no name that every
// resolver knows.
var anywhere = &http.Transport{DialContext: func(ctx context.Context, network, address string) (net.Conn, error) {
	_, port, err := net.SplitHostPort(address)
	if err != nil {
		return nil, err
	}
	return (&net.Dialer{}).DialContext(ctx, network, net.JoinHostPort("127.0.0.1", port))
}}

// begin begins a studio for a test that may run beside others.
func begin(t testing.TB) *studio {
	t.Helper()
	if t, ok := t.(*testing.T); ok {
		if _, twice := beside.LoadOrStore(t, true); !twice {
			t.Parallel()
		}
	}
	return beginAlone(t)
}

// beside has the tests that run beside others.
var beside sync.Map

// beginAlone begins one for a test that measures, or changes what all of the program has.
func beginAlone(t testing.TB) *studio {
	t.Helper()
	ctx := t.Context()
	st, err := store.Open(ctx, postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	p := &studio{t: t, store: st, siteDir: t.TempDir()}
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	w := &doc.Site{ID: "w1", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()}
	must(st.Sites.Add(ctx, w))
	for email, role := range map[string]store.Role{
		"designer@example.org": store.Designer, "writer@example.org": store.Writer, "stranger@example.org": "",
	} {
		u, err := st.People.AddUser(ctx, email, "Some One", "three islands")
		must(err)
		if role != "" {
			must(st.People.AddMember(ctx, w.ID, u.ID, role))
		}
	}
	p.page = &doc.Page{ID: "p1", Name: "Home", Title: "Home"}
	p.page.Sections = edittest.Sections(store.NewID)
	slices.Reverse(p.page.Sections)
	must(st.Pages.Add(ctx, w.ID, "", 0, p.page))
	// The second origin's address has to be known before the server is made.
	p.pages = httptest.NewUnstartedServer(nil)
	_, port, err := net.SplitHostPort(p.pages.Listener.Addr().String())
	must(err)
	p.hosts = site.Hosts{Scheme: "http", Base: "localhost:" + port}
	mediaDir := t.TempDir()
	p.server, err = New(
		Config{
			Store:    st,
			MediaDir: mediaDir,
			SiteDir:  p.siteDir,
			Hosts:    p.hosts,
			Pictures: media.NewKeeper(st, mediaDir, media.DefaultQuota).Plain(),
		},
	)
	must(err)
	p.pages.Config.Handler, err = visitors.New(visitors.Config{Store: st, MediaDir: mediaDir, SiteDir: p.siteDir, Hosts: p.hosts}).
		Handler()
	must(err)
	p.pages.Start()
	app, err := p.server.App()
	must(err)
	p.app = httptest.NewServer(app)
	t.Cleanup(func() { p.app.Close(); p.pages.Close(); st.Close() })
	return p
}

// tasks is what is done in the background.
func (p *studio) tasks() *jobs.Tasks {
	s := p.server
	return &jobs.Tasks{
		Store:     p.store,
		Pictures:  s.Pictures,
		Publisher: s.Publisher,
		Workshop:  s.Workshop,
		Checker:   s.Checker,
		Maker:     s.Maker,
		Domains:   s.Domains,
		Log:       s.Log,
	}
}

// made does what a person is led to after they wanted a site of a file or of another, and gives where it
// then is, or what is said instead.
func (q *person) made(h http.Header) (to, said string) {
	q.t.Helper()
	id, is := strings.CutPrefix(h.Get("Location"), "/works/")
	if !is {
		return "", "led to " + h.Get("Location")
	}
	err := q.tasks().Make(q.t.Context(), id)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		return "", problem.Sentence()
	}
	if err != nil {
		q.t.Fatal(err)
	}
	_, said, h = q.get("/works/" + id)
	return h.Get("Location"), said
}

// works does it until the test ends.
func (p *studio) works() {
	p.t.Helper()
	stop, err := jobs.Run(p.t.Context(), p.tasks())
	if err != nil {
		p.t.Fatal(err)
	}
	p.t.Cleanup(func() { _ = stop(context.Background()) })
}

// person is somebody with a browser.
type person struct {
	*studio
	client *http.Client
}

func (p *studio) as(email string) *person {
	p.t.Helper()
	jar, err := cookiejar.New(nil)
	if err != nil {
		p.t.Fatal(err)
	}
	q := &person{
		p,
		&http.Client{
			Jar:           jar,
			Transport:     anywhere,
			CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse },
		},
	}
	if email != "" {
		if status, _, _ := q.post("/sign-in", url.Values{"email": {email}, "password": {"three islands"}}); status != http.StatusSeeOther {
			p.t.Fatalf("signing in: %d", status)
		}
	}
	return q
}

func (p *person) do(r *http.Request) (int, string, http.Header) {
	p.t.Helper()
	res, err := p.client.Do(r)
	if err != nil {
		p.t.Fatal(err)
	}
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	if err != nil {
		p.t.Fatal(err)
	}
	return res.StatusCode, string(b), res.Header
}

// oneLine is HTML with its spaces as they are shown: where its template begins another line is one.
func oneLine(html string) string { return strings.Join(strings.Fields(html), " ") }

func (p *person) get(path string) (int, string, http.Header) {
	p.t.Helper()
	if strings.HasPrefix(path, "/") {
		path = p.app.URL + path
	}
	r, err := http.NewRequest(http.MethodGet, path, nil)
	if err != nil {
		p.t.Fatal(err)
	}
	return p.do(r)
}

func (p *person) post(path string, form url.Values) (int, string, http.Header) {
	p.t.Helper()
	r, err := http.NewRequest(http.MethodPost, p.app.URL+path, strings.NewReader(form.Encode()))
	if err != nil {
		p.t.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	return p.do(r)
}

// part is what a form gets that a part of a screen sends.
func (p *person) part(path string, form url.Values) (int, string, http.Header) {
	p.t.Helper()
	r, err := http.NewRequest(http.MethodPost, p.app.URL+path, strings.NewReader(form.Encode()))
	if err != nil {
		p.t.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("HX-Request", "true")
	return p.do(r)
}

const benchPath = "/sites/skerry/pages/home"

func (p *person) edit(c edit.Command) (int, string) {
	p.t.Helper()
	b, err := json.Marshal(c)
	if err != nil {
		p.t.Fatal(err)
	}
	status, body, _ := p.post(benchPath+"/edits", url.Values{"command": {string(b)}, "width": {"1280"}})
	return status, body
}

var stateIn = regexp.MustCompile(`(?s)(?:^|id="state">)(\{.*?\})(?:\n|</script>)`)

func stateOf(t testing.TB, body string) model.State {
	t.Helper()
	m := stateIn.FindStringSubmatch(body)
	if m == nil {
		t.Fatalf("no state in %.300s", body)
	}
	var s model.State
	if err := json.Unmarshal([]byte(m[1]), &s); err != nil {
		t.Fatalf("%v in %.200s", err, m[1])
	}
	return s
}

func TestSigningIn(t *testing.T) {
	p := begin(t)
	q := p.as("")
	status, body, _ := q.post("/sign-in", url.Values{"email": {"designer@example.org"}, "password": {"wrong"}})
	if status != http.StatusUnprocessableEntity || !strings.Contains(
		body, `value="designer@example.org"`,
	) || !strings.Contains(body, `role="alert"`) {
		t.Errorf("a wrong password: %d, the email is kept: %v", status, strings.Contains(body, "designer@example.org"))
	}
	for range 12 {
		status, _, _ = q.post("/sign-in", url.Values{"email": {"x"}, "password": {"y"}})
	}
	if status != http.StatusTooManyRequests {
		t.Errorf("the 13th try: %d", status)
	}
}

// Whatever is tried from elsewhere, whoever has the password gets in.
func TestNobodyIsLockedOut(t *testing.T) {
	p := beginAlone(t)
	p.server.HoldTime = 50 * time.Millisecond
	h := p.app.Config.Handler
	try := func(from, password string) int {
		form := url.Values{"email": {"designer@example.org"}, "password": {password}}
		r := httptest.NewRequest(http.MethodPost, "/sign-in", strings.NewReader(form.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.RemoteAddr = from + ":1234"
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		return w.Code
	}
	for i := range 60 {
		if status := try(fmt.Sprintf("192.0.2.%d", i), "a wrong guess"); status != http.StatusUnprocessableEntity {
			t.Errorf("guess %d: %d", i, status)
		}
	}
	start := time.Now()
	if status := try("198.51.100.1", "three islands"); status != http.StatusSeeOther ||
		time.Since(start) < p.server.HoldTime {
		t.Errorf("the right password: %d after %v", status, time.Since(start))
	}
	// From one network it ends, also with other accounts' names between.
	refused := 0
	for range 15 {
		if try("203.0.113.9", "a wrong guess") == http.StatusTooManyRequests {
			refused++
		}
	}
	if refused != 5 {
		t.Errorf("%d of 15 from one network are refused", refused)
	}
}

func TestSignOutEndsTheSession(t *testing.T) {
	q := begin(t).as("designer@example.org")
	if status, _, _ := q.post("/sign-out", nil); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	if status, _, _ := q.get("/"); status != http.StatusSeeOther {
		t.Errorf("after signing out: %d", status)
	}
}

func TestHeaders(t *testing.T) {
	p := begin(t)
	q := p.as("designer@example.org")
	_, body, h := q.get(benchPath + "/bench")
	csp := h.Get("Content-Security-Policy")
	for _, want := range []string{"default-src 'none'", "script-src 'self' 'wasm-unsafe-eval'", "style-src 'self'", "frame-ancestors 'none'"} {
		if !strings.Contains(csp, want) {
			t.Errorf("the policy %q has no %s", csp, want)
		}
	}
	if strings.Contains(csp, "unsafe-inline") || strings.Contains(csp, "'unsafe-eval'") {
		t.Errorf("the policy %q allows inline code", csp)
	}
	if regexp.MustCompile(`<script(>| type="module">)`).MatchString(body) ||
		regexp.MustCompile(` on[a-z]+="|style="`).MatchString(body) {
		t.Error("the Bench holds inline script or style")
	}
	if !strings.Contains(body, `sandbox="allow-same-origin"`) {
		t.Error("the canvas isn't sandboxed")
	}
	_, _, h = q.get(benchPath + "/canvas")
	if csp := h.Get("Content-Security-Policy"); strings.Contains(csp, "script-src") ||
		!strings.Contains(csp, "default-src 'none'") {
		t.Errorf("scripts may run on the canvas: %q", csp)
	}
	if h.Get("X-Request-Id") == "" {
		t.Error("no request id")
	}
}

func TestRequestsFromOtherSitesAreRefused(t *testing.T) {
	p := begin(t)
	q := p.as("designer@example.org")
	r, _ := http.NewRequest(http.MethodPost, p.app.URL+benchPath+"/undo", nil)
	r.Header.Set("Sec-Fetch-Site", "cross-site")
	if status, _, _ := q.do(r); status != http.StatusForbidden {
		t.Errorf("cross-site: %d", status)
	}
	r, _ = http.NewRequest(http.MethodPost, p.app.URL+benchPath+"/undo", nil)
	r.Header.Set("Origin", p.pages.URL)
	if status, _, _ := q.do(r); status != http.StatusForbidden {
		t.Errorf("from the second origin: %d", status)
	}
}

func TestAnEditsAnswer(t *testing.T) {
	p := begin(t)
	q := p.as("designer@example.org")
	section := p.page.Sections[1]
	if status, body := q.edit(edit.Command{Op: "rename", Node: section.ID, Value: `Fares <b>&`}); status != http.StatusOK ||
		!strings.Contains(body, `hx-target="#overview"`) {
		t.Errorf("%d: the marks between sections are called by their names", status)
	}
	status, body := q.edit(edit.Command{
		Op: "set", Node: section.ID, Zone: "desktop", Setting: "padding-top", Value: "77px", Base: 1,
	})
	if status != http.StatusOK {
		t.Fatal(status)
	}
	s := stateOf(t, body)
	if s.Seq != 2 || len(s.Show) != 1 || s.Show[0].ID != section.ID || !strings.Contains(
		s.Show[0].HTML, section.ID,
	) || s.Names[section.ID] != "Fares <b>&" {
		t.Errorf("%+v", s)
	}
	for _, part := range []string{`hx-target="#tray"`, `hx-target="#history"`, `hx-target="#overview-` + section.ID, "Fares &lt;b&gt;&amp;"} {
		if !strings.Contains(body, part) {
			t.Errorf("the answer has no %s", part)
		}
	}
	if strings.Contains(body, `hx-target="#overview"`) {
		t.Error("the whole Overview is sent for one section")
	}
	status, body = q.edit(edit.Command{Op: "delete", Node: section.ID, Base: 2})
	if s = stateOf(t, body); status != http.StatusOK || len(s.Order) != 2 ||
		!strings.Contains(body, `hx-target="#overview"`) {
		t.Errorf("deleting: %d, %v", status, s.Order)
	}
	status, body, _ = q.post(benchPath+"/undo", url.Values{"width": {"375"}})
	if s = stateOf(t, body); status != http.StatusOK || len(s.Order) != 3 || s.Order[1] != section.ID || s.Seq != 4 {
		t.Errorf("undo: %d, %+v", status, s.Order)
	}
}

func TestStaleEditsAnswer409WithTheFreshState(t *testing.T) {
	p := begin(t)
	one, two := p.as("designer@example.org"), p.as("designer@example.org")
	id := p.page.Sections[0].ID
	if status, _ := one.edit(edit.Command{Op: "rename", Node: id, Value: "First"}); status != http.StatusOK {
		t.Fatal(status)
	}
	status, body := two.edit(edit.Command{Op: "rename", Node: id, Value: "Second", Base: 0})
	s := stateOf(t, body)
	if status != http.StatusConflict || s.Seq != 1 || len(s.Show) != 3 || s.Names[id] != "First" ||
		!strings.Contains(body, "at the same time") {
		t.Errorf("%d, %+v", status, s.Names)
	}
	if status, _ = two.edit(edit.Command{Op: "rename", Node: id, Value: "Second", Base: s.Seq}); status != http.StatusOK {
		t.Errorf("with the fresh state: %d", status)
	}
}

// tellsOf says whether an answer tells a problem of a field.
func tellsOf(body, field string) bool {
	return strings.Contains(body, field+" ") || strings.Contains(body, field+": ")
}

func TestRefusedEditsAnswer422(t *testing.T) {
	p := begin(t)
	q := p.as("designer@example.org")
	text := p.page.Sections[2].Blocks[1].ID
	for raw, field := range map[string]string{
		`{`: "Edit", `{"op":"explode"}`: "Edit", `{"op":"delete","node":"nope"}`: "Selection", `{"op":"delete","unknown":1}`: "Edit",
		`{"op":"set","node":"` + text + `","zone":"desktop","setting":"padding-top","value":"NaN"}`:           "Padding top",
		`{"op":"block.place","node":"` + text + `","zone":"desktop","place":{"column":1,"span":-1}}`:          "Columns",
		`{"op":"block.place","node":"` + text + `","zone":"desktop","place":{"column":1,"span":1e400}}`:       "Edit",
		`{"op":"set","node":"` + text + `","zone":"watch","setting":"padding-top","value":"1"}`:               "Zone",
		`{"op":"rename","node":"` + text + `","value":"` + strings.Repeat("x", 2<<20) + `"}`:                  "Edit",
		`{"op":"set","node":"` + text + `","zone":"desktop","setting":"background","value":"$nope","base":0}`: "Fill",
	} {
		status, body, _ := q.post(benchPath+"/edits", url.Values{"command": {raw}})
		if status != http.StatusUnprocessableEntity || !tellsOf(body, field) {
			t.Errorf("%.80s: %d, want 422 and the field %s", raw, status, field)
			continue
		}
		if s := stateOf(t, body); s.Seq != 0 || strings.Contains(body, `hx-target="#tray"`) {
			t.Errorf("%.80s: something changed, or what was typed is lost", raw)
		}
	}
	// 10 MB is more than the form itself may have.
	if status, _, _ := q.post(benchPath+"/edits", url.Values{"command": {strings.Repeat("x", 10<<20)}}); status != http.StatusRequestEntityTooLarge {
		t.Errorf("10 MB: %d", status)
	}
}

func TestUploads(t *testing.T) {
	p := begin(t)
	q := p.as("writer@example.org") // writers may change pictures
	upload := func(name string, data []byte) (int, string) {
		var b bytes.Buffer
		w := multipart.NewWriter(&b)
		f, err := w.CreateFormFile("file", name)
		if err != nil {
			t.Fatal(err)
		}
		f.Write(data)
		w.Close()
		r, _ := http.NewRequest(http.MethodPost, p.app.URL+"/sites/skerry/media", &b)
		r.Header.Set("Content-Type", w.FormDataContentType())
		status, body, _ := q.do(r)
		return status, body
	}
	var img bytes.Buffer
	if err := png.Encode(&img, image.NewNRGBA(image.Rect(0, 0, 600, 300))); err != nil {
		t.Fatal(err)
	}
	status, body := upload(`..\..\evil/boat.png`, img.Bytes())
	if status != http.StatusOK || !strings.Contains(body, `"sort":"picture"`) {
		t.Errorf("%d %s", status, body)
	}
	_, body, _ = q.get("/sites/skerry/media")
	if !strings.Contains(body, ">boat.png<") || !strings.Contains(body, "600 × 300") {
		t.Errorf("it can't be chosen: %s", body)
	}
	src := regexp.MustCompile(`src="([^"]+)"`).FindStringSubmatch(body)[1]
	status, _, h := q.get(src)
	if status != http.StatusOK || h.Get("Content-Type") != "image/webp" ||
		h.Get("X-Content-Type-Options") != "nosniff" {
		t.Errorf("%s: %d %s", src, status, h.Get("Content-Type"))
	}
	status, _ = upload(
		"drawing.svg",
		[]byte(
			`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><script>alert(1)</script><path d="M0 0h9v9z"/></svg>`,
		),
	)
	_, body, _ = q.get("/sites/skerry/media")
	src = regexp.MustCompile(`src="([^"]+\.svg)"`).FindStringSubmatch(body)[1]
	_, svg, h := q.get(src)
	if status != http.StatusOK || strings.Contains(svg, "alert") ||
		!strings.Contains(h.Get("Content-Security-Policy"), "sandbox") {
		t.Errorf("svg: %d %s", status, svg)
	}
	for name, data := range map[string][]byte{"page.png": []byte("<!DOCTYPE html><p>no"), "empty.jpg": {}, "big.png": make([]byte, 22<<20)} {
		if status, body := upload(name, data); status != http.StatusUnprocessableEntity ||
			!strings.Contains(body, `"problem":`) {
			t.Errorf("%s: %d", name, status)
		}
	}
	for _, path := range []string{"/media/../secret", "/media/%2e%2e%2fsecret", "/media/.hidden", "/media/"} {
		if status, _, _ := q.get(p.pages.URL + path); status == http.StatusOK {
			t.Errorf("%s was served", path)
		}
	}
}

func TestTryAndPublish(t *testing.T) {
	p := begin(t)
	q := p.as("designer@example.org")
	status, _, h := q.post(benchPath+"/try", nil)
	at := h.Get("Location")
	if status != http.StatusSeeOther || !strings.HasPrefix(at, p.hosts.Draft("skerry")+"/try/") {
		t.Fatalf("%d %s", status, at)
	}
	stranger := p.as("")
	status, body, h := stranger.get(at)
	if status != http.StatusOK || !strings.Contains(body, "<h1") || strings.Contains(body, "<script") ||
		h.Get("Set-Cookie") != "" {
		t.Errorf("the preview: %d", status)
	}
	css := regexp.MustCompile(`rel="stylesheet" href="([^"]+)"`).FindStringSubmatch(body)[1]
	if status, body, h = stranger.get(p.hosts.Draft("skerry") + css); status != http.StatusOK ||
		!strings.Contains(body, "display:grid") ||
		!strings.HasPrefix(
			h.Get("Content-Type"), "text/css",
		) {
		t.Errorf("its style sheet: %d", status)
	}
	for _, bad := range []string{
		at[:len(at)-3] + "x/", p.hosts.Draft("skerry") + "/try/abc/",
	} {
		if status, _, _ := stranger.get(bad); status != http.StatusNotFound {
			t.Errorf("%s: %d", bad, status)
		}
	}

	if status, _, _ := stranger.get(p.hosts.Public("skerry") + "/"); status != http.StatusNotFound {
		t.Errorf("before publishing: %d", status)
	}
	if status, body, _ := q.post(benchPath+"/publish", nil); status != http.StatusOK ||
		!strings.Contains(body, p.hosts.Public("skerry")+"/") {
		t.Fatalf("publishing: %d %.300s", status, body)
	}
	status, body, h = stranger.get(p.hosts.Public("skerry") + "/")
	marked := false // as the canvas is
	for _, mark := range []string{"section", "block", "own", "part", "entry", "state"} {
		marked = marked || strings.Contains(body, "data-"+mark)
	}
	if status != http.StatusOK || marked ||
		!strings.Contains(h.Get("Content-Security-Policy"), "default-src 'none'") {
		t.Errorf("published: %d", status)
	}
	for _, path := range []string{"/", "/../", "/assets/", "/.secret", "/%2e%2e/%2e%2e/etc/passwd"} {
		if status, _, _ := stranger.get(p.pages.URL + path); status == http.StatusOK {
			t.Errorf("%s was served", path)
		}
	}
	if err := os.Symlink("/etc/passwd", filepath.Join(p.siteDir, "w1", "link")); err != nil {
		t.Fatal(err)
	}
	if status, _, _ := stranger.get(p.hosts.Public("skerry") + "/link"); status == http.StatusOK {
		t.Error("a link out of the folder was followed")
	}
	if _, body, _ = q.get("/sites/skerry"); !strings.Contains(body, "Published") {
		t.Error("the list of pages doesn't say so")
	}
}

// largePage makes a page with about n blocks in sections of twelve.
func largePage(n int) *doc.Page {
	p := &doc.Page{ID: "p1", Name: "Home", Title: "Home"}
	words := strings.Repeat("Foot passengers, bicycles and the occasional sheep travel from the north steps. ", 3)
	for i := range (n + 11) / 12 {
		s := &doc.Section{ID: fmt.Sprintf("s%d", i), Name: fmt.Sprint("Section ", i)}
		for j := range min(12, n-12*i) {
			s.Blocks = append(
				s.Blocks,
				&doc.Block{
					ID:      fmt.Sprintf("b%dx%d", i, j),
					Kind:    doc.Text,
					Place:   doc.Zoned[doc.Place]{"desktop": {Column: 1 + 4*(j%3), Span: 4, Row: 1 + 6*(j/3), Rows: 6}},
					Content: doc.Content{Words: doc.PlainWords(words)},
				},
			)
		}
		p.Sections = append(p.Sections, s)
	}
	return p
}

// BenchmarkEdit is an edit from request to answer, the database's commit included.
// The cluster of tests runs without fsync.
func BenchmarkEdit(b *testing.B) {
	for _, n := range []int{60, 500} {
		b.Run(fmt.Sprintf("%d blocks", n), func(b *testing.B) {
			p := begin(b)
			if err := p.store.Pages.Add(b.Context(), "w1", "large", 1, func() *doc.Page { d := largePage(n); d.ID = "p2"; return d }()); err != nil {
				b.Fatal(err)
			}
			q := p.as("designer@example.org")
			if status, _, _ := q.get("/sites/skerry/pages/large/bench"); status != http.StatusOK {
				b.Fatal(status)
			}
			var took []time.Duration
			i := 0
			for b.Loop() {
				c, _ := json.Marshal(
					edit.Command{Op: "block.nudge", Node: "b2x4", Zone: "desktop", DX: 1 - 2*(i%2), Base: int64(i)},
				)
				start := time.Now()
				status, body, _ := q.post(
					"/sites/skerry/pages/large/edits",
					url.Values{"command": {string(c)}, "width": {"1280"}, "select": {"b2x4"}},
				)
				took = append(took, time.Since(start))
				if status != http.StatusOK || !stateIn.MatchString(body) {
					b.Fatal(status)
				}
				i++
			}
			b.ReportMetric(median(took), "median-ms")
		})
	}
}

func median(ds []time.Duration) float64 {
	slices.Sort(ds)
	return float64(ds[len(ds)/2].Microseconds()) / 1000
}

package web

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"openplot/core/edit"
	"openplot/jobs"
	"openplot/media/mediatest"
	"openplot/site"
	"openplot/store"
	"openplot/web/sheet"
)

// However a form with files ends, none of its files stays in the temporary folder.
func TestFormsLeaveNoFiles(t *testing.T) {
	p := beginAlone(t)
	tmp := t.TempDir()
	t.Setenv("TMPDIR", tmp)
	d := p.as("designer@example.org")
	left := func() int {
		entries, err := os.ReadDir(tmp)
		if err != nil {
			t.Fatal(err)
		}
		return len(entries)
	}
	large := bytes.Repeat([]byte("x"), 34<<20)
	for _, path := range []string{
		libraryPath, "/sites/skerry/media", housePath + "/file", housePath + "/fonts", libraryPath + "/nowhere/replace", benchPath + "/edits", "/sign-in",
		"/sites/skerry/facts", "/nowhere",
	} {
		status, _ := upload(t, d, path, "large.bin", large, map[string]string{"base": "1"})
		if status == http.StatusOK || status >= 500 {
			t.Errorf("%s: %d", path, status)
		}
		if n := left(); n != 0 {
			t.Fatalf("%s leaves %d files", path, n)
		}
	}
	// One that is taken, and one whose sender goes away.
	if status, body := upload(t, d, libraryPath, "x.png", noise(t, 1500, 1100), nil); status != http.StatusOK {
		t.Errorf("%d %s", status, body)
	}
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	part, err := w.CreateFormFile("file", "x.png")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := part.Write(large); err != nil {
		t.Fatal(err)
	}
	ctx, cancel := context.WithCancel(t.Context())
	r, err := http.NewRequestWithContext(ctx, http.MethodPost, p.app.URL+libraryPath, &cutOff{&b, cancel, 30 << 20})
	if err != nil {
		t.Fatal(err)
	}
	r.Header.Set("Content-Type", w.FormDataContentType())
	if _, err := d.client.Do(r); err == nil {
		t.Error("it wasn't cut off")
	}
	for range 100 {
		if left() == 0 {
			break
		}
		time.Sleep(50 * time.Millisecond)
	}
	if n := left(); n != 0 {
		t.Errorf("%d files are left", n)
	}
}

// cutOff calls something off after so many bytes.
type cutOff struct {
	body io.Reader
	off  func()
	left int
}

func (c *cutOff) Read(b []byte) (int, error) {
	n, err := c.body.Read(b)
	if c.left -= n; c.left <= 0 {
		c.off()
	}
	return n, err
}

// Every route takes so much and no more.
func TestBodiesHaveLimits(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	large := url.Values{"x": {strings.Repeat("x", 5<<20)}}
	for _, r := range p.server.Table() {
		if r.Method != http.MethodPost || strings.HasPrefix(r.Path, "/operator") {
			continue
		}
		path := strings.NewReplacer(":site", "skerry", ":page", "home", ":medium", "m1").Replace(r.Path)
		status, _, _ := d.post(path, large)
		if status == http.StatusOK || status == http.StatusSeeOther || status >= 500 {
			t.Errorf("5 MB at %s: %d", r.Path, status)
		}
	}
}

// What isn't text is no way to an error of ours.
func TestNUL(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for _, path := range []string{
		"/sites/a%00b", "/sites/skerry/pages/a%00b/bench", "/sites/skerry/pages/%ff/bench", "/static/%00", "/sites/skerry?x=%00", "/sites/skerry/slug?name=%00%ff",
		"/sites/skerry/pages/home/bench?select=%00", libraryPath + "/%00/copies",
	} {
		if status, _, _ := d.get(path); status >= 500 {
			t.Errorf("%s: %d", path, status)
		}
	}
	nobody := p.as("")
	for path, form := range map[string]url.Values{
		"/sites/skerry/pages":         {"name": {"a\x00b"}, "slug": {"\x00"}, "ready": {"\x00"}},
		"/sites/skerry/facts":         {"address": {"a\x00b\xff"}, "mail": {"\x00"}},
		"/sites/skerry/entries/erase": {"written": {"\x00"}}, "/sites/skerry/entries/delete": {"id": {"\x00\xff"}},
		"/sites/skerry/previews": {"page": {"\x00"}, "days": {"1"}}, "/sites/skerry/previews/end": {"id": {"\x00"}},
		shelfPath + "/favourite": {"item": {"block:\x00"}}, shelfPath + "/drop": {"id": {"\x00"}},
		libraryPath + "/m1": {"name": {"\x00"}}, housePath + "/take": {"id": {"\x00"}}, housePath + "/keep": {"name": {"\x00\xff"}},
		benchPath + "/edits": {"command": {`{"op":"rename","node":"` + p.page.Sections[0].ID + `","value":"a\u0000b"}`}},
		benchPath + "/keep":  {"section": {"\x00"}},
	} {
		if status, _, _ := d.post(path, form); status >= 500 {
			t.Errorf("%s: %d", path, status)
		}
	}
	if status, _, _ := nobody.post("/sign-in", url.Values{"email": {"a\x00@example.org\xff"}, "password": {"\x00"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("signing in: %d", status)
	}
}

// HEAD answers as GET does, without a body.
func TestHEAD(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for _, path := range []string{"/", "/sign-in", "/healthy", "/ready", "/static/img/mark.svg", "/sites/skerry", benchPath + "/bench", "/nowhere"} {
		get, _, gh := d.get(path)
		r, err := http.NewRequest(http.MethodHead, p.app.URL+path, nil)
		if err != nil {
			t.Fatal(err)
		}
		head, body, hh := d.do(r)
		if head != get || body != "" || hh.Get("Content-Type") != gh.Get("Content-Type") {
			t.Errorf("%s: HEAD %d, GET %d; %d bytes", path, head, get, len(body))
		}
	}
}

// What is the same for everybody asks the database for no session.
func TestStaticFilesReadNoSession(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	if err := p.store.Close(); err != nil { // from now on each question to it fails
		t.Fatal(err)
	}
	for path, want := range map[string]int{
		"/static/img/mark.svg": http.StatusOK, "/fonts/lora-latin-wght-normal.woff2": http.StatusOK, "/healthy": http.StatusOK,
		"/ready": http.StatusServiceUnavailable, "/": http.StatusServiceUnavailable,
	} {
		if status, _, _ := d.get(path); status != want {
			t.Errorf("%s without a database: %d, want %d", path, status, want)
		}
	}
}

// Readiness tells of the disk too.
func TestReady(t *testing.T) {
	p := begin(t)
	if status, _, _ := p.as("").get("/ready"); status != http.StatusOK {
		t.Errorf("%d", status)
	}
	p.server.Room = func() error { return errors.New("the disk is full") }
	if status, body, _ := p.as("").get("/ready"); status != http.StatusServiceUnavailable ||
		strings.Contains(body, "disk") {
		t.Errorf("%d %s", status, body)
	}
}

// A request that its client called off ends, and so does what it waits for.
func TestContextsEnd(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	tx, err := p.store.DB().Begin()
	if err != nil {
		t.Fatal(err)
	}
	defer tx.Rollback()
	if _, err := tx.Exec(`SELECT 1 FROM pages WHERE id = 'p1' FOR UPDATE`); err != nil { // an edit waits for this
		t.Fatal(err)
	}
	ctx, cancel := context.WithCancel(t.Context())
	form := url.Values{"command": {`{"op":"rename","node":"` + p.page.Sections[0].ID + `","value":"x"}`}}
	r, err := http.NewRequestWithContext(
		ctx,
		http.MethodPost,
		p.app.URL+benchPath+"/edits",
		strings.NewReader(form.Encode()),
	)
	if err != nil {
		t.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	waiting := func() (n int) {
		if err := p.store.DB().QueryRow(`SELECT count(*) FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock'`).Scan(&n); err != nil {
			t.Fatal(err)
		}
		return n
	}
	until := func(n int) {
		t.Helper()
		for range 200 {
			if waiting() == n {
				return
			}
			time.Sleep(20 * time.Millisecond)
		}
		t.Fatalf("%d wait, want %d", waiting(), n)
	}
	go func() { _, _ = d.client.Do(r) }()
	until(1)
	cancel()
	until(0)
}

// Guesses are limited by network and by account, whatever the other is.
func TestSignInsAreLimited(t *testing.T) {
	p := begin(t)
	p.server.Proxies = []string{"127.0.0.1"}
	app, err := p.server.App()
	if err != nil {
		t.Fatal(err)
	}
	behind := httptest.NewServer(app)
	defer behind.Close()
	try := func(from, email string) int {
		t.Helper()
		r, err := http.NewRequest(
			http.MethodPost,
			behind.URL+"/sign-in",
			strings.NewReader(url.Values{"email": {email}, "password": {"a wrong guess"}}.Encode()),
		)
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", from)
		status, _, _ := p.as("").do(r)
		return status
	}
	count := func(from func(i int) string, email func(i int) string) (n int) {
		for i := range 14 {
			if try(from(i), email(i)) == http.StatusUnprocessableEntity {
				n++
			}
		}
		return n
	}
	if n := count(func(i int) string { return fmt.Sprintf("2001:db8:1:2::%x", i) }, func(i int) string { return fmt.Sprint(i, "@example.org") }); n < 10 ||
		n > 12 {
		t.Errorf("%d guesses from one network", n)
	}
	if n := count(func(i int) string { return fmt.Sprintf("2001:db8:%x::1", 100+i) }, func(int) string { return " Victim@example.org" }); n != 14 { // see TestNobodyIsLockedOut
		t.Errorf("%d of 14 guesses at one account are looked at", n)
	}
	if n := count(func(i int) string { return fmt.Sprintf("198.51.100.%d", i) }, func(i int) string { return fmt.Sprint("other", i, "@example.org") }); n != 14 {
		t.Errorf("%d of 14 others", n)
	}
	// Without a proxy that is trusted, what it says counts for nothing.
	n := 0
	for i := range 14 {
		r, _ := http.NewRequest(
			http.MethodPost,
			p.app.URL+"/sign-in",
			strings.NewReader(url.Values{"email": {fmt.Sprint("z", i, "@example.org")}, "password": {"x"}}.Encode()),
		)
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", fmt.Sprintf("203.0.113.%d", i))
		if status, _, _ := p.as("").do(r); status == http.StatusUnprocessableEntity {
			n++
		}
	}
	if n > 12 {
		t.Errorf("%d guesses with a forged address", n)
	}
}

// Another password, or a disabled account, ends sessions. Their tokens are in the database as
// hashes only.
func TestSessionsEnd(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	at, err := url.Parse(p.app.URL)
	if err != nil {
		t.Fatal(err)
	}
	var tokens []string
	rows, err := p.store.DB().Query(`SELECT token FROM sessions`)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	for rows.Next() {
		var token string
		if err := rows.Scan(&token); err != nil {
			t.Fatal(err)
		}
		tokens = append(tokens, token)
	}
	for _, c := range d.client.Jar.Cookies(at) {
		for _, token := range tokens {
			if token == c.Value {
				t.Error("the token itself is in the database")
			}
		}
	}
	if err := p.store.People.SetPassword(t.Context(), "designer@example.org", "another password"); err != nil {
		t.Fatal(err)
	}
	if status, _, h := d.get("/"); status != http.StatusSeeOther || h.Get("Location") != "/sign-in" {
		t.Errorf("after another password: %d", status)
	}
	w := p.as("writer@example.org")
	if err := p.store.People.DisableUser(t.Context(), "writer@example.org", true); err != nil {
		t.Fatal(err)
	}
	if status, _, _ := w.get("/"); status != http.StatusSeeOther {
		t.Errorf("a disabled account: %d", status)
	}
}

// A session that nobody used for a while has ended; one in use goes on.
func TestIdleSessionsEnd(t *testing.T) {
	p := begin(t)
	p.server.Idle = time.Hour
	now := time.Now()
	p.server.Now = func() time.Time { return now }
	d := p.as("designer@example.org")
	for range 5 {
		now = now.Add(50 * time.Minute)
		if status, _, _ := d.get("/"); status != http.StatusOK {
			t.Fatalf("in use: %d", status)
		}
	}
	now = now.Add(61 * time.Minute)
	if status, _, h := d.get("/"); status != http.StatusSeeOther || h.Get("Location") != "/sign-in" {
		t.Errorf("after a while: %d", status)
	}
}

// Where people come by HTTPS, cookies are for it alone and for this host.
func TestCookiesByHTTPS(t *testing.T) {
	p := begin(t)
	secure, err := New(
		Config{Store: p.store, Hosts: site.Hosts{Scheme: "https", Base: "pages.example.org"}, Secure: true},
	)
	if err != nil {
		t.Fatal(err)
	}
	app, err := secure.App()
	if err != nil {
		t.Fatal(err)
	}
	form := url.Values{"email": {"designer@example.org"}, "password": {"three islands"}}
	r := httptest.NewRequest(http.MethodPost, "https://plot.example.org/sign-in", strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	w := httptest.NewRecorder()
	app.ServeHTTP(w, r)
	c := w.Result().Cookies()
	if w.Code != http.StatusSeeOther || len(c) != 1 || c[0].Name != "__Host-openplot" || !c[0].Secure ||
		!c[0].HttpOnly ||
		c[0].Path != "/" ||
		c[0].Domain != "" {
		t.Errorf("%d %+v", w.Code, c)
	}
	if w.Header().Get("Strict-Transport-Security") == "" {
		t.Error("no HSTS")
	}
	if csp := w.Header().Get("Content-Security-Policy"); !strings.Contains(csp, "https://media.pages.example.org") {
		t.Error(csp)
	}
}

// What is done that others may have to account for is noted, with who and from where.
func TestAuditLog(t *testing.T) {
	p := begin(t)
	if err := p.store.People.AddMember(t.Context(), "w1", p.userID("designer@example.org"), store.Owner); err != nil {
		t.Fatal(err)
	}
	_, _, _ = p.as("").post("/sign-in", url.Values{"email": {"designer@example.org"}, "password": {"a wrong guess"}})
	d := p.as("designer@example.org")
	if status, body := upload(t, d, libraryPath, "boat.png", noise(t, 60, 40), nil); status != http.StatusOK {
		t.Fatal(body)
	}
	for path, form := range map[string]url.Values{
		benchPath + "/publish":        nil,
		"/sites/skerry/previews":      {"days": {"7"}},
		libraryPath + "/delete":       {"id": {p.media()[0].ID}},
		"/sites/skerry/entries/erase": {"written": {"a@example.org"}},
	} {
		if status, body, _ := d.post(path, form); status != http.StatusOK {
			t.Fatalf("%s: %d %.200s", path, status, body)
		}
	}
	for _, path := range []string{housePath + "/file", "/sites/skerry/entries/file"} {
		if status, _, _ := d.get(path); status != http.StatusOK {
			t.Fatal(path, status)
		}
	}
	_, body, _ := d.get("/sites/skerry/audit")
	for _, act := range []string{
		"signed in", "page published", "preview link made", "picture deleted", "form entries erased", "house style exported", "form entries exported", "127.0.0.1",
	} {
		if !strings.Contains(body, act) {
			t.Errorf("the log doesn't tell %q", act)
		}
	}
	var failed int
	if err := p.store.DB().QueryRow(`SELECT count(*) FROM audit WHERE act = 'sign-in failed' AND who = 'designer@example.org' AND address <> ''`).Scan(&failed); err != nil ||
		failed != 1 {
		t.Errorf("%d failed sign-ins, %v", failed, err)
	}
}

// userID is the id of an account.
func (p *studio) userID(email string) string {
	p.t.Helper()
	u, err := p.store.People.UserByEmail(p.t.Context(), email)
	if err != nil {
		p.t.Fatal(err)
	}
	return u.ID
}

// A job that can't be done ends, is told on the picture, and is seen by operators, who may
// have it tried again.
func TestFailedJobsAreSeen(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	if status, body := upload(t, d, libraryPath, "boat.png", noise(t, 900, 600), nil); status != http.StatusOK {
		t.Fatal(body)
	}
	m := p.media()[0]
	name := filepath.Join(p.server.MediaDir, m.Original)
	sound, err := os.ReadFile(name)
	if err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(name, sound[:100], 0o600); err != nil { // as on a disk that fails
		t.Fatal(err)
	}
	stop, err := jobs.Run(t.Context(), p.tasks())
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = stop(context.Background()) }()
	until := func(what string, is func() bool) {
		t.Helper()
		for range 300 {
			if is() {
				return
			}
			time.Sleep(100 * time.Millisecond)
		}
		t.Fatal(what)
	}
	until("no problem is told", func() bool { return p.media()[0].Problem != "" })
	if _, body, _ := d.get(libraryPath + "/" + m.ID + "/side"); !strings.Contains(
		body,
		"1 of 6 copies: the picture is damaged",
	) ||
		!strings.Contains(body, "Try again") {
		t.Error("the library doesn't tell")
	}
	if status, _, _ := d.get("/operator"); status != http.StatusNotFound {
		t.Errorf("a designer sees what operators see: %d", status)
	}
	if err := p.store.People.SetOperator(t.Context(), "stranger@example.org", true); err != nil {
		t.Fatal(err)
	}
	o := p.as("stranger@example.org")
	var failed []store.FailedJob
	until("the job isn't listed", func() bool {
		failed, err = p.store.Jobs.Failed(t.Context(), 9)
		return err == nil && len(failed) == 1
	})
	if _, body, _ := o.get("/operator"); !strings.Contains(body, "make-copies") || !strings.Contains(body, "damaged") ||
		failed[0].Waiting() {
		t.Error("operators don't see it")
	}
	if err := os.WriteFile(name, sound, 0o600); err != nil {
		t.Fatal(err)
	}
	if status, _, _ := o.post("/operator/jobs", url.Values{"id": {fmt.Sprint(failed[0].ID)}, "do": {"retry"}}); status != http.StatusSeeOther {
		t.Errorf("%d", status)
	}
	until("it isn't tried again", func() bool { m := p.media()[0]; return m.Problem == "" && m.CopiesLeft == 0 })
	if status, _, _ := d.post(libraryPath+"/"+m.ID+"/again", nil); status != http.StatusOK {
		t.Errorf("again, for a whole one: %d", status)
	}
}

// A tall picture can be uploaded and shown, and a flood of hostile files keeps nobody waiting.
func TestOthersGoOnBesideHostileFiles(t *testing.T) {
	if testing.Short() {
		t.Skip("takes a while")
	}
	p := beginAlone(t)
	d := p.as("designer@example.org")
	done := make(chan int, 1)
	go func() {
		n := 0
		for _, h := range mediatest.HostileFiles(3, "hundreds-of-scans.jpg", "noise.webp") {
			if status, _ := upload(t, d, libraryPath, h.Name, h.Data, nil); status < 500 {
				n++
			}
		}
		done <- n
	}()
	c := edit.Command{Op: "rename", Node: p.page.Sections[0].ID, Value: "Beside"}
	if status, body := p.as("designer@example.org").edit(c); status != http.StatusOK {
		t.Errorf("%d %.200s", status, body)
	}
	if n := <-done; n != 2 {
		t.Errorf("%d of 2 were answered", n)
	}
	if status, body := upload(t, d, libraryPath, "tall.png", mediatest.Tall(), nil); status != http.StatusOK ||
		!strings.Contains(body, "100 × 20000") {
		t.Errorf("%d %s", status, body)
	}
}

// A spreadsheet takes nothing that a visitor wrote for a formula.
func TestExportedCells(t *testing.T) {
	for text, want := range map[string]string{
		"": "", "Boat": "Boat", "=1+1": "'=1+1", "+49": "'+49", "-1": "'-1", "@x": "'@x", "\tx": "'\tx", "a=b": "a=b",
	} {
		if got := sheet.Cell(text); got != want {
			t.Errorf("%q: %q", text, got)
		}
	}
}

package main

import (
	"bufio"
	"bytes"
	sqldb "database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"openplot/demo"
	"openplot/postgres"
)

func freePort() string {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		panic(err)
	}
	defer l.Close()
	_, port, _ := net.SplitHostPort(l.Addr().String())
	return port
}

// program is the real server, built and run as bin/start does.
type program struct {
	cmd   *exec.Cmd
	base  string
	pages string // the port of published pages
	once  sync.Once
}

func start(t *testing.T, binary, data string, settings ...string) *program {
	t.Helper()
	p, err := launch(binary, data, settings...)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(p.stop)
	return p
}

// launch runs the server over a data folder, until it answers.
func launch(binary, data string, settings ...string) (*program, error) {
	port, pages := freePort(), freePort()
	cmd := exec.Command(binary, "serve")
	cmd.Env = append(
		append(
			os.Environ(),
			"OPENPLOT_DATA="+data,
			"OPENPLOT_HOST=127.0.0.1",
			"OPENPLOT_PORT="+port,
			"OPENPLOT_PAGES_PORT="+pages,
			"OPENPLOT_DATABASE_URL=",
			"OPENPLOT_DEMO=quick",
			"OPENPLOT_THROWAWAY=1",
			"OPENPLOT_AVIF=no",
			"OPENPLOT_LOG="+filepath.Join(data, "openplot.log"),
		), settings...,
	)
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	p := &program{cmd: cmd, base: "http://127.0.0.1:" + port, pages: pages}
	up := make(chan struct{})
	go func() {
		for s := bufio.NewScanner(out); s.Scan(); {
			if strings.Contains(s.Text(), "Ctrl+C") {
				close(up)
			}
		}
	}()
	select {
	case <-up:
	case <-time.After(180 * time.Second):
		p.stop()
		return nil, errors.New("the server didn't come up")
	}
	return p, nil
}

// stop ends the server as Ctrl+C does.
func (p *program) stop() {
	p.once.Do(func() {
		_ = p.cmd.Process.Signal(syscall.SIGINT)
		_ = p.cmd.Wait() // it may have been killed
	})
}

func signIn(t *testing.T, p *program) *http.Client {
	t.Helper()
	return signInAs(t, p, demo.DesignerEmail, demo.Password)
}

func signInAs(t *testing.T, p *program, email, password string) *http.Client {
	t.Helper()
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	c := &http.Client{Jar: jar}
	r, err := c.PostForm(p.base+"/sign-in", url.Values{"email": {email}, "password": {password}})
	if err != nil || r.StatusCode != http.StatusOK {
		t.Fatalf("signing in: %v", err)
	}
	r.Body.Close()
	return c
}

// clusterDSN is the data source name of the cluster that a running server has.
func clusterDSN(t *testing.T, data string) string {
	t.Helper()
	c, err := postgres.Attach(t.Context(), filepath.Join(data, "postgres"), postgres.Options{})
	if err != nil {
		t.Fatal(err)
	}
	return c.Main()
}

func open(t *testing.T, dsn string) *sqldb.DB {
	t.Helper()
	db, err := sqldb.Open("pgx", dsn)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { db.Close() })
	return db
}

// sql carries out a statement on the database of a server that isn't running.
func sql(t *testing.T, data, statement string) {
	t.Helper()
	c, err := postgres.Start(filepath.Join(data, "postgres"), postgres.Options{Throwaway: true})
	if err != nil {
		t.Fatal(err)
	}
	defer c.Stop()
	db, err := sqldb.Open("pgx", c.Main())
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if _, err := db.Exec(statement); err != nil {
		t.Fatal(err)
	}
}

var stateIn = regexp.MustCompile(`(?s)(?:^|id="state">)(\{.*?\})(?:\n|</script>)`)

type state struct {
	Seq   int64             `json:"seq"`
	Order []string          `json:"order"`
	Names map[string]string `json:"names"`
}

func read(body io.Reader) (s state, err error) {
	b, err := io.ReadAll(body)
	if err != nil {
		return s, err
	}
	m := stateIn.FindSubmatch(b)
	if m == nil {
		return s, fmt.Errorf("no state in %.200s", b)
	}
	return s, json.NewDecoder(bytes.NewReader(m[1])).Decode(&s)
}

// The server is killed with SIGKILL in the middle of a burst of edits from four
// people; started again, it has every edit it answered.
func TestKilledServerLosesNoAnsweredEdit(t *testing.T) {
	if testing.Short() {
		t.Skip("builds and starts the server")
	}
	data := withDemo(t)
	binary, err := built()
	if err != nil {
		t.Fatal(err)
	}
	p := start(t, binary, data)
	const page = "/sites/" + demo.SiteSlug + "/pages/home"
	client := signIn(t, p)
	r, err := client.Get(p.base + page + "/bench")
	if err != nil {
		t.Fatal(err)
	}
	first, err := read(r.Body)
	r.Body.Close()
	if err != nil {
		t.Fatal(err)
	}

	var mu sync.Mutex
	kept := map[string]string{} // the last name answered for each section
	sent := map[string]string{} // the last name sent, answered or not
	answered, seq := 0, int64(0)
	const burst = 60
	enough := make(chan struct{}) // closed by the answer that makes a burst
	var wg sync.WaitGroup
	for i := range 4 {
		wg.Go(func() {
			id, base := first.Order[i], first.Seq
			for n := 0; ; n++ {
				name := fmt.Sprintf("Name %d of %d", n, i)
				c, _ := json.Marshal(map[string]any{"op": "rename", "node": id, "value": name, "base": base})
				mu.Lock()
				sent[id] = name
				mu.Unlock()
				r, err := client.PostForm(p.base+page+"/edits", url.Values{"command": {string(c)}})
				if err != nil {
					return // killed
				}
				s, err := read(r.Body)
				r.Body.Close()
				if err != nil || r.StatusCode != http.StatusOK {
					return
				}
				mu.Lock()
				base, kept[id] = s.Seq, name
				if answered++; answered == burst {
					close(enough)
				}
				seq = max(seq, s.Seq)
				mu.Unlock()
			}
		})
	}
	select {
	case <-enough: // all four are amid the next one
	case <-time.After(2 * time.Minute):
		mu.Lock()
		defer mu.Unlock()
		t.Fatalf("only %d edits were answered in two minutes", answered)
	}
	if err := p.cmd.Process.Kill(); err != nil {
		t.Fatal(err)
	}
	wg.Wait()
	p.stop()

	p = start(t, binary, data)
	client = signIn(t, p)
	r, err = client.Get(p.base + page + "/bench")
	if err != nil {
		t.Fatal(err)
	}
	now, err := read(r.Body)
	r.Body.Close()
	if err != nil {
		t.Fatal(err)
	}
	for id, name := range kept {
		if now.Names[id] != name && now.Names[id] != sent[id] { // the last one may have been kept without an answer
			t.Errorf("%s is called %q; %q was answered", id, now.Names[id], name)
		}
	}
	if now.Seq < seq || now.Seq > seq+4 {
		t.Errorf("the log ends at %d; %d was answered", now.Seq, seq)
	}
	t.Logf("%d edits answered before SIGKILL, the log ends at %d", answered, now.Seq)
}

// The server is killed with SIGKILL while visitors send a form; started again, every entry that was answered is there
// once, and none of the others twice.
func TestKilledServerLosesNoEntry(t *testing.T) {
	if testing.Short() {
		t.Skip("builds and starts the server")
	}
	data := withDemo(t)
	binary, err := built()
	if err != nil {
		t.Fatal(err)
	}
	const behind = "OPENPLOT_TRUSTED_PROXIES=127.0.0.1"
	p := start(t, binary, data, behind)
	host := demo.SiteSlug + ".localhost:" + p.pages
	ask := func(method, path, from string, form url.Values) (int, string) {
		r, err := http.NewRequest(method, "http://127.0.0.1:"+p.pages+path, strings.NewReader(form.Encode()))
		if err != nil {
			t.Error(err)
			return 0, ""
		}
		r.Host = host
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", from)
		res, err := http.DefaultClient.Do(r)
		if err != nil {
			return 0, "" // it was killed
		}
		defer res.Body.Close()
		b, _ := io.ReadAll(res.Body) // what came before it was killed
		return res.StatusCode, string(b)
	}
	_, page := ask("GET", "/ask-for-a-berth/", "192.0.2.1", nil)
	action := regexp.MustCompile(`action="(/_forms/[^"]+)"`).FindStringSubmatch(page)
	consent := regexp.MustCompile(`<input[^>]*type="checkbox"[^>]*>`).FindString(page)
	name := regexp.MustCompile(` name="([^"]+)"`).FindStringSubmatch(consent)
	agrees := regexp.MustCompile(` value="([^"]+)"`).FindStringSubmatch(consent)
	if action == nil || name == nil || agrees == nil {
		t.Fatalf("no form: %.300s", page)
	}
	var mu sync.Mutex
	answered := map[string]bool{}
	enough := make(chan struct{})
	const burst = 80
	var wg sync.WaitGroup
	for i := range 4 {
		wg.Go(func() {
			for n := range 60 {
				who := fmt.Sprintf("visitor %d of %d", n, i)
				status, _ := ask("POST", action[1], fmt.Sprintf("198.51.%d.%d", i, n), url.Values{
					"Your name": {
						who,
					}, "Where to answer": {"somebody@example.org"}, "Day of the sailing": {"2026-12-05"}, "Sailing": {"09:00 Skarva"},
					"What needs a berth": {"Sheep"}, name[1]: {agrees[1]}, "_homepage": {""}, "_took": {"9000"},
				})
				if status == 0 {
					return
				}
				mu.Lock()
				if status == http.StatusOK {
					if answered[who] = true; len(answered) == burst {
						close(enough)
					}
				} else {
					t.Errorf("%s: %d", who, status)
				}
				mu.Unlock()
			}
		})
	}
	select {
	case <-enough:
	case <-time.After(60 * time.Second):
		t.Errorf("%d were answered", len(answered))
	}
	_ = p.cmd.Process.Kill()
	wg.Wait()
	p.stop()
	again := start(t, binary, data, behind)
	db := open(t, clusterDSN(t, data))
	rows, err := db.QueryContext(
		t.Context(),
		`SELECT answers -> 0 ->> 'value', count(*) FROM form_entries WHERE answers::text LIKE '%visitor %' GROUP BY 1`,
	)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	there := map[string]int{}
	for rows.Next() {
		var who string
		var n int
		if err := rows.Scan(&who, &n); err != nil {
			t.Fatal(err)
		}
		if there[who] = n; n > 1 {
			t.Errorf("%s is there %d times", who, n)
		}
	}
	for who := range answered {
		if there[who] != 1 {
			t.Errorf("%s was answered and is there %d times", who, there[who])
		}
	}
	if len(answered) < burst {
		t.Errorf("only %d were answered", len(answered))
	}
	again.stop()
}

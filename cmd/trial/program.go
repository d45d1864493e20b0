package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"mime/multipart"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"openplot/demo"
)

// Others.
type (
	company struct{ *trial } // people who do things meanwhile
)

// trial is a place to try things in.
type trial struct {
	binary, dir string
	settings    []string // of the environment, beyond the usual
}

// begin makes a place. The user postgres has to get into it.
func begin(binary string) (*trial, error) {
	binary, err := filepath.Abs(binary)
	if err != nil {
		return nil, err
	}
	dir, err := os.MkdirTemp("/tmp", "openplot-trial-")
	if err != nil {
		return nil, err
	}
	return &trial{binary: binary, dir: dir}, os.Chmod(dir, 0o711)
}

func (t *trial) end() { _ = os.RemoveAll(t.dir) }

func (t *trial) data() string { return filepath.Join(t.dir, "data") }

// program is a server that runs.
type program struct {
	cmd                  *exec.Cmd
	complaint            *bytes.Buffer
	app, pages, measures string
	took                 time.Duration // to start
	mu                   sync.Mutex
	dana                 *person
}

func freePort() string {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		panic(err)
	}
	defer l.Close()
	_, port, _ := net.SplitHostPort(l.Addr().String())
	return port
}

// command makes a command of the program over the trial's data.
func (t *trial) command(args ...string) *exec.Cmd {
	cmd := exec.Command(t.binary, args...)
	cmd.Env = append(
		append(
			os.Environ(),
			"OPENPLOT_DATA="+t.data(),
			"OPENPLOT_DATABASE_URL=",
			"OPENPLOT_DEMO=quick",
			"OPENPLOT_HOST=127.0.0.1",
			"OPENPLOT_TRUSTED_PROXIES=127.0.0.1",
			"OPENPLOT_LOG="+filepath.Join(t.dir, "openplot.log"),
		),
		t.settings...)
	return cmd
}

// launch starts the server without waiting for it.
func (t *trial) launch() (*program, <-chan error, error) {
	port, pages, measures := freePort(), freePort(), freePort()
	cmd := t.command("serve")
	cmd.Env = append(cmd.Env, "OPENPLOT_PORT="+port, "OPENPLOT_PAGES_PORT="+pages, "OPENPLOT_METRICS_PORT="+measures)
	var complaint bytes.Buffer
	cmd.Stderr = &complaint
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, nil, err
	}
	start := time.Now()
	if err := cmd.Start(); err != nil {
		return nil, nil, err
	}
	p := &program{
		cmd:       cmd,
		complaint: &complaint,
		app:       "http://127.0.0.1:" + port,
		pages:     pages,
		measures:  "http://127.0.0.1:" + measures,
	}
	up := make(chan error, 1)
	go func() {
		for s := bufio.NewScanner(out); s.Scan(); {
			if strings.Contains(s.Text(), "Ctrl+C") {
				p.took = time.Since(start)
				up <- nil
				_, _ = io.Copy(io.Discard, out)
				return
			}
		}
		up <- fmt.Errorf("it ended: %s", complaint.String())
	}()
	return p, up, nil
}

// start starts the server and waits until it serves.
func (t *trial) start() (*program, error) {
	p, up, err := t.launch()
	if err != nil {
		return nil, err
	}
	select {
	case err := <-up:
		return p, err
	case <-time.After(2 * time.Minute):
		_ = p.cmd.Process.Signal(syscall.SIGQUIT) // its stacks
		_ = p.cmd.Wait()
		return nil, fmt.Errorf("it doesn't come up: %s", p.complaint)
	}
}

func (p *program) kill() {
	_ = p.cmd.Process.Kill()
	_ = p.cmd.Wait()
}

func (p *program) stop() {
	_ = p.cmd.Process.Signal(syscall.SIGINT)
	_ = p.cmd.Wait()
}

// person is somebody with a browser, at an address of their own.
type person struct {
	*http.Client
	base, address string
}

func (p *program) person(n int) *person {
	jar, _ := cookiejar.New(nil) // never fails
	return &person{
		&http.Client{
			Jar:       jar,
			Timeout:   90 * time.Second,
			Transport: &http.Transport{MaxIdleConnsPerHost: 4},
			CheckRedirect: func(*http.Request, []*http.Request) error {
				return http.ErrUseLastResponse
			},
		},
		p.app, fmt.Sprintf("10.%d.%d.%d", n>>16&255, n>>8&255, n&255),
	}
}

// signIn signs in as one of the demo's people.
func (p *program) signIn(n int, email, password string) (*person, error) {
	q := p.person(n)
	status, body, err := q.post("/sign-in", url.Values{"email": {email}, "password": {password}})
	if err == nil && status != http.StatusSeeOther {
		err = fmt.Errorf("signing in: %d %.200s", status, body)
	}
	return q, err
}

// designer is the demo's, signed in once for each run of the program.
func (p *program) designer() (*person, error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.dana != nil {
		return p.dana, nil
	}
	q, err := p.signIn(1, demo.DesignerEmail, demo.Password)
	if err == nil {
		p.dana = q
	}
	return q, err
}

func (q *person) ask(method, path, kind string, body io.Reader) (int, string, error) {
	r, err := http.NewRequest(method, q.base+path, body)
	if err != nil {
		return 0, "", err
	}
	r.Header.Set("X-Forwarded-For", q.address)
	if kind != "" {
		r.Header.Set("Content-Type", kind)
	}
	res, err := q.Do(r)
	if err != nil {
		return 0, "", err
	}
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	return res.StatusCode, string(b), err
}

func (q *person) get(path string) (int, string, error) { return q.ask(http.MethodGet, path, "", nil) }

func (q *person) post(path string, form url.Values) (int, string, error) {
	return q.ask(http.MethodPost, path, "application/x-www-form-urlencoded", strings.NewReader(form.Encode()))
}

// upload sends a file to a site's library.
func (q *person) upload(site, name string, data []byte) (int, string, error) {
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	f, err := w.CreateFormFile("file", name)
	if err != nil {
		return 0, "", err
	}
	_, _ = f.Write(data) // into memory
	_ = w.Close()
	return q.ask(http.MethodPost, "/sites/"+site+"/library", w.FormDataContentType(), &b)
}

// state is what the Bench says of a page.
type state struct {
	Seq   int64             `json:"seq"`
	Order []string          `json:"order"`
	Names map[string]string `json:"names"`
}

var stateIn = regexp.MustCompile(`(?s)(?:^|id="state">)(\{.*?\})(?:\n|</script>)`)

func readState(body string) (s state, err error) {
	m := stateIn.FindStringSubmatch(body)
	if m == nil {
		return s, fmt.Errorf("no state in %.200s", body)
	}
	return s, json.Unmarshal([]byte(m[1]), &s)
}

const home = "/sites/" + demo.SiteSlug + "/pages/home"

// bench opens a page.
func (q *person) bench(page string) (state, error) {
	status, body, err := q.get(page + "/bench")
	if err == nil && status != http.StatusOK {
		err = fmt.Errorf("the Bench: %d %.300s", status, body)
	}
	if err != nil {
		return state{}, err
	}
	return readState(body)
}

// edit carries out a command, and gives the state after it.
func (q *person) edit(page string, command map[string]any) (int, state, error) {
	c, err := json.Marshal(command)
	if err != nil {
		return 0, state{}, err
	}
	status, body, err := q.post(page+"/edits", url.Values{"command": {string(c)}, "width": {"1280"}})
	if err != nil || status != http.StatusOK {
		return status, state{}, err
	}
	s, err := readState(body)
	return status, s, err
}

// published is what a site's host answers.
func (p *program) published(site, path string) (int, string, error) {
	r, err := http.NewRequest(http.MethodGet, "http://127.0.0.1:"+p.pages+path, nil)
	if err != nil {
		return 0, "", err
	}
	r.Host = site + ".localhost:" + p.pages
	res, err := http.DefaultClient.Do(r)
	if err != nil {
		return 0, "", err
	}
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	return res.StatusCode, string(b), err
}

// measure gives a value of the program's metrics.
func (p *program) measure(name string) float64 {
	r, err := http.Get(p.measures)
	if err != nil {
		return 0
	}
	defer r.Body.Close()
	for s := bufio.NewScanner(r.Body); s.Scan(); {
		if value, ok := strings.CutPrefix(s.Text(), name+" "); ok {
			v, _ := strconv.ParseFloat(value, 64) // it is a number (Prometheus's text format)
			return v
		}
	}
	return 0
}

// doctor gives an error with what doctor finds.
func (t *trial) doctor() error {
	if out, err := t.command("doctor").CombinedOutput(); err != nil {
		return fmt.Errorf("doctor: %w: %s", err, out)
	}
	return nil
}

// times are how long things took.
type times struct {
	mu  sync.Mutex
	all []time.Duration
}

func (t *times) add(d time.Duration) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.all = append(t.all, d)
}

// at gives a percentile.
func (t *times) at(p float64) time.Duration {
	t.mu.Lock()
	defer t.mu.Unlock()
	if len(t.all) == 0 {
		return 0
	}
	s := slices.Sorted(slices.Values(t.all))
	return s[min(int(p/100*float64(len(s))), len(s)-1)]
}

func (t *times) String() string {
	t.mu.Lock()
	n := len(t.all)
	t.mu.Unlock()
	ms := func(d time.Duration) string { return fmt.Sprintf("%.1f", float64(d.Microseconds())/1000) }
	return fmt.Sprintf(
		"%d, ms: median %s, p95 %s, p99 %s, worst %s",
		n,
		ms(t.at(50)),
		ms(t.at(95)),
		ms(t.at(99)),
		ms(t.at(100)),
	)
}

// wait waits, unless the context ends.
func wait(ctx context.Context, d time.Duration) {
	select {
	case <-ctx.Done():
	case <-time.After(d):
	}
}

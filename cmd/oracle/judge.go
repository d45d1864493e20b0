package main

import (
	"bufio"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path"
	"strings"
	"sync"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/fonts"
	"openplot/icons"
	"openplot/site"
)

// judge is a browser that is asked where things stand, and the server that gives it
// pages.
type judge struct {
	lib     *shape.Library
	root    float64 // the text size that readers set, px, or 0
	base    string
	browser *exec.Cmd
	in      io.WriteCloser
	out     *bufio.Reader
	server  *http.Server

	mu    sync.Mutex
	files map[string]string // address to text
	n     int
}

func startJudge(script string) (*judge, error) {
	lib, err := fonts.Load()
	if err != nil {
		return nil, err
	}
	if b, err := os.ReadFile(uploaded); err == nil {
		if err := lib.Add("Uploaded", false, [2]int{400, 400}, b); err != nil {
			return nil, err
		}
	}
	j := &judge{lib: lib, files: map[string]string{"/empty": empty}}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, fmt.Errorf("listening: %w", err)
	}
	j.base = "http://" + l.Addr().String()
	j.server = &http.Server{Handler: j}
	go func() {
		if err := j.server.Serve(l); !errors.Is(err, http.ErrServerClosed) {
			fmt.Fprintln(os.Stderr, "oracle: serving pages:", err)
		}
	}()
	j.browser = exec.Command("node", script)
	j.browser.Stderr = os.Stderr
	if j.in, err = j.browser.StdinPipe(); err != nil {
		return nil, fmt.Errorf("starting the browser: %w", err)
	}
	out, err := j.browser.StdoutPipe()
	if err != nil {
		return nil, fmt.Errorf("starting the browser: %w", err)
	}
	j.out = bufio.NewReaderSize(out, 1<<20)
	if err := j.browser.Start(); err != nil {
		return nil, fmt.Errorf("starting the browser: %w", err)
	}
	return j, nil
}

func (j *judge) stop() {
	_ = j.in.Close() // its end is what tells the browser to go
	_ = j.browser.Wait()
	_ = j.server.Close()
}

// uploaded is a font file that doesn't ship with Open Plot, as a site's people upload
// one: TrueType, with hints, from Debian's fonts-liberation.
const uploaded = "/usr/share/fonts/truetype/liberation/LiberationSerif-Regular.ttf"

const empty = `<!DOCTYPE html><title>Judge</title><body style="margin:0">`

const picture = `<svg xmlns="http://www.w3.org/2000/svg" width="1440" height="1080"><rect width="1440" height="1080" fill="#789"/></svg>`

func (j *judge) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	if name := path.Base(r.URL.Path); strings.HasSuffix(name, ".woff2") {
		w.Header().Set("Cache-Control", "max-age=3600, immutable")
		w.Header().Set("Content-Type", "font/woff2")
		b, _ := fonts.Files.ReadFile("files/" + name)
		_, _ = w.Write(b)
		return
	}
	if r.URL.Path == "/uploaded.ttf" {
		http.ServeFile(w, r, uploaded)
		return
	}
	if r.URL.Path == element.EmptyPicture {
		w.Header().Set("Content-Type", "image/svg+xml")
		_, _ = io.WriteString(w, `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"/>`)
		return
	}
	if svg, ok := specimenPicture(strings.TrimSuffix(path.Base(r.URL.Path), ".svg")); ok {
		w.Header().Set("Content-Type", "image/svg+xml")
		_, _ = io.WriteString(w, svg)
		return
	}
	if r.URL.Path == "/picture.svg" {
		w.Header().Set("Cache-Control", "max-age=3600, immutable")
		w.Header().Set("Content-Type", "image/svg+xml")
		_, _ = io.WriteString(w, picture)
		return
	}
	j.mu.Lock()
	text, ok := j.files[r.URL.Path]
	j.mu.Unlock()
	if !ok {
		http.NotFound(w, r)
		return
	}
	kind := "text/html; charset=utf-8"
	if strings.HasSuffix(r.URL.Path, ".css") {
		kind = "text/css; charset=utf-8"
	}
	w.Header().Set("Content-Type", kind)
	_, _ = io.WriteString(w, text)
}

// testCase is something to compare.
type testCase struct {
	name, kind string
	zones      doc.Zones
	root       *element.Node
	site       *doc.Site // of a page
	page       *doc.Page
	worst      float64
	at         int // the width of the worst
}

func medium(id string) (element.Medium, bool) {
	return element.Medium{
		ID: id, Width: 1440, Height: 1080,
		Variants: []element.Variant{{URL: "/picture.svg", StyleURL: "/picture.svg", Width: 1440}},
	}, id != ""
}

func pageCase(name string, s *doc.Site, p *doc.Page) testCase {
	b := element.Builder{Site: s, Media: medium, Icon: icons.Drawing}
	return testCase{name: name, kind: "pages", zones: s.Zones, root: b.Page(p), site: s, page: p}
}

// box is where an element stands: tag, border box, and the lines of text in it.
type box struct {
	tag        string
	x, y, w, h float64
	lines      [][2]float64
}

// UnmarshalJSON reads what e2e/judge.mjs writes.
func (b *box) UnmarshalJSON(text []byte) error {
	return json.Unmarshal(text, &[]any{&b.tag, &b.x, &b.y, &b.w, &b.h, &b.lines})
}

// tree is a case's page as core lays it out, or one like it.
func (j *judge) tree(c testCase, root *element.Node) *layout.Tree {
	t := layout.New(j.lib, c.zones, root)
	t.TextSize = j.root
	return t
}

// publish serves a case's page and gives its address.
func (j *judge) publish(c testCase) string {
	var css strings.Builder
	for _, f := range fonts.Needed(emit.Used(c.root)) {
		css.WriteString(site.FontFace(f, "/fonts/").CSS("block"))
	}
	// Boxes are compared where they stand, not where they are painted.
	css.WriteString("*{rotate:none!important;scale:none!important;translate:none!important}\n")
	if j.root > 0 {
		fmt.Fprintf(&css, "html{font-size:%gpx}\n", j.root)
	}
	css.WriteString("@font-face{font-family:\"Uploaded\";font-weight:400;src:url(\"/uploaded.ttf\")}\n")
	j.mu.Lock()
	defer j.mu.Unlock()
	j.n++
	at := fmt.Sprintf("/%d.html", j.n)
	sheet := fmt.Sprintf("/%d.css", j.n)
	html, rules := emit.NewSheet(c.zones).Document(emit.Page{Title: c.name, Language: "en", Stylesheet: sheet}, c.root)
	clear(j.files)
	j.files["/empty"] = empty
	j.files[at], j.files[sheet] = html, css.String()+rules
	return j.base + at
}

// request asks the browser and gives its answer.
func (j *judge) request(question any) ([]byte, error) {
	if err := json.NewEncoder(j.in).Encode(question); err != nil {
		return nil, fmt.Errorf("asking the browser: %w", err)
	}
	line, err := j.out.ReadBytes('\n')
	if err != nil {
		return nil, fmt.Errorf("reading the browser's answer: %w", err)
	}
	return line, nil
}

// ask has the browser lay a tree out at widths.
func (j *judge) ask(c testCase, ws []int) (map[int][]box, error) {
	line, err := j.request(map[string]any{"url": j.publish(c), "widths": ws})
	if err != nil {
		return nil, err
	}
	var answer struct {
		Widths map[int][]box
		Error  string
	}
	if err := json.Unmarshal(line, &answer); err != nil {
		return nil, fmt.Errorf("reading the browser's answer: %w", err)
	}
	if answer.Error != "" {
		return nil, errors.New("in the browser: " + answer.Error)
	}
	return answer.Widths, nil
}

// computed gives core's boxes in document order.
func computed(t *layout.Tree, width int) []named {
	byNode := map[*element.Node]named{}
	t.At(float64(width)).Walk(func(b *layout.Box, x, y float64) {
		v := named{
			b.Node,
			b.Node.Tag + " " + b.Node.Key,
			b.Node.Styles[t.Zone(width)].Balance,
			box{b.Node.Tag, x, y, b.W, b.H, nil},
		}
		for _, l := range b.Lines {
			if l.W > 0 {
				v.lines = append(v.lines, [2]float64{x + l.X, x + l.X + l.W})
			}
		}
		byNode[b.Node] = v
	})
	var out []named
	t.Root.Walk(func(n *element.Node) {
		if v, ok := byNode[n]; ok {
			out = append(out, v)
		}
	})
	return out
}

type named struct {
	node     *element.Node
	name     string
	balanced bool
	box
}

func (a box) off(b box) float64 {
	return max(math.Abs(a.x-b.x), math.Abs(a.y-b.y), math.Abs(a.w-b.w), math.Abs(a.h-b.h))
}

// tally counts how near boxes are.
type tally struct {
	cases, boxes, half, one int
	worst                   float64
	worstAt                 int
	worstName, worstText    string
	paragraphs, lines       int // with as many lines
	edges, edgesNear        int // lines whose ends are within 1 px
}

func (t *tally) add(u *tally) {
	t.cases += u.cases
	t.boxes += u.boxes
	t.half += u.half
	t.one += u.one
	t.paragraphs += u.paragraphs
	t.lines += u.lines
	t.edges += u.edges
	t.edgesNear += u.edgesNear
	if u.worst > t.worst {
		t.worst, t.worstAt, t.worstName = u.worst, u.worstAt, u.worstName
	}
}

func (t *tally) good(least float64) bool {
	return t.boxes > 0 && float64(t.one) >= least*float64(t.boxes) &&
		float64(t.lines) >= min(least, 0.999)*float64(t.paragraphs)
}

func (t *tally) String() string {
	share := func(n, of int) string { return fmt.Sprintf("%.3f %%", 100*float64(n)/float64(max(of, 1))) }
	return fmt.Sprintf(
		"%d, %d boxes: %s within 0.5 px, %s within 1 px, worst %.2f px (%s at %d); lines equal in %s of %d paragraphs; %s of %d line ends within 1 px",
		t.cases,
		t.boxes,
		share(t.half, t.boxes),
		share(t.one, t.boxes),
		t.worst,
		t.worstName,
		t.worstAt,
		share(
			t.lines, t.paragraphs,
		),
		t.paragraphs,
		share(t.edgesNear, t.edges),
		t.edges,
	)
}

// compare holds core against the browser.
func (j *judge) compare(c testCase, ws []int) (*tally, error) {
	got, err := j.ask(c, ws)
	if err != nil {
		return nil, err
	}
	t := &tally{cases: 1}
	tree := j.tree(c, c.root)
	for _, w := range ws {
		want, theirs := computed(tree, w), got[w]
		if len(want) != len(theirs) {
			return nil, fmt.Errorf("at %d px core has %d boxes and the browser %d", w, len(want), len(theirs))
		}
		for i, b := range want {
			g := theirs[i]
			if b.tag != g.tag {
				return nil, fmt.Errorf("at %d px box %d is %s in core and %s in the browser", w, i, b.tag, g.tag)
			}
			off := b.off(g)
			t.boxes++
			if off <= 0.5 {
				t.half++
			}
			if off <= 1 {
				t.one++
			}
			if off > t.worst {
				t.worst, t.worstAt, t.worstName = off, w, c.name+", "+b.name
				t.worstText = fmt.Sprintf(
					"%s is %.2f, %.2f, %.2f × %.2f in core and %.2f, %.2f, %.2f × %.2f in the browser; lines %d and %d",
					b.name,
					b.x,
					b.y,
					b.w,
					b.h,
					g.x,
					g.y,
					g.w,
					g.h,
					len(b.lines),
					len(g.lines),
				)
			}
			if len(b.lines) == 0 && len(g.lines) == 0 {
				continue
			}
			t.paragraphs++
			if len(b.lines) == len(g.lines) {
				t.lines++
				if b.balanced { // where its lines end doesn't move a box (docs/layout.md)
					continue
				}
				for k, l := range b.lines {
					t.edges++
					if math.Abs(l[0]-g.lines[k][0]) <= 1 && math.Abs(l[1]-g.lines[k][1]) <= 1 {
						t.edgesNear++
					} else if t.worst <= 1 {
						t.worstText = fmt.Sprintf(
							"at %d px line %d of %s goes from %.2f to %.2f in core and from %.2f to %.2f in the browser",
							w, k+1, b.name, l[0], l[1], g.lines[k][0], g.lines[k][1],
						)
					}
				}
			} else if t.worst <= 1 {
				t.worstText = fmt.Sprintf("at %d px %s has %d lines in core and %d in the browser", w, b.name, len(b.lines), len(g.lines))
			}
		}
	}
	return t, nil
}

package web

import (
	"bytes"
	"encoding/json"
	"html/template"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/core/layout"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/fonts"
	"openplot/site"
	"openplot/store"
)

// Widths that the Reach covers, in px.
const (
	leastWidth    = 320
	greatestWidth = 1920
)

// view is what the person sees on the Bench: the page at a width, with a node
// selected.
type view struct {
	*stage
	page    *doc.Page
	slug    string
	seq     int64
	history store.History
	width   float64
	zone    int
	selects string
}

// look reads width and selection from the request and prepares the view of the
// page as it stands.
func (s *Server) look(c *gin.Context) (*view, error) {
	st, p := siteOf(c), pageOf(c)
	stage, err := s.stage(c, st, p.Slug)
	if err != nil {
		return nil, err
	}
	v := &view{stage: stage, page: p.Doc, slug: pageSlug(p.Slug), seq: p.Seq}
	if v.history, err = s.Store.History(c, p.ID, p.Seq); err != nil {
		return nil, err
	}
	v.width = float64(st.Zones[0].Typical)
	if w, err := strconv.ParseFloat(c.Request.FormValue("width"), 64); err == nil {
		v.width = min(max(w, leastWidth), greatestWidth) // NaN becomes the least
	}
	v.zone = st.Zones.At(v.width)
	v.selects = c.Request.FormValue("select")
	return v, nil
}

func (v *view) current() doc.Zone { return v.site.Zones[v.zone] }

type benchView struct {
	User     *store.User
	Site     *store.Site
	Page     *doc.Page
	Slug     string
	Pages    []*store.PageInfo
	Designer bool
	Width    int
	Top      topView
	Overview overviewView
	Reach    reachView
	Tray     *trayView
	Shelf    shelfView
	State    template.JS
	Live     string
}

func (s *Server) bench(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	pages, err := s.Store.Pages(c, v.site.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	onShelf, err := s.shelf(c, v.site, user(c).ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	state, err := json.Marshal(v.state(nil, true))
	if err != nil {
		s.fail(c, err)
		return
	}
	s.screen(c, http.StatusOK, "bench", benchView{
		User: user(c), Site: v.site, Page: v.page, Slug: v.slug, Pages: pages, Designer: v.site.Role == store.Designer,
		Width: int(v.width), Top: v.top(), Overview: v.overview(), Reach: v.reach(), Tray: v.tray(), Shelf: onShelf,
		State: template.JS(state), Live: s.PagesURL + "/" + v.site.Slug + "/",
	})
}

// canvas answers with the page itself, for the frame in the middle of the Bench.
// No script runs in it.
func (s *Server) canvas(c *gin.Context) {
	st, err := s.worn(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Set(keySite, st)
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	root := v.builder.Page(&doc.Page{})
	var b strings.Builder
	b.WriteString("<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>Canvas</title><meta name=\"viewport\" content=\"width=device-width\"><style>")
	for _, f := range fonts.Faces {
		b.WriteString(site.FontFace(f, "/fonts/").CSS("block"))
	}
	for _, f := range v.ownFaces() {
		b.WriteString(f.CSS("block"))
	}
	b.WriteString(emit.Reset(nil))
	sheet := emit.NewCanvasSheet(v.site.Zones, "page")
	var body strings.Builder
	sheet.Write(&body, root)
	b.WriteString(sheet.CSS())
	b.WriteString("</style><link rel=\"stylesheet\" href=\"/static/bench/canvas.css\">")
	for _, sec := range v.page.Sections {
		b.WriteString("<style data-css=\"" + sec.ID + "\">" + v.scene(sec).CSS + "</style>")
	}
	b.WriteString("</head>" + strings.TrimSuffix(body.String(), "</body>"))
	for _, sec := range v.page.Sections {
		if !sec.Hidden {
			b.WriteString(v.scene(sec).HTML)
		}
	}
	b.WriteString("</body></html>")
	c.Header("Content-Security-Policy", "default-src 'none'; style-src 'self' 'unsafe-inline'; font-src 'self'; img-src 'self' data: "+s.PagesURL+"; media-src "+s.PagesURL+"; base-uri 'none'; form-action 'none'; frame-ancestors 'self'")
	c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(b.String()))
}

// state is what the Bench's scripts know about the page: enough to move pixels.
type state struct {
	Seq    int64                  `json:"seq"`
	Width  float64                `json:"width"`
	Select string                 `json:"select"`
	Order  []string               `json:"order"`  // sections that are shown
	Show   []sectionText          `json:"show"`   // sections that changed
	Places map[string][]heldBlock `json:"places"` // by section
	Zones  doc.Zones              `json:"zones"`
	Names  map[string]string      `json:"names"`
	Grids  map[string]grid        `json:"grids"` // at Width
}

// grid is where the tracks of a Placed arrangement are, in px from the top left corner
// of the section or container.
type grid struct {
	X         float64   `json:"x"`
	Y         float64   `json:"y"`
	Columns   []float64 `json:"columns"`
	Rows      []float64 `json:"rows"`
	ColumnGap float64   `json:"columnGap"`
	RowGap    float64   `json:"rowGap"`
	RowHeight float64   `json:"rowHeight"`
}

// grids adds the grids of a section and the containers in it, by the id of what holds
// them.
func (v *view) grids(to map[string]grid, sec *doc.Section) {
	root := v.scene(sec).at(v.width)
	if sec.Arrangement == doc.Placed {
		in := root.Children[0]
		to[sec.ID] = v.grid(in.Box, in.X, in.Y)
	}
	placed := map[string]bool{}
	sec.Walk(func(b *doc.Block) {
		placed[b.ID] = b.Kind.Is(doc.Holding) && b.Kind != doc.Series && b.Arrangement == doc.Placed
	})
	root.Walk(func(b *layout.Box, _, _ float64) {
		if id, _ := doc.SplitItem(b.Node.Block); placed[id] {
			to[b.Node.Block] = v.grid(b, 0, 0)
		}
	})
}

func (v *view) grid(box *layout.Box, x, y float64) grid {
	st := &box.Node.Styles[v.zone]
	view := style.Viewport{Width: v.width}
	px := func(l style.Length) float64 { return l.Or(box.W, view, 0) }
	g := grid{X: x + px(st.Padding.Left) + st.Border.Left, Y: y + px(st.Padding.Top) + st.Border.Top, ColumnGap: px(st.ColumnGap), RowGap: px(st.RowGap), RowHeight: px(st.GridAutoRows.Min), Columns: []float64{}, Rows: []float64{}}
	for _, t := range box.Columns {
		g.Columns = append(g.Columns, t.Size)
	}
	for _, t := range box.Rows {
		g.Rows = append(g.Rows, t.Size)
	}
	return g
}

type sectionText struct {
	ID   string `json:"id"`
	HTML string `json:"html"`
	CSS  string `json:"css"`
}

// heldBlock is a block and what it stands in. In a Placed arrangement it has its
// placements by zone id: column, span, row, rows, layer.
type heldBlock struct {
	ID     string            `json:"id"`
	Kind   doc.Kind          `json:"kind"`
	Holder string            `json:"holder"`
	Design bool              `json:"design,omitempty"` // of a Series, its holder
	Placed bool              `json:"placed,omitempty"`
	Holds  bool              `json:"holds,omitempty"`
	Writes bool              `json:"writes,omitempty"` // words of its own
	Zones  map[string][5]int `json:"zones,omitempty"`
	Hidden map[string]bool   `json:"hidden,omitempty"`
}

// held describes the blocks of a holder and of the containers in it.
func (v *view) held(st *state, section string, h doc.Holder, series bool) {
	resolved := place.Resolve(h, v.site.Zones)
	for i, b := range h.Blocks {
		e := heldBlock{ID: b.ID, Kind: b.Kind, Holder: h.ID, Design: series, Placed: h.Arrangement == doc.Placed && !series, Holds: b.Kind.Is(doc.Holding), Writes: b.Kind.Is(doc.Worded)}
		st.Names[b.ID] = blockName(b)
		for z, zone := range v.site.Zones {
			p := resolved[z][i]
			if e.Placed {
				if e.Zones == nil {
					e.Zones = map[string][5]int{}
				}
				e.Zones[zone.ID] = [5]int{p.Column, p.Span, p.Row, p.Rows, p.Layer}
			}
			if p.Hidden {
				if e.Hidden == nil {
					e.Hidden = map[string]bool{}
				}
				e.Hidden[zone.ID] = true
			}
		}
		st.Places[section] = append(st.Places[section], e)
		if e.Holds {
			v.held(st, section, b.Holder(), b.Kind == doc.Series)
		}
	}
}

// state describes the sections named, or every one's placements for nil, when the
// canvas has its text already.
func (v *view) state(changed []string, grids bool) state {
	st := state{Seq: v.seq, Width: v.width, Select: v.selects, Order: []string{}, Show: []sectionText{}, Places: map[string][]heldBlock{}, Zones: v.site.Zones, Names: map[string]string{}, Grids: map[string]grid{}}
	for _, sec := range v.page.Sections {
		if !sec.Hidden {
			st.Order = append(st.Order, sec.ID)
		}
		touched := changed == nil || slices.Contains(changed, sec.ID)
		if !sec.Hidden && (grids || touched) {
			v.grids(st.Grids, sec)
		}
		if !touched {
			continue
		}
		if changed != nil {
			sc := v.scene(sec)
			st.Show = append(st.Show, sectionText{sec.ID, sc.HTML, sc.CSS})
		}
		st.Names[sec.ID] = sec.Name
		st.Places[sec.ID] = []heldBlock{}
		v.held(&st, sec.ID, sec.Holder(), false)
	}
	return st
}

// blockName is the name given, or the kind with its first words.
func blockName(b *doc.Block) string {
	if b.Name != "" {
		return b.Name
	}
	kind := string(b.Kind)
	if a := element.Of(b.Kind); a != nil {
		kind = a.Name
	}
	words := strings.Join(strings.Fields(b.Content.Words.Plain()), " ")
	if b.Kind == doc.Picture {
		words = b.Content.Alt
	}
	if r := []rune(words); len(r) > 28 {
		words = strings.TrimSpace(string(r[:27])) + "…"
	}
	if words == "" {
		return kind
	}
	return kind + ": " + words
}

// topView is the part of the top bar that edits change.
type topView struct {
	Edits            int64
	CanUndo, CanRedo bool
}

func (v *view) top() topView {
	return topView{v.history.Edits, v.history.CanUndo, v.history.CanRedo}
}

type overviewView struct {
	Count    int
	Designer bool
	Items    []overviewItem
}

type overviewItem struct {
	ID, Name, Measure string
	Count             string // of blocks, in words
	Blocks            int
	Many              bool // too many of them
	Hidden, Selected  bool
	Designer          bool
	Drawing           template.HTML
}

func (v *view) overview() overviewView {
	o := overviewView{Count: len(v.page.Sections), Designer: v.site.Role == store.Designer}
	for _, sec := range v.page.Sections {
		o.Items = append(o.Items, v.overviewItem(sec))
	}
	return o
}

// overviewWidth is the width of the Overview's drawings in px.
const overviewWidth = 131

func (v *view) overviewItem(sec *doc.Section) overviewItem {
	it := overviewItem{ID: sec.ID, Name: sec.Name, Hidden: sec.Hidden, Selected: v.selectedSection() == sec.ID, Designer: v.site.Role == store.Designer}
	sec.Walk(func(*doc.Block) { it.Blocks++ })
	it.Count, it.Many = blockCount(it.Blocks), it.Blocks >= manyBlocks
	if sec.Hidden {
		it.Measure = "hidden"
		return it
	}
	box := v.scene(sec).at(v.width)
	if it.Measure = strconv.Itoa(int(box.H + 0.5)); v.over(sec, v.zone) {
		it.Measure = "over"
	}
	it.Drawing = v.drawn(sec, drawing{width: v.width, zone: v.zone}, overviewWidth)
	return it
}

// selectedSection is the selected section, or the one the selected block is in.
func (v *view) selectedSection() string {
	if s, _ := v.page.Section(v.selects); s != nil {
		return s.ID
	}
	id, _ := doc.SplitItem(v.selects)
	if s, _ := v.page.Block(id); s != nil {
		return s.ID
	}
	return ""
}

// reachView is the rule of widths.
type reachView struct {
	Width int
	Zone  doc.Zone
	Zones []reachZone
	Ticks []reachTick
	Least int
	Most  int
}

type reachZone struct {
	doc.Zone
	X, W    float64 // of 1000 units
	Current bool
	Key     int
}

type reachTick struct {
	X     float64
	Label int // px, or 0 for a small tick
}

func (v *view) reach() reachView {
	r := reachView{Width: int(v.width), Zone: v.current(), Least: leastWidth, Most: greatestWidth}
	at := func(px int) float64 { return float64(px-leastWidth) / (greatestWidth - leastWidth) * 1000 }
	zs := v.site.Zones
	for i := len(zs) - 1; i >= 0; i-- {
		from, to := max(zs[i].Min, leastWidth), greatestWidth
		if i > 0 {
			to = zs[i-1].Min
		}
		r.Zones = append(r.Zones, reachZone{zs[i], at(from), at(to) - at(from), i == v.zone, i + 1})
	}
	for px := leastWidth; px <= greatestWidth; px += 40 {
		t := reachTick{X: at(px)}
		if (px-leastWidth)%160 == 0 {
			t.Label = px
		}
		r.Ticks = append(r.Ticks, t)
	}
	return r
}

// parts answers with everything that depends on width and selection.
func (s *Server) parts(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	a := answer{view: v, grids: true, overview: c.Query("overview") != ""}
	s.answer(c, http.StatusOK, a)
}

// answer is what changes on the Bench after a request.
type answer struct {
	*view
	message  string   // for the status line
	link     string   // address that the message leads to
	alert    bool     // the message is about something that went wrong
	grids    bool     // the width is another one
	overview bool     // the whole Overview
	changed  []string // sections to draw and write again
	fresh    bool     // everything is to be shown again
	noTray   bool
	shelf    bool // what lies on the Shelf is another
	lists    bool // the house style's values are others
}

// sayView is the status line.
type sayView struct {
	Message, Link string
	Alert         bool
}

// answer writes parts for htmx, each to its own place.
func (s *Server) answer(c *gin.Context, status int, a answer) {
	var b bytes.Buffer
	var err error
	add := func(target, swap, name string, data any) {
		if err != nil {
			return
		}
		b.WriteString(`<hx-partial hx-target="` + target + `" hx-swap="` + swap + `">`)
		err = s.part(&b, name, data)
		b.WriteString("</hx-partial>\n")
	}
	if a.fresh {
		a.changed = []string{}
		for _, sec := range a.page.Sections {
			a.changed = append(a.changed, sec.ID)
		}
		a.overview = true
	}
	if a.overview {
		add("#overview", "outerHTML", "overview", a.view.overview())
	} else {
		for _, id := range a.changed {
			if sec, _ := a.page.Section(id); sec != nil {
				add("#overview-"+id, "outerHTML", "overview-item", a.view.overviewItem(sec))
			}
		}
	}
	if !a.noTray {
		add("#tray", "outerHTML", "tray", a.view.tray())
	}
	if a.shelf {
		view, serr := s.shelf(c, a.site, user(c).ID)
		if err == nil {
			err = serr
		}
		add("#shelf-items", "outerHTML", "shelf-items", view)
	}
	if a.lists {
		add("#lists", "outerHTML", "lists", map[string]any{"Site": a.site, "Pages": a.source.Pages})
	}
	add("#history", "outerHTML", "history", a.view.top())
	add("#say", "outerHTML", "say", sayView{a.message, a.link, a.alert})
	changed := a.changed
	if changed == nil {
		changed = []string{}
	}
	text, jerr := json.Marshal(a.view.state(changed, a.grids))
	if err == nil {
		err = jerr
	}
	add("#state", "outerHTML", "state", template.JS(text))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Data(status, "text/html; charset=utf-8", b.Bytes())
}

// structural reports whether steps change which sections there are, or their
// order.
func structural(steps []edit.Step) bool {
	return slices.ContainsFunc(steps, func(s edit.Step) bool {
		return s.Do == edit.InsertSection || s.Do == edit.RemoveSection || s.Do == edit.MoveSection
	})
}

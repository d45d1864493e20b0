package checks

import (
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/icons"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is what was found on a page, and on all of a site.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/checks", rights.See, s.siteChecks),
		shell.Post(paths.SiteRoute+"/checks/stop", rights.See, s.stopSweep),
		shell.Get(paths.PageRoute+"/checks", rights.See, s.checks),
		shell.Get(paths.PageRoute+"/checks/marks", rights.See, s.marks),
		shell.Get(paths.PageRoute+"/checks/count", rights.See, s.checkCount),
		shell.Get(paths.PageRoute+"/checks/broken", rights.See, s.broken),
		shell.Get(paths.PageRoute+"/checks/file", rights.See, s.findingsFile),
		shell.Get(paths.PageRoute+"/checks/mend", rights.Compose, s.mend),
		shell.Get(paths.PageRoute+"/checks/mend-all", rights.Compose, s.mendAll),
		shell.Post(paths.PageRoute+"/checks/repair", rights.Compose, s.repair),
		shell.Post(paths.PageRoute+"/checks/quiet", rights.Compose, s.keepQuiet),
	}
}

// check checks the page of a request as it stands.
func (s *Screen) check(c *gin.Context) (*model.Checking, error) {
	st := shell.SiteOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		return nil, err
	}
	return s.Checker.Page(c, st, src, shell.PageOf(c))
}

// offer gives the repair of a finding, proven, or nil.
func (s *Screen) offer(c *gin.Context, k *model.Checking, f *check.Finding, all bool) *model.Offer {
	p := shell.PageOf(c)
	return k.Stage.Offer(c, p.Doc, p.Slug, k.Checked, f, all, s.repairEnv(c, k), k.Others, k.Hushed)
}

// mend answers with the command that would mend a finding, to be tried on the canvas, or with
// nothing.
func (s *Screen) mend(c *gin.Context) {
	k, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	q := c.Query
	key := check.Key{Rule: q("rule"), Node: q("node"), Other: q("other"), Part: q("part")}
	for i := range k.Findings {
		if f := &k.Findings[i]; f.Key() == key {
			if offer := s.offer(c, k, f, false); offer != nil {
				c.JSON(http.StatusOK, gin.H{"label": offer.Label, "command": offer.Command, "worst": f.Worst})
				return
			}
		}
	}
	c.Status(http.StatusNoContent)
}

// mendAll answers with the command that mends what was found in the zone of a width, as far as
// repairs are known, to be tried on the canvas; or with nothing.
func (s *Screen) mendAll(c *gin.Context) {
	k, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	zones := k.Stage.Site.Zones
	width, err := model.ReadWidth(c.Query("width"), float64(zones[0].Typical))
	if err != nil {
		s.RefuseTry(c, err)
		return
	}
	p := shell.PageOf(c)
	all, err := k.Stage.MendAll(c, p.Doc, p.Slug, k.Checked, zones.At(width), s.repairEnv(c, k), k.Others, k.Hushed)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if all == nil {
		c.Status(http.StatusNoContent)
		return
	}
	c.JSON(http.StatusOK, gin.H{"command": all.Command, "of": all.Of, "left": all.Left})
}

// repairEnv is what repairs are checked against.
func (s *Screen) repairEnv(c *gin.Context, k *model.Checking) edit.Env {
	return edit.Env{
		Site:    &k.Stage.Site.Site,
		NewID:   store.NewID,
		Medium:  k.Stage.Medium,
		HasIcon: icons.Has,
		Shared:  s.SharedSection(c, k.Stage.Site.ID),
	}
}

// repair mends a finding, or all of its kind, in one edit.
func (s *Screen) repair(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	k, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	key := keyOf(c)
	for i := range k.Findings {
		f := &k.Findings[i]
		if f.Key() != key {
			continue
		}
		offer := s.offer(c, k, f, c.PostForm("all") != "")
		if offer == nil {
			break
		}
		env := s.repairEnv(c, k)
		_, err := s.Store.Pages.Edit(
			c,
			p.ID,
			shell.User(c).ID,
			p.Seq,
			offer.Command,
			func(d *doc.Page) (*edit.Result, error) { return edit.Apply(d, offer.Command, env) },
		)
		var problem *doc.Problem
		if errors.As(err, &problem) {
			s.showChecks(c, http.StatusUnprocessableEntity, problem.Sentence())
			return
		}
		if errors.Is(err, store.ErrStale) {
			break
		}
		if err != nil {
			s.Fail(c, err)
			return
		}
		c.Redirect(http.StatusSeeOther, paths.To(st.Slug).Page(p.Slug).At("checks")+"?done=mended")
		return
	}
	s.showChecks(
		c,
		http.StatusConflict,
		"The page changed meanwhile, so that this repair isn't one any more. These are the findings now.",
	)
}

func keyOf(c *gin.Context) check.Key {
	return check.Key{
		Rule:  c.PostForm("rule"),
		Node:  c.PostForm("node"),
		Other: c.PostForm("other"),
		Part:  c.PostForm("part"),
	}
}

// mark is a finding as the Reach shows it.
type mark struct {
	Severity int      `json:"severity"`
	Title    string   `json:"title"`
	Say      string   `json:"say"`
	Nodes    []string `json:"nodes"`
	Ranges   [][2]int `json:"ranges"`
	Worst    int      `json:"worst"`
	Key      string   `json:"key"` // as a query
	Share    string   `json:"share,omitempty"`
}

// visited is how wide the windows are in which a page is seen.
type visited []store.Visit

// share says what share of visits a finding touches, or nothing where none are counted. Visits of one
// step are taken to be even over its widths.
func (vs visited) share(f *check.Finding) string {
	all, touched := 0, 0.0
	for _, v := range vs {
		all += v.N
		within := 0
		for px := v.Width; px < v.Width+store.VisitStep; px++ {
			if f.Holds(min(max(px, check.Widths.From), check.Widths.To)) {
				within++
			}
		}
		touched += float64(v.N) * float64(within) / store.VisitStep
	}
	if all == 0 {
		return ""
	}
	switch part := 100 * touched / float64(all); {
	case part > 0 && part < 1:
		return "under 1 % of visits"
	default:
		return fmt.Sprintf("%.0f %% of visits", part)
	}
}

// query is a finding's key as the query of an address.
func query(k check.Key) string {
	return url.Values{"rule": {k.Rule}, "node": {k.Node}, "other": {k.Other}, "part": {k.Part}}.Encode()
}

// Try is where what would mend a finding is tried on the canvas of a page's Bench.
func (f findingView) Try(bench string) template.URL {
	return template.URL(
		bench + "?" + url.Values{"width": {strconv.Itoa(f.Worst)}, "select": {f.Node}}.Encode() + "&" + query(f.Key()),
	)
}

// marks answers with what was found on the page, for the Reach.
func (s *Screen) marks(c *gin.Context) {
	checked, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	visits, err := s.Store.Visits.List(c, shell.PageOf(c).ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	marks := make([]mark, len(checked.Findings))
	for i := range checked.Findings {
		f := &checked.Findings[i]
		m := mark{
			Severity: int(f.Severity),
			Title:    f.Title(checked.Name),
			Say:      f.Say(checked.Name),
			Worst:    f.Worst,
			Nodes:    []string{},
			Key:      query(f.Key()),
			Share:    visited(visits).share(f),
		}
		for _, id := range []string{f.Node, f.Other} {
			if id != "" {
				m.Nodes = append(m.Nodes, id)
			}
		}
		for _, r := range f.Ranges {
			m.Ranges = append(m.Ranges, [2]int{r.From, r.To})
		}
		marks[i] = m
	}
	c.JSON(
		http.StatusOK,
		gin.H{
			"seq":    shell.PageOf(c).Seq,
			"marks":  marks,
			"counts": checked.Counts(),
			"quiet":  len(checked.Quiet),
			"visits": visitBars(visits),
		},
	)
}

// visitBars are steps of widths with their share of the greatest, for the Reach; what lies beyond its
// ends is in the first and the last.
func visitBars(vs []store.Visit) [][3]float64 {
	const steps = (model.GreatestWidth - model.LeastWidth) / store.VisitStep
	var by [steps]int
	most := 1
	for _, v := range vs {
		i := min(max((v.Width-model.LeastWidth)/store.VisitStep, 0), steps-1)
		by[i] += v.N
		most = max(most, by[i])
	}
	bars := [][3]float64{}
	for i, n := range by {
		if from := model.LeastWidth + i*store.VisitStep; n > 0 {
			bars = append(bars, [3]float64{float64(from), float64(from + store.VisitStep), float64(n) / float64(most)})
		}
	}
	return bars
}

// checkCount answers with how much was found on a page, for lists of pages.
func (s *Screen) checkCount(c *gin.Context) {
	k, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if err := s.Store.Findings.KeepFound(c, shell.PageOf(c).ID, shell.PageOf(c).Seq, k.Stage.Look(), k.Counts()); err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(
		c,
		http.StatusOK,
		"check-count",
		gin.H{"Site": shell.SiteOf(c).Slug, "Slug": paths.Of(shell.PageOf(c).Slug), "Counts": k.Counts()},
	)
}

// checksView is the screen of what breaks where.
type checksView struct {
	User     *store.User
	Site     *store.Site
	Page     *store.Page
	Slug     paths.Segment
	Counts   store.Counts
	Chart    checksChart
	Findings []findingView
	Quiet    []findingView
	Shown    int // how many of all are shown
	All      int
	Families []filterChoice
	Zones    []filterChoice
	Graves   []filterChoice
	Table    bool
	Query    address
	Width    int
	Problem  string
	Done     string
	Pages    []*store.PageInfo
	Weights  []weightBar
}

// weightBar is what a zone's visitors load, drawn as a bar.
type weightBar struct {
	Zone  string
	Total int // kB
	Parts []weightPart
}

type weightPart struct {
	Name  string
	Bytes int
	KB    int
	X, W  float64 // on a line of weightWide px
}

// weightWide is how wide the heaviest zone's bar is, in px.
const weightWide = 320.0

// weightsOf draws what is loaded in each zone, from the narrowest.
func weightsOf(zs doc.Zones, by []check.Bytes) (out []weightBar) {
	most := 1
	for _, w := range by {
		most = max(most, w.Sum())
	}
	for z := len(by) - 1; z >= 0; z-- {
		w := by[z]
		bar, x := weightBar{Zone: zs[z].Name, Total: (w.Sum() + 500) / 1000}, 0.0
		for _, p := range []weightPart{{Name: "HTML", Bytes: w.HTML}, {Name: "CSS", Bytes: w.CSS}, {Name: "scripts", Bytes: w.Scripts}, {Name: "fonts", Bytes: w.Fonts}, {Name: "pictures", Bytes: w.Pictures}} {
			p.X, p.W, p.KB = x, float64(p.Bytes)/float64(most)*weightWide, (p.Bytes+500)/1000
			x += p.W
			bar.Parts = append(bar.Parts, p)
		}
		out = append(out, bar)
	}
	return out
}

// address is the screen's address with one thing chosen otherwise.
type address struct{ url.Values }

// With gives the address with a value; "" leaves it out.
func (t address) With(name, v string) string {
	q := url.Values{}
	for k, vs := range t.Values {
		q[k] = vs
	}
	if q.Del(name); v != "" {
		q.Set(name, v)
	}
	return "?" + q.Encode()
}

type filterChoice struct {
	ID, Name string
	Count    int
	Chosen   bool
}

// findingView is a finding as the screen shows it.
type findingView struct {
	*check.Finding
	I                int
	Heading, Says    string
	Short            string
	Where            string // the section it is in
	Widths           string
	Reason, By       string // of one that is kept quiet
	Share            string // of the visits, that it touches, or ""
	Chosen, Composes bool
	Offer, All       *model.Offer // what would mend it, and all like it
}

// Grave is its severity in a word.
func (f findingView) Grave() string { return f.Severity.String() }

// checksChart is widths across, and sections and blocks down.
type checksChart struct {
	Rows   []chartRow
	Zones  []chartZone
	Ticks  []chartTick
	Height float64
	Here   float64 // where the width is
	Width  int
}

type chartRow struct {
	Name   string
	Block  bool
	Y, H   float64
	Bars   []chartBar
	Middle float64
}

type chartBar struct {
	I             int
	X, Y, W       float64
	Grave, Title  string
	Label         string
	LabelX        float64
	End           bool // the label stands before the bar
	Quiet, Chosen bool
	Href          string
}

type chartZone struct {
	Name string
	X, W float64
}

type chartTick struct {
	X     float64
	Label int
	Last  bool
}

// Measures of the chart in px.
const (
	chartLeft  = 150.0
	chartWide  = 690.0
	chartTop   = 58.0
	chartRowH  = 30.0
	chartBarH  = 16.0
	chartEvery = 22.0 // from one bar to the next in a row
)

func chartX(px int) float64 {
	return chartLeft + float64(px-check.Widths.From)/float64(check.Widths.To-check.Widths.From)*chartWide
}

// widthsOf says for which widths a finding holds.
func widthsOf(f *check.Finding) string {
	if len(f.Ranges) == 1 && f.Ranges[0] == check.Widths {
		return "all widths"
	}
	var out []string
	for i, r := range f.Ranges {
		if i == 3 {
			out = append(out, fmt.Sprintf("%d more", len(f.Ranges)-3))
			break
		}
		if r.From == r.To {
			out = append(out, strconv.Itoa(r.From))
			continue
		}
		out = append(out, fmt.Sprintf("%d–%d", r.From, r.To))
	}
	return strings.Join(out, ", ") + " px"
}

// sectionOf gives the section that a node is or stands in, or nil.
func sectionOf(p *doc.Page, node string) *doc.Section {
	id, _ := doc.SplitItem(node)
	if s, _ := p.Section(id); s != nil {
		return s
	}
	s, _ := p.Block(id)
	return s
}

// checks shows what breaks on a page, and where.
func (s *Screen) checks(c *gin.Context) { s.showChecks(c, http.StatusOK, "") }

func (s *Screen) showChecks(c *gin.Context, status int, problem string) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	checked, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	pages, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	q := c.Request.URL.Query()
	v := checksView{
		User: shell.User(
			c,
		), Site: st, Page: p, Slug: paths.Of(p.Slug), Counts: checked.Counts(), Problem: problem, Table: q.Get("as") == "table", Query: address{q},
		All: len(checked.Findings), Pages: pages,
	}
	width, err := model.ReadWidth(q.Get("width"), 0)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v.Width = int(width)
	if q.Get("done") == "mended" {
		v.Done = "Mended. Undo on the Bench takes it back."
	}
	visits, err := s.Store.Visits.List(c, p.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	chosen := q.Get("finding")
	view := func(i int, f *check.Finding) findingView {
		w := findingView{
			Finding:  f,
			I:        i,
			Heading:  f.Title(checked.Name),
			Says:     f.Say(checked.Name),
			Short:    f.Short(checked.Name),
			Widths:   widthsOf(f),
			Share:    visited(visits).share(f),
			Composes: st.Role.May("compose"),
		}
		if sec := sectionOf(p.Doc, f.Node); sec != nil {
			w.Where = sec.Name
		}
		if w.Heading != "" {
			w.Heading = doc.Capital(w.Heading)
		}
		return w
	}
	count := func(choices []filterChoice, id string) {
		for i := range choices {
			if choices[i].ID == id {
				choices[i].Count++
			}
		}
	}
	v.Families, v.Graves = []filterChoice{}, []filterChoice{
		{ID: "broken", Name: "Broken"},
		{ID: "doubtful", Name: "Doubtful"},
		{ID: "hint", Name: "Hints"},
	}
	for _, f := range check.Families {
		v.Families = append(
			v.Families,
			filterChoice{ID: string(f), Name: doc.Capital(string(f))},
		)
	}
	for i := len(st.Zones) - 1; i >= 0; i-- {
		v.Zones = append(v.Zones, filterChoice{ID: st.Zones[i].ID, Name: st.Zones[i].Name})
	}
	for _, choices := range []struct {
		name string
		of   []filterChoice
	}{{"kind", v.Families}, {"zone", v.Zones}, {"grave", v.Graves}} {
		for i := range choices.of {
			choices.of[i].Chosen = q.Get(choices.name) == choices.of[i].ID
		}
	}
	for i := range checked.Findings {
		f := &checked.Findings[i]
		count(v.Families, string(f.Family))
		count(v.Graves, f.Severity.String())
		in := q.Get("zone") == ""
		for z, zone := range st.Zones {
			most := check.Widths.To
			if z > 0 {
				most = st.Zones[z-1].Min - 1
			}
			if slices.ContainsFunc(f.Ranges, func(r check.Range) bool { return r.From <= most && r.To >= zone.Min }) {
				count(v.Zones, zone.ID)
				in = in || zone.ID == q.Get("zone")
			}
		}
		if !in || q.Get("kind") != "" && q.Get("kind") != string(f.Family) ||
			q.Get("grave") != "" && q.Get("grave") != f.Severity.String() {
			continue
		}
		w := view(i, f)
		if w.Chosen = chosen == strconv.Itoa(i) || chosen == "" && len(v.Findings) == 0; w.Chosen {
			v.Width = f.Worst
			if w.Composes {
				if w.Offer = s.offer(c, checked, f, false); w.Offer != nil {
					w.All = s.offer(c, checked, f, true)
				}
			}
		}
		v.Findings = append(v.Findings, w)
	}
	for i := range checked.Quiet {
		w := view(-1, &checked.Quiet[i].Finding)
		w.Reason, w.By = checked.Quiet[i].Reason, checked.Quiet[i].By
		v.Quiet = append(v.Quiet, w)
	}
	if v.Width == 0 {
		v.Width = st.Zones[0].Typical
		if len(v.Findings) > 0 {
			v.Width = v.Findings[0].Worst
		}
	}
	v.Shown, v.Weights = len(v.Findings), weightsOf(st.Zones, checked.Weights())
	v.Chart = chartOf(st, p.Doc, v, checked.Checked)
	s.Screen(c, status, "checks", v)
}

// chartOf lays the chart out: a row for each section, and below it one for each of its blocks
// that something was found about.
func chartOf(st *store.Site, p *doc.Page, v checksView, checked *model.Checked) (ch checksChart) {
	for px := check.Widths.From; px <= check.Widths.To; px += 160 {
		ch.Ticks = append(ch.Ticks, chartTick{chartX(px), px, px == check.Widths.To})
	}
	for i := len(st.Zones) - 1; i >= 0; i-- {
		from, to := max(st.Zones[i].Min, check.Widths.From), check.Widths.To
		if i > 0 {
			to = st.Zones[i-1].Min
		}
		ch.Zones = append(ch.Zones, chartZone{st.Zones[i].Name, chartX(from), chartX(to) - chartX(from)})
	}
	y := chartTop
	add := func(name string, block bool, fs []findingView) {
		if letters := []rune(name); len(letters) > 22 {
			name = strings.TrimSpace(string(letters[:21])) + "…"
		}
		r := chartRow{Name: name, Block: block, Y: y, H: max(chartRowH, float64(len(fs))*chartEvery+8)}
		r.Middle = y + r.H/2
		for k, f := range fs {
			top := y + (r.H-float64(len(fs))*chartEvery)/2 + float64(k)*chartEvery + (chartEvery-chartBarH)/2
			for n, w := range f.Ranges {
				b := chartBar{
					I: f.I, X: chartX(w.From), W: max(chartX(w.To)-chartX(w.From), 3), Y: top, Grave: f.Severity.String(), Quiet: f.I < 0, Chosen: f.Chosen,
					Title: f.Heading + ", " + f.Widths,
				}
				if f.I >= 0 {
					b.Href = v.Query.With("finding", strconv.Itoa(f.I)) + "#finding-" + strconv.Itoa(f.I)
				}
				if n == len(f.Ranges)-1 {
					b.Label = f.Short
					if b.Quiet {
						b.Label = "kept quiet: " + f.Reason
					}
					most := 44
					if b.LabelX = b.X + b.W + 7; b.LabelX > chartLeft+chartWide-210 {
						first := chartX(f.Ranges[0].From)
						if b.LabelX, b.End = first-7, true; first < chartLeft+220 {
							b.LabelX, b.End = first+8, false // it lies on the bar
						}
					}
					if letters := []rune(b.Label); len(letters) > most {
						b.Label = strings.TrimSpace(string(letters[:most-1])) + "…"
					}
				}
				r.Bars = append(r.Bars, b)
			}
		}
		ch.Rows = append(ch.Rows, r)
		y += r.H
	}
	of := func(in func(f *findingView) bool) (out []findingView) {
		for _, list := range [][]findingView{v.Findings, v.Quiet} {
			for i := range list {
				if in(&list[i]) {
					out = append(out, list[i])
				}
			}
		}
		return out
	}
	if whole := of(func(f *findingView) bool { return sectionOf(p, f.Node) == nil }); len(whole) > 0 {
		add("The page", false, whole)
	}
	for _, sec := range p.Sections {
		if sec.Hidden {
			continue
		}
		add(sec.Name, false, of(func(f *findingView) bool { return f.Node == sec.ID }))
		sec.Walk(func(b *doc.Block) {
			mine := of(func(f *findingView) bool { id, _ := doc.SplitItem(f.Node); return id == b.ID })
			if len(mine) > 0 {
				add(checked.Name(b.ID), true, mine)
			}
		})
	}
	ch.Height, ch.Width = y+8, v.Width
	ch.Here = chartX(min(max(v.Width, check.Widths.From), check.Widths.To))
	return ch
}

// keepQuiet notes that a finding is meant to be so, or has it be told again.
func (s *Screen) keepQuiet(c *gin.Context) {
	p := shell.PageOf(c)
	k := keyOf(c)
	to := paths.To(shell.SiteOf(c).Slug).Page(p.Slug).At("checks")
	if c.PostForm("again") != "" {
		if err := s.Store.Findings.TellAgain(c, p.ID, k); err != nil {
			s.Fail(c, err)
			return
		}
		c.Redirect(http.StatusSeeOther, to)
		return
	}
	reason := strings.Join(strings.Fields(c.PostForm("reason")), " ")
	if n := len([]rune(reason)); n == 0 || n > 200 {
		s.showChecks(
			c,
			http.StatusUnprocessableEntity,
			doc.Problemf("Reason", "has %d characters; write 1 to 200, for whoever asks later", n).Sentence(),
		)
		return
	}
	if check.Find(k.Rule) == nil {
		s.showChecks(
			c,
			http.StatusUnprocessableEntity,
			doc.Problemf("Finding", "%.40q isn't one of the rules", k.Rule).Sentence(),
		)
		return
	}
	err := s.Store.Findings.KeepQuiet(
		c,
		p.ID,
		shell.User(c).ID,
		store.Quiet{
			Rule:    k.Rule,
			Node:    k.Node,
			Other:   k.Other,
			Part:    k.Part,
			Content: model.About(p.Doc, k),
			Reason:  reason,
		},
	)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, to)
}

// findingsFile answers with what was found as a file: CSV, JSON or SARIF 2.1.0.
func (s *Screen) findingsFile(c *gin.Context) {
	checked, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	p := shell.PageOf(c)
	name := shell.SiteOf(c).Slug + "-" + string(paths.Of(p.Slug))
	var b []byte
	kind, ending := "application/json", "json"
	switch c.Query("as") {
	case "csv":
		kind, ending = "text/csv; charset=utf-8", "csv"
		b, err = checked.CSV()
	case "sarif":
		kind, ending = "application/sarif+json", "sarif"
		b, err = checked.SARIF("/" + p.Slug)
	default:
		b, err = checked.JSON()
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="`+name+`.checks.`+ending+`"`)
	c.Data(http.StatusOK, kind, b)
}

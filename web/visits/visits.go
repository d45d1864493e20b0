// Package visits is the screen of what is counted of visits.
package visits

import (
	"cmp"
	"encoding/csv"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"golang.org/x/text/language"
	"golang.org/x/text/language/display"

	"openplot/core/rights"
	"openplot/origin"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/sheet"
	"openplot/web/shell"
)

// Screen is how a site is visited.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/visits", rights.See, s.visits),
		shell.Within(shell.Writing, shell.Get(paths.SiteRoute+"/visits/file", rights.Keep, s.file)),
	}
}

// period is how long a time is looked at, in steps.
type period struct {
	By, Name string
	steps    int
	step     func(time.Time, int) time.Time // so many steps later
	begins   func(time.Time) time.Time      // of the step that a day is in
	words    func(time.Time) string         // of a step, by its first day
}

// periods are what there is; days are those of UTC, as they are counted.
var periods = []period{
	{
		"day",
		"28 days",
		28,
		func(t time.Time, n int) time.Time { return t.AddDate(0, 0, n) },
		func(t time.Time) time.Time { return t },
		func(t time.Time) string { return t.Format("2 Jan") },
	},
	{
		"week",
		"26 weeks",
		26,
		func(t time.Time, n int) time.Time { return t.AddDate(0, 0, 7*n) },
		monday,
		func(t time.Time) string { return "week of " + t.Format("2 Jan") },
	},
	{
		"month",
		"12 months",
		12,
		func(t time.Time, n int) time.Time { return t.AddDate(0, n, 0) },
		func(t time.Time) time.Time { return t.AddDate(0, 0, 1-t.Day()) },
		func(t time.Time) string { return t.Format("January 2006") },
	},
}

// monday begins a week (ISO 8601).
func monday(t time.Time) time.Time { return t.AddDate(0, 0, -(int(t.Weekday())+6)%7) }

func today() time.Time { return time.Now().UTC().Truncate(24 * time.Hour) }

// view is the screen.
type view struct {
	Site    *store.Site
	Periods []choice
	By      string
	Steps   []step
	Ticks   []tick
	Totals  []total
	Most    string // as the chart is high
	Lists   []list
	MayKeep bool
}

type choice struct {
	Name, Href string
	Here       bool
}

// step is a day, a week or a month, with how much came in it and in the one as long before as the period is.
type step struct {
	Words                 string
	Views, Visits, Before int
	X, Width              float64
	Y, Height             float64 // of the views
	VisitsY, VisitsHeight float64
	BeforeY               float64
}

type tick struct {
	X     float64
	Words string
}

// total is how much came in all, and how that compares.
type total struct {
	Name    string
	N       string
	Against string
}

// list is what came most of a sort.
type list struct {
	Title, None string
	Rows        []listed
}

type listed struct {
	Words, Path string
	N           int
	Share       float64 // of the first, in px
}

// What the chart is drawn in, in px.
const (
	chartWide = 1000.0
	chartHigh = 160.0
)

func (s *Screen) visits(c *gin.Context) {
	st := shell.SiteOf(c)
	p := periods[0]
	v := view{Site: st, MayKeep: st.Role.May(rights.Keep)}
	for _, other := range periods {
		if other.By == c.Query("by") {
			p = other
		}
	}
	for _, other := range periods {
		v.Periods = append(
			v.Periods,
			choice{other.Name, paths.To(st.Slug).At("visits") + "?by=" + other.By, other.By == p.By},
		)
	}
	v.By = p.By
	if !st.CountsVisits {
		s.Screen(c, http.StatusOK, "visits", v)
		return
	}
	end := p.step(p.begins(today()), 1)
	begin := p.step(end, -p.steps)
	before := p.step(begin, -p.steps)
	if err := s.draw(c, &v, p, before, begin, end); err != nil {
		s.Fail(c, err)
		return
	}
	if err := s.lists(c, &v, begin, end); err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, http.StatusOK, "visits", v)
}

// draw reads how much came by step, and lays out the chart.
func (s *Screen) draw(c *gin.Context, v *view, p period, before, begin, end time.Time) error {
	v.Steps = make([]step, p.steps)
	at := func(from, day time.Time) int { // the step that a day is in, of those from one on
		for i := p.steps - 1; i > 0; i-- {
			if !day.Before(p.step(from, i)) {
				return i
			}
		}
		return 0
	}
	sums := map[string][2]int{}
	for _, what := range []string{store.CountedView, store.CountedVisit, store.CountedEntry} {
		days, err := s.Store.Visits.ByDay(c, v.Site.ID, what, before, end)
		if err != nil {
			return err
		}
		sum := sums[what]
		for _, d := range days {
			if d.Day.Before(begin) {
				sum[1] += d.N
				if what == store.CountedView {
					v.Steps[at(before, d.Day)].Before += d.N
				}
				continue
			}
			sum[0] += d.N
			switch one := &v.Steps[at(begin, d.Day)]; what {
			case store.CountedView:
				one.Views += d.N
			case store.CountedVisit:
				one.Visits += d.N
			}
		}
		sums[what] = sum
	}
	most := 1
	for _, one := range v.Steps {
		most = max(most, one.Views, one.Before)
	}
	v.Most = grouped(most)
	wide := chartWide / float64(p.steps)
	high := func(n int) float64 { return chartHigh * float64(n) / float64(most) }
	for i := range v.Steps {
		one := &v.Steps[i]
		one.Words = p.words(p.step(begin, i))
		one.X, one.Width = float64(i)*wide+wide*0.15, wide*0.7
		one.Height, one.VisitsHeight = high(one.Views), high(one.Visits)
		one.Y, one.VisitsY, one.BeforeY = chartHigh-one.Height, chartHigh-one.VisitsHeight, chartHigh-high(one.Before)
		if i%max(p.steps/6, 1) == 0 {
			v.Ticks = append(v.Ticks, tick{float64(i) * wide, one.Words})
		}
	}
	name := map[string]string{"day": "the 28 days before", "week": "the 26 weeks before", "month": "the 12 months before"}[p.By]
	for _, t := range [][2]string{{"Views", store.CountedView}, {"Visits", store.CountedVisit}, {"Forms sent", store.CountedEntry}} {
		sum := sums[t[1]]
		v.Totals = append(v.Totals, total{t[0], grouped(sum[0]), against(sum[0], sum[1], name)})
	}
	return nil
}

// against compares with a time before in words.
func against(now, before int, name string) string {
	switch {
	case before == 0:
		return "none in " + name
	case now == before:
		return "as many as in " + name
	}
	return strings.Replace(fmt.Sprintf("%+d %% on %s", (now-before)*100/before, name), "-", "−", 1)
}

// grouped writes a number with spaces between thousands (ISO 80000-1).
func grouped(n int) string {
	digits := strconv.Itoa(n)
	for i := len(digits) - 3; i > 0; i -= 3 {
		digits = digits[:i] + "\u202f" + digits[i:]
	}
	return digits
}

// mostListed is how many of a sort are listed, and barWide how wide the longest bar is, in px.
const (
	mostListed = 10
	barWide    = 120.0
)

// lists reads what came most.
func (s *Screen) lists(c *gin.Context, v *view, begin, end time.Time) error {
	pages, err := s.Store.Pages.List(c, v.Site.ID)
	if err != nil {
		return err
	}
	names := map[string]listed{}
	for _, p := range pages {
		names[p.ID] = listed{Words: p.Name, Path: paths.To(v.Site.Slug).Page(p.Slug).At("bench")}
	}
	media, err := s.Store.Media.List(c, v.Site.ID)
	if err != nil {
		return err
	}
	for _, m := range media {
		names[m.ID] = listed{Words: m.Name}
	}
	forms, err := s.Store.Visible.FormPages(c, v.Site.ID)
	if err != nil {
		return err
	}
	for form, page := range forms {
		names[form] = listed{Words: "The form on " + names[page].Words, Path: names[page].Path}
	}
	for _, l := range []struct{ title, what, none string }{
		{"Pages", store.CountedPage, "Nobody has looked at a page yet."},
		{"From other sites", store.CountedFrom, "Nobody came from another site."},
		{"Campaigns", store.CountedCampaign, "No address said one (utm_source, utm_medium, utm_campaign)."},
		{"Languages", store.CountedLanguage, "Nothing yet."},
		{"Forms sent", store.CountedEntry, "Nobody has sent a form."},
		{"Searches that found nothing", store.CountedSearch, "Every search found something."},
		{"Addresses that aren’t there", store.CountedMissing, "Nobody asked for a page that isn’t there."},
		{"Files taken", store.CountedFile, "Nobody took a file."},
	} {
		top, err := s.Store.Visits.Top(c, v.Site.ID, l.what, begin, end, mostListed)
		if err != nil {
			return err
		}
		out := list{Title: l.title, None: l.none}
		for _, k := range top {
			one := listed{Words: k.Key, N: k.N, Share: barWide * float64(k.N) / float64(top[0].N)}
			switch l.what {
			case store.CountedPage, store.CountedFile, store.CountedEntry:
				of := names[k.Key]
				one.Words, one.Path = cmp.Or(of.Words, "One that isn’t there any more"), of.Path
			case store.CountedLanguage:
				if tag, err := language.Parse(k.Key); err == nil {
					one.Words = cmp.Or(display.English.Languages().Name(tag), k.Key)
				}
			}
			if k.Key == "" {
				one.Words = "others"
			}
			out.Rows = append(out.Rows, one)
		}
		v.Lists = append(v.Lists, out)
	}
	return nil
}

// file sends all that was counted as CSV (RFC 4180).
func (s *Screen) file(c *gin.Context) {
	st := shell.SiteOf(c)
	s.Note(c, "visits exported", st.ID, "")
	c.Header("Content-Type", "text/csv; charset=utf-8")
	c.Header("Content-Disposition", `attachment; filename="`+st.Slug+`-visits.csv"`)
	w := csv.NewWriter(c.Writer)
	w.UseCRLF = true
	_ = w.Write([]string{"Day", "What", "Of", "How often"}) // a failed write is told by the last one
	err := s.Store.Visits.EachCount(c, st.ID, func(day time.Time, what, key string, n int) error {
		return w.Write([]string{day.Format(time.DateOnly), what, sheet.Cell(strings.TrimSpace(key)), strconv.Itoa(n)})
	})
	if w.Flush(); err != nil || w.Error() != nil { // the file has begun; it ends short
		s.Log.Error("export", "id", origin.RequestID(c), "error", err)
	}
}

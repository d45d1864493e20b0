package versions

import (
	"errors"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/compare"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is how pages and sites were before.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/versions", rights.See, s.siteVersions),
		shell.Within(
			shell.Writing,
			shell.Post(paths.SiteRoute+"/versions/restore", rights.House, s.restoreSiteVersion),
		),
		shell.Get(paths.PageRoute+"/versions", rights.See, s.versions),
		shell.Post(paths.PageRoute+"/versions", rights.Compose, s.nameVersion),
		shell.Post(paths.PageRoute+"/versions/restore", rights.Compose, s.restoreVersion),
		shell.Get(paths.PageRoute+"/versions/:version/canvas", rights.See, s.versionCanvas),
		shell.Get(paths.PageRoute+"/versions/:version/drawing", rights.See, s.versionDrawing),
	}
}

// versionsView is the screen of what a page was like.
type versionsView struct {
	User    *store.User
	Site    *store.Site
	Page    *store.Page
	Slug    paths.Segment
	Days    []versionDay
	Shown   *versionRow // the one that is side by side with now, or nil
	Changes []compare.Change
	Lines   []string
	Widths  []doc.Zone
	Problem string
	Done    string
}

type versionDay struct {
	Name     string
	Open     bool // its versions are shown without asking
	Versions []versionRow
}

type versionRow struct {
	store.Version
	Time  string
	Why   string
	Lines []string // what it changed, against the one before
	Shown bool
}

// openDays is of how many days, the last ones, the versions are shown without asking.
const openDays = 2

// shownVersions is how many versions the screen shows.
const shownVersions = 60

// why says why a version was kept, from the one before it, or nil: what is only an hour's work says which.
func why(v store.Version, before *store.Version, zone *time.Location) string {
	switch v.Kind {
	case store.Named:
		return v.Note
	case store.Published:
		return "Published"
	case store.Before:
		return v.Note
	}
	from, edits := v.MadeAt.Add(-time.Hour), v.Seq
	if before != nil {
		edits -= before.Seq
		if before.MadeAt.After(from) {
			from = before.MadeAt
		}
	}
	words := from.In(zone).Format("15:04") + " to " + v.MadeAt.In(zone).Format("15:04")
	switch {
	case edits == 1:
		words += ", 1 edit"
	case edits > 1:
		words += ", " + strconv.FormatInt(edits, 10) + " edits"
	}
	return words
}

// versions shows what a page was like, and one of those states beside how it is.
func (s *Screen) versions(c *gin.Context) { s.showVersions(c, http.StatusOK, "") }

func (s *Screen) showVersions(c *gin.Context, status int, problem string) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	vs, err := s.Store.Log.Versions(c, st.ID, p.ID, shownVersions)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := versionsView{
		User:    shell.User(c),
		Site:    st,
		Page:    p,
		Slug:    paths.Of(p.Slug),
		Widths:  st.Zones,
		Problem: problem,
	}
	if c.Query("done") != "" {
		v.Done = "Taken back. What the page was before is kept as a version."
	}
	docs := make([]*doc.Page, len(vs))
	for i, version := range vs {
		if _, docs[i], err = s.Store.Log.VersionOf(c, st.ID, p.ID, version.ID); err != nil {
			s.Fail(c, err)
			return
		}
	}
	zone := desk.ZoneOf(st)
	wanted := c.Query("version")
	for i, version := range vs {
		row := versionRow{Version: version, Time: version.MadeAt.In(zone).Format("15:04")}
		var before *store.Version
		if i+1 < len(vs) {
			before = &vs[i+1]
			if row.Lines = compare.Say(compare.Pages(docs[i+1], docs[i])); len(row.Lines) > 3 {
				row.Lines = append(row.Lines[:2:2], "and more")
			}
		}
		row.Why = why(version, before, zone)
		if row.Shown = wanted == version.ID || wanted == "" && i == 0; row.Shown {
			shown := row
			v.Shown, v.Changes = &shown, compare.Pages(docs[i], p.Doc)
			v.Lines = compare.Say(v.Changes)
		}
		day := version.MadeAt.In(zone).Format("Monday, 2 January")
		if len(v.Days) == 0 || v.Days[len(v.Days)-1].Name != day {
			v.Days = append(v.Days, versionDay{Name: day, Open: len(v.Days) < openDays})
		}
		last := &v.Days[len(v.Days)-1]
		last.Open = last.Open || row.Shown
		last.Versions = append(last.Versions, row)
	}
	s.Screen(c, status, "versions", v)
}

// versionDoc gives the page as the version in a request's address has it, "now" being as it is.
func (s *Screen) versionDoc(c *gin.Context) (*model.View, bool) {
	v, err := s.Look(c)
	if err == nil && c.Param("version") != "now" {
		_, v.Page, err = s.Store.Log.VersionOf(c, shell.SiteOf(c).ID, shell.PageOf(c).ID, c.Param("version"))
	}
	if err != nil {
		s.Fail(c, err)
		return nil, false
	}
	return v, true
}

// versionCanvas answers with a version of a page as a document.
func (s *Screen) versionCanvas(c *gin.Context) {
	if v, ok := s.versionDoc(c); ok {
		v.Stage = v.Stage.Passing()
		s.CanvasOf(c, v)
	}
}

// The size in px of a version's drawing.
const (
	versionWidth  = 96
	versionHeight = 110
)

// versionDrawing answers with a version of a page drawn small.
func (s *Screen) versionDrawing(c *gin.Context) {
	if v, ok := s.versionDoc(c); ok {
		c.Data(
			http.StatusOK,
			"text/html; charset=utf-8",
			[]byte(v.Stage.Passing().DrawPage(v.Page, versionWidth, versionHeight)),
		)
	}
}

// nameVersion keeps the page as it is under a name.
func (s *Screen) nameVersion(c *gin.Context) {
	name := strings.TrimSpace(c.PostForm("name"))
	if n := len([]rune(name)); n == 0 || n > doc.MaxNameRunes {
		s.showVersions(
			c,
			http.StatusUnprocessableEntity,
			doc.Problemf("Name", "has %d characters; write 1 to %d, such as Before the new prices", n, doc.MaxNameRunes).
				Sentence(),
		)
		return
	}
	if err := s.Store.Log.KeepVersion(c, shell.SiteOf(c).ID, shell.PageOf(c).ID, shell.User(c).ID, store.Named, store.Clean(name)); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(shell.SiteOf(c).Slug).Page(shell.PageOf(c).Slug).At("versions"))
}

// restoreVersion takes a page back to a version, or a section or a block of it.
func (s *Screen) restoreVersion(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	_, err := s.Store.Log.RestoreVersion(
		c,
		st.ID,
		p.ID,
		shell.User(c).ID,
		c.PostForm("version"),
		store.Clean(c.PostForm("node")),
	)
	var problem *doc.Problem
	switch {
	case errors.As(err, &problem):
		s.showVersions(c, http.StatusUnprocessableEntity, problem.Sentence())
		return
	case errors.Is(err, store.ErrStale):
		s.showVersions(c, http.StatusConflict, "Somebody edited the page at the same time. Here is how it stands now.")
		return
	case err != nil:
		s.Fail(c, err)
		return
	}
	c.Redirect(
		http.StatusSeeOther,
		paths.To(st.Slug).Page(p.Slug).At("versions")+"?done=1&version="+c.PostForm("version"),
	)
}

// restoreSiteVersion takes all pages of a site and its house style back to a version of it.
func (s *Screen) restoreSiteVersion(c *gin.Context) {
	st := shell.SiteOf(c)
	id := store.Clean(c.PostForm("version"))
	then, err := s.Store.Log.SiteVersion(c, st.ID, id)
	if err != nil {
		s.Fail(c, err)
		return
	}
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if err := s.Store.Log.KeepSiteVersion(c, st.ID, shell.User(c).ID, store.Before, "Before restoring the site of "+then.MadeAt.In(desk.ZoneOf(st)).Format("2 January, 15:04")); err != nil {
		s.Fail(c, err)
		return
	}
	seen := store.Seen{House: st.Version, Pages: map[string]int64{}}
	for _, p := range infos {
		if then.Pages[p.ID] != nil {
			seen.Pages[p.ID] = p.Seq
		}
	}
	_, err = s.Store.Log.Together(
		c,
		st.ID,
		shell.User(c).ID,
		seen,
		func(_ doc.House, pages map[string]*doc.Page) (*store.Act, error) {
			act := &store.Act{
				House:        &then.House,
				HouseCommand: edit.HouseCommand{Op: "restore"},
				Pages:        map[string]store.PageAct{},
			}
			for id, now := range pages {
				r, err := edit.Restore(now, then.Pages[id], "", func(string) *doc.Section { return nil })
				if err != nil {
					return nil, err
				}
				act.Pages[id] = store.PageAct{Command: edit.Command{Op: "restore"}, Result: r}
			}
			return act, nil
		},
	)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At()+"?done=siteback")
}

// siteVersionsView is the screen of what a site was like.
type siteVersionsView struct {
	User    *store.User
	Site    *store.Site
	Days    []versionDay
	MayTake bool
}

// siteVersions lists what a site was like.
func (s *Screen) siteVersions(c *gin.Context) {
	st := shell.SiteOf(c)
	vs, err := s.Store.Log.SiteVersions(c, st.ID, shownVersions)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := siteVersionsView{User: shell.User(c), Site: st, MayTake: st.Role.May(rights.House)}
	zone := desk.ZoneOf(st)
	for _, version := range vs {
		day := version.MadeAt.In(zone).Format("Monday, 2 January")
		if len(v.Days) == 0 || v.Days[len(v.Days)-1].Name != day {
			v.Days = append(v.Days, versionDay{Name: day})
		}
		last := &v.Days[len(v.Days)-1]
		row := versionRow{Version: version, Time: version.MadeAt.In(zone).Format("15:04"), Why: why(version, nil, zone)}
		if version.Kind == store.Published {
			row.Why = "Published: " + version.Note
		}
		last.Versions = append(last.Versions, row)
	}
	s.Screen(c, http.StatusOK, "site-versions", v)
}

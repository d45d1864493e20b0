package publish

import (
	"bytes"
	"errors"
	"html/template"
	"io/fs"
	"net/http"
	"slices"
	"strconv"
	"syscall"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/check"
	"openplot/core/compare"
	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/rights"
	"openplot/metrics"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the screen on which pages are published, and links to drafts.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/export", rights.Publish, s.export),
		shell.Get(paths.SiteRoute+"/publish", rights.Publish, s.publishScreen),
		shell.Within(shell.Writing, shell.Post(paths.SiteRoute+"/publish", rights.Publish, s.publishSeveral)),
		shell.Post(paths.SiteRoute+"/publish/plan", rights.Publish, s.addPlan),
		shell.Post(paths.SiteRoute+"/publish/unplan", rights.Publish, s.dropPlan),
		shell.Get(paths.SiteRoute+"/publish/under-way", rights.Publish, s.underWay),
		shell.Post(paths.SiteRoute+"/publish/stop", rights.Publish, s.stop),
		shell.Post(paths.SiteRoute+"/publish/again", rights.Publish, s.again),
		shell.Within(shell.Writing, shell.Post(paths.SiteRoute+"/publish/back", rights.Publish, s.goBack)),
		shell.Post(paths.SiteRoute+"/publish/offline", rights.Publish, s.setOffline),
		shell.Get(paths.SiteRoute+"/previews", rights.Publish, s.previews),
		shell.Post(paths.SiteRoute+"/previews", rights.Publish, s.newPreview),
		shell.Post(paths.SiteRoute+"/previews/end", rights.Publish, s.endPreview),
		shell.Get(paths.PageRoute+"/publish/told", rights.Publish, s.told),
		shell.Post(paths.PageRoute+"/try", rights.Publish, s.try),
	}
}

// publishView is the screen on which pages are published.
type publishView struct {
	User     *store.User
	Site     *store.Site
	Pages    []publishRow // those that visitors see an earlier state of, or nothing
	Same     []publishRow // the others
	Releases []releaseRow
	Plans    []planView
	Going    *publishing // what is being published in the background, or nil
	Zone     string      // in which times are meant
	Problem  string
	Done     string
	Live     string
}

// publishRow is a page with what publishing it would change.
type publishRow struct {
	desk.Row
	Site   string // its slug
	Chosen bool
	Known  bool          // its findings are, of the state that it is in
	Counts store.Counts  // of them
	Told   bool          // what follows is known
	Lines  []string      // what changed, in words
	Then   template.HTML // as visitors see it, or ""
	// StandIns are the blocks that show a drawing where a picture can be chosen, at most mostNamed
	// of them; MoreStandIns counts the others.
	StandIns     []standIn
	MoreStandIns int
	// Leads are pages that it leads to and that visitors don't have.
	Leads []lead
}

// lead is a page that another leads to.
type lead struct{ ID, Name string }

// leads finds the pages among those of the site that a page leads to and that visitors don't have.
func leads(p *doc.Page, infos []*store.PageInfo) (out []lead) {
	for _, address := range check.LeadsTo(p) {
		for _, i := range infos {
			if i.Slug == address && i.ID != p.ID && i.PublishedSeq == nil {
				out = append(out, lead{i.ID, i.Name})
			}
		}
	}
	return out
}

// standIn is a block that shows a drawing in place of a picture.
type standIn struct{ Node, Name, Section string }

// mostNamed is how many stand-ins of a page are named.
const mostNamed = 6

// name gives a page's stand-ins.
func (r *publishRow) name(p *doc.Page) {
	nodes := check.StandInPictures(p)
	r.MoreStandIns = max(len(nodes)-mostNamed, 0)
	for _, node := range nodes[:len(nodes)-r.MoreStandIns] {
		id, _ := doc.SplitItem(node)
		sec, _ := p.Block(id)
		r.StandIns = append(r.StandIns, standIn{node, model.NameOf(p, node), sec.Name})
	}
}

type releaseRow struct {
	store.ReleaseInfo
	Shown bool
}

// The size in px of the drawings of what is published and what would be, and of how many pages
// they are drawn, and is said what would change, before others come into sight.
const (
	summaryWidth  = 170
	summaryHeight = 220
	mostTold      = 8
)

// publishScreen shows what publishing would change.
func (s *Screen) publishScreen(c *gin.Context) {
	s.showPublishing(c, http.StatusOK, "", c.QueryArray("id"))
}

func (s *Screen) showPublishing(c *gin.Context, status int, problem string, chosen []string) {
	st := shell.SiteOf(c)
	src, err := site.ReadSource(c, s.Store, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := publishView{
		User:    shell.User(c),
		Site:    st,
		Problem: problem,
		Live:    s.Hosts.Public(st.Slug) + "/",
		Done:    desk.DoneWords[c.Query("done")],
	}
	stage := s.Workshop.Stage(st, src, "").Passing()
	found, err := s.Store.Findings.FoundOn(c, st.ID, stage.Look())
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, info := range src.Pages {
		row := publishRow{Row: s.Row(st, info, ""), Site: st.Slug}
		row.Counts, row.Known = found[info.ID]
		if row.State.Mark == "live" {
			v.Same = append(v.Same, row)
			continue
		}
		row.Chosen = len(chosen) == 0 || slices.Contains(chosen, info.ID)
		if row.Told = len(v.Pages) < mostTold; row.Told {
			if err := s.tell(c, &row, info, src, stage); err != nil {
				s.Fail(c, err)
				return
			}
		}
		v.Pages = append(v.Pages, row)
	}
	if v.Plans, err = s.plansOf(c, st, src.Pages); err != nil {
		s.Fail(c, err)
		return
	}
	v.Zone = desk.ZoneOf(st).String()
	rs, err := s.Store.Releases.List(c, st.ID, 30)
	if err != nil {
		s.Fail(c, err)
		return
	}
	shown, err := s.Store.Releases.ShownRelease(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if t, err := s.Store.Sites.Tally(c, st.ID, shell.User(c).ID); err != nil {
		s.Fail(c, err)
		return
	} else if t.ToPut > 0 {
		v.Going = &publishing{st, t.Put, t.ToPut, shown}
	}
	for _, r := range rs {
		v.Releases = append(v.Releases, releaseRow{r, r.Number == shown})
	}
	s.Screen(c, status, "publish", v)
}

// told answers with what publishing a page would change, for a row that has come into sight.
func (s *Screen) told(c *gin.Context) {
	st := shell.SiteOf(c)
	src, err := site.ReadSource(c, s.Store, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	i := slices.IndexFunc(src.Pages, func(p *store.PageInfo) bool { return p.ID == shell.PageOf(c).ID })
	if i < 0 { // deleted meanwhile
		s.Fail(c, store.ErrNotFound)
		return
	}
	row := publishRow{Row: s.Row(st, src.Pages[i], ""), Site: st.Slug, Told: true}
	stage := s.Workshop.Stage(st, src, "").Passing()
	found, err := s.Store.Findings.FoundOn(c, st.ID, stage.Look())
	if err != nil {
		s.Fail(c, err)
		return
	}
	row.Counts, row.Known = found[row.ID]
	if err := s.tell(c, &row, src.Pages[i], src, stage); err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "publish-told", row)
}

// tell draws a page as visitors see it and as it would be, and says what publishing would change.
func (s *Screen) tell(
	c *gin.Context,
	row *publishRow,
	info *store.PageInfo,
	src site.Source,
	stage *model.Stage,
) error {
	p, err := s.Store.Pages.Read(c, info)
	if err != nil {
		return err
	}
	row.name(p.Doc)
	row.Leads = leads(p.Doc, src.Pages)
	here := stage.For(p.Slug)
	drawing := func(d *doc.Page) template.HTML {
		return here.DrawPage(d, summaryWidth, summaryHeight)
	}
	row.Drawing = drawing(p.Doc)
	if p.PublishedSeq == nil {
		row.Lines = []string{"The whole page is new to visitors"}
		return nil
	}
	then, err := s.Store.Pages.AsOf(c, p.ID, *p.PublishedSeq)
	if errors.Is(err, store.ErrNotFound) {
		row.Lines = []string{"It was published too long ago to say what changed"}
		return nil
	}
	if err != nil {
		return err
	}
	row.Lines = compare.Say(compare.Pages(then, p.Doc))
	if p.PublishedLook != nil && *p.PublishedLook != shell.SiteOf(c).Version {
		row.Lines = append(row.Lines, "House style, menus or facts of the site changed")
	}
	row.Then = drawing(then)
	return nil
}

// publishSeveral publishes pages of the site at once.
func (s *Screen) publishSeveral(c *gin.Context) {
	start := time.Now()
	st := shell.SiteOf(c)
	ids := c.PostFormArray("id")
	src, err := site.ReadSource(c, s.Store, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	o := site.Order{By: shell.User(c).ID}
	var infos []*store.PageInfo
	var there, names []string
	for _, info := range src.Pages {
		if slices.Contains(ids, info.ID) {
			infos, there, names = append(infos, info), append(there, info.ID), append(names, info.Name)
		}
	}
	if len(there) > mostWaitedFor {
		s.inBackground(c, there, names)
		return
	}
	for _, info := range infos {
		p, err := s.Store.Pages.ByID(c, st.ID, info.ID)
		if err != nil {
			s.Fail(c, err)
			return
		}
		o.Pages = append(o.Pages, p)
	}
	if len(o.Pages) == 0 {
		s.showPublishing(
			c,
			http.StatusUnprocessableEntity,
			"Tick the pages that you want to publish.",
			[]string{"none"},
		)
		return
	}
	o.Note = site.Brief(names)
	if _, err := s.Publisher.Publish(c, s.Store, src, o); err != nil {
		if full(err) {
			s.showPublishing(
				c,
				http.StatusInsufficientStorage,
				"The disk is full, so nothing was published; visitors see what they saw. Tell whoever runs Open Plot.",
				ids,
			)
			return
		}
		s.Fail(c, err)
		return
	}
	metrics.Since(metrics.Publications, start)
	for _, name := range names {
		s.Note(c, "page published", st.ID, name)
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("publish")+"?done=published")
}

// goBack shows visitors what an earlier publication showed.
func (s *Screen) goBack(c *gin.Context) {
	st := shell.SiteOf(c)
	number, _ := number.Sequence(c.PostForm("number"))
	src, err := site.ReadSource(c, s.Store, st)
	if err == nil {
		err = s.Publisher.Back(c, s.Store, src, number, shell.User(c).ID)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "publication gone back to", st.ID, strconv.FormatInt(number, 10))
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("publish")+"?done=back")
}

// full reports whether something failed for want of room on the disk.
func full(err error) bool { return errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) }

// export answers with all that visitors see, as an archive for any other host.
func (s *Screen) export(c *gin.Context) {
	src, err := site.ReadSource(c, s.Store, shell.SiteOf(c))
	if err != nil {
		s.Fail(c, err)
		return
	}
	var b bytes.Buffer
	err = s.Publisher.Export(&b, src)
	if errors.Is(err, fs.ErrNotExist) {
		s.showPublishing(
			c,
			http.StatusUnprocessableEntity,
			"Nothing is published yet, so there is nothing to export. Publish the site first.",
			nil,
		)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "site exported", shell.SiteOf(c).ID, "")
	c.Header("Content-Disposition", `attachment; filename="`+shell.SiteOf(c).Slug+`.zip"`)
	c.Data(http.StatusOK, "application/zip", b.Bytes())
}

package web

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

	"openplot/core/compare"
	"openplot/core/doc"
	"openplot/core/number"
	"openplot/metrics"
	"openplot/site"
	"openplot/store"
)

// publishView is the screen on which pages are published.
type publishView struct {
	User     *store.User
	Site     *store.Site
	Pages    []publishRow // those that visitors see an earlier state of, or nothing
	Same     []publishRow // the others
	Releases []releaseRow
	Plans    []planView
	Zone     string // in which times are meant
	Problem  string
	Done     string
	Live     string
}

// publishRow is a page with what publishing it would change.
type publishRow struct {
	pageRow
	Chosen   bool
	Lines    []string      // what changed, in words
	Then     template.HTML // as visitors see it, or ""
	PageSlug string
}

type releaseRow struct {
	store.ReleaseInfo
	Shown bool
}

// The size in px of the drawings of what is published and what would be, and of how many pages
// they are drawn.
const (
	summaryWidth  = 170
	summaryHeight = 220
	mostDrawn     = 24
)

// publishScreen shows what publishing would change.
func (s *Server) publishScreen(c *gin.Context) {
	s.showPublishing(c, http.StatusOK, "", c.QueryArray("id"))
}

func (s *Server) showPublishing(c *gin.Context, status int, problem string, chosen []string) {
	st := siteOf(c)
	src, err := site.ReadSource(c, s.Store, st)
	if err != nil {
		s.fail(c, err)
		return
	}
	v := publishView{User: user(c), Site: st, Problem: problem, Live: s.Hosts.Public(st.Slug) + "/", Done: doneWords[c.Query("done")]}
	stage := s.workshop.Stage(st, src, "").Passing()
	for _, info := range src.Pages {
		row := publishRow{pageRow: s.row(st, info, "")}
		if row.State.Mark == "live" {
			v.Same = append(v.Same, row)
			continue
		}
		row.Chosen = len(chosen) == 0 || slices.Contains(chosen, info.ID)
		p, err := s.Store.Pages.ByID(c, st.ID, info.ID)
		if err != nil {
			s.fail(c, err)
			return
		}
		draw := len(v.Pages) < mostDrawn
		if draw {
			row.Drawing = stage.For(info.Slug).DrawPage(p.Doc, summaryWidth, summaryHeight)
		}
		if err := s.sumUp(c, &row, p, draw, func(d *doc.Page) template.HTML {
			return stage.For(info.Slug).DrawPage(d, summaryWidth, summaryHeight)
		}); err != nil {
			s.fail(c, err)
			return
		}
		v.Pages = append(v.Pages, row)
	}
	if v.Plans, err = s.plansOf(c, st, src.Pages); err != nil {
		s.fail(c, err)
		return
	}
	v.Zone = zoneOf(st).String()
	rs, err := s.Store.Releases.List(c, st.ID, 30)
	if err != nil {
		s.fail(c, err)
		return
	}
	shown, err := s.Store.Releases.ShownRelease(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	for _, r := range rs {
		v.Releases = append(v.Releases, releaseRow{r, r.Number == shown})
	}
	s.screen(c, status, "publish", v)
}

// sumUp says what publishing a page would change of it.
func (s *Server) sumUp(c *gin.Context, row *publishRow, p *store.Page, draw bool, drawing func(*doc.Page) template.HTML) error {
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
	if p.PublishedLook != nil && *p.PublishedLook != siteOf(c).Version {
		row.Lines = append(row.Lines, "House style, menus or facts of the site changed")
	}
	if draw {
		row.Then = drawing(then)
	}
	return nil
}

// publishSeveral publishes pages of the site at once.
func (s *Server) publishSeveral(c *gin.Context) {
	start := time.Now()
	st := siteOf(c)
	ids := c.PostFormArray("id")
	src, err := site.ReadSource(c, s.Store, st)
	if err != nil {
		s.fail(c, err)
		return
	}
	o := site.Order{By: user(c).ID}
	var names []string
	for _, info := range src.Pages {
		if !slices.Contains(ids, info.ID) {
			continue
		}
		p, err := s.Store.Pages.ByID(c, st.ID, info.ID)
		if err != nil {
			s.fail(c, err)
			return
		}
		o.Pages = append(o.Pages, p)
		names = append(names, info.Name)
	}
	if len(o.Pages) == 0 {
		s.showPublishing(c, http.StatusUnprocessableEntity, "Tick the pages that you want to publish.", []string{"none"})
		return
	}
	o.Note = brief(names)
	if _, err := s.publisher.Publish(c, s.Store, src, o); err != nil {
		if full(err) {
			s.showPublishing(c, http.StatusInsufficientStorage, "The disk is full, so nothing was published; visitors see what they saw. Tell whoever runs Open Plot.", ids)
			return
		}
		s.fail(c, err)
		return
	}
	metrics.Since(metrics.Publications, start)
	for _, name := range names {
		s.note(c, "page published", st.ID, name)
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+st.Slug+"/publish?done=published")
}

// goBack shows visitors what an earlier publication showed.
func (s *Server) goBack(c *gin.Context) {
	st := siteOf(c)
	number, _ := number.Sequence(c.PostForm("number"))
	src, err := site.ReadSource(c, s.Store, st)
	if err == nil {
		err = s.publisher.Back(c, s.Store, src, number, user(c).ID)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, "publication gone back to", st.ID, strconv.FormatInt(number, 10))
	c.Redirect(http.StatusSeeOther, "/sites/"+st.Slug+"/publish?done=back")
}

// full reports whether something failed for want of room on the disk.
func full(err error) bool { return errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) }

// export answers with all that visitors see, as an archive for any other host.
func (s *Server) export(c *gin.Context) {
	src, err := site.ReadSource(c, s.Store, siteOf(c))
	if err != nil {
		s.fail(c, err)
		return
	}
	var b bytes.Buffer
	err = s.publisher.Export(&b, src)
	if errors.Is(err, fs.ErrNotExist) {
		s.showPublishing(c, http.StatusUnprocessableEntity, "Nothing is published yet, so there is nothing to export. Publish the site first.", nil)
		return
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, "site exported", siteOf(c).ID, "")
	c.Header("Content-Disposition", `attachment; filename="`+siteOf(c).Slug+`.zip"`)
	c.Data(http.StatusOK, "application/zip", b.Bytes())
}

package publish

import (
	"errors"
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// planView is what is to be published at a time, as people read it.
type planView struct {
	ID, When, What, By, Problem string
}

// longestPlan is how far ahead something can be planned.
const longestPlan = 366 * 24 * time.Hour

// addPlan plans that pages are published, or withdrawn, at a time of the site's time zone.
func (s *Screen) addPlan(c *gin.Context) {
	st := shell.SiteOf(c)
	at, err := time.ParseInLocation("2006-01-02T15:04", c.PostForm("at"), desk.ZoneOf(st))
	ahead := time.Until(at)
	p := store.Plan{Site: st.ID, Act: store.PlanPublish, Pages: c.PostFormArray("id"), At: at, By: shell.User(c).ID}
	if c.PostForm("what") == store.PlanWithdraw {
		p.Act = store.PlanWithdraw
	}
	var problem *doc.Problem
	switch {
	case err != nil:
		problem = doc.Problemf("Time", "is missing: write a day and a time")
	case ahead < -time.Minute:
		problem = doc.Problemf("Time", "is past; choose one to come")
	case ahead > longestPlan:
		problem = doc.Problemf("Time", "is more than a year ahead; choose an earlier one")
	case len(p.Pages) == 0:
		problem = doc.Problemf("Pages", "are missing: tick those that you mean")
	}
	if problem != nil {
		s.showPublishing(c, http.StatusUnprocessableEntity, problem.Sentence(), p.Pages)
		return
	}
	if err := s.Store.Releases.AddPlan(c, p); errors.As(err, &problem) {
		s.showPublishing(c, http.StatusUnprocessableEntity, problem.Sentence(), p.Pages)
		return
	} else if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "publication planned", st.ID, at.Format(time.RFC3339))
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("publish")+"?done=scheduled")
}

// dropPlan ends a plan.
func (s *Screen) dropPlan(c *gin.Context) {
	s.then(c, s.Store.Releases.DropPlan(c, shell.SiteOf(c).ID, c.PostForm("plan")))
}

// plansOf gives the plans of a site.
func (s *Screen) plansOf(c *gin.Context, st *store.Site, infos []*store.PageInfo) (out []planView, err error) {
	plans, err := s.Store.Releases.Plans(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, p := range plans {
		if p.AtOnce && p.Problem == "" {
			continue // the screen shows how far it has come
		}
		var names []string
		for _, i := range infos {
			if slices.Contains(p.Pages, i.ID) {
				names = append(names, i.Name)
			}
		}
		what := "Publish "
		if p.Act == store.PlanWithdraw {
			what = "Unpublish "
		}
		out = append(
			out,
			planView{
				p.ID,
				p.At.In(desk.ZoneOf(st)).Format("Monday, 2 January, 15:04"),
				what + site.Brief(names),
				p.ByName,
				p.Problem,
			},
		)
	}
	return out, nil
}

// mostWaitedFor is how many pages are published while whoever publishes them waits: a second or so.
// More are published in the background.
const mostWaitedFor = 24

// inBackground has pages published in the background.
func (s *Screen) inBackground(c *gin.Context, pages, names []string) {
	st := shell.SiteOf(c)
	p := store.Plan{
		Site: st.ID, Act: store.PlanPublish, Pages: pages, At: time.Now(), By: shell.User(c).ID, AtOnce: true,
	}
	var problem *doc.Problem
	if err := s.Store.Releases.AddPlan(c, p); errors.As(err, &problem) {
		s.showPublishing(c, http.StatusUnprocessableEntity, problem.Sentence(), pages)
		return
	} else if err != nil {
		s.Fail(c, err)
		return
	}
	for _, name := range names {
		s.Note(c, "publication of a page begun", st.ID, name)
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("publish"))
}

// underWay answers with how far publishing has come, and leads to the screen anew once it has ended.
func (s *Screen) underWay(c *gin.Context) {
	st := shell.SiteOf(c)
	t, err := s.Store.Sites.Tally(c, st.ID, shell.User(c).ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	shown, err := s.Store.Releases.ShownRelease(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	since, _ := number.Sequence(c.Query("since"))
	if t.ToPut == 0 {
		to := paths.To(st.Slug).At("publish")
		if shown > since { // otherwise somebody ended it, or it didn't work
			to += "?done=published"
		}
		c.Header("HX-Redirect", to)
		c.Status(http.StatusNoContent)
		return
	}
	s.Parted(c, http.StatusOK, "publishing", publishing{st, t.Put, t.ToPut, since})
}

// publishing is how far publishing has come.
type publishing struct {
	Site     *store.Site
	Done, Of int
	Since    int64 // the publication that visitors see until then
}

// stop ends what is being published: visitors see what they saw.
func (s *Screen) stop(c *gin.Context) {
	s.then(c, s.Store.Releases.DropDue(c, shell.SiteOf(c).ID))
}

// again tries to publish what couldn't be.
func (s *Screen) again(c *gin.Context) {
	s.then(c, s.Store.Releases.RetryDue(c, shell.SiteOf(c).ID))
}

// then leads to the screen.
func (s *Screen) then(c *gin.Context, err error) {
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(shell.SiteOf(c).Slug).At("publish"))
}

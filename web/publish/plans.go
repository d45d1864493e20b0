package publish

import (
	"errors"
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
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
	if err := s.Store.Releases.DropPlan(c, shell.SiteOf(c).ID, c.PostForm("plan")); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(shell.SiteOf(c).Slug).At("publish"))
}

// plansOf gives the plans of a site.
func (s *Screen) plansOf(c *gin.Context, st *store.Site, infos []*store.PageInfo) (out []planView, err error) {
	plans, err := s.Store.Releases.Plans(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, p := range plans {
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

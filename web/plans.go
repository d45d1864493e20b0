package web

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/rights"
	"openplot/site"
	"openplot/store"
)

// planView is what is to be published at a time, as people read it.
type planView struct {
	ID, When, What, By, Problem string
}

// longestPlan is how far ahead something can be planned.
const longestPlan = 366 * 24 * time.Hour

// addPlan plans that pages are published, or withdrawn, at a time of the site's time zone.
func (s *Server) addPlan(c *gin.Context) {
	st := siteOf(c)
	at, err := time.ParseInLocation("2006-01-02T15:04", c.PostForm("at"), zoneOf(st))
	ahead := time.Until(at)
	p := store.Plan{Site: st.ID, Act: store.PlanPublish, Pages: c.PostFormArray("id"), At: at, By: user(c).ID}
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
		s.fail(c, err)
		return
	}
	s.note(c, "publication planned", st.ID, at.Format(time.RFC3339))
	c.Redirect(http.StatusSeeOther, "/sites/"+st.Slug+"/publish?done=scheduled")
}

// dropPlan ends a plan.
func (s *Server) dropPlan(c *gin.Context) {
	if err := s.Store.Releases.DropPlan(c, siteOf(c).ID, c.PostForm("plan")); err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+siteOf(c).Slug+"/publish")
}

// plansOf gives the plans of a site.
func (s *Server) plansOf(c *gin.Context, st *store.Site, infos []*store.PageInfo) (out []planView, err error) {
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
		out = append(out, planView{p.ID, p.At.In(zoneOf(st)).Format("Monday, 2 January, 15:04"), what + brief(names), p.ByName, p.Problem})
	}
	return out, nil
}

// CarryOut does what a plan says, if whoever made it may still do so: its pages are published as
// they stand now.
func (s *Server) CarryOut(ctx context.Context, id string) error {
	p, err := s.Store.Releases.Plan(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return nil // somebody ended it
	}
	if err != nil {
		return err
	}
	st, err := s.Store.Sites.ByIDFor(ctx, p.By, p.Site)
	if err == nil && !st.Role.May(rights.Publish) {
		err = store.ErrNotFound
	}
	if errors.Is(err, store.ErrNotFound) {
		return s.Store.Releases.FailPlan(ctx, id, "whoever made it may not publish any more; plan it again")
	}
	if err != nil {
		return err
	}
	src, err := site.ReadSource(ctx, s.Store, st)
	if err != nil {
		return err
	}
	o := site.Order{By: p.By}
	var names []string
	for _, info := range src.Pages {
		if !slices.Contains(p.Pages, info.ID) {
			continue
		}
		if p.Act == store.PlanWithdraw {
			if info.PublishedSeq != nil {
				o.Withdraw, names = append(o.Withdraw, info.ID), append(names, info.Name)
			}
			continue
		}
		page, err := s.Store.Pages.ByID(ctx, st.ID, info.ID)
		if err != nil {
			return err
		}
		o.Pages, names = append(o.Pages, page), append(names, info.Name)
	}
	if len(names) > 0 {
		o.Note = "As planned: " + brief(names)
		if p.Act == store.PlanWithdraw {
			o.Note = "Withdrawn as planned: " + brief(names)
		}
		if _, err := s.publisher.Publish(ctx, s.Store, src, o); err != nil {
			return errors.Join(err, s.Store.Releases.FailPlan(context.WithoutCancel(ctx), id, "it didn’t work; it is tried again a few times"))
		}
	}
	return s.Store.Releases.DropPlan(ctx, st.ID, id)
}

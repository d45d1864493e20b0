package pages

import (
	"net/http"
	"net/url"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// dismiss hides a site's first steps.
func (s *Screen) dismiss(c *gin.Context) {
	if err := s.Store.Sites.Begun(c, shell.SiteOf(c).ID); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(shell.SiteOf(c).Slug).At())
}

// step is one of the first steps of a new site.
type step struct {
	Done             bool
	Name, Hint, Href string
}

// firstSteps are those of a site, ticked off by what was done; nil when they are all done or
// not wanted.
func (s *Screen) firstSteps(c *gin.Context, st *store.Site, infos []*store.PageInfo) ([]step, error) {
	if st.Begun {
		return nil, nil
	}
	styled, phone, err := s.Store.Sites.Firsts(c, st.ID)
	if err != nil {
		return nil, err
	}
	home := paths.To(st.Slug).Page("").At("bench")
	edited, published := false, false
	for _, p := range infos {
		edited = edited || p.Seq > 0
		published = published || p.PublishedSeq != nil
	}
	steps := []step{
		{styled, "Colours and type", "set them once, for all pages", paths.To(st.Slug).At("house")},
		{edited, "Your first page", "put your words and pictures on it", home},
		{
			phone,
			"On a phone",
			"see it at 375 px, and set something for phones alone",
			home + "?" + url.Values{"width": {"375"}}.Encode(),
		},
		{published, "Publish", "bring it to visitors; you can take it back", paths.To(st.Slug).At("publish")},
	}
	if !slices.ContainsFunc(steps, func(t step) bool { return !t.Done }) {
		return nil, s.Store.Sites.Begun(c, st.ID)
	}
	return steps, nil
}

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
	if err := s.Store.Steps.Begun(c, shell.SiteOf(c).ID); err != nil {
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
	written, phone, err := s.Store.Steps.Firsts(c, st.ID)
	if err != nil {
		return nil, err
	}
	home := paths.To(st.Slug).Page("").At("bench")
	published := slices.ContainsFunc(infos, func(p *store.PageInfo) bool { return p.PublishedSeq != nil })
	steps := []step{
		{written, "Write words of your own", "press a heading twice and type over what is there", home},
		{
			phone,
			"Look at it on a phone",
			"drag the red mark above the page to Phone",
			home + "?" + url.Values{"width": {"375"}}.Encode(),
		},
		{published, "Publish it", "you can take it back at any time", paths.To(st.Slug).At("publish")},
	}
	if !slices.ContainsFunc(steps, func(t step) bool { return !t.Done }) {
		return nil, s.Store.Steps.Begun(c, st.ID)
	}
	return steps, nil
}

package checks

import (
	"html/template"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// brokenView is what is broken on a page, for the question before it is published.
type brokenView struct {
	Site  *store.Site
	Page  *store.Page
	Slug  paths.Segment
	Found []brokenOne
	More  int // how many more there are
}

// brokenOne is a finding with the section that it is about, drawn at its worst width.
type brokenOne struct {
	findingView
	Now template.HTML
}

// mostBroken is how many findings of a page are drawn: each repair is proven by checking the page.
const mostBroken = 3

// broken answers with what is broken on a page, drawn, and with what would mend it.
func (s *Screen) broken(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	k, err := s.check(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := brokenView{Site: st, Page: p, Slug: paths.Of(p.Slug)}
	for i := range k.Findings {
		f := &k.Findings[i]
		if f.Severity != check.Broken {
			continue
		}
		if len(v.Found) == mostBroken {
			v.More++
			continue
		}
		one := brokenOne{findingView: findingView{
			Finding: f,
			Heading: doc.Capital(f.Title(k.Name)),
			Says:    f.Say(k.Name),
			Widths:  widthsOf(f),
		}}
		if sec := sectionOf(p.Doc, f.Node); sec != nil {
			one.Where = sec.Name
		}
		if st.Role.May("compose") {
			one.Offer = s.offer(c, k, f, false)
		}
		if one.Offer != nil {
			one.Now = one.Offer.Before
		} else {
			one.Now = k.Stage.DrawFinding(p.Doc, f)
		}
		v.Found = append(v.Found, one)
	}
	s.Parted(c, http.StatusOK, "broken", v)
}

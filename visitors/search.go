package visitors

import (
	"context"
	"html"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/origin"
	"openplot/store"
)

// maxQuery is how many characters of what is searched for are looked at.
const maxQuery = 200

// searchSite looks through the published pages of a site, for its search fields.
func (s *Server) searchSite(c *gin.Context) {
	st, err := s.Store.SiteBySlug(c, c.Param("site"))
	if err != nil {
		visitorPage(c, http.StatusNotFound, "There is no such site", "", "")
		return
	}
	q := strings.Join(strings.Fields(c.Query("q")), " ")
	if r := []rune(q); len(r) > maxQuery {
		q = string(r[:maxQuery])
	}
	home := "/" + st.Slug + "/"
	if q == "" {
		visitorPage(c, http.StatusOK, "Search "+st.Name, "Write a word into the search field first.", home)
		return
	}
	found, err := s.pagesWith(c, st.ID, q)
	if err != nil {
		s.Log.Error("search", "id", origin.RequestID(c), "error", err)
		visitorPage(c, http.StatusInternalServerError, "The search failed", "Something went wrong on our side. Try it again in a moment.", home)
		return
	}
	var list strings.Builder
	for _, p := range found {
		at := home
		if p.Slug != "" {
			at += p.Slug + "/"
		}
		list.WriteString(
			"<li><a href=\"" + html.EscapeString(at) + "\">" + html.EscapeString(p.Name) + "</a> " + html.EscapeString(p.Description) + "</li>",
		)
	}
	text := "No page of this site has “" + q + "”."
	if len(found) > 0 {
		text = "Pages with “" + q + "”:"
	}
	visitorDocument(c, http.StatusOK, "Search "+st.Name, "<p>"+html.EscapeString(text)+"</p><ul>"+list.String()+"</ul>", home)
}

// pagesWith gives the published pages of a site that say something.
func (s *Server) pagesWith(ctx context.Context, site, words string) (found []*store.PageInfo, err error) {
	infos, err := s.Store.Pages(ctx, site)
	if err != nil {
		return nil, err
	}
	for _, i := range infos {
		if i.PublishedAt == nil {
			continue
		}
		p, err := s.Store.Page(ctx, site, i.Slug)
		if err != nil {
			return nil, err
		}
		if strings.Contains(strings.ToLower(p.Doc.Plain()), strings.ToLower(words)) {
			found = append(found, i)
		}
	}
	return found, nil
}

package visitors

import (
	"html"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/origin"
	"openplot/store"
)

// Limits of a search: how many characters are looked at, and how many pages shown.
const (
	maxQuery = 200
	maxFound = 30
)

// searchSite looks through what a site published, for its search fields.
func (s *Server) searchSite(c *gin.Context) {
	st, err := s.siteHere(c)
	if err != nil || c.Param("site") != st.Slug {
		s.notHere(c)
		return
	}
	if !s.searchers.Allow(origin.Network(c.ClientIP()), time.Now()) {
		c.Header("Retry-After", "10")
		s.tell(
			c,
			http.StatusTooManyRequests,
			"Too many searches at once",
			"Wait a few seconds and load this page again.",
			"/",
		)
		return
	}
	q := strings.Join(strings.Fields(store.Clean(c.Query("q"))), " ")
	if r := []rune(q); len(r) > maxQuery {
		q = string(r[:maxQuery])
	}
	field := `<form action="/_search/` + st.Slug + `"><input type="search" name="q" aria-label="Search" value="` + html.EscapeString(
		q,
	) + `"><button>Search</button></form>`
	if q == "" {
		s.document(c, http.StatusOK, "Search "+st.Name, field, "/")
		return
	}
	found, err := s.Store.Visible.Search(c, st.ID, q, maxFound)
	if err != nil {
		s.Log.Error("search", "id", origin.RequestID(c), "error", err)
		s.tell(
			c,
			http.StatusInternalServerError,
			"The search failed",
			"Something went wrong on our side. Try it again in a moment.",
			"/",
		)
		return
	}
	text := "No page of this site has “" + q + "”."
	if len(found) == 0 {
		s.count(c, store.CountedSearch, strings.ToLower(q))
	}
	if len(found) > 0 {
		text = "Pages with “" + q + "”:"
	}
	var list strings.Builder
	for _, p := range found {
		at := "/"
		if p.Slug != "" {
			at += p.Slug + "/"
		}
		list.WriteString(
			"<li><a href=\"" + html.EscapeString(
				at,
			) + "\">" + html.EscapeString(
				p.Name,
			) + "</a><br>" + marked(
				p.Excerpt,
			) + "</li>",
		)
	}
	s.document(
		c,
		http.StatusOK,
		"Search "+st.Name,
		field+"<p>"+html.EscapeString(text)+"</p><ul>"+list.String()+"</ul>",
		"/",
	)
}

// marked is an excerpt as HTML.
func marked(excerpt string) string {
	return strings.NewReplacer(store.FoundFrom, "<mark>", store.FoundTo, "</mark>").Replace(html.EscapeString(excerpt))
}

package web

import (
	"context"
	"html"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/store"
)

// Limits of what a visitor can send with a form.
const (
	maxFormBytes  = 64 << 10
	maxFormFields = 80
	maxFormName   = 300
	maxFormValue  = 10_000
)

// takeForm keeps what a visitor sent. It stands in for the mail or the service that a
// site would really send to.
func (s *Server) takeForm(c *gin.Context) {
	st, err := s.Store.SiteBySlug(c, c.Param("site"))
	if err != nil {
		visitorPage(c, http.StatusNotFound, "There is no such form", "", "")
		return
	}
	if !s.visits.allow(address(c.Request), time.Now()) {
		visitorPage(c, http.StatusTooManyRequests, "That was a lot at once", "Wait a minute and send it again; nothing you wrote is lost if you go back.", back(c))
		return
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, maxFormBytes)
	sent, err := io.ReadAll(c.Request.Body)
	if err != nil {
		visitorPage(c, http.StatusUnprocessableEntity, "That could not be read", "What you sent is longer than 64 kB. Go back, make it shorter and send it again.", back(c))
		return
	}
	answers, ok := readAnswers(string(sent))
	if !ok {
		visitorPage(c, http.StatusUnprocessableEntity, "That could not be read", "One of the answers is too long. Go back, make it shorter and send it again.", back(c))
		return
	}
	if !slices.ContainsFunc(answers, func(a store.Answer) bool { return strings.TrimSpace(a.Value) != "" }) {
		visitorPage(c, http.StatusUnprocessableEntity, "Nothing was filled in", "Go back and fill in at least one field.", back(c))
		return
	}
	form := c.Param("form")
	if len(form) > 60 {
		form = form[:60]
	}
	if err := s.Store.AddFormEntry(c, st.ID, form, answers); err != nil {
		s.Log.Error("form", "id", c.GetString("request"), "error", err)
		visitorPage(c, http.StatusInternalServerError, "That did not arrive", "Something went wrong on our side. Go back and send it again in a moment.", back(c))
		return
	}
	visitorPage(c, http.StatusOK, "Thank you", "What you wrote has arrived.", back(c))
}

// readAnswers reads what a form sent (URL Standard §5.1), in the order of its fields;
// several values of one field become one. It is not ok when something is too long.
func readAnswers(sent string) (answers []store.Answer, ok bool) {
	for _, pair := range strings.Split(sent, "&") {
		name, value, _ := strings.Cut(pair, "=")
		name, err := url.QueryUnescape(name)
		value, err2 := url.QueryUnescape(value)
		if err != nil || err2 != nil || name == "" {
			continue
		}
		i := slices.IndexFunc(answers, func(a store.Answer) bool { return a.Field == name })
		if i >= 0 {
			answers[i].Value += ", " + value
		} else {
			i = len(answers)
			answers = append(answers, store.Answer{Field: name, Value: value})
		}
		if len(answers) > maxFormFields || len(name) > maxFormName || len(answers[i].Value) > maxFormValue {
			return nil, false
		}
	}
	return answers, true
}

// back is the page a visitor came from, when it is one of this origin's.
func back(c *gin.Context) string {
	u, err := url.Parse(c.Request.Referer())
	if err != nil || u.Host != c.Request.Host {
		return ""
	}
	return u.EscapedPath()
}

// searchSite looks through the published pages of a site, for its search fields.
func (s *Server) searchSite(c *gin.Context) {
	st, err := s.Store.SiteBySlug(c, c.Param("site"))
	if err != nil {
		visitorPage(c, http.StatusNotFound, "There is no such site", "", "")
		return
	}
	q := strings.Join(strings.Fields(c.Query("q")), " ")
	if len(q) > 200 {
		q = q[:200]
	}
	home := "/" + st.Slug + "/"
	if q == "" {
		visitorPage(c, http.StatusOK, "Search "+st.Name, "Write a word into the search field first.", home)
		return
	}
	found, err := s.pagesWith(c, st.ID, q)
	if err != nil {
		s.Log.Error("search", "id", c.GetString("request"), "error", err)
		visitorPage(c, http.StatusInternalServerError, "The search failed", "Something went wrong on our side. Try it again in a moment.", home)
		return
	}
	var list strings.Builder
	for _, p := range found {
		at := home
		if p.Slug != "" {
			at += p.Slug + "/"
		}
		list.WriteString("<li><a href=\"" + html.EscapeString(at) + "\">" + html.EscapeString(p.Name) + "</a> " + html.EscapeString(p.Description) + "</li>")
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

func visitorPage(c *gin.Context, status int, title, text, back string) {
	visitorDocument(c, status, title, "<p>"+html.EscapeString(text)+"</p>", back)
}

// visitorDocument answers a visitor of a published site with a plain page.
func visitorDocument(c *gin.Context, status int, title, content, back string) {
	link := ""
	if back != "" {
		link = "<p><a href=\"" + html.EscapeString(back) + "\">Back to the page</a></p>"
	}
	pageHeaders(c.Writer.Header())
	c.Header("Cache-Control", "no-store")
	c.Data(status, "text/html; charset=utf-8", []byte("<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>"+html.EscapeString(title)+
		"</title><meta name=\"viewport\" content=\"width=device-width, initial-scale=1\"><link rel=\"stylesheet\" href=\"/_visitors.css\"></head><body><main><h1>"+html.EscapeString(title)+"</h1>"+content+link+"</main></body></html>\n"))
}

// visitorStyle is the style sheet of those pages.
func visitorStyle(c *gin.Context) {
	pageHeaders(c.Writer.Header())
	c.Data(http.StatusOK, "text/css; charset=utf-8", []byte("body{font:1.0625rem/1.6 system-ui,sans-serif;color:#1f2a2c;background:#fff;margin:0}main{max-width:40rem;margin:15vh auto;padding:0 1.25rem}a{color:#1d5f6b}\n"))
}

package shell

import (
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/fonts"
	"openplot/media"
	"openplot/origin"
	publishing "openplot/site"
)

// Route is an address of the application, with the right and what else it takes.
type Route struct {
	Method, Path string
	Right        rights.Right
	handle       gin.HandlerFunc
	limits       origin.Limits // ordinary when zero
}

// What requests may take: most of them; those that bring a file, which a slow line takes long
// to send and which say themselves what is too large; and those that write to disk.
var (
	ordinary  = origin.Limits{Body: 1 << 20, Time: 30 * time.Second}
	Composing = origin.Limits{
		Body: 4 * edit.MaxCommand,
		Time: 2 * time.Minute,
	} // a form's encoding makes a command longer
	Uploading = origin.Limits{Body: media.MaxVideoBytes + 1<<20, Time: 10 * time.Minute}
	Typeface  = origin.Limits{Body: fonts.MaxOwnBytes + 64<<10, Time: 5 * time.Minute}
	HouseFile = origin.Limits{Body: carry.MaxHouseFile + 64<<10, Time: 5 * time.Minute}
	WholeSite = origin.Limits{Body: publishing.MaxFile + 1<<20, Time: 30 * time.Minute}
	Writing   = origin.Limits{Body: 1 << 20, Time: 2 * time.Minute}
)

// Get is a route that changes nothing. What a command on a page takes depends on its operation
// (edit.RightFor), and is looked at when it has been read.
func Get(path string, right rights.Right, handle gin.HandlerFunc) Route {
	return Route{Method: http.MethodGet, Path: path, Right: right, handle: handle}
}

// Post is a route that may change something.
func Post(path string, right rights.Right, handle gin.HandlerFunc) Route {
	return Route{Method: http.MethodPost, Path: path, Right: right, handle: handle}
}

// Within is a route that takes more than the ordinary.
func Within(l origin.Limits, r Route) Route {
	r.limits = l
	return r
}

// Screen is what shows something, at addresses of its own.
type Screen interface{ Routes() []Route }

// sessionless reports whether a path is the same for everybody, so that no session is read.
func sessionless(path string) bool {
	return strings.HasPrefix(path, "/static/") || strings.HasPrefix(path, "/fonts/") || path == "/healthy" ||
		path == "/ready"
}

// gates are what somebody passes on the way to a route: its limits, signed in, a member of
// the site, with the right, and to a page that exists.
func (s *Shell) gates(t Route) (gates []gin.HandlerFunc) {
	limits, tooLarge := ordinary, func(c *gin.Context) { s.ProblemPage(c, http.StatusRequestEntityTooLarge) }
	if t.limits != (origin.Limits{}) {
		if limits = t.limits; limits == Uploading || limits == Typeface || limits == HouseFile || limits == WholeSite {
			tooLarge = nil
		}
	}
	gates = append(gates, origin.Within(limits, tooLarge))
	if t.Right == rights.None {
		return append(gates, readForm)
	}
	gates = append(gates, s.signedIn)
	if t.Right == rights.Operate {
		gates = append(gates, s.operates)
	}
	if strings.Contains(t.Path, ":site") {
		gates = append(gates, s.member, s.may(t.Right))
	}
	if strings.Contains(t.Path, ":page") {
		gates = append(gates, s.onPage)
	}
	return append(gates, readForm)
}

// readForm reads a form that has no files, which handlers that take files do themselves.
func readForm(c *gin.Context) {
	if c.ContentType() == "application/x-www-form-urlencoded" {
		_ = c.Request.ParseForm() // what can't be read isn't there
		origin.CleanForm(c.Request)
	}
	c.Next()
}

// may refuses those whose role on the site hasn't a right.
func (s *Shell) may(right rights.Right) gin.HandlerFunc {
	return func(c *gin.Context) {
		if !SiteOf(c).Role.May(right) {
			s.ProblemPage(c, http.StatusForbidden)
			c.Abort()
			return
		}
		c.Next()
	}
}

// operates answers 404 unless the person is an operator.
func (s *Shell) operates(c *gin.Context) {
	if !User(c).Operator {
		s.ProblemPage(c, http.StatusNotFound)
		c.Abort()
		return
	}
	c.Next()
}

package web

import (
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/rights"
	"openplot/origin"
)

// route is an address of the application, with the right that it takes.
type route struct {
	method, path string
	right        rights.Right
	handle       gin.HandlerFunc
}

// table lists every route. What a command on a page takes depends on its operation
// (edit.RightFor), and is looked at when it has been read.
func (s *Server) table() []route {
	const site, page = "/sites/:site", "/sites/:site/pages/:page"
	get := func(path string, right rights.Right, handle gin.HandlerFunc) route {
		return route{http.MethodGet, path, right, handle}
	}
	post := func(path string, right rights.Right, handle gin.HandlerFunc) route {
		return route{http.MethodPost, path, right, handle}
	}
	return []route{
		get("/static/*file", rights.None, gin.WrapH(http.StripPrefix("/static", s.static))),
		get("/fonts/:file", rights.None, origin.Font),
		get("/fonts/own/:file", rights.None, origin.OwnFont(s.MediaDir)),
		get("/sign-in", rights.None, s.signInForm),
		post("/sign-in", rights.None, s.signIn),
		get("/healthy", rights.None, func(c *gin.Context) { c.String(http.StatusOK, "ok") }),

		get("/", rights.Sign, s.sites),
		post("/sign-out", rights.Sign, s.signOut),
		get("/stock/:picture", rights.Sign, s.stockPicture),

		get(site, rights.See, s.pages),
		get(site+"/pages", rights.See, s.moreCards),
		post(site+"/pages", rights.Compose, s.newPage),
		post(site+"/facts", rights.Keep, s.setFacts),
		get(site+"/slug", rights.Compose, s.derivedSlug),
		get(site+"/entries", rights.See, s.formEntries),
		post(site+"/entries/delete", rights.Keep, s.deleteEntry),
		post(site+"/shelf/favourite", rights.See, s.favour),
		post(site+"/shelf/drop", rights.Keep, s.dropSection),

		get(site+"/library", rights.See, s.library),
		post(site+"/library", rights.Write, s.addToLibrary),
		post(site+"/library/stock", rights.Write, s.takeStock),
		get(site+"/library/:medium/copies", rights.See, s.copies),
		post(site+"/library/:medium", rights.Write, s.inLibrary(s.describe)),
		post(site+"/library/:medium/shape", rights.Write, s.inLibrary(s.reshape)),
		post(site+"/library/:medium/replace", rights.Write, s.inLibrary(s.replaceMedium)),
		post(site+"/library/:medium/delete", rights.Keep, s.deleteMedium),
		get(site+"/media", rights.See, s.mediaPicker),
		post(site+"/media", rights.Write, s.upload),

		get(site+"/house", rights.House, s.house),
		get(site+"/house/specimen", rights.House, s.specimen),
		post(site+"/house/edits", rights.House, s.editHouse),
		post(site+"/house/undo", rights.House, s.undoHouse),
		get(site+"/house/file", rights.House, s.houseFile),
		post(site+"/house/file", rights.House, s.takeHouseFile),
		post(site+"/house/fonts", rights.House, s.addFont),
		post(site+"/house/fonts/drop", rights.House, s.dropFont),
		post(site+"/house/try", rights.House, s.tryHouse),
		post(site+"/house/take", rights.House, s.takeHouse),
		post(site+"/house/keep", rights.House, s.keepHouse),
		post(site+"/house/drop", rights.House, s.dropHouse),
		post(site+"/house/palette", rights.House, s.suggestPalette),
		post(site+"/house/contrasts", rights.House, s.tryColour),

		get(page+"/bench", rights.See, s.bench),
		get(page+"/canvas", rights.See, s.canvas),
		get(page+"/parts", rights.See, s.parts),
		post(page+"/edits", rights.Write, s.edit),
		post(page+"/undo", rights.Write, s.undo),
		post(page+"/redo", rights.Write, s.redo),
		post(page+"/promote", rights.House, s.promote),
		post(page+"/keep", rights.Keep, s.keepSection),
		post(page+"/try", rights.Publish, s.try),
		post(page+"/publish", rights.Publish, s.publish),
	}
}

// gates are what somebody passes on the way to a route: signed in, a member of the site,
// with the right, and to a page that exists.
func (s *Server) gates(t route) (gates []gin.HandlerFunc) {
	if t.right == rights.None {
		return nil
	}
	gates = append(gates, s.signedIn)
	if strings.Contains(t.path, ":site") {
		gates = append(gates, s.member, s.may(t.right))
	}
	if strings.Contains(t.path, ":page") {
		gates = append(gates, s.onPage)
	}
	return gates
}

// may refuses those whose role on the site hasn't a right.
func (s *Server) may(right rights.Right) gin.HandlerFunc {
	return func(c *gin.Context) {
		if !siteOf(c).Role.May(right) {
			s.problemPage(c, http.StatusForbidden)
			c.Abort()
			return
		}
		c.Next()
	}
}

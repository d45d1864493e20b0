package web

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

// route is an address of the application, with the right and what else it takes.
type route struct {
	method, path string
	right        rights.Right
	handle       gin.HandlerFunc
	limits       origin.Limits // ordinary when zero
}

// What requests may take: most of them; those that bring a file, which a slow line takes long
// to send and which say themselves what is too large; and those that write to disk.
var (
	ordinary  = origin.Limits{Body: 1 << 20, Time: 30 * time.Second}
	composing = origin.Limits{Body: 4 * edit.MaxCommand, Time: 2 * time.Minute} // a form's encoding makes a command longer
	uploading = origin.Limits{Body: media.MaxVideoBytes + 1<<20, Time: 10 * time.Minute}
	typeface  = origin.Limits{Body: fonts.MaxOwnBytes + 64<<10, Time: 5 * time.Minute}
	houseFile = origin.Limits{Body: carry.MaxHouseFile + 64<<10, Time: 5 * time.Minute}
	wholeSite = origin.Limits{Body: publishing.MaxFile + 1<<20, Time: 30 * time.Minute}
	writing   = origin.Limits{Body: 1 << 20, Time: 2 * time.Minute}
)

// table lists every route. What a command on a page takes depends on its operation
// (edit.RightFor), and is looked at when it has been read.
func (s *Server) table() []route {
	const site, page = "/sites/:site", "/sites/:site/pages/:page"
	get := func(path string, right rights.Right, handle gin.HandlerFunc) route {
		return route{method: http.MethodGet, path: path, right: right, handle: handle}
	}
	post := func(path string, right rights.Right, handle gin.HandlerFunc) route {
		return route{method: http.MethodPost, path: path, right: right, handle: handle}
	}
	within := func(l origin.Limits, r route) route {
		r.limits = l
		return r
	}
	return []route{
		get("/static/*file", rights.None, gin.WrapH(http.StripPrefix("/static", s.static))),
		get("/fonts/:file", rights.None, origin.Font),
		get("/scenes/:file", rights.None, origin.Scene),
		get("/fonts/own/:file", rights.None, origin.OwnFont(s.MediaDir)),
		get("/sign-in", rights.None, s.signInForm),
		post("/sign-in", rights.None, s.signIn),
		get("/healthy", rights.None, func(c *gin.Context) { c.String(http.StatusOK, "ok") }),
		get("/ready", rights.None, s.ready),

		get("/", rights.Sign, s.sites),
		get("/new", rights.Sign, s.newSite),
		within(writing, post("/new", rights.Sign, s.beginSite)),
		within(wholeSite, post("/new/file", rights.Sign, s.siteFromFile)),
		get("/new/sheet", rights.Sign, s.newSiteSheet),
		get("/new/slug", rights.Sign, s.newSiteSlug),
		post("/restore", rights.Sign, s.restoreSite),
		post("/sign-out", rights.Sign, s.signOut),
		post("/tray", rights.Sign, s.setTray),
		post("/keys", rights.Sign, s.setKey),
		get("/stock/:picture", rights.Sign, s.stockPicture),

		get("/operator", rights.Operate, s.operator),
		post("/operator/jobs", rights.Operate, s.operateJob),

		get(site, rights.See, s.pages),
		get(site+"/pages", rights.See, s.moreRows),
		post(site+"/pages", rights.Compose, s.newPage),
		get(site+"/versions", rights.See, s.siteVersions),
		within(writing, post(site+"/versions/restore", rights.House, s.restoreSiteVersion)),
		get(site+"/menus", rights.Keep, s.menus),
		post(site+"/menus", rights.Keep, s.keepMenus),
		within(writing, post(site+"/address", rights.Account, s.moveSite)),
		post(site+"/archive", rights.Account, s.archive),
		post(site+"/delete", rights.Account, s.deleteSite),
		post(site+"/begun", rights.Compose, s.dismiss),
		get(site+"/zones", rights.House, s.zones),
		post(site+"/zones", rights.House, s.setZones),
		get(site+"/settings", rights.Keep, s.settings),
		within(writing, post(site+"/settings", rights.Keep, s.keepSettings)),
		get(site+"/settings/icon", rights.Keep, s.iconPart),
		post(site+"/settings/visits", rights.Keep, s.countVisits),
		get(site+"/icon.svg", rights.See, s.siteIcon),
		post(site+"/domains", rights.Account, s.addDomain),
		post(site+"/domains/check", rights.Account, s.checkDomain),
		post(site+"/domains/drop", rights.Account, s.dropDomain),
		post(site+"/domains/record", rights.Account, s.setRecord),
		get(site+"/export", rights.Publish, s.export),
		within(writing, get(site+"/file", copying, s.siteFile)),
		post(site+"/redirects", rights.Keep, s.addRedirect),
		post(site+"/redirects/drop", rights.Keep, s.dropRedirect),
		post(site+"/pages/restore", rights.Compose, s.restorePage),
		within(writing, post(site+"/pages/several", rights.Compose, s.several)),
		get(site+"/publish", rights.Publish, s.publishScreen),
		within(writing, post(site+"/publish", rights.Publish, s.publishSeveral)),
		post(site+"/publish/plan", rights.Publish, s.addPlan),
		post(site+"/publish/unplan", rights.Publish, s.dropPlan),
		within(writing, post(site+"/publish/back", rights.Publish, s.goBack)),
		get(site+"/slug", rights.Compose, s.derivedSlug),
		get(site+"/audit", rights.Account, s.audit),
		get(site+"/previews", rights.Publish, s.previews),
		post(site+"/previews", rights.Publish, s.newPreview),
		post(site+"/previews/end", rights.Publish, s.endPreview),
		get(site+"/entries", rights.See, s.formEntries),
		within(writing, get(site+"/entries/file", rights.Keep, s.entriesFile)),
		post(site+"/entries/delete", rights.Keep, s.deleteEntry),
		post(site+"/entries/trust", rights.Keep, s.trustEntry),
		post(site+"/entries/erase", rights.Keep, s.eraseEntries),
		post(site+"/entries/days", rights.Keep, s.setEntryDays),
		get(site+"/links", rights.See, s.links),
		get("/icons", rights.Sign, s.iconSheet),
		get(site+"/ready", rights.Compose, s.drawReady),
		get(site+"/shelf", rights.See, s.shelfParts),
		post(site+"/shelf/business", rights.Keep, s.setBusiness),
		post(site+"/shelf/favourite", rights.See, s.favour),
		post(site+"/shelf/drop", rights.Keep, s.dropSection),

		get(site+"/library", rights.See, s.library),
		within(uploading, post(site+"/library", rights.Write, s.addToLibrary)),
		within(writing, post(site+"/library/stock", rights.Write, s.takeStock)),
		get(site+"/library/:medium/copies", rights.See, s.copies),
		post(site+"/library/:medium", rights.Write, s.inLibrary(s.describe)),
		within(writing, post(site+"/library/:medium/shape", rights.Write, s.inLibrary(s.reshape))),
		within(uploading, post(site+"/library/:medium/replace", rights.Write, s.proposeMedium)),
		post(site+"/library/:medium/take", rights.Write, s.inLibrary(s.takeMedium)),
		post(site+"/library/:medium/keep", rights.Write, s.inLibrary(s.leaveMedium)),
		get(site+"/library/:medium/places", rights.See, s.mediumPlaces),
		get(site+"/library/wants", rights.See, s.mediaWants),
		post(site+"/library/folder", rights.Write, s.fileMedia),
		post(site+"/library/delete", rights.Keep, s.deleteMedia),
		post(site+"/library/restore", rights.Keep, s.restoreMedia),
		post(site+"/library/:medium/again", rights.Write, s.inLibrary(s.copyAgain)),
		get(site+"/media", rights.See, s.mediaPicker),
		within(uploading, post(site+"/media", rights.Write, s.upload)),

		get(site+"/fonts.css", rights.See, s.fontRules),
		get(site+"/house", rights.House, s.house),
		get(site+"/house/specimen", rights.House, s.specimen),
		post(site+"/house/edits", rights.House, s.editHouse),
		post(site+"/house/undo", rights.House, s.undoHouse),
		get(site+"/house/file", rights.House, s.houseFile),
		within(houseFile, post(site+"/house/file", rights.House, s.takeHouseFile)),
		within(typeface, post(site+"/house/fonts", rights.House, s.addFont)),
		post(site+"/house/fonts/drop", rights.House, s.dropFont),
		post(site+"/house/tries", rights.House, s.tryHouseEdit),
		post(site+"/house/try", rights.House, s.tryHouse),
		post(site+"/house/take", rights.House, s.takeHouse),
		post(site+"/house/keep", rights.House, s.keepHouse),
		post(site+"/house/drop", rights.House, s.dropHouse),
		post(site+"/house/palette", rights.House, s.suggestPalette),
		post(site+"/house/contrasts", rights.House, s.tryColour),

		get(page+"/settings", rights.See, s.pageSettingsPart),
		get(page+"/found", rights.See, s.previewPart),
		within(writing, post(page+"/settings", rights.Compose, s.keepPageSettings)),
		post(page+"/move", rights.Compose, s.movePage),
		post(page+"/copy", rights.Compose, s.copyPage),
		post(page+"/home", rights.Compose, s.makeHome),

		get(page+"/zones/:zone", rights.Compose, s.zoneHere),
		get(page+"/shared/:section", rights.See, s.sharedOn),
		get("/sites/:site/checks", rights.See, s.siteChecks),
		post("/sites/:site/checks/stop", rights.See, s.stopSweep),
		get(page+"/checks", rights.See, s.checks),
		get(page+"/checks/marks", rights.See, s.marks),
		get(page+"/checks/count", rights.See, s.checkCount),
		get(page+"/checks/file", rights.See, s.findingsFile),
		get(page+"/checks/mend", rights.Compose, s.mend),
		post(page+"/checks/repair", rights.Compose, s.repair),
		post(page+"/checks/quiet", rights.Compose, s.keepQuiet),
		get(page+"/versions", rights.See, s.versions),
		post(page+"/versions", rights.Compose, s.nameVersion),
		post(page+"/versions/restore", rights.Compose, s.restoreVersion),
		get(page+"/versions/:version/canvas", rights.See, s.versionCanvas),
		get(page+"/versions/:version/drawing", rights.See, s.versionDrawing),

		get(page+"/bench", rights.See, s.bench),
		get(page+"/canvas", rights.See, s.canvas),
		get(page+"/parts", rights.See, s.parts),
		get(page+"/copy", rights.See, s.copyNodes),
		post(page+"/bring", rights.Compose, s.bring),
		get(page+"/recent", rights.Write, s.recent),
		within(composing, post(page+"/edits", rights.Write, s.edit)),
		within(composing, post(page+"/tries", rights.Write, s.tryEdit)),
		post(page+"/undo", rights.Write, s.undo),
		post(page+"/redo", rights.Write, s.redo),
		post(page+"/promote", rights.House, s.promote),
		post(page+"/restyle", rights.House, s.restyle),
		post(page+"/keep", rights.Keep, s.keepSection),
		post(page+"/try", rights.Publish, s.try),
		within(writing, post(page+"/publish", rights.Publish, s.publish)),
	}
}

// sessionless reports whether a path is the same for everybody, so that no session is read.
func sessionless(path string) bool {
	return strings.HasPrefix(path, "/static/") || strings.HasPrefix(path, "/fonts/") || path == "/healthy" || path == "/ready"
}

// gates are what somebody passes on the way to a route: its limits, signed in, a member of
// the site, with the right, and to a page that exists.
func (s *Server) gates(t route) (gates []gin.HandlerFunc) {
	limits, tooLarge := ordinary, func(c *gin.Context) { s.problemPage(c, http.StatusRequestEntityTooLarge) }
	if t.limits != (origin.Limits{}) {
		if limits = t.limits; limits == uploading || limits == typeface || limits == houseFile || limits == wholeSite {
			tooLarge = nil
		}
	}
	gates = append(gates, origin.Within(limits, tooLarge))
	if t.right == rights.None {
		return append(gates, readForm)
	}
	gates = append(gates, s.signedIn)
	if t.right == rights.Operate {
		gates = append(gates, s.operates)
	}
	if strings.Contains(t.path, ":site") {
		gates = append(gates, s.member, s.may(t.right))
	}
	if strings.Contains(t.path, ":page") {
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

// operates answers 404 unless the person is an operator.
func (s *Server) operates(c *gin.Context) {
	if !user(c).Operator {
		s.problemPage(c, http.StatusNotFound)
		c.Abort()
		return
	}
	c.Next()
}

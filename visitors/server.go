// Package visitors is the second origin: what is published, previews, uploads, and the
// small services that published pages use, forms and search.
//
// It never sees a session, and imports nothing of the application's origin (package
// web); web/imports_test.go holds it to that. Start at New.
package visitors

import (
	"log/slog"
	"net/http"

	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"

	"openplot/origin"
	"openplot/site"
	"openplot/store"
)

// Config is what the server needs to know.
type Config struct {
	Store    *store.Store
	MediaDir string // where uploads are kept
	SiteDir  string // where sites are published to
	Previews site.Previews
	Log      *slog.Logger
}

// Server answers visitors.
type Server struct {
	Config
	forms *origin.Attempts
}

// New prepares a server.
func New(c Config) *Server {
	if c.Log == nil {
		c.Log = slog.New(slog.DiscardHandler)
	}
	return &Server{Config: c, forms: origin.NewAttempts()}
}

// Handler serves the origin.
func (s *Server) Handler() http.Handler {
	r := gin.New()
	r.Use(origin.Logged(s.Log), origin.Recovered(s.Log, func(c *gin.Context) {
		visitorPage(c, http.StatusInternalServerError, "Something went wrong on our side", "Try it again in a moment.", "")
	}))
	r.GET("/media/:file", s.mediaFile)
	r.GET("/fonts/:file", origin.Font)
	r.GET("/fonts/own/:file", origin.OwnFont(s.MediaDir))
	r.GET("/scripts/:name", s.script)
	r.POST("/_forms/:site/:form", s.takeForm)
	r.GET("/_search/:site", s.searchSite)
	r.GET("/_visitors.css", visitorStyle)
	r.GET("/try/:token/*path", s.preview)
	r.POST("/try/:token/*path", s.tryForm)
	r.NoRoute(gin.WrapH(gzhttp.GzipHandler(s.publishedFiles())))
	return r
}

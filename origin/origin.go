// Package origin has what the application's origin and the visitors' have in common: a
// line in the log for every request, recovery from panics, limits by address, and the
// fonts, which both serve. It knows neither of them. Start at Logged.
package origin

import (
	"log/slog"
	"net/http"
	"path"
	"path/filepath"
	"runtime/debug"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"openplot/fonts"
)

// RequestID gives the id that Logged gave a request.
func RequestID(c *gin.Context) string { return c.GetString(keyRequest) }

const keyRequest = "request"

// Logged gives every request an id and writes a line about it.
func Logged(log *slog.Logger) gin.HandlerFunc {
	return func(c *gin.Context) {
		id := uuid.NewString()
		c.Set(keyRequest, id)
		c.Header("X-Request-Id", id)
		start := time.Now()
		c.Next()
		level := slog.LevelInfo
		if c.Writer.Status() >= http.StatusInternalServerError {
			level = slog.LevelError
		}
		log.Log(c, level, "request", "id", id, "method", c.Request.Method, "path", c.Request.URL.Path,
			"status", c.Writer.Status(), "ms", float64(time.Since(start).Microseconds())/1000)
	}
}

// Recovered logs a panic and lets answer tell about it, unless something was written
// already.
func Recovered(log *slog.Logger, answer gin.HandlerFunc) gin.HandlerFunc {
	return func(c *gin.Context) {
		defer func() {
			if r := recover(); r != nil {
				log.Error("panic", "id", RequestID(c), "panic", r, "stack", string(debug.Stack()))
				if !c.Writer.Written() {
					answer(c)
				}
				c.Abort()
			}
		}()
		c.Next()
	}
}

// Font serves a font that ships, by the parameter file.
func Font(c *gin.Context) {
	name := path.Base(c.Param("file"))
	b, err := fonts.Files.ReadFile("files/" + name)
	if err != nil || !strings.HasSuffix(name, ".woff2") {
		c.Status(http.StatusNotFound)
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Data(http.StatusOK, "font/woff2", b)
}

// OwnFont serves a font that a site's people uploaded, by the parameter file; its name
// can't be guessed.
func OwnFont(mediaDir string) gin.HandlerFunc {
	return func(c *gin.Context) {
		name := path.Base(c.Param("file"))
		if strings.HasPrefix(name, ".") || path.Ext(name) != ".woff2" {
			c.Status(http.StatusNotFound)
			return
		}
		c.Header("Cache-Control", "public, max-age=31536000, immutable")
		c.Header("Content-Type", "font/woff2")
		c.File(filepath.Join(mediaDir, name))
	}
}

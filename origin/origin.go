// Package origin has what the application's origin and the visitors' have in common: a
// line in the log for every request, recovery from panics, limits of size, time and number,
// and the fonts, which both serve. It knows neither of them. Start at New.
package origin

import (
	"context"
	"errors"
	"log/slog"
	"net"
	"net/http"
	"path"
	"path/filepath"
	"runtime/debug"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"openplot/fonts"
	"openplot/metrics"
	"openplot/stock"
)

func init() { gin.SetMode(gin.ReleaseMode) }

// Options are what a side needs of its router.
type Options struct {
	Side    string // "app" or "pages", in metrics
	Log     *slog.Logger
	Proxies []string // addresses and networks whose X-Forwarded-For counts
	Secure  bool     // it is reached by HTTPS alone
	// Owns reports whether a host and all below it are the program's, rather than somebody's whose
	// other hosts may not have HTTPS; nil is that none is.
	Owns   func(host string) bool
	Broken gin.HandlerFunc // answers after a panic, unless something was written
}

// New makes a router. Its contexts end with their requests, and an address is the client's
// own unless a proxy that is trusted says otherwise.
func New(o Options) (*gin.Engine, error) {
	r := gin.New()
	r.ContextWithFallback = true
	r.RedirectTrailingSlash = false
	r.MaxMultipartMemory = multipartMemory
	if err := r.SetTrustedProxies(o.Proxies); err != nil {
		return nil, err
	}
	r.Use(o.logged, o.recovered, o.transport, swept, o.plain)
	return r, nil
}

// multipartMemory is how much of a form's files is held in memory; the rest is in files until
// the request ends.
const multipartMemory = 1 << 20

// RequestID gives the id of a request.
func RequestID(c *gin.Context) string { return c.GetString(keyRequest) }

// Keys of what is left in a request's context.
const (
	keyRequest = "request"
	keyLeft    = "left" // whoever asked has gone
	// KeyWho is the id of the account that asks.
	KeyWho = "who"
)

// logged gives every request an id, and writes a line about it.
func (o Options) logged(c *gin.Context) {
	id := uuid.NewString()
	c.Set(keyRequest, id)
	c.Header("X-Request-Id", id)
	start := time.Now()
	c.Next()
	status := c.Writer.Status()
	level := slog.LevelInfo
	if status >= http.StatusInternalServerError && !c.GetBool(keyLeft) {
		level = slog.LevelError
	}
	o.Log.Log(
		context.WithoutCancel(c),
		level,
		"request",
		"id",
		id,
		"side",
		o.Side,
		"method",
		c.Request.Method,
		"path",
		withoutSecrets(c.Request.URL.Path),
		"status",
		status,
		"ms",
		float64(time.Since(start).Microseconds())/1000,
		"user",
		c.GetString(KeyWho),
		"address",
		c.ClientIP(),
	)
	route := c.FullPath()
	if route == "" {
		route = "other"
	}
	metrics.Since(metrics.Requests.WithLabelValues(o.Side, route, strconv.Itoa(status)), start)
}

// withoutSecrets is a path as logs may have it: what opens a preview isn't in it.
func withoutSecrets(p string) string {
	rest, ok := strings.CutPrefix(p, "/try/")
	if !ok {
		return p
	}
	_, after, _ := strings.Cut(rest, "/")
	return "/try/…/" + after
}

// recovered logs a panic and answers.
func (o Options) recovered(c *gin.Context) {
	defer func() {
		r := recover()
		if r == nil {
			return
		}
		if err, ok := r.(error); ok && errors.Is(err, http.ErrAbortHandler) {
			panic(r) // the server ends the connection
		}
		o.Log.Error("panic", "id", RequestID(c), "panic", r, "stack", string(debug.Stack()))
		if !c.Writer.Written() {
			o.Broken(c)
		}
		c.Abort()
	}()
	c.Next()
}

// transport says that the origin is to be reached by HTTPS for a year (RFC 6797).
func (o Options) transport(c *gin.Context) {
	if o.Secure {
		policy := "max-age=31536000"
		if o.Owns != nil && o.Owns(c.Request.Host) {
			policy += "; includeSubDomains"
		}
		c.Header("Strict-Transport-Security", policy)
	}
	c.Next()
}

// swept removes the files of a request's form. The server itself does so only for the
// request that it made, and others stand in its place once middleware has changed it.
func swept(c *gin.Context) {
	defer func() {
		if c.Request.MultipartForm != nil {
			_ = c.Request.MultipartForm.RemoveAll() // what is left is in the temporary folder, and an operator's to see
		}
	}()
	c.Next()
}

// plain lets nothing in that isn't text: an address with NUL or broken UTF-8 is nowhere, and in
// queries such characters are replaced.
func (o Options) plain(c *gin.Context) {
	u := c.Request.URL
	if !isText(u.Path) {
		c.String(http.StatusNotFound, "There is nothing here.")
		c.Abort()
		return
	}
	if strings.Contains(u.RawQuery, "%") {
		q := u.Query()
		if cleanValues(q) {
			u.RawQuery = q.Encode()
		}
	}
	c.Next()
}

// CleanForm replaces what isn't text in the values of a form that has been read.
func CleanForm(r *http.Request) {
	cleanValues(r.PostForm)
	cleanValues(r.Form)
	if r.MultipartForm != nil {
		cleanValues(r.MultipartForm.Value)
	}
}

func cleanValues(values map[string][]string) (changed bool) {
	for _, vs := range values {
		for i, v := range vs {
			if !isText(v) {
				vs[i], changed = strings.ReplaceAll(strings.ToValidUTF8(v, "\uFFFD"), "\x00", "\uFFFD"), true
			}
		}
	}
	return changed
}

func isText(s string) bool { return utf8.ValidString(s) && !strings.ContainsRune(s, 0) }

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

// Scene serves a picture that stands in for one that isn't chosen, by the parameter file.
func Scene(c *gin.Context) {
	svg, ok := stock.SceneNamed(c.Param("file"))
	if !ok {
		c.Status(http.StatusNotFound)
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Header("Content-Security-Policy", "default-src 'none'")
	c.Data(http.StatusOK, "image/svg+xml", []byte(svg))
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

// HostName is a host without its port.
func HostName(host string) string {
	if name, _, err := net.SplitHostPort(host); err == nil {
		return name
	}
	return host
}

package origin

import (
	"context"
	"errors"
	"io"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
)

// Limits are what a request may take.
type Limits struct {
	Body int64         // bytes
	Time time.Duration // to read it, work on it and answer
}

// answerTime is how long sending an answer may take.
const answerTime = time.Minute

// Within holds requests to limits. Longer bodies answer 413 by tooLarge, unless it is nil and
// the handler says so itself. A request that ends before it is answered answers 503, and its
// connection with it.
func Within(l Limits, tooLarge gin.HandlerFunc) gin.HandlerFunc {
	return func(c *gin.Context) {
		if tooLarge != nil && c.Request.ContentLength > l.Body {
			tooLarge(c)
			c.Abort()
			return
		}
		end := time.Now().Add(l.Time)
		connection := http.NewResponseController(c.Writer)
		_ = connection.SetWriteDeadline(end.Add(answerTime)) // not every writer is a connection's
		// A deadline of reading counts only while there is something to read. The server reads on to see
		// whether the connection ends, and one that passed then would end the context of this request and
		// of all that follow on the connection.
		if c.Request.Body == nil || c.Request.Body == http.NoBody {
			_ = connection.SetReadDeadline(time.Time{})
		} else {
			_ = connection.SetReadDeadline(end)
			c.Request.Body = &read{http.MaxBytesReader(c.Writer, c.Request.Body, l.Body), func() { _ = connection.SetReadDeadline(time.Time{}) }}
		}
		asked := c.Request.Context()
		ctx, cancel := context.WithDeadline(asked, end)
		defer cancel()
		c.Request = c.Request.WithContext(ctx)
		c.Next()
		if asked.Err() != nil {
			c.Set(keyLeft, true)
		}
		if ctx.Err() != nil {
			ended(c)
		}
	}
}

// ended answers a request whose time was up before anything was answered: an empty answer would be
// taken for one that was carried out.
func ended(c *gin.Context) {
	if c.Writer.Written() {
		return
	}
	h := c.Writer.Header()
	h.Set("Connection", "close")
	h.Set("Retry-After", "5")
	h.Set("Cache-Control", "no-store")
	h.Del("Content-Length")
	h.Del("Content-Encoding")
	c.String(http.StatusServiceUnavailable, "This took too long. Try it again in a moment.")
}

// read is a body that tells when it was read to its end.
type read struct {
	io.ReadCloser
	done func()
}

// Read implements io.Reader.
func (r *read) Read(b []byte) (int, error) {
	n, err := r.ReadCloser.Read(b)
	if errors.Is(err, io.EOF) {
		r.done()
	}
	return n, err
}

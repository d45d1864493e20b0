package origin

import (
	"bufio"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/gin-gonic/gin"
)

// raw is a connection that is kept alive, as a browser's is.
type raw struct {
	net.Conn
	in *bufio.Reader
	t  *testing.T
}

func (r *raw) ask(request string) *http.Response {
	r.t.Helper()
	if _, err := io.WriteString(r, request); err != nil {
		r.t.Fatal(err)
	}
	_ = r.SetReadDeadline(time.Now().Add(10 * time.Second))
	res, err := http.ReadResponse(r.in, nil)
	if err != nil {
		r.t.Fatalf("%q: %v", request, err)
	}
	b, err := io.ReadAll(res.Body)
	if err != nil {
		r.t.Fatal(err)
	}
	res.Body = io.NopCloser(strings.NewReader(string(b)))
	return res
}

// What follows a slow request on its connection is carried out, and a request whose time was up
// says so and takes the connection with it.
func TestSlowRequests(t *testing.T) {
	e, err := New(Options{Side: "app", Log: slog.New(slog.DiscardHandler), Broken: func(*gin.Context) {}})
	if err != nil {
		t.Fatal(err)
	}
	carried := 0
	short, long := Within(
		Limits{Body: 1 << 10, Time: 300 * time.Millisecond},
		nil,
	), Within(
		Limits{Body: 1 << 10, Time: 5 * time.Second},
		nil,
	)
	quick := func(c *gin.Context) {
		if _, err := io.ReadAll(c.Request.Body); err != nil || c.Err() != nil { // as handlers do that ask the database
			return
		}
		carried++
		c.String(http.StatusOK, "done")
	}
	wait := func(c *gin.Context) {
		_, _ = io.ReadAll(c.Request.Body)
		select {
		case <-c.Request.Context().Done(): // and nothing is answered
		case <-time.After(900 * time.Millisecond):
			quick(c)
		}
	}
	for _, method := range []string{http.MethodGet, http.MethodPost} {
		e.Handle(method, "/ends", short, wait)
		e.Handle(method, "/slow", long, wait)
		e.Handle(method, "/quick", short, quick)
	}
	server := httptest.NewUnstartedServer(e)
	server.Config.ReadTimeout = 600 * time.Millisecond // as the program has one
	server.Start()
	defer server.Close()
	dial := func() *raw {
		conn, err := net.Dial("tcp", server.Listener.Addr().String())
		if err != nil {
			t.Fatal(err)
		}
		t.Cleanup(func() { conn.Close() })
		return &raw{conn, bufio.NewReader(conn), t}
	}
	get := func(path string) string { return "GET " + path + " HTTP/1.1\r\nHost: x\r\n\r\n" }
	post := func(path string) string {
		return "POST " + path + " HTTP/1.1\r\nHost: x\r\nContent-Length: 3\r\n\r\na=b"
	}
	for name, request := range map[string]func(string) string{"GET": get, "POST": post} {
		r := dial()
		carried = 0
		for _, path := range []string{"/quick", "/slow", "/quick", "/slow", "/quick"} {
			if res := r.ask(request(path)); res.StatusCode != http.StatusOK {
				t.Fatalf("%s %s: %d", name, path, res.StatusCode)
			}
		}
		if carried != 5 {
			t.Errorf("%s: %d of 5 were carried out", name, carried)
		}
		res := r.ask(request("/ends"))
		if b, _ := io.ReadAll(res.Body); res.StatusCode != http.StatusServiceUnavailable || !res.Close || len(b) == 0 {
			t.Errorf("%s: one whose time was up answers %d %q, closing: %v", name, res.StatusCode, b, res.Close)
		}
		if _, err := r.in.ReadByte(); err != io.EOF {
			t.Errorf("%s: its connection goes on: %v", name, err)
		}
	}
	// One whose body never comes doesn't hold its connection.
	r := dial()
	start := time.Now()
	res := r.ask(strings.TrimSuffix(post("/quick"), "a=b"))
	if res.StatusCode != http.StatusServiceUnavailable || time.Since(start) > 5*time.Second {
		t.Errorf("a body that never comes: %d after %v", res.StatusCode, time.Since(start))
	}
}

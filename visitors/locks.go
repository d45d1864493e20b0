package visitors

import (
	"crypto/hmac"
	"crypto/sha256"
	"encoding/base64"
	"html"
	"net/http"
	"path"
	"strings"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/gin-gonic/gin"

	"openplot/origin"
	"openplot/store"
)

// A page with a password is opened by a cookie of its own host: a keyed hash of the page, whose
// key is the hash of the password, which nobody but the program has. What counts is the password
// that the page has now, whatever it had when it was published: another one closes the page again.
// There is no session, and nothing is kept of who opened it.

// keyCookie begins the name of such a cookie.
const keyCookie = "opens-"

// keyLife is how long a password opens a page.
const keyLife = 12 * time.Hour

// token is what opens a page with a lock.
func token(page, lock string) string {
	mac := hmac.New(sha256.New, []byte(lock))
	mac.Write([]byte(page))
	return base64.RawURLEncoding.EncodeToString(mac.Sum(nil))
}

// opens reports whether a request has what opens a page.
func opens(r *http.Request, page, lock string) bool {
	c, err := r.Cookie(keyCookie + page)
	return err == nil && hmac.Equal([]byte(c.Value), []byte(token(page, lock)))
}

// unlock takes the password of a page.
func (s *Server) unlock(c *gin.Context, f *folder, name string) {
	w, r := c.Writer, c.Request
	e := f.release.Pages[name]
	if e == nil || f.lock(e) == "" {
		w.Header().Set("Allow", "GET, HEAD")
		http.Error(w, "Pages can only be read.", http.StatusMethodNotAllowed)
		return
	}
	if !s.keys.Allow(origin.Network(c.ClientIP())+" "+e.Page, time.Now()) {
		w.Header().Set("Retry-After", "60")
		f.askPassword(w, http.StatusTooManyRequests, "Too many attempts. Try again in a minute.")
		return
	}
	if match, err := argon2id.ComparePasswordAndHash(store.Clean(r.PostFormValue("password")), f.lock(e)); err != nil ||
		!match {
		f.askPassword(w, http.StatusForbidden, "That isn’t the password of this page.")
		return
	}
	http.SetCookie(w, &http.Cookie{
		Name: keyCookie + e.Page, Value: token(e.Page, f.lock(e)), Path: path.Clean("/" + r.URL.Path), MaxAge: int(keyLife.Seconds()),
		HttpOnly: true, Secure: s.Hosts.Scheme == "https", SameSite: http.SameSiteLaxMode,
	})
	http.Redirect(w, r, strings.TrimSuffix("/"+name, "/")+"/", http.StatusSeeOther)
}

// askPassword answers with a field for the password of a page.
func (f *folder) askPassword(w http.ResponseWriter, status int, problem string) {
	said, described := "", ""
	if problem != "" {
		said = `<p role="alert" id="problem">` + html.EscapeString(problem) + "</p>"
		described = ` aria-describedby="problem" aria-invalid="true"`
	}
	w.Header().Set("X-Robots-Tag", "noindex")
	f.document(
		w,
		status,
		"This page has a password",
		said+`<form method="post"><label for="password">Password</label> `+
			`<input type="password" id="password" name="password" autocomplete="current-password" required`+described+`><button>Open the page</button></form>`,
		"",
	)
}

package visitors

import (
	"bytes"
	"html"
	"io"
	"io/fs"
	"net/http"
	"regexp"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/site"
)

// tell answers a visitor with a sentence, on a page as the site's are.
func (s *Server) tell(c *gin.Context, status int, title, text, back string) {
	s.document(c, status, title, "<p>"+html.EscapeString(text)+"</p>", back)
}

// document answers a visitor with content, which is HTML, on a page as the site's are; a plain one
// where the host is no site's or its site has none.
func (s *Server) document(c *gin.Context, status int, title, content, back string) {
	if at := standingOf(c); at != nil && c.MustGet(keyFace) == site.Public {
		if f, err := s.folder(at); err == nil {
			defer f.root.Close()
			f.document(c.Writer, status, title, content, back)
			return
		}
	}
	plainDocument(c.Writer, status, title, content, back)
}

// framed is where the words of a frame stand: in a paragraph, whatever the look of it.
var framed = regexp.MustCompile(`<p( [^>]*)?>` + site.FrameWords + `</p>`)

// document answers with content on a page as the site's are, or on a plain one.
func (f *folder) document(w http.ResponseWriter, status int, title, content, back string) {
	e := f.release.Frame
	if e == nil { // published before there were any
		plainDocument(w, status, title, content, back)
		return
	}
	page, err := fs.ReadFile(f.root.FS(), e.Content())
	if err != nil {
		plainDocument(w, status, title, content, back)
		return
	}
	in := bytes.ReplaceAll(page, []byte(site.FrameTitle), []byte(html.EscapeString(title)))
	in = framed.ReplaceAllFunc(in, func(p []byte) []byte {
		class := framed.FindSubmatch(p)[1]
		return slices.Concat([]byte("<div"), class, []byte(`><div class="said">`+content+backTo(back)+"</div></div>"))
	})
	in = bytes.Replace(in, []byte("</head>"), []byte(`<link rel="stylesheet" href="`+saidPath+`"></head>`), 1)
	h := w.Header()
	f.policy(h, e)
	h.Set("Content-Type", e.Type)
	h.Set("Cache-Control", "no-store")
	h.Set("X-Robots-Tag", "noindex")
	w.WriteHeader(status)
	_, _ = w.Write(in) // a visitor who has gone needs no answer
}

// backTo leads back to a page, or is nothing.
func backTo(page string) string {
	if page == "" {
		return ""
	}
	return "<p><a href=\"" + html.EscapeString(page) + "\">Back to the page</a></p>"
}

func plainDocument(w http.ResponseWriter, status int, title, content, back string) {
	h := w.Header()
	pageHeaders(h)
	h.Set("Cache-Control", "no-store")
	h.Set("Content-Type", "text/html; charset=utf-8")
	w.WriteHeader(status)
	_, _ = io.WriteString(
		w,
		"<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>"+html.EscapeString(title)+
			"</title><meta name=\"viewport\" content=\"width=device-width, initial-scale=1\"><link rel=\"stylesheet\" href=\"/_visitors.css\"></head><body><main><h1>"+html.EscapeString(title)+"</h1>"+content+backTo(back)+"</main></body></html>\n",
	) // a visitor who has gone needs no answer
}

const plainStyle = `body{font:1.0625rem/1.6 system-ui,sans-serif;color:#1f2a2c;background:#fff;margin:0}
main{max-width:40rem;margin:15vh auto;padding:0 1.25rem}a{color:#1d5f6b}li{margin-block:1rem}mark{background:#ffecb3;color:inherit}
form{display:flex;gap:.5rem}input{flex:1;min-width:0}input,button{font:inherit;padding:.5rem .75rem;border:1px solid #5c6b6d;border-radius:4px}
`

// saidStyle is how fields and lists look on a page as the site's are: as its words do.
const saidStyle = `.said{text-align:start;width:fit-content;max-width:42rem;margin-inline:auto}.said:has(form){width:auto}.said>*+*{margin-top:1rem}.said a{text-decoration:underline}
.said li+li{margin-top:1rem}.said mark{background:#ffecb3;color:#1f2a2c}
.said form{display:flex;flex-wrap:wrap;gap:.5rem;align-items:center}.said input{flex:1 1 12rem;min-width:0}
.form-problems{padding:1rem;border:2px solid;grid-column:1/-1}.form-problems ul{margin:.5rem 0 0;padding-inline-start:1.25rem}.form-problems a{text-decoration:underline}
form:has(>.form-problems)>*{align-self:start!important}.form-problem{font-weight:600;padding-block-start:.375rem}[aria-invalid=true]{outline:2px solid;outline-offset:2px}
.said input,.said button{font:inherit;color:inherit;background:none;padding:.5rem .75rem;border:1px solid;border-radius:4px}.said button{cursor:pointer}
`

// ownStyle is the style sheet of those.
func ownStyle(c *gin.Context) {
	pageHeaders(c.Writer.Header())
	c.Data(http.StatusOK, "text/css; charset=utf-8", []byte(saidStyle))
}

// visitorStyle is the style sheet of plain pages.
func visitorStyle(c *gin.Context) {
	pageHeaders(c.Writer.Header())
	c.Data(http.StatusOK, "text/css; charset=utf-8", []byte(plainStyle))
}

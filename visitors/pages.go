package visitors

import (
	"html"
	"io"
	"net/http"

	"github.com/gin-gonic/gin"
)

func visitorPage(c *gin.Context, status int, title, text, back string) {
	visitorDocument(c, status, title, "<p>"+html.EscapeString(text)+"</p>", back)
}

// visitorDocument answers a visitor of a published site with a plain page.
func visitorDocument(c *gin.Context, status int, title, content, back string) {
	plainDocument(c.Writer, status, title, content, back)
}

func plainDocument(w http.ResponseWriter, status int, title, content, back string) {
	link := ""
	if back != "" {
		link = "<p><a href=\"" + html.EscapeString(back) + "\">Back to the page</a></p>"
	}
	h := w.Header()
	pageHeaders(h)
	h.Set("Cache-Control", "no-store")
	h.Set("Content-Type", "text/html; charset=utf-8")
	w.WriteHeader(status)
	_, _ = io.WriteString(
		w,
		"<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>"+html.EscapeString(title)+
			"</title><meta name=\"viewport\" content=\"width=device-width, initial-scale=1\"><link rel=\"stylesheet\" href=\"/_visitors.css\"></head><body><main><h1>"+html.EscapeString(title)+"</h1>"+content+link+"</main></body></html>\n",
	) // a visitor who has gone needs no answer
}

const plainStyle = `body{font:1.0625rem/1.6 system-ui,sans-serif;color:#1f2a2c;background:#fff;margin:0}
main{max-width:40rem;margin:15vh auto;padding:0 1.25rem}a{color:#1d5f6b}li{margin-block:1rem}mark{background:#ffecb3;color:inherit}
form{display:flex;gap:.5rem}input{flex:1;min-width:0}input,button{font:inherit;padding:.5rem .75rem;border:1px solid #5c6b6d;border-radius:4px}
`

// visitorStyle is the style sheet of those pages.
func visitorStyle(c *gin.Context) {
	pageHeaders(c.Writer.Header())
	c.Data(http.StatusOK, "text/css; charset=utf-8", []byte(plainStyle))
}

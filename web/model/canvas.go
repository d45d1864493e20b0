package model

import (
	"strings"

	"openplot/core/doc"
	"openplot/core/emit"
	"openplot/fonts"
	"openplot/site"
)

// Canvas is the page itself as a document, for the frame in the middle of the Bench; css is
// the address of what the canvas adds to it.
func (v *View) Canvas(css string) string {
	root := v.Builder.Page(&doc.Page{Ground: v.Page.Ground})
	var b strings.Builder
	b.WriteString(
		"<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>Canvas</title><meta name=\"viewport\" content=\"width=device-width\"><style>",
	)
	for _, f := range fonts.Faces {
		b.WriteString(site.FontFace(f, "/fonts/").CSS("block"))
	}
	for _, f := range v.OwnFaces() {
		b.WriteString(f.CSS("block"))
	}
	b.WriteString(emit.Reset(nil))
	// What is laid out is laid out for readers who set no text size of their own.
	b.WriteString("html{font-size:16px}\n")
	sheet := emit.NewCanvasSheet(v.Site.Zones, "page")
	var body strings.Builder
	sheet.Write(&body, root)
	b.WriteString(sheet.CSS())
	b.WriteString("</style><link rel=\"stylesheet\" href=\"" + css + "\">")
	for _, sec := range v.Page.Sections {
		b.WriteString("<style data-css=\"" + sec.ID + "\">" + v.Stage.scene(v.Page, sec).CSS + "</style>")
	}
	b.WriteString("</head>" + strings.TrimSuffix(body.String(), "</body>"))
	for _, sec := range v.Page.Sections {
		if !sec.Hidden {
			b.WriteString(v.Stage.scene(v.Page, sec).HTML)
		}
	}
	b.WriteString("</body></html>")
	return b.String()
}

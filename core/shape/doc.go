// Package shape turns text and fonts into widths and lines.
//
// In come fonts and runs of styled text; out come paragraphs that are
// shaped once (HarfBuzz, through go-text) and can then be broken into lines at
// any width by arithmetic alone. The rules follow what Chromium does, to the
// 1/64 px, and were measured against it. Start at Library and Paragraph.
package shape

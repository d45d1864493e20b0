// Package bench is the model of the Bench: what is shown of a page at a width, with a
// node selected, without HTTP.
//
// In come a site's source and a page, out go views for templates and JSON for the Bench's
// scripts: the Tray, the Overview, the Reach, drawings from the layout core's boxes, and
// the page's text for the canvas. A Workshop makes a Stage for a page of a site, and
// remembers what stages have in common; a View is a person's look at a page on it. It
// knows no Gin and no net/http (web/imports_test.go). Start at View.
package model

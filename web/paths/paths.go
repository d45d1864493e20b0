// Package paths says where everything of the application is: nothing else puts a path together.
//
// A page's address on its site has slashes in it ("about/crew"), and is "" of the home page; in a
// path of the application it is one Segment. Start at Site.
package paths

import (
	"cmp"
	"strings"
)

// Routes of a site and of one of its pages, as the router has them.
const (
	SiteRoute = "/sites/:site"
	PageRoute = "/sites/:site/pages/:page"
)

// Site is where a site is: "/sites/skerry".
type Site string

// To is where the site with a slug is.
func To(slug string) Site { return Site("/sites/" + slug) }

// At is a screen of the site, or something on one: At("library", "stock") is
// "/sites/skerry/library/stock".
func (s Site) At(parts ...string) string { return join(string(s), parts) }

// Page is where a page of the site is, by its address there.
func (s Site) Page(address string) Page { return s.Segment(Of(address)) }

// Segment is Page, by the segment.
func (s Site) Segment(page Segment) Page { return Page(s.At("pages", string(page))) }

// Page is where a page of a site is: "/sites/skerry/pages/about.crew".
type Page string

// At is a screen of the page, or something on one.
func (p Page) At(parts ...string) string { return join(string(p), parts) }

func join(path string, parts []string) string {
	return strings.Join(append([]string{path}, parts...), "/")
}

// Segment is a page's address as one segment of a path: "about.crew", "home".
type Segment string

// home is the segment of the home page. No other page has that address (doc.PageReserved).
const home Segment = "home"

// Of is the segment of an address. Addresses have no full stop in them (tree.CheckSegment).
func Of(address string) Segment {
	return cmp.Or(Segment(strings.ReplaceAll(address, "/", ".")), home)
}

// Address is the address that a segment is of.
func (s Segment) Address() string {
	if s == home {
		return ""
	}
	return strings.ReplaceAll(string(s), ".", "/")
}

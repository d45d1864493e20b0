package doc

import "slices"

// Addresses that mean something already. A site called like one of the first would shadow a
// host, a page called like one of the second a folder of what is published.
var (
	reservedSites = []string{
		"admin", "api", "app", "assets", "bench", "fonts", "ftp", "localhost", "mail", "media", "mx", "ns", "ns1", "ns2", "own", "pages", "scripts",
		"sites", "static", "status", "try", "www",
	}
	reservedPages = []string{"assets", "fonts", "home", "index", "media", "scripts", "search", "forms", "static", "try"}
)

// SiteReserved reports whether no site can have an address.
func SiteReserved(slug string) bool { return slices.Contains(reservedSites, slug) }

// PageReserved reports whether no page can have an address.
func PageReserved(slug string) bool { return slices.Contains(reservedPages, slug) }

package emit

import "strings"

// addresses are the attributes that hold one.
var addresses = map[string]bool{
	"href":       true,
	"src":        true,
	"action":     true,
	"formaction": true,
	"poster":     true,
	"data":       true,
	"xlink:href": true,
}

// address gives the value of an attribute, which is "#" where it is an address that a browser would
// take for a command, however it came there: what is entered and what comes in files is checked, and
// this is what holds if that doesn't.
func address(name, value string) string {
	if addresses[name] && !leads(value) {
		return "#"
	}
	return value
}

// leads reports whether an address is relative, or of a scheme that runs nothing: http, https, mailto,
// tel, and pictures that stand in the page itself.
func leads(address string) bool {
	scheme, rest, found := strings.Cut(address, ":")
	if i := strings.IndexAny(scheme, "/?#"); !found || i >= 0 {
		return true
	}
	// Browsers leave out tabs and line breaks, and what isn't seen before (URL Standard §4.4).
	scheme = strings.Map(func(r rune) rune {
		if r <= ' ' {
			return -1
		}
		return r
	}, scheme)
	switch strings.ToLower(scheme) {
	case "http", "https", "mailto", "tel":
		return true
	case "data":
		return strings.HasPrefix(strings.ToLower(rest), "image/") &&
			!strings.HasPrefix(strings.ToLower(rest), "image/svg")
	}
	return false
}

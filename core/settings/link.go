package settings

import (
	"net/url"
	"regexp"
	"strings"

	"openplot/core/doc"
)

// filePattern is what is behind doc.FilePrefix.
var filePattern = regexp.MustCompile(`^[\w-]{1,64}$`)

// CheckLink checks a link that a visitor can follow, to a page of the site ("/fares"), a
// place on the page ("#crew"), the web, mail, a telephone or a file of the library
// ("file:m1"), with or without what doc.JoinLink adds to it. Errors are *doc.Problem.
func CheckLink(v string) (string, error) {
	v, err := doc.Line("Link", v, doc.MaxAddress)
	if err != nil {
		return v, err
	}
	link := v
	v, inNewTab := doc.SplitLink(v)
	if v = strings.TrimSpace(v); v == "" {
		return "", nil
	}
	u, perr := url.Parse(v)
	ok := perr == nil && !strings.ContainsAny(v, " <>\"\\")
	if ok {
		switch u.Scheme {
		case "http", "https":
			ok = u.Host != ""
		case "mailto", "tel":
			ok = u.Opaque != "" || u.Scheme == "mailto" && u.RawQuery != "" // to nobody yet (RFC 6068 §2)
		case strings.TrimSuffix(doc.FilePrefix, ":"):
			ok = filePattern.MatchString(u.Opaque)
		case "":
			ok = u.Host == "" && (strings.HasPrefix(v, "/") || strings.HasPrefix(v, "#"))
		default:
			ok = false
		}
	}
	if !ok {
		return "", doc.Problemf(
			"Link",
			"can't be %.60q: write a page such as /fares, a place such as #crew, or an address that begins with https:, mailto: or tel:",
			link,
		)
	}
	return doc.JoinLink(v, inNewTab), nil
}

// Package visit reads what is counted of a visit: where it came from, in which language, and whether a
// program made it. Nothing in it tells who it was.
package visit

import (
	"net/url"
	"strings"
	"unicode"
)

// robots are words in how programs call themselves that go through pages by themselves (common practice).
var robots = []string{
	"bot", "crawl", "spider", "slurp", "archiv", "preview", "monitor", "scan", "curl/", "wget/", "python", "java/", "go-http-client", "libwww", "lighthouse",
}

// Robot reports whether whoever calls themselves so (User-Agent, RFC 9110 §10.1.5) is a program that nobody looks at.
func Robot(agent string) bool {
	agent = strings.ToLower(agent)
	if agent == "" {
		return true
	}
	for _, r := range robots {
		if strings.Contains(agent, r) {
			return true
		}
	}
	return false
}

// longest is how many characters are kept of what a visit says.
const longest = 100

// From gives the host of the site that led to a page, without "www."; "" where it was the site itself or none.
func From(referrer, own string) string {
	u, err := url.Parse(referrer)
	if err != nil || u.Scheme != "http" && u.Scheme != "https" {
		return ""
	}
	host := strings.TrimPrefix(strings.ToLower(u.Hostname()), "www.")
	ownHost, _, _ := strings.Cut(own, ":")
	if host == "" || host == strings.TrimPrefix(strings.ToLower(ownHost), "www.") || len(host) > longest ||
		strings.ContainsFunc(host, odd) {
		return ""
	}
	return host
}

func odd(r rune) bool {
	return !(r >= 'a' && r <= 'z' || r >= '0' && r <= '9' || r == '.' || r == '-' || r == ':')
}

// Campaign gives what an address says of where it was put (utm_source, utm_medium and utm_campaign, common
// practice), with signs between, or "".
func Campaign(query string) string {
	q, _ := url.ParseQuery(query) // what can't be read is left out
	var all []string
	for _, name := range []string{"utm_source", "utm_medium", "utm_campaign"} {
		if v := Line(q.Get(name), longest/3); v != "" {
			all = append(all, v)
		}
	}
	return strings.Join(all, " / ")
}

// Language gives the first part of a language's tag (BCP 47), such as "de", or "".
func Language(tag string) string {
	first, _, _ := strings.Cut(strings.ToLower(tag), "-")
	if len(first) < 2 || len(first) > 3 ||
		strings.ContainsFunc(first, func(r rune) bool { return r < 'a' || r > 'z' }) {
		return ""
	}
	return first
}

// Line is text on one line, of so many characters at most.
func Line(s string, most int) string {
	s = strings.Join(
		strings.FieldsFunc(s, func(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) }),
		" ",
	)
	if r := []rune(s); len(r) > most {
		s = strings.TrimSpace(string(r[:most]))
	}
	return s
}

package site

import (
	"net"
	"net/url"
	"strings"
)

// Hosts names the hosts of the visitors' side. Every site has one of its own, so that none
// reaches what another keeps in a browser; so has its own HTML, and so have its previews.
type Hosts struct {
	Scheme string // "http" or "https"
	Base   string // what they all end in, such as "localhost:8081"
}

// ParseHosts reads the address that all hosts are below, such as "https://pages.example.org".
func ParseHosts(address string) (Hosts, error) {
	u, err := url.Parse(address)
	if err != nil {
		return Hosts{}, err
	}
	return Hosts{Scheme: u.Scheme, Base: strings.ToLower(u.Host)}, nil
}

// Face is what a host shows of a site.
type Face int

// The faces.
const (
	Nothing Face = iota // a host that isn't one of these
	Public              // what is published
	Own                 // its own HTML, in pages of an origin apart
	Draft               // previews
	Uploads             // pictures for the Bench, of all sites
)

// Marks of the hosts. A site's address has no two hyphens in a row, so nothing can be taken
// for another.
const (
	ownMark    = "--own"
	draftMark  = "--try"
	uploadName = "media"
)

func (h Hosts) at(label string) string { return h.Scheme + "://" + label + "." + h.Base }

// Public is the origin of what a site published.
func (h Hosts) Public(slug string) string { return h.at(slug) }

// Own is the origin of a site's own HTML.
func (h Hosts) Own(slug string) string { return h.at(slug + ownMark) }

// Draft is the origin of a site's previews.
func (h Hosts) Draft(slug string) string { return h.at(slug + draftMark) }

// Uploads is the origin of the pictures that the Bench shows.
func (h Hosts) Uploads() string { return h.at(uploadName) }

// All is the source expression of all of them (CSP 3 §2.3.1).
func (h Hosts) All() string { return h.at("*") }

// Which tells what a request's host shows, and of which site.
func (h Hosts) Which(host string) (Face, string) {
	label, ok := strings.CutSuffix(strings.ToLower(host), "."+h.Base)
	if !ok {
		label, ok = strings.CutSuffix(
			strings.ToLower(host),
			"."+h.hostname(),
		) // behind a proxy that leaves the port out
	}
	if !ok || label == "" || strings.Contains(label, ".") {
		return Nothing, ""
	}
	if label == uploadName {
		return Uploads, ""
	}
	if slug, ok := strings.CutSuffix(label, ownMark); ok {
		return Own, slug
	}
	if slug, ok := strings.CutSuffix(label, draftMark); ok {
		return Draft, slug
	}
	return Public, label
}

func (h Hosts) hostname() string {
	if name, _, err := net.SplitHostPort(h.Base); err == nil {
		return name
	}
	return h.Base
}

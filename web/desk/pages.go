package desk

import (
	"errors"
	"html/template"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/rights"
	"openplot/store"
	"openplot/web/paths"
)

// Row is a page in the list of a site's pages.
type Row struct {
	ID, Name, Address       string
	Slug                    paths.Segment
	Depth                   int
	State                   State
	Home, OutOfMenu, Locked bool
	InFooter                bool
	Drawing                 template.HTML
	// Of lists: how much was found about it, how often it was seen lately, and when it is planned to
	// be published or withdrawn, in words.
	Found, Visits int
	Lately        string // by day, as the points of a line
	Planned       string
}

// State is how a page's draft and what visitors see of it stand to each other.
type State struct {
	Mark string // "never", "live" or "changed"
	Text string
}

// Standing tells how a page stands whose site is at a version.
func Standing(p *store.PageInfo, version int64) State {
	s := standing(p, version)
	if who := p.Asked(); who != "" {
		s.Text += "; " + who + " asks to publish it"
	}
	return s
}

func standing(p *store.PageInfo, version int64) State {
	switch {
	case p.PublishedSeq == nil:
		return State{"never", "Not published"}
	case *p.PublishedSeq != p.Seq:
		n := p.Seq - *p.PublishedSeq
		return State{"changed", edits(n) + " since it was published"}
	case p.PublishedLook != nil && *p.PublishedLook != version:
		return State{"changed", "The site changed since it was published"}
	}
	return State{"live", "Published"}
}

// edits counts them in words.
func edits(n int64) string {
	if n == 1 {
		return "1 edit"
	}
	return strconv.FormatInt(n, 10) + " edits"
}

// Row is a page in the list.
func (s *Desk) Row(st *store.Site, p *store.PageInfo, svg string) Row {
	return Row{
		ID: p.ID, Slug: paths.Of(p.Slug), Name: p.Name, Address: "/" + p.Slug, Depth: strings.Count(p.Slug, "/"), State: Standing(p, st.Version),
		Home: p.Slug == "", OutOfMenu: !p.InMenu, InFooter: p.InFooter, Locked: p.Lock != "", Drawing: template.HTML(svg),
	}
}

// MediumOr gives a medium of the site, or nil.
func (s *Desk) MediumOr(c *gin.Context, st *store.Site, id string) (*store.Medium, error) {
	if id == "" {
		return nil, nil
	}
	m, err := s.Store.Media.ByID(c, st.ID, id)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	return m, err
}

// PagesIn counts pages in words.
func PagesIn(n int) string {
	if n == 1 {
		return "1 page"
	}
	return strconv.Itoa(n) + " pages"
}

// Ago says how long ago something was.
func Ago(d time.Duration) string {
	for _, u := range []struct {
		of        time.Duration
		one, many string
	}{
		{365 * 24 * time.Hour, "a year", "years"}, {30 * 24 * time.Hour, "a month", "months"}, {24 * time.Hour, "a day", "days"},
		{time.Hour, "an hour", "hours"}, {time.Minute, "a minute", "minutes"},
	} {
		if n := int(d / u.of); n == 1 {
			return u.one + " ago"
		} else if n > 1 {
			return strconv.Itoa(n) + " " + u.many + " ago"
		}
	}
	return "just now"
}

// Copying is the right on a site that whoever copies it has to have: that of saving it as a file.
const Copying = rights.Publish

// DoneWords say what was done to a page.
var DoneWords = map[string]string{
	"kept": "Kept.", "home": "It is the home page now.", "copied": "Copied.", "restored": "It is back.", "delete": "Deleted. It can be had back below for 30 days.",
	"withdraw": "Withdrawn: visitors don’t see it any more.", "show": "In the menu.", "hide": "Left out of the menu.", "move": "Moved.", "published": "Published.",
	"begins":  "Kept. New pages can begin as it.",
	"offline": "The site is offline: visitors read what you wrote instead of its pages.", "online": "The site is online again.",
	"siteback": "The site is as it was then. What it was before is kept as a version.", "back": "Visitors see that publication again.",
}

package settings

import (
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/rights"
	"openplot/store"
	"openplot/web/paths"
)

// safety is one of the ways in which somebody comes to what a site has, and where that is changed.
type safety struct {
	Icon, Words, Quiet string
	Name, Path         string // of where it is changed; none where whoever looks may not
}

// safetyOf lists who comes to what of a site: its people, who has a link, who has a password, and how
// long things are kept.
func (s *Screen) safetyOf(c *gin.Context, st *store.Site, pages []*store.PageInfo) ([]safety, error) {
	at := paths.To(st.Slug)
	people, err := s.Store.Members.List(c, st.ID)
	if err != nil {
		return nil, err
	}
	invited, err := s.Store.Members.Invited(c, st.ID)
	if err != nil {
		return nil, err
	}
	links, err := s.Store.Previews.List(c, st.ID)
	if err != nil {
		return nil, err
	}
	var locked []string
	for _, p := range pages {
		if p.Lock != "" {
			locked = append(locked, p.Name)
		}
	}
	who := safety{
		Icon:  "people",
		Words: number(len(people), "person belongs", "people belong") + " to the site",
		Name:  "People",
		Path:  at.At("people"),
	}
	if n := len(invited); n > 0 {
		who.Quiet = number(n, "is", "are") + " invited"
	}
	rows := []safety{who, {
		Icon: "link-45deg", Words: number(len(links), "preview link shows", "preview links show") + " drafts to whoever has it",
		Quiet: "Each ends by itself.", Name: "Preview links", Path: at.At("previews"),
	}, {
		Icon: "lock", Words: number(len(locked), "page asks", "pages ask") + " for a password", Quiet: strings.Join(locked, ", "),
		Name: "Pages", Path: at.At(),
	}, {
		Icon: "inbox", Words: "What visitors send is kept for " + number(st.EntryDays, "day", "days"), Name: "Inbox", Path: at.At("entries"),
	}}
	if st.Role.May(rights.Account) {
		rows = append(
			rows,
			safety{
				Icon:  "journal-text",
				Words: "Who did what is noted, and kept for a year",
				Name:  "Audit log",
				Path:  at.At("audit"),
			},
		)
	}
	return rows, nil
}

// number is a number of things in words.
func number(n int, one, many string) string {
	switch n {
	case 0:
		return "No " + one
	case 1:
		return "1 " + one
	}
	return strconv.Itoa(n) + " " + many
}

package shell

import (
	"cmp"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/rights"
	"openplot/store"
	"openplot/web/paths"
)

// Frame is what is around a screen: the bar, and the rail of a site's places.
type Frame struct {
	User *store.User
	Site *store.Site // nil where the screen is of none
	// Sites are those that the person worked on last.
	Sites []store.SiteName
	// Live is the site's address, or "", and Host what of it is read.
	Live, Host string
	Groups     [][]Place
	// Works is what is under way in the background, or failed there; Busy reports whether any is.
	Works []Work
	Busy  bool
	// Folded reports whether the rail shows icons alone.
	Folded bool
}

// Place is a screen of a site, as the rail shows it.
type Place struct {
	Name, Path, Icon string
	// Key is the letter that leads there behind a "g".
	Key string
	// Count is what there is of it, or nothing; Of says what is counted.
	Count int
	Of    string
	Here  bool
}

// place is a screen of a site, at an address below it.
type place struct {
	name, at, icon, key string
	of                  string
	count               func(store.Tally) int
}

// places are the screens of a site, in groups, as the rail has them.
var places = [][]place{
	{
		{"Pages", "", "files", "p", "pages", func(n store.Tally) int { return n.Pages }},
		{"Library", "library", "images", "l", "files", func(n store.Tally) int { return n.Media }},
		{"Inbox", "entries", "inbox", "i", "new", func(n store.Tally) int { return n.New }},
		{"Visits", "visits", "graph-up", "t", "", nil},
		{"Checks", "checks", "rulers", "c", "findings", func(n store.Tally) int { return n.Findings }},
	},
	{
		{"House style", "house", "palette", "h", "", nil},
		{"Menus", "menus", "menu-button-wide", "m", "", nil},
		{"People", "people", "people", "e", "", nil},
		{"Settings", "settings", "sliders", "s", "", nil},
	},
	{
		{"Versions", "versions", "clock-history", "v", "", nil},
		{"Preview links", "previews", "link-45deg", "k", "", nil},
		{"Audit log", "audit", "journal-text", "a", "", nil},
		{"Publish", "publish", "send", "u", "to publish", func(n store.Tally) int { return n.ToPublish }},
	},
}

// foldCookie keeps whether the rail is folded.
const foldCookie = "rail"

// Around is what is around the screen that is asked for.
func (s *Shell) Around(c *gin.Context) (f Frame, err error) {
	if u, ok := c.Get(KeyUser); ok {
		f.User = u.(*store.User)
	}
	if c.Param("site") == "" {
		return f, nil
	}
	f.Site = SiteOf(c)
	f.Live = s.Hosts.Public(f.Site.Slug) + "/"
	_, f.Host, _ = strings.Cut(strings.TrimSuffix(f.Live, "/"), "//")
	folded, _ := c.Cookie(foldCookie)
	f.Folded = folded == "folded"
	if f.Sites, err = s.Store.Sites.Last(c, f.User.ID, mostSites); err != nil {
		return f, err
	}
	tally, err := s.Store.Sites.Tally(c, f.Site.ID, f.User.ID)
	if err != nil {
		return f, err
	}
	if err := s.underWay(c, &f, tally); err != nil {
		return f, err
	}
	here := hereOf(c.FullPath())
	if here == "rail" { // asked for by a screen, which says where it is
		here = c.Query("here")
	}
	for _, group := range places {
		var shown []Place
		for _, p := range group {
			route := strings.TrimSuffix(paths.SiteRoute+"/"+p.at, "/")
			if !f.Site.Role.May(s.rights[route]) {
				continue
			}
			one := Place{
				Name: p.name, Path: strings.TrimSuffix(paths.To(f.Site.Slug).At(p.at), "/"), Icon: p.icon, Key: p.key,
				Here: p.at == here,
			}
			if p.count != nil {
				one.Count, one.Of = p.count(tally), p.of
			}
			shown = append(shown, one)
		}
		if shown != nil {
			f.Groups = append(f.Groups, shown)
		}
	}
	return f, nil
}

// Work is something in the background, as the foot of the rail shows it.
type Work struct {
	Words, Path string // Path leads to more of it, or is ""
	Done, Of    int    // Of is 0 where it isn't known, or it has ended
	Act         *Act
}

// Act is what can be done about a work: at once, by its path.
type Act struct{ Name, About, Path string }

// underWay adds what is going on in the background: on the site, and of what the person wants made.
func (s *Shell) underWay(c *gin.Context, f *Frame, tally store.Tally) error {
	at := paths.To(f.Site.Slug)
	if tally.ToSweep > 0 {
		f.Works = append(f.Works, Work{
			Words: "Checking pages", Path: at.At("checks"), Done: tally.Swept, Of: tally.ToSweep,
			Act: &Act{"Cancel", "checking pages", at.At("checks", "stop")},
		})
	}
	if n := tally.Copies; n > 0 {
		f.Works = append(
			f.Works,
			Work{
				Words: counted(n, "copy of a picture is", "copies of pictures are") + " being made",
				Path:  at.At("library"),
			},
		)
	}
	if tally.ToPut > 0 {
		one := Work{Words: "Publishing " + counted(tally.ToPut, "page", "pages"), Done: tally.Put, Of: tally.ToPut}
		if f.Site.Role.May(rights.Publish) {
			one.Path, one.Act = at.At("publish"), &Act{"Cancel", "publishing", at.At("publish", "stop")}
		}
		f.Works = append(f.Works, one)
	}
	f.Busy = len(f.Works) > 0
	if tally.Unput > 0 && f.Site.Role.May(rights.Publish) {
		one := Work{Words: "Publishing didn’t work", Path: at.At("publish")}
		one.Act = &Act{"Try again", "publishing", at.At("publish", "again")}
		f.Works = append(f.Works, one)
	}
	if n := tally.Uncopied; n > 0 {
		one := Work{Words: counted(n, "picture", "pictures") + " couldn’t be copied", Path: at.At("library")}
		if f.Site.Role.May(rights.Write) {
			one.Act = &Act{"Try again", one.Words, at.At("library", "again")}
		}
		f.Works = append(f.Works, one)
	}
	mine, err := s.Store.Works.Of(c, f.User.ID)
	if err != nil {
		return err
	}
	for _, w := range mine {
		one := Work{Words: "Making " + cmp.Or(w.Name, "a site"), Path: "/works/" + w.ID}
		switch w.State {
		case store.WorkDone:
			one.Words = cmp.Or(w.Name, "A site") + " is there"
		case store.WorkFailed:
			one.Words = cmp.Or(w.Name, "A site") + " couldn’t be made"
			one.Act = &Act{"Try again", one.Words, "/works/" + w.ID + "/again"}
		default:
			one.Done, one.Of, f.Busy = w.Done, max(w.Parts, 1), true
			one.Act = &Act{"Cancel", one.Words, "/works/" + w.ID + "/stop"}
		}
		f.Works = append(f.Works, one)
	}
	return nil
}

// counted is a number of things in words.
func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return strconv.Itoa(n) + " " + many
}

// hereOf is the place that a route is at: a page's checks and its versions are those of the site.
func hereOf(route string) string {
	route = strings.TrimPrefix(strings.TrimPrefix(route, paths.PageRoute), paths.SiteRoute)
	here, _, _ := strings.Cut(strings.TrimPrefix(route, "/"), "/")
	return here
}

// mostSites is how many sites the bar leads to; the list of sites has the others.
const mostSites = 12

// rail answers with the rail as it is now.
func (s *Shell) rail(c *gin.Context) {
	f, err := s.Around(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "rail", f)
}

// rightsOf gives, by path, which right it takes to look at it.
func rightsOf(screens []Screen) map[string]rights.Right {
	of := map[string]rights.Right{}
	for _, screen := range screens {
		for _, t := range screen.Routes() {
			if t.Method == http.MethodGet {
				of[t.Path] = t.Right
			}
		}
	}
	return of
}

package settings

import (
	"errors"
	"html/template"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/rights"
	"openplot/core/settings"
	"openplot/core/value"
	"openplot/dns"
	"openplot/icons"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the screen of what a site says of itself, and of where it is.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Within(shell.Writing, shell.Post(paths.SiteRoute+"/address", rights.Account, s.moveSite)),
		shell.Post(paths.SiteRoute+"/archive", rights.Account, s.archive),
		shell.Post(paths.SiteRoute+"/delete", rights.Account, s.deleteSite),
		shell.Get(paths.SiteRoute+"/settings", rights.Keep, s.settings),
		shell.Within(shell.Writing, shell.Post(paths.SiteRoute+"/settings", rights.Keep, s.keepSettings)),
		shell.Post(paths.SiteRoute+"/settings/visits", rights.Keep, s.countVisits),
		shell.Get(paths.SiteRoute+"/icon.svg", rights.See, s.siteIcon),
		shell.Post(paths.SiteRoute+"/domains", rights.Account, s.addDomain),
		shell.Post(paths.SiteRoute+"/domains/check", rights.Account, s.checkDomain),
		shell.Post(paths.SiteRoute+"/domains/drop", rights.Account, s.dropDomain),
		shell.Post(paths.SiteRoute+"/domains/record", rights.Account, s.setRecord),
		shell.Within(shell.Writing, shell.Get(paths.SiteRoute+"/file", desk.Copying, s.siteFile)),
		shell.Post(paths.SiteRoute+"/redirects", rights.Keep, s.addRedirect),
		shell.Post(paths.SiteRoute+"/redirects/drop", rights.Keep, s.dropRedirect),
	}
}

// settingsView is the screen of what holds for all of a site.
type settingsView struct {
	User      *store.User
	Site      *store.Site
	Entered   store.Settings
	Days      []openingDay
	Social    string
	Pictures  []desk.PictureChoice
	Palette   []doc.Swatch
	Redirects []redirectRow
	From, To  string // of a redirect that couldn't be kept
	Domains   []domainView
	Host      string // that couldn't be added
	Target    string // where a domain has to lead
	StandIn   bool   // records are set in the stand-in for DNS
	Languages []settings.Language
	Areas     []settings.Area
	Looks     *looks
	Safety    []safety
	Live      string
	Problem   string
	Kept      bool
}

// looks is how a site looks where others show it.
type looks struct {
	Name, Host, Title, Said string // of the home page
	Icon                    template.HTML
	Picture                 string // that the icon is, or ""
	Photo                   string // of shared links
}

// openingDay is a day of the week with its hours, as they are written and as a bar shows them.
type openingDay struct {
	Day, Hours string
	Entered    string // as it was sent, which may have changed since
	Bars       []openingBar
}

// openingBar is a span of a day, in minutes.
type openingBar struct{ From, Length int }

type redirectRow struct {
	Address, To, Page string
}

// settings shows what holds for all of a site.
func (s *Screen) settings(c *gin.Context) {
	s.showSettings(c, http.StatusOK, settingsView{Kept: c.Query("kept") != ""}, nil)
}

// showSettings shows the settings; entered are those that couldn't be kept, nil those that are.
func (s *Screen) showSettings(c *gin.Context, status int, v settingsView, entered *store.Settings) {
	st := shell.SiteOf(c)
	v.User, v.Site, v.Palette = shell.User(c), st, st.House.Palette
	if entered == nil {
		v.Entered = store.Settings{
			Name:         st.Name,
			Language:     st.Language,
			TimeZone:     st.TimeZone,
			SharePicture: st.SharePicture,
			Icon:         st.Icon,
			Facts:        st.Facts,
		}
		v.Social = strings.Join(st.Facts.Social, "\n")
		v.Days = days(st.Facts)
	} else {
		v.Entered = *entered
	}
	media, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v.Pictures = s.PictureChoices(media)
	v.Languages, v.Areas = settings.Languages(v.Entered.Language), settings.TimeZones()
	v.Live = s.Hosts.Public(st.Slug) + "/"
	if v.Looks, err = s.looksOf(c, st, v.Entered, v.Pictures); err != nil {
		s.Fail(c, err)
		return
	}
	if v.Domains, err = s.domainsOf(c, st); err != nil {
		s.Fail(c, err)
		return
	}
	v.Target = s.Domains.Target(st.Slug)
	_, v.StandIn = s.Domains.DNS.(*dns.StandIn)
	rs, err := s.Store.Tree.Redirects(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if v.Safety, err = s.safetyOf(c, st, infos); err != nil {
		s.Fail(c, err)
		return
	}
	for _, r := range rs {
		row := redirectRow{Address: "/" + r.Address, To: r.Target}
		if r.Page == "" && !strings.Contains(r.Target, "://") {
			row.To = "/" + strings.TrimPrefix(r.Target, "/")
		}
		for _, p := range infos {
			if p.ID == r.Page {
				row.To, row.Page = "/"+p.Slug, p.Name
			}
		}
		if row.To != "" {
			v.Redirects = append(v.Redirects, row)
		}
	}
	s.Screen(c, status, "settings", v)
}

// looksOf is how a site looks elsewhere with what was entered.
func (s *Screen) looksOf(
	c *gin.Context,
	st *store.Site,
	entered store.Settings,
	pictures []desk.PictureChoice,
) (*looks, error) {
	like := *st
	like.Name, like.Icon = entered.Name, entered.Icon
	_, host, _ := strings.Cut(s.Hosts.Public(st.Slug), "//")
	l := &looks{Name: entered.Name, Title: entered.Name, Host: host, Icon: template.HTML(site.DrawIcon(&like.Site))}
	for _, p := range pictures {
		if p.ID == entered.Icon.Medium {
			l.Picture = p.Thumb
		}
		if p.ID == entered.SharePicture {
			l.Photo = p.Thumb
		}
	}
	home, err := s.Store.Pages.At(c, st.ID, "")
	if errors.Is(err, store.ErrNotFound) {
		return l, nil
	}
	if err == nil {
		l.Title, l.Said = home.Doc.Title, home.Doc.Description
	}
	return l, err
}

// days are the days of a week with a site's hours.
func days(f doc.Facts) (out []openingDay) {
	for _, day := range doc.Days {
		d := openingDay{Day: day, Hours: f.HoursOf(day)}
		for _, o := range f.Opening {
			if o.Day == day {
				from, to := minutes(o.From), minutes(o.To)
				d.Bars = append(d.Bars, openingBar{from, to - from})
			}
		}
		out = append(out, d)
	}
	return out
}

// minutes gives how long after midnight a time of day is.
func minutes(clock string) int {
	digits := []byte(strings.ReplaceAll(clock, ":", ""))
	if len(digits) != 4 {
		return 0
	}
	n := func(b byte) int { return int(b - '0') }
	return (n(digits[0])*10+n(digits[1]))*60 + n(digits[2])*10 + n(digits[3])
}

// keepSettings keeps what was entered: all of it, or nothing.
func (s *Screen) keepSettings(c *gin.Context) {
	st := shell.SiteOf(c)
	in := store.Settings{
		Name: c.PostForm(
			"name",
		), Language: c.PostForm("language"), TimeZone: c.PostForm("time-zone"), SharePicture: c.PostForm("share-picture"),
		Icon: enteredIcon(
			c.PostForm,
		), Facts: doc.Facts{Address: c.PostForm("address"), Hours: c.PostForm("hours"), Phone: c.PostForm("phone"), Mail: c.PostForm("mail")},
	}
	hours := map[string]string{}
	v := settingsView{Social: c.PostForm("social")}
	for _, day := range doc.Days {
		hours[day] = c.PostForm("open-" + day)
		v.Days = append(v.Days, openingDay{Day: day, Hours: hours[day]})
	}
	kept := in
	var err error
	if kept.Name, kept.Language, kept.TimeZone, err = settings.ReadSite(in.Name, in.Language, in.TimeZone); err == nil {
		if kept.TimeZone != "" && !site.KnownZone(kept.TimeZone) {
			err = doc.Problemf("Time zone", "%.40q isn't known; write its name, such as Europe/Vienna", kept.TimeZone)
		}
	}
	picture := func(id string) bool {
		m, err := s.Store.Media.ByID(c, st.ID, id)
		return err == nil && m.Picture()
	}
	if err == nil && in.SharePicture != "" && !picture(in.SharePicture) {
		err = doc.Problemf("Picture", "isn't in the library any more; choose another")
	}
	if err == nil {
		kept.Icon, err = settings.ReadIcon(in.Icon, &st.House, icons.Has, picture)
	}
	if err == nil {
		kept.Facts, err = settings.ReadFacts(in.Facts, hours, v.Social)
	}
	var problem *doc.Problem
	inPlace := c.GetHeader("HX-Request") != ""
	switch {
	case errors.As(err, &problem) && inPlace:
		s.Parted(c, http.StatusOK, "settings-said", settingsView{Problem: problem.Sentence()})
		return
	case errors.As(err, &problem):
		v.Problem = problem.Sentence()
		s.showSettings(c, http.StatusUnprocessableEntity, v, &in)
		return
	}
	if err == nil {
		err = s.Store.Sites.SetSettings(c, st.ID, kept)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	if inPlace {
		s.keptInPlace(c, st, kept)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("settings")+"?kept=1")
}

// keptInPlace answers what was changed with how the site looks elsewhere now.
func (s *Screen) keptInPlace(c *gin.Context, st *store.Site, kept store.Settings) {
	media, err := s.Store.Media.List(c, st.ID)
	v := settingsView{Kept: true, Days: days(kept.Facts)}
	for i := range v.Days {
		v.Days[i].Entered = c.PostForm("open-" + v.Days[i].Day)
	}
	if err == nil {
		v.Looks, err = s.looksOf(c, st, kept, s.PictureChoices(media))
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "settings-kept", v)
}

// countVisits has the site count visits, or not any more.
func (s *Screen) countVisits(c *gin.Context) {
	st, on := shell.SiteOf(c), c.PostForm("count") == value.Yes
	if err := s.Store.Visits.SetCounting(c, st.ID, on); err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "visits counted", st.ID, map[bool]string{true: "yes", false: "no"}[on])
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("settings")+"?kept=1#visits")
}

// enteredIcon reads what was chosen for the site's icon.
func enteredIcon(get func(string) string) doc.SiteIcon {
	i := doc.SiteIcon{Colour: get("icon-colour")}
	switch get("icon-from") {
	case "picture":
		i.Medium = get("icon-picture")
	case "icon":
		i.Icon = strings.TrimSpace(get("icon-name"))
	default:
		i.Letter = strings.TrimSpace(get("icon-letter"))
	}
	return i
}

// siteIcon answers with a site's icon as it is.
func (s *Screen) siteIcon(c *gin.Context) {
	c.Header("Cache-Control", "no-cache")
	c.Data(http.StatusOK, "image/svg+xml", []byte(site.DrawIcon(&shell.SiteOf(c).Site)))
}

// addRedirect has an address that somebody enters lead elsewhere.
func (s *Screen) addRedirect(c *gin.Context) {
	from, to := c.PostForm("from"), c.PostForm("to")
	err := s.Store.Tree.AddRedirect(c, shell.SiteOf(c).ID, store.Clean(from), store.Clean(to))
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showSettings(
			c,
			http.StatusUnprocessableEntity,
			settingsView{From: from, To: to, Problem: problem.Sentence()},
			nil,
		)
		return
	}
	s.redirected(c, err)
}

// dropRedirect ends one.
func (s *Screen) dropRedirect(c *gin.Context) {
	s.redirected(c, s.Store.Tree.DropRedirect(c, shell.SiteOf(c).ID, strings.TrimPrefix(c.PostForm("address"), "/")))
}

// redirected brings redirects to visitors at once: they are about addresses that visitors know.
func (s *Screen) redirected(c *gin.Context, err error) {
	st := shell.SiteOf(c)
	if err == nil {
		var src site.Source
		if src, err = site.ReadSource(c, s.Store, st); err == nil {
			err = s.Publisher.Refresh(c, s.Store, src)
		}
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("settings")+"?kept=1#redirects")
}

package entries

import (
	"cmp"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/inbox"
	"openplot/core/policy"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is what visitors sent by forms.
type Screen struct{ *desk.Desk }

const inboxRoute = paths.SiteRoute + "/entries"

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(inboxRoute, rights.See, s.inbox),
		shell.Get(inboxRoute+"/:entry", rights.See, s.entry),
		shell.Post(inboxRoute+"/marks", rights.Write, s.mark),
		shell.Post(inboxRoute+"/acts", rights.Keep, s.act),
		shell.Post(inboxRoute+"/answer", rights.Keep, s.answer),
		shell.Post(inboxRoute+"/notes", rights.Write, s.note),
		shell.Within(shell.Writing, shell.Get(inboxRoute+"/file", rights.Keep, s.file)),
	}
}

// shownEntries is how many entries the list shows at once, the newest, and shownDays of how many days
// it draws how many came.
const (
	shownEntries = 60
	shownDays    = 14
)

// look is what of the Inbox is looked at, as an address says it.
type look struct {
	Box                     store.Box
	Form, Find, Day, Before string
	Entry                   string   // that is open beside the list, or ""
	seen                    []string // entries that stay in the list: nothing moves away from the pointer
}

// in is what the store is asked for.
func (l look) in(c *gin.Context) store.Look {
	st := shell.SiteOf(c)
	day, _ := time.ParseInLocation(time.DateOnly, l.Day, desk.ZoneOf(st)) // what is none is no day
	q := store.Look{
		Site: st.ID, User: shell.User(c).ID, Box: l.Box, Form: l.Form, Find: l.Find, Day: day, Before: l.Before, Limit: shownEntries,
	}
	switch l.Box {
	case store.BoxNew,
		store.BoxStarred,
		store.BoxMine: // which entries leave when they are read, or the star is taken off
		if q.Also = l.seen; l.Entry != "" {
			q.Also = append(slices.Clip(l.seen), l.Entry)
		}
	}
	return q
}

func lookOf(v url.Values) look {
	l := look{
		Box: store.Box(
			v.Get("box"),
		), Form: v.Get("form"), Find: v.Get("find"), Day: v.Get("day"), Before: v.Get("before"),
		Entry: v.Get("entry"),
	}
	if !slices.ContainsFunc(boxes, func(b boxed) bool { return b.box == l.Box }) {
		l.Box = store.BoxAll
	}
	return l
}

// Seen are the entries of a list, to be told again.
func (v foundView) Seen() string {
	ids := make([]string, len(v.Rows))
	for i, r := range v.Rows {
		ids[i] = r.ID
	}
	return strings.Join(ids, " ")
}

// Query is how an address says it.
func (l look) Query() string {
	v := url.Values{}
	for name, value := range map[string]string{
		"box": string(l.Box), "form": l.Form, "find": l.Find, "day": l.Day, "before": l.Before, "entry": l.Entry,
	} {
		if value != "" {
			v.Set(name, value)
		}
	}
	return v.Encode()
}

// boxed is a box by its name; the last ones are shown only when something is in them.
type boxed struct {
	box    store.Box
	name   string
	seldom bool
}

var boxes = []boxed{
	{store.BoxNew, "New", false},
	{store.BoxStarred, "Starred", false},
	{store.BoxMine, "Assigned to me", true},
	{store.BoxAll, "All", false},
	{store.BoxSpam, "Spam", false},
	{store.BoxTrials, "Trials", true},
	{store.BoxDeleted, "Deleted", true},
}

// choice is one of several to look at.
type choice struct {
	Name, Href string
	Count      int
	Here       bool
}

// formChoice is a form to look at the entries of, or every one.
type formChoice struct {
	Value, Name string
	Count       int
	Here        bool
}

// inboxView is the screen of what visitors sent.
type inboxView struct {
	Site      *store.Site
	Look      look
	MayDelete bool
	Boxes     boxesView
	Forms     []formChoice
	Bars      []bar
	Found     foundView
}

// boxesView are the boxes with how much is in each, asked for again from time to time.
type boxesView struct {
	Site   *store.Site
	Boxes  []choice
	Newest string // the entry that came last when the list was read
	Newer  string // an address that shows what came since, or ""
	Query  string
	Beside bool // it comes beside something else
}

// foundView is the list with what is open beside it.
type foundView struct {
	Site      *store.Site
	Look      look
	Rows      []row
	Older     string // an address, or ""
	Newest    string // an address, where what is shown isn't the newest
	Said      string
	Undo      []string // entries that can be had back at once
	MayDelete bool
	Open      *entryView
	Boxes     *boxesView // that come with it, or nil
}

// row is an entry in the list.
type row struct {
	*store.Listed
	inbox.Summary
	Form, When, Href string
	Here             bool
}

// bar is how many entries came on a day.
type bar struct {
	store.OnDay
	Href         string
	X, Y, Height int
	Here         bool
}

// inbox shows what visitors sent; asked for by the list alone, that.
func (s *Screen) inbox(c *gin.Context) {
	l := lookOf(c.Request.URL.Query())
	if l.Box == store.BoxAll && c.Query("box") == "" && l.Entry == "" { // where somebody comes in
		n, err := s.Store.Inbox.Counts(c, shell.SiteOf(c).ID, shell.User(c).ID)
		if err != nil {
			s.Fail(c, err)
			return
		}
		if n[store.BoxNew] > 0 && l.Find == "" {
			l.Box = store.BoxNew
		}
	}
	switch c.Query("part") {
	case "boxes":
		if v, err := s.boxes(c, l, c.Query("newest")); err != nil {
			s.Fail(c, err)
		} else {
			s.Parted(c, http.StatusOK, "inbox-boxes", v)
		}
		return
	case "found":
		s.found(c, http.StatusOK, l, foundView{})
		return
	}
	v := inboxView{Site: shell.SiteOf(c), Look: l, MayDelete: shell.SiteOf(c).Role.May(rights.Keep)}
	found, err := s.find(c, l, foundView{})
	if err == nil {
		v.Found = *found
		v.Bars, err = s.bars(c, l)
	}
	if err == nil {
		v.Forms, err = s.formChoices(c, l)
	}
	if err == nil { // after what is open was read
		v.Boxes, err = s.boxes(c, l, "")
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, http.StatusOK, "entries", v)
}

// boxes counts what is in each; newest is the entry that was the last one when the list was read, or "".
func (s *Screen) boxes(c *gin.Context, l look, newest string) (v boxesView, err error) {
	st := shell.SiteOf(c)
	n, err := s.Store.Inbox.Counts(c, st.ID, shell.User(c).ID)
	if err != nil {
		return v, err
	}
	v = boxesView{Site: st, Query: l.Query()}
	if v.Newest, err = s.Store.Inbox.Newest(c, st.ID); err != nil {
		return v, err
	}
	if newest != "" && v.Newest != newest {
		v.Newer, v.Newest = address(st, look{Box: l.Box, Form: l.Form}), newest
	}
	for _, b := range boxes {
		if !b.seldom || n[b.box] > 0 || b.box == l.Box {
			v.Boxes = append(
				v.Boxes,
				choice{b.name, address(st, look{Box: b.box, Form: l.Form}), n[b.box], b.box == l.Box},
			)
		}
	}
	return v, nil
}

// address is where something is looked at.
func address(st *store.Site, l look) string { return paths.To(st.Slug).At("entries") + "?" + l.Query() }

// formChoices lists the forms to look at the entries of, where there are several.
func (s *Screen) formChoices(c *gin.Context, l look) ([]formChoice, error) {
	st := shell.SiteOf(c)
	of, err := s.Store.Inbox.Forms(c, st.ID)
	if err != nil || len(of) < 2 {
		return nil, err
	}
	forms, err := formsOf(c, s.Desk, st)
	if err != nil {
		return nil, err
	}
	all := []formChoice{{"", "Every form", 0, l.Form == ""}}
	for _, f := range of {
		if f.Entries > 0 {
			all = append(all, formChoice{f.Form, forms[f.Form].Name(), f.Entries, f.Form == l.Form})
		}
	}
	return all, nil
}

// What the bars are drawn in, in px.
const (
	barStep = 15
	barHigh = 24
)

// bars draws how many entries came on each of the last days.
func (s *Screen) bars(c *gin.Context, l look) ([]bar, error) {
	st := shell.SiteOf(c)
	now := time.Now().In(desk.ZoneOf(st))
	days, err := s.Store.Inbox.Days(
		c,
		st.ID,
		time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, now.Location()),
		shownDays,
	)
	if err != nil {
		return nil, err
	}
	most := 1
	for _, d := range days {
		most = max(most, d.Entries)
	}
	all := make([]bar, len(days))
	for i, d := range days {
		day := d.Day.Format(time.DateOnly)
		height := d.Entries * (barHigh - 2) / most
		if d.Entries > 0 {
			height = max(height, 3)
		}
		all[i] = bar{
			d,
			address(st, look{Box: store.BoxAll, Form: l.Form, Day: day}),
			i * barStep,
			barHigh - height,
			height,
			day == l.Day,
		}
	}
	return all, nil
}

// find reads the list and what is open beside it, which counts as read.
func (s *Screen) find(c *gin.Context, l look, v foundView) (*foundView, error) {
	st := shell.SiteOf(c)
	zone := desk.ZoneOf(st)
	v.Site, v.Look, v.MayDelete = st, l, st.Role.May(rights.Keep)
	forms, err := formsOf(c, s.Desk, st)
	if err != nil {
		return nil, err
	}
	if l.Entry != "" {
		if v.Open, err = s.open(c, l, forms); errors.Is(err, store.ErrNotFound) {
			l.Entry, v.Look.Entry = "", ""
		} else if err != nil {
			return nil, err
		}
	}
	all, more, err := s.Store.Inbox.List(c, l.in(c))
	if err != nil {
		return nil, err
	}
	now := time.Now().In(zone)
	for _, e := range all {
		one := row{
			Listed:  e,
			Summary: inbox.Summarise(e.Answers),
			Form:    forms[e.Form].Name(),
			When:    when(e.SentAt.In(zone), now),
			Here:    e.ID == l.Entry,
		}
		one.Who = cmp.Or(one.Who, one.Address, "Without a name")
		to := l
		to.Entry = e.ID
		one.Href = address(st, to)
		v.Rows = append(v.Rows, one)
	}
	if l.Before != "" {
		v.Newest = address(st, look{Box: l.Box, Form: l.Form, Find: l.Find, Day: l.Day})
	}
	if more {
		v.Older = address(st, look{Box: l.Box, Form: l.Form, Find: l.Find, Day: l.Day, Before: all[len(all)-1].ID})
	}
	return &v, nil
}

// found answers with the list and what is open beside it, with the boxes as they are now.
func (s *Screen) found(c *gin.Context, status int, l look, v foundView) {
	found, err := s.find(c, l, v)
	if err == nil {
		var b boxesView
		if b, err = s.boxes(c, l, ""); err == nil {
			b.Beside, found.Boxes = true, &b
			s.Parted(c, status, "inbox-found", found)
			return
		}
	}
	s.Fail(c, err)
}

// when says a time as lists do: of today the hour, of before that the day.
func when(t, now time.Time) string {
	y, m, d := now.Date()
	switch today := time.Date(y, m, d, 0, 0, 0, 0, now.Location()); {
	case !t.Before(today):
		return t.Format("15:04")
	case !t.Before(today.AddDate(0, 0, -1)):
		return "Yesterday"
	case t.Year() == now.Year():
		return t.Format("2 Jan")
	}
	return t.Format("2 Jan 2006")
}

// formAt is where a form stands, in words, and on the Bench.
type formAt struct{ Section, Page, Path string }

// Name is what the form is called.
func (f formAt) Name() string { return cmp.Or(f.Page, "A form that isn’t there any more") }

// formsOf tells where the forms stand that visitors can send.
func formsOf(c *gin.Context, d *desk.Desk, st *store.Site) (map[string]formAt, error) {
	pages, err := d.Store.Visible.FormPages(c, st.ID)
	if err != nil {
		return nil, err
	}
	forms := map[string]formAt{}
	for form, id := range pages {
		p, err := d.Store.Pages.ByID(c, st.ID, id)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return nil, err
		}
		at := formAt{Page: p.Name, Path: paths.To(st.Slug).Page(p.Slug).At("bench")}
		if sec, b := p.Doc.Block(form); b != nil { // on the page as it is now
			at.Section, at.Path = sec.Name, at.Path+"?select="+form
		}
		forms[form] = at
	}
	return forms, nil
}

// mostAtOnce is how many entries something is done with at once.
const mostAtOnce = 500

// several are the entries that something is asked for.
func several(c *gin.Context) []string {
	ids := c.PostFormArray("id")
	return ids[:min(len(ids), mostAtOnce)]
}

// after shows the list as it is after something was done, at what the form says was looked at.
func (s *Screen) after(c *gin.Context, l look, v foundView) {
	if c.GetHeader("HX-Request") != "" {
		s.found(c, http.StatusOK, l, v)
		return
	}
	c.Redirect(http.StatusSeeOther, address(shell.SiteOf(c), l))
}

// asked is what was looked at when something was asked for.
func asked(c *gin.Context) look {
	v, _ := url.ParseQuery(c.PostForm("look")) // what can't be read is left out
	l := lookOf(v)
	if seen := strings.Fields(c.PostForm("seen")); len(seen) <= mostAtOnce {
		l.seen = seen
	}
	return l
}

// mark notes about entries what anybody of a site may: read or not, starred or not, whose they are.
func (s *Screen) mark(c *gin.Context) {
	st, user, ids, l := shell.SiteOf(c), shell.User(c), several(c), asked(c)
	act := c.PostForm("act")
	if id, ok := strings.CutPrefix(act, "star "); ok { // the one whose star was pressed
		act, ids = "star", []string{id}
	} else if id, ok := strings.CutPrefix(act, "unstar "); ok {
		act, ids = "unstar", []string{id}
	}
	var err error
	switch act {
	case "read", "unread":
		if act == "unread" && slices.Contains(ids, l.Entry) {
			l.Entry = ""
		}
		err = s.Store.Inbox.SetRead(c, st.ID, user.ID, ids, act == "read")
	case "star", "unstar":
		err = s.Store.Inbox.SetStarred(c, st.ID, ids, act == "star")
	case "assign":
		err = s.Store.Inbox.Assign(c, st.ID, ids, c.PostForm("to"))
	default:
		s.ProblemPage(c, http.StatusNotFound)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.after(c, l, foundView{})
}

// act does with entries what takes them out of sight, or back into it: what was open is followed by the
// next one.
func (s *Screen) act(c *gin.Context) {
	st, ids, l := shell.SiteOf(c), several(c), asked(c)
	act := c.PostForm("act")
	if slices.Contains(ids, l.Entry) {
		next, err := s.next(c, l, ids)
		if err != nil {
			s.Fail(c, err)
			return
		}
		l.Entry = next
	}
	v, err := foundView{}, error(nil)
	switch act {
	case "delete":
		err = s.Store.Inbox.SetDeleted(c, st.ID, ids, true)
		v.Said, v.Undo = counted(len(ids), "entry", "entries")+" deleted.", ids
	case "restore":
		err = s.Store.Inbox.SetDeleted(c, st.ID, ids, false)
		v.Said = counted(len(ids), "entry is", "entries are") + " back."
	case "spam":
		err = s.Store.Inbox.SetSpam(c, st.ID, ids, "somebody here said so")
		v.Said = counted(len(ids), "entry", "entries") + " set apart as spam."
	case "person":
		err = s.trust(c, st, ids)
		v.Said = counted(len(ids), "entry is", "entries are") + " from people."
	case "empty":
		err = s.Store.Inbox.DeleteAll(c, st.ID, l.Box)
		l.Entry, v.Said = "", "All deleted. For 30 days they can be had back."
	default:
		err = store.ErrNotFound
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	if len(ids) == 0 && act != "empty" {
		v = foundView{Said: "Select entries first."}
	} else {
		s.Note(c, "form entries: "+act, st.ID, shownIDs(ids))
	}
	s.after(c, l, v)
}

// shownIDs are some ids as a note has them.
func shownIDs(ids []string) string {
	if len(ids) > 5 {
		return strings.Join(ids[:5], " ") + " and " + strconv.Itoa(len(ids)-5) + " more"
	}
	return strings.Join(ids, " ")
}

func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return strconv.Itoa(n) + " " + many
}

// next is the entry that comes in the list after the one that is open, of those that are left, or "".
func (s *Screen) next(c *gin.Context, l look, gone []string) (string, error) {
	all, _, err := s.Store.Inbox.List(c, l.in(c))
	if err != nil {
		return "", err
	}
	here := slices.IndexFunc(all, func(e *store.Listed) bool { return e.ID == l.Entry })
	for _, e := range all[here+1:] {
		if !slices.Contains(gone, e.ID) {
			return e.ID, nil
		}
	}
	return "", nil
}

// keptUntil is the day on which an entry goes by itself, in words.
func keptUntil(e *store.FormEntry, days int, zone *time.Location) string {
	if e.Trial {
		days = min(days, policy.Days(policy.TrialEntries))
	}
	ends := e.SentAt.AddDate(0, 0, days)
	if e.DeletedAt != nil {
		if soon := e.DeletedAt.Add(policy.DeletedEntries); soon.Before(ends) {
			ends = soon
		}
	}
	return ends.In(zone).Format("2 January 2006")
}

// Package settings reads what people enter about a site as a whole: its name and facts, opening
// hours, icon, menus and zones. Errors are *doc.Problem and name the field.
package settings

import (
	"net/url"
	"regexp"
	"slices"
	"strings"

	"golang.org/x/text/language"

	"openplot/core/doc"
	"openplot/core/value"
)

// ReadFacts checks what a site says about itself; hours are those of each day as they were
// written, such as "9:00–12:00, 13:00–17:00", and profiles the addresses of profiles elsewhere,
// one a line. Errors are *doc.Problem.
func ReadFacts(f doc.Facts, hours map[string]string, profiles string) (doc.Facts, error) {
	var err error
	note := func(e error) {
		if err == nil {
			err = e
		}
	}
	lines := func(field, v string) string {
		v, e := doc.Lines(field, v, 12)
		note(e)
		return v
	}
	line := func(field, v string) string {
		v, e := doc.Line(field, v, 200)
		note(e)
		return v
	}
	f = doc.Facts{
		Address: lines("Address", f.Address),
		Hours:   lines("Hours", f.Hours),
		Phone:   line("Telephone", f.Phone),
		Mail:    line("Email", f.Mail),
	}
	if err == nil && f.Mail != "" && !mailPattern.MatchString(f.Mail) {
		err = doc.Problemf("Email", "can't be %.60q: write an address such as office@example.org", f.Mail)
	}
	for _, day := range doc.Days {
		spans, e := readHours(day, hours[day])
		note(e)
		f.Opening = append(f.Opening, spans...)
	}
	for _, p := range strings.Fields(profiles) {
		u, e := url.Parse(p)
		if e != nil || u.Scheme != "https" || u.Host == "" || len(p) > 300 {
			note(doc.Problemf("Profiles", "can't hold %.60q: write an address that begins with https://", p))
			continue
		}
		if len(f.Social) == 12 {
			note(doc.Problemf("Profiles", "are too many; write at most 12"))
			break
		}
		f.Social = append(f.Social, p)
	}
	return f, err
}

var mailPattern = regexp.MustCompile(`^[^@\s<>"]+@[^@\s<>"]+\.[^@\s<>"]+$`)

// hoursSpan is one from a time to another, with any dash or "to" between.
var hoursSpan = regexp.MustCompile(`^(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|—|to)\s*(\d{1,2})(?:[:.](\d{2}))?$`)

// readHours reads the hours of a day.
func readHours(day, v string) (out []doc.Opening, err error) {
	v = strings.TrimSpace(v)
	if v == "" || strings.EqualFold(v, "closed") {
		return nil, nil
	}
	wrong := func() ([]doc.Opening, error) {
		return nil, doc.Problemf(
			day,
			"can't be %.60q: write hours such as 9:00–17:00, with a comma between several, or nothing when it is closed",
			v,
		)
	}
	last := ""
	for part := range strings.SplitSeq(v, ",") {
		m := hoursSpan.FindStringSubmatch(strings.TrimSpace(part))
		if m == nil {
			return wrong()
		}
		clock := func(h, min string) string {
			if len(h) == 1 {
				h = "0" + h
			}
			if min == "" {
				min = "00"
			}
			return h + ":" + min
		}
		o := doc.Opening{Day: day, From: clock(m[1], m[2]), To: clock(m[3], m[4])}
		if o.To == "24:00" { // the end of the day, as schema.org has it
			o.To = "23:59"
		}
		if o.From >= o.To || o.From < last || o.To > "23:59" || o.From[3] > '5' || o.To[3] > '5' {
			return wrong()
		}
		last = o.To
		out = append(out, o)
	}
	return out, nil
}

// ReadLanguage reads a language tag, "" being the site's.
func ReadLanguage(v string) (string, error) {
	v = strings.TrimSpace(v)
	if v == "" {
		return "", nil
	}
	tag, err := language.Parse(v)
	if err != nil || len(v) > 35 {
		return "", doc.Problemf("Language", "can't be %.40q: write its code (BCP 47), such as en, de-AT or pt-BR", v)
	}
	return tag.String(), nil
}

// ReadSite checks a site's name, language and time zone. Errors are *doc.Problem.
func ReadSite(name, tag, zone string) (string, string, string, error) {
	name, err := doc.Line("Name", name, doc.MaxNameRunes)
	if err == nil && name == "" {
		err = doc.Problemf("Name", "can't be empty: it is what the site is called")
	}
	if err != nil {
		return "", "", "", err
	}
	if tag = strings.TrimSpace(tag); tag != "" {
		if tag, err = ReadLanguage(tag); err != nil {
			return "", "", "", err
		}
	}
	if zone = strings.TrimSpace(zone); zone != "" && !zonePattern.MatchString(zone) {
		return "", "", "", doc.Problemf("Time zone", "can't be %.40q: write its name, such as Europe/Vienna", zone)
	}
	return name, tag, zone, nil
}

var zonePattern = regexp.MustCompile(`^[A-Za-z]+(?:[/_+-][A-Za-z0-9_+-]+)*$`)

// ReadIcon checks what browsers show beside a site's name. Errors are *doc.Problem.
func ReadIcon(
	i doc.SiteIcon,
	house *doc.House,
	hasIcon func(string) bool,
	isPicture func(string) bool,
) (doc.SiteIcon, error) {
	letter, err := doc.Line("Letter", i.Letter, 2)
	if err != nil {
		return i, err
	}
	i.Letter = letter
	switch {
	case i.Medium != "" && !isPicture(i.Medium):
		return i, doc.Problemf("Icon", "is a picture that isn't in the library any more; choose another")
	case i.Icon != "" && !hasIcon(i.Icon):
		return i, doc.Problemf("Icon", "%.40q isn't in the set; choose another", i.Icon)
	case i.Colour != "" && !slices.ContainsFunc(house.Palette, func(w doc.Swatch) bool { return w.Token == i.Colour }):
		return i, doc.Problemf("Icon’s colour", "isn't in the palette any more; choose another")
	}
	return i, nil
}

// MenuNames are the site's menus, in their order.
var MenuNames = []struct{ ID, Name, Hint string }{
	{value.Pages, "Main menu", "the pages that are in the menu, and behind them:"},
	{value.Footer, "Footer menu", "the pages that are in the footer’s menu, and behind them:"},
	{value.Legal, "Legal menu", "what is put here: imprint, privacy, terms and the like"},
}

// MostOwnMenus is how many menus of its own a site has at most.
const MostOwnMenus = 20

// MenuIDs are the ids of a site's menus: those of every site, and those of its own, as many as it may have.
func MenuIDs(st *doc.Site) (ids []string) {
	for _, m := range MenuNames {
		ids = append(ids, m.ID)
	}
	for _, m := range st.OwnMenus() {
		if len(ids) < len(MenuNames)+MostOwnMenus {
			ids = append(ids, m.ID)
		}
	}
	return ids
}

// mostMenuItems is how many items a menu holds beside pages that come by themselves.
const mostMenuItems = 120

// CheckMenu reads a menu as it was entered. Items that say and lead nowhere aren't there; one that
// leads to a page may be called what the page is. Errors are *doc.Problem.
func CheckMenu(entered []doc.MenuItem) (items []doc.MenuItem, err error) {
	called := ""
	if len(entered) > 0 && entered[0].Hand {
		called = entered[0].Label
	}
	entered, byHand := doc.ByHand(entered)
	if byHand {
		name, err := doc.Line("Name", called, 60)
		if err != nil {
			return nil, err
		}
		items = append(items, doc.MenuItem{Hand: true, Label: name})
	}
	first := len(items)
	for _, i := range entered {
		if i.Label, err = doc.Line("Label", i.Label, 60); err != nil {
			return nil, err
		}
		if i.Link = strings.TrimSpace(i.Link); i.Label == "" && i.Link == "" {
			continue
		}
		if i.Label == "" && (!byHand || !strings.HasPrefix(i.Link, "/")) {
			return nil, doc.Problemf("Label", "of %.60q is missing: write what the menu calls it", i.Link)
		}
		if i.Link != "" {
			if i.Link, err = CheckLink(i.Link); err != nil {
				return nil, err
			}
		}
		if len(items)-first == mostMenuItems {
			return nil, doc.Problemf("Menu", "has more than %d items; %d can be had", mostMenuItems, mostMenuItems)
		}
		i.Under, i.Hand = i.Under && len(items) > first, false
		items = append(items, i)
	}
	return items, nil
}

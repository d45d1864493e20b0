package site

import (
	"strings"
	"sync"
	"time"

	"github.com/go-playground/locales"
	"github.com/go-playground/locales/bg"
	"github.com/go-playground/locales/ca"
	"github.com/go-playground/locales/cs"
	"github.com/go-playground/locales/cy"
	"github.com/go-playground/locales/da"
	"github.com/go-playground/locales/de"
	"github.com/go-playground/locales/de_AT"
	"github.com/go-playground/locales/de_CH"
	"github.com/go-playground/locales/el"
	"github.com/go-playground/locales/en"
	"github.com/go-playground/locales/en_AU"
	"github.com/go-playground/locales/en_CA"
	"github.com/go-playground/locales/en_GB"
	"github.com/go-playground/locales/en_IE"
	"github.com/go-playground/locales/en_US"
	"github.com/go-playground/locales/es"
	"github.com/go-playground/locales/es_MX"
	"github.com/go-playground/locales/et"
	"github.com/go-playground/locales/eu"
	"github.com/go-playground/locales/fi"
	"github.com/go-playground/locales/fr"
	"github.com/go-playground/locales/fr_CA"
	"github.com/go-playground/locales/fr_CH"
	"github.com/go-playground/locales/ga"
	"github.com/go-playground/locales/gl"
	"github.com/go-playground/locales/hr"
	"github.com/go-playground/locales/hu"
	"github.com/go-playground/locales/is"
	"github.com/go-playground/locales/it"
	"github.com/go-playground/locales/ja"
	"github.com/go-playground/locales/ko"
	"github.com/go-playground/locales/lt"
	"github.com/go-playground/locales/lv"
	"github.com/go-playground/locales/mt"
	"github.com/go-playground/locales/nb"
	"github.com/go-playground/locales/nl"
	"github.com/go-playground/locales/nl_BE"
	"github.com/go-playground/locales/nn"
	"github.com/go-playground/locales/pl"
	"github.com/go-playground/locales/pt"
	"github.com/go-playground/locales/pt_BR"
	"github.com/go-playground/locales/ro"
	"github.com/go-playground/locales/sk"
	"github.com/go-playground/locales/sl"
	"github.com/go-playground/locales/sq"
	"github.com/go-playground/locales/sr"
	"github.com/go-playground/locales/sv"
	"github.com/go-playground/locales/tr"
	"github.com/go-playground/locales/uk"
	"github.com/go-playground/locales/vi"
	"github.com/go-playground/locales/zh_Hans"
	"github.com/go-playground/locales/zh_Hant"

	"openplot/core/doc"
	"openplot/store"
)

// calendars are how languages write dates (CLDR), for those that are offered; each is
// made when it is first needed.
var calendars = map[string]func() locales.Translator{
	"bg":      sync.OnceValue(bg.New),
	"ca":      sync.OnceValue(ca.New),
	"cs":      sync.OnceValue(cs.New),
	"cy":      sync.OnceValue(cy.New),
	"da":      sync.OnceValue(da.New),
	"de":      sync.OnceValue(de.New),
	"de-AT":   sync.OnceValue(de_AT.New),
	"de-CH":   sync.OnceValue(de_CH.New),
	"el":      sync.OnceValue(el.New),
	"en":      sync.OnceValue(en.New),
	"en-AU":   sync.OnceValue(en_AU.New),
	"en-CA":   sync.OnceValue(en_CA.New),
	"en-GB":   sync.OnceValue(en_GB.New),
	"en-IE":   sync.OnceValue(en_IE.New),
	"en-US":   sync.OnceValue(en_US.New),
	"es":      sync.OnceValue(es.New),
	"es-MX":   sync.OnceValue(es_MX.New),
	"et":      sync.OnceValue(et.New),
	"eu":      sync.OnceValue(eu.New),
	"fi":      sync.OnceValue(fi.New),
	"fr":      sync.OnceValue(fr.New),
	"fr-CA":   sync.OnceValue(fr_CA.New),
	"fr-CH":   sync.OnceValue(fr_CH.New),
	"ga":      sync.OnceValue(ga.New),
	"gl":      sync.OnceValue(gl.New),
	"hr":      sync.OnceValue(hr.New),
	"hu":      sync.OnceValue(hu.New),
	"is":      sync.OnceValue(is.New),
	"it":      sync.OnceValue(it.New),
	"ja":      sync.OnceValue(ja.New),
	"ko":      sync.OnceValue(ko.New),
	"lt":      sync.OnceValue(lt.New),
	"lv":      sync.OnceValue(lv.New),
	"mt":      sync.OnceValue(mt.New),
	"nb":      sync.OnceValue(nb.New),
	"nl":      sync.OnceValue(nl.New),
	"nl-BE":   sync.OnceValue(nl_BE.New),
	"nn":      sync.OnceValue(nn.New),
	"pl":      sync.OnceValue(pl.New),
	"pt":      sync.OnceValue(pt.New),
	"pt-BR":   sync.OnceValue(pt_BR.New),
	"ro":      sync.OnceValue(ro.New),
	"sk":      sync.OnceValue(sk.New),
	"sl":      sync.OnceValue(sl.New),
	"sq":      sync.OnceValue(sq.New),
	"sr":      sync.OnceValue(sr.New),
	"sv":      sync.OnceValue(sv.New),
	"tr":      sync.OnceValue(tr.New),
	"uk":      sync.OnceValue(uk.New),
	"vi":      sync.OnceValue(vi.New),
	"zh-Hans": sync.OnceValue(zh_Hans.New),
	"zh-Hant": sync.OnceValue(zh_Hant.New),
}

// DateOf is the day that a page is of, "2026-11-29": as it says, or that on which it was begun.
func DateOf(p *store.PageInfo, s *doc.Site) string {
	if p.Dated != "" {
		return p.Dated
	}
	if p.BegunAt.IsZero() {
		return ""
	}
	at := p.BegunAt.UTC()
	if zone, err := time.LoadLocation(s.TimeZone); err == nil && s.TimeZone != "" {
		at = at.In(zone)
	}
	return at.Format(time.DateOnly)
}

// dateOf is the day that the page at an address is of, or "".
func (src Source) dateOf(slug string) string {
	for _, p := range src.Pages {
		if p.Slug == slug {
			return DateOf(p, src.Site)
		}
	}
	return ""
}

// inWords writes a date as a language has it, "29 November 2026"; as it is where nobody knows that
// language's calendar.
func inWords(date, language string) string {
	day, err := time.Parse(time.DateOnly, date)
	if err != nil {
		return date
	}
	base, _, _ := strings.Cut(language, "-")
	for _, tag := range []string{language, base} {
		if of := calendars[tag]; of != nil {
			return of().FmtDateLong(day)
		}
	}
	return date
}

package site

import (
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/settings"
	"openplot/store"
)

// Dates are written as the language of the site has them. The expectations are CLDR's long dates of the
// Gregorian calendar (dateFormats, "long"), from memory.
func TestDatesInWords(t *testing.T) {
	for language, want := range map[string]string{
		"en": "November 29, 2026", "en-GB": "29 November 2026", "de": "29. November 2026", "nb": "29. november 2026", "fr": "29 novembre 2026",
		"fi": "29. marraskuuta 2026", "ja": "2026年11月29日", "en-ZA": "November 29, 2026", "tlh": "2026-11-29", "": "2026-11-29",
	} {
		if got := inWords("2026-11-29", language); got != want {
			t.Errorf("%s: %q, want %q", language, got, want)
		}
	}
	for _, l := range settings.Languages("") {
		if inWords("2026-11-29", l.Tag) == "2026-11-29" {
			t.Errorf("%s is offered, and its dates aren't known", l.Tag)
		}
	}
}

// A page is of the day that it says, or of that on which it was begun where the site is.
func TestTheDayOfAPage(t *testing.T) {
	s := &doc.Site{TimeZone: "Asia/Tokyo"}
	p := &store.PageInfo{BegunAt: time.Date(2026, 11, 29, 23, 0, 0, 0, time.UTC)}
	if got := DateOf(p, s); got != "2026-11-30" {
		t.Errorf("in Tokyo it was begun on %s", got)
	}
	if got := DateOf(p, &doc.Site{}); got != "2026-11-29" {
		t.Errorf("it was begun on %s", got)
	}
	if p.Dated = "2027-01-01"; DateOf(p, s) != "2027-01-01" {
		t.Error("it isn't of the day that it says")
	}
}

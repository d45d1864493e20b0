package visit

import (
	"strings"
	"testing"
)

// Where a visit came from is another site's host and nothing more: no path, no person, no text of its own.
func TestFrom(t *testing.T) {
	for referrer, want := range map[string]string{
		"":                                                  "",
		"https://www.Search.example/?q=ida":                 "search.example",
		"http://sub.news.example:8080/a/b":                  "sub.news.example",
		"https://skerry.example/fares/":                     "",
		"https://www.skerry.example/":                       "",
		"android-app://com.example/":                        "",
		"javascript:alert(1)":                               "",
		"https://<script>/":                                 "",
		"https://ida@mail.example/x":                        "mail.example",
		"https://" + strings.Repeat("a", 200) + ".example/": "",
	} {
		if got := From(referrer, "skerry.example:443"); got != want {
			t.Errorf("%q: %q, want %q", referrer, got, want)
		}
	}
}

// Campaigns are what the address says, on one line and no longer than is kept.
func TestCampaign(t *testing.T) {
	for query, want := range map[string]string{
		"":                                      "",
		"q=x":                                   "",
		"utm_source=letter&utm_campaign=Winter": "letter / Winter",
		"utm_source=a%0Ab&utm_medium=mail":      "a b / mail",
		"utm_source=" + strings.Repeat("x", 99): strings.Repeat("x", 33),
		"utm_source=%zz&utm_medium=mail":        "mail",
	} {
		if got := Campaign(query); got != want {
			t.Errorf("%q: %q, want %q", query, got, want)
		}
	}
	for tag, want := range map[string]string{"de-AT": "de", "EN": "en", "": "", "x": "", "d3": "", "fil-PH": "fil", "<b>": ""} {
		if got := Language(tag); got != want {
			t.Errorf("%q: %q", tag, got)
		}
	}
}

// Programs that go through pages by themselves say so; browsers are none.
func TestRobot(t *testing.T) {
	for agent, want := range map[string]bool{
		"": true, "curl/8.5.0": true, "Mozilla/5.0 (compatible; Examplebot/2.1; +https://example.org/bot.html)": true,
		"Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36": false,
		"Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 Version/18.0 Safari/604.1": false,
		"Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0":                                false,
	} {
		if got := Robot(agent); got != want {
			t.Errorf("%q: %v", agent, got)
		}
	}
}

package mail

import (
	"cmp"
	"strings"

	"openplot/core/inbox"
)

// OfEntry is the letter that tells the people of a site what somebody entered in a form, and whom to
// answer: the first address in it that is one, or "". It is kept at a path.
func OfEntry(site, at, from string, entered []inbox.Answer) (l Letter, reply string) {
	l = Letter{
		Subject: site, Lead: []string{"Sent with the form on " + from}, Link: &Link{Words: "Open the Inbox", URL: at},
		Foot: "The Inbox of " + site + " says where entries are sent on to.",
	}
	for _, f := range entered {
		words := oneLine(f.Value)
		if words == "" {
			continue
		}
		if len(l.Fields) == 0 {
			l.Subject = shortened(site + ": " + words)
		}
		l.Fields = append(l.Fields, Field{f.Field, f.Value})
		reply = cmp.Or(reply, inbox.Address(f.Value))
	}
	return l, reply
}

// longestSubject is as many characters as mail programs show of one at least (common practice).
const longestSubject = 70

func shortened(s string) string {
	if r := []rune(s); len(r) > longestSubject {
		return strings.TrimSpace(string(r[:longestSubject-1])) + "…"
	}
	return s
}

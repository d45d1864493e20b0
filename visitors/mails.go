package visitors

import (
	"cmp"
	"regexp"
	"strings"

	"openplot/core/inbox"
	"openplot/core/phrase"
	"openplot/mail"
	"openplot/store"
)

// telling is the letter that tells the people of a site what came with a form from a page.
func telling(st *store.Site, e *store.FormEntry) store.Telling {
	letter, reply := mail.OfEntry(st.Name, "/sites/"+st.Slug+"/entries?entry="+e.ID, e.From, e.Answers)
	return store.Telling{Letter: letter, ReplyTo: reply}
}

// copied is the letter with what somebody sent, to whoever they say they are, in the language of the site.
// Anybody can enter anybody's address: it goes nowhere that the site's people didn't write, links are left out, and
// an address gets so many a day (policy.CopiesADay).
func copied(st *store.Site, e *store.FormEntry, says *phrase.Book) (letter *mail.Letter, to string) {
	if to = inbox.Summarise(e.Answers).Address; to == "" {
		return nil, ""
	}
	name := cmp.Or(st.Mail.Name, st.Name)
	letter = &mail.Letter{Subject: says.Say(phrase.CopySubject, name), Foot: name + ". " + says.Say(phrase.CopyFoot)}
	for _, a := range e.Answers {
		if strings.TrimSpace(a.Value) != "" {
			letter.Fields = append(
				letter.Fields,
				mail.Field{Label: a.Field, Value: linked.ReplaceAllString(a.Value, "…")},
			)
		}
	}
	return letter, to
}

// linked is what mail programs make links of, by themselves (common practice), but for an address on its own.
var linked = regexp.MustCompile(
	`(?i)\b(?:[a-z][a-z0-9+.-]*://|www\.)\S*|\b[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)*\.\p{L}{2,}/\S*`,
)

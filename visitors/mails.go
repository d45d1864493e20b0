package visitors

import (
	"encoding/json"
	"fmt"
	"strings"

	"openplot/mail"
	"openplot/store"
)

// sentOn are the mails that tell the people of a site what came with a form from a page. Who answers one
// writes to whoever filled in the form, where that gave an address.
func sentOn(st *store.Site, answers []store.Answer, from string) (mails []*store.Mail, err error) {
	if st.MailTo == "" {
		return nil, nil
	}
	l := mail.Letter{
		Subject: subject(st.Name, answers), Lead: []string{"Sent with the form on " + from},
		Link: &mail.Link{Words: "Open the Inbox", URL: "/sites/" + st.Slug + "/entries"},
		Foot: "The Inbox of " + st.Name + " says where entries are sent on to.",
	}
	reply := ""
	for _, a := range answers {
		if strings.TrimSpace(a.Value) == "" {
			continue
		}
		l.Fields = append(l.Fields, mail.Field{Label: a.Field, Value: a.Value})
		if address, err := mail.Address(a.Value); err == nil && reply == "" {
			reply = address
		}
	}
	b, err := json.Marshal(l)
	if err != nil {
		return nil, fmt.Errorf("writing a letter: %w", err)
	}
	for to := range strings.SplitSeq(st.MailTo, ",") {
		mails = append(mails, &store.Mail{To: to, ReplyTo: reply, Letter: b})
	}
	return mails, nil
}

// longestSubject is as many characters as mail programs show of one at least (common practice).
const longestSubject = 70

// subject says of whom and what an entry is: the site, and what was entered first.
func subject(site string, answers []store.Answer) string {
	of := site
	for _, a := range answers {
		if words := strings.Join(strings.Fields(a.Value), " "); words != "" {
			of += ": " + words
			break
		}
	}
	if r := []rune(of); len(r) > longestSubject {
		of = strings.TrimSpace(string(r[:longestSubject-1])) + "…"
	}
	return of
}

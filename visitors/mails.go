package visitors

import (
	"openplot/mail"
	"openplot/store"
)

// sentOn are the mails that tell the people of a site what came with a form from a page.
func sentOn(st *store.Site, answers []store.Answer, from string) ([]*store.Mail, error) {
	fields := make([]mail.Field, len(answers))
	for i, a := range answers {
		fields[i] = mail.Field{Label: a.Field, Value: a.Value}
	}
	letter, reply := mail.OfEntry(st.Name, "/sites/"+st.Slug+"/entries", from, fields)
	return st.MailsOf(letter, reply)
}

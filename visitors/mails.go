package visitors

import (
	"openplot/mail"
	"openplot/store"
)

// telling is the letter that tells the people of a site what came with a form from a page.
func telling(st *store.Site, e *store.FormEntry) store.Telling {
	letter, reply := mail.OfEntry(st.Name, "/sites/"+st.Slug+"/entries?entry="+e.ID, e.From, e.Answers)
	return store.Telling{Letter: letter, ReplyTo: reply}
}

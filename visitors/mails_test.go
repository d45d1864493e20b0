package visitors

import (
	"encoding/json"
	"net/http"
	"net/url"
	"testing"

	"openplot/core/element"
	"openplot/mail"
	"openplot/store"
)

// What a person sends goes on to each of the site's addresses, answers to whoever wrote; what looks like a
// program's doesn't, and nothing where no address is set.
func TestEntriesAreSentOn(t *testing.T) {
	v := begin(t)
	ctx := t.Context()
	v.publishes("w1", store.Edition{Page: "p1", Said: store.Said{
		Forms: []store.PublishedForm{
			{Block: "b1", Fields: []string{"Your name", "Email", "Words", element.FormTrap, element.FormTook}},
		},
	}})
	sends := func(took string, more url.Values) []*store.Mail {
		t.Helper()
		before, err := v.Store.Mails.List(ctx, "w1", 100)
		if err != nil {
			t.Fatal(err)
		}
		form := url.Values{"Your name": {"Ida\r\nBcc: a@example.org"}, element.FormTrap: {""}, element.FormTook: {took}}
		for name, values := range more {
			form[name] = values
		}
		if status := v.post("192.0.2.1", form); status != http.StatusOK {
			t.Fatal(status)
		}
		all, err := v.Store.Mails.List(ctx, "w1", 100)
		if err != nil {
			t.Fatal(err)
		}
		return all[:len(all)-len(before)]
	}
	if all := sends("9000", nil); len(all) != 0 {
		t.Errorf("%d mails without an address", len(all))
	}
	if err := v.Store.Mails.Set(ctx, "w1", store.MailSettings{To: "office@skerry.example,crew@skerry.example"}); err != nil {
		t.Fatal(err)
	}
	all := sends("9000", url.Values{"Email": {" ida@berg.example "}, "Words": {""}})
	to := map[string]bool{}
	for _, m := range all {
		to[m.To] = true
		var l mail.Letter
		if err := json.Unmarshal(m.Letter, &l); err != nil {
			t.Fatal(err)
		}
		if m.ReplyTo != "ida@berg.example" || m.Entry == "" || l.Subject != "Skerry: Ida Bcc: a@example.org" ||
			len(l.Fields) != 2 {
			t.Errorf("a mail of entry %q, answers to %q: %+v", m.Entry, m.ReplyTo, l)
		}
	}
	if len(all) != 2 || !to["office@skerry.example"] || !to["crew@skerry.example"] {
		t.Errorf("mails to %v", to)
	}
	for _, address := range []string{"a@example.org, b@example.org", "a@example.org\r\nBcc: b@example.org", "Ann <a@example.org>"} {
		if all := sends("9000", url.Values{"Email": {address}}); len(all) != 2 || all[0].ReplyTo != "" {
			t.Errorf("%q: %d mails, answers to %q", address, len(all), all[0].ReplyTo)
		}
	}
	if all := sends("12", nil); len(all) != 0 {
		t.Errorf("%d mails of what a program sent", len(all))
	}
}

// What one page sends twice, as by two presses, is kept and told once, and answered alike.
func TestSentTwice(t *testing.T) {
	v := begin(t)
	v.publishes("w1", store.Edition{Page: "p1", Said: store.Said{Forms: []store.PublishedForm{
		{Block: "b1", Fields: []string{"Words", element.FormTrap, element.FormTook, element.FormOnce}},
	}}})
	for range 3 {
		if status := v.post("192.0.2.1", url.Values{"Words": {"Two bicycles"}, element.FormTrap: {""}, element.FormTook: {"9000"}, element.FormOnce: {"k3x"}}); status != http.StatusOK {
			t.Fatal(status)
		}
	}
	if es := v.entries(false); len(es) != 1 || len(es[0].Answers) != 1 {
		t.Errorf("%d entries: %+v", len(es), es[0].Answers)
	}
}

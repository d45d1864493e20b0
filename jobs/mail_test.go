package jobs

import (
	"encoding/json"
	"errors"
	"net/mail"
	"strings"
	"testing"

	ours "openplot/mail"
	"openplot/store"
)

// post gives the jobs a stand-in for a mail server.
func (y *yard) post() *ours.StandIn {
	y.t.Helper()
	s, err := ours.Begin(y.t.TempDir())
	y.must(err)
	y.t.Cleanup(func() { _ = s.Close() })
	y.Post = Post{
		Server: s.Server(mail.Address{Name: "Open Plot", Address: "mail@plot.example"}),
		App:    "https://plot.example",
	}
	return s
}

// letter is one that leads to a place of the application.
func (y *yard) letter() json.RawMessage {
	y.t.Helper()
	b, err := json.Marshal(
		ours.Letter{
			Subject: "A trial",
			Lead:    []string{"Hello"},
			Link:    &ours.Link{Words: "Go", URL: "/sites/skerry/entries"},
		},
	)
	y.must(err)
	return b
}

// queued is a mail that waits, to an address.
func (y *yard) queued(to string) *store.Mail {
	y.t.Helper()
	m := &store.Mail{Site: "w1", Sort: store.MailOfTrial, To: to, ReplyTo: "ida@berg.example", Letter: y.letter()}
	y.must(y.Store.Mails.Queue(y.t.Context(), m))
	return m
}

func (y *yard) mail(id string) *store.Mail {
	y.t.Helper()
	m, err := y.Store.Mails.ByID(y.t.Context(), id)
	y.must(err)
	return m
}

// What is queued goes out by itself, once, from the site's name and with links to the application.
func TestMailsGoOut(t *testing.T) {
	y := begin(t)
	s := y.post()
	m := y.queued("office@skerry.example")
	y.run()
	y.until("the mail is sent", func() bool { return y.mail(m.ID).SentAt != nil })
	r, err := s.Find(m.ID)
	y.must(err)
	if r == nil || r.From != `"Skerry" <mail@plot.example>` || r.ReplyTo != "<ida@berg.example>" ||
		!strings.Contains(r.Text, "https://plot.example/sites/skerry/entries") {
		t.Fatalf("it came as %+v", r)
	}
	y.must(y.SendMail(t.Context(), m.ID)) // as a process would that ended before it could say so
	if again, err := s.Find(m.ID); err != nil || string(again.Raw) != string(r.Raw) {
		t.Errorf("it went out twice: %v", err)
	}
}

// What the server refuses isn't tried on; it says why, and goes out when somebody asks for it again.
func TestRefusedMailsAreSeen(t *testing.T) {
	y := begin(t)
	s := y.post()
	m := y.queued("nobody@refused.invalid")
	y.run()
	y.until("it failed", func() bool { return y.mail(m.ID).Failed })
	if m = y.mail(m.ID); m.Tried != 1 || !strings.Contains(m.Problem, "no such mailbox") || m.SentAt != nil {
		t.Errorf("it is %+v", m)
	}
	if err := y.Store.Mails.Again(t.Context(), "another", m.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("another site sends it again: %v", err)
	}
	if _, err := y.Store.DB().ExecContext(t.Context(), `UPDATE mails SET recipient = 'office@skerry.example' WHERE id = $1`, m.ID); err != nil {
		t.Fatal(err)
	}
	y.must(y.Store.Mails.Again(t.Context(), "w1", m.ID))
	y.until("it is sent again", func() bool { return y.mail(m.ID).SentAt != nil })
	if r, err := s.Find(m.ID); err != nil || r == nil {
		t.Errorf("it didn't come: %v", err)
	}
	if err := y.Store.Mails.Again(t.Context(), "w1", m.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("what was sent is sent again: %v", err)
	}
}

// A mail goes with the entry that it tells of, sent or not; without a server it says so and waits; a
// link by which one joins isn't kept once it was sent.
func TestMailsAreNotKeptLongerThanWhatTheyTell(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	m := y.queued("office@skerry.example")
	if err := y.SendMail(ctx, m.ID); !errors.Is(err, ErrNoServer) || !y.mail(m.ID).Waiting() {
		t.Errorf("without a server: %v", err)
	}
	s := y.post()
	y.must(y.Store.Mails.Set(ctx, "w1", store.MailSettings{To: "office@skerry.example"}))
	y.must(
		y.Store.Entries.Add(
			ctx,
			"w1",
			store.FormEntry{
				ID:      "e1",
				Form:    "b1",
				Answers: []store.Answer{{Field: "a", Value: "ida@berg.example"}},
			},
			store.Telling{Letter: y.letter()},
		),
	)
	mails, err := y.Store.Mails.OfEntry(ctx, "w1", "e1")
	if err != nil || len(mails) != 1 {
		t.Fatalf("%d mails tell of it: %v", len(mails), err)
	}
	told := mails[0]
	n, err := y.Store.Entries.EraseAnswers(ctx, "w1", "ida@berg.example")
	y.must(err)
	y.must(y.SendMail(ctx, told.ID))
	if r, err := s.Find(told.ID); n != 1 || r != nil || err != nil {
		t.Errorf("what was erased (%d) is sent: %v, %v", n, r, err)
	}
	invited := &store.Mail{Site: "w1", Sort: store.MailOfInvitation, To: "ann@example.org", Letter: y.letter()}
	y.must(y.Store.Mails.Queue(ctx, invited))
	y.must(y.SendMail(ctx, invited.ID))
	if r, err := s.Find(invited.ID); err != nil || !strings.Contains(r.Text, "https://plot.example/sites") {
		t.Errorf("the invitation: %v, %v", r, err)
	}
	if kept := string(y.mail(invited.ID).Letter); strings.Contains(kept, "/sites") {
		t.Errorf("the link is kept: %s", kept)
	}
}

// A site sends so many mails in a day and no more; entries are kept all the same.
func TestASiteSendsSoManyMails(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	if _, err := y.Store.DB().ExecContext(ctx, `INSERT INTO mails (id, site_id, kind, recipient, letter)
		SELECT 'x' || n, 'w1', 'trial', 'a@example.org', '{}' FROM generate_series(1, 999) n`); err != nil {
		t.Fatal(err)
	}
	y.queued("office@skerry.example")
	if err := y.Store.Mails.Queue(ctx, &store.Mail{Site: "w1", Sort: store.MailOfTrial, To: "a@example.org", Letter: y.letter()}); !errors.Is(
		err,
		store.ErrMails,
	) {
		t.Errorf("one more: %v", err)
	}
	y.must(y.Store.Mails.Set(ctx, "w1", store.MailSettings{To: "office@skerry.example"}))
	y.must(
		y.Store.Entries.Add(
			ctx,
			"w1",
			store.FormEntry{
				Form:    "b1",
				Answers: []store.Answer{{Field: "a", Value: "hello"}},
			},
			store.Telling{Letter: y.letter()},
		),
	)
	if all, _, err := y.Store.Inbox.List(ctx, store.Look{Site: "w1", User: y.owner, Box: store.BoxAll, Limit: 10}); err != nil ||
		len(all) != 1 {
		t.Errorf("%d entries: %v", len(all), err)
	}
	if _, err := y.Store.DB().ExecContext(ctx, `UPDATE mails SET made_at = now() - interval '2 days'`); err != nil {
		t.Fatal(err)
	}
	y.queued("office@skerry.example")
}

// The second answer to an entry names the first, the first none, and an answer to another entry neither.
func TestAnswersAreOneThread(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	s := y.post()
	for _, id := range []string{"e1", "e2"} {
		e := store.FormEntry{ID: id, Form: "b1", Answers: []store.Answer{{Field: "a", Value: "ida@berg.example"}}}
		y.must(y.Store.Entries.Add(ctx, "w1", e, store.Telling{}))
	}
	before := map[string]string{} // by entry, the mail that went before
	for _, entry := range []string{"e1", "e1", "e2"} {
		m := &store.Mail{Site: "w1", Entry: entry, To: "ida@berg.example", Letter: y.letter()}
		y.must(y.Store.Mails.Answer(ctx, m))
		y.must(y.SendMail(ctx, m.ID))
		r, err := s.Find(m.ID)
		y.must(err)
		if r == nil {
			t.Fatalf("the answer to %s didn't come", entry)
		}
		names, want := strings.Contains(string(r.Raw), "In-Reply-To: <"), before[entry] != ""
		if names != want || want && !strings.Contains(string(r.Raw), "In-Reply-To: <"+before[entry]+"@") {
			t.Errorf("an answer to %s: %.600s", entry, r.Raw)
		}
		before[entry] = m.ID
	}
}

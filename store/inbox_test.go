package store

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/policy"
)

// sends adds an entry with an id and gives what finds it.
func (f *fixture) sends(id string, more FormEntry, values ...string) {
	f.t.Helper()
	more.ID, more.Form = id, "b1"
	if more.From != "" {
		more.Form = more.From
	}
	for i, v := range values {
		more.Answers = append(more.Answers, Answer{Field: fmt.Sprint("Field ", i), Value: v})
	}
	if err := f.Entries.Add(f.t.Context(), "w1", more, Telling{}); err != nil {
		f.t.Fatal(err)
	}
}

// seen are the ids of what somebody looks at, in order of the ids.
func (f *fixture) seen(l Look) string {
	f.t.Helper()
	l.Site = "w1"
	if l.User == "" {
		l.User = f.user
	}
	if l.Limit == 0 {
		l.Limit = 100
	}
	es, _, err := f.Inbox.List(f.t.Context(), l)
	if err != nil {
		f.t.Fatal(err)
	}
	ids := make([]string, len(es))
	for i, e := range es {
		ids[i] = e.ID
	}
	slices.Sort(ids)
	return strings.Join(ids, " ")
}

// Each box holds what it says, each person reads for themselves, and what is counted is what is listed.
func TestBoxes(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	f.sends("before", FormEntry{}, "sent before the other joined")
	other, err := f.People.AddUser(ctx, "other@example.org", "Other", "three islands")
	must(err)
	must(f.People.AddMember(ctx, "w1", other.ID, Writer))
	f.sends("a", FormEntry{}, "Ada")
	f.sends("b", FormEntry{}, "Bo")
	f.sends("spam", FormEntry{Suspect: "too quick"}, "Buy")
	f.sends("trial", FormEntry{Trial: true}, "Try")
	f.sends("gone", FormEntry{}, "Gone")
	must(f.Inbox.SetDeleted(ctx, "w1", []string{"gone"}, true))
	must(f.Inbox.SetRead(ctx, "w1", f.user, []string{"a", "before"}, true))
	must(f.Inbox.SetRead(ctx, "w1", other.ID, []string{"before"}, false))
	must(f.Inbox.SetStarred(ctx, "w1", []string{"b"}, true))
	must(f.Inbox.Assign(ctx, "w1", []string{"a"}, other.ID))
	must(f.Inbox.Assign(ctx, "w1", []string{"b"}, "nobody of the site"))
	for _, tt := range []struct {
		user string
		box  Box
		want string
	}{
		{f.user, BoxNew, "b"},
		{other.ID, BoxNew, "a b before"},
		{f.user, BoxStarred, "b"},
		{f.user, BoxMine, ""},
		{other.ID, BoxMine, "a"},
		{f.user, BoxAll, "a b before"},
		{f.user, BoxSpam, "spam"},
		{f.user, BoxTrials, "trial"},
		{f.user, BoxDeleted, "gone"},
	} {
		if got := f.seen(Look{User: tt.user, Box: tt.box}); got != tt.want {
			t.Errorf("%s: %q, want %q", tt.box, got, tt.want)
		}
		n, err := f.Inbox.Counts(ctx, "w1", tt.user)
		if err != nil || n[tt.box] != len(strings.Fields(tt.want)) {
			t.Errorf("%s: %d are counted, want %q, %v", tt.box, n[tt.box], tt.want, err)
		}
	}
	if tally, err := f.Sites.Tally(ctx, "w1", other.ID); err != nil || tally.New != 3 {
		t.Errorf("the rail counts %d, %v", tally.New, err)
	}
	// What was seen in a box stays in it until it is asked for again, unless it was taken away.
	if got := f.seen(Look{Box: BoxNew, Also: []string{"a", "gone", "spam"}}); got != "a b" {
		t.Errorf("what stays: %q", got)
	}
	// Somebody who isn't a member sees nothing, and a site's entries are its own.
	if got := f.seen(Look{User: "a stranger", Box: BoxAll}); got != "" {
		t.Errorf("a stranger sees %q", got)
	}
	for _, err := range []error{
		f.Inbox.SetDeleted(ctx, "another", []string{"a"}, true), f.Inbox.SetStarred(ctx, "another", []string{"a"}, true),
		f.Inbox.SetSpam(ctx, "another", []string{"a"}, "x"), f.Inbox.SetRead(ctx, "another", f.user, []string{"b"}, true),
		f.Inbox.Assign(ctx, "another", []string{"a"}, ""),
	} {
		must(err)
	}
	if e, err := f.Entries.ByID(ctx, "w1", "a"); err != nil || e.Starred || e.DeletedAt != nil || e.Suspect != "" ||
		e.Assigned != other.ID {
		t.Errorf("another site's people changed it: %+v, %v", e, err)
	}
	if got := f.seen(Look{Box: BoxNew}); got != "b" {
		t.Errorf("another site's people read it: %q", got)
	}
}

// An entry is found by every word that was entered in it or noted beside it, by its beginning, whatever
// its capitals, and by no field's name.
func TestEntriesAreFound(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	f.sends(
		"a",
		FormEntry{},
		"Ida Berg",
		"ida@berg.example",
		"Two bicycles to Langey on Saturday,\none with a trailer – 17:05?",
	)
	f.sends("b", FormEntry{From: "b2"}, "Øystein Søndergård", "日本", "O'Neil")
	if err := f.Inbox.AddNote(ctx, "w1", "b", f.user, "Rang him: wants the Thursday boat"); err != nil {
		t.Fatal(err)
	}
	for find, want := range map[string]string{
		"": "a b", "ida": "a", "IDA BERG": "a", "berg.example": "a", "bicy lang": "a", "17:05": "a", "one": "a", "øyst": "b",
		"SØNDERGÅRD": "b", "neil": "b", "日本": "b", "thursday": "b", "o'neil thursday": "b", "ida thursday": "", "field": "", "icycles": "",
		"'": "a b", "a:* | b": "a", `\`: "a b", "&!()": "a b",
	} {
		if got := f.seen(Look{Box: BoxAll, Find: find}); got != want {
			t.Errorf("%q: %q, want %q", find, got, want)
		}
	}
	if got := f.seen(Look{Box: BoxAll, Form: "b2"}); got != "b" {
		t.Errorf("of a form: %q", got)
	}
	// Every word of many, by its first letters.
	words := strings.Fields("barge sheep lamp crate ferry anchor pier rope gull wave")
	for i, w := range words {
		f.sends(fmt.Sprint("w", i), FormEntry{}, w+" "+words[(i+1)%len(words)])
	}
	for i, w := range words {
		before := (i + len(words) - 1) % len(words)
		want := []string{fmt.Sprint("w", i), fmt.Sprint("w", before)}
		slices.Sort(want)
		if got := f.seen(Look{Box: BoxAll, Find: w[:3]}); got != strings.Join(want, " ") {
			t.Errorf("%s: %q, want %v", w, got, want)
		}
	}
}

// A long list is gone through page by page, each entry once, those of one moment too; and by day.
func TestEntriesByPageAndDay(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	for i := range 25 {
		f.sends(fmt.Sprintf("e%02d", i), FormEntry{}, "x")
	}
	if _, err := f.pool.Exec(`UPDATE form_entries SET sent_at = timestamptz '2026-03-29 00:00:00+00' + make_interval(hours => substr(id, 2)::int / 4 * 6)`); err != nil {
		t.Fatal(err)
	}
	var got []string
	look := Look{Site: "w1", User: f.user, Box: BoxAll, Limit: 7}
	for {
		es, more, err := f.Inbox.List(ctx, look)
		if err != nil {
			t.Fatal(err)
		}
		for _, e := range es {
			got = append(got, e.ID)
		}
		if !more {
			break
		}
		look.Before = es[len(es)-1].ID
	}
	slices.Sort(got)
	if len(got) != 25 || len(slices.Compact(got)) != 25 {
		t.Errorf("%v", got)
	}
	// A day begins where the site is: there the 29th of March 2026 has 23 hours (Europe/Vienna).
	vienna, err := time.LoadLocation("Europe/Vienna")
	if err != nil {
		t.Fatal(err)
	}
	last := time.Date(2026, 3, 30, 0, 0, 0, 0, vienna)
	days, err := f.Inbox.Days(ctx, "w1", last, 3)
	if err != nil || len(days) != 3 {
		t.Fatalf("%v, %v", days, err)
	}
	total := 0
	for _, d := range days {
		listed := f.seen(Look{Box: BoxAll, Day: d.Day})
		if n := len(strings.Fields(listed)); n != d.Entries && d.Day != last {
			t.Errorf("%v: %d are counted, and %q is listed", d.Day, d.Entries, listed)
		}
		total += d.Entries
	}
	if days[0].Entries != 0 || days[1].Entries != 16 || total != 25 {
		t.Errorf("%+v", days)
	}
}

// Notes are their maker's to take away, and gone with the entry; what is deleted comes back, or goes for
// good after a while, and before its time where the form keeps entries shorter.
func TestNotesAndDeletion(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	f.sends("a", FormEntry{}, "ida@berg.example")
	f.sends("b", FormEntry{From: "short"}, "x")
	f.sends("c", FormEntry{}, "y")
	var problem *doc.Problem
	for _, words := range []string{"", " \n", strings.Repeat("x", 4001)} {
		if err := f.Inbox.AddNote(ctx, "w1", "a", f.user, words); !errors.As(err, &problem) {
			t.Errorf("%.10q: %v", words, err)
		}
	}
	if err := f.Inbox.AddNote(ctx, "another", "a", f.user, "hello"); !errors.Is(err, ErrNotFound) {
		t.Errorf("from another site: %v", err)
	}
	if err := f.Inbox.AddNote(ctx, "w1", "a", f.user, " hello "); err != nil {
		t.Fatal(err)
	}
	notes, err := f.Inbox.Notes(ctx, "w1", "a")
	if err != nil || len(notes) != 1 || notes[0].Words != "hello" || notes[0].User != f.user {
		t.Fatalf("%+v, %v", notes, err)
	}
	for _, by := range [][2]string{{"w1", "somebody else"}, {"another", f.user}} {
		if err := f.Inbox.DeleteNote(ctx, by[0], notes[0].ID, by[1]); !errors.Is(err, ErrNotFound) {
			t.Errorf("%v takes it away: %v", by, err)
		}
	}
	days := 3
	if err := f.Inbox.SetForm(ctx, "w1", "short", &days, nil); err != nil {
		t.Fatal(err)
	}
	if err := f.Inbox.SetDeleted(ctx, "w1", []string{"a", "c"}, true); err != nil {
		t.Fatal(err)
	}
	if err := f.Inbox.SetDeleted(ctx, "w1", []string{"c"}, false); err != nil {
		t.Fatal(err)
	}
	for _, tt := range []struct {
		days int
		want string
	}{{2, "b c"}, {4, "c"}, {29, "c"}, {31, "c"}} {
		if _, err := f.pool.Exec(`UPDATE form_entries SET sent_at = now() - make_interval(days => $1),
			deleted_at = CASE WHEN deleted_at IS NOT NULL THEN now() - make_interval(days => $1) END`, tt.days); err != nil {
			t.Fatal(err)
		}
		if err := f.Entries.Forget(ctx); err != nil {
			t.Fatal(err)
		}
		if got := f.seen(Look{Box: BoxAll}); got != tt.want {
			t.Errorf("after %d days: %q, want %q", tt.days, got, tt.want)
		}
		if got, want := f.seen(Look{Box: BoxDeleted}), map[bool]string{true: "a"}[tt.days < 30]; got != want {
			t.Errorf("after %d days deleted: %q, want %q", tt.days, got, want)
		}
	}
	var left int
	if err := f.pool.Get(&left, `SELECT count(*) FROM entry_notes`); err != nil || left != 0 {
		t.Errorf("%d notes are left, %v", left, err)
	}
}

// What one page sends twice is kept and told once; what it sends with other words, or another page, isn't the same.
func TestSentTwiceIsKeptOnce(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	if err := f.Mails.Set(ctx, "w1", MailSettings{To: "office@skerry.example"}); err != nil {
		t.Fatal(err)
	}
	for _, sent := range []struct{ once, words string }{{"a", "x"}, {"a", "x"}, {"a", "x, and more"}, {"b", "x"}, {"", "x"}, {"", "x"}} {
		e := FormEntry{Form: "b1", Once: sent.once, Answers: []Answer{{Field: "Words", Value: sent.words}}}
		if err := f.Entries.Add(ctx, "w1", e, Telling{Letter: map[string]string{"subject": "x"}}); err != nil {
			t.Fatal(err)
		}
	}
	mails, err := f.Mails.List(ctx, "w1", 100)
	if es := strings.Fields(f.seen(Look{Box: BoxAll})); err != nil || len(es) != 5 || len(mails) != 5 {
		t.Errorf("%d entries and %d mails, %v", len(es), len(mails), err)
	}
}

// A site answers so many in a day and no more, however many other mails it may still send.
func TestASiteAnswersSoMany(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	f.sends("a", FormEntry{}, "ida@berg.example")
	if _, err := f.pool.Exec(`INSERT INTO mails (id, site_id, kind, recipient, letter)
		SELECT 'x' || n, 'w1', 'answer', 'a@example.org', '{}' FROM generate_series(1, $1) n`, policy.AnswersADay-1); err != nil {
		t.Fatal(err)
	}
	answer := func() error {
		return f.Mails.Answer(ctx, &Mail{Site: "w1", Entry: "a", To: "ida@berg.example", Letter: []byte(`{}`)})
	}
	if err := answer(); err != nil {
		t.Error(err)
	}
	if err := answer(); !errors.Is(err, ErrMails) {
		t.Errorf("one more: %v", err)
	}
	if err := f.Mails.Queue(ctx, &Mail{Site: "w1", Sort: MailOfTrial, To: "a@example.org", Letter: []byte(`{}`)}); err != nil {
		t.Errorf("another mail: %v", err)
	}
}

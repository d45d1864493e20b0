package web

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"openplot/store"
)

// joining finds the path of a link that was just made.
var joining = regexp.MustCompile(`/join/[\w-]+`)

// owned is the owner of the site, signed in.
func (p *studio) owned() *person {
	p.t.Helper()
	if err := p.store.People.AddMember(p.t.Context(), "w1", p.userID("designer@example.org"), store.Owner); err != nil {
		p.t.Fatal(err)
	}
	return p.as("designer@example.org")
}

// invites makes a link, and gives its path.
func (q *person) invites(email string, role store.Role) string {
	q.t.Helper()
	status, text, _ := q.post("/sites/skerry/people", url.Values{"email": {email}, "role": {string(role)}})
	path := joining.FindString(text)
	if status != http.StatusOK || path == "" {
		q.t.Fatalf("%d %.300s", status, text)
	}
	return path
}

// nobody has a browser and no account.
func (p *studio) nobody() *person {
	p.t.Helper()
	q := p.as("stranger@example.org")
	q.post("/sign-out", nil)
	return q
}

// Whoever is invited comes in once, by the link, as what they were invited as: with a new account, with
// theirs by its password, or signed in.
func TestPeopleJoinBySayingWhoTheyAre(t *testing.T) {
	p := begin(t)
	d := p.owned()
	// One without an account makes one.
	link := d.invites("New@Example.org", store.Writer)
	q := p.nobody()
	if status, text, _ := q.get(link); status != http.StatusOK || !strings.Contains(text, "Join Skerry") ||
		!strings.Contains(text, "new-password") {
		t.Fatalf("%d %.400s", status, text)
	}
	if status, text, _ := q.post(link, url.Values{"name": {"New One"}, "password": {"short"}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(text, "Password") ||
		!strings.Contains(text, `value="New One"`) {
		t.Errorf("a short password: %d", status)
	}
	status, _, h := q.post(link, url.Values{"name": {"New One"}, "password": {"three more islands"}})
	if status != http.StatusSeeOther || h.Get("Location") != "/sites/skerry" {
		t.Fatal(status, h)
	}
	if status, text, _ := q.get("/sites/skerry/people"); status != http.StatusOK ||
		!strings.Contains(text, "New One") ||
		strings.Contains(text, "example.org") ||
		strings.Contains(text, "Invite somebody") {
		t.Errorf("a writer sees %d %.300s", status, text)
	}
	if status, _, _ := p.nobody().get(link); status != http.StatusNotFound {
		t.Errorf("a link works twice: %d", status)
	}
	// One with an account joins with its password, or signed in.
	link = d.invites("stranger@example.org", store.Designer)
	q = p.nobody()
	if status, text, _ := q.post(link, url.Values{"password": {"not that one"}, "name": {"X"}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(text, "Password") {
		t.Errorf("another's password: %d", status)
	}
	if status, _, _ := q.post(link, url.Values{"password": {"three islands"}}); status != http.StatusSeeOther {
		t.Errorf("their own: %d", status)
	}
	if err := p.store.Members.Set(t.Context(), "w1", p.userID("stranger@example.org"), ""); err != nil {
		t.Fatal(err)
	}
	link = d.invites("stranger@example.org", store.Designer)
	s := p.as("stranger@example.org")
	if status, _, _ := s.post(link, nil); status != http.StatusSeeOther {
		t.Errorf("signed in: %d", status)
	}
	if status, _, _ := s.post("/sites/skerry/people/leave", nil); status != http.StatusSeeOther {
		t.Errorf("leaving: %d", status)
	}
	if status, _, _ := s.get("/sites/skerry/people"); status != http.StatusNotFound {
		t.Errorf("left, and sees it: %d", status)
	}
	log, err := p.store.Audit.List(t.Context(), "w1", 30)
	if err != nil {
		t.Fatal(err)
	}
	acts := map[string]int{}
	for _, n := range log {
		acts[n.Act]++
	}
	if acts["member invited"] != 3 || acts["member joined"] != 3 || acts["member left"] != 1 {
		t.Errorf("noted %v", acts)
	}
}

// An invitation is for one email: nobody else takes it, and it ends with time, with a later one for the
// same email, when it is taken back, and when who invites is an owner no more.
func TestInvitationsAreForOne(t *testing.T) {
	p := begin(t)
	d := p.owned()
	ctx := t.Context()
	link := d.invites("stranger@example.org", store.Owner)
	w, stranger, nobody := p.as("writer@example.org"), p.as("stranger@example.org"), p.nobody()
	if status, text, _ := w.post(link, nil); status != http.StatusUnprocessableEntity || !tellsOf(text, "Email") {
		t.Errorf("a writer takes an owner's invitation: %d %.200s", status, text)
	}
	if role := p.roleOf("writer@example.org"); role != store.Writer {
		t.Errorf("the writer is %s", role)
	}
	ended := func(what, link string) {
		t.Helper()
		for _, q := range []*person{stranger, nobody} {
			if status, text, _ := q.get(link); status != http.StatusNotFound || strings.Contains(text, "Skerry") {
				t.Errorf("%s: %d", what, status)
			}
			if status, _, _ := q.post(link, url.Values{"password": {"three islands"}}); status != http.StatusNotFound {
				t.Errorf("%s, taken: %d", what, status)
			}
		}
	}
	later := d.invites("stranger@example.org", store.Writer)
	ended("one that another came after", link)
	invited, err := p.store.Members.Invited(ctx, "w1")
	if err != nil || len(invited) != 1 {
		t.Fatalf("%d invitations, %v", len(invited), err)
	}
	if status, _, _ := d.post("/sites/skerry/people/uninvite", url.Values{"id": {invited[0].ID}}); status != http.StatusOK {
		t.Error(status)
	}
	ended("one that was taken back", later)
	u := p.userID("designer@example.org")
	token, err := p.store.Members.Invite(
		ctx,
		"w1",
		u,
		"stranger@example.org",
		store.Designer,
		time.Now().Add(-time.Second),
	)
	if err != nil {
		t.Fatal(err)
	}
	ended("an old one", "/join/"+token)
	link = d.invites("stranger@example.org", store.Designer)
	if err := p.store.People.AddMember(ctx, "w1", u, store.Designer); err != nil {
		t.Fatal(err)
	}
	ended("one of who isn't an owner any more", link)
	ended("none", "/join/nothing")
}

// A site always has an owner; who isn't one changes nobody.
func TestASiteKeepsAnOwner(t *testing.T) {
	p := begin(t)
	d := p.owned()
	own, other := p.userID("designer@example.org"), p.userID("writer@example.org")
	for name, form := range map[string]url.Values{"role": {"user": {own}, "role": {"writer"}}, "remove": {"user": {own}}, "leave": nil} {
		if status, text, _ := d.post("/sites/skerry/people/"+name, form); status != http.StatusUnprocessableEntity ||
			!tellsOf(text, "Role") {
			t.Errorf("%s of the only owner: %d %.200s", name, status, text)
		}
	}
	if status, text, _ := d.post("/sites/skerry/people/role", url.Values{"user": {other}, "role": {"king"}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(text, "Role") {
		t.Errorf("no such role: %d", status)
	}
	if status, _, _ := d.post("/sites/skerry/people/role", url.Values{"user": {p.userID("stranger@example.org")}, "role": {"writer"}}); status != http.StatusNotFound {
		t.Errorf("who doesn't belong to it: %d", status)
	}
	if status, _, _ := d.post("/sites/skerry/people/role", url.Values{"user": {other}, "role": {"owner"}}); status != http.StatusOK ||
		p.roleOf("writer@example.org") != store.Owner {
		t.Errorf("a second owner: %d", status)
	}
	if status, _, h := d.post("/sites/skerry/people/remove", url.Values{"user": {own}}); status != http.StatusSeeOther ||
		h.Get("Location") != "/" {
		t.Errorf("taking oneself off: %d %v", status, h)
	}
	if role := p.roleOf("designer@example.org"); role != "" {
		t.Errorf("is still %s", role)
	}
	for _, wrong := range []url.Values{{"email": {"nobody"}, "role": {"writer"}}, {"email": {"writer@example.org"}, "role": {"writer"}}} {
		if status, text, _ := p.as("writer@example.org").post("/sites/skerry/people", wrong); status != http.StatusUnprocessableEntity ||
			!tellsOf(text, "Email") {
			t.Errorf("inviting %v: %d", wrong, status)
		}
	}
}

// roleOf is what somebody is on the site, or "".
func (p *studio) roleOf(email string) store.Role {
	p.t.Helper()
	all, err := p.store.Members.List(p.t.Context(), "w1")
	if err != nil {
		p.t.Fatal(err)
	}
	for _, m := range all {
		if m.Email == email {
			return m.Role
		}
	}
	return ""
}

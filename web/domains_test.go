package web

import (
	"context"
	"errors"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/store"
)

// records is a DNS of a test's.
type records map[string]string

// Look implements dns.Resolver.
func (r records) Look(_ context.Context, kind, name string) ([]string, error) {
	switch v := r[kind+" "+name]; v {
	case "":
		return nil, nil
	case "away":
		return nil, errors.New("no answer")
	default:
		return strings.Split(v, ","), nil
	}
}

// A domain is shown by whoever proves it; saying that it is theirs keeps nobody from that.
func TestDomainsAreProved(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	world := records{}
	p.server.Domains.DNS = world
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	must(
		p.store.Sites.Add(
			ctx,
			&doc.Site{ID: "w2", Slug: "other", Name: "Other", House: doc.StandardHouse(), Zones: doc.StandardZones()},
		),
	)
	must(p.store.People.AddMember(ctx, "w1", p.userID("designer@example.org"), store.Owner))
	must(p.store.People.AddMember(ctx, "w2", p.userID("writer@example.org"), store.Owner))
	a, b := p.as("designer@example.org"), p.as("writer@example.org")
	const host = "www.skerry.example"
	do := func(who *person, slug, what, host string) (int, string) {
		t.Helper()
		status, text, _ := who.post("/sites/"+slug+"/domains"+what, url.Values{"host": {host}})
		return status, text
	}
	token := func(site string) string {
		t.Helper()
		ds, err := p.store.Hosts.Domains(ctx, site)
		must(err)
		for _, d := range ds {
			if d.Host == host {
				return d.Token
			}
		}
		t.Fatal("no claim")
		return ""
	}
	shownBy := func() string {
		t.Helper()
		at, err := p.store.Hosts.AtDomain(ctx, host)
		if errors.Is(err, store.ErrNotFound) {
			return ""
		}
		must(err)
		return at.Slug
	}
	leads := func(slug string, txt ...string) {
		base, _, _ := strings.Cut(p.hosts.Base, ":")
		world["CNAME "+host], world["TXT _openplot."+host] = slug+"."+base+".", strings.Join(txt, ",")
	}
	for who, slug := range map[*person]string{a: "skerry", b: "other"} {
		if status, text := do(who, slug, "", host); status != http.StatusSeeOther {
			t.Fatalf("%s may not say that it has it: %d %.300s", slug, status, text)
		}
	}
	if shownBy() != "" {
		t.Error("it is shown without proof")
	}
	leads("other", "openplot-guessed")
	do(b, "other", "/check", host)
	leads("skerry", token("w2")) // leads elsewhere
	do(b, "other", "/check", host)
	if shownBy() != "" {
		t.Error("half a proof is enough")
	}
	leads("other", token("w2"))
	do(b, "other", "/check", host)
	if shownBy() != "other" {
		t.Errorf("proved, it is shown by %q", shownBy())
	}
	// The other one says the same, without proof and then with it.
	do(a, "skerry", "/check", host)
	if shownBy() != "other" {
		t.Error("somebody who proved nothing took it")
	}
	world["CNAME "+host] += ",skerry.localhost."
	world["TXT _openplot."+host] += "," + token("w1")
	if status, text := do(a, "skerry", "/check", host); status != http.StatusUnprocessableEntity ||
		!strings.Contains(text, "another site") ||
		shownBy() != "other" {
		t.Errorf("both stand: %d, shown by %q", status, shownBy())
	}
	leads("skerry", token("w1"))
	do(a, "skerry", "/check", host)
	if shownBy() != "skerry" {
		t.Errorf("proved by its new owner, it is shown by %q", shownBy())
	}
	// A site that moves keeps its domain; records that nothing is known of change nothing.
	must(p.store.Sites.Rename(ctx, "w1", "sound"))
	must(p.server.Domains.LookAgain(ctx))
	world["TXT _openplot."+host] = "away"
	must(p.server.Domains.LookAgain(ctx))
	if ds, err := p.store.Hosts.Domains(ctx, "w1"); err != nil || ds[0].FailingSince != nil || shownBy() != "sound" {
		t.Errorf("%+v, %v, shown by %q", ds, err, shownBy())
	}
	// Looked at again every day, it is said when they are gone, and shown for a few days more.
	delete(world, "TXT _openplot."+host)
	must(p.server.Domains.LookAgain(ctx))
	if _, text, _ := a.get("/sites/sound/settings"); shownBy() != "sound" ||
		!strings.Contains(oneLine(text), "found any more") {
		t.Errorf("nobody is told that the records are gone; shown by %q", shownBy())
	}
	if notes, err := p.store.Audit.List(ctx, "w1", 20); err != nil ||
		!strings.Contains(notes[0].Act+notes[1].Act, "records not found") {
		t.Errorf("%+v, %v", notes, err)
	}
	_, err := p.store.DB().
		ExecContext(ctx, `UPDATE domains SET failing_since = failing_since - interval '4 days' WHERE site_id = 'w1'`)
	must(err)
	must(p.server.Domains.LookAgain(ctx))
	if shownBy() != "" {
		t.Errorf("after four days without records it is shown by %q", shownBy())
	}
	// Nobody fills the list.
	for i := range 30 {
		do(b, "other", "", strings.Repeat("x", i+1)+".example.org")
	}
	if ds, err := p.store.Hosts.Domains(ctx, "w2"); err != nil || len(ds) != store.MaxDomains {
		t.Errorf("%d domains, %v", len(ds), err)
	}
}

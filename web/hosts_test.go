package web

import (
	"context"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/site"
	"openplot/store"
)

// Whatever two people do with sites and addresses, in any order, every host shows its owner's
// pages, or leads to where they went, or 404.
func TestHostsShowTheirOwners(t *testing.T) {
	p := begin(t)
	seeds := 6
	if testing.Short() {
		seeds = 2
	}
	people := []*person{p.as("designer@example.org"), p.as("writer@example.org")}
	for seed := range seeds {
		t.Run(fmt.Sprint(seed), func(t *testing.T) {
			h := &hostModel{
				studio: p, t: t, rand: rand.New(rand.NewPCG(uint64(seed), 23)), sites: map[string]*modelSite{}, former: map[string]string{}, pool: []string{},
				people: people,
			}
			for i := range 3 { // addresses of this run's own
				h.pool = append(h.pool, fmt.Sprintf("place-%d-%d", seed, i))
			}
			for range 45 {
				h.step()
				h.look()
				if t.Failed() {
					t.Fatal("after ", strings.Join(h.did, ", "))
				}
			}
		})
	}
}

// hostModel is what hosts have to show, by what was done.
type hostModel struct {
	*studio
	t      *testing.T
	rand   *rand.Rand
	people []*person
	pool   []string              // addresses
	sites  map[string]*modelSite // by id
	former map[string]string     // sites that left an address last, by address
	plans  []modelPlan
	did    []string
	n      int
}

type modelSite struct {
	id, slug, name               string
	owner                        int
	published, archived, deleted bool
}

type modelPlan struct{ id, site string }

func (h *hostModel) must(err error) {
	h.t.Helper()
	if err != nil {
		h.t.Fatalf("%v after %s", err, strings.Join(h.did, ", "))
	}
}

// some gives a site for which is true, or nil.
func (h *hostModel) some(is func(*modelSite) bool) *modelSite {
	var fit []*modelSite
	for _, s := range h.sites {
		if is(s) {
			fit = append(fit, s)
		}
	}
	if len(fit) == 0 {
		return nil
	}
	slices.SortFunc(fit, func(a, b *modelSite) int { return strings.Compare(a.name, b.name) })
	return fit[h.rand.IntN(len(fit))]
}

func isStanding(s *modelSite) bool { return !s.deleted }

// holder is the site that has an address, or nil.
func (h *hostModel) holder(slug string) *modelSite {
	return h.some(func(s *modelSite) bool { return !s.deleted && s.slug == slug })
}

func (h *hostModel) free() string {
	for _, slug := range h.pool {
		if h.holder(slug) == nil {
			return slug
		}
	}
	return ""
}

// ask sends a form as somebody, and wants to be sent on.
func (h *hostModel) ask(who int, path string, form url.Values) {
	h.t.Helper()
	if status, text, _ := h.people[who].post(path, form); status != http.StatusSeeOther {
		h.t.Fatalf("%s: %d %.400s after %s", path, status, text, strings.Join(h.did, ", "))
	}
}

func (h *hostModel) step() {
	ctx := h.t.Context()
	switch h.rand.IntN(12) {
	case 0, 1:
		slug := h.free()
		if slug == "" {
			return
		}
		h.n++
		s := &modelSite{slug: slug, name: fmt.Sprintf("Harbour %s-%d", slug, h.n), owner: h.rand.IntN(2)}
		h.did = append(h.did, fmt.Sprintf("%d begins %s as %s", s.owner, slug, s.name))
		h.ask(s.owner, "/new", url.Values{"name": {s.name}, "slug": {slug}, "from": {"blank"}})
		made, err := h.store.Sites.BySlug(ctx, slug)
		h.must(err)
		s.id = made.ID
		h.sites[s.id] = s
		delete(h.former, slug)
	case 2, 3:
		if s := h.some(func(s *modelSite) bool { return isStanding(s) && !s.archived }); s != nil {
			h.did = append(h.did, "publish "+s.name)
			h.ask(s.owner, "/sites/"+s.slug+"/publish", url.Values{"id": {h.home(s)}})
			s.published = true
		}
	case 4, 5:
		if s := h.some(func(s *modelSite) bool { return isStanding(s) && !s.archived }); s != nil {
			what := []string{store.PlanPublish, store.PlanWithdraw}[h.rand.IntN(2)]
			h.did = append(h.did, "plan to "+what+" "+s.name)
			h.ask(s.owner, "/sites/"+s.slug+"/publish/plan", url.Values{
				"id": {h.home(s)}, "what": {what}, "at": {time.Now().UTC().Add(time.Minute).Format("2006-01-02T15:04")},
			})
			plans, err := h.store.Releases.Plans(ctx, s.id)
			h.must(err)
			for _, pl := range plans {
				if m := (modelPlan{pl.ID, s.id}); !slices.Contains(h.plans, m) {
					h.plans = append(h.plans, m)
				}
			}
		}
	case 6: // the planned minute, of all there ever were
		h.did = append(h.did, "the minute comes")
		for _, pl := range h.plans {
			plan, err := h.store.Releases.Plan(ctx, pl.id)
			h.must(h.tasks().CarryOut(ctx, pl.id))
			if s := h.sites[pl.site]; err == nil && !s.deleted && !s.archived {
				s.published = plan.Act == store.PlanPublish
			}
		}
		h.plans = nil
	case 7:
		if s := h.some(isStanding); s != nil {
			h.did = append(h.did, "delete "+s.name)
			h.ask(s.owner, "/sites/"+s.slug+"/delete", url.Values{"name": {s.name}})
			s.deleted, s.published = true, false
		}
	case 8:
		if s := h.some(func(s *modelSite) bool { return s.deleted }); s != nil {
			h.did = append(h.did, "restore "+s.name)
			h.ask(s.owner, "/restore", url.Values{"id": {s.id}})
			back, err := h.store.Sites.ByID(ctx, s.id)
			h.must(err)
			s.deleted, s.slug = false, back.Slug
			if !slices.Contains(h.pool, s.slug) {
				h.pool = append(h.pool, s.slug)
			}
			delete(h.former, s.slug)
		}
	case 9:
		if s := h.some(isStanding); s != nil {
			h.did = append(h.did, fmt.Sprintf("archive %s: %v", s.name, !s.archived))
			form := url.Values{}
			if s.archived {
				form.Set("back", "1")
			}
			h.ask(s.owner, "/sites/"+s.slug+"/archive", form)
			s.archived = !s.archived
		}
	case 10:
		slug := h.free()
		if s := h.some(isStanding); s != nil && slug != "" {
			h.did = append(h.did, "move "+s.name+" to "+slug)
			h.ask(s.owner, "/sites/"+s.slug+"/address", url.Values{"slug": {slug}})
			h.former[s.slug] = s.id
			delete(h.former, slug)
			s.slug = slug
		}
	case 11:
		publisher := &site.Publisher{Dir: h.siteDir, MediaDir: h.t.TempDir(), Hosts: h.hosts}
		if h.rand.IntN(2) == 0 {
			h.did = append(h.did, "restart")
			h.must(publisher.Mend(ctx, h.store))
		} else {
			h.did = append(h.did, "doctor")
			h.must(publisher.Check(ctx, h.store, true, func(format string, args ...any) { h.t.Errorf("doctor: "+format, args...) }))
		}
		_, _, err := publisher.Collect(ctx, h.store, time.Now().Add(time.Hour))
		h.must(err)
	}
}

func (h *hostModel) home(s *modelSite) string {
	p, err := h.store.Pages.At(h.t.Context(), s.id, "")
	h.must(err)
	return p.ID
}

// look holds what the hosts show against what they have to.
func (h *hostModel) look() {
	h.t.Helper()
	for _, slug := range h.pool {
		want, leads := h.holder(slug), ""
		if want == nil {
			if s := h.sites[h.former[slug]]; s != nil && !s.deleted && !s.archived {
				leads = h.hosts.Public(s.slug) + "/"
			}
		} else if want.archived || !want.published {
			want = nil
		}
		status, text, header := (&person{h.studio, &http.Client{Transport: anywhere, CheckRedirect: func(*http.Request, []*http.Request) error {
			return http.ErrUseLastResponse
		}}}).get(
			h.hosts.Public(slug) + "/",
		)
		switch {
		case want != nil && (status != http.StatusOK || !strings.Contains(text, "<title>"+want.name)):
			h.t.Errorf("%s shows %d %.200s, want %s", slug, status, text, want.name)
		case leads != "" && (status != http.StatusMovedPermanently || header.Get("Location") != leads):
			h.t.Errorf("%s: %d to %q, want %s", slug, status, header.Get("Location"), leads)
		case want == nil && leads == "" && status != http.StatusNotFound:
			h.t.Errorf("%s shows %d %.200s to %q, want nothing", slug, status, text, header.Get("Location"))
		}
	}
	shown, err := h.store.Releases.AllShown(context.Background())
	h.must(err)
	for _, s := range shown {
		if m := h.sites[s.Site]; m != nil && (m.deleted || m.archived) {
			h.t.Errorf("%s is among what is shown", m.name)
		}
	}
	if entries, err := os.ReadDir(h.siteDir); err == nil {
		for _, e := range entries {
			if h.sites[e.Name()] == nil && e.Name() != "w1" && slices.Contains(h.pool, e.Name()) {
				h.t.Errorf("a folder is named by the address %s", e.Name())
			}
		}
	}
}

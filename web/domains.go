package web

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/dns"
	"openplot/store"
)

// domainView is a host of a site's own with the records that it needs.
type domainView struct {
	Host    string
	Shown   bool
	Failing string // until when it is still shown without its records, or ""
	Records []dns.Record
	Address string
}

// domainsOf gives the hosts of a site, with what their records say.
func (s *Server) domainsOf(c *gin.Context, st *store.Site) (out []domainView, err error) {
	ds, err := s.Store.Hosts.Domains(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, d := range ds {
		v := domainView{Host: d.Host, Shown: d.FoundAt != nil, Address: s.Hosts.Scheme + "://" + d.Host + "/"}
		if v.Shown && d.FailingSince != nil {
			v.Failing = d.FailingSince.Add(store.DomainGrace).In(zoneOf(st)).Format("2 January, 15:04")
		}
		if v.Records, err = s.recordsOf(c, st, d); err != nil {
			s.Log.Error("dns", "host", d.Host, "error", err) // nothing is known of them just now
		}
		out = append(out, v)
	}
	return out, nil
}

// recordsOf gives the records of a host of a site, which may lead to any address that the site has
// had.
func (s *Server) recordsOf(ctx context.Context, st *store.Site, d store.Domain) ([]dns.Record, error) {
	was, err := s.Store.Hosts.FormerAddresses(ctx, st.ID)
	if err != nil {
		return nil, err
	}
	for i := range was {
		was[i] = s.target(was[i])
	}
	return dns.Check(ctx, s.DNS, d.Host, d.Token, s.target(st.Slug), was...)
}

// target is the host of an address, that a domain has to lead to.
func (s *Server) target(slug string) string {
	u, err := url.Parse(s.Hosts.Public(slug))
	if err != nil {
		return ""
	}
	return u.Hostname()
}

// addDomain keeps a host for the site, and looks at its records.
func (s *Server) addDomain(c *gin.Context) {
	st := siteOf(c)
	host, err := dns.ReadHost(store.Clean(c.PostForm("host")))
	if err == nil && (strings.HasSuffix("."+host, "."+s.baseName()) || host == s.appName()) {
		err = doc.Problemf("Domain", "%s is the program’s own; write the one that you have for the site", host)
	}
	if err == nil {
		err = s.Store.Hosts.AddDomain(c, st.ID, host)
	}
	if err == nil {
		s.note(c, "domain added", st.ID, host)
		err = s.lookUp(c, st, host)
	}
	s.domainDone(c, err)
}

// baseName is the name that all sites' hosts end in.
func (s *Server) baseName() string {
	name, _, _ := strings.Cut(s.Hosts.Base, ":")
	return name
}

// appName is the application's own host.
func (s *Server) appName() string { return s.AppHost }

// lookUp looks at the records of a host, and shows the site there once they are found. Errors are
// *doc.Problem when another site has proved the same.
func (s *Server) lookUp(ctx context.Context, st *store.Site, host string) error {
	ds, err := s.Store.Hosts.Domains(ctx, st.ID)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(ds, func(d store.Domain) bool { return d.Host == host })
	if i < 0 {
		return nil
	}
	records, err := s.recordsOf(ctx, st, ds[i])
	if err != nil {
		s.Log.Error("dns", "host", host, "error", err)
		return nil // it stays as it was
	}
	holder, err := s.Store.Hosts.ProveDomain(ctx, st.ID, host, dns.Proved(records))
	if err != nil || holder == "" {
		return err
	}
	// It leads to one place: whoever it doesn't lead to any more has lost it.
	if kept, err := s.stillHolds(ctx, holder, host); err != nil || kept {
		return cmp.Or(err, error(doc.Problemf("Domain", "%s is shown by another site, whose records stand too: take those away first", host)))
	}
	_, err = s.Store.Hosts.ProveDomain(ctx, st.ID, host, true)
	return err
}

// stillHolds reports whether the records of a host are still those of a site that has proved it;
// otherwise it isn't shown there any more.
func (s *Server) stillHolds(ctx context.Context, site, host string) (bool, error) {
	st, err := s.Store.Sites.ByID(ctx, site)
	if err != nil {
		return false, err
	}
	ds, err := s.Store.Hosts.Domains(ctx, site)
	if err != nil {
		return false, err
	}
	for _, d := range ds {
		if d.Host != host {
			continue
		}
		records, err := s.recordsOf(ctx, st, d)
		if err != nil || dns.Proved(records) {
			return true, nil // nothing is known, or they stand
		}
	}
	if err := s.Store.Hosts.LoseDomain(ctx, site, host); err != nil {
		return false, err
	}
	return false, s.Store.Audit.Note(ctx, store.Noted{Site: site, Who: programName, Act: "domain proved by another site", About: host})
}

// programName is who did what nobody asked for just then, in the log.
const programName = "the program"

// LookAgain looks at the records of all domains that are shown, and notes with their sites which
// aren't led here any more.
func (s *Server) LookAgain(ctx context.Context) error {
	ds, err := s.Store.Hosts.ProvedDomains(ctx)
	if err != nil {
		return err
	}
	for _, d := range ds {
		st, err := s.Store.Sites.ByID(ctx, d.Site)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return err
		}
		records, err := s.recordsOf(ctx, st, d)
		if err != nil {
			s.Log.Error("dns", "host", d.Host, "error", err)
			continue
		}
		found := dns.Proved(records)
		if _, err := s.Store.Hosts.ProveDomain(ctx, d.Site, d.Host, found); err != nil {
			return err
		}
		if !found {
			if err := s.Store.Audit.Note(ctx, store.Noted{Site: d.Site, Who: programName, Act: "domain’s records not found", About: d.Host}); err != nil {
				return err
			}
		}
	}
	return nil
}

// checkDomain looks at the records of a host again.
func (s *Server) checkDomain(c *gin.Context) {
	s.domainDone(c, s.lookUp(c, siteOf(c), c.PostForm("host")))
}

// dropDomain ends a host of the site.
func (s *Server) dropDomain(c *gin.Context) {
	s.note(c, "domain removed", siteOf(c).ID, c.PostForm("host"))
	s.domainDone(c, s.Store.Hosts.DropDomain(c, siteOf(c).ID, store.Clean(c.PostForm("host"))))
}

// setRecord sets a record of a host in the stand-in for DNS.
func (s *Server) setRecord(c *gin.Context) {
	standIn, ok := s.DNS.(*dns.StandIn)
	if !ok {
		s.problemPage(c, http.StatusNotFound)
		return
	}
	st := siteOf(c)
	ds, err := s.Store.Hosts.Domains(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	for _, d := range ds {
		if d.Host != c.PostForm("host") {
			continue
		}
		records, err := s.recordsOf(c, st, d)
		for _, r := range records {
			if r.Type == c.PostForm("type") && err == nil {
				err = standIn.Set(r.Type, r.Name, r.Value)
			}
		}
		if err == nil {
			err = s.lookUp(c, st, d.Host)
		}
		s.domainDone(c, err)
		return
	}
	s.problemPage(c, http.StatusNotFound)
}

func (s *Server) domainDone(c *gin.Context, err error) {
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showSettings(c, http.StatusUnprocessableEntity, settingsView{Host: c.PostForm("host"), Problem: problem.Sentence()}, nil)
		return
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+siteOf(c).Slug+"/settings#domains")
}

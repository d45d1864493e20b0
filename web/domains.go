package web

import (
	"errors"
	"net/http"
	"net/url"
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
	Records []dns.Record
	Address string
}

// domainsOf gives the hosts of a site, with what their records say.
func (s *Server) domainsOf(c *gin.Context, st *store.Site) (out []domainView, err error) {
	ds, err := s.Store.Domains(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, d := range ds {
		v := domainView{Host: d.Host, Shown: d.FoundAt != nil, Address: s.Hosts.Scheme + "://" + d.Host + "/"}
		if v.Records, err = dns.Check(c, s.DNS, d.Host, s.target(st), d.Token); err != nil {
			s.Log.Error("dns", "host", d.Host, "error", err) // nothing is known of them just now
		}
		out = append(out, v)
	}
	return out, nil
}

// target is the host that a site's own domain has to lead to.
func (s *Server) target(st *store.Site) string {
	u, err := url.Parse(s.Hosts.Public(st.Slug))
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
		err = s.Store.AddDomain(c, st.ID, host)
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showSettings(c, http.StatusUnprocessableEntity, settingsView{Host: c.PostForm("host"), Problem: problem.Sentence()}, nil)
		return
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

// lookUp looks at the records of a host, and shows the site there once they are found.
func (s *Server) lookUp(c *gin.Context, st *store.Site, host string) error {
	ds, err := s.Store.Domains(c, st.ID)
	if err != nil {
		return err
	}
	for _, d := range ds {
		if d.Host != host {
			continue
		}
		records, err := dns.Check(c, s.DNS, d.Host, s.target(st), d.Token)
		if err != nil {
			s.Log.Error("dns", "host", d.Host, "error", err)
			return nil // it stays as it was
		}
		found := true
		for _, r := range records {
			found = found && r.OK
		}
		return s.Store.FindDomain(c, st.ID, host, found)
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
	s.domainDone(c, s.Store.DropDomain(c, siteOf(c).ID, store.Clean(c.PostForm("host"))))
}

// setRecord sets a record of a host in the stand-in for DNS.
func (s *Server) setRecord(c *gin.Context) {
	standIn, ok := s.DNS.(*dns.StandIn)
	if !ok {
		s.problemPage(c, http.StatusNotFound)
		return
	}
	st := siteOf(c)
	ds, err := s.Store.Domains(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	for _, d := range ds {
		if d.Host != c.PostForm("host") {
			continue
		}
		records, err := dns.Check(c, s.DNS, d.Host, s.target(st), d.Token)
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
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+siteOf(c).Slug+"/settings#domains")
}

package settings

import (
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/policy"
	"openplot/dns"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
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
func (s *Screen) domainsOf(c *gin.Context, st *store.Site) (out []domainView, err error) {
	ds, err := s.Store.Hosts.Domains(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, d := range ds {
		v := domainView{Host: d.Host, Shown: d.FoundAt != nil, Address: s.Hosts.Scheme + "://" + d.Host + "/"}
		if v.Shown && d.FailingSince != nil {
			v.Failing = d.FailingSince.Add(policy.LostDomain).In(desk.ZoneOf(st)).Format("2 January, 15:04")
		}
		if v.Records, err = s.Domains.Records(c, st, d); err != nil {
			s.Log.Error("dns", "host", d.Host, "error", err) // nothing is known of them just now
		}
		out = append(out, v)
	}
	return out, nil
}

// addDomain keeps a host for the site, and looks at its records.
func (s *Screen) addDomain(c *gin.Context) {
	st := shell.SiteOf(c)
	host, err := dns.ReadHost(store.Clean(c.PostForm("host")))
	if err == nil && (strings.HasSuffix("."+host, "."+s.baseName()) || host == s.appName()) {
		err = doc.Problemf("Domain", "%s is the program’s own; write the one that you have for the site", host)
	}
	if err == nil {
		err = s.Store.Hosts.AddDomain(c, st.ID, host)
	}
	if err == nil {
		s.Note(c, "domain added", st.ID, host)
		err = s.Domains.LookUp(c, st, host)
	}
	s.domainDone(c, err)
}

// baseName is the name that all sites' hosts end in.
func (s *Screen) baseName() string {
	name, _, _ := strings.Cut(s.Hosts.Base, ":")
	return name
}

// appName is the application's own host.
func (s *Screen) appName() string { return s.AppHost }

// checkDomain looks at the records of a host again.
func (s *Screen) checkDomain(c *gin.Context) {
	s.domainDone(c, s.Domains.LookUp(c, shell.SiteOf(c), c.PostForm("host")))
}

// dropDomain ends a host of the site.
func (s *Screen) dropDomain(c *gin.Context) {
	s.Note(c, "domain removed", shell.SiteOf(c).ID, c.PostForm("host"))
	s.domainDone(c, s.Store.Hosts.DropDomain(c, shell.SiteOf(c).ID, store.Clean(c.PostForm("host"))))
}

// setRecord sets a record of a host in the stand-in for DNS.
func (s *Screen) setRecord(c *gin.Context) {
	standIn, ok := s.Domains.DNS.(*dns.StandIn)
	if !ok {
		s.ProblemPage(c, http.StatusNotFound)
		return
	}
	st := shell.SiteOf(c)
	ds, err := s.Store.Hosts.Domains(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, d := range ds {
		if d.Host != c.PostForm("host") {
			continue
		}
		records, err := s.Domains.Records(c, st, d)
		for _, r := range records {
			if r.Type == c.PostForm("type") && err == nil {
				err = standIn.Set(r.Type, r.Name, r.Value)
			}
		}
		if err == nil {
			err = s.Domains.LookUp(c, st, d.Host)
		}
		s.domainDone(c, err)
		return
	}
	s.ProblemPage(c, http.StatusNotFound)
}

func (s *Screen) domainDone(c *gin.Context, err error) {
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showSettings(
			c,
			http.StatusUnprocessableEntity,
			settingsView{Host: c.PostForm("host"), Problem: problem.Sentence()},
			nil,
		)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(shell.SiteOf(c).Slug).At("settings")+"#domains")
}

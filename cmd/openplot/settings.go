package main

import (
	"errors"
	"fmt"
	"net"
	"net/netip"
	"net/url"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"openplot/dns"
	"openplot/media"
	"openplot/postgres"
	"openplot/site"
	"openplot/store"
)

// settings are what the environment says.
type settings struct {
	data        string // folder
	database    string // data source name; "" has a private cluster run
	throwaway   bool   // makes the private cluster fast and forgetful
	app, pages  address
	appURL      *url.URL // as people reach it
	hosts       site.Hosts
	worldDNS    bool     // sites' own domains are looked up in the world's DNS
	acme        string   // the address that certificates are asked for with, or ""
	proxies     []string // whose X-Forwarded-For counts
	demo        string   // "" loads none
	log         string   // "stderr" or a file
	metricsPort string   // on loopback; "" serves none
	idle        time.Duration
	quota       int64 // bytes a site's files may take
	plain       bool  // no copies of pictures in AVIF
	mail        post
	memoryLimit int64 // bytes the process may take; 0 is as its surroundings say
}

// address is where the program listens.
type address struct{ host, port string }

func env(name, fallback string) string {
	if v := os.Getenv(name); v != "" {
		return v
	}
	return fallback
}

// readSettings reads the environment. Errors name the setting and say what would be right.
func readSettings() (s settings, err error) {
	if s.data, err = filepath.Abs(env("OPENPLOT_DATA", ".data")); err != nil {
		return s, fmt.Errorf("finding the data folder: %w", err)
	}
	s.database = os.Getenv("OPENPLOT_DATABASE_URL")
	s.throwaway = os.Getenv("OPENPLOT_THROWAWAY") != ""
	s.app = address{env("OPENPLOT_HOST", "localhost"), env("OPENPLOT_PORT", "8080")}
	s.pages = address{env("OPENPLOT_PAGES_HOST", "localhost"), env("OPENPLOT_PAGES_PORT", "8081")}
	if s.appURL, err = readOrigin("OPENPLOT_URL", "http://"+net.JoinHostPort(s.app.host, s.app.port)); err != nil {
		return s, err
	}
	pagesURL, err := readOrigin("OPENPLOT_PAGES_URL", "http://localhost:"+s.pages.port)
	if err != nil {
		return s, err
	}
	if _, err := netip.ParseAddr(pagesURL.Hostname()); err == nil {
		return s, fmt.Errorf(
			"OPENPLOT_PAGES_URL is %s: give a name, not a number, since every site has a host below it",
			pagesURL,
		)
	}
	s.hosts = site.Hosts{Scheme: pagesURL.Scheme, Base: pagesURL.Host}
	within := func(host, of string) bool { return strings.HasSuffix("."+host, "."+of) }
	if app, pages := s.appURL.Hostname(), pagesURL.Hostname(); pages != "localhost" &&
		(within(app, pages) || within(pages, app)) {
		return s, fmt.Errorf(
			"OPENPLOT_URL is %s and OPENPLOT_PAGES_URL %s, one below the other: what is published could set cookies that the application gets; give them names of which neither ends in the other",
			s.appURL,
			pagesURL,
		)
	}
	for _, p := range strings.Split(os.Getenv("OPENPLOT_TRUSTED_PROXIES"), ",") {
		if p = strings.TrimSpace(p); p == "" {
			continue
		}
		_, perr := netip.ParsePrefix(p)
		if _, aerr := netip.ParseAddr(p); perr != nil && aerr != nil {
			return s, fmt.Errorf(
				"OPENPLOT_TRUSTED_PROXIES has %q: write addresses or networks with commas between, such as 10.0.0.0/8",
				p,
			)
		}
		s.proxies = append(s.proxies, p)
	}
	switch s.demo = os.Getenv("OPENPLOT_DEMO"); s.demo {
	case "no":
		s.demo = ""
	case "", "yes", "quick", "whole":
	default:
		return s, fmt.Errorf("OPENPLOT_DEMO is %q: write yes, quick, whole or no", s.demo)
	}
	where := "world"
	if s.demo != "" {
		where = "stand-in"
	}
	switch where = env("OPENPLOT_DNS", where); {
	case where != "world" && where != "stand-in":
		return s, fmt.Errorf(
			"OPENPLOT_DNS is %q: write world, or stand-in for one that the program has in itself",
			where,
		)
	case where == "stand-in" && s.demo == "":
		return s, errors.New(
			"OPENPLOT_DNS is stand-in, in which everybody can say that a domain is theirs: it goes with OPENPLOT_DEMO alone",
		)
	}
	s.worldDNS = where == "world"
	s.acme = os.Getenv("OPENPLOT_ACME_EMAIL")
	s.log = env("OPENPLOT_LOG", "stderr")
	s.metricsPort = os.Getenv("OPENPLOT_METRICS_PORT")
	if s.idle, err = time.ParseDuration(env("OPENPLOT_SESSION_IDLE", "12h")); err != nil || s.idle < time.Minute {
		return s, fmt.Errorf(
			"OPENPLOT_SESSION_IDLE is %q: write a time such as 30m or 12h",
			os.Getenv("OPENPLOT_SESSION_IDLE"),
		)
	}
	megabytes, err := strconv.ParseInt(env("OPENPLOT_SITE_MB", "2000"), 10, 64)
	if err != nil || megabytes < 1 {
		return s, fmt.Errorf(
			"OPENPLOT_SITE_MB is %q: write how many megabytes the pictures of a site may take",
			os.Getenv("OPENPLOT_SITE_MB"),
		)
	}
	s.quota = megabytes << 20
	if err := s.readMail(); err != nil {
		return s, err
	}
	switch of := env("OPENPLOT_AVIF", "yes"); of {
	case "yes", "no":
		s.plain = of == "no"
	default:
		return s, fmt.Errorf("OPENPLOT_AVIF is %q: write yes or no", of)
	}
	megabytes, err = strconv.ParseInt(env("OPENPLOT_MEMORY_MB", "0"), 10, 64)
	if err != nil || megabytes != 0 && (megabytes < 200 || megabytes > 1<<20) {
		return s, fmt.Errorf(
			"OPENPLOT_MEMORY_MB is %q: write how many megabytes the program may take, 200 at least",
			os.Getenv("OPENPLOT_MEMORY_MB"),
		)
	}
	s.memoryLimit = megabytes << 20
	return s, nil
}

// readOrigin reads an address of which only scheme, host and port count.
func readOrigin(name, fallback string) (*url.URL, error) {
	text := env(name, fallback)
	u, err := url.Parse(text)
	if err != nil || u.Scheme != "http" && u.Scheme != "https" || u.Host == "" || strings.Trim(u.Path, "/") != "" ||
		u.RawQuery != "" {
		return nil, fmt.Errorf("%s is %q: write an address such as https://plot.example.org", name, text)
	}
	return &url.URL{Scheme: u.Scheme, Host: strings.ToLower(u.Host)}, nil
}

// secure reports whether people reach the application by HTTPS.
func (s settings) secure() bool { return s.appURL.Scheme == "https" }

// folders of what is kept beside the database.
func (s settings) media() string     { return filepath.Join(s.data, "media") }
func (s settings) published() string { return filepath.Join(s.data, "published") }
func (s settings) cluster() string   { return filepath.Join(s.data, "postgres") }

// open gives the database: the one that is named, or the private cluster, which end stops
// if it was started here. attach lets another process run it.
func (s settings) open(
	attach func(dir string, o postgres.Options) (*postgres.Cluster, error),
) (dsn string, end func(), err error) {
	if err := postgres.Enclose(s.data); err != nil {
		return "", nil, err
	}
	if s.database != "" {
		return s.database, func() {}, nil
	}
	cluster, err := attach(s.cluster(), postgres.Options{Throwaway: s.throwaway})
	if err != nil {
		return "", nil, err
	}
	return cluster.Main(), cluster.Stop, nil
}

// dns is what reads the records of sites' own domains.
func (s settings) dns() dns.Resolver {
	if s.worldDNS {
		return dns.World{}
	}
	return &dns.StandIn{File: filepath.Join(s.data, "dns.json")}
}

// appName is the application's name.
func (s settings) appName() string { return s.appURL.Hostname() }

// keeper keeps uploads as the settings say.
func (s settings) keeper(st *store.Store) *media.Keeper {
	k := media.NewKeeper(st, s.media(), s.quota)
	if s.plain {
		k.Plain()
	}
	return k
}

package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"log/slog"
	"math"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"sync"
	"syscall"
	"time"

	memlimit "github.com/KimMachineGun/automemlimit/memlimit"
	"golang.org/x/crypto/acme/autocert"
	"gopkg.in/natefinch/lumberjack.v2"

	"openplot/demo"
	"openplot/jobs"
	"openplot/media"
	"openplot/memory"
	"openplot/metrics"
	"openplot/postgres"
	"openplot/site"
	"openplot/store"
	"openplot/visitors"
	"openplot/web"
)

// serve serves both sides until the context ends.
func serve(ctx context.Context, s settings) error {
	listeners, err := s.listen()
	if err != nil {
		return err
	}
	defer func() {
		for _, l := range listeners {
			_ = l.Close() // those that were served are closed already
		}
	}()
	dsn, end, err := s.open(postgres.Start)
	if err != nil {
		return err
	}
	defer end()
	st, err := store.Open(ctx, dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	log := s.logger()
	budget := s.memory(log)
	st.Pages.Remember(budget)
	live, err := s.alive(ctx, st, log)
	if err != nil {
		return err
	}
	defer live()
	pictures := s.keeper(st)
	publisher := &site.Publisher{Dir: s.published(), MediaDir: s.media(), Hosts: s.hosts}
	if err := s.offerDemo(ctx, st, pictures, publisher); err != nil {
		return err
	}
	if err := publisher.Mend(ctx, st); err != nil {
		return err
	}
	mailServer, standIn, endMail, err := s.mail.open(s.data)
	if err != nil {
		return err
	}
	defer endMail()
	server, err := web.New(web.Config{
		Store: st, MediaDir: s.media(), SiteDir: s.published(), Hosts: s.hosts, Pictures: pictures, Log: log, Proxies: s.proxies, Secure: s.secure(),
		Idle: s.idle, Room: s.room, DNS: s.dns(), AppHost: s.appName(), Memory: budget, Mails: mailServer != nil, StandIn: standIn,
	})
	if err != nil {
		return err
	}
	app, err := server.App()
	if err != nil {
		return err
	}
	pages, err := visitors.New(visitors.Config{
		Store: st, MediaDir: s.media(), SiteDir: s.published(), Hosts: s.hosts, Proxies: s.proxies, Log: log, Fresh: freshHosts, Memory: budget,
	}).Handler()
	if err != nil {
		return err
	}
	stopJobs, err := jobs.Run(context.WithoutCancel(ctx), &jobs.Tasks{
		Store: st, Pictures: pictures, Publisher: publisher, Workshop: server.Workshop, Checker: server.Checker, Maker: server.Maker, Domains: server.Domains, Log: log,
		Post: jobs.Post{Server: mailServer, App: s.appURL.String()},
	})
	if err != nil {
		return err
	}
	defer func() {
		end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		_ = stopJobs(end) // what isn't finished is done after the next start
	}()
	metrics.Watch(st.DB(), func() map[string]float64 {
		ctx, cancel := context.WithTimeout(context.Background(), 2*time.Second)
		defer cancel()
		n, err := st.Jobs.QueueLengths(ctx)
		if err != nil {
			log.Error("metrics", "error", err)
		}
		return n
	})
	if s.acme != "" {
		listeners[1] = tls.NewListener(listeners[1], s.certificates(st).TLSConfig())
	}
	debug.FreeOSMemory() // reading the fonts took several times what stays of them
	s.greet(ctx, st)
	return run(ctx, listeners, []http.Handler{app, pages, metrics.Handler()}[:len(listeners)])
}

// memory gives what may be remembered in, a third of what the process may take in all: as the
// environment says (OPENPLOT_MEMORY_MB, GOMEMLIMIT), or its control group (cgroups(7)). Go's own
// limit is set with it.
func (s settings) memory(log *slog.Logger) *memory.Budget {
	const unlimited, usual, share = math.MaxInt64, int64(256 << 20), 3
	if s.memoryLimit > 0 {
		debug.SetMemoryLimit(s.memoryLimit)
	} else if _, err := memlimit.Set(memlimit.WithLogger(slog.New(slog.DiscardHandler))); err != nil {
		log.Info("memory", "limit", "none known", "reason", err.Error())
	}
	budget := usual
	if limit := debug.SetMemoryLimit(-1); limit != unlimited {
		budget = limit / share
	}
	log.Info("memory", "remembered", budget>>20)
	return memory.New(budget)
}

// freshHosts is how long visitors may still find what isn't shown any more.
const freshHosts = 250 * time.Millisecond

// beat is how often a process says that it runs.
const beat = 5 * time.Second

// alive says now and then that this process runs, and takes up what others left that don't any
// more, until it is ended.
func (s settings) alive(ctx context.Context, st *store.Store, log *slog.Logger) (end func(), err error) {
	if s.database == "" { // nobody else's: whoever ran before was killed
		err = st.Jobs.Leave(ctx, true)
	}
	if err = errors.Join(err, st.Jobs.Beat(ctx), st.Jobs.Sweep(ctx)); err != nil {
		return nil, err
	}
	ctx, stop := context.WithCancel(context.WithoutCancel(ctx))
	var running sync.WaitGroup
	running.Go(func() {
		for n := 1; ; n++ {
			select {
			case <-ctx.Done():
				return
			case <-time.After(beat):
			}
			err := st.Jobs.Beat(ctx)
			if err == nil && n%3 == 0 {
				err = st.Jobs.Sweep(ctx)
			}
			if err != nil && ctx.Err() == nil {
				log.Error("processes", "error", err)
			}
		}
	})
	return func() {
		stop()
		running.Wait()
		ctx, cancel := context.WithTimeout(context.Background(), 2*time.Second)
		defer cancel()
		_ = st.Jobs.Leave(ctx, false) // otherwise it counts as ended a while later
	}, nil
}

// certificates asks for those of the sites' hosts as visitors come to them (RFC 8555), and keeps
// them in a folder. It is for machines that face the world with the pages' port.
func (s settings) certificates(st *store.Store) *autocert.Manager {
	return &autocert.Manager{
		Prompt: autocert.AcceptTOS, Email: s.acme, Cache: autocert.DirCache(filepath.Join(s.data, "certificates")),
		HostPolicy: func(ctx context.Context, host string) error { return certified(ctx, st, s.hosts, host) },
	}
}

// certified gives an error for hosts that aren't a site's.
func certified(ctx context.Context, st *store.Store, hosts site.Hosts, host string) error {
	face, slug := hosts.Which(host)
	if face == site.Uploads {
		return nil
	}
	if face != site.Nothing {
		_, err := st.Hosts.AtAddress(ctx, slug)
		return err
	}
	_, err := st.Hosts.AtDomain(ctx, host)
	return err
}

// greet says where everything is.
func (s settings) greet(ctx context.Context, st *store.Store) {
	fmt.Printf("\nOpen Plot is at      %s\nSites are at         %s\n", s.appURL, s.hosts.Public("<site>"))
	if s.demo != "" {
		if _, err := st.People.SignIn(ctx, demo.DesignerEmail, demo.Password); err == nil {
			fmt.Printf(
				"Demo sign-in         %s   password %s\n      as a writer    %s\n",
				demo.DesignerEmail,
				demo.Password,
				demo.WriterEmail,
			)
		}
	}
	fmt.Print("\nCtrl+C stops it.\n")
}

// listen takes the ports: the application's, the visitors', and that of metrics if there is one.
func (s settings) listen() (ls []net.Listener, err error) {
	for _, a := range []struct{ host, port, name string }{
		{s.app.host, s.app.port, "OPENPLOT_PORT"}, {s.pages.host, s.pages.port, "OPENPLOT_PAGES_PORT"}, {"127.0.0.1", s.metricsPort, "OPENPLOT_METRICS_PORT"},
	} {
		if a.port == "" {
			continue
		}
		l, err := listen(a.host, a.port, a.name)
		if err != nil {
			for _, l := range ls {
				_ = l.Close() // the first error is the one to tell
			}
			return nil, err
		}
		ls = append(ls, l)
	}
	return ls, nil
}

func listen(host, port, name string) (net.Listener, error) {
	l, err := net.Listen("tcp", net.JoinHostPort(host, port))
	if err != nil {
		return nil, fmt.Errorf(
			"port %s isn't free (%w): is Open Plot running already? Otherwise set %s to another",
			port,
			err,
			name,
		)
	}
	return l, nil
}

// offerDemo makes the demo where it is asked for and never was made.
func (s settings) offerDemo(
	ctx context.Context,
	st *store.Store,
	pictures *media.Keeper,
	publisher *site.Publisher,
) error {
	if s.demo == "" {
		return nil
	}
	fmt.Println("Looking for the demo site, Skerry Line …")
	made, err := demo.Load(ctx, st, pictures, map[string]demo.Copies{"quick": demo.Quick, "whole": demo.Whole}[s.demo])
	if err != nil {
		return fmt.Errorf("loading the demo: %w", err)
	}
	demonstrated, err := st.Sites.BySlug(ctx, demo.SiteSlug)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	if !made && (err != nil || !unpublished(ctx, st, demonstrated.ID)) {
		return nil
	}
	if err := publisher.PublishAll(ctx, st, demonstrated); err != nil {
		return fmt.Errorf("publishing the demo: %w", err)
	}
	return nil
}

// unpublished reports whether no page of a site was ever published, as when the program was
// stopped right after the demo was made.
func unpublished(ctx context.Context, st *store.Store, id string) bool {
	pages, err := st.Pages.List(ctx, id)
	if err != nil {
		return false
	}
	for _, p := range pages {
		if p.PublishedAt != nil {
			return false
		}
	}
	return true
}

// logger writes lines of JSON to standard error, which whatever runs the program keeps, or to
// a file that is begun anew at 10 MB, of which the last three are kept.
func (s settings) logger() *slog.Logger {
	if s.log == "stderr" {
		return slog.New(slog.NewJSONHandler(os.Stderr, nil))
	}
	return slog.New(slog.NewJSONHandler(&lumberjack.Logger{Filename: s.log, MaxSize: 10, MaxBackups: 3}, nil))
}

// leastRoom is how much room there has to be on the disk, in bytes.
const leastRoom = 200 << 20

// room reports whether there is room on the disk.
func (s settings) room() error {
	var fs syscall.Statfs_t
	if err := syscall.Statfs(s.data, &fs); err != nil {
		return fmt.Errorf("looking at the disk: %w", err)
	}
	if free := fs.Bavail * uint64(fs.Bsize); free < leastRoom {
		return fmt.Errorf("the disk has %d MB left; at least %d MB are needed", free>>20, leastRoom>>20)
	}
	return nil
}

// run serves handlers on listeners until the context ends.
func run(ctx context.Context, listeners []net.Listener, handlers []http.Handler) error {
	servers := make([]*http.Server, len(listeners))
	failed := make(chan error, len(listeners))
	for i, l := range listeners {
		// Routes that bring files or send them have longer (origin.Within).
		servers[i] = &http.Server{
			Handler: handlers[i], ReadHeaderTimeout: 10 * time.Second, ReadTimeout: time.Minute, WriteTimeout: 2 * time.Minute, IdleTimeout: 2 * time.Minute,
			MaxHeaderBytes: 64 << 10,
		}
		go func() { failed <- servers[i].Serve(l) }()
	}
	var err error
	select {
	case <-ctx.Done():
	case err = <-failed:
	}
	end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	for _, s := range servers {
		if serr := s.Shutdown(end); serr != nil {
			_ = s.Close() // what is still open after 5 s is cut
		}
	}
	if errors.Is(err, http.ErrServerClosed) {
		return nil
	}
	return err
}

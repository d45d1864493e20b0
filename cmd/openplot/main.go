// Command openplot serves Open Plot.
//
//	openplot serve    serve the application and what is published
//
// The environment chooses where: OPENPLOT_DATA (a folder, .data), OPENPLOT_PORT
// (8080), OPENPLOT_PAGES_PORT (8081), OPENPLOT_HOST (localhost),
// OPENPLOT_PAGES_HOST (127.0.0.1), OPENPLOT_DATABASE_URL (a PostgreSQL server
// that exists; a private one is run otherwise), OPENPLOT_DEMO (no demo site with
// "no"; with "whole" all copies of its pictures are made before it opens, with
// "quick" those that take long never), OPENPLOT_THROWAWAY (makes the private cluster
// fast and forgetful, for tests).
package main

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"
	"time"

	"openplot/demo"
	"openplot/jobs"
	"openplot/postgres"
	"openplot/site"
	"openplot/store"
	"openplot/visitors"
	"openplot/web"
)

func main() {
	if len(os.Args) != 2 || os.Args[1] != "serve" {
		fmt.Fprintln(os.Stderr, "usage: openplot serve")
		os.Exit(2)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := serve(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "openplot:", err)
		os.Exit(1)
	}
}

func env(name, fallback string) string {
	if v := os.Getenv(name); v != "" {
		return v
	}
	return fallback
}

func serve(ctx context.Context) error {
	data, err := filepath.Abs(env("OPENPLOT_DATA", ".data"))
	if err != nil {
		return fmt.Errorf("finding the data folder: %w", err)
	}
	if err := postgres.Enclose(data); err != nil {
		return err
	}
	host, port := env("OPENPLOT_HOST", "localhost"), env("OPENPLOT_PORT", "8080")
	pagesHost, pagesPort := env("OPENPLOT_PAGES_HOST", "127.0.0.1"), env("OPENPLOT_PAGES_PORT", "8081")
	app, err := listen(host, port, "OPENPLOT_PORT")
	if err != nil {
		return err
	}
	defer app.Close()
	pages, err := listen(pagesHost, pagesPort, "OPENPLOT_PAGES_PORT")
	if err != nil {
		return err
	}
	defer pages.Close()

	dsn := os.Getenv("OPENPLOT_DATABASE_URL")
	if dsn == "" {
		cluster, err := postgres.Start(filepath.Join(data, "postgres"), postgres.Options{Throwaway: os.Getenv("OPENPLOT_THROWAWAY") != ""})
		if err != nil {
			return err
		}
		defer cluster.Stop()
		dsn = cluster.Main()
	}
	st, err := store.Open(ctx, dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	mediaDir := filepath.Join(data, "media")
	fresh := false // whether the demo was just made
	if _, err := st.SiteBySlug(ctx, demo.SiteSlug); errors.Is(err, store.ErrNotFound) && os.Getenv("OPENPLOT_DEMO") != "no" {
		fmt.Println("Making the demo site, Skerry Line …")
		if err := demo.Load(
			ctx, st, mediaDir,
			map[string]demo.Copies{"quick": demo.Quick, "whole": demo.Whole}[os.Getenv("OPENPLOT_DEMO")],
		); err != nil {
			return fmt.Errorf("loading the demo: %w", err)
		}
		fresh = true
	} else if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	secret, err := secret(filepath.Join(data, "secret"))
	if err != nil {
		return err
	}
	logs, err := os.OpenFile(filepath.Join(data, "openplot.log"), os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o644)
	if err != nil {
		return fmt.Errorf("opening the log: %w", err)
	}
	defer logs.Close()
	if fresh {
		if err := publishDemo(ctx, st, &site.Publisher{Dir: filepath.Join(data, "published"), MediaDir: mediaDir}); err != nil {
			return fmt.Errorf("publishing the demo: %w", err)
		}
	}
	log, siteDir, previews := slog.New(slog.NewJSONHandler(logs, nil)), filepath.Join(data, "published"), site.Previews{Secret: secret}
	server, err := web.New(
		web.Config{Store: st, MediaDir: mediaDir, SiteDir: siteDir, Previews: previews, PagesURL: "http://" + pagesHost + ":" + pagesPort, Log: log},
	)
	if err != nil {
		return err
	}
	stopJobs, err := jobs.Run(context.WithoutCancel(ctx), jobs.Config{
		Store: st, MediaDir: mediaDir, Log: slog.New(slog.NewJSONHandler(logs, &slog.HandlerOptions{Level: slog.LevelWarn})),
		CopiesMade: server.CopiesMade, DrawPages: server.DrawPages,
	})
	if err != nil {
		return err
	}
	defer func() {
		end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		_ = stopJobs(end) // what isn't finished is done after the next start
	}()
	fmt.Printf("\nOpen Plot is at      http://%s:%s\nPublished pages at   http://%s:%s\n", host, port, pagesHost, pagesPort)
	fmt.Printf(
		"Demo sign-in         %s   password %s\n      as a writer    %s\n\nCtrl+C stops it.\n", demo.DesignerEmail,
		demo.Password, demo.WriterEmail,
	)
	return run(
		ctx, app, server.App(), pages,
		visitors.New(visitors.Config{Store: st, MediaDir: mediaDir, SiteDir: siteDir, Previews: previews, Log: log}).Handler(),
	)
}

// publishDemo publishes the demo, so that its address answers.
func publishDemo(ctx context.Context, st *store.Store, p *site.Publisher) error {
	s, err := st.SiteBySlug(ctx, demo.SiteSlug)
	if err != nil {
		return err
	}
	return p.ReleaseAll(ctx, st, &s.Site)
}

func listen(host, port, name string) (net.Listener, error) {
	l, err := net.Listen("tcp", net.JoinHostPort(host, port))
	if err != nil {
		return nil, fmt.Errorf("port %s isn't free (%w): is Open Plot running already? Otherwise set %s to another", port, err, name)
	}
	return l, nil
}

// secret reads the key that signs previews, or makes it.
func secret(name string) ([]byte, error) {
	b, err := os.ReadFile(name)
	if err == nil && len(b) >= 32 {
		return b, nil
	}
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return nil, fmt.Errorf("reading the secret: %w", err)
	}
	b = make([]byte, 32)
	_, _ = rand.Read(b) // never fails (crypto/rand)
	if err := os.WriteFile(name, b, 0o600); err != nil {
		return nil, fmt.Errorf("keeping the secret: %w", err)
	}
	return b, nil
}

// run serves both origins until the context ends.
func run(ctx context.Context, app net.Listener, appHandler http.Handler, pages net.Listener, pagesHandler http.Handler) error {
	servers := []*http.Server{
		{Handler: appHandler, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 2 * time.Minute, IdleTimeout: 2 * time.Minute},
		{Handler: pagesHandler, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: time.Minute, IdleTimeout: 2 * time.Minute},
	}
	failed := make(chan error, 2)
	for i, l := range []net.Listener{app, pages} {
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

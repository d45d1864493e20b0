// Package web is the application's origin: its screens, each in a package of its own below it.
//
// In come HTTP requests, out go server-rendered pages and parts for htmx. It holds no
// rules of the job: those are in core. What the Bench shows is in package model, what screens stand
// in is in package shell, what several share in package desk. What visitors see is in package
// visitors beside it, on an origin of its own that never sees a session. Start at New.
package web

import (
	"embed"
	"net/http"
	"sync"

	"openplot/web/audit"
	"openplot/web/bench"
	"openplot/web/checks"
	"openplot/web/desk"
	"openplot/web/entries"
	"openplot/web/everywhere"
	"openplot/web/handbook"
	"openplot/web/house"
	"openplot/web/library"
	"openplot/web/members"
	"openplot/web/menus"
	"openplot/web/operator"
	"openplot/web/pages"
	"openplot/web/people"
	"openplot/web/publish"
	"openplot/web/settings"
	"openplot/web/shell"
	"openplot/web/sites"
	"openplot/web/versions"
	"openplot/web/visits"
	"openplot/web/zones"
)

// files are the templates of all screens, and what browsers load: each screen's beside its handlers.
//
//go:embed */*.html */parts/*.html */*.css */*.js img vendor all:wasm
var files embed.FS

// shipped are the files that ship, read and compressed once whatever asks for them.
var shipped = sync.OnceValues(func() (*shell.Files, error) { return shell.ReadFiles(files) })

// Config is what the server needs to know.
type Config = shell.Config

// Server is all of the application's screens.
type Server struct {
	*shell.Shell
	screens []shell.Screen
}

// New prepares a server.
func New(c Config) (*Server, error) {
	read, err := shipped()
	if err != nil {
		return nil, err
	}
	sh, err := shell.New(c, read)
	if err != nil {
		return nil, err
	}
	d := &desk.Desk{Shell: sh}
	shelf := &bench.Shelf{Desk: d}
	entrance := people.New(d)
	return &Server{sh, []shell.Screen{
		entrance,
		people.NewJoin(entrance),
		&sites.Screen{Desk: d},
		&pages.Screen{Desk: d},
		&bench.Screen{Desk: d, Shelf: shelf},
		&bench.Clipboard{Desk: d},
		shelf,
		&checks.Screen{Desk: d},
		&versions.Screen{Desk: d},
		&everywhere.Screen{Desk: d},
		&zones.Screen{Desk: d},
		&house.Screen{Desk: d},
		&library.Screen{Desk: d},
		&members.Screen{Desk: d},
		&menus.Screen{Desk: d},
		&settings.Screen{Desk: d},
		&publish.Screen{Desk: d},
		&entries.Screen{Desk: d},
		&entries.Keeping{Desk: d},
		&visits.Screen{Desk: d},
		&audit.Screen{Desk: d},
		&operator.Screen{Desk: d},
		&handbook.Screen{Desk: d},
	}}, nil
}

// App is the handler of the application's origin. Errors are of the configuration.
func (s *Server) App() (http.Handler, error) { return s.Handler(s.screens...) }

// Table lists every route, with the right that it takes.
func (s *Server) Table() (all []shell.Route) {
	for _, of := range append([]shell.Screen{s.Shell}, s.screens...) {
		all = append(all, of.Routes()...)
	}
	return all
}

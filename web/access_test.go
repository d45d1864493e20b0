package web

import (
	"net/http"
	"strings"
	"testing"

	"openplot/core/edit"
)

// Who may come to a route.
const (
	anybody = iota
	signedIn
	members
	designers
)

// access says of every route of the application who may come to it.
var access = map[string]int{
	"GET /static/*file": anybody, "GET /fonts/:file": anybody, "GET /fonts/own/:file": anybody, "GET /sign-in": anybody, "POST /sign-in": anybody, "GET /healthy": anybody,

	"GET /": signedIn, "POST /sign-out": signedIn, "GET /stock/:picture": signedIn,

	"GET /sites/:site": members, "GET /sites/:site/entries": members, "POST /sites/:site/shelf/favourite": members,
	"GET /sites/:site/library": members, "POST /sites/:site/library": members, "POST /sites/:site/library/stock": members,
	"GET /sites/:site/library/:medium/copies": members, "POST /sites/:site/library/:medium": members,
	"POST /sites/:site/library/:medium/shape": members, "POST /sites/:site/library/:medium/replace": members,
	"GET /sites/:site/media": members, "POST /sites/:site/media": members,
	"GET /sites/:site/pages/:page/bench": members, "GET /sites/:site/pages/:page/canvas": members, "GET /sites/:site/pages/:page/parts": members,
	"POST /sites/:site/pages/:page/edits": members, "POST /sites/:site/pages/:page/undo": members, "POST /sites/:site/pages/:page/redo": members,

	"POST /sites/:site/pages": designers, "POST /sites/:site/facts": designers, "POST /sites/:site/shelf/drop": designers,
	"POST /sites/:site/library/:medium/delete": designers,
	"GET /sites/:site/house":                   designers, "GET /sites/:site/house/specimen": designers, "GET /sites/:site/house/file": designers,
	"POST /sites/:site/house/edits": designers, "POST /sites/:site/house/undo": designers, "POST /sites/:site/house/file": designers,
	"POST /sites/:site/house/fonts": designers, "POST /sites/:site/house/fonts/drop": designers, "POST /sites/:site/house/try": designers,
	"POST /sites/:site/house/take": designers, "POST /sites/:site/house/keep": designers, "POST /sites/:site/house/drop": designers,
	"POST /sites/:site/house/palette": designers, "POST /sites/:site/house/contrasts": designers,
	"POST /sites/:site/pages/:page/promote": designers, "POST /sites/:site/pages/:page/keep": designers,
	"POST /sites/:site/pages/:page/try": designers, "POST /sites/:site/pages/:page/publish": designers,
}

// Every route asks who comes. The table above is held against the router's own, so that a
// new route is seen to.
func TestWhoMayAsk(t *testing.T) {
	p := begin(t)
	nobody, stranger, writer, designer := p.as(""), p.as("stranger@example.org"), p.as("writer@example.org"), p.as("designer@example.org")
	before, _ := p.house()
	routes := map[string]bool{}
	for _, r := range p.server.routes().Routes() {
		if r.Method == http.MethodHead {
			continue
		}
		route := r.Method + " " + r.Path
		routes[route] = true
		who, said := access[route]
		if !said {
			t.Errorf("nobody said who may come to %s", route)
			continue
		}
		path := strings.NewReplacer(":site", "skerry", ":page", "home", ":medium", "m1", ":picture", "meadow.png", ":file", "x", "*file", "x").Replace(r.Path)
		ask := func(q *person) (int, http.Header) {
			if r.Method == http.MethodPost {
				status, _, h := q.post(path, nil)
				return status, h
			}
			status, _, h := q.get(path)
			return status, h
		}
		status, header := ask(nobody)
		refused := status == http.StatusUnauthorized && header.Get("HX-Redirect") == "/sign-in" || status == http.StatusSeeOther && header.Get("Location") == "/sign-in"
		if refused != (who > anybody) {
			t.Errorf("nobody at %s: %d", route, status)
		}
		if who <= signedIn {
			continue
		}
		if status, _ := ask(stranger); status != http.StatusNotFound {
			t.Errorf("a stranger at %s: %d, want 404", route, status)
		}
		status, _ = ask(writer)
		if forbidden := status == http.StatusForbidden; who == designers && !forbidden {
			t.Errorf("a writer at %s: %d, want 403", route, status)
		}
	}
	for route := range access {
		if !routes[route] {
			t.Errorf("there is no %s", route)
		}
	}
	if after, version := p.house(); version != 1 || after.ContentWidth != before.ContentWidth {
		t.Error("somebody changed the house style")
	}
	for _, path := range []string{"/", "/sites/skerry", "/sites/skerry/library", "/sites/skerry/media", "/sites/skerry/entries", housePath, benchPath + "/bench", benchPath + "/canvas", benchPath + "/parts"} {
		if status, _, _ := designer.get(path); status != http.StatusOK {
			t.Errorf("the designer at %s: %d", path, status)
		}
	}
	if status, _, _ := designer.get("/sites/skerry/pages/nowhere/bench"); status != http.StatusNotFound {
		t.Errorf("a page that isn't there: %d", status)
	}
}

// Writers write, and do nothing else to a page.
func TestWritersWriteOnly(t *testing.T) {
	p := begin(t)
	writer := p.as("writer@example.org")
	heading := p.page.Sections[2].Blocks[0].ID
	if status, _ := writer.edit(edit.Command{Op: "block.write", Node: heading, Value: "Words"}); status != http.StatusOK {
		t.Errorf("the writer writes: %d", status)
	}
	for _, c := range []edit.Command{{Op: "delete", Node: heading}, {Op: "block.nudge", Node: heading, Zone: "desktop", DX: 1}, {Op: "set", Node: heading, Zone: "desktop", Setting: "color", Value: "#ffffff"}, {Op: "section.add", Preset: "bar"}} {
		if status, _ := writer.edit(c); status != http.StatusForbidden {
			t.Errorf("the writer does %s: %d", c.Op, status)
		}
	}
	for _, path := range []string{"/undo", "/redo"} {
		if status, _, _ := writer.post(benchPath+path, nil); status != http.StatusForbidden {
			t.Errorf("the writer posts to %s: %d", path, status)
		}
	}
}

package web

import (
	"net/http"
	"strings"
	"testing"

	"openplot/core/edit"
	"openplot/core/rights"
)

// access says of every route of the application what it takes to come to it, once more
// and by hand, so that a change of the table of routes is seen.
var access = map[string]rights.Right{
	"GET /static/*file":    rights.None,
	"GET /fonts/:file":     rights.None,
	"GET /fonts/own/:file": rights.None,
	"GET /sign-in":         rights.None,
	"POST /sign-in":        rights.None,
	"GET /join/:token":     rights.None,
	"POST /join/:token":    rights.None,
	"GET /healthy":         rights.None,
	"GET /ready":           rights.None,

	"GET /":            rights.Sign,
	"GET /new":         rights.Sign,
	"POST /new":        rights.Sign,
	"GET /new/sheet":   rights.Sign,
	"GET /new/slug":    rights.Sign,
	"POST /several":    rights.Sign,
	"POST /restore":    rights.Sign,
	"GET /works/:work": rights.Sign, "POST /works/:work/stop": rights.Sign, "POST /works/:work/again": rights.Sign,
	"POST /sign-out":      rights.Sign,
	"GET /stock/:picture": rights.Sign,

	"GET /handbook": rights.Sign, "GET /handbook/:chapter": rights.Sign, "GET /handbook/pictures/:file": rights.Sign,
	"GET /handbook/parts": rights.Sign,

	"POST /tray": rights.Sign, "POST /keys": rights.Sign,

	"GET /operator":       rights.Operate,
	"POST /operator/jobs": rights.Operate,

	"GET /sites/:site":                                  rights.See,
	"GET /sites/:site/pages":                            rights.See,
	"GET /sites/:site/entries":                          rights.See,
	"GET /sites/:site/visits":                           rights.See,
	"GET /sites/:site/visits/file":                      rights.Keep,
	"GET /sites/:site/entries/:entry":                   rights.See,
	"POST /sites/:site/entries/marks":                   rights.Write,
	"POST /sites/:site/entries/notes":                   rights.Write,
	"POST /sites/:site/entries/acts":                    rights.Keep,
	"POST /sites/:site/entries/answer":                  rights.Keep,
	"GET /sites/:site/entries/keeping":                  rights.Keep,
	"POST /sites/:site/entries/keeping":                 rights.Keep,
	"POST /sites/:site/publish/offline":                 rights.Publish,
	"GET /sites/:site/slug":                             rights.Compose,
	"GET /sites/:site/entries/mails":                    rights.Keep,
	"POST /sites/:site/entries/mails":                   rights.Keep,
	"POST /sites/:site/entries/mails/trial":             rights.Keep,
	"POST /sites/:site/entries/mails/again":             rights.Keep,
	"GET /sites/:site/entries/mails/:mail":              rights.Keep,
	"GET /sites/:site/entries/mails/:mail/page":         rights.Keep,
	"GET /scenes/:file":                                 rights.None,
	"GET /sites/:site/links":                            rights.See,
	"GET /icons":                                        rights.Sign,
	"GET /sites/:site/ready":                            rights.Compose,
	"GET /sites/:site/shelf":                            rights.See,
	"POST /sites/:site/shelf/business":                  rights.Keep,
	"POST /sites/:site/shelf/favourite":                 rights.See,
	"GET /sites/:site/library":                          rights.See,
	"POST /sites/:site/library":                         rights.Write,
	"POST /sites/:site/library/stock":                   rights.Write,
	"GET /sites/:site/pages/:page/everywhere/:section":  rights.Compose,
	"POST /sites/:site/pages/:page/everywhere/:section": rights.Compose,
	"GET /sites/:site/people":                           rights.See,
	"POST /sites/:site/people":                          rights.Account,
	"POST /sites/:site/people/role":                     rights.Account,
	"POST /sites/:site/people/remove":                   rights.Account,
	"POST /sites/:site/people/uninvite":                 rights.Account,
	"POST /sites/:site/people/leave":                    rights.See,
	"POST /sites/:site/library/again":                   rights.Write,
	"GET /sites/:site/library/:medium/copies":           rights.See,
	"GET /sites/:site/library/:medium/side":             rights.See,
	"POST /sites/:site/library/:medium":                 rights.Write,
	"POST /sites/:site/library/:medium/shape":           rights.Write,
	"POST /sites/:site/library/:medium/replace":         rights.Write,
	"GET /sites/:site/media":                            rights.See,
	"POST /sites/:site/media":                           rights.Write,
	"GET /sites/:site/pages/:page/bench":                rights.See,
	"GET /sites/:site/pages/:page/canvas":               rights.See,
	"GET /sites/:site/pages/:page/parts":                rights.See,
	"GET /sites/:site/pages/:page/copy":                 rights.See,
	"POST /sites/:site/pages/:page/bring":               rights.Compose,
	"GET /sites/:site/pages/:page/recent":               rights.Write,
	"POST /sites/:site/pages/:page/edits":               rights.Write,
	"POST /sites/:site/pages/:page/tries":               rights.Write,
	"POST /sites/:site/pages/:page/undo":                rights.Write,
	"POST /sites/:site/pages/:page/redo":                rights.Write,

	"POST /sites/:site/pages":                                rights.Compose,
	"GET /sites/:site/pages/:page/settings":                  rights.See,
	"GET /sites/:site/going":                                 rights.Compose,
	"GET /sites/:site/found":                                 rights.See,
	"POST /sites/:site/pages/settings":                       rights.Compose,
	"POST /sites/:site/pages/:page/move":                     rights.Compose,
	"POST /sites/:site/pages/:page/copy":                     rights.Compose,
	"POST /sites/:site/pages/:page/begins":                   rights.Compose,
	"POST /sites/:site/pages/:page/home":                     rights.Compose,
	"POST /sites/:site/pages/restore":                        rights.Compose,
	"POST /sites/:site/pages/several":                        rights.Compose,
	"GET /sites/:site/pages/:page/versions":                  rights.See,
	"POST /sites/:site/pages/:page/versions":                 rights.Compose,
	"POST /sites/:site/pages/:page/versions/restore":         rights.Compose,
	"GET /sites/:site/pages/:page/versions/:version/canvas":  rights.See,
	"GET /sites/:site/pages/:page/versions/:version/drawing": rights.See,
	"GET /sites/:site/pages/:page/zones/:zone":               rights.Compose,
	"GET /sites/:site/pages/:page/shared/:section":           rights.See,
	"GET /sites/:site/checks":                                rights.See,
	"POST /sites/:site/settings/visits":                      rights.Keep,
	"POST /sites/:site/checks/stop":                          rights.See,
	"GET /sites/:site/pages/:page/checks":                    rights.See,
	"GET /sites/:site/pages/:page/checks/marks":              rights.See,
	"GET /sites/:site/pages/:page/checks/count":              rights.See,
	"GET /sites/:site/pages/:page/checks/broken":             rights.See,
	"GET /sites/:site/pages/:page/checks/file":               rights.See,
	"GET /sites/:site/pages/:page/checks/mend":               rights.Compose,
	"GET /sites/:site/pages/:page/checks/mend-all":           rights.Compose,
	"POST /sites/:site/pages/:page/checks/repair":            rights.Compose,
	"POST /sites/:site/pages/:page/checks/quiet":             rights.Compose,
	"GET /sites/:site/versions":                              rights.See,
	"POST /sites/:site/versions/restore":                     rights.House,
	"POST /sites/:site/publish/plan":                         rights.Publish,
	"POST /sites/:site/publish/unplan":                       rights.Publish,
	"POST /sites/:site/domains":                              rights.Account,
	"POST /sites/:site/domains/check":                        rights.Account,
	"POST /sites/:site/domains/drop":                         rights.Account,
	"POST /sites/:site/domains/record":                       rights.Account,
	"GET /sites/:site/menus":                                 rights.Keep,
	"GET /sites/:site/rail":                                  rights.See,
	"GET /sites/:site/menus/drawn":                           rights.Keep,
	"POST /sites/:site/menus":                                rights.Keep,
	"POST /sites/:site/address":                              rights.Account,
	"GET /sites/:site/export":                                rights.Publish,
	"GET /sites/:site/file":                                  rights.Publish,
	"POST /new/file":                                         rights.Sign,
	"GET /sites/:site/publish":                               rights.Publish,
	"GET /sites/:site/publish/under-way":                     rights.Publish,
	"POST /sites/:site/menus/new":                            rights.Keep,
	"POST /sites/:site/menus/drop":                           rights.Keep,
	"POST /sites/:site/publish/stop":                         rights.Publish,
	"POST /sites/:site/publish/again":                        rights.Publish,
	"GET /sites/:site/pages/:page/publish/told":              rights.Publish,
	"POST /sites/:site/publish":                              rights.Publish,
	"POST /sites/:site/publish/back":                         rights.Publish,
	"GET /sites/:site/zones":                                 rights.House,
	"POST /sites/:site/zones":                                rights.House,
	"GET /sites/:site/settings":                              rights.Keep,
	"POST /sites/:site/settings":                             rights.Keep,
	"GET /sites/:site/icon.svg":                              rights.See,
	"POST /sites/:site/redirects":                            rights.Keep,
	"POST /sites/:site/redirects/drop":                       rights.Keep,
	"POST /sites/:site/archive":                              rights.Account,
	"POST /sites/:site/delete":                               rights.Account,
	"POST /sites/:site/begun":                                rights.Compose,
	"POST /sites/:site/shelf/drop":                           rights.Keep,
	"POST /sites/:site/library/:medium/take":                 rights.Write,
	"POST /sites/:site/library/:medium/keep":                 rights.Write,
	"GET /sites/:site/library/:medium/places":                rights.See,
	"GET /sites/:site/library/wants":                         rights.See,
	"POST /sites/:site/library/folder":                       rights.Write,
	"POST /sites/:site/library/delete":                       rights.Keep,
	"POST /sites/:site/library/restore":                      rights.Keep,
	"GET /sites/:site/house":                                 rights.House,
	"GET /sites/:site/house/specimen":                        rights.House,
	"GET /sites/:site/house/file":                            rights.House,
	"POST /sites/:site/house/edits":                          rights.House,
	"POST /sites/:site/house/undo":                           rights.House,
	"POST /sites/:site/house/file":                           rights.House,
	"POST /sites/:site/house/fonts":                          rights.House,
	"POST /sites/:site/house/fonts/drop":                     rights.House,
	"POST /sites/:site/house/try":                            rights.House,
	"POST /sites/:site/house/tries":                          rights.House,
	"POST /sites/:site/house/take":                           rights.House,
	"POST /sites/:site/house/keep":                           rights.House,
	"POST /sites/:site/house/drop":                           rights.House,
	"POST /sites/:site/house/palette":                        rights.House,
	"POST /sites/:site/house/contrasts":                      rights.House,
	"GET /sites/:site/fonts.css":                             rights.See,
	"POST /sites/:site/pages/:page/ask":                      rights.Write,
	"POST /sites/:site/pages/:page/promote":                  rights.House,
	"POST /sites/:site/pages/:page/restyle":                  rights.House,
	"POST /sites/:site/pages/:page/keep":                     rights.Keep,
	"GET /sites/:site/audit":                                 rights.Account,
	"GET /sites/:site/previews":                              rights.Publish,
	"POST /sites/:site/previews":                             rights.Publish,
	"POST /sites/:site/previews/end":                         rights.Publish,
	"GET /sites/:site/entries/file":                          rights.Keep,
	"POST /sites/:site/entries/erase":                        rights.Keep,
	"POST /sites/:site/library/:medium/again":                rights.Write,
	"POST /sites/:site/pages/:page/try":                      rights.Publish,
	"POST /sites/:site/pages/:page/publish":                  rights.Publish,
}

// Every route asks who comes. The table above is held against the router's own, so that a
// new route is seen to.
func TestWhoMayAsk(t *testing.T) {
	p := begin(t)
	nobody, stranger, writer, designer := p.as(
		"",
	), p.as(
		"stranger@example.org",
	), p.as(
		"writer@example.org",
	), p.as(
		"designer@example.org",
	)
	before, _ := p.house()
	routes := map[string]bool{}
	for _, r := range p.server.Table() {
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
		path := strings.NewReplacer(
			":site", "skerry", ":page", "home", ":medium", "m1", ":picture", "meadow.png", ":file", "x", "*file", "x",
		).Replace(r.Path)
		ask := func(q *person) (int, http.Header) {
			if r.Method == http.MethodPost {
				status, _, h := q.post(path, nil)
				return status, h
			}
			status, _, h := q.get(path)
			return status, h
		}
		status, header := ask(nobody)
		refused := status == http.StatusUnauthorized && header.Get("HX-Redirect") == "/sign-in" ||
			status == http.StatusSeeOther && header.Get("Location") == "/sign-in"
		if refused != (who != rights.None) {
			t.Errorf("nobody at %s: %d", route, status)
		}
		if who == rights.None || who == rights.Sign ||
			route == "POST /sites/:site/people/leave" { // that ends what is tried here
			continue
		}
		if who == rights.Operate {
			if status, _ := ask(designer); status != http.StatusNotFound {
				t.Errorf("somebody who is no operator at %s: %d, want 404", route, status)
			}
			continue
		}
		if status, _ := ask(stranger); status != http.StatusNotFound {
			t.Errorf("a stranger at %s: %d, want 404", route, status)
		}
		status, _ = ask(writer)
		if forbidden := status == http.StatusForbidden; forbidden == rights.Writer.May(who) {
			t.Errorf("a writer at %s: %d", route, status)
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
	for _, path := range []string{
		"/", "/sites/skerry", "/sites/skerry/library", "/sites/skerry/media", "/sites/skerry/entries", housePath,
		benchPath + "/bench", benchPath + "/canvas", benchPath + "/parts",
	} {
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
	for _, c := range []edit.Command{
		{Op: "delete", Node: heading},
		{Op: "block.nudge", Node: heading, Zone: "desktop", DX: 1},
		{Op: "set", Node: heading, Zone: "desktop", Setting: "color", Value: "#ffffff"},
		{Op: "section.add", Preset: "bar"},
	} {
		if status, _ := writer.edit(c); status != http.StatusForbidden {
			t.Errorf("the writer does %s: %d", c.Op, status)
		}
	}
	// What a writer did, a writer takes back, and nothing else.
	if status, body, _ := writer.post(benchPath+"/undo", nil); status != http.StatusOK ||
		!strings.Contains(body, "Undone: ") {
		t.Errorf("the writer's undo: %d", status)
	}
	if _, body, _ := writer.post(benchPath+"/undo", nil); !strings.Contains(body, "nothing to undo") {
		t.Error("the writer takes back somebody else's edit")
	}
}

// Each operation asks for its right, whatever the command says else; a command of several
// asks for the rights of all.
func TestOperationsAskForTheirRight(t *testing.T) {
	p := begin(t)
	writer, designer := p.as("writer@example.org"), p.as("designer@example.org")
	for _, op := range edit.Operations() {
		for _, c := range []edit.Command{
			{Op: op, Node: "nowhere", Zone: "desktop"},
			{Op: edit.Many, Parts: []edit.Command{{Op: "block.write", Node: "nowhere"}, {Op: op, Node: "nowhere", Zone: "desktop"}}},
		} {
			status, _ := writer.edit(c)
			if may := rights.Writer.May(edit.RightFor(op)); may == (status == http.StatusForbidden) {
				t.Errorf("a writer's %s in %s: %d", op, c.Op, status)
			}
			if status, _ := designer.edit(c); status == http.StatusForbidden {
				t.Errorf("a designer's %s: %d", op, status)
			}
		}
	}
}

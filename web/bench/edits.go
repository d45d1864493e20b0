package bench

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"slices"
	"strconv"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/number"
	"openplot/icons"
	"openplot/metrics"
	"openplot/store"
	"openplot/web/model"
	"openplot/web/shell"
)

// edit carries out one command. Its answer holds what changed on the Bench; a
// problem answers 422 and a stale command 409, with the fresh state.
func (s *Screen) edit(c *gin.Context) {
	raw := c.PostForm("command")
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	command, err := edit.Parse([]byte(raw))
	if err != nil {
		s.refuse(c, v, err)
		return
	}
	if !allowed(v, command) {
		s.say(c, v, http.StatusForbidden, forWriters)
		return
	}
	stock, added, err := s.Stocked(c, v.Site, v.Media(), command.Stocks())
	if err == nil && added {
		v, err = s.Look(c)
	}
	if err != nil {
		s.refuse(c, v, err)
		return
	}
	command = command.WithStocks(stock)
	env := s.env(c, v, func(id string) string { return stock[id] })
	page := shell.PageOf(c)
	done, err := s.Store.Pages.Edit(
		c,
		page.ID,
		shell.User(c).ID,
		command.Base,
		command,
		func(p *doc.Page) (*edit.Result, error) {
			return edit.Apply(p, command, env)
		},
	)
	if err != nil {
		s.refuse(c, v, err)
		return
	}
	s.Shelf.usedShelf(c, command)
	note := done.Result.Note
	if done.Shared > 0 && note == "" {
		note = "Changed on " + others(done.Shared) + " too."
	}
	if command.Op == "block.hide" && command.Hide && note == "" {
		note = model.HiddenOn(done.Page, command.Node, v.Site.Zones)
	}
	s.edited(c, v, done, note, model.Did(v.Page, command))
}

// others counts other pages in words.
func others(n int) string {
	if n == 1 {
		return "one other page"
	}
	return strconv.Itoa(n) + " other pages"
}

// forWriters is what those are told who may not do something.
const forWriters = "As a writer you can change words and pictures; this needs a designer."

// allowed reports whether somebody's role has all the rights that a command takes.
func allowed(v *model.View, command edit.Command) bool {
	for _, right := range command.Rights() {
		if !v.Site.Role.May(right) {
			return false
		}
	}
	return true
}

// env is what commands on a page are checked against; stock gives the site's own of a stock
// picture.
func (s *Screen) env(c *gin.Context, v *model.View, stock func(id string) string) edit.Env {
	return edit.Env{
		Site: &v.Site.Site, Stock: stock, NewID: store.NewID, Medium: v.Medium, HasIcon: icons.Has,
		Kept: s.keptSection(c, v), Shared: s.SharedSection(c, v.Site.ID),
	}
}

// keptSection finds a section on the Shelf. One from another site leaves its pictures there.
func (s *Screen) keptSection(c *gin.Context, v *model.View) func(id string) *doc.Section {
	return func(id string) *doc.Section {
		kept, err := s.Store.Shelf.KeptSections(c, v.Site.ID, shell.User(c).ID)
		if err != nil {
			s.Log.Error("shelf", "error", err)
			return nil
		}
		for _, k := range kept {
			if k.ID == id && k.Site != v.Site.ID {
				return edit.WithMedia(k.Section, func(id string) bool { return v.Medium(id) != "" })
			}
			if k.ID == id {
				return k.Section
			}
		}
		return nil
	}
}

// undo takes back the person's last edit, or as many as "steps" says.
func (s *Screen) undo(c *gin.Context) {
	steps, err := number.Whole(cmp.Or(c.PostForm("steps"), "1"))
	if err != nil || steps < 1 || steps > store.MostBack {
		steps = 1
	}
	done := func(h store.History) string { return sentence("Undone", h.Redo) }
	if steps > 1 {
		done = func(store.History) string { return strconv.Itoa(steps) + " edits undone." }
	}
	s.step(c, func(ctx context.Context, page, user string) (*store.Edited, error) {
		e, err := s.Store.Log.Undo(ctx, page, user)
		if err != nil {
			return nil, err
		}
		for range steps - 1 {
			next, err := s.Store.Log.Undo(ctx, page, user)
			if err != nil {
				return e, nil // as far as it goes
			}
			next.Result.Sections = append(next.Result.Sections, e.Result.Sections...)
			next.Result.Steps = append(next.Result.Steps, e.Result.Steps...)
			e = next
		}
		return e, nil
	}, done, "There is nothing to undo.")
}

// recent answers with the person's last edits that stand, to go back to.
func (s *Screen) recent(c *gin.Context) {
	made, err := s.Store.Log.Recent(c, shell.PageOf(c).ID, shell.User(c).ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "recent", made)
}
func (s *Screen) redo(c *gin.Context) {
	done := func(h store.History) string { return sentence("Redone", h.Undo) }
	s.step(c, s.Store.Log.Redo, done, "There is nothing to redo.")
}

// sentence says what was undone or done again.
func sentence(how, what string) string {
	if what == "" {
		return how + "."
	}
	return how + ": " + what + "."
}

func (s *Screen) step(
	c *gin.Context,
	do func(context.Context, string, string) (*store.Edited, error),
	done func(store.History) string,
	nothing string,
) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	e, err := do(c, shell.PageOf(c).ID, shell.User(c).ID)
	if errors.Is(err, store.ErrNothing) {
		s.say(c, v, http.StatusOK, nothing)
		return
	}
	if err != nil {
		s.refuse(c, v, err)
		return
	}
	st, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, v.Site.Slug)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if came := edit.Came(v.Page, e.Page); came != "" {
		v.Selected, v.Also = came, nil
	}
	said := done(e.History)
	if st.Version == v.Site.Version {
		if e.Shared > 0 { // on which pages what is shared stands may be another
			src, err := s.Source(c, st)
			if err != nil {
				s.Fail(c, err)
				return
			}
			v.Stage = s.Workshop.Stage(st, src, shell.PageOf(c).Slug)
		}
		s.edited(c, v, e, said, said)
		return
	}
	c.Set(shell.KeySite, st) // what was taken back belonged to the house style too
	fresh, err := s.reload(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	fresh.Selected, fresh.Also = v.Selected, v.Also
	model.Stand(fresh, v.Page)
	s.answer(c, http.StatusOK, answer{View: fresh, fresh: true, grids: true, lists: true, message: said, did: said})
}

// edited answers with the page after an edit.
func (s *Screen) edited(c *gin.Context, v *model.View, e *store.Edited, message, did string) {
	metrics.Edits.WithLabelValues("kept").Inc()
	s.Workshop.Replaced(v.Page, e.Page)
	was, order := v.Page, v.Order()
	v.Page, v.Seq, v.History = e.Page, e.Seq, e.History
	if e.Result.Select != "" {
		v.Selected, v.Also = e.Result.Select, nil
	}
	model.Stand(v, was)
	other := structural(e.Result.Steps) || !slices.Equal(names(was), names(v.Page)) || !slices.Equal(order, v.Order())
	s.answer(
		c,
		http.StatusOK,
		answer{View: v, message: message, did: did, changed: v.Alongside(e.Result.Sections, other), overview: other},
	)
}

// names gives the names of a page's sections: marks between them are called by those.
func names(p *doc.Page) (out []string) {
	for _, sec := range p.Sections {
		out = append(out, sec.Name)
	}
	return out
}

// refuse answers an edit that was not made.
func (s *Screen) refuse(c *gin.Context, v *model.View, err error) {
	var problem *doc.Problem
	switch {
	case errors.Is(err, store.ErrStale):
		metrics.Edits.WithLabelValues("stale").Inc()
		fresh, lerr := s.reload(c)
		if lerr != nil {
			s.Fail(c, lerr)
			return
		}
		model.Stand(fresh, v.Page)
		s.answer(c, http.StatusConflict, answer{View: fresh, fresh: true, alert: true,
			message: "Somebody changed this at the same time. Here is how it stands now; make your change again if it is still wanted."})
	case errors.As(err, &problem):
		metrics.Edits.WithLabelValues("refused").Inc()
		s.say(c, v, http.StatusUnprocessableEntity, problem.Sentence())
	default:
		s.Fail(c, err)
	}
}

// reload looks again at the page as it is now.
func (s *Screen) reload(c *gin.Context) (*model.View, error) {
	p, err := s.Store.Pages.At(c, shell.SiteOf(c).ID, shell.PageOf(c).Slug)
	if err != nil {
		return nil, err
	}
	c.Set(shell.KeyPage, p)
	return s.Look(c)
}

// say answers with a message and leaves everything else, what was typed too, as
// it is.
func (s *Screen) say(c *gin.Context, v *model.View, status int, message string) {
	s.answer(c, status, answer{View: v, message: message, alert: status >= 400, noTray: true})
}

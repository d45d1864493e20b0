package library

import (
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// What can be done with several files of the library at once, and what is known of them that
// takes all pages to know.

// folderName reads the name of a folder from a form; "" is none.
func folderName(c *gin.Context) (string, error) {
	v := strings.Join(strings.Fields(c.PostForm("folder")), " ")
	if n := len([]rune(v)); n > 60 {
		return "", doc.Problemf("Folder", "has %d characters; write at most 60", n)
	}
	return v, nil
}

// chosenMedia gives those of the site that a form names by "id".
func (s *Screen) chosenMedia(c *gin.Context) (ids []string, ms []*store.Medium, err error) {
	wanted := map[string]bool{}
	for _, id := range c.PostFormArray("id") {
		wanted[id] = true
	}
	all, err := s.Store.Media.List(c, shell.SiteOf(c).ID)
	for _, m := range all {
		if wanted[m.ID] {
			ids, ms = append(ids, m.ID), append(ms, m)
		}
	}
	return ids, ms, err
}

// deleteMedia takes files out of the library. Those that pages show are asked about first.
func (s *Screen) deleteMedia(c *gin.Context) {
	st := shell.SiteOf(c)
	ids, ms, err := s.chosenMedia(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	uses, err := s.Store.Media.Uses(c, st.ID, ms)
	if err != nil {
		s.Fail(c, err)
		return
	}
	var used []string
	for _, m := range ms {
		if on := uses[m.ID]; len(on) > 0 {
			used = append(used, m.Name+" on "+strings.Join(on, ", "))
		}
	}
	if len(used) > 0 && c.PostForm("sure") != "yes" {
		c.String(http.StatusConflict, "Shown now, and missing there afterwards: %s.", strings.Join(used, "; "))
		return
	}
	if err := s.Store.Media.Delete(c, st.ID, ids...); err != nil {
		s.Fail(c, err)
		return
	}
	for _, m := range ms {
		s.Note(c, "picture deleted", st.ID, m.Name)
	}
	c.String(http.StatusOK, "")
}

// restoreMedia puts files back that were deleted.
func (s *Screen) restoreMedia(c *gin.Context) {
	if err := s.Store.Media.Restore(c, shell.SiteOf(c).ID, c.PostFormArray("id")...); err != nil {
		s.Fail(c, err)
		return
	}
	c.String(http.StatusOK, "")
}

// fileMedia puts files into a folder.
func (s *Screen) fileMedia(c *gin.Context) {
	folder, err := folderName(c)
	var p *doc.Problem
	if errors.As(err, &p) {
		c.String(http.StatusUnprocessableEntity, "%s", p.Sentence())
		return
	}
	if err := s.Store.Media.File(c, shell.SiteOf(c).ID, folder, c.PostFormArray("id")...); err != nil {
		s.Fail(c, err)
		return
	}
	c.String(http.StatusOK, "")
}

// onPages calls f with every page of the site and the stage it is drawn on. Where another
// is given, that shows in the place of the medium with its id.
func (s *Screen) onPages(c *gin.Context, instead *store.Medium, f func(stage *model.Stage, p *store.Page)) error {
	st := shell.SiteOf(c)
	src, err := site.ReadSource(c, s.Store, st)
	if err != nil {
		return err
	}
	for i, m := range src.Media {
		if instead != nil && m.ID == instead.ID {
			src.Media[i] = instead
		}
	}
	stage := s.Workshop.Stage(st, src, "").Passing()
	for _, info := range src.Pages {
		p, err := s.Store.Pages.At(c, st.ID, info.Slug)
		if err != nil {
			return err
		}
		f(stage.For(info.Slug), p)
	}
	return nil
}

// placesOf gives where a medium is shown.
func (s *Screen) placesOf(c *gin.Context, m *store.Medium) (places []model.Place, err error) {
	err = s.onPages(c, m, func(stage *model.Stage, p *store.Page) {
		places = append(places, stage.Places(p.Doc, paths.Of(p.Slug), m)...)
	})
	return places, err
}

// mediumPlaces answers with drawings of where a medium is shown.
func (s *Screen) mediumPlaces(c *gin.Context) {
	m, err := s.Store.Media.ByID(c, shell.SiteOf(c).ID, c.Param("medium"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	places, err := s.placesOf(c, m)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "library-places", map[string]any{"Site": shell.SiteOf(c).Slug, "Places": places})
}

// wideWidths are those at which it is looked whether pictures have pixels enough.
var wideWidths = []float64{375, 800, 1280, 1920}

// mediaWants answers with the width in px that pictures need which are too small for where
// they are shown, by id.
func (s *Screen) mediaWants(c *gin.Context) {
	wants := map[string]int{}
	err := s.onPages(c, nil, func(stage *model.Stage, p *store.Page) {
		for id, px := range stage.Wants(p.Doc, wideWidths...) {
			wants[id] = max(wants[id], px)
		}
	})
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.JSON(http.StatusOK, wants)
}

// proposeMedium takes a file that may take a medium's place, and answers with how it would
// look there. In the place of what no page shows it stands at once.
func (s *Screen) proposeMedium(c *gin.Context) {
	st := shell.SiteOf(c)
	m, err := s.Store.Media.ByID(c, st.ID, c.Param("medium"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	uses, err := s.Store.Media.Uses(c, st.ID, []*store.Medium{m})
	if err != nil {
		s.Fail(c, err)
		return
	}
	it, status := s.opened(st, m, uses[m.ID]), http.StatusOK
	name, file, err := desk.Received(c)
	var proposed *store.Medium
	if err == nil {
		defer file.Close()
		if proposed, err = s.Pictures.Propose(c, desk.By(c), name, file); err == nil && proposed.Sort() != m.Sort() {
			err = doc.Problemf(
				"File",
				"is of another sort (%s): take a %s in the place of one",
				proposed.Sort(),
				m.Sort(),
			)
		}
	}
	if err == nil && len(it.Uses) == 0 {
		if err = s.Pictures.Take(c, m, proposed); err == nil {
			it = s.opened(st, m, nil)
		}
	} else if err == nil {
		there := *proposed
		there.ID, there.Alt, there.Focal = m.ID, m.Alt, m.Focal
		it.Proposed = &proposal{ID: proposed.ID, Base: it.Base, Size: model.MediumSize(proposed)}
		it.Proposed.Places, err = s.placesOf(c, &there)
	}
	var p *doc.Problem
	if errors.As(err, &p) {
		it.Problem, status = p.Sentence(), http.StatusUnprocessableEntity
	} else if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, status, "library-item", it)
}

// takeMedium puts a file that was proposed in a medium's place.
func (s *Screen) takeMedium(c *gin.Context, m *store.Medium) error {
	proposed, err := s.Store.Media.Deleted(c, shell.SiteOf(c).ID, c.PostForm("by"))
	if errors.Is(err, store.ErrNotFound) || err == nil && proposed.Sort() != m.Sort() {
		return doc.Problemf("File", "isn't there any more: choose it again")
	}
	if err != nil {
		return err
	}
	return s.Pictures.Take(c, m, proposed)
}

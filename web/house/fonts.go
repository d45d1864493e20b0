package house

import (
	"errors"
	"io"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/fonts"
	"openplot/site"
	"openplot/web/desk"
	"openplot/web/shell"
)

// fontRules answers with the rules of all fonts that a site can be set in, for the controls
// that show them.
func (s *Screen) fontRules(c *gin.Context) {
	own, err := s.Store.Houses.Fonts(c, shell.SiteOf(c).ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	var b strings.Builder
	for _, f := range fonts.Faces {
		b.WriteString(site.FontFace(f, "/fonts/").CSS("swap"))
	}
	for _, f := range own {
		b.WriteString(site.OwnFontFace(f, "/fonts/own/"+f.File).CSS("swap"))
	}
	c.Header("Cache-Control", "private, max-age=60")
	c.Data(http.StatusOK, "text/css; charset=utf-8", []byte(b.String()))
}

// addFont takes a font file of the site's own.
func (s *Screen) addFont(c *gin.Context) {
	st := shell.SiteOf(c)
	command := edit.HouseCommand{Op: "fonts.add"}
	file, err := receivedFont(c)
	var own *fonts.Own
	if err == nil {
		own, err = fonts.ReadOwn(c, file)
	}
	if err != nil {
		s.houseDone(c, command, err)
		return
	}
	if command.Name = fonts.FamilyName(c.PostForm("name")); command.Name == "" {
		command.Name = own.Family
	}
	if command.Value = c.PostForm("generic"); command.Value == "" {
		command.Value = "sans-serif"
	}
	if _, err := edit.ApplyHouse(st.House, st.Zones, command); err != nil { // before anything is written
		s.houseDone(c, command, err)
		return
	}
	if err := s.Maker.KeepFont(c, st.ID, command.Name, own); err != nil {
		s.houseDone(c, command, err)
		return
	}
	s.houseDone(
		c,
		command,
		s.Store.Houses.Edit(c, st.ID, shell.User(c).ID, baseOf(c), command, func(h doc.House) (doc.House, error) {
			return edit.ApplyHouse(
				h, st.Zones, command,
			)
		}),
	)
}

func receivedFont(c *gin.Context) ([]byte, error) {
	file, _, err := desk.SentFile(c)
	if err != nil {
		var large *http.MaxBytesError
		if errors.As(err, &large) {
			return nil, doc.Problemf(
				"Font",
				"is larger than %d MB; upload one weight or one variable font a file",
				fonts.MaxOwnBytes>>20,
			)
		}
		return nil, doc.Problemf("Font", "did not come with the form; choose a file first")
	}
	defer file.Close()
	b, err := io.ReadAll(file)
	if err != nil {
		return nil, doc.Problemf("Font", "did not arrive whole; try again")
	}
	return b, nil
}

// dropFont forgets a family of the site's own that nothing is set in.
func (s *Screen) dropFont(c *gin.Context) {
	st := shell.SiteOf(c)
	command := edit.HouseCommand{Op: "fonts.drop", Name: c.PostForm("name")}
	err := s.Store.Houses.Edit(c, st.ID, shell.User(c).ID, baseOf(c), command, func(h doc.House) (doc.House, error) {
		return edit.ApplyHouse(
			h, st.Zones, command,
		)
	})
	if err == nil {
		err = s.Store.Houses.DropFamily(c, st.ID, command.Name)
		s.Note(c, "font deleted", st.ID, command.Name)
	}
	s.houseDone(c, command, err)
}

package web

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"path/filepath"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/durable"
	"openplot/fonts"
	"openplot/media"
	"openplot/site"
	"openplot/store"
)

// fontRules answers with the rules of all fonts that a site can be set in, for the controls
// that show them.
func (s *Server) fontRules(c *gin.Context) {
	own, err := s.Store.Houses.Fonts(c, siteOf(c).ID)
	if err != nil {
		s.fail(c, err)
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
func (s *Server) addFont(c *gin.Context) {
	st := siteOf(c)
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
	if err := s.keepFont(c, st.ID, command.Name, own); err != nil {
		s.houseDone(c, command, err)
		return
	}
	s.houseDone(c, command, s.Store.Houses.Edit(c, st.ID, user(c).ID, baseOf(c), command, func(h doc.House) (doc.House, error) {
		return edit.ApplyHouse(
			h, st.Zones, command,
		)
	}))
}

func receivedFont(c *gin.Context) ([]byte, error) {
	file, _, err := sentFile(c)
	if err != nil {
		var large *http.MaxBytesError
		if errors.As(err, &large) {
			return nil, doc.Problemf("Font", "is larger than %d MB; upload one weight or one variable font a file", fonts.MaxOwnBytes>>20)
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

// keepFont writes a font's files and keeps it.
func (s *Server) keepFont(c *gin.Context, site, family string, own *fonts.Own) error {
	packed, err := fonts.Pack(own.SFNT, fonts.Quick)
	if err != nil {
		return fmt.Errorf("packing a font: %w", err)
	}
	id := store.NewID("t")
	f := &store.Font{
		ID: id, SiteID: site, Family: family, Italic: own.Italic, Least: own.Weights[0], Most: own.Weights[1],
		File: id + ".woff2", Original: id + media.OriginalMark,
	}
	for name, b := range map[string][]byte{f.File: packed, f.Original: own.SFNT} {
		if err := durable.Write(filepath.Join(s.MediaDir, name), b); err != nil {
			return fmt.Errorf("keeping a font: %w", err)
		}
	}
	return s.Store.Houses.AddFont(c, f)
}

// dropFont forgets a family of the site's own that nothing is set in.
func (s *Server) dropFont(c *gin.Context) {
	st := siteOf(c)
	command := edit.HouseCommand{Op: "fonts.drop", Name: c.PostForm("name")}
	err := s.Store.Houses.Edit(c, st.ID, user(c).ID, baseOf(c), command, func(h doc.House) (doc.House, error) {
		return edit.ApplyHouse(
			h, st.Zones, command,
		)
	})
	if err == nil {
		err = s.Store.Houses.DropFamily(c, st.ID, command.Name)
		s.note(c, "font deleted", st.ID, command.Name)
	}
	s.houseDone(c, command, err)
}

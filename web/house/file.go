package house

import (
	"errors"
	"io"
	"net/http"
	"os"
	"path/filepath"

	"github.com/gin-gonic/gin"

	"openplot/bring"
	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/shell"
)

// houseFile sends the house style as a file, with the fonts of the site's own that it is
// set in.
func (s *Screen) houseFile(c *gin.Context) {
	st := shell.SiteOf(c)
	own, err := s.Store.Houses.Fonts(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	carried := carry.House{Name: st.Name, House: st.House}
	for _, f := range own {
		if use := st.House.Fonts; f.Family != use.Heading && f.Family != use.Body && f.Family != use.Mono {
			continue
		}
		b, err := os.ReadFile(filepath.Join(s.MediaDir, f.File))
		if err != nil {
			s.Fail(c, err)
			return
		}
		carried.Fonts = append(carried.Fonts, carry.Font{Family: f.Family, WOFF2: b})
	}
	b, err := carry.WriteHouse(carried)
	var problem *doc.Problem
	switch {
	case errors.As(err, &problem):
		c.String(http.StatusUnprocessableEntity, problem.Error())
	case err != nil:
		s.Fail(c, err)
	default:
		s.Note(c, "house style exported", st.ID, "")
		c.Header("Content-Disposition", `attachment; filename="`+st.Slug+`.house.json"`)
		c.Data(http.StatusOK, "application/json", b)
	}
}

// takeHouseFile takes a house style from a file, and the fonts in it whose families the
// site doesn't have.
func (s *Screen) takeHouseFile(c *gin.Context) {
	command := edit.HouseCommand{Op: "house.take"}
	carried, name, err := receivedHouse(c, shell.SiteOf(c).Zones)
	if err == nil {
		command.Name = name
		err = s.Store.Log.KeepSiteVersion(
			c,
			shell.SiteOf(c).ID,
			shell.User(c).ID,
			store.Before,
			"Before a house style from a file",
		)
	}
	if err == nil {
		err = s.takeCarried(c, command, carried)
	}
	s.houseDone(c, command, err)
}

func receivedHouse(c *gin.Context, zones doc.Zones) (carry.House, string, error) {
	file, header, err := desk.SentFile(c)
	if err != nil {
		return carry.House{}, "", doc.Problemf("File", "choose one of at most %d MB first", carry.MaxHouseFile>>20)
	}
	defer file.Close()
	b, err := io.ReadAll(file)
	if err != nil {
		return carry.House{}, "", doc.Problemf("File", "did not arrive whole; try again")
	}
	carried, err := carry.ReadHouse(b, zones)
	return carried, header.Filename, err
}

// takeCarried makes a house style from a file the site's own. Nothing is written before
// all of it has been checked.
func (s *Screen) takeCarried(c *gin.Context, command edit.HouseCommand, carried carry.House) error {
	st := shell.SiteOf(c)
	take := func(was doc.House) (doc.House, error) { return carry.TakeHouse(was, carried.House, carried.Fonts...) }
	if _, err := take(st.House); err != nil {
		return err
	}
	checked, err := bring.CheckFonts(c, carried.Fonts)
	if err != nil {
		return err
	}
	for i, f := range carried.Fonts {
		if st.House.OwnFamily(f.Family) != nil {
			continue // this site's own files of that name stay
		}
		if err := s.Maker.KeepFont(c, st.ID, f.Family, checked[i]); err != nil {
			return err
		}
	}
	return s.Store.Houses.Edit(c, st.ID, shell.User(c).ID, baseOf(c), command, take)
}

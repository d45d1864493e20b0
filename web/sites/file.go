package sites

import (
	"errors"
	"io"
	"mime/multipart"
	"net/http"
	"os"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/bring"
	"openplot/core/doc"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/shell"
)

// siteFromFile has a site made of a file, once that is known to be one.
func (s *Screen) siteFromFile(c *gin.Context) {
	sent, _, err := desk.SentFile(c)
	if err != nil {
		s.refuseSite(c, doc.Problemf("File", "choose one of at most %d MB first", site.MaxFile>>20))
		return
	}
	defer sent.Close()
	file, gone, err := onDisk(sent)
	if err != nil {
		s.Fail(c, err)
		return
	}
	defer gone()
	name, err := doc.Line("Name", strings.TrimSpace(c.PostForm("name")), doc.MaxNameRunes)
	if err == nil {
		err = s.Store.Sites.MayBegin(c, shell.User(c).ID)
	}
	if err == nil {
		err = s.Store.Works.May(c, shell.User(c).ID)
	}
	if err == nil {
		err = bring.CheckFile(c, file)
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.refuseSite(c, problem)
		return
	}
	w := s.work(c, name)
	if err == nil {
		if _, err = file.Seek(0, io.SeekStart); err == nil {
			w.File, err = s.Maker.Hold(w.ID, file)
		}
	}
	if err == nil {
		if err = s.Store.Works.Add(c, w); err != nil {
			s.Maker.Release(w.File)
		}
	}
	if errors.As(err, &problem) { // of two at once
		s.refuseSite(c, problem)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, workPath(w.ID))
}

// work is one that whoever asks wants done.
func (s *Screen) work(c *gin.Context, name string) *store.SiteWork {
	return &store.SiteWork{ID: store.NewID("k"), User: shell.User(c).ID, Name: name, Address: c.ClientIP()}
}

// onDisk gives what was sent as a file, which a small one isn't yet, and what ends it.
func onDisk(sent multipart.File) (*os.File, func(), error) {
	if f, ok := sent.(*os.File); ok {
		return f, func() {}, nil
	}
	f, err := os.CreateTemp("", "site-*.zip")
	if err != nil {
		return nil, nil, err
	}
	gone := func() { _ = errors.Join(f.Close(), os.Remove(f.Name())) }
	if _, err := io.Copy(f, sent); err != nil {
		gone()
		return nil, nil, err
	}
	return f, gone, nil
}

func (s *Screen) refuseSite(c *gin.Context, problem *doc.Problem) {
	s.showNewSite(
		c,
		http.StatusUnprocessableEntity,
		newSiteEntered(func(string) string { return "" }, func(string) []string { return nil }),
		problem.Sentence(),
	)
}

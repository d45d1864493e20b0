package web

import (
	"bytes"
	"cmp"
	"errors"
	"mime/multipart"
	"net/http"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/rights"
	"openplot/core/style"
	"openplot/media"
	"openplot/origin"
	"openplot/store"
	"openplot/web/bench"
)

// libraryItem is a file of the library as that shows it.
type libraryItem struct {
	*store.Medium
	Site     string // its slug
	Base     string // address of what can be done with it
	Thumb    string
	Size     string
	Uses     []string // pages that show it
	Problem  string
	Pixels   bool // it can be turned and cropped
	Copies   copiesView
	Proposed *proposal
}

// proposal is another file that may take a medium's place, as it would look there.
type proposal struct {
	ID, Base, Size string
	Site           string // "": its places lead nowhere
	Places         []bench.Place
}

// copiesView is how far the making of copies is.
type copiesView struct {
	Base       string
	Made, All  int
	AVIF, WebP bool
	Failed     string // why the others can't be made, or ""
	Sizes      []copySize
}

// copySize is what the copies of a width take, in words.
type copySize struct {
	Width int
	Bytes []string // by format, such as "WebP 12 KB"
}

// copySizes tells what the copies of a medium take by width, from narrow to wide.
func (s *Server) copySizes(m *store.Medium) (out []copySize) {
	for _, v := range m.Variants {
		fi, err := os.Stat(filepath.Join(s.MediaDir, v.File))
		if err != nil {
			continue // the doctor tells of it
		}
		ext := path.Ext(v.File)
		size := cmp.Or(formats[ext], strings.ToUpper(strings.TrimPrefix(ext, "."))) + " " + strconv.FormatInt((fi.Size()+1023)/1024, 10) + " KB"
		if i := slices.IndexFunc(out, func(c copySize) bool { return c.Width == v.Width }); i >= 0 {
			out[i].Bytes = append(out[i].Bytes, size)
		} else {
			out = append(out, copySize{v.Width, []string{size}})
		}
	}
	return out
}

// formats are what files are called by their endings, where that isn't the ending in capitals.
var formats = map[string]string{".webp": "WebP", ".webm": "WebM"}

func (s *Server) libraryItem(st *store.Site, m *store.Medium, uses []string) libraryItem {
	it := libraryItem{
		Medium: m, Site: st.Slug, Base: "/sites/" + st.Slug + "/library/" + m.ID, Thumb: s.Hosts.Uploads() + "/media/" + m.Variants[0].File,
		Size: bench.MediumSize(m), Uses: uses, Pixels: m.Picture() && m.Type != "image/svg+xml" && m.Type != "image/gif" && m.Original != "",
	}
	it.Copies = copiesView{Base: it.Base, Made: len(m.Variants), All: len(m.Variants) + m.CopiesLeft, Failed: m.Problem, Sizes: s.copySizes(m)}
	for _, v := range m.Variants {
		it.Copies.AVIF = it.Copies.AVIF || v.Modern()
		it.Copies.WebP = it.Copies.WebP || strings.HasSuffix(v.File, ".webp")
	}
	return it
}

// copies answers with how far the making of a picture's copies is.
func (s *Server) copies(c *gin.Context) {
	m, err := s.Store.Media.ByID(c, siteOf(c).ID, c.Param("medium"))
	if err != nil {
		s.fail(c, err)
		return
	}
	s.parted(c, http.StatusOK, "library-copies", s.libraryItem(siteOf(c), m, nil).Copies)
}

// library shows the site's pictures, and what can be done with them.
func (s *Server) library(c *gin.Context) {
	st := siteOf(c)
	ms, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	uses, err := s.Store.Media.Uses(c, st.ID, ms)
	if err != nil {
		s.fail(c, err)
		return
	}
	var items []libraryItem
	var folders []string
	for _, m := range ms {
		items = append(items, s.libraryItem(st, m, uses[m.ID]))
		if m.Folder != "" {
			folders = append(folders, m.Folder)
		}
	}
	slices.Sort(folders)
	s.screen(c, http.StatusOK, "library", map[string]any{
		"User": user(c), "Site": st, "Items": items, "Stock": stockItems(), "Views": libraryViews, "Folders": slices.Compact(folders), "Deletes": st.Role.May(rights.Keep),
	})
}

// libraryViews are what the library can be narrowed to.
var libraryViews = []choiceOffer{
	{Label: "All", Chosen: true}, {Value: "unused", Label: "Not used"}, {Value: "wordless", Label: "No alternative text"}, {Value: "small", Label: "Too small"},
	{Value: "video", Label: "Videos"}, {Value: "audio", Label: "Audio"}, {Value: "file", Label: "Files"},
}

// by says for whom uploads are kept.
func by(c *gin.Context) media.By { return media.By{Site: siteOf(c).ID, User: user(c).ID} }

// sentFile gives the file of a form. Little of it is held in memory; the rest is in a file
// until the request ends.
func sentFile(c *gin.Context) (multipart.File, *multipart.FileHeader, error) {
	header, err := c.FormFile("file")
	origin.CleanForm(c.Request)
	if err != nil {
		return nil, nil, err
	}
	file, err := header.Open()
	return file, header, err
}

// received gives the file that came with a form. Errors are *doc.Problem.
func received(c *gin.Context) (name string, from multipart.File, err error) {
	file, header, err := sentFile(c)
	if err != nil {
		var large *http.MaxBytesError
		if errors.As(err, &large) {
			return "", nil, doc.Problemf("Picture", "is larger than %d MB; make it smaller and upload it again", media.MaxVideoBytes>>20)
		}
		return "", nil, doc.Problemf("Picture", "did not come with the form; choose one first")
	}
	return header.Filename, file, nil
}

// addToLibrary takes one file and answers with its id and its card; several are sent one
// after another.
func (s *Server) addToLibrary(c *gin.Context) {
	st := siteOf(c)
	name, file, err := received(c)
	var m *store.Medium
	if err == nil {
		defer file.Close()
		m, err = s.Pictures.Keep(c, by(c), name, "", file)
	}
	var p *doc.Problem
	if errors.As(err, &p) {
		c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": p.Sentence()})
		return
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	var card bytes.Buffer
	if err := s.part(&card, "library-item", s.libraryItem(st, m, nil)); err != nil {
		s.fail(c, err)
		return
	}
	c.PureJSON(http.StatusOK, gin.H{"id": m.ID, "html": card.String()})
}

// inLibrary carries out a change of a picture and answers with its card.
func (s *Server) inLibrary(change func(c *gin.Context, m *store.Medium) error) gin.HandlerFunc {
	return func(c *gin.Context) {
		st := siteOf(c)
		m, err := s.Store.Media.ByID(c, st.ID, c.Param("medium"))
		if err != nil {
			s.fail(c, err)
			return
		}
		err = change(c, m)
		var problem *doc.Problem
		if err != nil && !errors.As(err, &problem) {
			s.fail(c, err)
			return
		}
		if problem != nil { // as it was
			if m, err = s.Store.Media.ByID(c, st.ID, m.ID); err != nil {
				s.fail(c, err)
				return
			}
		}
		uses, err := s.Store.Media.Uses(c, st.ID, []*store.Medium{m})
		if err != nil {
			s.fail(c, err)
			return
		}
		it := s.libraryItem(st, m, uses[m.ID])
		status := http.StatusOK
		if problem != nil {
			it.Problem, status = problem.Sentence(), http.StatusUnprocessableEntity
		}
		s.parted(c, status, "library-item", it)
	}
}

// describe keeps a picture's name, words and focal point.
func (s *Server) describe(c *gin.Context, m *store.Medium) error {
	name, alt := strings.Join(strings.Fields(c.PostForm("name")), " "), strings.Join(strings.Fields(c.PostForm("alt")), " ")
	if name == "" || len([]rune(name)) > 120 {
		return doc.Problemf("Name", "write 1 to 120 characters")
	}
	if len([]rune(alt)) > 1000 {
		return doc.Problemf("Alternative text", "has %d characters; write at most 1000", len([]rune(alt)))
	}
	focal, problem := style.Find("object-position", doc.Picture).Read(&siteOf(c).House, c.PostForm("focal"))
	if problem != nil {
		return doc.Problemf("Focal point", "%s", problem.Message)
	}
	folder, err := folderName(c)
	if err != nil {
		return err
	}
	m.Name, m.Alt, m.Focal, m.Folder = name, alt, focal, folder
	return s.Store.Media.Describe(c, m)
}

// reshape turns or crops a picture.
func (s *Server) reshape(c *gin.Context, m *store.Medium) error {
	var change media.Change
	change.Turns, _ = number.Whole(c.PostForm("turns"))
	for name, to := range map[string]*float64{"left": &change.Left, "top": &change.Top, "right": &change.Right, "bottom": &change.Bottom} {
		v := strings.TrimSpace(strings.TrimSuffix(c.PostForm(name), "%"))
		if v == "" {
			continue
		}
		n, err := number.Real(v)
		if err != nil || n < 0 || n > 95 {
			return doc.Problemf("Crop", "can't be %.20q: write 0 to 95 per cent", v)
		}
		*to = n
	}
	return s.Pictures.Edit(c, by(c), m, change)
}

// leaveMedium answers with a medium as it is, after a proposal wasn't taken.
func (s *Server) leaveMedium(*gin.Context, *store.Medium) error { return nil }

// copyAgain has the copies of a picture made that couldn't be.
func (s *Server) copyAgain(c *gin.Context, m *store.Medium) error {
	m.Problem = ""
	return s.Store.Media.RetryCopies(c, m)
}

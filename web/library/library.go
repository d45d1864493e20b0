package library

import (
	"bytes"
	"cmp"
	"errors"
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
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the screen of a site's pictures, videos and files.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get("/stock/:picture", rights.Sign, s.stockPicture),
		shell.Get(paths.SiteRoute+"/library", rights.See, s.library),
		shell.Within(shell.Uploading, shell.Post(paths.SiteRoute+"/library", rights.Write, s.addToLibrary)),
		shell.Within(shell.Writing, shell.Post(paths.SiteRoute+"/library/stock", rights.Write, s.takeStock)),
		shell.Get(paths.SiteRoute+"/library/:medium/copies", rights.See, s.copies),
		shell.Get(paths.SiteRoute+"/library/:medium/side", rights.See, s.side),
		shell.Post(paths.SiteRoute+"/library/:medium", rights.Write, s.inLibrary(s.describe)),
		shell.Within(
			shell.Writing,
			shell.Post(paths.SiteRoute+"/library/:medium/shape", rights.Write, s.inLibrary(s.reshape)),
		),
		shell.Within(
			shell.Uploading,
			shell.Post(paths.SiteRoute+"/library/:medium/replace", rights.Write, s.proposeMedium),
		),
		shell.Post(paths.SiteRoute+"/library/:medium/take", rights.Write, s.inLibrary(s.takeMedium)),
		shell.Post(paths.SiteRoute+"/library/:medium/keep", rights.Write, s.inLibrary(leaveMedium)),
		shell.Get(paths.SiteRoute+"/library/:medium/places", rights.See, s.mediumPlaces),
		shell.Get(paths.SiteRoute+"/library/wants", rights.See, s.mediaWants),
		shell.Post(paths.SiteRoute+"/library/again", rights.Write, s.copyAllAgain),
		shell.Post(paths.SiteRoute+"/library/folder", rights.Write, s.fileMedia),
		shell.Post(paths.SiteRoute+"/library/delete", rights.Keep, s.deleteMedia),
		shell.Post(paths.SiteRoute+"/library/restore", rights.Keep, s.restoreMedia),
		shell.Post(paths.SiteRoute+"/library/:medium/again", rights.Write, s.inLibrary(s.copyAgain)),
		shell.Get(paths.SiteRoute+"/media", rights.See, s.mediaPicker),
		shell.Within(shell.Uploading, shell.Post(paths.SiteRoute+"/media", rights.Write, s.upload)),
	}
}

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
	Tile     tile
	Open     bool // what is known of it and can be done with it is there too
	Copies   copiesView
	Proposed *proposal
}

// tile is a file as the library shows it: what the template says two thousand times stands here plainly, since fields
// of an embedded struct and methods are looked up by name each time.
type tile struct {
	ID, Name, Alt, Folder, Thumb, Size, Base string
	Find                                     string // the words that it is found by
	Width, Height                            int
	Sort                                     doc.MediumSort
	Picture, Video, Audio, Used              bool
}

// proposal is another file that may take a medium's place, as it would look there.
type proposal struct {
	ID, Base, Size string
	Site           string // "": its places lead nowhere
	Places         []model.Place
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
func copySizes(dir string, m *store.Medium) (out []copySize) {
	for _, v := range m.Variants {
		fi, err := os.Stat(filepath.Join(dir, v.File))
		if err != nil {
			continue // the doctor tells of it
		}
		ext := path.Ext(v.File)
		size := cmp.Or(
			formats[ext],
			strings.ToUpper(strings.TrimPrefix(ext, ".")),
		) + " " + strconv.FormatInt(
			(fi.Size()+1023)/1024,
			10,
		) + " KB"
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

func itemOf(uploads string, st *store.Site, m *store.Medium, uses []string) libraryItem {
	it := libraryItem{
		Medium: m, Site: st.Slug, Base: paths.To(st.Slug).At("library", m.ID), Thumb: uploads + "/media/" + m.Thumb(),
		Size: model.MediumSize(
			m,
		), Uses: uses, Pixels: m.Picture() && m.Type != "image/svg+xml" && m.Type != "image/gif" && m.Original != "",
	}
	it.Tile = tile{
		ID: m.ID, Name: m.Name, Alt: m.Alt, Folder: m.Folder, Thumb: it.Thumb, Size: it.Size, Base: it.Base,
		Find:  strings.Join(append([]string{m.Name, m.Alt}, uses...), " "),
		Width: m.Width, Height: m.Height, Sort: m.Sort(),
		Picture: m.Picture(), Video: m.Video(), Audio: m.Audio(), Used: len(uses) > 0,
	}
	it.Copies = copiesView{
		Base:   it.Base,
		Made:   len(m.Variants),
		All:    len(m.Variants) + m.CopiesLeft,
		Failed: m.Problem,
	}
	for _, v := range m.Variants {
		it.Copies.AVIF = it.Copies.AVIF || v.Modern()
		it.Copies.WebP = it.Copies.WebP || strings.HasSuffix(v.File, ".webp")
	}
	return it
}

// opened is a file with what is known of it and can be done with it.
func (s *Screen) opened(st *store.Site, m *store.Medium, uses []string) libraryItem {
	it := itemOf(s.Hosts.Uploads(), st, m, uses)
	it.Open, it.Copies.Sizes = true, copySizes(s.MediaDir, m)
	return it
}

// side answers with what is known of a file and can be done with it.
func (s *Screen) side(c *gin.Context) {
	st := shell.SiteOf(c)
	m, err := s.Store.Media.ByID(c, st.ID, c.Param("medium"))
	var uses map[string][]string
	if err == nil {
		uses, err = s.Store.Media.Uses(c, st.ID, []*store.Medium{m})
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "library-side", s.opened(st, m, uses[m.ID]))
}

// copies answers with how far the making of a picture's copies is.
func (s *Screen) copies(c *gin.Context) {
	m, err := s.Store.Media.ByID(c, shell.SiteOf(c).ID, c.Param("medium"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "library-copies", s.opened(shell.SiteOf(c), m, nil).Copies)
}

// library shows the site's pictures, and what can be done with them.
func (s *Screen) library(c *gin.Context) {
	st := shell.SiteOf(c)
	ms, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	uses, err := s.Store.Media.Uses(c, st.ID, ms)
	if err != nil {
		s.Fail(c, err)
		return
	}
	var items []libraryItem
	var folders []string
	for _, m := range ms {
		items = append(items, itemOf(s.Hosts.Uploads(), st, m, uses[m.ID]))
		if m.Folder != "" {
			folders = append(folders, m.Folder)
		}
	}
	slices.Sort(folders)
	s.Screen(c, http.StatusOK, "library", map[string]any{
		"User": shell.User(
			c,
		), "Site": st, "Items": items, "Stock": desk.StockItems(), "Views": libraryViews, "Folders": slices.Compact(folders), "Deletes": st.Role.May(rights.Keep),
	})
}

// libraryViews are what the library can be narrowed to.
var libraryViews = []desk.Offer{
	{
		Label:  "All",
		Chosen: true,
	}, {Value: "unused", Label: "Not used"}, {Value: "wordless", Label: "No alternative text"}, {Value: "small", Label: "Too small"},
	{Value: "video", Label: "Videos"}, {Value: "audio", Label: "Audio"}, {Value: "file", Label: "Files"},
}

// addToLibrary takes one file and answers with its id and its card; several are sent one
// after another.
func (s *Screen) addToLibrary(c *gin.Context) {
	st := shell.SiteOf(c)
	name, file, err := desk.Received(c)
	var m *store.Medium
	if err == nil {
		defer file.Close()
		m, err = s.Pictures.Keep(c, desk.By(c), name, "", file)
	}
	var p *doc.Problem
	if errors.As(err, &p) {
		c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": p.Sentence()})
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	var card bytes.Buffer
	if err := s.Part(&card, "library-item", s.opened(st, m, nil)); err != nil {
		s.Fail(c, err)
		return
	}
	c.PureJSON(http.StatusOK, gin.H{"id": m.ID, "html": card.String()})
}

// inLibrary carries out a change of a picture and answers with its card.
func (s *Screen) inLibrary(change func(c *gin.Context, m *store.Medium) error) gin.HandlerFunc {
	return func(c *gin.Context) {
		st := shell.SiteOf(c)
		m, err := s.Store.Media.ByID(c, st.ID, c.Param("medium"))
		if err != nil {
			s.Fail(c, err)
			return
		}
		err = change(c, m)
		var problem *doc.Problem
		if err != nil && !errors.As(err, &problem) {
			s.Fail(c, err)
			return
		}
		if problem != nil { // as it was
			if m, err = s.Store.Media.ByID(c, st.ID, m.ID); err != nil {
				s.Fail(c, err)
				return
			}
		}
		uses, err := s.Store.Media.Uses(c, st.ID, []*store.Medium{m})
		if err != nil {
			s.Fail(c, err)
			return
		}
		it := s.opened(st, m, uses[m.ID])
		status := http.StatusOK
		if problem != nil {
			it.Problem, status = problem.Sentence(), http.StatusUnprocessableEntity
		}
		s.Parted(c, status, "library-item", it)
	}
}

// describe keeps a picture's name, words and focal point.
func (s *Screen) describe(c *gin.Context, m *store.Medium) error {
	name, alt := strings.Join(
		strings.Fields(c.PostForm("name")),
		" ",
	), strings.Join(
		strings.Fields(c.PostForm("alt")),
		" ",
	)
	if name == "" || len([]rune(name)) > 120 {
		return doc.Problemf("Name", "write 1 to 120 characters")
	}
	if len([]rune(alt)) > 1000 {
		return doc.Problemf("Alternative text", "has %d characters; write at most 1000", len([]rune(alt)))
	}
	focal, problem := style.Find("object-position", doc.Picture).Read(&shell.SiteOf(c).House, c.PostForm("focal"))
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
func (s *Screen) reshape(c *gin.Context, m *store.Medium) error {
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
	return s.Pictures.Edit(c, desk.By(c), m, change)
}

// leaveMedium answers with a medium as it is, after a proposal wasn't taken.
func leaveMedium(*gin.Context, *store.Medium) error { return nil }

// copyAgain has the copies of a picture made that couldn't be.
func (s *Screen) copyAgain(c *gin.Context, m *store.Medium) error {
	m.Problem = ""
	return s.Store.Media.RetryCopies(c, m)
}

// copyAllAgain has the copies of all pictures made that couldn't be.
func (s *Screen) copyAllAgain(c *gin.Context) {
	st := shell.SiteOf(c)
	if err := s.Store.Media.RetryAllCopies(c, st.ID); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("library"))
}

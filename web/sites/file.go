package sites

import (
	"encoding/json"
	"errors"
	"io"
	"mime/multipart"
	"net/http"
	"os"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/compare"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/core/style"
	"openplot/core/tree"
	"openplot/media"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// siteFromFile begins a site that is in a file.
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
	carried, t, medium, err := site.OpenFile(c, file, store.NewID)
	var st *store.Site
	var lost []string
	if err == nil {
		if name := strings.TrimSpace(c.PostForm("name")); name != "" {
			carried.Site.Name = name
		}
		st, lost, err = s.takeSite(c, carried, t, medium)
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.refuseSite(c, problem)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	to, about := paths.To(st.Slug).At(), st.Slug+" from a file"
	if len(lost) > 0 {
		to, about = to+"?done=trimmed", about+"; not as in the file: "+strings.Join(lost, "; ")
	}
	s.Note(c, "site added", st.ID, about)
	c.Redirect(http.StatusSeeOther, to)
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

// takeSite makes a site of what a file holds; lost tells which pages have less here than there.
func (s *Screen) takeSite(
	c *gin.Context,
	carried carry.Site,
	t tree.Tree,
	medium func(carry.Medium) (io.ReadCloser, error),
) (st *store.Site, lost []string, err error) {
	slug, err := s.freshSite(c, carried.Site.Name)
	if err != nil {
		return nil, nil, err
	}
	made, err := ready.NewSite(slug, carried.Site.Name, store.NewID)
	if err != nil {
		return nil, nil, err
	}
	checked, err := desk.CheckCarried(c, carried.Fonts)
	if err != nil {
		return nil, nil, err
	}
	carried.Site.ID, carried.Site.Slug = made.ID, made.Slug
	st, err = s.addSite(c, &carried.Site, func(st *store.Site) error {
		for i, f := range carried.Fonts {
			if err := s.KeepFont(c, st.ID, f.Family, checked[i]); err != nil {
				return err
			}
		}
		ids, sorts := renaming{}, map[string]doc.MediumSort{}
		for _, m := range carried.Media {
			kept, err := s.keepCarried(c, st.ID, m, medium)
			if err != nil {
				return err
			}
			ids.add(m.ID, kept.ID)
			sorts[kept.ID] = kept.Sort()
		}
		env := edit.Env{
			Site:    &carried.Site,
			NewID:   store.NewID,
			HasIcon: desk.HasIcon,
			Medium:  func(id string) doc.MediumSort { return sorts[id] },
		}
		pages := make([]*doc.Page, len(carried.Pages))
		for i, p := range carried.Pages {
			was, err := ids.page(p.Page)
			if err != nil {
				return err
			}
			if pages[i], err = edit.TakePage(was, t[i].ID, env); err != nil {
				return err
			}
			t[i].Name, was.ID = pages[i].Name, t[i].ID
			if changes := compare.Pages(was, pages[i]); len(changes) > 0 {
				lost = append(lost, pages[i].Name+": "+strings.Join(compare.Say(changes), ", "))
			}
		}
		edit.EvenShared(pages)
		carried.Site.Icon.Medium, carried.Site.SharePicture = ids.to(
			carried.Site.Icon.Medium,
		), ids.to(
			carried.Site.SharePicture,
		)
		if carried.Site, err = edit.TakeSettings(carried.Site, env); err != nil {
			return err
		}
		for i, p := range carried.Pages {
			if p.Locked {
				lost = append(
					lost,
					pages[i].Name+": its password, so that nobody can open it until it gets another one",
				)
			}
		}
		return s.fillCarried(c, st, carried, t, pages, nil)
	})
	return st, lost, err
}

// keepCarried keeps a medium of a site's file, checked as an uploaded one.
func (s *Screen) keepCarried(
	c *gin.Context,
	st string,
	m carry.Medium,
	medium func(carry.Medium) (io.ReadCloser, error),
) (*store.Medium, error) {
	from, err := medium(m)
	if err != nil {
		return nil, err
	}
	defer from.Close()
	kept, err := s.Pictures.Keep(c, media.By{Site: st, User: shell.User(c).ID}, m.Name, m.Alt, from)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		return nil, doc.Problemf("Media", "in the file have %.80q, which can't be kept: %s", m.Name, problem.Message)
	}
	if err != nil {
		return nil, err
	}
	kept.Folder = m.Folder
	if focal, problem := style.Find("object-position", doc.Picture).Read(nil, m.Focal); problem == nil &&
		m.Focal != "" {
		kept.Focal = focal
	}
	return kept, s.Store.Media.Describe(c, kept)
}

// copySite gives a new site the pages of another, its fonts, and the media that they show.
func (s *Screen) copySite(c *gin.Context, from, to *store.Site) error {
	carried, err := s.Carried(c, from)
	if err != nil {
		return err
	}
	all, err := s.Store.Media.List(c, from.ID)
	if err != nil {
		return err
	}
	checked, err := desk.CheckCarried(c, carried.Fonts)
	if err != nil {
		return err
	}
	for i, f := range carried.Fonts {
		if err := s.KeepFont(c, to.ID, f.Family, checked[i]); err != nil {
			return err
		}
	}
	infos, err := s.Store.Pages.List(c, from.ID)
	if err != nil {
		return err
	}
	locks := map[string]string{} // by address
	for _, p := range infos {
		locks[p.Slug] = p.Lock
	}
	ids := renaming{}
	for _, m := range all {
		brought, err := s.Pictures.Bring(c, media.By{Site: to.ID, User: shell.User(c).ID}, m)
		if err != nil {
			return err
		}
		ids.add(m.ID, brought.ID)
	}
	pages := make([]*doc.Page, len(carried.Pages))
	t := make(tree.Tree, len(pages))
	known := map[string]string{} // ids by address
	for i, p := range carried.Pages {
		if pages[i], err = ids.page(p.Page); err != nil {
			return err
		}
		pages[i].ID = store.NewID("p")
		known[p.Address] = pages[i].ID
		t[i] = tree.Page{ID: pages[i].ID, Address: p.Address, Name: p.Page.Name}
		if p.Under != "" {
			t[i].Parent = known[p.Under]
		}
	}
	carried.Site.Name = to.Name
	carried.Site.Icon.Medium, carried.Site.SharePicture = ids.to(
		carried.Site.Icon.Medium,
	), ids.to(
		carried.Site.SharePicture,
	)
	return s.fillCarried(c, to, carried, t, pages, locks)
}

// fillCarried keeps the pages of a new site where they stand, and what the site says of itself.
func (s *Screen) fillCarried(
	c *gin.Context,
	st *store.Site,
	carried carry.Site,
	t tree.Tree,
	pages []*doc.Page,
	locks map[string]string,
) error {
	return s.Store.Transaction(c, func(in *store.Store) error {
		if err := addPages(c, in, st.ID, t, pages); err != nil {
			return err
		}
		for i, p := range pages {
			at := carried.Pages[i]
			if at.Locked {
				if err := in.Tree.CloseLock(c, st.ID, p.ID, locks[at.Address]); err != nil {
					return err
				}
			}
			if err := in.Tree.SetPlacing(c, st.ID, p.ID, store.Placing{InMenu: at.InMenu, InFooter: at.InFooter, MenuName: at.MenuName}); err != nil {
				return err
			}
		}
		if err := in.Sites.SetMenus(c, st.ID, carried.Site.Menus); err != nil {
			return err
		}
		if err := in.Steps.Begun(c, st.ID); err != nil { // it isn't a first one
			return err
		}
		of := carried.Site
		return in.Sites.SetSettings(c, st.ID, store.Settings{
			Name: of.Name, Language: of.Language, TimeZone: of.TimeZone, SharePicture: of.SharePicture, Icon: of.Icon, Facts: of.Facts,
		})
	})
}

// renaming gives media other ids where a page names them.
type renaming struct {
	pairs []string
	ids   map[string]string
}

func (r *renaming) add(was, now string) {
	if r.ids == nil {
		r.ids = map[string]string{}
	}
	r.ids[was] = now
	r.pairs = append(r.pairs, `"`+was+`"`, `"`+now+`"`, `"`+doc.FilePrefix+was, `"`+doc.FilePrefix+now)
}

// to gives the id that one has now; "" where it has none.
func (r *renaming) to(was string) string { return r.ids[was] }

// page gives a copy of a page that names media by what they are called now.
func (r *renaming) page(p *doc.Page) (*doc.Page, error) {
	text, err := json.Marshal(p)
	if err != nil {
		return nil, err
	}
	d := new(doc.Page)
	return d, json.Unmarshal([]byte(strings.NewReplacer(r.pairs...).Replace(string(text))), d)
}

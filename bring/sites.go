package bring

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"os"
	"strings"

	"openplot/core/carry"
	"openplot/core/compare"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/core/style"
	"openplot/core/tree"
	"openplot/icons"
	"openplot/media"
	"openplot/site"
	"openplot/store"
)

// Tell hears how far the making of a site has come: done of so many parts.
type Tell func(done, of int)

// progress counts parts.
type progress struct {
	tell     Tell
	done, of int
}

func (p *progress) next() {
	p.done++
	p.tell(p.done, p.of)
}

// CheckFile reports what is wrong with a site's file, before any of it is taken. Errors are
// *doc.Problem when they are about the file.
func CheckFile(ctx context.Context, file *os.File) error {
	carried, _, medium, err := site.OpenFile(ctx, file, store.NewID)
	if err != nil {
		return err
	}
	if _, err := CheckFonts(ctx, carried.Fonts); err != nil {
		return err
	}
	for _, m := range carried.Media {
		f, err := medium(m)
		if err != nil {
			return err
		}
		_ = f.Close() // nothing was written
	}
	return nil
}

// FromFile makes a site of what a file holds, called name, or as in the file where that is "", for a
// user; lost tells what of it isn't as in the file. Errors are *doc.Problem when they are about the
// file.
func (m *Maker) FromFile(
	ctx context.Context,
	user, name string,
	file *os.File,
	tell Tell,
) (st *store.Site, lost []string, err error) {
	carried, t, medium, err := site.OpenFile(ctx, file, store.NewID)
	if err != nil {
		return nil, nil, err
	}
	if name != "" {
		carried.Site.Name = name
	}
	slug, err := m.Fresh(ctx, carried.Site.Name)
	if err != nil {
		return nil, nil, err
	}
	made, err := ready.NewSite(slug, carried.Site.Name, store.NewID)
	if err != nil {
		return nil, nil, err
	}
	checked, err := CheckFonts(ctx, carried.Fonts)
	if err != nil {
		return nil, nil, err
	}
	carried.Site.ID, carried.Site.Slug = made.ID, made.Slug
	st, err = m.Add(ctx, user, &carried.Site, func(st *store.Site) error {
		p := progress{tell: tell, of: len(carried.Media) + len(carried.Pages) + 1}
		for i, f := range carried.Fonts {
			if err := m.KeepFont(ctx, st.ID, f.Family, checked[i]); err != nil {
				return err
			}
		}
		ids, sorts := renaming{}, map[string]doc.MediumSort{}
		for _, one := range carried.Media {
			kept, err := m.keepCarried(ctx, media.By{Site: st.ID, User: user}, one, medium)
			if err != nil {
				return err
			}
			ids.add(one.ID, kept.ID)
			sorts[kept.ID] = kept.Sort()
			p.next()
		}
		env := edit.Env{
			Site:    &carried.Site,
			NewID:   store.NewID,
			HasIcon: icons.Has,
			Medium:  func(id string) doc.MediumSort { return sorts[id] },
		}
		pages := make([]*doc.Page, len(carried.Pages))
		for i, page := range carried.Pages {
			was, err := ids.page(page.Page)
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
			if page.Locked {
				lost = append(
					lost,
					pages[i].Name+": its password, so that nobody can open it until it gets another one",
				)
			}
			p.next()
		}
		edit.EvenShared(pages)
		carried.Site.Icon.Medium = ids.to(carried.Site.Icon.Medium)
		carried.Site.SharePicture = ids.to(carried.Site.SharePicture)
		if carried.Site, err = edit.TakeSettings(carried.Site, env); err != nil {
			return err
		}
		return m.fill(ctx, st, carried, t, pages, nil)
	})
	return st, lost, err
}

// keepCarried keeps a medium of a site's file, checked as an uploaded one.
func (m *Maker) keepCarried(
	ctx context.Context,
	by media.By,
	one carry.Medium,
	medium func(carry.Medium) (io.ReadCloser, error),
) (*store.Medium, error) {
	from, err := medium(one)
	if err != nil {
		return nil, err
	}
	defer from.Close()
	kept, err := m.Pictures.Keep(ctx, by, one.Name, one.Alt, from)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		return nil, doc.Problemf("Media", "in the file have %.80q, which can't be kept: %s", one.Name, problem.Message)
	}
	if err != nil {
		return nil, err
	}
	kept.Folder = one.Folder
	if focal, problem := style.Find("object-position", doc.Picture).Read(nil, one.Focal); problem == nil &&
		one.Focal != "" {
		kept.Focal = focal
	}
	return kept, m.Store.Media.Describe(ctx, kept)
}

// Copy makes a site with an address and a name that has the pages of another, its fonts and its media,
// for a user who may see all of it.
func (m *Maker) Copy(
	ctx context.Context,
	user string,
	from *store.Site,
	slug, name string,
	tell Tell,
) (*store.Site, error) {
	made, err := ready.NewSite(slug, name, store.NewID)
	if err != nil {
		return nil, err
	}
	copied := from.Site
	copied.ID, copied.Slug, copied.Name = made.ID, made.Slug, made.Name
	return m.Add(ctx, user, &copied, func(to *store.Site) error { return m.copyInto(ctx, user, from, to, tell) })
}

func (m *Maker) copyInto(ctx context.Context, user string, from, to *store.Site, tell Tell) error {
	carried, err := m.Carried(ctx, from)
	if err != nil {
		return err
	}
	all, err := m.Store.Media.List(ctx, from.ID)
	if err != nil {
		return err
	}
	checked, err := CheckFonts(ctx, carried.Fonts)
	if err != nil {
		return err
	}
	for i, f := range carried.Fonts {
		if err := m.KeepFont(ctx, to.ID, f.Family, checked[i]); err != nil {
			return err
		}
	}
	infos, err := m.Store.Pages.List(ctx, from.ID)
	if err != nil {
		return err
	}
	locks := map[string]string{} // by address
	for _, p := range infos {
		locks[p.Slug] = p.Lock
	}
	count := progress{tell: tell, of: len(all) + len(carried.Pages) + 1}
	ids := renaming{}
	for _, one := range all {
		brought, err := m.Pictures.Bring(ctx, media.By{Site: to.ID, User: user}, one)
		if err != nil {
			return err
		}
		ids.add(one.ID, brought.ID)
		count.next()
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
		count.next()
	}
	carried.Site.Name = to.Name
	carried.Site.Icon.Medium = ids.to(carried.Site.Icon.Medium)
	carried.Site.SharePicture = ids.to(carried.Site.SharePicture)
	return m.fill(ctx, to, carried, t, pages, locks)
}

// Page gives a page of a site as a new one of another, with an id: its media are brought along, and what
// that site's house style lacks is left out.
func (m *Maker) Page(
	ctx context.Context,
	by media.By,
	from *store.Site,
	page *doc.Page,
	to *store.Site,
	id string,
) (*doc.Page, error) {
	all, err := m.Store.Media.List(ctx, from.ID)
	if err != nil {
		return nil, err
	}
	text, err := json.Marshal(page)
	if err != nil {
		return nil, err
	}
	ids, sorts := renaming{}, map[string]doc.MediumSort{}
	for _, one := range all {
		if !strings.Contains(string(text), `"`+one.ID+`"`) && !strings.Contains(string(text), doc.FilePrefix+one.ID) {
			continue
		}
		brought, err := m.Pictures.Bring(ctx, by, one)
		if err != nil {
			return nil, err
		}
		ids.add(one.ID, brought.ID)
		sorts[brought.ID] = brought.Sort()
	}
	p, err := ids.page(page)
	if err != nil {
		return nil, err
	}
	for i, s := range p.Sections { // what is shared there isn't here
		if s.Shared {
			own := s.Clone()
			own.Shared = false
			p.Sections[i] = own
		}
	}
	return edit.TakePage(p, id, edit.Env{
		Site: &to.Site, NewID: store.NewID, HasIcon: icons.Has, Medium: func(id string) doc.MediumSort { return sorts[id] },
	})
}

// fill keeps the pages of a new site where they stand, and what the site says of itself.
func (m *Maker) fill(
	ctx context.Context,
	st *store.Site,
	carried carry.Site,
	t tree.Tree,
	pages []*doc.Page,
	locks map[string]string,
) error {
	return m.Store.Transaction(ctx, func(in *store.Store) error {
		if err := AddPages(ctx, in, st.ID, t, pages); err != nil {
			return err
		}
		for i, p := range pages {
			at := carried.Pages[i]
			if at.Locked {
				if err := in.Tree.CloseLock(ctx, st.ID, p.ID, locks[at.Address]); err != nil {
					return err
				}
			}
			placing := store.Placing{InMenu: at.InMenu, InFooter: at.InFooter, MenuName: at.MenuName}
			if err := in.Tree.SetPlacing(ctx, st.ID, p.ID, placing); err != nil {
				return err
			}
		}
		if err := in.Sites.SetMenus(ctx, st.ID, carried.Site.Menus); err != nil {
			return err
		}
		if err := in.Steps.Begun(ctx, st.ID); err != nil { // it isn't a first one
			return err
		}
		of := carried.Site
		return in.Sites.SetSettings(ctx, st.ID, store.Settings{
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

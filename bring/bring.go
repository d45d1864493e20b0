// Package bring makes sites of what there is already: of a site's file, and of another site. A site
// becomes visible when all of it is there; what is given up, or was left by a program that ended,
// goes.
//
// In come package store, where sites are, and package media, where their files are. Nothing here
// knows of requests: it is called from one, or from a queue. Start at Maker.
package bring

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/policy"
	"openplot/core/tree"
	"openplot/durable"
	"openplot/fonts"
	"openplot/media"
	"openplot/store"
)

// Maker makes sites. Safe for concurrent use.
type Maker struct {
	Store    *store.Store
	Pictures *media.Keeper
	MediaDir string
}

// Hold keeps a file until a site was made of it, and gives its name in the media folder.
func (m *Maker) Hold(id string, from io.Reader) (name string, err error) {
	name = id + ".site.zip"
	_, err = durable.Copy(filepath.Join(m.MediaDir, name), from)
	return name, err
}

// Held opens a file that is kept so.
func (m *Maker) Held(name string) (*os.File, error) { return os.Open(filepath.Join(m.MediaDir, name)) }

// Release forgets a file that was kept so, if there is one.
func (m *Maker) Release(name string) {
	if name != "" {
		_ = os.Remove(filepath.Join(m.MediaDir, name)) // collected otherwise
	}
}

// Fresh derives an address from a site's name that no site has, or "".
func (m *Maker) Fresh(ctx context.Context, name string) (slug string, err error) {
	if name == "" {
		return "", nil
	}
	slug = tree.Fresh(name, "site", func(word string) bool {
		taken, terr := m.Store.Sites.Taken(ctx, word)
		err = errors.Join(err, terr)
		return terr == nil && (taken || doc.SiteReserved(word))
	})
	return slug, err
}

// Add keeps a new site, with a user as its owner, and has fill give it its pages; all of it, or
// nothing, also when the program is killed meanwhile. Errors are *doc.Problem when the site can't be
// as it is wanted.
func (m *Maker) Add(
	ctx context.Context,
	user string,
	made *doc.Site,
	fill func(st *store.Site) error,
) (*store.Site, error) {
	if err := m.Store.Transaction(ctx, func(in *store.Store) error {
		if err := in.Sites.MayBegin(ctx, user); err != nil {
			return err
		}
		if err := in.Sites.Add(ctx, made); err != nil {
			return err
		}
		if err := in.Jobs.Making(ctx, made.ID); err != nil {
			return err
		}
		return in.People.AddMember(ctx, made.ID, user, store.Owner)
	}); err != nil {
		return nil, err
	}
	st, err := m.Store.Sites.ByIDFor(ctx, user, made.ID)
	if err == nil {
		err = fill(st)
	}
	if err == nil {
		err = m.Store.Jobs.Made(ctx, made.ID)
	}
	if err != nil {
		// What there is of it isn't one that anybody asked for.
		return nil, errors.Join(err, m.Store.Sites.Drop(context.WithoutCancel(ctx), made.ID))
	}
	return st, nil
}

// AddPages keeps the pages of a new site where a tree has them.
func AddPages(ctx context.Context, in *store.Store, site string, t tree.Tree, pages []*doc.Page) error {
	for i, p := range pages {
		if err := in.Pages.Add(ctx, site, t[i].Address, i, p); err != nil {
			return err
		}
	}
	return in.Tree.Rearrange(ctx, site, func(now tree.Tree) (tree.Tree, error) {
		now = slices.Clone(now)
		for i := range now {
			now[i].Parent = t[t.Index(now[i].ID)].Parent
		}
		return tree.Sorted(now), nil
	})
}

// Carried gives a site with all that it needs elsewhere; of a medium the file's name is the one
// in the media folder.
func (m *Maker) Carried(ctx context.Context, st *store.Site) (c carry.Site, err error) {
	c.Site = st.Site
	own, err := m.Store.Houses.Fonts(ctx, st.ID)
	if err != nil {
		return c, err
	}
	for _, f := range own {
		b, err := os.ReadFile(filepath.Join(m.MediaDir, f.File))
		if err != nil {
			return c, err
		}
		c.Fonts = append(c.Fonts, carry.Font{Family: f.Family, WOFF2: b})
	}
	all, err := m.Store.Media.List(ctx, st.ID)
	if err != nil {
		return c, err
	}
	for _, m := range all {
		file := m.Original
		if file == "" {
			file = m.Variants[len(m.Variants)-1].File
		}
		c.Media = append(
			c.Media,
			carry.Medium{ID: m.ID, File: file, Name: m.Name, Alt: m.Alt, Focal: m.Focal, Folder: m.Folder},
		)
	}
	infos, err := m.Store.Pages.List(ctx, st.ID)
	if err != nil {
		return c, err
	}
	addresses := map[string]string{}
	for _, at := range store.Tree(infos) {
		i := slices.IndexFunc(infos, func(p *store.PageInfo) bool { return p.ID == at.ID })
		p, err := m.Store.Pages.ByID(ctx, st.ID, at.ID)
		if err != nil {
			return c, err
		}
		addresses[at.ID] = at.Address
		placing := infos[i].Placing
		c.Pages = append(c.Pages, carry.Page{
			Address: at.Address, Under: addresses[at.Parent], InMenu: placing.InMenu, InFooter: placing.InFooter, MenuName: placing.MenuName, Locked: p.Lock != "", Page: p.Doc,
		})
	}
	return c, nil
}

// CheckFonts checks fonts of a file as uploaded ones. Errors are *doc.Problem when they are about
// one.
func CheckFonts(ctx context.Context, carried []carry.Font) ([]*fonts.Own, error) {
	if len(carried) > policy.Fonts {
		return nil, doc.Problemf("Fonts", "in the file are %d; %d is the most a site has", len(carried), policy.Fonts)
	}
	checked := make([]*fonts.Own, len(carried))
	for i, f := range carried {
		own, err := fonts.ReadOwn(ctx, f.WOFF2)
		var problem *doc.Problem
		if errors.As(err, &problem) {
			return nil, doc.Problemf("Fonts", "of %s in the file can't be used: it %s", f.Family, problem.Message)
		}
		if err != nil {
			return nil, err
		}
		checked[i] = own
	}
	return checked, nil
}

// KeepFont writes a font's files and keeps it for a site.
func (m *Maker) KeepFont(ctx context.Context, site, family string, own *fonts.Own) error {
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
		if err := durable.Write(filepath.Join(m.MediaDir, name), b); err != nil {
			return fmt.Errorf("keeping a font: %w", err)
		}
	}
	return m.Store.Houses.AddFont(ctx, f)
}

package store

import (
	"cmp"
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
)

// Tree gives pages, as Pages lists them, as a tree.
func Tree(infos []*PageInfo) tree.Tree {
	pages := make([]tree.Page, len(infos))
	for i, p := range infos {
		pages[i] = p.place()
	}
	return tree.Sorted(pages)
}

func (p *PageInfo) place() tree.Page {
	t := tree.Page{ID: p.ID, Address: p.Slug, Name: p.Name}
	if p.Parent != nil {
		t.Parent = *p.Parent
	}
	return t
}

// Rearrange changes where the pages of a site stand, and with that their addresses. Addresses
// that visitors know lead to where the pages are now, and so do the links on all pages of the
// site. Errors are change's.
func (s *PageTree) Rearrange(ctx context.Context, site string, change func(tree.Tree) (tree.Tree, error)) error {
	return s.arrange(ctx, site, nil, change)
}

// Put adds a new page to the tree of a site.
func (s *PageTree) Put(ctx context.Context, site string, p *doc.Page, change func(tree.Tree) (tree.Tree, error)) error {
	return s.arrange(ctx, site, func(ctx context.Context, tx *sqlx.Tx, at tree.Page, position int) error {
		in := s.within(tx)
		if err := in.Pages.Add(ctx, site, at.Address, position, p); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `UPDATE pages SET parent = nullif($2, '') WHERE id = $1`, p.ID, at.Parent)
		return err
	}, change)
}

// arrange makes the tree of a site what change says. add keeps the page that is new, if there
// is one; those that are gone are deleted, and can be had back.
func (s *PageTree) arrange(
	ctx context.Context, site string, add func(ctx context.Context, tx *sqlx.Tx, at tree.Page, position int) error,
	change func(tree.Tree) (tree.Tree, error),
) error {
	changed := map[string]*Edited{}
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE sites SET version = version + 1 WHERE id = $1`, site); err != nil { // which locks it
			return fmt.Errorf("locking the site: %w", err)
		}
		if _, err := tx.ExecContext(ctx, `SELECT FROM pages WHERE site_id = $1 ORDER BY id FOR NO KEY UPDATE`, site); err != nil {
			return fmt.Errorf("locking pages: %w", err)
		}
		in := s.within(tx)
		infos, err := in.Pages.List(ctx, site)
		if err != nil {
			return err
		}
		was := Tree(infos)
		next, err := change(was)
		if err != nil {
			return err
		}
		if err := keepTree(ctx, tx, was, next, add); err != nil {
			return err
		}
		moved := was.Moved(next)
		if err := redirect(ctx, tx, site, infos, moved); err != nil {
			return err
		}
		changed, err = s.relink(ctx, tx, site, moved)
		return err
	})
	if err != nil {
		return err
	}
	for id, e := range changed {
		s.pages.put(id, e.Seq, e.Page)
	}
	return nil
}

// keepTree writes where pages stand that stood elsewhere.
func keepTree(
	ctx context.Context,
	tx *sqlx.Tx,
	was, next tree.Tree,
	add func(context.Context, *sqlx.Tx, tree.Page, int) error,
) error {
	var ids, parents, slugs []string
	for i, p := range next {
		if add != nil && was.Index(p.ID) < 0 {
			if err := add(ctx, tx, p, i); err != nil {
				return err
			}
		}
		ids, parents, slugs = append(ids, p.ID), append(parents, p.Parent), append(slugs, p.Address)
	}
	if _, err := tx.ExecContext(ctx, `UPDATE pages p SET position = n.at, parent = nullif(n.parent, ''), slug = n.slug
		FROM unnest($1::text[], $2::text[], $3::text[]) WITH ORDINALITY n(id, parent, slug, at)
		WHERE p.id = n.id AND (p.position, coalesce(p.parent, ''), p.slug) IS DISTINCT FROM (n.at, n.parent, n.slug)`, ids, parents, slugs); err != nil {
		return fmt.Errorf("moving pages: %w", err)
	}
	for _, p := range was {
		if next.Index(p.ID) < 0 {
			if _, err := tx.ExecContext(ctx, `UPDATE pages SET deleted_at = now() WHERE id = $1`, p.ID); err != nil {
				return fmt.Errorf("deleting a page: %w", err)
			}
		}
	}
	return nil
}

// redirect has old addresses of pages lead to them that were published, and ends redirects from
// addresses at which there is a page now.
func redirect(ctx context.Context, tx *sqlx.Tx, site string, infos []*PageInfo, moved map[string]string) error {
	for _, p := range infos {
		if _, ok := moved[p.Slug]; !ok || p.PublishedAt == nil || p.Slug == "" {
			continue
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO redirects (site_id, address, page_id) VALUES ($1, $2, $3)
			ON CONFLICT (site_id, address) DO UPDATE SET page_id = $3, target = '', made_at = now()`, site, p.Slug, p.ID); err != nil {
			return fmt.Errorf("keeping an old address: %w", err)
		}
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM redirects r USING pages p WHERE r.site_id = $1 AND p.site_id = $1 AND p.deleted_at IS NULL AND p.slug = r.address`, site); err != nil {
		return fmt.Errorf("ending redirects: %w", err)
	}
	return nil
}

// relink has the links on all pages of a site follow pages that moved. It is the program's doing
// and nobody's to take back: the address would stay.
func (s *PageTree) relink(
	ctx context.Context,
	tx *sqlx.Tx,
	site string,
	moved map[string]string,
) (map[string]*Edited, error) {
	if len(moved) == 0 {
		return nil, nil
	}
	var text []byte
	if err := tx.GetContext(ctx, &text, `SELECT menus FROM sites WHERE id = $1`, site); err != nil {
		return nil, fmt.Errorf("reading the menus: %w", notFound(err))
	}
	var menus map[string][]doc.MenuItem
	if err := json.Unmarshal(text, &menus); err != nil {
		return nil, fmt.Errorf("reading the menus: %w", err)
	}
	if edit.RelinkMenus(menus, moved) {
		if err := s.within(tx).Sites.SetMenus(ctx, site, menus); err != nil {
			return nil, err
		}
	}
	like := make([]string, 0, len(moved))
	for _, from := range slices.Sorted(maps.Keys(moved)) {
		like = append(like, `"/`+from)
	}
	var ids []string
	if err := tx.SelectContext(ctx, &ids, `SELECT id FROM pages WHERE site_id = $1 AND EXISTS (SELECT FROM unnest($2::text[]) u WHERE strpos(doc::text, u) > 0) ORDER BY id`,
		site, like); err != nil {
		return nil, fmt.Errorf("looking for links: %w", err)
	}
	done, act := map[string]*Edited{}, NewID("a")
	for _, id := range ids {
		seq, d, err := s.all.Pages.lock(ctx, tx, id)
		if err != nil {
			return nil, err
		}
		r, err := edit.Relink(d, moved)
		if err != nil {
			return nil, err
		}
		if r == nil {
			continue
		}
		if err := s.all.Pages.append(ctx, tx, entry{page: id, seq: seq + 1, kind: kindEdit, act: &act, result: r}); err != nil {
			return nil, err
		}
		done[id] = &Edited{Page: r.Page, Seq: seq + 1}
	}
	return done, nil
}

// Deleted lists the pages of a site that can be had back, those deleted last first.
func (s *PageTree) Deleted(ctx context.Context, site string) (ps []*PageInfo, err error) {
	if err := s.db.SelectContext(ctx, &ps, `SELECT `+pageColumns+` FROM pages p WHERE p.site_id = $1 AND p.deleted_at IS NOT NULL ORDER BY p.deleted_at DESC, p.slug`, site); err != nil {
		return nil, fmt.Errorf("listing deleted pages: %w", err)
	}
	return ps, nil
}

// Restore brings a deleted page back: where it stood, if that is still there, at its address
// or, where that is taken, at another.
func (s *PageTree) Restore(ctx context.Context, site, id string) error {
	return s.all.OnSite(ctx, site, func(in *Store) error {
		var p PageInfo
		if err := in.db.GetContext(ctx, &p, `SELECT `+pageColumns+` FROM pages p WHERE p.site_id = $1 AND p.id = $2 AND p.deleted_at IS NOT NULL FOR NO KEY UPDATE`, site, id); err != nil {
			return fmt.Errorf("finding a deleted page: %w", notFound(err))
		}
		return in.Tree.arrange(ctx, site, func(ctx context.Context, tx *sqlx.Tx, at tree.Page, position int) error {
			_, err := tx.ExecContext(
				ctx,
				`UPDATE pages SET deleted_at = NULL, slug = $2, parent = nullif($3, ''), position = $4 WHERE id = $1`,
				id,
				at.Address,
				at.Parent,
				position,
			)
			return err
		}, func(t tree.Tree) (tree.Tree, error) {
			at := p.place()
			word := at.Address[strings.LastIndex(at.Address, "/")+1:]
			if t.Index(at.Parent) < 0 || t.Depth(at.Parent)+1 >= tree.MaxDepth {
				at.Parent = ""
			}
			if t.Taken(at.Parent)(word) {
				word = tree.Fresh(cmp.Or(word, at.Name), "page", t.Taken(at.Parent))
			}
			return t.Add(at, word)
		})
	})
}

// Forget ends pages that were deleted before a time.
func (s *PageTree) Forget(ctx context.Context, before time.Time) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM pages WHERE deleted_at < $1`, before); err != nil {
		return fmt.Errorf("ending deleted pages: %w", err)
	}
	return nil
}

// Placing is what a page is in the site's menus, beside its place.
type Placing struct {
	InMenu   bool   `db:"in_menu"`
	InFooter bool   `db:"in_footer"`
	MenuName string `db:"menu_name"` // "" is the page's name
}

// SetPlacing keeps what a page is in menus.
func (s *PageTree) SetPlacing(ctx context.Context, site, page string, p Placing) error {
	return s.changePage(
		ctx,
		site,
		page,
		`in_menu = $3, in_footer = $4, menu_name = $5`,
		p.InMenu,
		p.InFooter,
		p.MenuName,
	)
}

// LockPage gives a page a password that visitors need from now on, or none for "": nothing that
// it says is searched any more. Errors are *doc.Problem.
func (s *PageTree) LockPage(ctx context.Context, site, page, password string) error {
	hash := ""
	if password != "" {
		if n := len([]rune(password)); n < leastLock || n > 200 {
			return doc.Problemf("Password", "has %d characters; choose %d to 200", n, leastLock)
		}
		var err error
		if hash, err = s.all.People.hash(ctx, password); err != nil {
			return err
		}
	}
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if err := s.within(tx).Tree.changePage(ctx, site, page, `lock = $3`, hash); err != nil {
			return err
		}
		if hash == "" { // it is found by what it says once it is published again
			return nil
		}
		if _, err := tx.ExecContext(ctx, `UPDATE published SET name = '', description = '', words = '' WHERE page_id = $1`, page); err != nil {
			return fmt.Errorf("forgetting what a page says: %w", err)
		}
		return nil
	})
}

// CloseLock gives a page of a new site a lock whose hash is known, or for "" one that no password
// opens, until it gets another.
func (s *PageTree) CloseLock(ctx context.Context, site, page, hash string) error {
	return s.changePage(ctx, site, page, `lock = $3`, cmp.Or(hash, "none "+rand.Text()))
}

// leastLock is how many characters a page's password has at least: it is one that is told to
// many, and attempts are limited.
const leastLock = 4

func (s *PageTree) changePage(ctx context.Context, site, page, set string, args ...any) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE sites SET version = version + 1 WHERE id = $1`, site); err != nil { // which locks it
			return fmt.Errorf("changing the site: %w", err)
		}
		r, err := tx.ExecContext(
			ctx,
			`UPDATE pages SET `+set+` WHERE site_id = $1 AND id = $2 AND deleted_at IS NULL`,
			append([]any{site, page}, args...)...)
		if err != nil {
			return fmt.Errorf("changing a page: %w", err)
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return errors.Join(ErrNotFound, err)
		}
		return nil
	})
}

// Redirect is an address of a site that leads elsewhere.
type Redirect struct {
	Address string    `db:"address"`
	Page    string    `db:"page"`   // the id of the page that it leads to, or ""
	Target  string    `db:"target"` // what somebody entered otherwise, as tree.Redirects has it
	MadeAt  time.Time `db:"made_at"`
}

// Redirects lists those of a site.
func (s *PageTree) Redirects(ctx context.Context, site string) (rs []Redirect, err error) {
	if err := s.db.SelectContext(ctx, &rs, `SELECT address, coalesce(page_id, '') AS page, target, made_at FROM redirects WHERE site_id = $1 ORDER BY address`, site); err != nil {
		return nil, fmt.Errorf("listing redirects: %w", err)
	}
	return rs, nil
}

// AddRedirect keeps an address that leads elsewhere. Errors are *doc.Problem.
func (s *PageTree) AddRedirect(ctx context.Context, site, from, to string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if err := lockSite(ctx, tx, site); err != nil {
			return err
		}
		in := s.within(tx)
		infos, err := in.Pages.List(ctx, site)
		if err != nil {
			return err
		}
		rs, err := in.Tree.Redirects(ctx, site)
		if err != nil {
			return err
		}
		all := tree.Redirects{}
		for _, r := range rs {
			all[r.Address] = r.Target // one to a page ends there
		}
		next, err := all.Add(Tree(infos), from, to)
		if err != nil {
			return err
		}
		for address, target := range next {
			if was, ok := all[address]; ok && was == target {
				continue
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO redirects (site_id, address, target) VALUES ($1, $2, nullif($3, ''))
				ON CONFLICT (site_id, address) DO UPDATE SET target = EXCLUDED.target, page_id = NULL, made_at = now()`, site, address, cmp.Or(target, "/")); err != nil {
				return fmt.Errorf("keeping a redirect: %w", err)
			}
		}
		return nil
	})
}

// DropRedirect ends one.
func (s *PageTree) DropRedirect(ctx context.Context, site, address string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM redirects WHERE site_id = $1 AND address = $2`, site, Clean(address)); err != nil {
		return fmt.Errorf("ending a redirect: %w", err)
	}
	return nil
}

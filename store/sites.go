package store

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
)

// Site is a site as somebody sees it.
type Site struct {
	doc.Site
	Version int64 // changes with the house style and the zones
	Role    Role  // of the person who asked
	// Worn is the id of the house style that is tried on, its own then being another.
	Worn string
	// EntryDays is how long what visitors send is kept.
	EntryDays int
	// Mail is how mails go out.
	Mail MailSettings
	// Archived is set aside: it is published as it was, and lists leave it out.
	Archived bool
	// Offline shows visitors some words instead of its pages.
	Offline bool
	// Begun has no first steps to show.
	Begun bool
}

type siteRow struct {
	ID        string `db:"id"`
	Slug      string `db:"slug"`
	Name      string `db:"name"`
	House     []byte `db:"house"`
	Zones     []byte `db:"zones"`
	Facts     []byte `db:"facts"`
	Language  string `db:"language"`
	Business  string `db:"business"`
	EntryDays int    `db:"entry_days"`
	MailTo    string `db:"mail_to"`
	MailName  string `db:"mail_name"`
	MailReply string `db:"mail_reply"`
	Picture   string `db:"share_picture"`
	Icon      []byte `db:"icon"`
	TimeZone  string `db:"time_zone"`
	Menus     []byte `db:"menus"`
	Archived  bool   `db:"archived"`
	Offline   bool   `db:"offline"`
	Begun     bool   `db:"begun"`
	Counts    bool   `db:"counts_visits"`
	Version   int64  `db:"version"`
	Role      Role   `db:"role"`
}

func (r siteRow) site() (*Site, error) {
	s := &Site{
		Site: doc.Site{
			ID: r.ID, Slug: r.Slug, Name: r.Name, Language: r.Language, Business: r.Business, SharePicture: r.Picture, TimeZone: r.TimeZone,
			CountsVisits: r.Counts,
		},
		EntryDays: r.EntryDays, Mail: MailSettings{r.MailTo, r.MailName, r.MailReply}, Version: r.Version, Role: r.Role, Archived: r.Archived, Offline: r.Offline, Begun: r.Begun,
	}
	if err := json.Unmarshal(r.Menus, &s.Menus); err != nil {
		return nil, fmt.Errorf("reading the menus of %s: %w", r.Slug, err)
	}
	if err := json.Unmarshal(r.Icon, &s.Icon); err != nil {
		return nil, fmt.Errorf("reading the icon of %s: %w", r.Slug, err)
	}
	if err := json.Unmarshal(r.House, &s.House); err != nil {
		return nil, fmt.Errorf("reading the house style of %s: %w", r.Slug, err)
	}
	if err := json.Unmarshal(r.Zones, &s.Zones); err != nil {
		return nil, fmt.Errorf("reading the zones of %s: %w", r.Slug, err)
	}
	if err := json.Unmarshal(r.Facts, &s.Facts); err != nil {
		return nil, fmt.Errorf("reading the facts of %s: %w", r.Slug, err)
	}
	s.Zones = s.Zones.WithHeights(s.House.ViewHeight)
	return s, nil
}

const siteColumns = `s.id, s.slug, s.name, s.house, s.zones, s.facts, s.version, s.language, s.business, s.entry_days, s.mail_to, s.mail_name, s.mail_reply,
	s.share_picture, s.icon, s.time_zone, s.menus, s.archived_at IS NOT NULL AS archived, s.offline_at IS NOT NULL AS offline, s.begun, s.counts_visits`

// List gives the sites a person is a member of, by name.
func (s *Sites) List(ctx context.Context, user string) ([]*Site, error) {
	var rows []siteRow
	err := s.db.SelectContext(
		ctx,
		&rows,
		`SELECT `+siteColumns+`, m.role FROM sites s JOIN members m ON m.site_id = s.id WHERE m.user_id = $1 AND s.deleted_at IS NULL AND s.maker IS NULL ORDER BY s.name`,
		user,
	)
	if err != nil {
		return nil, fmt.Errorf("listing sites: %w", err)
	}
	out := make([]*Site, len(rows))
	for i, r := range rows {
		if out[i], err = r.site(); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// BySlugFor gives a site by slug as a member sees it; ErrNotFound for anybody else.
func (s *Sites) BySlugFor(ctx context.Context, user, slug string) (*Site, error) {
	var r siteRow
	err := s.db.GetContext(
		ctx,
		&r,
		`SELECT `+siteColumns+`, m.role FROM sites s JOIN members m ON m.site_id = s.id WHERE m.user_id = $1 AND s.slug = $2 AND s.deleted_at IS NULL AND s.maker IS NULL`,
		user,
		slug,
	)
	if err != nil {
		return nil, fmt.Errorf("finding site: %w", notFound(err))
	}
	return r.site()
}

// ByIDFor gives a site by id as a member sees it who has an account that isn't disabled;
// ErrNotFound for anybody else.
func (s *Sites) ByIDFor(ctx context.Context, user, id string) (*Site, error) {
	var r siteRow
	if err := s.db.GetContext(ctx, &r, `SELECT `+siteColumns+`, m.role FROM sites s JOIN members m ON m.site_id = s.id
		JOIN users u ON u.id = m.user_id AND u.disabled_at IS NULL WHERE m.user_id = $1 AND s.id = $2 AND s.deleted_at IS NULL`, user, id); err != nil {
		return nil, fmt.Errorf("finding site: %w", notFound(err))
	}
	return r.site()
}

// BySlug gives a site to the program itself; Role is empty.
func (s *Sites) BySlug(ctx context.Context, slug string) (*Site, error) {
	var r siteRow
	err := s.db.GetContext(
		ctx,
		&r,
		`SELECT `+siteColumns+`, '' AS role FROM sites s WHERE s.slug = $1 AND s.deleted_at IS NULL AND s.maker IS NULL`,
		slug,
	)
	if err != nil {
		return nil, fmt.Errorf("finding site: %w", notFound(err))
	}
	return r.site()
}

// ByID gives a site to the program itself; Role is empty. ErrNotFound when it is deleted.
func (s *Sites) ByID(ctx context.Context, id string) (*Site, error) {
	var r siteRow
	if err := s.db.GetContext(ctx, &r, `SELECT `+siteColumns+`, '' AS role FROM sites s WHERE s.id = $1 AND s.deleted_at IS NULL`, id); err != nil {
		return nil, fmt.Errorf("finding site: %w", notFound(err))
	}
	return r.site()
}

// Add keeps a new site.
func (s *Sites) Add(ctx context.Context, site *doc.Site) error {
	house, err := json.Marshal(site.House)
	if err != nil {
		return fmt.Errorf("writing the house style: %w", err)
	}
	zones, err := json.Marshal(site.Zones)
	if err != nil {
		return fmt.Errorf("writing the zones: %w", err)
	}
	facts, err := json.Marshal(site.Facts)
	if err != nil {
		return fmt.Errorf("writing the facts: %w", err)
	}
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		_, err := tx.ExecContext(
			ctx,
			`INSERT INTO sites (id, slug, name, house, zones, facts, language, business) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
			site.ID,
			site.Slug,
			site.Name,
			house,
			zones,
			facts,
			cmp.Or(site.Language, "en"),
			site.Business,
		)
		if duplicate(err) {
			return doc.Problemf("Address", "%q is another site’s already; choose another", site.Slug)
		}
		if err != nil {
			return fmt.Errorf("adding site %s: %w", site.Slug, err)
		}
		return takeAddress(ctx, tx, site.Slug)
	})
}

// SetBusiness keeps what kind of business a site is for.
func (s *Sites) SetBusiness(ctx context.Context, site, business string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET business = $2, version = version + 1 WHERE id = $1`, site, business); err != nil {
		return fmt.Errorf("keeping the kind of business: %w", err)
	}
	return nil
}

// SetZones changes a site's zones; what they were is kept, to be had back. Errors are change's.
func (s *Sites) SetZones(ctx context.Context, site string, change func(doc.Zones) (doc.Zones, error)) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		var text []byte
		if err := tx.GetContext(ctx, &text, `SELECT zones FROM sites WHERE id = $1 FOR NO KEY UPDATE`, site); err != nil {
			return fmt.Errorf("reading the zones: %w", notFound(err))
		}
		var zs doc.Zones
		if err := json.Unmarshal(text, &zs); err != nil {
			return fmt.Errorf("reading the zones: %w", err)
		}
		next, err := change(zs)
		if err != nil {
			return err
		}
		b, err := json.Marshal(next)
		if err != nil {
			return fmt.Errorf("writing the zones: %w", err)
		}
		if _, err := tx.ExecContext(ctx, `UPDATE sites SET zones_before = zones::jsonb, zones = $2, version = version + 1 WHERE id = $1`, site, b); err != nil {
			return fmt.Errorf("keeping the zones: %w", err)
		}
		return nil
	})
}

// ZonesBefore gives a site's zones as they were before they were changed last, or none.
func (s *Sites) ZonesBefore(ctx context.Context, site string) (doc.Zones, error) {
	var text []byte
	if err := s.db.GetContext(ctx, &text, `SELECT coalesce(zones_before, '[]') FROM sites WHERE id = $1`, site); err != nil {
		return nil, fmt.Errorf("reading the zones: %w", notFound(err))
	}
	var zs doc.Zones
	if err := json.Unmarshal(text, &zs); err != nil {
		return nil, fmt.Errorf("reading the zones: %w", err)
	}
	return zs, nil
}

// Settings are what a site's people say about all of it.
type Settings struct {
	Name, Language, TimeZone string
	SharePicture             string
	Icon                     doc.SiteIcon
	Facts                    doc.Facts
}

// SetSettings keeps them.
func (s *Sites) SetSettings(ctx context.Context, site string, v Settings) error {
	facts, err := json.Marshal(v.Facts)
	if err != nil {
		return fmt.Errorf("writing the facts: %w", err)
	}
	icon, err := json.Marshal(v.Icon)
	if err != nil {
		return fmt.Errorf("writing the icon: %w", err)
	}
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET name = $2, language = $3, time_zone = $4, share_picture = $5, icon = $6, facts = $7, version = version + 1
		WHERE id = $1`, site, v.Name, cmp.Or(v.Language, "en"), v.TimeZone, v.SharePicture, icon, facts); err != nil {
		return fmt.Errorf("keeping the settings: %w", err)
	}
	return nil
}

// SetMenus keeps what a site's menus hold beside pages.
func (s *Sites) SetMenus(ctx context.Context, site string, menus map[string][]doc.MenuItem) error {
	b, err := json.Marshal(menus)
	if err != nil {
		return fmt.Errorf("writing the menus: %w", err)
	}
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET menus = $2, version = version + 1 WHERE id = $1`, site, b); err != nil {
		return fmt.Errorf("keeping the menus: %w", err)
	}
	return nil
}

package store

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"strings"
)

// textConfigs are PostgreSQL's text search configurations by language (PostgreSQL 15 §12.1.3,
// pg_catalog.pg_ts_config).
var textConfigs = map[string]string{
	"ar": "arabic", "ca": "catalan", "da": "danish", "de": "german", "el": "greek", "en": "english", "es": "spanish", "eu": "basque", "fi": "finnish",
	"fr": "french", "ga": "irish", "hi": "hindi", "hu": "hungarian", "hy": "armenian", "id": "indonesian", "it": "italian", "lt": "lithuanian",
	"nb": "norwegian", "ne": "nepali", "nl": "dutch", "nn": "norwegian", "no": "norwegian", "pt": "portuguese", "ro": "romanian", "ru": "russian",
	"sr": "serbian", "sv": "swedish", "ta": "tamil", "tr": "turkish", "yi": "yiddish",
}

// textConfig is the configuration of a language (BCP 47).
func textConfig(language string) string {
	primary, _, _ := strings.Cut(language, "-")
	return cmp.Or(textConfigs[primary], "simple")
}

// Found is a published page that a search found.
type Found struct {
	Slug string `db:"slug"`
	Name string `db:"name"`
	// Excerpt is what it says around the words, which stand between FoundFrom and FoundTo.
	Excerpt string `db:"excerpt"`
}

// Marks around words that were searched for, which no text has (Clean, doc).
const (
	FoundFrom = "\x02"
	FoundTo   = "\x03"
)

// Search gives the published pages of a site that say what is searched for, the fitting
// first: words in any form of the site's language, "phrases", or, and - for not.
func (s *Visible) Search(ctx context.Context, site, query string, limit int) (found []Found, err error) {
	if err := s.db.SelectContext(ctx, &found, `WITH best AS (
			SELECT p.slug, p.name, p.description, p.words, p.config, q, ts_rank_cd(p.search, q) AS rank
			FROM published p JOIN shown_sites s ON s.id = p.site_id JOIN pages d ON d.id = p.page_id AND d.lock = '' AND d.deleted_at IS NULL,
				websearch_to_tsquery(p.config, $2) q WHERE p.site_id = $1 AND p.search @@ q ORDER BY rank DESC, p.slug LIMIT $3)
		SELECT slug, name, ts_headline(config, concat_ws(' · ', nullif(description, ''), words), q,
			'MaxFragments=2, MaxWords=24, MinWords=12, StartSel=`+FoundFrom+`, StopSel=`+FoundTo+`') AS excerpt FROM best ORDER BY rank DESC, slug`,
		site, Clean(query), limit); err != nil {
		return nil, fmt.Errorf("searching: %w", err)
	}
	return found, nil
}

// FormFields gives the names of the fields of a form that is on a published page of a site, in
// their order; ErrNotFound when there is no such form.
func (s *Visible) FormFields(ctx context.Context, site, form string) (fields []string, err error) {
	var text []byte
	if err := s.db.GetContext(ctx, &text, `SELECT coalesce(p.fields->$2, '[]') FROM published p JOIN shown_sites s ON s.id = p.site_id
		WHERE p.site_id = $1 AND $2 = ANY (p.forms) ORDER BY p.fields IS NULL, p.page_id LIMIT 1`, site, Clean(form)); err != nil {
		return nil, fmt.Errorf("looking for a form: %w", notFound(err))
	}
	if err := json.Unmarshal(text, &fields); err != nil {
		return nil, fmt.Errorf("reading the fields of a form: %w", err)
	}
	return fields, nil
}

// FormPages gives the pages of a site that visitors send forms from, by the ids of the forms' blocks.
func (s *Visible) FormPages(ctx context.Context, site string) (pages map[string]string, err error) {
	var rows []struct {
		Form string `db:"form"`
		Page string `db:"page_id"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT f AS form, p.page_id FROM published p, unnest(p.forms) f WHERE p.site_id = $1 ORDER BY p.page_id DESC`, site); err != nil {
		return nil, fmt.Errorf("looking for forms: %w", err)
	}
	pages = map[string]string{}
	for _, r := range rows {
		pages[r.Form] = r.Page
	}
	return pages, nil
}

// FieldsUnknown gives the pages of a site whose forms were published before their fields were kept.
func (s *Visible) FieldsUnknown(ctx context.Context, site string) (pages []string, err error) {
	if err := s.db.SelectContext(ctx, &pages, `SELECT page_id FROM published WHERE site_id = $1 AND fields IS NULL ORDER BY page_id`, site); err != nil {
		return nil, fmt.Errorf("looking for forms: %w", err)
	}
	return pages, nil
}

// KeepFields keeps the fields of the forms that a page has as it is published.
func (s *Visible) KeepFields(ctx context.Context, page string, said Said) error {
	_, fields, err := said.columns()
	if err == nil {
		_, err = s.db.ExecContext(ctx, `UPDATE published SET fields = $2 WHERE page_id = $1`, page, fields)
	}
	if err != nil {
		return fmt.Errorf("keeping the fields of forms: %w", err)
	}
	return nil
}

// KnownPage is what visitors know of a page.
type KnownPage struct {
	ID          string `db:"page_id"`
	Slug        string `db:"slug"`
	Name        string `db:"name"`
	Description string `db:"description"`
}

// Known gives the pages of a site that visitors can find, as they were published, by id; of those
// with a password nothing.
func (s *Visible) Known(ctx context.Context, site string) (map[string]KnownPage, error) {
	var rows []KnownPage
	if err := s.db.SelectContext(ctx, &rows, `SELECT p.page_id, p.slug, p.name, p.description FROM published p
		JOIN pages d ON d.id = p.page_id AND d.lock = '' AND d.deleted_at IS NULL WHERE p.site_id = $1 AND p.name <> ''`, site); err != nil {
		return nil, fmt.Errorf("reading what is published: %w", err)
	}
	out := make(map[string]KnownPage, len(rows))
	for _, r := range rows {
		out[r.ID] = r
	}
	return out, nil
}

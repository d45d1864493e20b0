-- +goose Up
-- A site is taken offline for a while: visitors read offline_words instead of any of its pages. What is published stays.
ALTER TABLE sites ADD COLUMN offline_at timestamptz, ADD COLUMN offline_words text NOT NULL DEFAULT '';
CREATE OR REPLACE VIEW shown_sites AS SELECT id, slug, release, counts_visits, offline_at, offline_words FROM sites
	WHERE deleted_at IS NULL AND archived_at IS NULL AND maker IS NULL;

-- +goose Down
DROP VIEW shown_sites;
CREATE VIEW shown_sites AS SELECT id, slug, release, counts_visits FROM sites WHERE deleted_at IS NULL AND archived_at IS NULL AND maker IS NULL;
COMMENT ON VIEW shown_sites IS 'Sites that visitors may see something of: neither deleted nor archived.';
ALTER TABLE sites DROP COLUMN offline_at, DROP COLUMN offline_words;

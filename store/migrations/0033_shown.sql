-- +goose Up
-- The programs that share this database, while they run.
CREATE TABLE processes (
	id      text PRIMARY KEY,
	seen_at timestamptz NOT NULL DEFAULT now()
);
-- The process that is still making a site, of a file or as a copy: if that ends, so does the site.
ALTER TABLE sites ADD COLUMN maker text;

-- The sites that visitors find: whatever publishes, shows, searches, counts or plans asks here.
CREATE VIEW shown_sites AS SELECT id, slug, release, counts_visits FROM sites WHERE deleted_at IS NULL AND archived_at IS NULL AND maker IS NULL;

-- Addresses that sites had before, which lead to those that they have now until somebody takes them.
CREATE TABLE former_addresses (
	slug    text PRIMARY KEY,
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	left_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON former_addresses (site_id);

-- Nothing of what was deleted waits to be shown again.
DELETE FROM plans WHERE site_id IN (SELECT id FROM sites WHERE deleted_at IS NOT NULL);
DELETE FROM domains WHERE site_id IN (SELECT id FROM sites WHERE deleted_at IS NOT NULL);
DELETE FROM previews WHERE site_id IN (SELECT id FROM sites WHERE deleted_at IS NOT NULL);
DELETE FROM editions WHERE page_id IN (SELECT p.id FROM pages p JOIN sites s ON s.id = p.site_id WHERE s.deleted_at IS NOT NULL);
DELETE FROM published WHERE site_id IN (SELECT id FROM sites WHERE deleted_at IS NOT NULL);
DELETE FROM releases WHERE site_id IN (SELECT id FROM sites WHERE deleted_at IS NOT NULL);
UPDATE pages SET published_at = NULL, published_seq = NULL, published_look = NULL WHERE site_id IN (SELECT id FROM sites WHERE deleted_at IS NOT NULL);
UPDATE sites SET release = NULL WHERE deleted_at IS NOT NULL;
-- Nor what pages with a password say: it isn't searched.
UPDATE published SET name = '', description = '', words = '' WHERE page_id IN (SELECT id FROM pages WHERE lock <> '');

-- +goose Down
DROP TABLE former_addresses;
DROP VIEW shown_sites;
ALTER TABLE sites DROP COLUMN maker;
DROP TABLE processes;

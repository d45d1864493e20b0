-- +goose Up
ALTER TABLE sites
	ADD COLUMN share_picture text NOT NULL DEFAULT '', -- the medium that links are shown with
	ADD COLUMN icon json NOT NULL DEFAULT '{}',
	ADD COLUMN time_zone text NOT NULL DEFAULT '' CHECK (length(time_zone) <= 60),
	ADD COLUMN archived_at timestamptz,
	ADD COLUMN deleted_at timestamptz,
	ADD COLUMN begun boolean NOT NULL DEFAULT false, -- the first steps are done, or not wanted
	DROP CONSTRAINT sites_slug_key;
CREATE UNIQUE INDEX sites_slug ON sites (slug) WHERE deleted_at IS NULL;
UPDATE sites SET begun = true;
ALTER TABLE pages ADD COLUMN edited_at timestamptz NOT NULL DEFAULT now();
UPDATE pages SET edited_at = coalesce((SELECT max(made_at) FROM page_log l WHERE l.page_id = pages.id), now());

-- +goose Down
ALTER TABLE pages DROP COLUMN edited_at;
DELETE FROM sites WHERE deleted_at IS NOT NULL;
DROP INDEX sites_slug;
ALTER TABLE sites DROP COLUMN share_picture, DROP COLUMN icon, DROP COLUMN time_zone, DROP COLUMN archived_at, DROP COLUMN deleted_at, DROP COLUMN begun,
	ADD CONSTRAINT sites_slug_key UNIQUE (slug);

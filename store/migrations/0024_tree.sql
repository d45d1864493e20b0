-- +goose Up
-- Pages stand under one another: an address is that of the page above and a word of its own.
ALTER TABLE pages DROP CONSTRAINT pages_site_id_slug_key, DROP CONSTRAINT pages_slug_check,
	ADD COLUMN parent text REFERENCES pages ON DELETE SET NULL,
	ADD COLUMN deleted_at timestamptz,
	ADD COLUMN in_menu boolean NOT NULL DEFAULT true,
	ADD COLUMN in_footer boolean NOT NULL DEFAULT false,
	ADD COLUMN menu_name text NOT NULL DEFAULT '' CHECK (length(menu_name) <= 120),
	ADD COLUMN lock text NOT NULL DEFAULT '', -- the hash of the password that visitors need, or ''
	ADD CONSTRAINT pages_slug_check CHECK (slug = '' OR slug ~ '^[a-z0-9]+(-[a-z0-9]+)*(/[a-z0-9]+(-[a-z0-9]+)*)*$' AND length(slug) <= 260),
	-- As a unique index, which can't leave rows out and wait for the end of a transaction both.
	ADD CONSTRAINT pages_address EXCLUDE USING btree (site_id WITH =, slug WITH =) WHERE (deleted_at IS NULL) DEFERRABLE INITIALLY DEFERRED;
CREATE INDEX ON pages (deleted_at) WHERE deleted_at IS NOT NULL;

-- Addresses that lead elsewhere: to a page, wherever that is now, or to what somebody entered.
CREATE TABLE redirects (
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	address text NOT NULL CHECK (length(address) BETWEEN 1 AND 260),
	page_id text REFERENCES pages ON DELETE CASCADE,
	target  text NOT NULL DEFAULT '' CHECK (length(target) <= 2000),
	made_at timestamptz NOT NULL DEFAULT now(),
	PRIMARY KEY (site_id, address),
	CHECK ((page_id IS NULL) = (target <> ''))
);

-- +goose Down
DROP TABLE redirects;
DELETE FROM pages WHERE deleted_at IS NOT NULL;
UPDATE pages SET slug = replace(slug, '/', '-');
ALTER TABLE pages DROP CONSTRAINT pages_address, DROP CONSTRAINT pages_slug_check, DROP COLUMN parent, DROP COLUMN deleted_at, DROP COLUMN in_menu,
	DROP COLUMN in_footer, DROP COLUMN menu_name, DROP COLUMN lock,
	ADD CONSTRAINT pages_slug_check CHECK (slug = '' OR slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$' AND length(slug) <= 260),
	ADD CONSTRAINT pages_site_id_slug_key UNIQUE (site_id, slug);

-- +goose Up
-- What a site says about itself, entered once.
ALTER TABLE sites ADD COLUMN facts jsonb NOT NULL DEFAULT '{}';

-- Sections that a site's people keep on the Shelf.
CREATE TABLE kept_sections (
	id         text PRIMARY KEY,
	site_id    text NOT NULL REFERENCES sites ON DELETE CASCADE,
	name       text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
	section    json NOT NULL,
	created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON kept_sections (site_id, created_at DESC);

-- What somebody took from the Shelf, and what they marked as a favourite.
CREATE TABLE shelf_uses (
	user_id   text NOT NULL REFERENCES users ON DELETE CASCADE,
	item      text NOT NULL CHECK (length(item) <= 80),
	used_at   timestamptz,
	favourite boolean NOT NULL DEFAULT false,
	PRIMARY KEY (user_id, item)
);

-- What visitors sent with the forms of published pages.
CREATE TABLE form_entries (
	id      text PRIMARY KEY,
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	form    text NOT NULL CHECK (length(form) BETWEEN 1 AND 120),
	answers json NOT NULL,
	sent_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON form_entries (site_id, sent_at DESC);

-- +goose Down
DROP TABLE form_entries;
DROP TABLE shelf_uses;
DROP TABLE kept_sections;
ALTER TABLE sites DROP COLUMN facts;

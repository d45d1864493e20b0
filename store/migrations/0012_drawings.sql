-- +goose Up
-- What lists of pages show, so that no document has to be read for them.
ALTER TABLE pages ADD COLUMN name text NOT NULL DEFAULT '';
ALTER TABLE pages ADD COLUMN description text NOT NULL DEFAULT '';
UPDATE pages SET name = doc->>'name', description = coalesce(doc->>'description', '');
CREATE INDEX ON pages (site_id, position, slug);

-- Pages drawn small: as of a sequence number, and of the look of the site.
CREATE TABLE page_drawings (
	page_id text PRIMARY KEY REFERENCES pages ON DELETE CASCADE,
	seq     bigint NOT NULL,
	look    text NOT NULL,
	svg     text NOT NULL
);

-- +goose Down
DROP TABLE page_drawings;
ALTER TABLE pages DROP COLUMN description;
ALTER TABLE pages DROP COLUMN name;

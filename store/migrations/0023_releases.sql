-- +goose Up
-- What a site's host shows, as of each publication: content is site.Release. A site without one
-- has nothing published.
CREATE TABLE releases (
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	number  bigint NOT NULL CHECK (number > 0),
	content json NOT NULL,
	note    text NOT NULL CHECK (length(note) <= 300), -- what was done, in words
	made_by text REFERENCES users ON DELETE SET NULL,
	made_at timestamptz NOT NULL DEFAULT now(),
	PRIMARY KEY (site_id, number)
);
ALTER TABLE sites ADD COLUMN release bigint; -- the one that is shown
-- The version of the site that a page was published with.
ALTER TABLE pages ADD COLUMN published_look bigint;

-- +goose Down
ALTER TABLE pages DROP COLUMN published_look;
ALTER TABLE sites DROP COLUMN release;
DROP TABLE releases;

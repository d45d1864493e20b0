-- +goose Up
-- How wide the windows are in which a site's published pages are seen, if it counts that: so many a
-- day and page in steps of 40 px. Nothing is kept of who it was.
ALTER TABLE sites ADD COLUMN counts_visits boolean NOT NULL DEFAULT false;
CREATE TABLE visits (
	page_id text NOT NULL REFERENCES pages ON DELETE CASCADE,
	day date NOT NULL,
	width smallint NOT NULL CHECK (width BETWEEN 0 AND 8000 AND width % 40 = 0),
	n integer NOT NULL DEFAULT 1,
	PRIMARY KEY (page_id, day, width)
);

-- +goose Down
DROP TABLE visits;
ALTER TABLE sites DROP COLUMN counts_visits;

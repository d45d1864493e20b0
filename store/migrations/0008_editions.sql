-- +goose Up
-- What a page was published from, kept while pictures on it lack copies: originals are
-- those pictures' files.
CREATE TABLE editions (
	page_id   text PRIMARY KEY REFERENCES pages ON DELETE CASCADE,
	originals text[] NOT NULL,
	source    json NOT NULL
);

-- +goose Down
DROP TABLE editions;

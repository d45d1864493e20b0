-- +goose Up
-- The language that a site's words are in (BCP 47).
ALTER TABLE sites ADD COLUMN language text NOT NULL DEFAULT 'en' CHECK (language ~ '^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$');

-- What visitors can read of each page, kept as it is published; and the forms on it.
CREATE TABLE published (
	page_id     text PRIMARY KEY REFERENCES pages ON DELETE CASCADE,
	site_id     text NOT NULL REFERENCES sites ON DELETE CASCADE,
	slug        text NOT NULL,
	name        text NOT NULL,
	description text NOT NULL,
	words       text NOT NULL,
	forms       text[] NOT NULL,
	config      regconfig NOT NULL,
	search      tsvector NOT NULL GENERATED ALWAYS AS (setweight(to_tsvector(config, name), 'A') || setweight(to_tsvector(config, description), 'B')
		|| setweight(to_tsvector(config, words), 'C')) STORED
);
CREATE INDEX ON published (site_id);
CREATE INDEX ON published USING gin (search);

-- Links by which anybody who has one can look at a draft. What opens them isn't kept, only its
-- hash (SHA-256).
CREATE TABLE previews (
	id      text PRIMARY KEY,
	token   bytea NOT NULL UNIQUE,
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	page_id text REFERENCES pages ON DELETE CASCADE, -- null opens the whole site
	made_by text NOT NULL REFERENCES users ON DELETE CASCADE,
	made_at timestamptz NOT NULL DEFAULT now(),
	ends_at timestamptz NOT NULL
);
CREATE INDEX ON previews (site_id, made_at DESC);

-- Why an entry looks as if a program had sent it, or ''.
ALTER TABLE form_entries ADD COLUMN suspect text NOT NULL DEFAULT '' CHECK (length(suspect) <= 120);
CREATE INDEX ON form_entries (site_id, form, sent_at DESC);
ALTER TABLE sites ADD COLUMN entry_days integer NOT NULL DEFAULT 365 CHECK (entry_days BETWEEN 1 AND 3650);

-- +goose Down
ALTER TABLE sites DROP COLUMN entry_days;
DROP INDEX form_entries_site_id_form_sent_at_idx;
ALTER TABLE form_entries DROP COLUMN suspect;
DROP TABLE previews;
DROP TABLE published;
ALTER TABLE sites DROP COLUMN language;

-- +goose Up
-- What a kept section is for, and whose it is on all their sites; NULL is the site's alone.
ALTER TABLE kept_sections ADD COLUMN purpose text NOT NULL DEFAULT '' CHECK (length(purpose) <= 40),
	ADD COLUMN owner text REFERENCES users ON DELETE SET NULL;
CREATE INDEX ON kept_sections (owner) WHERE owner IS NOT NULL;

-- +goose Down
ALTER TABLE kept_sections DROP COLUMN purpose, DROP COLUMN owner;

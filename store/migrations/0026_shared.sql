-- +goose Up
-- The sections of a page that stand on others too.
ALTER TABLE pages ADD COLUMN shared text[] NOT NULL DEFAULT '{}';
CREATE INDEX ON pages USING gin (shared);

-- +goose Down
ALTER TABLE pages DROP COLUMN shared;

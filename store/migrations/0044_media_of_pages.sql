-- +goose Up
-- What a page shows of the library, so that it needn't be read to know where a file is used. Ids of media are the
-- texts of its document that look like one, or links to one; what only looks so does no harm.
ALTER TABLE pages ADD COLUMN media text[] NOT NULL DEFAULT '{}';
UPDATE pages SET media = ARRAY (SELECT DISTINCT coalesce(m[1], m[2]) FROM regexp_matches(doc::text, '"(?:file:(m[a-z0-9]+)|(m[a-z0-9]+)")', 'g') m);
CREATE INDEX pages_media ON pages USING gin (media);

-- +goose Down
ALTER TABLE pages DROP COLUMN media;

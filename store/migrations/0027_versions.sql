-- +goose Up
-- Pages as they were, each kept once for all versions that have it so.
CREATE TABLE page_docs (
	page_id text NOT NULL REFERENCES pages ON DELETE CASCADE,
	seq     bigint NOT NULL,
	doc     json NOT NULL,
	PRIMARY KEY (page_id, seq)
);

-- A page as of a place in its log, or a site with all its pages as of one moment.
CREATE TABLE versions (
	id      text PRIMARY KEY,
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	page_id text REFERENCES pages ON DELETE CASCADE, -- null is the whole site
	seq     bigint, -- of the page
	house   json, -- of the site
	pages   jsonb, -- of the site: sequence numbers by page
	kind    text NOT NULL CHECK (kind IN ('named', 'published', 'before', 'hour')),
	note    text NOT NULL DEFAULT '' CHECK (length(note) <= 300),
	made_by text REFERENCES users ON DELETE SET NULL,
	made_at timestamptz NOT NULL DEFAULT now(),
	CHECK ((page_id IS NULL) = (house IS NOT NULL AND pages IS NOT NULL) AND (page_id IS NULL) = (seq IS NULL))
);
CREATE INDEX ON versions (page_id, made_at DESC) WHERE page_id IS NOT NULL;
CREATE INDEX ON versions (site_id, made_at DESC) WHERE page_id IS NULL;

-- +goose Down
DROP TABLE versions;
DROP TABLE page_docs;

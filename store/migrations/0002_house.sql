-- +goose Up
-- Every edit of a site's house style, in order: what it was before and after.
CREATE TABLE house_log (
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	version bigint NOT NULL CHECK (version > 1), -- of the site after it
	user_id text REFERENCES users ON DELETE SET NULL,
	command json, -- null for an undo
	before  json NOT NULL,
	after   json NOT NULL,
	undone  boolean NOT NULL DEFAULT false,
	made_at timestamptz NOT NULL DEFAULT now(),
	PRIMARY KEY (site_id, version)
);

-- +goose Down
DROP TABLE house_log;

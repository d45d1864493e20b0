-- +goose Up
-- Sites that are being made in the background, of a file in the media folder or of another site, by who wants them.
CREATE TABLE works (
	id text PRIMARY KEY,
	user_id text NOT NULL REFERENCES users (id) ON DELETE CASCADE,
	name text NOT NULL,
	slug text NOT NULL DEFAULT '',
	file text NOT NULL DEFAULT '',
	source text REFERENCES sites (id) ON DELETE CASCADE,
	address text NOT NULL DEFAULT '',
	state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'done', 'failed')),
	stopping boolean NOT NULL DEFAULT false,
	done integer NOT NULL DEFAULT 0,
	parts integer NOT NULL DEFAULT 0,
	problem text NOT NULL DEFAULT '',
	lost text NOT NULL DEFAULT '',
	made text REFERENCES sites (id) ON DELETE CASCADE,
	begun_at timestamptz NOT NULL DEFAULT now()
);
COMMENT ON TABLE works IS 'Sites that are made in the background, of a file in the media folder or of another site (source), for who wants them: how far that has come, and what became of it.';
CREATE INDEX works_of_user ON works (user_id, begun_at);
CREATE INDEX works_of_source ON works (source);
CREATE INDEX works_of_made ON works (made);

-- +goose Down
DROP TABLE works;

-- +goose Up
CREATE TABLE users (
	id            text PRIMARY KEY,
	email         text NOT NULL CHECK (email = lower(email) AND length(email) BETWEEN 3 AND 254),
	name          text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
	password_hash text NOT NULL,
	created_at    timestamptz NOT NULL DEFAULT now(),
	UNIQUE (email)
);

CREATE TABLE sites (
	id         text PRIMARY KEY,
	slug       text NOT NULL UNIQUE CHECK (slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$' AND length(slug) <= 60),
	name       text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
	house      jsonb NOT NULL,
	zones      jsonb NOT NULL,
	version    bigint NOT NULL DEFAULT 1,
	created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE members (
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	user_id text NOT NULL REFERENCES users ON DELETE CASCADE,
	role    text NOT NULL CHECK (role IN ('designer', 'writer')),
	PRIMARY KEY (site_id, user_id)
);
CREATE INDEX ON members (user_id);

CREATE TABLE pages (
	id           text PRIMARY KEY,
	site_id      text NOT NULL REFERENCES sites ON DELETE CASCADE,
	slug         text NOT NULL CHECK (slug = '' OR slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$' AND length(slug) <= 60), -- '' is the home page
	position     int NOT NULL DEFAULT 0,
	doc          json NOT NULL,
	seq          bigint NOT NULL DEFAULT 0 CHECK (seq >= 0), -- of the last log entry
	published_at timestamptz,
	published_seq bigint,
	UNIQUE (site_id, slug)
);

-- Every edit of a page, in order. An undo is an entry of its own whose steps are
-- the inverse of another's.
CREATE TABLE page_log (
	page_id text NOT NULL REFERENCES pages ON DELETE CASCADE,
	seq     bigint NOT NULL CHECK (seq > 0),
	user_id text REFERENCES users ON DELETE SET NULL,
	kind    text NOT NULL CHECK (kind IN ('edit', 'undo', 'redo')),
	target  bigint, -- the entry that an undo takes back, or the undo that a redo does
	undone  boolean NOT NULL DEFAULT false, -- taken back by a later entry
	command json,
	steps   json NOT NULL,
	inverse json NOT NULL,
	nodes   text[] NOT NULL,
	made_at timestamptz NOT NULL DEFAULT now(),
	PRIMARY KEY (page_id, seq),
	CHECK ((kind = 'edit') = (target IS NULL))
);

CREATE TABLE media (
	id         text PRIMARY KEY,
	site_id    text NOT NULL REFERENCES sites ON DELETE CASCADE,
	name       text NOT NULL CHECK (length(name) BETWEEN 1 AND 200),
	type       text NOT NULL CHECK (type IN ('image/jpeg', 'image/png', 'image/webp', 'image/gif', 'image/svg+xml')),
	width      int NOT NULL CHECK (width > 0),
	height     int NOT NULL CHECK (height > 0),
	alt        text NOT NULL DEFAULT '',
	variants   jsonb NOT NULL, -- [{"file": …, "width": …}], narrow to wide
	created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON media (site_id, created_at DESC);

-- As alexedwards/scs expects it.
CREATE TABLE sessions (
	token  text PRIMARY KEY,
	data   bytea NOT NULL,
	expiry timestamptz NOT NULL
);
CREATE INDEX ON sessions (expiry);

-- +goose Down
DROP TABLE sessions, media, page_log, pages, members, sites, users;

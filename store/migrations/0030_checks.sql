-- +goose Up
-- Findings that somebody said are meant to be so: until what they are about changes, which
-- content tells.
CREATE TABLE quiet_findings (
	page_id text NOT NULL REFERENCES pages ON DELETE CASCADE,
	rule text NOT NULL,
	node text NOT NULL,
	other text NOT NULL,
	part text NOT NULL,
	content text NOT NULL,
	reason text NOT NULL,
	said_by text REFERENCES users ON DELETE SET NULL,
	said_at timestamptz NOT NULL DEFAULT now(),
	PRIMARY KEY (page_id, rule, node, other, part)
);
-- What was found on a page as of a state of it and of the site, for lists of pages.
CREATE TABLE page_findings (
	page_id text PRIMARY KEY REFERENCES pages ON DELETE CASCADE,
	seq bigint NOT NULL,
	look text NOT NULL,
	broken integer NOT NULL,
	doubtful integer NOT NULL,
	hints integer NOT NULL
);

-- +goose Down
DROP TABLE page_findings;
DROP TABLE quiet_findings;

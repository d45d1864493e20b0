-- +goose Up
-- What is to be published at a time, or withdrawn: no pages are all that differ then.
CREATE TABLE plans (
	id      text PRIMARY KEY,
	site_id text NOT NULL REFERENCES sites ON DELETE CASCADE,
	act     text NOT NULL CHECK (act IN ('publish', 'withdraw')),
	pages   text[] NOT NULL,
	at      timestamptz NOT NULL,
	made_by text REFERENCES users ON DELETE SET NULL,
	problem text NOT NULL DEFAULT '' -- why it couldn't be done
);
CREATE INDEX ON plans (site_id, at);

-- Hosts of a site's own: what is at one is shown once its records were found.
CREATE TABLE domains (
	host     text PRIMARY KEY CHECK (host = lower(host) AND length(host) BETWEEN 4 AND 253),
	site_id  text NOT NULL REFERENCES sites ON DELETE CASCADE,
	token    text NOT NULL, -- what the TXT record has to say
	found_at timestamptz
);
CREATE INDEX ON domains (site_id);

-- +goose Down
DROP TABLE domains;
DROP TABLE plans;

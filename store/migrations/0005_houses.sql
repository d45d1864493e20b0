-- +goose Up
-- House styles that a site keeps beside its own, to be tried on.
CREATE TABLE kept_houses (
	id         text PRIMARY KEY,
	site_id    text NOT NULL REFERENCES sites ON DELETE CASCADE,
	name       text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
	house      json NOT NULL,
	created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON kept_houses (site_id, created_at DESC);

-- +goose Down
DROP TABLE kept_houses;

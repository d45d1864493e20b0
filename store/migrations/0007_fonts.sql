-- +goose Up
-- Font files that a site's people uploaded: file is what browsers get, original what
-- subsets are made from.
CREATE TABLE site_fonts (
	id           text PRIMARY KEY,
	site_id      text NOT NULL REFERENCES sites ON DELETE CASCADE,
	family       text NOT NULL CHECK (length(family) BETWEEN 1 AND 40),
	italic       boolean NOT NULL,
	least_weight integer NOT NULL CHECK (least_weight BETWEEN 1 AND 1000),
	most_weight  integer NOT NULL CHECK (most_weight BETWEEN least_weight AND 1000),
	file         text NOT NULL,
	original     text NOT NULL,
	created_at   timestamptz NOT NULL DEFAULT now(),
	UNIQUE (site_id, family, italic, least_weight, most_weight)
);

-- +goose Down
DROP TABLE site_fonts;

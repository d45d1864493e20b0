-- +goose Up
-- What is counted of visits: by day, never by person. Who was here today is a hash with the salt of the day, gone
-- with it.
CREATE TABLE counts (
	site_id text NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
	day date NOT NULL,
	what text NOT NULL,
	key text NOT NULL CHECK (length(key) <= 200),
	n bigint NOT NULL,
	PRIMARY KEY (site_id, what, day, key)
);
COMMENT ON TABLE counts IS 'How often something happened on a site on a day: views, visits, from where, searches in vain.';
CREATE UNLOGGED TABLE visit_marks (
	site_id text NOT NULL,
	day date NOT NULL,
	mark bytea NOT NULL,
	PRIMARY KEY (day, site_id, mark)
);
COMMENT ON TABLE visit_marks IS 'Who was on a site today, as a hash with the salt of the day.';

-- +goose Down
DROP TABLE visit_marks, counts;

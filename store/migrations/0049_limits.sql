-- +goose Up
-- What was tried how often, over all processes. Keys are hashes with a salt of the day, since networks are among
-- them; both are gone after a crash, or the day after.
CREATE UNLOGGED TABLE attempts (
	key bytea PRIMARY KEY,
	until timestamptz NOT NULL
);
CREATE INDEX attempts_until ON attempts (until);
COMMENT ON TABLE attempts IS 'Until when what was tried uses up what may be tried at once, by a hash of who and what.';
CREATE TABLE salts (
	day date PRIMARY KEY,
	salt bytea NOT NULL
);
COMMENT ON TABLE salts IS 'Of hashes of a day, thrown away after it.';

-- +goose Down
DROP TABLE salts, attempts;

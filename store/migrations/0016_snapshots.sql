-- +goose Up
-- A page as it was at a place in its log: what is before the oldest one that has no name isn't
-- in the log any more. Those with a name are versions that people keep.
CREATE TABLE page_snapshots (
	page_id text NOT NULL REFERENCES pages ON DELETE CASCADE,
	seq     bigint NOT NULL CHECK (seq >= 0),
	name    text NOT NULL DEFAULT '' CHECK (length(name) <= 120),
	doc     json NOT NULL,
	made_at timestamptz NOT NULL DEFAULT now(),
	PRIMARY KEY (page_id, seq, name)
);
CREATE INDEX ON page_log (made_at);

-- +goose Down
DROP INDEX page_log_made_at_idx;
DROP TABLE page_snapshots;

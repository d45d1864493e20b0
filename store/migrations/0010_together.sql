-- +goose Up
-- Entries of several logs that belong together and are taken back together have one act.
ALTER TABLE page_log ADD COLUMN act text;
CREATE INDEX ON page_log (act) WHERE act IS NOT NULL;
ALTER TABLE house_log ADD COLUMN act text;
CREATE INDEX ON house_log (act) WHERE act IS NOT NULL;
-- Everybody takes back their own edits.
CREATE INDEX ON page_log (page_id, user_id, seq DESC) WHERE NOT undone;
-- How many edits of a page stand: those in its log that weren't taken back.
ALTER TABLE pages ADD COLUMN edits bigint NOT NULL DEFAULT 0;
UPDATE pages SET edits = (SELECT count(*) FROM page_log l WHERE l.page_id = pages.id AND l.kind = 'edit' AND NOT l.undone);

-- +goose Down
ALTER TABLE pages DROP COLUMN edits;
ALTER TABLE house_log DROP COLUMN act;
ALTER TABLE page_log DROP COLUMN act;

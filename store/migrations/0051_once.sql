-- +goose Up
-- What was sent twice from one page, such as by two presses or by a browser that tried again, is kept once.
ALTER TABLE form_entries ADD COLUMN once bytea;
CREATE UNIQUE INDEX form_entries_once ON form_entries (once) WHERE once IS NOT NULL;

-- +goose Down
ALTER TABLE form_entries DROP COLUMN once;

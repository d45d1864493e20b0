-- +goose Up
-- Somebody who may not publish says that a page is ready: who and as of which edit. It counts until the page is
-- published as of that edit or a later one.
ALTER TABLE pages ADD COLUMN asked_by text NOT NULL DEFAULT '', ADD COLUMN asked_seq bigint;

-- +goose Down
ALTER TABLE pages DROP COLUMN asked_by, DROP COLUMN asked_seq;

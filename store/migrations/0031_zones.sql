-- +goose Up
-- The zones as they were before they were changed last, to be had back.
ALTER TABLE sites ADD COLUMN zones_before jsonb;

-- +goose Down
ALTER TABLE sites DROP COLUMN zones_before;

-- +goose Up
-- The fields of the forms that are published, in their order, by form: only they are taken. Null is
-- that it isn't known yet, of pages published before.
ALTER TABLE published ADD COLUMN fields jsonb;
CREATE INDEX ON media (uploaded_by);

-- +goose Down
DROP INDEX media_uploaded_by_idx;
ALTER TABLE published DROP COLUMN fields;

-- +goose Up
-- The keys that somebody gave to commands, by the commands' ids; "" is none.
ALTER TABLE users ADD COLUMN keys jsonb NOT NULL DEFAULT '{}' CHECK (pg_column_size(keys) <= 8192);

-- +goose Down
ALTER TABLE users DROP COLUMN keys;

-- +goose Up
-- Where the Tray stands on the Bench, for each person.
ALTER TABLE users ADD COLUMN tray text NOT NULL DEFAULT '' CHECK (tray IN ('', 'below', 'beside'));

-- +goose Down
ALTER TABLE users DROP COLUMN tray;

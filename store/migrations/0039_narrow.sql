-- +goose Up
-- Whether somebody looked at a page of the site in its narrowest zone: one of its first steps.
ALTER TABLE sites ADD COLUMN seen_narrow boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE sites DROP COLUMN seen_narrow;

-- +goose Up
-- A plan that is carried out at once, because it is long, and how far a plan that is carried out has come.
ALTER TABLE plans ADD COLUMN at_once boolean NOT NULL DEFAULT false,
	ADD COLUMN done integer NOT NULL DEFAULT 0,
	ADD COLUMN parts integer NOT NULL DEFAULT 0;

-- +goose Down
DELETE FROM plans WHERE at_once;
ALTER TABLE plans DROP COLUMN at_once, DROP COLUMN done, DROP COLUMN parts;

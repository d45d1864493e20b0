-- +goose Up
-- What kind of business a site is for: it chooses stand-in words and pictures.
ALTER TABLE sites ADD COLUMN business text NOT NULL DEFAULT '' CHECK (length(business) <= 20);

-- +goose Down
ALTER TABLE sites DROP COLUMN business;

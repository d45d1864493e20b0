-- +goose Up
-- What lists of pages choose pages by, and the picture that stands for each there.
ALTER TABLE pages ADD COLUMN categories text[] NOT NULL DEFAULT '{}', ADD COLUMN picture text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE pages DROP COLUMN categories, DROP COLUMN picture;

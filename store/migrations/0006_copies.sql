-- +goose Up
-- How many copies of a picture are still to be made in the background.
ALTER TABLE media ADD COLUMN copies_left integer NOT NULL DEFAULT 0 CHECK (copies_left >= 0);
-- AVIF can be uploaded, and videos.
ALTER TABLE media DROP CONSTRAINT media_type_check;
ALTER TABLE media ADD CONSTRAINT media_type_check CHECK (type IN ('image/jpeg', 'image/png', 'image/webp', 'image/gif', 'image/svg+xml', 'image/avif', 'video/webm', 'video/mp4'));

-- +goose Down
ALTER TABLE media DROP COLUMN copies_left;

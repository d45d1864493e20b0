-- +goose Up
-- The library keeps what is listened to and what links lead to. Neither has a size in px.
ALTER TABLE media DROP CONSTRAINT media_type_check, DROP CONSTRAINT media_width_check, DROP CONSTRAINT media_height_check;
ALTER TABLE media ADD CONSTRAINT media_type_check CHECK (type ~ '^(image|video|audio|application|text)/[a-z0-9.+-]{1,100}$' AND type NOT IN ('text/html', 'application/xhtml+xml', 'text/javascript')),
	ADD CONSTRAINT media_width_check CHECK (width >= 0), ADD CONSTRAINT media_height_check CHECK (height >= 0);
-- Folders of the library by name, and what was deleted and can still be had back.
ALTER TABLE media ADD COLUMN folder text NOT NULL DEFAULT '' CHECK (length(folder) <= 60),
	ADD COLUMN deleted_at timestamptz;

-- +goose Down
DELETE FROM media WHERE deleted_at IS NOT NULL OR width = 0;
ALTER TABLE media DROP COLUMN folder, DROP COLUMN deleted_at;

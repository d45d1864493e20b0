-- +goose Up
-- The day that a page is of, as lists of pages show it: as the page says, or that on which it was begun.
ALTER TABLE pages ADD COLUMN dated text NOT NULL DEFAULT '', ADD COLUMN begun_at timestamptz NOT NULL DEFAULT now();
-- The first of its edits is as near as is known of pages that are there.
UPDATE pages p SET begun_at = least(p.edited_at, coalesce((SELECT min(made_at) FROM page_log WHERE page_id = p.id), p.edited_at));

-- +goose Down
ALTER TABLE pages DROP COLUMN dated, DROP COLUMN begun_at;

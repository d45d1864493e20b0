-- +goose Up
-- What the site's menus hold beside pages, by menu.
ALTER TABLE sites ADD COLUMN menus json NOT NULL DEFAULT '{}';

-- +goose Down
ALTER TABLE sites DROP COLUMN menus;

-- +goose Up
-- Whether new pages are offered to begin as this one: '' no, 'site' on its site, 'all' on all sites of begins_by too.
ALTER TABLE pages ADD COLUMN begins text NOT NULL DEFAULT '' CHECK (begins IN ('', 'site', 'all')),
	ADD COLUMN begins_by text REFERENCES users (id) ON DELETE SET NULL;
CREATE INDEX pages_begins_by ON pages (begins_by) WHERE begins_by IS NOT NULL;

-- +goose Down
ALTER TABLE pages DROP COLUMN begins, DROP COLUMN begins_by;

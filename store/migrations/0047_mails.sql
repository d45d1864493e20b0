-- +goose Up
-- Mails that go out, from a queue: each to one person, gone with the entry that it tells of.
CREATE TABLE mails (
	id text PRIMARY KEY,
	site_id text NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
	kind text NOT NULL CHECK (kind IN ('entry', 'invitation', 'trial')),
	entry_id text REFERENCES form_entries (id) ON DELETE CASCADE,
	recipient text NOT NULL CHECK (length(recipient) <= 254),
	reply_to text NOT NULL DEFAULT '' CHECK (length(reply_to) <= 254),
	letter json NOT NULL,
	made_at timestamptz NOT NULL DEFAULT now(),
	sent_at timestamptz,
	tried integer NOT NULL DEFAULT 0,
	problem text NOT NULL DEFAULT '',
	failed boolean NOT NULL DEFAULT false
);
CREATE INDEX mails_of_sites ON mails (site_id, made_at DESC);
CREATE INDEX mails_of_entries ON mails (entry_id);
ALTER TABLE sites ADD COLUMN mail_to text NOT NULL DEFAULT '' CHECK (length(mail_to) <= 2000);
COMMENT ON TABLE mails IS 'Mails to people, with how far each came; sent from a queue.';

-- +goose Down
ALTER TABLE sites DROP COLUMN mail_to;
DROP TABLE mails;

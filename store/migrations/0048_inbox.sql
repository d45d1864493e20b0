-- +goose Up
-- The Inbox: where an entry came from, starred, whose it is, deleted; who has read it, notes, and what of a
-- form's entries is its own.
ALTER TABLE form_entries ADD COLUMN sent_from text NOT NULL DEFAULT '' CHECK (length(sent_from) <= 600);
ALTER TABLE form_entries ADD COLUMN starred boolean NOT NULL DEFAULT false;
ALTER TABLE form_entries ADD COLUMN assigned_to text REFERENCES users (id) ON DELETE SET NULL;
ALTER TABLE form_entries ADD COLUMN deleted_at timestamptz;
-- Words of letters and digits: an address is found by each of its parts.
-- +goose StatementBegin
CREATE FUNCTION answer_words(answers json) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE RETURN (
	SELECT coalesce(regexp_replace(string_agg(a ->> 'value', ' '), '[^[:alnum:]]+', ' ', 'g'), '') FROM json_array_elements(answers) a);
-- +goose StatementEnd
ALTER TABLE form_entries ADD COLUMN found tsvector GENERATED ALWAYS AS (to_tsvector('simple', answer_words(answers))) STORED;
CREATE INDEX form_entries_found ON form_entries USING gin (found);
-- What was sent before somebody joined is read.
ALTER TABLE members ADD COLUMN joined_at timestamptz NOT NULL DEFAULT now();
CREATE TABLE entry_reads (
	entry_id text NOT NULL REFERENCES form_entries (id) ON DELETE CASCADE,
	user_id text NOT NULL REFERENCES users (id) ON DELETE CASCADE,
	read boolean NOT NULL,
	PRIMARY KEY (user_id, entry_id)
);
CREATE INDEX entry_reads_of_entries ON entry_reads (entry_id);
COMMENT ON TABLE entry_reads IS 'Who has read which entry, or called it unread.';
CREATE TABLE entry_notes (
	id text PRIMARY KEY,
	entry_id text NOT NULL REFERENCES form_entries (id) ON DELETE CASCADE,
	user_id text REFERENCES users (id) ON DELETE SET NULL,
	words text NOT NULL CHECK (length(words) BETWEEN 1 AND 4000),
	made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX entry_notes_of_entries ON entry_notes (entry_id, made_at);
COMMENT ON TABLE entry_notes IS 'What people of a site noted beside an entry.';
CREATE TABLE form_settings (
	site_id text NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
	form text NOT NULL CHECK (length(form) BETWEEN 1 AND 120),
	days integer CHECK (days BETWEEN 1 AND 3650),
	mail_to text CHECK (length(mail_to) <= 2000),
	PRIMARY KEY (site_id, form)
);
COMMENT ON TABLE form_settings IS 'What of a form differs from its site: how long entries are kept, and where they are sent on to.';
ALTER TABLE mails DROP CONSTRAINT mails_kind_check;
ALTER TABLE mails ADD CONSTRAINT mails_kind_check CHECK (kind IN ('entry', 'invitation', 'trial', 'answer', 'copy'));
CREATE INDEX copies_to ON mails (lower(recipient), made_at) WHERE kind = 'copy';
ALTER TABLE mails ADD COLUMN made_by text REFERENCES users (id) ON DELETE SET NULL;
ALTER TABLE sites ADD COLUMN mail_name text NOT NULL DEFAULT '' CHECK (length(mail_name) <= 120);
ALTER TABLE sites ADD COLUMN mail_reply text NOT NULL DEFAULT '' CHECK (length(mail_reply) <= 254);

-- +goose Down
ALTER TABLE sites DROP COLUMN mail_reply, DROP COLUMN mail_name;
DROP INDEX copies_to;
ALTER TABLE mails DROP COLUMN made_by;
DELETE FROM mails WHERE kind IN ('answer', 'copy');
ALTER TABLE mails DROP CONSTRAINT mails_kind_check;
ALTER TABLE mails ADD CONSTRAINT mails_kind_check CHECK (kind IN ('entry', 'invitation', 'trial'));
DROP TABLE form_settings, entry_notes, entry_reads;
ALTER TABLE members DROP COLUMN joined_at;
ALTER TABLE form_entries DROP COLUMN found, DROP COLUMN deleted_at, DROP COLUMN assigned_to, DROP COLUMN starred, DROP COLUMN sent_from;
DROP FUNCTION answer_words(json);

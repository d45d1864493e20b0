-- +goose Up
-- Sessions of an earlier epoch have ended: it grows with every new password.
ALTER TABLE users ADD COLUMN epoch bigint NOT NULL DEFAULT 1;
ALTER TABLE users ADD COLUMN disabled_at timestamptz;
-- Operators run the program: they see what failed, on any site, and nothing else of it.
ALTER TABLE users ADD COLUMN operator boolean NOT NULL DEFAULT false;

ALTER TABLE members DROP CONSTRAINT members_role_check;
ALTER TABLE members ADD CONSTRAINT members_role_check CHECK (role IN ('owner', 'designer', 'writer'));
-- Whoever designed a site first is its owner.
UPDATE members m SET role = 'owner' WHERE role = 'designer' AND user_id = (SELECT u.id FROM members n JOIN users u ON u.id = n.user_id
	WHERE n.site_id = m.site_id AND n.role = 'designer' ORDER BY u.created_at, u.id LIMIT 1);

-- What happens once in the life of a database.
CREATE TABLE milestones (
	name       text PRIMARY KEY,
	reached_at timestamptz NOT NULL DEFAULT now()
);
INSERT INTO milestones (name) SELECT 'demo' FROM sites WHERE slug = 'skerry-line';

-- Who did what that others may have to account for; kept a year. Names and addresses are
-- as they were then.
CREATE TABLE audit (
	id      bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
	at      timestamptz NOT NULL DEFAULT now(),
	site_id text REFERENCES sites ON DELETE SET NULL,
	user_id text REFERENCES users ON DELETE SET NULL,
	who     text NOT NULL, -- the email, as it was typed where nobody signed in
	act     text NOT NULL CHECK (length(act) <= 60),
	about   text NOT NULL DEFAULT '', -- the page, the file, the person
	address text NOT NULL DEFAULT '' -- the client's
);
CREATE INDEX ON audit (site_id, at DESC);
CREATE INDEX ON audit (at);

-- Tokens are kept as hashes from now on.
DELETE FROM sessions;

-- +goose Down
DROP TABLE audit;
DROP TABLE milestones;
UPDATE members SET role = 'designer' WHERE role = 'owner';
ALTER TABLE members DROP CONSTRAINT members_role_check;
ALTER TABLE members ADD CONSTRAINT members_role_check CHECK (role IN ('designer', 'writer'));
ALTER TABLE users DROP COLUMN operator;
ALTER TABLE users DROP COLUMN disabled_at;
ALTER TABLE users DROP COLUMN epoch;

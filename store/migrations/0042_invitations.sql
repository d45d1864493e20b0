-- +goose Up
CREATE TABLE invitations (
	id text PRIMARY KEY,
	token bytea NOT NULL UNIQUE,
	site_id text NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
	email text NOT NULL,
	role text NOT NULL CHECK (role IN ('owner', 'designer', 'writer')),
	made_by text NOT NULL REFERENCES users (id) ON DELETE CASCADE,
	made_at timestamptz NOT NULL DEFAULT now(),
	ends_at timestamptz NOT NULL,
	UNIQUE (site_id, email)
);
COMMENT ON TABLE invitations IS 'Links by which people join a site in a role, each for one email and by a hash of what is in it.';
CREATE INDEX invitations_made_by ON invitations (made_by);

-- +goose Down
DROP TABLE invitations;

-- +goose Up
-- Anybody may say that a host is theirs; it is shown by whoever proved it, which is looked at again
-- every day.
ALTER TABLE domains DROP CONSTRAINT domains_pkey, ADD PRIMARY KEY (host, site_id), ADD COLUMN failing_since timestamptz;
CREATE UNIQUE INDEX domains_proved ON domains (host) WHERE found_at IS NOT NULL;

-- +goose Down
DELETE FROM domains d WHERE EXISTS (SELECT FROM domains o WHERE o.host = d.host AND o.site_id <> d.site_id AND (o.found_at IS NOT NULL OR d.found_at IS NULL AND o.site_id < d.site_id));
DROP INDEX domains_proved;
ALTER TABLE domains DROP CONSTRAINT domains_pkey, DROP COLUMN failing_since, ADD PRIMARY KEY (host);

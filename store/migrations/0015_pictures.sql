-- +goose Up
ALTER TABLE media ADD COLUMN bytes bigint NOT NULL DEFAULT 0 CHECK (bytes >= 0); -- of all its files
ALTER TABLE media ADD COLUMN uploaded_by text REFERENCES users ON DELETE SET NULL;
ALTER TABLE media ADD COLUMN problem text NOT NULL DEFAULT '' CHECK (length(problem) <= 500); -- why copies can't be made

-- Processor time that uploads took, by hour. No user is the program itself.
CREATE TABLE picture_work (
	site_id   text NOT NULL REFERENCES sites ON DELETE CASCADE,
	user_id   text NOT NULL,
	hour      timestamptz NOT NULL,
	opening   bigint NOT NULL DEFAULT 0, -- ms
	copying   bigint NOT NULL DEFAULT 0,
	PRIMARY KEY (site_id, user_id, hour)
);

-- +goose Down
DROP TABLE picture_work;
ALTER TABLE media DROP COLUMN problem;
ALTER TABLE media DROP COLUMN uploaded_by;
ALTER TABLE media DROP COLUMN bytes;

-- +goose Up
-- The checks of a site's pages that are under way in the background: how far they have come, and
-- whether somebody wants them to end.
CREATE TABLE sweeps (
  site_id text PRIMARY KEY REFERENCES sites ON DELETE CASCADE,
  done integer NOT NULL DEFAULT 0 CHECK (done >= 0),
  pages integer NOT NULL CHECK (pages >= done),
  stopping boolean NOT NULL DEFAULT false,
  begun_at timestamptz NOT NULL DEFAULT now()
);

-- +goose Down
DROP TABLE sweeps;

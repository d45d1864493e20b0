-- +goose Up
-- What was sent from a preview, to try a form, is kept apart from what visitors sent.
ALTER TABLE form_entries ADD COLUMN trial boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE form_entries DROP COLUMN trial;

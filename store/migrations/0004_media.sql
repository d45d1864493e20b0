-- +goose Up
-- What is kept in sight when a picture is cropped, and where what was uploaded is kept,
-- so that it can be turned and cropped again without loss.
ALTER TABLE media ADD COLUMN focal text NOT NULL DEFAULT '50% 50%' CHECK (length(focal) <= 20);
ALTER TABLE media ADD COLUMN original text NOT NULL DEFAULT '' CHECK (length(original) <= 120);

-- +goose Down
ALTER TABLE media DROP COLUMN original;
ALTER TABLE media DROP COLUMN focal;

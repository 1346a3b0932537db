-- +goose Up
-- What the one who runs the unit is told when it goes back.
ALTER TABLE jobs ADD COLUMN operator_note text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE jobs DROP COLUMN operator_note;

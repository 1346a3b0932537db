-- +goose Up
-- Why a unit could not be run as it came.
ALTER TABLE units ADD COLUMN no_before text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN no_before;

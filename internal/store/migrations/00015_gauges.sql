-- +goose Up
-- Why nobody at the machine can be asked what its gauges show.
ALTER TABLE units ADD COLUMN not_asked text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN not_asked;

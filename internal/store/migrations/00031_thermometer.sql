-- +goose Up
-- What the temperatures of an attempt were read with: how far a hold can be told from cooling
-- rests on it.
ALTER TABLE attempts ADD COLUMN thermometer text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE attempts DROP COLUMN thermometer;

-- +goose Up
-- What its maker rates the unit for, beside what the machine asks of it.
ALTER TABLE units ADD COLUMN rated_pressure text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN rated_pressure;

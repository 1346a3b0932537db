-- +goose Up
-- How a job ends for a unit, and how long the steps of its test were held.
ALTER TABLE units
    ADD COLUMN ending text NOT NULL DEFAULT '',
    ADD COLUMN ending_note text NOT NULL DEFAULT '';
ALTER TABLE points
    ADD COLUMN hold_from timestamptz,
    ADD COLUMN hold_to timestamptz,
    ADD COLUMN not_applicable text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN ending, DROP COLUMN ending_note;
ALTER TABLE points DROP COLUMN hold_from, DROP COLUMN hold_to, DROP COLUMN not_applicable;

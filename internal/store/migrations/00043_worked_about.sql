-- +goose Up
-- What of a unit a calculation is about, and where the unit had its inputs from.
ALTER TABLE worked_figures
    ADD COLUMN unit int NOT NULL DEFAULT 0,
    ADD COLUMN about text NOT NULL DEFAULT '',
    ADD COLUMN whence jsonb;

-- +goose Down
ALTER TABLE worked_figures DROP COLUMN unit, DROP COLUMN about, DROP COLUMN whence;
